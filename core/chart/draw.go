package chart

import (
	"fmt"
	"math"
	"strings"
)

// Zooms that a chart can be drawn at.
const (
	MinZoom = 7
	MaxZoom = 15
)

// Centre is the middle of what the chart shows, in degrees: open sea, where there is no
// land. All that is drawn there is made up.
var Centre = struct{ Lat, Lon float64 }{58.05, -11.60}

// reach is how far the chart shows something from its centre, in degrees: east or west, north or south.
const reachAcross, reachUp = 0.5, 0.35

// Covers reports whether the chart shows anything at a place.
func Covers(lat, lon float64) bool {
	return math.Abs(lon-Centre.Lon) <= reachAcross && math.Abs(lat-Centre.Lat) <= reachUp
}

// shape is an area or a line of the chart, in degrees from its centre: east, north.
type shape struct {
	class  string // land, shallow or route
	points [][2]float64
}

// shapes are the made-up coast, islands, shallows and boat lines.
var shapes = []shape{
	{"shallow", ring(0.205, 0.055, 0.074, 0.040, 3)},
	{"shallow", ring(-0.055, 0.105, 0.100, 0.058, 7)},
	{"shallow", ring(-0.215, -0.075, 0.150, 0.050, 11)},
	{
		"land",
		[][2]float64{
			{
				0.30,
				-0.30,
			}, {0.27, -0.21}, {0.31, -0.15}, {0.25, -0.115}, {0.285, -0.075}, {0.275, -0.06}, {0.30, -0.045},
			{0.34, -0.03}, {0.33, 0.04}, {0.38, 0.11}, {0.36, 0.20}, {0.42, 0.32}, {0.9, 0.32}, {0.9, -0.30},
		},
	},
	{"land", ring(0.205, 0.055, 0.046, 0.022, 3)},
	{"land", ring(-0.055, 0.105, 0.066, 0.036, 7)},
	{"land", ring(-0.215, -0.075, 0.118, 0.026, 11)},
	{"land", ring(0.05, -0.16, 0.012, 0.008, 2)},
	{"route", [][2]float64{{0.275, -0.06}, {0.24, 0.01}, {0.212, 0.036}}},
	{"route", [][2]float64{{0.275, -0.06}, {0.12, 0.0}, {0.0, 0.085}}},
	{"route", [][2]float64{{0.275, -0.06}, {0.08, -0.09}, {-0.11, -0.075}}},
}

// labels are the made-up names, at what they name.
var labels = []struct {
	name        string
	east, north float64
}{
	{
		"Skerry Harbour",
		0.315,
		-0.062,
	}, {"Inner Holm", 0.205, 0.055}, {"Skarva", -0.055, 0.105}, {"Langey", -0.215, -0.075},
}

// ring is an island's outline: an ellipse with bays.
func ring(east, north, rx, ry float64, seed int) [][2]float64 {
	// Sines and cosines of 24 directions by turning one step at a time, so that the
	// outline is the same on every machine.
	const cos, sin = 0.9659258262890683, 0.25881904510252074
	c, s := 1.0, 0.0
	var out [][2]float64
	for i := range 24 {
		bay := 1 + 0.13*float64((i*seed*7+i*i*3)%11-5)/5
		out = append(out, [2]float64{east + rx*c*bay, north + ry*s*bay})
		c, s = c*cos-s*sin, s*cos+c*sin
	}
	return out
}

// Colours are those a chart is drawn in, as CSS has them.
type Colours struct{ Water, Shallow, Land, Line, Words string }

// Draw gives the SVG shapes of the chart around a place, on a plane of the given size in px. Nothing
// of them is further than a little beyond it, however far they go on.
func Draw(lat, lon, zoom, width, height float64, k Colours) string {
	at := plane(lat, lon, zoom, width, height)
	seen := frame{-edge, -edge, width + edge, height + edge}
	var b strings.Builder
	fmt.Fprintf(&b, `<rect width="%.0f" height="%.0f" fill="%s"/>`, width, height, k.Water)
	for _, s := range shapes {
		points := make([]point, len(s.points))
		for i, p := range s.points {
			points[i] = at(p[0], p[1])
		}
		if s.class == "route" {
			if d := seen.line(points); d != "" {
				fmt.Fprintf(
					&b, `<path d="%s" fill="none" stroke="%s" stroke-width="1.5" stroke-dasharray="5 5"/>`, d, k.Words,
				)
			}
			continue
		}
		d := seen.area(points)
		switch {
		case d == "":
		case s.class == "land":
			fmt.Fprintf(&b, `<path d="%s" fill="%s" stroke="%s" stroke-linejoin="round"/>`, d, k.Land, k.Line)
		default:
			fmt.Fprintf(&b, `<path d="%s" fill="%s"/>`, d, k.Shallow)
		}
	}
	return b.String()
}

// Label is a name on the chart, in the middle of what it names, on the plane of Draw.
type Label struct {
	Name string
	X, Y float64
}

// Labels gives the names that are seen around a place, on the plane of Draw.
func Labels(lat, lon, zoom, width, height float64) (out []Label) {
	at := plane(lat, lon, zoom, width, height)
	for _, l := range labels {
		if p := at(l.east, l.north); p.x > 0 && p.x < width && p.y > 0 && p.y < height {
			out = append(out, Label{l.name, p.x, p.y})
		}
	}
	return out
}

// plane gives where what is so far from the chart's centre, in degrees, is drawn.
func plane(lat, lon, zoom, width, height float64) func(east, north float64) point {
	cx, cy := Pixels(lat, lon, zoom)
	return func(east, north float64) point {
		x, y := Pixels(Centre.Lat+north, Centre.Lon+east, zoom)
		return point{x - cx + width/2, y - cy + height/2}
	}
}
