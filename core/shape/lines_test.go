package shape_test

import (
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"openplot/core/shape"
	"openplot/fonts"
)

func words(t *testing.T, text string, size float64) (*shape.Paragraph, shape.Wrapping) {
	t.Helper()
	lib, err := fonts.Library()
	if err != nil {
		t.Fatal(err)
	}
	r := shape.Run{Text: text, Faces: lib.Faces("Hanken Grotesk", 400, false), Size: size, LineHeight: math.NaN()}
	above, below := r.Faces[0].LineMetrics(size, math.NaN())
	return lib.Paragraph([]shape.Run{r}), shape.Wrapping{Above: above, Below: below}
}

// Lines broken off one by one are those that Wrap gives at once; at widths that change
// from line to line no rune is lost, and what is said to fit does.
func TestLinesOneByOne(t *testing.T) {
	text := strings.Repeat("boats sail at 08:10 from the well-known harbour, whatever the weather says ", 8)
	p, w := words(t, text, 17)
	next := func(width func(line int) float64) (lines []shape.Line, all bool) {
		all = true
		for c, n := (shape.Cursor{}), 0; ; n++ {
			w.Width = width(n)
			l, after, fits, ok := p.Next(c, w)
			if !ok {
				return lines, all
			}
			if fits && l.Width > w.Width+1.0/32 {
				t.Errorf("line %d is %v px wide in %v", n, l.Width, w.Width)
			}
			all = all && fits
			lines, c = append(lines, l), after
		}
	}
	r := rand.New(rand.NewPCG(1, 2))
	for range 60 {
		width := 120 + r.Float64()*800
		w.Width = width
		want := p.Wrap(w, nil, nil)
		got, all := next(func(int) float64 { return width })
		if len(got) != len(want) || !all {
			t.Fatalf("at %v px %d lines, at once %d", width, len(got), len(want))
		}
		for i := range got {
			if got[i] != want[i] {
				t.Fatalf("at %v px line %d is %+v, at once %+v", width, i, got[i], want[i])
			}
		}
		widths := make([]float64, 400)
		for i := range widths {
			widths[i] = 20 + r.Float64()*500
		}
		got, _ = next(func(n int) float64 { return widths[n] })
		at := 0
		for _, l := range got {
			if l.Start != at || l.End <= l.Start {
				t.Fatalf("a line goes from %d to %d, after %d", l.Start, l.End, at)
			}
			at = l.End
		}
		if at != len([]rune(text)) {
			t.Fatalf("%d of %d runes", at, len([]rune(text)))
		}
	}
}
