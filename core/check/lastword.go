package check

import "fmt"

// From which size on a heading's lines are looked at, px.
const largeHeading = 28.0

var lastWord = Rule{
	ID: "last-word", Name: "A word stands alone on a heading’s last line", Family: Layout, Severity: Hint, least: 8,
	What:  "a heading from 28 px on ends with a single word",
	Why:   "At large sizes a single word below looks like an accident.",
	short: func(f *Finding, name func(string) string) string { return "one word on the last line" },
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("One word on the last line of %s", name(f.Node))
	},
	say: func(f *Finding, _ func(string) string) string {
		return fmt.Sprintf("At %d px, “%s” ends with one word on its line %.0f.", f.Worst, f.Words, f.By)
	},
	at: func(s *sight) {
		for i := range s.boxes {
			b := &s.boxes[i]
			n := len(b.Lines)
			if b.heading == 0 || n < 2 || !b.Lines[n-1].Alone || b.Lines[n-2].Alone ||
				b.st.FontPx(s.view) < largeHeading {
				continue
			}
			if b.Lines[n-1].W < b.Lines[n-2].W/3 {
				s.noteWords(b.node(), "", "", float64(n), 0, start(b.text))
			}
		}
	},
}
