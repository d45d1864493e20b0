package check

import (
	"fmt"

	"openplot/core/doc"
)

// Blocks of a grid are read in the order of the document, wherever they stand.
var order = Rule{
	repair: mendRoom,
	ID:     "order", Name: "Read in another order than it is seen", Family: Reading, Severity: Doubtful, Standard: "WCAG 2.2, 1.3.2", least: 8,
	Why:   "Who hears the page, or goes through it by Tab, gets the later part first.",
	short: func(f *Finding, name func(string) string) string { return "read after " + name(f.Other) },
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("%s is read before %s, but stands after it", name(f.Other), name(f.Node))
	},
	say: func(f *Finding, _ func(string) string) string { return fmt.Sprintf("So it stands at %d px.", f.Worst) },
	at: func(s *sight) {
		for i := range s.boxes {
			b := &s.boxes[i]
			if !s.stands(b) || !s.placed(b) {
				continue
			}
			var first *box // of those that come before it in the document, and after it to the eye
			for k := range s.boxes {
				a := &s.boxes[k]
				if first != nil && first.nth < a.nth || a.nth >= b.nth || a.above != b.above || a.block == b.block || !s.stands(a) {
					continue
				}
				// b comes later in the document: it may stand below or to the right, in other columns
				// above, but neither over the same column nor to the left of the same row.
				across := min(a.x+a.W, b.x+b.W) - max(a.x, b.x)
				down := min(a.y+a.H, b.y+b.H) - max(a.y, b.y)
				above := b.y+b.H <= a.y+1 && across > min(a.W, b.W)/2
				before := b.x+b.W <= a.x+1 && down > max(a.H, b.H)*0.75
				if (above || before) && s.says(a) && s.says(b) {
					first = a
				}
			}
			if first != nil {
				s.note(b.block, first.block, 1)
			}
		}
	},
}

// placed reports whether a block stands in a grid.
func (s *sight) placed(b *box) bool {
	if up := s.kind(b.above); up != nil {
		return up.Arrangement == doc.Placed && up.Kind != doc.Series
	}
	return s.Section != nil && b.above == "" && s.Section.Arrangement == doc.Placed
}

// says reports whether a block is something to be read or heard.
func (s *sight) says(b *box) bool {
	k := s.kind(b.block)
	return k != nil && (k.Kind.Is(doc.Worded) || k.Kind.Is(doc.Holding) || len(k.Content.Entries) > 0)
}
