package check

import (
	"fmt"

	"openplot/core/doc"
)

var crowded = Rule{
	ID: "crowded", Name: "A section has many blocks", Family: Weight, Severity: Hint,
	What:  "more than 60 blocks in a section",
	Why:   "It is slow to change and hard to find one’s way in; two sections may say the same more clearly.",
	short: func(f *Finding, name func(string) string) string { return fmt.Sprintf("%.0f blocks", f.By) },
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("%s has %.0f blocks", name(f.Node), f.By)
	},
	whole: func(p *Page, r *report) {
		for _, s := range p.Doc.Sections {
			if n, is := Crowded(s); is {
				r.add(Finding{Node: s.ID, By: float64(n), Of: mostBlocks})
			}
		}
	},
}

// mostBlocks is how many blocks a section has until it is hard to work with.
const mostBlocks = 60

// Crowded reports whether a section has more blocks than is good, those in containers counted, and
// gives how many it has.
func Crowded(s *doc.Section) (blocks int, is bool) {
	s.Walk(func(*doc.Block) { blocks++ })
	return blocks, blocks > mostBlocks
}
