package check

import (
	"fmt"
	"slices"
	"strings"

	"openplot/core/doc"
)

var deadLink = Rule{
	ID: "dead-link", Name: "A link leads nowhere", Family: Content, Severity: Broken,
	What: "no such page, place or file",
	Why:  "Visitors who follow it get an error, or stay where they are.",
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("“%s” leads nowhere", f.Words)
	},
	say: func(f *Finding, name func(string) string) string {
		switch {
		case strings.HasPrefix(f.Part, doc.FilePrefix):
			return fmt.Sprintf("The file that %s leads to isn’t in the library any more.", name(f.Node))
		case strings.Contains(f.Part, "#"):
			return fmt.Sprintf("No place is called %s there.", f.Part[strings.Index(f.Part, "#"):])
		}
		return fmt.Sprintf("The site has no page at %s.", f.Part)
	},
	whole: func(p *Page, r *report) {
		here := Anchors(p.Doc)
		for _, l := range links(p.Doc) {
			path, anchor, placed := strings.Cut(l.to, "#")
			ok := true
			switch {
			case strings.HasPrefix(l.to, doc.FilePrefix):
				ok = p.File != nil && p.File(doc.LinkedFile(l.to))
			case strings.HasPrefix(l.to, "#"):
				ok = anchor == "" || slices.Contains(here, anchor)
			case strings.HasPrefix(l.to, "/"):
				path, _, _ = strings.Cut(path, "?")
				address := strings.Trim(path, "/")
				i := slices.IndexFunc(p.Others, func(o Other) bool { return o.Address == address })
				if ok = i >= 0; ok && placed && anchor != "" {
					names := p.Others[i].Anchors
					if address == p.Here {
						names = here
					}
					ok = slices.Contains(names, anchor)
				}
			}
			if !ok {
				r.add(Finding{Node: l.block, Part: l.to, Words: l.name()})
			}
		}
	},
}
