package colour

import (
	"math"
	"testing"
)

// The greatest chroma of sRGB's own primaries' hues is theirs, or a little more: they are
// the outermost points of the gamut.
func TestMostChroma(t *testing.T) {
	for _, c := range []Colour{{255, 0, 0, 255}, {0, 255, 0, 255}, {0, 0, 255, 255}, {255, 0, 255, 255}} {
		o := c.OKLCH()
		if got := MostChroma(o.H); math.Abs(got-o.C) > 0.012 {
			t.Errorf("%v: %.3f, its own is %.3f", c, got, o.C)
		}
	}
}

func TestPlane(t *testing.T) {
	const w, h = 40, 20
	into := make([]byte, 4*w*h)
	Plane(into, w, h, 210)
	seen := 0
	for i := 0; i < len(into); i += 4 {
		if into[i+3] == 0 {
			continue
		}
		seen++
		o := Colour{into[i], into[i+1], into[i+2], 255}.OKLCH()
		want := 1 - (float64(i/4/w)+0.5)/h
		if math.Abs(o.L-want) > 0.03 {
			t.Fatalf("pixel %d is %.3f light, want %.3f", i/4, o.L, want)
		}
	}
	if seen < w*h/5 || seen > w*h*4/5 {
		t.Errorf("%d of %d colours are in the gamut", seen, w*h)
	}
}

// Opacities in every notation (CSS Color 4 §4.2).
func TestOpacities(t *testing.T) {
	for in, want := range map[string]string{
		"rgb(255 0 0 / 50%)": "#ff000080", "rgba(255, 0, 0, 0.5)": "#ff000080", "hsl(0 100% 50% / .25)": "#ff000040", "transparent": "#00000000",
		"#ff000080": "#ff000080", "oklch(62.8% 0.2577 29.23 / 1)": "#ff0000",
	} {
		if c, err := Parse(in); err != nil || c.String() != want {
			t.Errorf("%s is %v, %v; want %s", in, c, err, want)
		}
	}
	for _, in := range []string{"rgb(1 2 3 / 4 5)", "rgb(1 2 3 / 200%)", "rgb(1 2 3 / x)"} {
		if c, err := Parse(in); err == nil {
			t.Errorf("%s is %v, want a problem", in, c)
		}
	}
	if got := (Colour{255, 255, 255, 128}).Over(Colour{0, 0, 0, 255}); got != (Colour{128, 128, 128, 255}) {
		t.Errorf("half white over black is %v", got)
	}
}
