package check

import (
	"fmt"
	"strings"

	"openplot/core/element"
)

var noWordsLink = Rule{
	ID: "no-words-link", Name: "Something to press says nothing", Family: Content, Severity: Broken, Standard: "WCAG 2.2, 2.4.4",
	What:  "a link or button says nothing",
	Why:   "Who hears the page is told “link”, and not where to.",
	short: func(f *Finding, name func(string) string) string { return "a link without words" },
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("A link of %s has no words", name(f.Node))
	},
	say: func(f *Finding, _ func(string) string) string {
		return "Give it words, or the picture in it alternative text."
	},
	whole: func(p *Page, r *report) {
		p.inZones(r, func(z int, note func(Finding)) {
			p.each(z, func(n *element.Node, node string, hidden bool) {
				pressed := n.Tag == "a" && has(n, "href") || n.Tag == "button"
				if pressed && !hidden && spoken(n) == "" && attr(n, "aria-labelledby") == "" &&
					!strings.Contains(n.Raw, "aria-label") {
					note(Finding{Node: node, Part: attr(n, "href")})
				}
			})
		})
	},
}
