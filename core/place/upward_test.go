package place

import (
	"testing"

	"openplot/core/doc"
)

func TestUpward(t *testing.T) {
	zs := doc.StandardZones()
	at := func(kind doc.Kind, column, span, row, rows int) *doc.Block {
		b := &doc.Block{
			Kind:  kind,
			Place: doc.Zoned[doc.Place]{"desktop": {Column: column, Span: span, Row: row, Rows: rows}},
		}
		if kind == doc.Picture {
			b.Style = doc.Style{"aspect-ratio": {"desktop": "rows"}}
		}
		return b
	}
	// A picture, beside it a text, below both another text; on phones they are in rows 1–7, 8, 10.
	h := doc.Holder{
		Blocks: []*doc.Block{at(doc.Picture, 1, 6, 1, 8), at(doc.Text, 7, 6, 1, 8), at(doc.Text, 1, 12, 10, 3)},
	}
	rows := Resolve(h, zs)[2]
	for what, tt := range map[string]struct {
		at   doc.Place
		want doc.Place
		down map[int]int
	}{
		"below the text beside the picture": {
			doc.Place{Column: 1, Span: 4, Row: rows[1].Row + rows[1].Rows, Rows: 1}, doc.Place{Column: 7, Span: 6, Row: 9, Rows: 1}, nil,
		},
		"below it, and higher than what is free": {
			doc.Place{Column: 1, Span: 4, Row: rows[1].Row + rows[1].Rows, Rows: 4}, doc.Place{Column: 7, Span: 6, Row: 9, Rows: 4}, map[int]int{2: 4},
		},
		"at the end": {
			doc.Place{Column: 1, Span: 4, Row: rows[2].Row + 1, Rows: 2}, doc.Place{Column: 1, Span: 12, Row: 13, Rows: 2}, nil,
		},
		"in the right half of the picture": {
			doc.Place{Column: 3, Span: 2, Row: rows[0].Row, Rows: 2, Layer: 1}, doc.Place{Column: 4, Span: 3, Row: 1, Rows: 2, Layer: 1}, nil,
		},
	} {
		got, down := Upward(h, zs, 2, tt.at)
		if got != tt.want || len(down) != len(tt.down) || down[2] != tt.down[2] {
			t.Errorf("%s: %+v, %v; want %+v, %v", what, got, down, tt.want, tt.down)
		}
	}
	// What stands first in the narrow zone stands first, and all makes room.
	for i := range h.Blocks {
		h.Blocks[i].Place = h.Blocks[i].Place.With("phone", doc.Place{Column: 1, Span: 4, Row: 5 + 8*i, Rows: 8})
	}
	if got, down := Upward(h, zs, 2, doc.Place{Column: 1, Span: 4, Row: 1, Rows: 2}); got != (doc.Place{Column: 1, Span: 12, Row: 1, Rows: 2}) ||
		len(down) != 3 {
		t.Errorf("first: %+v, %v", got, down)
	}
}
