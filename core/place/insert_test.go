package place

import (
	"testing"

	"openplot/core/doc"
)

// What comes from elsewhere takes the cells that its rectangle covers, wherever it was.
func TestPullOfAllEdges(t *testing.T) {
	m := Metrics{
		Columns:   []float64{80, 80, 80, 80},
		Rows:      []float64{40, 40, 40},
		ColumnGap: 20,
		RowGap:    10,
		RowHeight: 40,
	}
	got := m.Pull(doc.Place{Column: 1, Span: 1, Row: 1, Rows: 1}, Left|Top|Right|Bottom, Rect{105, 98, 178, 44})
	if want := (doc.Place{Column: 2, Span: 2, Row: 3, Rows: 1}); got != want {
		t.Errorf("%+v, want %+v", got, want)
	}
}

func TestInsert(t *testing.T) {
	down := []Rect{{0, 0, 200, 40}, {0, 50, 200, 40}, {0, 100, 200, 40}}
	across := []Rect{{0, 0, 90, 60}, {100, 10, 90, 40}, {200, 0, 90, 60}}
	wrapped := []Rect{{0, 0, 140, 50}, {150, 0, 140, 50}, {0, 60, 140, 50}, {150, 60, 140, 50}, {0, 120, 140, 50}}
	area := Rect{0, 0, 300, 200}
	for _, c := range []struct {
		name   string
		boxes  []Rect
		across bool
		x, y   float64
		index  int
		line   Rect
	}{
		{"nothing there", nil, false, 50, 50, 0, Rect{0, 0, 300, 0}},
		{"above the first", down, false, 50, 5, 0, Rect{0, 0, 200, 0}},
		{"between two", down, false, 50, 45, 1, Rect{0, 45, 200, 0}},
		{"in the lower half", down, false, 50, 75, 2, Rect{0, 95, 200, 0}},
		{"far below", down, false, 50, 900, 3, Rect{0, 144, 200, 0}},
		{"before the first of a line", across, true, 10, 30, 0, Rect{0, 0, 0, 60}},
		{"between two of a line", across, true, 140, 30, 1, Rect{95, 0, 0, 60}},
		{"behind the last of a line", across, true, 290, 30, 3, Rect{294, 0, 0, 60}},
		{"in the second line", wrapped, true, 160, 80, 3, Rect{145, 60, 0, 50}},
		{"at the end of the first line", wrapped, true, 295, 20, 2, Rect{294, 0, 0, 50}},
		{"below all lines", wrapped, true, 20, 400, 5, Rect{0, 174, 140, 0}},
		{"beside the only one", across[:1], true, 80, 30, 1, Rect{94, 0, 0, 60}},
		{"below the only one", across[:1], false, 80, 50, 1, Rect{0, 64, 90, 0}},
	} {
		if g := Insert(c.boxes, c.across, area, c.x, c.y); g.Index != c.index || g.Line != c.line {
			t.Errorf("%s: %+v, want %d at %+v", c.name, g, c.index, c.line)
		}
	}
}

// Wherever the pointer is there is a gap among the blocks, and what is dropped there is
// beside the block whose edge is nearest.
func FuzzInsert(f *testing.F) {
	f.Add(uint8(5), 10.0, 20.0, true)
	f.Fuzz(func(t *testing.T, n uint8, x, y float64, across bool) {
		var boxes []Rect
		for i := range int(n % 12) {
			boxes = append(boxes, Rect{float64(i%3) * 110, float64(i/3) * 70, 100, 60})
		}
		g := Insert(boxes, across, Rect{0, 0, 330, 400}, x, y)
		if g.Index < 0 || g.Index > len(boxes) || g.Line.W != 0 && g.Line.H != 0 {
			t.Errorf("%+v of %d", g, len(boxes))
		}
	})
}
