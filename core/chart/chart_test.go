package chart

import (
	"encoding/xml"
	"io"
	"math"
	"math/rand/v2"
	"regexp"
	"strings"
	"testing"

	"openplot/core/number"
)

// The worked example of IOGP Publication 373-7-2 (Geomatics Guidance Note 7, part 2),
// §3.2.1, Popular Visualisation Pseudo Mercator; values from memory: 24°22'54.433"N,
// 100°20'00.000"W is E −11 169 055.58 m, N 2 800 000.00 m.
func TestMetresWorkedExample(t *testing.T) {
	e, n := Metres(24+22.0/60+54.433/3600, -(100 + 20.0/60))
	if math.Abs(e+11169055.58) > 0.01 || math.Abs(n-2800000.00) > 0.01 {
		t.Errorf("E %.2f, N %.2f", e, n)
	}
}

// The projection's plane is a square: its corners, and its middle, at any zoom (the
// published formula of tiled maps: x = 2^z (λ+180)/360, y = 2^z (1 − asinh(tan φ)/π)/2).
func TestPixels(t *testing.T) {
	for _, zoom := range []float64{0, 3, 10.5} {
		size := 256 * math.Exp2(zoom)
		for _, p := range []struct{ lat, lon, x, y float64 }{
			{0, 0, 0.5, 0.5},
			{MaxLatitude, -180, 0, 0},
			{-MaxLatitude, 180, 1, 1},
			{89.9, 180, 1, 0},
		} {
			x, y := Pixels(p.lat, p.lon, zoom)
			if math.Abs(x-p.x*size) > 1e-6*size || math.Abs(y-p.y*size) > 1e-6*size {
				t.Errorf("%v, %v at %v: %v, %v of %v", p.lat, p.lon, zoom, x, y, size)
			}
		}
		for lat := -80.0; lat <= 80; lat += 7 {
			_, y := Pixels(lat, 0, zoom)
			want := size * (1 - math.Asinh(math.Tan(lat*math.Pi/180))/math.Pi) / 2
			if math.Abs(y-want) > 1e-6*size {
				t.Errorf("latitude %v: %v, want %v", lat, y, want)
			}
		}
	}
}

func TestDrawIsWellFormed(t *testing.T) {
	k := Colours{"#cde", "#def", "#eed", "#999", "#333"}
	for zoom := float64(MinZoom); zoom <= MaxZoom; zoom++ {
		svg := Draw(58.02, -11.3, zoom, 800, 500, k)
		d := xml.NewDecoder(strings.NewReader("<svg>" + svg + "</svg>"))
		for {
			if _, err := d.Token(); err == io.EOF {
				break
			} else if err != nil {
				t.Fatalf("zoom %v: %v", zoom, err)
			}
		}
		if strings.Contains(svg, "NaN") || strings.Contains(svg, "Inf") {
			t.Errorf("zoom %v holds no numbers", zoom)
		}
	}
	if l := Labels(Centre.Lat, Centre.Lon, 10, 800, 500); len(l) != 4 || l[2].Name != "Skarva" {
		t.Errorf("around the middle are %v", l)
	}
}

// What is drawn is within the plane and its edge, at any zoom and around any place, and is all of it
// that is: a point of the plane is in a cut shape just when it is in the whole one (by the even-odd
// rule, SVG 2 §13.5.1).
func TestNothingIsDrawnBeyondTheChart(t *testing.T) {
	f := frame{0, 0, 100, 60}
	r := rand.New(rand.NewPCG(3, 4))
	for range 300 {
		points := make([]point, 3+r.IntN(6))
		for i := range points {
			points[i] = point{r.Float64()*400 - 150, r.Float64()*300 - 120}
		}
		cut := read(t, f.area(points))
		for _, p := range append(cut, read(t, f.line(points))...) {
			if p.x < -0.06 || p.x > 100.06 || p.y < -0.06 || p.y > 60.06 {
				t.Fatalf("%v of %v is beyond", p, points)
			}
		}
		for range 20 {
			p := point{r.Float64() * 100, r.Float64() * 60}
			if far(p, points, 0.5) && inside(p, points) != inside(p, cut) {
				t.Fatalf("%v is in the whole %v: %v", p, points, inside(p, points))
			}
		}
	}
	for zoom := float64(MinZoom); zoom <= MaxZoom; zoom++ {
		for _, p := range read(t, strings.Join(paths.FindAllString(Draw(58.02, -11.3, zoom, 800, 500, Colours{}), -1), "")) {
			if p.x < -edge-0.1 || p.x > 800+edge+0.1 || p.y < -edge-0.1 || p.y > 500+edge+0.1 {
				t.Fatalf("at %v something is at %v", zoom, p)
			}
		}
	}
}

var (
	paths  = regexp.MustCompile(` d="[^"]*"`)
	places = regexp.MustCompile(`(-?[0-9.]+) (-?[0-9.]+)`)
)

// read gives the points of a path.
func read(t *testing.T, path string) (out []point) {
	t.Helper()
	for _, m := range places.FindAllStringSubmatch(path, -1) {
		x, err := number.Real(m[1])
		y, err2 := number.Real(m[2])
		if err != nil || err2 != nil {
			t.Fatalf("%q isn't a point", m[0])
		}
		out = append(out, point{x, y})
	}
	return out
}

// inside reports whether a point is in a closed shape.
func inside(p point, points []point) (in bool) {
	for i, a := range points {
		b := points[(i+1)%len(points)]
		if (a.y > p.y) != (b.y > p.y) && p.x < a.x+(p.y-a.y)/(b.y-a.y)*(b.x-a.x) {
			in = !in
		}
	}
	return in
}

// far reports whether a point is as far as that from a closed shape's outline.
func far(p point, points []point, by float64) bool {
	for i, a := range points {
		b := points[(i+1)%len(points)]
		along := ((p.x-a.x)*(b.x-a.x) + (p.y-a.y)*(b.y-a.y)) / ((b.x-a.x)*(b.x-a.x) + (b.y-a.y)*(b.y-a.y))
		along = min(max(along, 0), 1)
		if math.Hypot(p.x-a.x-along*(b.x-a.x), p.y-a.y-along*(b.y-a.y)) < by {
			return false
		}
	}
	return true
}
