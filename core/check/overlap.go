package check

// overlaps finds lines of words that lie over those of another block.
func (s *sight) overlaps() {
	for i, a := range s.lines {
		for _, b := range s.lines[:i] {
			if a.block == b.block {
				continue
			}
			w := min(a.x+a.w, b.x+b.w) - max(a.x, b.x)
			h := min(a.y+a.h, b.y+b.h) - max(a.y, b.y)
			if w > 1 && h > 1 { // line boxes may touch
				s.findings = append(s.findings, Finding{Rule: WordsOver, Node: a.block, Other: b.block, By: min(w, h)})
			}
		}
	}
}
