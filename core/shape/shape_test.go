package shape_test

import (
	"math"
	"strconv"
	"strings"
	"testing"

	"openplot/core/shape"
	"openplot/fonts"
)

func run(t testing.TB, text, family string, weight int, size float64) shape.Run {
	t.Helper()
	lib, err := fonts.Library()
	if err != nil {
		t.Fatal(err)
	}
	return shape.Run{Text: text, Faces: lib.Faces(family, weight, false), Size: size, LineHeight: math.NaN()}
}

func paragraph(t testing.TB, runs ...shape.Run) *shape.Paragraph {
	t.Helper()
	lib, err := fonts.Library()
	if err != nil {
		t.Fatal(err)
	}
	return lib.Paragraph(runs)
}

// A newer go-text loses kerning silently; this string shows it. The widths are
// those of Chromium 156 (getBoundingClientRect of a span with
// text-rendering: geometricPrecision), measured with e2e/measure.mjs.
func TestKerningAsInChromium(t *testing.T) {
	for _, tt := range []struct {
		family string
		weight int
		want   float64
	}{
		{"Hanken Grotesk", 400, 375.047},
		{"Hanken Grotesk", 700, 383.125},
		{"Bricolage Grotesque", 400, 384.031},
		{"Bricolage Grotesque", 650, 397.672},
		{"Source Serif 4", 400, 395.891},
		{"Source Serif 4", 700, 404.516},
		{"Fraunces", 400, 411.813},
		{"Fraunces", 600, 423.891},
		{"IBM Plex Mono", 400, 432.000},
		{"Figtree", 400, 388.141},
		{"Figtree", 700, 396.156},
		{"Lora", 400, 395.250},
		{"Lora", 600, 399.250},
		{"Oswald", 500, 311.625},
		{"Caveat", 400, 287.969},
		{"DM Serif Display", 400, 363.406},
		{"Atkinson Hyperlegible", 400, 366.250},
	} {
		got := paragraph(t, run(t, "AVATAR Wave To You", tt.family, tt.weight, 40)).MaxContent()
		if math.Abs(got-tt.want) > 0.05 {
			t.Errorf("%s %d: %.3f px, want %.3f", tt.family, tt.weight, got, tt.want)
		}
	}
}

func wrapping(width float64, strut shape.Run) shape.Wrapping {
	above, below := strut.Faces[0].LineMetrics(strut.Size, strut.LineHeight)
	return shape.Wrapping{Width: width, Above: above, Below: below}
}

func lines(p *shape.Paragraph, width float64, strut shape.Run) (out []string) {
	for _, l := range p.Wrap(wrapping(width, strut), nil, nil) {
		out = append(out, p.Text(l.Start, l.End))
	}
	return out
}

// UAX 14, with Chromium's exceptions (the table in core/shape/breaks.go).
func TestBreaks(t *testing.T) {
	for text, want := range map[string]string{
		"one two":            "one |two",
		"well-known":         "well-|known",
		"50-50":              "50-|50",
		"-5 °C":              "-5 |°C",
		"a\u00a0b c":         "a\u00a0b |c",
		"24/7 on":            "24/7 |on",
		"example.org/a?b=1":  "example.org/a?|b=1",
		"soft\u00adhyphen":   "soft\u00ad|hyphen",
		"A—B":                "A|—|B",
		"(one) [two]":        "(one) |[two]",
		"a –first":           "a |–first",
		"a–b":                "a–|b",
		"zero\u200bwidth":    "zero\u200b|width",
		"word\u2060joiner x": "word\u2060joiner |x",
	} {
		r := run(t, text, "Hanken Grotesk", 400, 16)
		if got := strings.Join(lines(paragraph(t, r), 1, r), "|"); got != want {
			t.Errorf("%q breaks as %q, want %q", text, got, want)
		}
	}
}

