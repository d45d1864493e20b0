package check

import (
	"fmt"
	"math"

	"openplot/core/doc"
	"openplot/core/style"
)

// Rows of three things or more of which the last holds one by itself.
var alone = Rule{
	repair: mendAlone,
	ID:     "alone", Name: "One stands alone on its row", Family: Layout, Severity: Doubtful,
	Why:   "The row looks broken off, and most of it is empty.",
	short: func(f *Finding, name func(string) string) string { return "one alone on its row" },
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("One of %s stands alone on its row", name(f.Node))
	},
	say: func(f *Finding, _ func(string) string) string {
		return fmt.Sprintf("At %d px the rows hold %.0f each, and the last one.", f.Worst, f.By)
	},
	at: func(s *sight) {
		for i := range s.boxes {
			in := &s.boxes[i]
			if len(in.Children) < 3 || in.free || !s.flows(in) {
				continue
			}
			most, row, last, wide := 0, 0, 0, 0.0
			y := math.Inf(-1)
			n := 0
			for _, c := range in.Children {
				if c.W <= 0 || c.H <= 0 || c.Node.Styles[s.zone].Position == style.Absolute {
					continue
				}
				n++
				if row > 0 && math.Abs(c.Y-y) < c.H/2 {
					row++
				} else {
					row, y = 1, c.Y
				}
				most, last, wide = max(most, row), row, c.W
			}
			if n >= 3 && most >= 2 && last == 1 && wide < in.W*0.75 {
				s.note(in.node(), "", float64(most))
			}
		}
	},
}

// flows reports whether what stands in a box was made to be alike: a Series, or a line of
// blocks that wraps.
func (s *sight) flows(b *box) bool {
	if len(b.Children) == 0 {
		return false
	}
	bl := s.kind(b.block)
	if bl != nil && bl.Kind == doc.Series {
		return b.Children[0].Node.Block != "" || b.top
	}
	if bl == nil || bl.Arrangement != doc.LineUp || !b.top {
		return false
	}
	for _, c := range b.Children {
		if k := s.kind(c.Node.Block); k == nil || k.Kind != bl.Blocks[0].Kind || !k.Kind.Is(doc.Holding) {
			return false
		}
	}
	return true
}
