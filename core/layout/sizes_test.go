package layout_test

import (
	"fmt"
	"testing"

	"openplot/core/check"
	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/layout"
	"openplot/core/number"
	"openplot/core/style"
	"openplot/demo"
	"openplot/fonts"
)

// dense is a picture with a copy every 8 px, so that the one that a browser chooses tells what
// sizes says.
func dense(id string, w, h int) element.Medium {
	m := element.Medium{ID: id, Width: w, Height: h}
	for px := 8; px <= 6000; px += 8 {
		m.Variants = append(m.Variants, element.Variant{URL: fmt.Sprint(id, px), Width: px})
	}
	return m
}

// What sizes says is what a picture needs, at every width, on all that ships: no copy is chosen
// that is too small for what is seen, nor one much larger. Widths aren't those that are measured.
func TestSizesSayWhatPicturesNeed(t *testing.T) {
	s := demo.Site()
	lib, err := fonts.Library()
	if err != nil {
		t.Fatal(err)
	}
	ids := map[string]string{}
	for _, n := range demo.PictureNames() {
		ids[n] = n
	}
	var pages []*doc.Page
	for _, p := range demo.Pages(ids) {
		pages = append(pages, p.Page)
	}
	specimens, err := demo.Specimens(s, []string{"p1", "p2", "p3"})
	if err != nil {
		t.Fatal(err)
	}
	pictures, judged, small, large := 0, 0, 0, 0
	for _, p := range append(pages, specimens...) {
		shape := map[string][2]int{"p1": {1600, 1000}, "p2": {1000, 1600}, "p3": {3000, 1000}}
		b := &element.Builder{Site: s, DropEmpty: true, Media: func(id string) (element.Medium, bool) {
			wh, ok := shape[id]
			if !ok {
				wh = [2]int{1440, 1080}
			}
			return dense(id, wh[0], wh[1]), id != ""
		}}
		tr := layout.New(lib, s.Zones, b.Page(p))
		tr.SayWidths()
		for w := 320; w <= 1920; w += 37 {
			z := s.Zones.At(float64(w))
			tr.At(float64(w)).Walk(func(b *layout.Box, _, _ float64) {
				st := &b.Node.Styles[z]
				if b.Node.Tag != "img" || st.Display == style.None || b.W < 24 {
					return
				}
				var natural [2]float64
				choice := false
				for _, a := range b.Node.Attrs {
					switch a.Name {
					case "width":
						natural[0], _ = number.Real(a.Value)
					case "height":
						natural[1], _ = number.Real(a.Value)
					case "sizes":
						choice = true
					}
				}
				if !choice {
					return
				}
				need := b.W
				if cropped := b.H * natural[0] / natural[1]; st.ObjectFit == "contain" {
					need = min(need, cropped)
				} else {
					need = max(need, cropped)
				}
				_, got := check.Loads(b.Node, float64(w))
				judged++
				switch {
				case got < need*0.95-8:
					small++
					if small < 20 {
						t.Errorf("%s at %d px: %.0f px are chosen for %.0f", p.Name, w, got, need)
					}
				case got > need*1.25+16:
					large++
					if large < 20 {
						t.Errorf("%s at %d px: %.0f px are chosen for %.0f", p.Name, w, got, need)
					}
				}
			})
		}
		tr.Root.Walk(func(n *element.Node) {
			if n.Tag == "img" {
				pictures++
			}
		})
	}
	if pictures < 80 || judged < 2500 {
		t.Errorf("only %d pictures, looked at %d times", pictures, judged)
	}
	t.Logf("%d pictures, looked at %d times: %d too small, %d too large", pictures, judged, small, large)
}
