package handle_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/element"
	"openplot/core/handle"
	"openplot/core/layout"
	"openplot/core/place"
	"openplot/core/ready"
	"openplot/core/shape"
	"openplot/core/style"
	"openplot/demo"
	"openplot/fonts"
)

// bench lays sections out.
type bench struct {
	site *doc.Site
	lib  *shape.Library
}

func (b bench) boxes(s *doc.Section, width float64) *layout.Box {
	builder := element.Builder{Site: b.site, Media: func(id string) (element.Medium, bool) {
		return element.Medium{
			ID:       id,
			Width:    1440,
			Height:   1080,
			Variants: []element.Variant{{URL: "p", StyleURL: "p", Width: 1440}},
		}, id != ""
	}}
	return layout.New(b.lib, b.site.Zones, builder.Section(s)).At(width)
}

// handles are those of a node, "" the section's own.
func (b bench) handles(s *doc.Section, id string, width float64) []handle.Handle {
	v := handle.View{House: &b.site.House, Zones: b.site.Zones, Zone: b.site.Zones.At(width), Width: width}
	root := b.boxes(s, width)
	if id == "" {
		return v.Section(s, root, false)
	}
	path := s.Path(id)
	return v.Block(s, path[len(path)-1], id, root, len(path) > 1 && path[len(path)-2].Kind == doc.Series)
}

// A handle dragged to a step or to px, and the value set that it makes of them, is where it was
// dragged to: what is shown while dragging is what dropping does.
func TestHandlesEndWhereTheyAreDraggedTo(t *testing.T) {
	lib, err := fonts.Library()
	if err != nil {
		t.Fatal(err)
	}
	b := bench{demo.Site(), lib}
	r := rand.New(rand.NewPCG(12, 0))
	n := 0
	env := edit.Env{
		Site:   b.site,
		NewID:  func(p string) string { n++; return fmt.Sprint(p, n) },
		Medium: func(string) doc.MediumSort { return doc.PictureMedium },
	}
	var sections []*doc.Section
	for i := range ready.Presets {
		sections = append(sections, ready.Presets[i].Drawn(nil))
	}
	tried := map[string]int{}
	for _, s := range sections {
		page := &doc.Page{ID: "p", Name: "Home", Sections: []*doc.Section{s}}
		ids := []string{""}
		s.Walk(func(b *doc.Block) { ids = append(ids, b.ID) })
		for _, id := range ids {
			width := []float64{1280, 800, 375}[r.IntN(3)]
			for i, h := range b.handles(s, id, width) {
				switch h.Setting {
				case "min-height", "width", "height":
					continue // what is in it may be higher, and a line's items share its room
				}
				px, value := h.Min+math.Round(r.Float64()*min(h.Max-h.Min, 120)), ""
				value = h.Before + style.Number(px) + h.After
				if len(h.Steps) > 0 && (h.Only || r.IntN(2) == 0) {
					st := h.Steps[r.IntN(len(h.Steps))]
					px, value = st.Px, st.Value
				}
				if h.Setting == "aspect-ratio" && (px < h.Px/4 || px > h.Px*4) {
					continue
				}
				node := id
				if node == "" {
					node = s.ID
				}
				c := edit.Command{
					Op:      "set",
					Node:    node,
					Zone:    b.site.Zones[b.site.Zones.At(width)].ID,
					Setting: h.Setting,
					Value:   value,
				}
				done, err := edit.Apply(page, c, env)
				if err != nil {
					t.Errorf("%s of %s at %v: %v", h.Setting, node, width, err)
					continue
				}
				after := b.handles(done.Page.Sections[0], id, width)
				if i >= len(after) || after[i].Setting != h.Setting {
					continue // lines broke, or there is no row of columns any more
				}
				tried[h.Setting]++
				if got := after[i].Px; math.Abs(got-px) > 0.6 {
					t.Errorf(
						"%s of %s %s at %v: dragged from %.1f to %.1f as %q it is %.1f",
						h.Setting,
						s.Made,
						node,
						width,
						h.Px,
						px,
						value,
						got,
					)
				}
			}
		}
	}
	t.Log(tried)
	for _, setting := range []string{"padding-top", "padding-left", "column-gap", "row-gap", "shares", "pull", "overhang", "edge-bottom-height", "aspect-ratio"} {
		if tried[setting] == 0 {
			t.Errorf("no handle for %s was dragged", setting)
		}
	}
}

func TestSnap(t *testing.T) {
	steps := []float64{0, 8, 16, 48}
	for _, tt := range []struct {
		px, near float64
		only     bool
		want     float64
		at       int
	}{{14.2, 4, false, 16, 2}, {21.4, 4, false, 21, -1}, {47.5, 0.2, false, 48, -1}, {30, 4, true, 16, 2}, {900, 4, true, 48, 3}} {
		if got, at := place.Snap(tt.px, steps, tt.near, tt.only); got != tt.want || at != tt.at {
			t.Errorf("%v snaps to %v, step %d; want %v, %d", tt.px, got, at, tt.want, tt.at)
		}
	}
}
