package model

import (
	"fmt"
	"runtime"
	"testing"

	"openplot/core/doc"
	"openplot/demo"
	"openplot/memory"
	"openplot/site"
	"openplot/store"
)

// live is the heap that is in use once what isn't needed is gone, in bytes.
func live() int64 {
	runtime.GC()
	runtime.GC()
	var m runtime.MemStats
	runtime.ReadMemStats(&m)
	return int64(m.HeapAlloc)
}

// What scenes are counted with is about what they take.
func TestScenesWeigh(t *testing.T) {
	budget := memory.New(4 << 30)
	w, err := NewWorkshop(t.TempDir(), "/media/", nil, budget, nil)
	if err != nil {
		t.Fatal(err)
	}
	st := &store.Site{Site: *demo.Site()}
	stage := w.Stage(st, site.Source{Site: &st.Site}, "")
	var pages []*doc.Page
	for _, p := range demo.Pages(nil) {
		pages = append(pages, p.Page)
	}
	look := func(on *Stage) {
		for _, p := range pages {
			for _, sec := range p.Sections {
				sc := on.scene(p, sec)
				for _, width := range []float64{375, 800, 1280, 1440} {
					sc.at(width)
				}
			}
		}
	}
	look(stage.Passing()) // fonts and shaped text stay
	before := live()
	look(stage)
	took := live() - before
	if share := float64(budget.Used()) / float64(took); share < 0.5 || share > 2 {
		t.Errorf("%d scenes take %d kB and are counted with %d", budget.Len(), took>>10, budget.Used()>>10)
	}
	runtime.KeepAlive(fmt.Sprint(stage, w))
}
