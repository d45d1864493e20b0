package check

import (
	"fmt"
	"slices"

	"openplot/core/element"
	"openplot/core/style"
)

var unusedFont = Rule{
	ID: "unused-font", Name: "A font is loaded and not used", Family: Weight, Severity: Hint,
	What: "a family that the page has browsers fetch early is set nowhere in a zone",
	Why:  "Visitors load it for nothing.",
	title: func(f *Finding, _ func(string) string) string {
		return fmt.Sprintf("%s is loaded and not used", f.Words)
	},
	whole: func(p *Page, r *report) {
		for _, family := range p.Families {
			p.inZones(r, func(z int, note func(Finding)) {
				for _, part := range p.Parts {
					if usesFont(part.Root, z, family) {
						return
					}
				}
				note(Finding{Part: family, Words: family})
			})
		}
	},
}

// usesFont reports whether any words of an element that are displayed in a zone are set in a family.
func usesFont(n *element.Node, z int, family string) bool {
	if n.Tag == "" {
		return n.Styles[z].FontFamily == family
	}
	return n.Styles[z].Display != style.None &&
		slices.ContainsFunc(n.Children, func(c *element.Node) bool { return usesFont(c, z, family) })
}
