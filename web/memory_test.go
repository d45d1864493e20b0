package web

import (
	"encoding/json"
	"fmt"
	"net/http"
	"net/url"
	"os"
	"runtime"
	"testing"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/tree"
)

// heap is what is in use once what isn't needed is gone, in MB.
func heap() float64 {
	runtime.GC()
	runtime.GC()
	var m runtime.MemStats
	runtime.ReadMemStats(&m)
	return float64(m.HeapAlloc) / (1 << 20)
}

// However many edits are made of a large page, what is remembered of it is of the page as it is:
// after the first hundred the heap stays as it is. OPENPLOT_MEASURE makes 2,000 of them.
func TestEditsLeaveNothingBehind(t *testing.T) {
	p := beginAlone(t)
	page := &doc.Page{ID: "p9", Name: "Large", Title: "Large"}
	for i := range 10 {
		s := &doc.Section{ID: fmt.Sprint("s", i), Name: "Section", Arrangement: doc.Columns}
		for k := range 30 {
			s.Blocks = append(
				s.Blocks,
				&doc.Block{
					ID:      fmt.Sprint("b", i, "x", k),
					Kind:    doc.Text,
					Content: doc.Content{Words: doc.PlainWords("Three islands and a harbour")},
				},
			)
		}
		page.Sections = append(page.Sections, s)
	}
	p.put(page, tree.Page{ID: page.ID, Name: page.Name})
	d := p.as("designer@example.org")
	const at = "/sites/skerry/pages/large"
	edits := 201
	if os.Getenv("OPENPLOT_MEASURE") != "" {
		edits = 2001
	}
	first := 0.0
	for i := range edits {
		c := edit.Command{
			Op:    "block.write",
			Node:  fmt.Sprint("b", i%10, "x", i%30),
			Value: fmt.Sprintf("Edit %d of an island", i),
			Base:  int64(i),
		}
		b, err := json.Marshal(c)
		if err != nil {
			t.Fatal(err)
		}
		if status, text, _ := d.post(at+"/edits", url.Values{"command": {string(b)}, "width": {"1280"}, "select": {c.Node}}); status != http.StatusOK {
			t.Fatalf("%d %.300s", status, text)
		}
		if i%100 == 50 { // which is asked after each pause
			if status, _, _ := d.get(at + "/checks/marks"); status != http.StatusOK {
				t.Fatal(status)
			}
		}
		switch {
		case i == 100:
			first = heap()
		case i > 100 && i%100 == 0:
			now := heap()
			t.Logf("after %d edits %.1f MB", i, now)
			if now > first+8 {
				t.Errorf("after 100 edits %.1f MB are in use, after %d %.1f MB", first, i, now)
			}
		}
	}
}
