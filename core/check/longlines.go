package check

import (
	"fmt"
	"math"

	"openplot/core/style"
)

var longLines = Rule{
	repair: mendLongLines,
	ID:     "long-lines", Name: "Lines are long", Family: Layout, Severity: Hint, Standard: "WCAG 2.2, 1.4.8 (AAA)", least: 16,
	What:  "lines of over 80 characters",
	Why:   "From the end of a long line, eyes don’t find the beginning of the next.",
	short: func(f *Finding, name func(string) string) string { return fmt.Sprintf("%.0f characters a line", f.By) },
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("Lines of %.0f characters in %s", f.By, name(f.Node))
	},
	say: func(f *Finding, _ func(string) string) string {
		return fmt.Sprintf("At %d px; %d are easy to read.", f.Worst, mostOnLine)
	},
	at: func(s *sight) {
		for i := range s.boxes {
			b := &s.boxes[i]
			if len(b.Lines) < 3 || b.text == "" {
				continue
			}
			most := 0
			for _, l := range b.Lines {
				most = max(most, l.Runes)
			}
			if most > mostOnLine {
				s.note(b.node(), "", float64(most))
			}
		}
	},
}

func mendLongLines(p *Page, f *Finding) *Repair {
	b := p.block(f.Node)
	if b == nil || style.Find("width", b.Kind) == nil {
		return nil
	}
	var wide float64
	p.seen(f, func(_ *sight, in *box) {
		for _, l := range in.Lines {
			if wide == 0 && float64(l.Runes) >= f.By {
				wide = math.Floor(in.W * (mostOnLine - 8) / f.By)
			}
		}
	})
	if wide == 0 {
		return nil
	}
	v := fmt.Sprintf("%.0fpx", wide)
	return &Repair{v + " wide at most", p.set(f, "width", v)}
}

// mostOnLine is how many characters a line has at most (WCAG 2.2, 1.4.8).
const mostOnLine = 80
