package check

import (
	"fmt"
	"slices"
	"strings"

	"openplot/core/element"
)

var vagueLink = Rule{
	ID: "vague-link", Name: "A link doesn’t say where it leads", Family: Content, Severity: Hint, Standard: "WCAG 2.2, 2.4.9 (AAA)",
	What: "“read more” and the like",
	Why:  "Links are read by themselves, in lists and by eyes that skim.",
	short: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("“%s” says nothing of where to", f.Words)
	},
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("“%s” in %s doesn’t say where it leads", f.Words, name(f.Node))
	},
	whole: func(p *Page, r *report) {
		seen := map[string]bool{}
		p.each(0, func(n *element.Node, node string, hidden bool) {
			if n.Tag != "a" || !has(n, "href") || hidden || seen[node] {
				return
			}
			words := strings.Trim(strings.ToLower(spoken(n)), " .…→>»")
			if slices.Contains(vague, words) {
				seen[node] = true
				r.add(Finding{Node: node, Words: spoken(n)})
			}
		})
	},
}

// vague are words that tell nothing of where a link leads, in small letters; common practice, in
// English.
var vague = []string{
	"here",
	"click here",
	"click",
	"link",
	"more",
	"read more",
	"learn more",
	"see more",
	"this",
	"this page",
	"go",
	"details",
	"continue",
}
