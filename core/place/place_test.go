package place

import (
	"math/rand/v2"
	"reflect"
	"slices"
	"testing"

	"openplot/core/doc"
)

func section(places ...doc.Zoned[doc.Place]) *doc.Section {
	s := &doc.Section{}
	for _, p := range places {
		s.Blocks = append(s.Blocks, &doc.Block{Kind: doc.Text, Place: p})
	}
	return s
}

func desktop(column, span, row, rows, layer int) doc.Zoned[doc.Place] {
	return doc.Zoned[doc.Place]{"desktop": {Column: column, Span: span, Row: row, Rows: rows, Layer: layer}}
}

func cells(ps []Placed) (out [][4]int) {
	for _, p := range ps {
		out = append(out, [4]int{p.Column, p.Span, p.Row, p.Rows})
	}
	return out
}

func TestResolveByRule(t *testing.T) {
	zs := doc.StandardZones()
	// Two in a row, the right one first in the document; then one above both.
	s := section(desktop(7, 6, 3, 4, 0), desktop(1, 6, 3, 2, 0), desktop(1, 12, 1, 2, 0))
	got := Resolve(s.Holder(), zs)
	if want := [][4]int{{5, 4, 2, 4}, {1, 4, 2, 2}, {1, 8, 1, 1}}; !reflect.DeepEqual(cells(got[1]), want) {
		t.Errorf("tablet: %v, want %v", cells(got[1]), want)
	}
	if want := [][4]int{{1, 4, 3, 1}, {1, 4, 2, 1}, {1, 4, 1, 1}}; !reflect.DeepEqual(cells(got[2]), want) {
		t.Errorf("phone: %v, want %v", cells(got[2]), want)
	}
	for _, p := range got[2] {
		if !p.Derived {
			t.Error("a placement by rule isn't marked as derived")
		}
	}
}

func TestPlacedByHandMovesNoOther(t *testing.T) {
	zs := doc.StandardZones()
	s := section(desktop(1, 12, 1, 1, 0), desktop(1, 12, 2, 1, 0), desktop(1, 12, 3, 1, 0))
	s.Blocks[2].Place = s.Blocks[2].Place.With("phone", doc.Place{Column: 2, Span: 2, Row: 2, Rows: 3, Layer: 1})
	got := Resolve(s.Holder(), zs)[2]
	if want := [][4]int{{1, 4, 1, 1}, {1, 4, 2, 1}, {2, 2, 2, 3}}; !reflect.DeepEqual(cells(got), want) {
		t.Errorf("%v, want %v", cells(got), want)
	}
	if got[2].Derived || got[2].Layer != 1 {
		t.Errorf("the hand-placed one is %+v", got[2])
	}
}

func TestPhoneFollowsTheTabletsOrder(t *testing.T) {
	zs := doc.StandardZones()
	s := section(desktop(1, 6, 1, 1, 0), desktop(7, 6, 1, 1, 0))
	s.Blocks[0].Place = s.Blocks[0].Place.With("tablet", doc.Place{Column: 5, Span: 4, Row: 1, Rows: 1})
	s.Blocks[1].Place = s.Blocks[1].Place.With("tablet", doc.Place{Column: 1, Span: 4, Row: 1, Rows: 1})
	got := Resolve(s.Holder(), zs)[2]
	if got[1].Row != 1 || got[0].Row != 2 {
		t.Errorf("phone rows %d and %d: the tablet has the second block first", got[0].Row, got[1].Row)
	}
}

func TestOverlappingBlocksStayTogetherInLayerOrder(t *testing.T) {
	zs := doc.StandardZones()
	// 0: a card; 1: a photo over its corner, further down; 2: a text between the
	// two in reading order, overlapping neither; 3: under the card.
	s := section(desktop(1, 6, 1, 6, 1), desktop(5, 6, 5, 6, 2), desktop(11, 2, 2, 1, 0), desktop(1, 6, 2, 2, 0))
	if got, want := Order(s.Holder(), zs), []int{3, 0, 1, 2}; !reflect.DeepEqual(got, want) {
		t.Errorf("order %v, want %v", got, want)
	}
}

func TestHiddenBlocksTakeNoRows(t *testing.T) {
	zs := doc.StandardZones()
	s := section(desktop(1, 12, 1, 1, 0), desktop(1, 12, 2, 1, 0))
	s.Blocks[0].Hidden = doc.Zoned[bool]{"phone": true}
	got := Resolve(s.Holder(), zs)[2]
	if !got[0].Hidden || got[1].Row != 1 {
		t.Errorf("%+v", got)
	}
}

