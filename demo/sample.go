package demo

import (
	"fmt"
	"strings"

	"openplot/core/compose"
	"openplot/core/doc"
)

var sampleWords = strings.Fields(
	`foot passengers bicycles and the occasional sheep board from the north steps ten minutes before the boat leaves
	in fog the morning boat waits for the light and the sign at the steps says how long the harbour office answers before the evening`,
)

// Sample makes a page of a number of blocks for measuring: eight a section, words
// and pictures as on the other pages.
func Sample(blocks int) *doc.Page {
	p := &doc.Page{ID: "sample", Name: "Sample", Title: "Sample"}
	words := func(i, n int) string {
		var w []string
		for k := range n {
			w = append(w, sampleWords[(i*7+k*3+k*k%5)%len(sampleWords)])
		}
		return strings.ToUpper(w[0][:1]) + strings.Join(w, " ")[1:] + "."
	}
	for i := range blocks {
		if i%8 == 0 {
			s := section(
				fmt.Sprintf("Section %d", i/8+1),
				room("$vast", "$vast", "background", []string{"$ground", "$quiet-ground"}[i/8%2]),
			)
			s.ID = fmt.Sprintf("s%d", i)
			p.Sections = append(p.Sections, s)
		}
		s := p.Sections[len(p.Sections)-1]
		k := i % 8
		row := 1 + k/3*8
		at := on(spot{1 + 4*(k%3), 4, row, 7})
		var b *doc.Block
		switch k {
		case 0:
			b = heading(2, words(i, 5), at, nil)
		case 3, 6:
			b = photo(at, compose.Look("aspect-ratio", "4:3", "border-radius", "$card"), "sample", "")
		case 7:
			b = button("Ask for a berth", "/", at, nil)
		default:
			b = text(at, compose.Look("color", "$quiet-words"), words(i, 34), words(i+3, 18))
		}
		b.ID = fmt.Sprintf("b%d", i)
		s.Blocks = append(s.Blocks, b)
	}
	return p
}
