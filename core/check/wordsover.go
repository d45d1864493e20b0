package check

import "fmt"

var wordsOver = Rule{
	repair: mendRoom,
	ID:     "words-over", Name: "Words lie over words", Family: Layout, Severity: Broken,
	What:  "words of two blocks lie over one another",
	Why:   "Neither of the two can be read.",
	short: func(f *Finding, name func(string) string) string { return "over the words of " + name(f.Other) },
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("%s lies %.0f px over %s", name(f.Node), f.By, name(f.Other))
	},
	say: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("At %d px, “%s” is over the words of %s.", f.Worst, f.Words, name(f.Other))
	},
	at: func(s *sight) {
		for i := range s.lines {
			a := &s.lines[i]
			if a.w == 0 || s.boxes[a.box].see < unseen {
				continue
			}
			for k := range s.lines[:i] {
				b := &s.lines[k]
				if a.y >= b.y+b.h-1 || b.y >= a.y+a.h-1 || a.x >= b.x+b.w-1 ||
					b.x >= a.x+a.w-1 { // line boxes may touch
					continue
				}
				x, y := &s.boxes[a.box], &s.boxes[b.box]
				if x.node() == y.node() || y.see < unseen || s.pair && !s.foreign(x.info, y.info) {
					continue
				}
				x0, y0, x1, y1 := max(a.x, b.x), max(a.y, b.y), min(a.x+a.w, b.x+b.w), min(a.y+a.h, b.y+b.h)
				if s.cutOff(x, y, x0, y0, x1, y1) || s.cutOff(y, x, x0, y0, x1, y1) {
					continue
				}
				s.noteWords(x.node(), y.node(), "", x1-max(x0, 0), 0, start(x.text))
			}
		}
	},
}
