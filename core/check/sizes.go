package check

import (
	"fmt"
)

// Sizes of words in px: the first is common practice; browsers on phones zoom into fields whose
// words are smaller than the second (as they are known to; no standard says so).
const (
	leastSize      = 12.0
	leastFieldSize = 16.0
)

var smallWords = Rule{
	repair: mendSmallWords,
	ID:     "small-words", Name: "Words are small", Family: Reading, Severity: Doubtful, Least: true,
	Why:   "Below 12 px letters lose their shape, and people zoom in or go away.",
	short: func(f *Finding, name func(string) string) string { return fmt.Sprintf("%.4g px", f.By) },
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("%s is set in %.4g px", name(f.Node), f.By)
	},
	say: func(f *Finding, _ func(string) string) string {
		return fmt.Sprintf("“%s”, at %d px.", f.Words, f.Worst)
	},
	at: func(s *sight) {
		for i := range s.boxes {
			b := &s.boxes[i]
			if len(b.Lines) == 0 || b.hidden || b.text == "" {
				continue
			}
			if size := b.st.FontPx(s.view); size < leastSize-0.01 {
				s.noteWords(b.node(), "", "", size, leastSize, start(b.text))
			}
		}
	},
}

var smallFields = Rule{
	repair: mendFields,
	ID:     "small-fields", Name: "Words in fields are under 16 px on phones", Family: Reading, Severity: Hint, Least: true,
	Why:   "Some phones zoom in when such a field is touched, and visitors have to find their way back.",
	short: func(f *Finding, name func(string) string) string { return fmt.Sprintf("fields of %.4g px", f.By) },
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("Fields of %s are set in %.4g px", name(f.Node), f.By)
	},
	at: func(s *sight) {
		if s.zone != len(s.Zones)-1 {
			return
		}
		for i := range s.boxes {
			b := &s.boxes[i]
			if b.Node.Tag != "input" && b.Node.Tag != "select" && b.Node.Tag != "textarea" {
				continue
			}
			switch attr(b.Node, "type") {
			case "checkbox", "radio", "submit":
				continue
			}
			if size := b.st.FontPx(s.view); size < leastFieldSize-0.01 {
				s.noteWords(b.node(), "", "", size, leastFieldSize, "")
			}
		}
	},
}
