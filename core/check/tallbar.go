package check

import (
	"fmt"

	"openplot/core/edit"
	"openplot/core/style"
	"openplot/core/value"
)

var tallBar = Rule{
	repair: mendBar,
	ID:     "tall-bar", Name: "What stays in sight takes much of the height", Family: Layout, Severity: Doubtful,
	What: "what sticks takes over a quarter of the zone's height",
	Why:  "On a phone little is left to read in, less with the keyboard up (WCAG 2.2, 1.4.10).", Standard: "WCAG 2.2, 1.4.10",
	short: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("hides %.0f %% of the height", 100*f.By/f.Of)
	},
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("%s hides %.0f %% of the height", name(f.Node), 100*f.By/f.Of)
	},
	say: func(f *Finding, _ func(string) string) string {
		return fmt.Sprintf(
			"It is %.0f px high at %d px and stays while the page is scrolled; a viewport there has about %.0f.",
			f.By,
			f.Worst,
			f.Of,
		)
	},
	at: func(s *sight) {
		for i := range s.boxes {
			b := &s.boxes[i]
			if b.st.Position == style.Sticky && b.top && !b.st.Reveal && b.H > mostOfHeight*s.view.Height &&
				b.block == "" {
				s.noteWords(b.node(), "", "", b.H, s.view.Height, "")
			}
		}
	},
}

func mendBar(p *Page, f *Finding) *Repair {
	return &Repair{
		"Let it scroll in " + p.where(f),
		edit.Command{Op: "set", Node: f.Node, Zone: p.at(f), Setting: "stays", Value: value.Static},
	}
}

// How much of a viewport's height what stays in sight may take; common practice.
const mostOfHeight = 0.25
