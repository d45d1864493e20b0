package check

import "fmt"

// Bounds of how many characters a line has: WCAG 2.2, 1.4.8 has at most 80; the least is common
// practice.
const (
	mostOnLine  = 80
	leastOnLine = 20
)

var longLines = Rule{
	repair: mendLongLines,
	ID:     "long-lines", Name: "Lines are long", Family: Layout, Severity: Hint, Standard: "WCAG 2.2, 1.4.8 (AAA)", least: 16,
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

var narrowLines = Rule{
	ID: "narrow-lines", Name: "A column is narrow", Family: Layout, Severity: Hint, least: 16,
	Why:   "Lines of a few characters are read word by word, and long words leave holes.",
	short: func(f *Finding, name func(string) string) string { return fmt.Sprintf("%.0f characters a line", f.By) },
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("%.0f characters a line in %s", f.By, name(f.Node))
	},
	say: func(f *Finding, _ func(string) string) string {
		return fmt.Sprintf("At %d px; %d are the least that reads well.", f.Worst, leastOnLine)
	},
	Least: true,
	at: func(s *sight) {
		for i := range s.boxes {
			b := &s.boxes[i]
			if len(b.Lines) < 6 || b.heading > 0 {
				continue
			}
			all, most := 0, 0
			for _, l := range b.Lines {
				all, most = all+l.Runes, max(most, l.Runes)
			}
			if mean := all / len(b.Lines); most < leastOnLine {
				s.note(b.node(), "", float64(mean))
			}
		}
	},
}
