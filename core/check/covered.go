package check

import "fmt"

// What is painted later lies on top.
var covered = Rule{
	repair: mendRoom,
	ID:     "covered", Name: "Something covers words or a button", Family: Layout, Severity: Broken,
	What: "a picture, a video or a filled block is painted over words; also a section that is pulled over the one above, and what hangs out",
	Why:  "What is covered can’t be read or pressed.",
	short: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("covers %.0f px of %s", f.By, name(f.Other))
	},
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("%s covers %.0f px of %s", name(f.Node), f.By, name(f.Other))
	},
	say: func(f *Finding, _ func(string) string) string {
		return fmt.Sprintf("At %d px, “%s” is under it.", f.Worst, f.Words)
	},
	at: func(s *sight) {
		for i := range s.boxes {
			over := &s.boxes[i]
			if over.block == "" && !s.pair || !over.opaque() || over.clip >= 0 {
				continue
			}
			for k := range s.lines {
				l := &s.lines[k]
				if l.box > i {
					break // it is painted later
				}
				w, h := min(over.px+over.pw, l.x+l.w)-max(over.px, l.x), min(over.py+over.ph, l.y+l.h)-max(over.py, l.y)
				if w <= 3 || h <= 3 {
					continue
				}
				x, y := max(over.px, l.x), max(over.py, l.y)
				if b := &s.boxes[l.box]; s.cutOff(over, b, x, y, x+w, y+h) || s.cutOff(b, over, x, y, x+w, y+h) {
					continue
				} else if (s.foreign(over.info, b.info) || !s.pair && apart(over.info, b.info)) &&
					b.see >= unseen {
					s.noteWords(over.node(), b.node(), "", min(w, h), 0, start(b.text))
				}
			}
		}
	},
}
