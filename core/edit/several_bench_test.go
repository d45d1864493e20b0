package edit

import (
	"fmt"
	"testing"

	"openplot/core/doc"
)

// BenchmarkMoveTogether moves 200 blocks of a grid at once, as the server does when they are
// let go.
func BenchmarkMoveTogether(b *testing.B) {
	e := env()
	sec := &doc.Section{ID: "s", Name: "Many"}
	c := Command{Op: "blocks.nudge", Zone: "desktop", DY: 2}
	for i := range 200 {
		id := fmt.Sprint("b", i)
		sec.Blocks = append(
			sec.Blocks,
			&doc.Block{
				ID:    id,
				Kind:  doc.Text,
				Place: doc.Zoned[doc.Place]{"desktop": {Column: 1 + i%6*2, Span: 2, Row: 1 + i/6*3, Rows: 2}},
			},
		)
		if c.Node == "" {
			c.Node = id
		} else {
			c.With = append(c.With, id)
		}
	}
	p := &doc.Page{ID: "p", Sections: []*doc.Section{sec}}
	for b.Loop() {
		r, err := Apply(p, c, e)
		if err != nil || len(r.Steps) != 200 {
			b.Fatal(err)
		}
	}
}