// For any placements: nothing lies outside the grid, and what overlaps in the wide zone overlaps
// in the narrow ones, what doesn't doesn't: always of up to three blocks; of more, thrown at random
// onto one another, of 997 pairs in a thousand.
func TestGroupsStayGroups(t *testing.T) {
	zs := doc.StandardZones()
	for n := 2; n <= 9; n++ {
		parted, joined, pairs := 0, 0, 0
		for seed := range uint64(1000) {
			r := rand.New(rand.NewPCG(seed, uint64(n)))
			s := &doc.Section{}
			for range n {
				b := &doc.Block{
					Kind:  doc.Text,
					Place: desktop(1+r.IntN(12), 1+r.IntN(12), 1+r.IntN(24), 1+r.IntN(8), r.IntN(4)),
				}
				if r.IntN(3) == 0 {
					b.Kind, b.Style = doc.Picture, doc.Style{"aspect-ratio": {"desktop": "rows"}}
				}
				s.Blocks = append(s.Blocks, b)
			}
			all := Resolve(s.Holder(), zs)
			for z := 1; z < len(zs); z++ {
				for i, p := range all[z] {
					if p.Column < 1 || p.Column+p.Span-1 > zs[z].Columns || p.Row < 1 || p.Rows < 1 {
						t.Fatalf("seed %d: %+v lies outside the grid", seed, p)
					}
					for j := range i {
						was, is := all[0][i].Overlaps(all[0][j].Place), p.Overlaps(all[z][j].Place)
						pairs++
						if was && !is {
							parted++
						}
						if is && !was {
							joined++
						}
					}
				}
			}
		}
		if most := pairs * 3 / 1000; n <= 3 && parted+joined > 0 || parted+joined > most {
			t.Errorf("%d blocks: of %d pairs, %d were parted and %d joined", n, pairs, parted, joined)
		}
	}
}

// Reading order goes down a column before it goes to the next, where nothing crosses: a heading
// and words beside a card; cards of a picture, a heading and words each; but a table's rows first.
func TestReadingOrder(t *testing.T) {
	zs := doc.StandardZones()
	at := func(kind doc.Kind, column, span, row, rows int) *doc.Block {
		return &doc.Block{Kind: kind, Place: desktop(column, span, row, rows, 0)}
	}
	for name, tt := range map[string]struct {
		blocks []*doc.Block
		want   []int
	}{
		"words beside a card": {[]*doc.Block{at(doc.Text, 7, 6, 1, 8), at(doc.Heading, 1, 6, 1, 2), at(doc.Text, 1, 6, 3, 5)}, []int{1, 2, 0}},
		"cards": {[]*doc.Block{
			at(doc.Picture, 1, 6, 1, 4), at(doc.Picture, 7, 6, 1, 4), at(doc.Heading, 1, 6, 5, 1), at(doc.Heading, 7, 6, 5, 1), at(doc.Text, 1, 6, 6, 2), at(doc.Text, 7, 6, 6, 2),
		}, []int{0, 2, 4, 1, 3, 5}},
		"cards below a heading": {[]*doc.Block{
			at(doc.Heading, 1, 12, 1, 1), at(doc.Heading, 1, 6, 2, 1), at(doc.Heading, 7, 6, 2, 1), at(doc.Text, 1, 6, 3, 2), at(doc.Text, 7, 6, 3, 2),
		}, []int{0, 1, 3, 2, 4}},
		"a table": {[]*doc.Block{at(doc.Text, 1, 6, 1, 1), at(doc.Text, 7, 6, 1, 1), at(doc.Text, 1, 6, 2, 1), at(doc.Text, 7, 6, 2, 1)}, []int{0, 1, 2, 3}},
	} {
		s := &doc.Section{Arrangement: doc.Placed, Blocks: tt.blocks}
		if got := Order(s.Holder(), zs); !reflect.DeepEqual(got, tt.want) {
			t.Errorf("%s: %v, want %v", name, got, tt.want)
		}
	}
}

func metrics() *Metrics {
	return &Metrics{
		Columns:   []float64{60, 60, 60, 60},
		Rows:      []float64{24, 50, 24},
		ColumnGap: 20,
		RowGap:    8,
		RowHeight: 24,
	}
}

func TestMove(t *testing.T) {
	m := metrics()
	p := doc.Place{Column: 1, Span: 2, Row: 1, Rows: 1}
	for _, tt := range []struct {
		x, y        float64
		column, row int
	}{
		{0, 0, 1, 1}, {39, 15, 1, 1}, {41, 17, 2, 2}, {500, 60, 3, 2}, {-90, -90, 1, 1}, {80, 62, 2, 3},
		{0, 32 + 58 + 32, 1, 4},
		{0, 32 + 58 + 32*3, 1, 6},
	} {
		if got := m.Move(p, tt.x, tt.y); got.Column != tt.column || got.Row != tt.row || got.Span != 2 {
			t.Errorf("to %v, %v: %+v, want column %d, row %d", tt.x, tt.y, got, tt.column, tt.row)
		}
	}
}

