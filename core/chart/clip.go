package chart

import (
	"fmt"
	"strings"
)

// point is on the plane that is drawn on, in px.
type point struct{ x, y float64 }

// edge is how far beyond the plane shapes are drawn, px, so that no stroke along it is seen.
const edge = 8

// frame is what is seen of a drawing.
type frame struct{ left, top, right, bottom float64 }

// side is an edge of a frame: how far inside of it a point is, below 0 being outside.
type side func(point) float64

func (f frame) sides() []side {
	return []side{
		func(p point) float64 { return p.x - f.left },
		func(p point) float64 { return p.y - f.top },
		func(p point) float64 { return f.right - p.x },
		func(p point) float64 { return f.bottom - p.y },
	}
}

// cross is where a line from one point to another crosses a side.
func (s side) cross(from, to point) point {
	a, b := s(from), s(to)
	t := a / (a - b)
	return point{from.x + t*(to.x-from.x), from.y + t*(to.y-from.y)}
}

// area is what is seen of a closed shape, as an SVG path, or "": cut along one side after the other
// (Sutherland and Hodgman 1974).
func (f frame) area(points []point) string {
	for _, s := range f.sides() {
		var cut []point
		for i, p := range points {
			was := points[(i+len(points)-1)%len(points)]
			if (s(was) < 0) != (s(p) < 0) {
				cut = append(cut, s.cross(was, p))
			}
			if s(p) >= 0 {
				cut = append(cut, p)
			}
		}
		points = cut
	}
	if len(points) == 0 {
		return ""
	}
	return path(points) + "z"
}

// line is what is seen of a line, as an SVG path, or "".
func (f frame) line(points []point) string {
	var d strings.Builder
	for i := 1; i < len(points); i++ {
		from, to, seen := points[i-1], points[i], true
		for _, s := range f.sides() {
			switch a, b := s(from), s(to); {
			case a < 0 && b < 0:
				seen = false
			case a < 0:
				from = s.cross(from, to)
			case b < 0:
				to = s.cross(from, to)
			}
		}
		if seen {
			d.WriteString(path([]point{from, to}))
		}
	}
	return d.String()
}

func path(points []point) string {
	var d strings.Builder
	for i, p := range points {
		d.WriteString(map[bool]string{true: "M", false: "L"}[i == 0])
		fmt.Fprintf(&d, "%.1f %.1f", p.x, p.y)
	}
	return d.String()
}
