package check

import (
	"fmt"
	"math"
	"strconv"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/style"
)

// Rows of three things or more of which the last holds one by itself.
var alone = Rule{
	repair: mendAlone,
	ID:     "alone", Name: "One stands alone on its row", Family: Layout, Severity: Doubtful,
	What:  "rows of two or more, of a Series or of like containers, end with one",
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

func mendAlone(p *Page, f *Finding) *Repair {
	b := p.block(f.Node)
	if b == nil || b.Kind != doc.Series || len(b.Items) < 3 {
		return nil
	}
	n, zone := len(b.Items), p.Site.Zones.At(float64(f.Worst))
	room := float64(zoneRange(p.Site.Zones, zone).From) * 0.86
	for per := min(n, 6); per >= 1; per-- {
		if (n%per == 0 || n%per > 1) && room/float64(per) >= 150 {
			label := fmt.Sprintf("%d across in %s", per, p.where(f))
			if per == 1 {
				label = "One below the other in " + p.where(f)
			}
			return &Repair{
				label,
				edit.Command{
					Op:      "set",
					Node:    b.ID,
					Zone:    p.Site.Zones[zone].ID,
					Setting: "per-row",
					Value:   strconv.Itoa(per),
				},
			}
		}
	}
	return nil
}
