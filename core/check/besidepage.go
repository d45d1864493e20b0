package check

import "fmt"

var besidePage = Rule{
	ID: "beside-page", Name: "Reaches past the page", Family: Layout, Severity: Broken, Standard: "WCAG 2.2, 1.4.10", viewport: true,
	What:  "a box reaches past the page, as it is painted",
	Why:   "The page scrolls sideways there, and on a phone all of it is shown smaller.",
	short: func(f *Finding, name func(string) string) string { return fmt.Sprintf("%.0f px past the page", f.By) },
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("%s reaches %.0f px past the page", name(f.Node), f.By)
	},
	say: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("At %d px it is %.0f px wider than there is room for.", f.Worst, f.By)
	},
	at: func(s *sight) {
		for i := range s.boxes {
			b := &s.boxes[i]
			if b.free || b.clip >= 0 || b.see < unseen {
				continue
			}
			if by := max(-b.px, b.px+b.pw-s.width); by > slack {
				s.note(b.node(), "", by)
			}
		}
	},
}
