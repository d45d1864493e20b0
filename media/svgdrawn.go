package media

import (
	"encoding/xml"
	"regexp"
	"strings"
)

// svgDrawn counts what an SVG draws: an element that refers to another (use, or a paint, mask, clip
// path, filter or marker by url()) draws that one again (SVG 2 §5.5, §13.2), so that a few lines can
// come to billions.
type svgDrawn struct {
	nodes []svgNode
	open  []int
	ids   map[string]int
}

type svgNode struct {
	children []int
	refers   []string
	drawn    int // 0 is not counted yet, -1 that it is being counted
}

var svgReference = regexp.MustCompile(`(?i)url\(\s*['"]?#([^'")\s]+)`)

func (s *svgDrawn) begin(t xml.StartElement) {
	at := len(s.nodes)
	var n svgNode
	for _, a := range t.Attr {
		switch {
		case a.Name.Local == "href" && strings.HasPrefix(strings.TrimSpace(a.Value), "#"):
			n.refers = append(n.refers, strings.TrimSpace(a.Value)[1:])
		case a.Name.Local == "id":
			if s.ids == nil {
				s.ids = map[string]int{}
			}
			if _, ok := s.ids[a.Value]; !ok {
				s.ids[a.Value] = at
			}
		default:
			for _, m := range svgReference.FindAllStringSubmatch(a.Value, -1) {
				n.refers = append(n.refers, m[1])
			}
		}
	}
	s.nodes = append(s.nodes, n)
	if k := len(s.open); k > 0 {
		up := &s.nodes[s.open[k-1]]
		up.children = append(up.children, at)
	}
	s.open = append(s.open, at)
}

func (s *svgDrawn) end() {
	if len(s.open) > 0 {
		s.open = s.open[:len(s.open)-1]
	}
}

// count is how many elements are drawn in all; far too many are only that.
func (s *svgDrawn) count() int {
	if len(s.nodes) == 0 {
		return 0
	}
	return s.of(0)
}

func (s *svgDrawn) of(at int) int {
	n := &s.nodes[at]
	switch n.drawn {
	case 0:
	case -1:
		return 0 // it refers to itself, which draws nothing
	default:
		return n.drawn
	}
	n.drawn = -1
	total := 1
	for _, c := range n.children {
		total = min(total+s.of(c), 2*maxSVGDrawn)
	}
	for _, id := range n.refers {
		if to, ok := s.ids[id]; ok {
			total = min(total+s.of(to), 2*maxSVGDrawn)
		}
	}
	n.drawn = total
	return total
}
