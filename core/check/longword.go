package check

import "openplot/core/layout"

// longWords finds a line that is wider than the box it stands in, which only a word can
// be that has no place to be broken at. In what can be scrolled that is no matter.
func (s *sight) longWords(b *layout.Box, width float64, node string) {
	if width == unbounded {
		return
	}
	for _, l := range b.Lines {
		if by := max(-l.X, l.X+l.W-b.W); by > slack {
			s.findings = append(s.findings, Finding{Rule: LongWord, Node: node, By: by})
		}
	}
}
