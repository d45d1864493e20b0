package check

import (
	"fmt"
	"strings"

	"openplot/core/element"
)

var noAlternative = Rule{
	ID: "no-alternative", Name: "A picture has no alternative text", Family: Content, Severity: Doubtful, Standard: "WCAG 2.2, 1.1.1",
	What:  "a picture without alternative text",
	Why:   "Who can’t see it isn’t told what it shows. One that is only decoration may have none.",
	short: func(f *Finding, name func(string) string) string { return "no alternative text" },
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("%s has no alternative text", name(f.Node))
	},
	whole: func(p *Page, r *report) {
		p.inZones(r, func(z int, note func(Finding)) {
			p.each(z, func(n *element.Node, node string, hidden bool) {
				if n.Tag == "img" && !hidden && strings.TrimSpace(attr(n, "alt")) == "" &&
					attr(n, "data-stands-in") == "" &&
					isBlock(p, node) {
					note(Finding{Node: node, Part: attr(n, "src")})
				}
			})
		})
	},
}
