package check

import (
	"fmt"
	"slices"

	"openplot/core/element"
)

var sameLink = Rule{
	ID: "same-link", Name: "Links with the same words lead to different places", Family: Content, Severity: Hint, Standard: "WCAG 2.2, 2.4.9 (AAA)",
	What: "the same words for different places",
	Why:  "Nobody can tell which is which.",
	title: func(f *Finding, _ func(string) string) string {
		return fmt.Sprintf("“%s” leads to %.0f places", f.Words, f.By)
	},
	whole: func(p *Page, r *report) {
		leads := map[string][]string{} // places by words
		first := map[string]Finding{}
		var said []string
		p.each(0, func(n *element.Node, node string, hidden bool) {
			to := attr(n, "href")
			words := spoken(n)
			if n.Tag != "a" || to == "" || hidden || words == "" || slices.Contains(leads[words], to) {
				return
			}
			if leads[words] = append(leads[words], to); len(leads[words]) == 1 {
				said, first[words] = append(said, words), Finding{Node: node}
			} else if f := first[words]; f.Other == "" && node != f.Node {
				f.Other = node
				first[words] = f
			}
		})
		for _, words := range said {
			if n := len(leads[words]); n > 1 {
				f := first[words]
				f.By, f.Words, f.Part = float64(n), start(words), start(words)
				r.add(f)
			}
		}
	},
}
