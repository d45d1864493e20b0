package check

import (
	"fmt"

	"openplot/core/doc"
)

var noLink = Rule{
	ID: "no-link", Name: "A button leads nowhere yet", Family: Content, Severity: Doubtful,
	What: "a button has no link, or “#”, which leads back to the top of the page",
	Why:  "Whoever presses it sees nothing happen.",
	short: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("“%s” leads nowhere yet", f.Words)
	},
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("The button “%s” leads nowhere yet", f.Words)
	},
	say: func(f *Finding, _ func(string) string) string { return "Give it a link, or take it away." },
	whole: func(p *Page, r *report) {
		for _, s := range p.Doc.Sections {
			if s.Hidden {
				continue
			}
			eachShown(s, func(node string, b *doc.Block, c doc.Content) {
				if b.Kind == doc.Button && (c.Link == "" || c.Link == "#") {
					r.add(Finding{Node: node, Words: start(c.Words.Plain())})
				}
			})
		}
	},
}
