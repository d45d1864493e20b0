package check

import "fmt"

var smallWords = Rule{
	repair: mendSmallWords,
	ID:     "small-words", Name: "Words are small", Family: Reading, Severity: Doubtful, Least: true,
	What:  "under 12 px",
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

func mendSmallWords(p *Page, f *Finding) *Repair {
	return &Repair{"Set in 12 px", p.set(f, "font-size", "12px")}
}

// leastSize is in px; common practice.
const leastSize = 12.0
