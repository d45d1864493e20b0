package check

import (
	"fmt"
	"strings"

	"openplot/core/doc"
)

var noLabel = Rule{
	ID: "no-label", Name: "A field has no label", Family: Content, Severity: Broken, Standard: "WCAG 2.2, 3.3.2",
	What:  "a field without a label",
	Why:   "Nobody knows what to write in it.",
	short: func(f *Finding, name func(string) string) string { return "field " + f.Part + " has no label" },
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("Field %s of %s has no label", f.Part, name(f.Node))
	},
	whole: func(p *Page, r *report) {
		for _, s := range p.Doc.Sections {
			if s.Hidden {
				continue
			}
			s.Walk(func(b *doc.Block) {
				if b.Kind != doc.Form {
					return
				}
				for i, e := range b.Content.Entries {
					if strings.TrimSpace(e.Values["label"]) == "" {
						r.add(Finding{Node: b.ID, Part: fmt.Sprint(i + 1)})
					}
				}
			})
		}
	},
}
