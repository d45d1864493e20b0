package chart

import (
	"encoding/xml"
	"io"
	"math"
	"strings"
	"testing"
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
	k := Colours{"#cde", "#def", "#eed", "#999", "#333", "#a00"}
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
	if svg := Draw(Centre.Lat, Centre.Lon, 10, 800, 500, k); !strings.Contains(svg, "Skarva") {
		t.Error("the island in the middle has no name")
	}
}
