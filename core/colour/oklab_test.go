package colour

import (
	"encoding/json"
	"image"
	"image/color"
	"math"
	"os"
	"strings"
	"testing"
)

// colorjs reads what colorjs.io 0.7.1 says (e2e/colours.mjs).
func colorjs(t *testing.T) (data struct {
	Rows []struct {
		Hex                           string
		OKLab                         [3]float64
		ContrastWhite, ContrastGround float64
	}
	Texts []struct{ Text, Hex string }
}) {
	t.Helper()
	b, err := os.ReadFile("testdata/colorjs.json")
	if err != nil {
		t.Fatal(err)
	}
	if err := json.Unmarshal(b, &data); err != nil {
		t.Fatal(err)
	}
	if len(data.Rows) < 10 || len(data.Texts) < 5 {
		t.Fatal("the file has too little in it")
	}
	return data
}

func mustHex(t testing.TB, s string) Colour {
	t.Helper()
	c, err := ParseHex(s)
	if err != nil {
		t.Fatal(err)
	}
	return c
}

func TestOKLabAndContrastAgainstColorJS(t *testing.T) {
	white, ground := mustHex(t, "#ffffff"), mustHex(t, "#f6f1e8")
	for _, r := range colorjs(t).Rows {
		c := mustHex(t, r.Hex)
		o := c.OKLab()
		if d := Distance(o, OKLab{r.OKLab[0], r.OKLab[1], r.OKLab[2]}); d > 1e-4 {
			t.Errorf("%s is %v, colorjs.io has %v", r.Hex, o, r.OKLab)
		}
		if back := o.OKLCH().SRGB(); back != c {
			t.Errorf("%s comes back as %v", r.Hex, back)
		}
		if got := Contrast(c, white); math.Abs(got-r.ContrastWhite) > 0.005 {
			t.Errorf("%s on white: %.3f, colorjs.io has %.3f", r.Hex, got, r.ContrastWhite)
		}
		if got := Contrast(ground, c); math.Abs(got-r.ContrastGround) > 0.005 {
			t.Errorf("%s on #f6f1e8: %.3f, colorjs.io has %.3f", r.Hex, got, r.ContrastGround)
		}
	}
}

func TestParseAgainstColorJS(t *testing.T) {
	for _, r := range colorjs(t).Texts {
		got, err := Parse(r.Text)
		if err != nil {
			t.Errorf("%s: %v", r.Text, err)
			continue
		}
		want := mustHex(t, r.Hex)
		for _, d := range []int{int(got.R) - int(want.R), int(got.G) - int(want.G), int(got.B) - int(want.B)} {
			if d < -1 || d > 1 {
				t.Errorf("%s is %v, colorjs.io has %s", r.Text, got, r.Hex)
				break
			}
		}
	}
	for _, s := range []string{
		"rgb(300 0 0)", "rgb(1 2)", "rgb(1 2 3", "hsl(0 101% 0%)", "oklch(2 0 0)", "oklch(NaN 0 0)", "lab(1 2 3)",
		"rgb(1e999 0 0)", "red", "rgb(a b c)",
	} {
		if c, err := Parse(s); err == nil {
			t.Errorf("%q was read as %v", s, c)
		}
	}
}

// WCAG 2.2, Understanding 1.4.3: #777 on white misses 4.5:1, #767676 makes it; black
// on white is 21:1 (from memory).
func TestContrast(t *testing.T) {
	white := mustHex(t, "#fff")
	if r := Contrast(mustHex(t, "#777"), white); r >= AA || r < 4.47 {
		t.Errorf("#777: %v", r)
	}
	if r := Contrast(mustHex(t, "#767676"), white); r < AA {
		t.Errorf("#767676: %v", r)
	}
	if r := Contrast(mustHex(t, "#000"), white); math.Abs(r-21) > 1e-9 {
		t.Errorf("black: %v", r)
	}
	for r, want := range map[float64]string{21: "all text, AAA", 4.5: "all text", 4.49: "large text, controls", 2.9: "decoration only"} {
		if got := Passes(r); got != want {
			t.Errorf("%v passes %q, want %q", r, got, want)
		}
	}
}

func TestReadable(t *testing.T) {
	for _, ground := range []string{"#ffffff", "#f6f1e8", "#123a44", "#000000"} {
		for _, c := range []string{"#ffcc00", "#1d5f6b", "#808080", "#ff0000"} {
			g := mustHex(t, ground)
			if got := Readable(mustHex(t, c), g, AA); Contrast(got, g) < AA {
				t.Errorf("%s on %s became %v, %.2f", c, ground, got, Contrast(got, g))
			}
		}
	}
}

func TestScaleGoesFromLightToDark(t *testing.T) {
	for _, c := range []string{"#1d5f6b", "#ffcc00", "#000000", "#ffffff", "#ff00ff"} {
		last := 2.0
		for _, s := range mustHex(t, c).Scale(9) {
			if l := s.OKLab().L; l >= last {
				t.Errorf("%s: %v isn't darker than the one before", c, s)
			} else {
				last = l
			}
		}
	}
}

// A picture of three colours gives those, by their share.
func TestClusters(t *testing.T) {
	img := image.NewNRGBA(image.Rect(0, 0, 100, 100))
	for y := range 100 {
		for x := range 100 {
			c := color.NRGBA{29, 95, 107, 255}
			if y >= 60 {
				c = color.NRGBA{180, 83, 42, 255}
			}
			if y >= 90 {
				c = color.NRGBA{246, 241, 232, 255}
			}
			if x == 0 {
				c = color.NRGBA{255, 0, 255, 0} // transparent
			}
			img.SetNRGBA(x, y, c)
		}
	}
	cs := Clusters(img, 5)
	if len(cs) != 3 {
		t.Fatalf("%d clusters: %v", len(cs), cs)
	}
	for i, want := range []string{"#1d5f6b", "#b4532a", "#f6f1e8"} {
		if Distance(cs[i].Colour.OKLab(), mustHex(t, want).OKLab()) > 0.01 ||
			math.Abs(cs[i].Share-[]float64{0.6, 0.3, 0.1}[i]) > 0.01 {
			t.Errorf("cluster %d is %v, want %s", i, cs[i], want)
		}
	}
	r := SuggestRoles(cs)
	for name, c := range map[string]Colour{"words": r.Words, "quiet words": r.QuietWords, "accent": r.Accent, "second accent": r.SecondAccent} {
		for _, g := range []Colour{r.Ground, r.QuietGround} {
			if Contrast(c, g) < AA {
				t.Errorf("%s %v on %v: %.2f", name, c, g, Contrast(c, g))
			}
		}
	}
	for _, size := range []int{0, 3} { // nothing opaque in it
		if cs := Clusters(image.NewNRGBA(image.Rect(0, 0, size, size)), 4); len(cs) != 0 {
			t.Errorf("an empty picture has %v", cs)
		}
	}
	SuggestRoles(nil) // must come back
}

func FuzzParse(f *testing.F) {
	for _, s := range []string{"#fff", "rgb(1 2 3)", "hsl(1,2%,3%)", "oklch(1 2 3)", "((("} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		c, err := Parse(s)
		if err == nil {
			if again, err := ParseHex(c.String()); err != nil || again != c {
				t.Errorf("%q gives %v", s, c)
			}
		} else if !strings.Contains(err.Error(), "write it like") {
			t.Errorf("%q: %v doesn't say what would be right", s, err)
		}
	})
}
