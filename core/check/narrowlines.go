package check

import "fmt"

var narrowLines = Rule{
	ID: "narrow-lines", Name: "A column is narrow", Family: Layout, Severity: Hint, least: 16,
	What:  "six lines and more of under 20 characters (common practice)",
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

// leastOnLine is how many characters a line has at least; common practice.
const leastOnLine = 20
