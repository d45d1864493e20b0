package check

import "openplot/core/layout"

// besidePage finds a box that reaches past the edges of the page, as it is painted.
func (s *sight) besidePage(b *layout.Box, x, width float64, node string) {
	dx, _, w, _ := b.Painted(s.zone)
	if by := max(-(x + dx), x+dx+w-width); by > slack {
		s.findings = append(s.findings, Finding{Rule: BesidePage, Node: node, By: by})
	}
}
