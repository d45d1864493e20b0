package check

import (
	"fmt"

	"openplot/core/style"
)

var underBar = Rule{
	repair: mendBar,
	ID:     "under-bar", Name: "The bar covers what links lead to", Family: Layout, Severity: Doubtful, Standard: "WCAG 2.2, 2.4.11",
	What: "it is higher than the 80 px that links leave above what they lead to",
	Why:  "Whoever follows a link on the page doesn’t see the beginning of what it leads to.",
	short: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("covers %.0f px of what links lead to", f.By-f.Of)
	},
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("%s covers %.0f px of what links lead to", name(f.Node), f.By-f.Of)
	},
	say: func(f *Finding, _ func(string) string) string {
		return fmt.Sprintf(
			"It is %.0f px high at %d px; places come to stand %.0f px below the top.",
			f.By,
			f.Worst,
			f.Of,
		)
	},
	at: func(s *sight) {
		for i := range s.boxes {
			b := &s.boxes[i]
			if b.st.Position == style.Sticky && b.top && b.block == "" && b.st.Inset.Top.Unit != style.Auto &&
				b.H > ScrollPadding+slack {
				s.noteWords(b.node(), "", "", b.H, ScrollPadding, "")
			}
		}
	},
}

// ScrollPadding is how far below the top a place comes to stand that a link leads to, px: what
// emit writes as scroll-padding.
const ScrollPadding = 80.0