func TestWrapKeepsEveryRune(t *testing.T) {
	text := strings.Repeat("The boat leaves at 08:10 — be there, please; “Wave” AVATAR soft\u00adhyphen. ", 40)
	r := run(t, text, "Source Serif 4", 400, 17)
	p := paragraph(t, r)
	for _, w := range []float64{0, 1, 50, 200.3, 555.5, 1e7, math.Inf(1)} {
		ls := p.Wrap(wrapping(w, r), nil, nil)
		at := 0
		for _, l := range ls {
			if l.Start != at || l.End <= l.Start {
				t.Fatalf("at %v px a line goes from %d to %d, the last ended at %d", w, l.Start, l.End, at)
			}
			if at = l.End; w > 300 && l.Width > w+0.02 {
				t.Errorf("at %v px a line is %v wide", w, l.Width)
			}
		}
		if at != len([]rune(text)) {
			t.Errorf("at %v px the lines end at %d of %d", w, at, len([]rune(text)))
		}
	}
	if p.MinContent(false) > p.MaxContent() {
		t.Error("min-content is wider than max-content")
	}
}

func TestNarrowerNeverTakesFewerLines(t *testing.T) {
	r := run(t, strings.Repeat("ferries sail all year, whatever the weather says ", 10), "Fraunces", 400, 18)
	p := paragraph(t, r)
	before := math.MaxInt
	for w := 20.0; w < 1200; w += 0.7 {
		n := len(p.Wrap(wrapping(w, r), nil, nil))
		if n > before {
			t.Fatalf("%d lines at %v px, %d at less", n, w, before)
		}
		before = n
	}
}

// Common practice and CSS Inline 3: half of the leading goes above and below.
func TestLineMetrics(t *testing.T) {
	lib, err := fonts.Library()
	if err != nil {
		t.Fatal(err)
	}
	f := lib.Faces("Hanken Grotesk", 400, false)[0]
	above, below := f.LineMetrics(16, 24)
	if above+below != 24 || above <= below {
		t.Errorf("a line of 24 px is %v above and %v below the baseline", above, below)
	}
	a, b := f.LineMetrics(16, math.NaN())
	if a+b < 16 || a+b > 26 {
		t.Errorf("a normal line is %v px high", a+b)
	}
}

func FuzzParagraph(f *testing.F) {
	for _, s := range []string{"a b", "سلام שלום", "e\u0301\u0301\u0301", "👩‍👩‍👧 emoji", "\u00ad\u00ad", "漢字かな", strings.Repeat("x", 3000)} {
		f.Add(s, 100.0)
	}
	f.Fuzz(func(t *testing.T, s string, w float64) {
		if len(s) > 5000 {
			return
		}
		r := run(t, s, "Hanken Grotesk", 400, 16)
		p := paragraph(t, r)
		at := 0
		for _, l := range p.Wrap(wrapping(w, r), nil, nil) {
			if math.IsNaN(l.Width) || math.IsInf(l.Width, 0) || l.End <= at {
				t.Fatalf("line %+v after %d", l, at)
			}
			at = l.End
		}
		if at != len([]rune(s)) {
			t.Fatalf("lines end at %d of %d", at, len([]rune(s)))
		}
	})
}

func BenchmarkShape(b *testing.B) {
	r := run(b, strings.Repeat("Foot passengers, bicycles and the occasional sheep. ", 6), "Hanken Grotesk", 400, 17)
	text := r.Text
	for n := 0; b.Loop(); n++ {
		r.Text = text + strconv.Itoa(n) // another text each time, since shaped ones are kept
		paragraph(b, r)
	}
}

func BenchmarkWrapAtEveryWidth(b *testing.B) {
	r := run(b, strings.Repeat("Foot passengers, bicycles and the occasional sheep. ", 6), "Hanken Grotesk", 400, 17)
	p := paragraph(b, r)
	var ls []shape.Line
	for b.Loop() {
		for w := 320.0; w <= 1920; w++ {
			ls = p.Wrap(wrapping(w, r), ls[:0], nil)
		}
	}
}