func TestPull(t *testing.T) {
	m := metrics()
	p := doc.Place{Column: 2, Span: 2, Row: 2, Rows: 1}
	r := m.Rect(p)
	if want := (Rect{80, 32, 140, 50}); r != want {
		t.Fatalf("rect %v, want %v", r, want)
	}
	wider := r
	wider.W += 70
	if got := m.Pull(p, Right, wider); got.Span != 3 || got.Column != 2 {
		t.Errorf("pulled right: %+v", got)
	}
	crossed := r
	crossed.X += 400
	if got := m.Pull(p, Left, crossed); got.Column != 3 || got.Span != 1 {
		t.Errorf("left edge past the right one: %+v", got)
	}
	lower := r
	lower.H += 90
	if got := m.Pull(p, Bottom|Right, lower); got.Rows != 4 {
		t.Errorf("pulled down: %+v", got)
	}
}

func TestNudgeAndResizeStopAtTheEdges(t *testing.T) {
	p := doc.Place{Column: 1, Span: 2, Row: 1, Rows: 1}
	if got := Nudge(p, -1, -1, 4); got != p {
		t.Errorf("nudged out: %+v", got)
	}
	if got := Nudge(p, 9, 1, 4); got.Column != 3 || got.Row != 2 {
		t.Errorf("nudged right: %+v", got)
	}
	if got := Resize(p, 9, -9, 4); got.Span != 4 || got.Rows != 1 {
		t.Errorf("resized: %+v", got)
	}
	if got := Resize(p, -9, 1<<30, 4); got.Span != 1 || got.Rows != doc.MaxRow {
		t.Errorf("resized: %+v", got)
	}
}

func TestLayers(t *testing.T) {
	ps := Resolve(section(desktop(1, 4, 1, 4, 0), desktop(2, 4, 2, 4, 3), desktop(9, 2, 1, 2, 9)).Holder(), doc.StandardZones())[0]
	if got := Layers(ps, 0, 1); !reflect.DeepEqual(got, map[int]int{0: 4}) {
		t.Errorf("up: %v", got)
	}
	if got := Layers(ps, 0, -1); got != nil {
		t.Errorf("down with nothing under it: %v", got)
	}
	if got := Layers(ps, 2, 1); got != nil {
		t.Errorf("up with nothing near: %v", got)
	}
	// On one layer the later one in the document is on top.
	ps = Resolve(section(desktop(1, 4, 1, 4, 0), desktop(2, 4, 2, 4, 0)).Holder(), doc.StandardZones())[0]
	if got := Layers(ps, 0, 1); !reflect.DeepEqual(got, map[int]int{0: 1}) {
		t.Errorf("up from a shared layer: %v", got)
	}
	if got := Layers(ps, 1, -1); !reflect.DeepEqual(got, map[int]int{0: 1}) {
		t.Errorf("down from a shared layer 0: %v", got)
	}
}

// A block goes past one other, and how any others lie on one another stays as it was.
func TestLayersMoveOneBlock(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	moved := 0
	for range 3000 {
		var blocks []doc.Zoned[doc.Place]
		for range 2 + r.IntN(6) {
			blocks = append(blocks, desktop(1+r.IntN(6), 1+r.IntN(6), 1+r.IntN(6), 1+r.IntN(6), r.IntN(4)))
		}
		sec := section(blocks...)
		ps := Resolve(sec.Holder(), doc.StandardZones())[0]
		i, step := r.IntN(len(ps)), 1-2*r.IntN(2)
		layers := Layers(ps, i, step)
		after := slices.Clone(ps)
		for j, layer := range layers {
			after[j].Layer = layer
		}
		past := 0
		for a := range ps {
			for b := range ps {
				if a == b || !ps[a].Overlaps(ps[b].Place) || Above(ps, a, b) == Above(after, a, b) {
					continue
				}
				if a != i && b != i {
					t.Fatalf("%+v: moving %d by %d turns %d and %d round: %v", ps, i, step, a, b, layers)
				}
				past++
			}
		}
		if layers == nil {
			continue
		}
		if moved++; past != 2 { // seen from both
			t.Fatalf("%+v: moving %d by %d passes %d others: %v", ps, i, step, past/2, layers)
		}
	}
	if moved < 1000 {
		t.Errorf("only %d were moved", moved)
	}
}

func FuzzMetrics(f *testing.F) {
	f.Add(60.0, 20.0, 24.0, 8.0, 100.0, 100.0)
	f.Add(0.0, 0.0, 0.0, 0.0, 1e300, -1e300)
	f.Fuzz(func(t *testing.T, w, gap, h, rowGap, x, y float64) {
		m := Metrics{Columns: []float64{w, w, w}, Rows: []float64{h}, ColumnGap: gap, RowGap: rowGap, RowHeight: h}
		for _, p := range []doc.Place{
			m.Move(doc.Place{Span: 2, Rows: 2}, x, y),
			m.At(x, y, 2, 1),
			m.Pull(doc.Place{Column: 1, Span: 1, Row: 1, Rows: 1}, 15, Rect{x, y, w, h}),
		} {
			if p.Column < 1 || p.Column+p.Span > 4 || p.Row < 1 || p.Row+p.Rows-1 > doc.MaxRow {
				t.Errorf("%+v lies outside the grid", p)
			}
		}
	})
}
