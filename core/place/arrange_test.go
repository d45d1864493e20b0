package place

import (
	"reflect"
	"testing"

	"openplot/core/doc"
)

func block(id string, p doc.Zoned[doc.Place]) *doc.Block {
	return &doc.Block{ID: id, Kind: doc.Text, Place: p}
}

func inGrid(column, span, row, rows int) doc.Zoned[doc.Place] {
	return doc.Zoned[doc.Place]{"desktop": {Column: column, Span: span, Row: row, Rows: rows}}
}

// ids names the blocks of each child.
func (a Arranged) ids() (out [][]string) {
	for _, c := range a.Children {
		var ids []string
		for _, b := range c.Blocks {
			ids = append(ids, b.ID)
		}
		out = append(out, ids)
	}
	return out
}

func TestPlacedToColumns(t *testing.T) {
	zs := doc.StandardZones()
	for _, tt := range []struct {
		name   string
		blocks []*doc.Block
		want   [][]string
		shares string
	}{
		{"a band above three columns", []*doc.Block{
			block("title", inGrid(1, 8, 1, 2)),
			block("a", inGrid(1, 4, 4, 8)), block("b", inGrid(5, 4, 4, 8)), block("c", inGrid(9, 4, 4, 8)),
		}, [][]string{{"title"}, {"a"}, {"b"}, {"c"}}, "12 4 4 4"},
		{"blocks of one column stand below one another", []*doc.Block{
			block("text", inGrid(1, 5, 3, 4)), block("picture", inGrid(7, 6, 1, 8)), block("heading", inGrid(1, 5, 1, 2)),
		}, [][]string{{"heading", "text"}, {"picture"}}, "6 6"},
		{"what overlaps is one column", []*doc.Block{
			block("photo", inGrid(1, 8, 1, 8)), block("card", inGrid(6, 6, 3, 4)),
		}, [][]string{{"photo", "card"}}, "12"},
		{"nothing", nil, nil, ""},
	} {
		a := Rearrange(doc.Holder{Blocks: tt.blocks}, doc.Columns, zs)
		if got := a.ids(); !reflect.DeepEqual(got, tt.want) || a.Shares != tt.shares {
			t.Errorf("%s: %v in %q, want %v in %q", tt.name, got, a.Shares, tt.want, tt.shares)
		}
	}
}

func TestPlacedToALineUp(t *testing.T) {
	zs := doc.StandardZones()
	side := Rearrange(
		doc.Holder{Blocks: []*doc.Block{block("b", inGrid(5, 4, 1, 4)), block("a", inGrid(1, 4, 2, 2))}},
		doc.LineUp,
		zs,
	)
	if !side.Across || !reflect.DeepEqual(side.ids(), [][]string{{"a"}, {"b"}}) {
		t.Errorf("side by side: across %v, %v", side.Across, side.ids())
	}
	down := Rearrange(
		doc.Holder{Blocks: []*doc.Block{block("b", inGrid(1, 4, 5, 4)), block("a", inGrid(1, 4, 1, 2))}},
		doc.LineUp,
		zs,
	)
	if down.Across || !reflect.DeepEqual(down.ids(), [][]string{{"a"}, {"b"}}) {
		t.Errorf("below one another: across %v, %v", down.Across, down.ids())
	}
}

func TestColumnsToPlaced(t *testing.T) {
	stack := &doc.Block{
		ID: "stack", Kind: doc.Container, Arrangement: doc.LineUp,
		Blocks: []*doc.Block{block("heading", inGrid(1, 1, 1, 2)), block("text", nil)},
	}
	h := doc.Holder{
		Arrangement: doc.Columns,
		Style:       doc.Style{"shares": {"desktop": "4 8 12"}},
		Blocks:      []*doc.Block{stack, block("picture", nil), block("below", nil)},
	}
	a := Rearrange(h, doc.Placed, doc.StandardZones())
	want := []doc.Place{
		{Column: 1, Span: 4, Row: 1, Rows: 2}, {Column: 1, Span: 4, Row: 3, Rows: 3}, // the stack's, taken apart
		{Column: 5, Span: 8, Row: 1, Rows: 3}, {Column: 1, Span: 12, Row: 6, Rows: 3},
	}
	for i, c := range a.Children {
		if i >= len(want) || c.Place != want[i] {
			t.Errorf("child %d is at %+v, want %+v", i, c.Place, want[i])
		}
	}
	if a.Children[0].Emptied != nil || a.Children[1].Emptied != stack {
		t.Error("the stack is not given up with its last block")
	}
	stack.Style = doc.Style{"background": {"desktop": "$accent"}}
	if a = Rearrange(h, doc.Placed, doc.StandardZones()); a.Children[0].Blocks[0] != stack ||
		a.Children[0].Place.Rows != 5 {
		t.Error("a container with a look of its own is taken apart")
	}
}

func TestColumnSpans(t *testing.T) {
	for _, tt := range []struct {
		shares []int
		n      int
		tracks int
		want   []int
	}{
		{nil, 5, 5, []int{1, 1, 1, 1, 1}},
		{[]int{6, 6}, 4, 2, []int{1, 1, 1, 1}},
		{[]int{3, 6, 3}, 3, 4, []int{1, 2, 1}},
		{[]int{5, 7}, 3, 12, []int{5, 7, 5}},
		{[]int{12}, 2, 1, []int{1, 1}},
		{[]int{12, 4, 4, 4}, 4, 3, []int{3, 1, 1, 1}},
		{nil, 0, 1, []int{}},
	} {
		if tracks, spans := ColumnSpans(tt.shares, tt.n); tracks != tt.tracks || !reflect.DeepEqual(spans, tt.want) {
			t.Errorf("%v over %d: %d tracks, %v; want %d, %v", tt.shares, tt.n, tracks, spans, tt.tracks, tt.want)
		}
	}
}

// Columns stand below one another on the narrowest zone unless a pattern is set there.
func TestSharesByZone(t *testing.T) {
	zs := doc.StandardZones()
	h := doc.Holder{Style: doc.Style{"shares": {"desktop": "4 8"}}}
	for z, want := range [][]int{{4, 8}, {4, 8}, {12}} {
		if got := Shares(h, zs, z); !reflect.DeepEqual(got, want) {
			t.Errorf("%s: %v, want %v", zs[z].ID, got, want)
		}
	}
	h.Style["shares"]["phone"] = "6 6"
	if got := Shares(h, zs, 2); !reflect.DeepEqual(got, []int{6, 6}) {
		t.Errorf("set on the phone: %v", got)
	}
}
