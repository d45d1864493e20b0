package check

import "openplot/core/layout"

// besidePage finds a box that reaches past the edges of the page.
func (s *sight) besidePage(b *layout.Box, x, width float64, node string) {
	if by := max(-x, x+b.W-width); by > slack {
		s.findings = append(s.findings, Finding{Rule: BesidePage, Node: node, By: by})
	}
}
