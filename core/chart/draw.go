package chart

import (
	"fmt"
	"html"
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

// Colours are those a chart is drawn in, as CSS has them; without one for the mark there
// is none.
type Colours struct{ Water, Shallow, Land, Line, Words, Mark string }

// Draw gives the SVG shapes of the chart around a place, on a plane of the given size
// in px, with a mark on the place.
func Draw(lat, lon, zoom, width, height float64, k Colours) string {
	cx, cy := Pixels(lat, lon, zoom)
	at := func(east, north float64) (x, y float64) {
		x, y = Pixels(Centre.Lat+north, Centre.Lon+east, zoom)
		return x - cx + width/2, y - cy + height/2
	}
	var b strings.Builder
	fmt.Fprintf(&b, `<rect width="%.0f" height="%.0f" fill="%s"/>`, width, height, k.Water)
	for _, s := range shapes {
		var d strings.Builder
		left, top, right, bottom := math.Inf(1), math.Inf(1), math.Inf(-1), math.Inf(-1)
		for i, p := range s.points {
			x, y := at(p[0], p[1])
			left, top, right, bottom = min(left, x), min(top, y), max(right, x), max(bottom, y)
			d.WriteString(map[bool]string{true: "M", false: "L"}[i == 0])
			fmt.Fprintf(&d, "%.1f %.1f", x, y)
		}
		if right < 0 || bottom < 0 || left > width || top > height {
			continue // nothing of it is seen
		}
		switch s.class {
		case "land":
			fmt.Fprintf(&b, `<path d="%sz" fill="%s" stroke="%s" stroke-linejoin="round"/>`, d.String(), k.Land, k.Line)
		case "shallow":
			fmt.Fprintf(&b, `<path d="%sz" fill="%s"/>`, d.String(), k.Shallow)
		case "route":
			fmt.Fprintf(
				&b,
				`<path d="%s" fill="none" stroke="%s" stroke-width="1.5" stroke-dasharray="5 5"/>`,
				d.String(),
				k.Words,
			)
		}
	}
	for _, l := range labels {
		x, y := at(l.east, l.north)
		if x > 0 && x < width && y > 0 && y < height {
			fmt.Fprintf(
				&b, `<text x="%.1f" y="%.1f" font-size="15" text-anchor="middle" fill="%s">%s</text>`, x, y+5, k.Words,
				html.EscapeString(l.name),
			)
		}
	}
	if k.Mark == "" {
		return b.String()
	}
	x, y := width/2, height/2
	fmt.Fprintf(
		&b,
		`<path d="M%.1f %.1fc-6-12-13-18-13-27a13 13 0 0 1 26 0c0 9-7 15-13 27z" fill="%s" stroke="#fff" stroke-width="2"/><circle cx="%.1f" cy="%.1f" r="4.5" fill="#fff"/>`,
		x,
		y,
		k.Mark,
		x,
		y-27,
	)
	return b.String()
}
