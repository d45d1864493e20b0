package check

import (
	"fmt"
	"math"
	"strings"

	"openplot/core/element"
)

// Sizes in px of what is pressed: WCAG 2.2, 2.5.8 asks for the first, or as much room about it;
// 2.5.5 (AAA) for the second.
const (
	leastTarget = 24.0
	easyTarget  = 44.0
)

var smallTarget = Rule{
	ID: "small-target", Name: "Something to press is small", Family: Reading, Severity: Doubtful, Least: true, Standard: "WCAG 2.2, 2.5.8",
	What: "under 24 px, and another within the 24 px circle",
	Why:  "Fingers miss it, or press what is beside it.",
	short: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("“%s” is %.0f px to press", f.Words, math.Floor(f.By))
	},
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("“%s” is %.0f px to press", f.Words, math.Floor(f.By))
	},
	say: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf(
			"In %s, at %d px; %.0f are asked for, or as much room about it.",
			name(f.Node),
			f.Worst,
			leastTarget,
		)
	},
	at: func(s *sight) {
		ts := s.targets()
		for i := range ts {
			t := &ts[i]
			small := min(t.w, t.h)
			if small >= leastTarget-slack {
				continue
			}
			// The spacing exception: a circle of 24 px about its middle touches no other target, nor
			// the circle of another small one.
			cx, cy := t.x+t.w/2, t.y+t.h/2
			for k := range ts {
				o := &ts[k]
				if k == i || o.node == t.node {
					continue
				}
				far := math.Hypot(cx-min(max(cx, o.x), o.x+o.w), cy-min(max(cy, o.y), o.y+o.h))
				near := far < leastTarget/2
				if min(o.w, o.h) < leastTarget-slack {
					near = near || math.Hypot(cx-o.x-o.w/2, cy-o.y-o.h/2) < leastTarget
				}
				if near {
					s.noteWords(t.b.node(), "", start(t.words()), small, leastTarget, start(t.words()))
					break
				}
			}
		}
	},
}

// target is something to press where it is.
type target struct {
	b          *box
	node       *element.Node
	x, y, w, h float64
}

// words are what it is called by those who hear it.
func (t *target) words() string { return spoken(t.node) }

// targets gives what is to be pressed: boxes, and links that are all of their line's words.
// Links in a sentence are left out, as the standard does.
func (s *sight) targets() (out []target) {
	for i := range s.boxes {
		b := &s.boxes[i]
		if b.hidden || b.see < unseen {
			continue
		}
		if b.target && b.W > 0 {
			out = append(out, target{b, b.Node, b.px, b.py, b.pw, b.ph})
			continue
		}
		if len(b.Lines) == 0 || len(b.Node.Children) == 0 {
			continue
		}
		var sole *element.Node
		for _, c := range b.Node.Children {
			switch {
			case c.Tag == "a" && attr(c, "href") != "" && sole == nil:
				sole = c
			case strings.TrimSpace(textOf(c)) != "":
				sole = nil
				goto next
			}
		}
		if sole != nil {
			x, y, x2, y2 := math.Inf(1), math.Inf(1), math.Inf(-1), math.Inf(-1)
			content := sole.Styles[s.zone].FontPx(s.view) * contentArea
			for _, l := range b.Lines {
				h := max(content, 0)
				x, x2 = min(x, l.X), max(x2, l.X+l.W)
				y, y2 = min(y, l.Y+(l.H-h)/2), max(y2, l.Y+(l.H+h)/2)
			}
			out = append(out, target{b, sole, b.x + x, b.y + y, x2 - x, y2 - y})
		}
	next:
	}
	return out
}

// contentArea is about how high a font's content area is for its size: inline boxes are as high
// (CSS 2.2 §10.6.1). The shipped fonts have 1.2 to 1.36.
const contentArea = 1.2

// spoken gives what an element is called by those who hear it.
func spoken(n *element.Node) string {
	if v := attr(n, "aria-label"); v != "" {
		return v
	}
	if t := strings.Join(strings.Fields(textOf(n)), " "); t != "" {
		return t
	}
	alt := ""
	n.Walk(func(c *element.Node) {
		if c.Tag == "img" && alt == "" {
			alt = attr(c, "alt")
		}
		if alt == "" && c != n {
			alt = attr(c, "aria-label")
		}
	})
	if alt == "" {
		alt = attr(n, "placeholder")
	}
	if alt == "" {
		alt = attr(n, "name")
	}
	return alt
}
