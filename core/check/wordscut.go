package check

import "fmt"

var wordsCut = Rule{
	ID: "words-cut", Name: "Words are cut off", Family: Layout, Severity: Broken, Standard: "WCAG 2.2, 1.4.4",
	What:  "words reach out of what cuts them off",
	Why:   "What is cut off can’t be read, and nothing shows that it is there.",
	short: func(f *Finding, name func(string) string) string { return "words are cut off" },
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("%s cuts words off", name(f.Node))
	},
	say: func(f *Finding, _ func(string) string) string {
		return fmt.Sprintf("At %d px, “%s” reaches %.0f px out of it.", f.Worst, f.Words, f.By)
	},
	at: func(s *sight) {
		for i := range s.lines {
			l := &s.lines[i]
			b := &s.boxes[l.box]
			if b.clip < 0 || b.hidden {
				continue
			}
			c := &s.boxes[b.clip]
			if by := max(c.x-l.x, l.x+l.w-c.x-c.W, c.y-l.y, l.y+l.h-c.y-c.H); by > 2 && l.w > 0 {
				s.noteWords(c.node(), "", "", by, 0, start(b.text))
			}
		}
	},
}
