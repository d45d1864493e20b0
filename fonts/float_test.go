package fonts_test

import (
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/layout"
	"openplot/core/shape"
	"openplot/demo"
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

// Words go round a picture: no line runs into it, lines below it are as long as there is
// room, and the block is no lower than the picture.
func TestWordsGoRoundAPicture(t *testing.T) {
	s := demo.Site()
	for _, side := range []string{"left", "right"} {
		for _, n := range []int{1, 40} {
			text := &doc.Block{ID: "b", Kind: doc.Text, Style: element.Look("wrap-side", side, "wrap-width", "300px"), Content: doc.Content{Picture: "p", Words: doc.PlainWords(strings.Repeat("The boat leaves from the north steps. ", n))}}
			page := &doc.Page{Sections: []*doc.Section{{ID: "s", Arrangement: doc.LineUp, Style: element.Look("content", "full"), Blocks: []*doc.Block{text}}}}
			for _, width := range []float64{700, 1024, 1313, 1920} {
				var block, picture, words *layout.Box
				var px, py, wx, wy float64
				tree(t, s, page).At(width).Walk(func(b *layout.Box, x, y float64) {
					switch {
					case b.Node.Block == "b":
						block = b
					case b.Node.Tag == "img":
						picture, px, py = b, x, y
					case b.Node.Tag == "p":
						words, wx, wy = b, x, y
					}
				})
				if block == nil || picture == nil || words == nil || picture.W != 300 {
					t.Fatalf("%s at %v: %+v", side, width, picture)
				}
				if want := 0.0; side == "right" {
					want = width - 300
					if px != want {
						t.Errorf("at %v the picture is at %v, want %v", width, px, want)
					}
				}
				if block.H < picture.H+16 {
					t.Errorf("%s at %v: the block is %v high, the picture %v", side, width, block.H, picture.H)
				}
				longest, beside := 0.0, 0
				for _, l := range words.Lines {
					left, right, top := wx+l.X, wx+l.X+l.W, wy+l.Y
					if top < py+picture.H {
						if beside++; side == "left" && left < px+picture.W+24-0.02 || side == "right" && right > px-24+0.02 {
							t.Errorf("%s at %v: a line from %v to %v runs into the picture", side, width, left, right)
						}
					} else if longest = max(longest, l.W); right > width+0.02 {
						t.Errorf("%s at %v: a line reaches to %v", side, width, right)
					}
				}
				if beside == 0 || n == 40 && width < 1400 && longest < width-200 {
					t.Errorf("%s at %v: %d lines beside it, the longest below it %v", side, width, beside, longest)
				}
			}
			// On phones it stands above the words.
			tree(t, s, page).At(375).Walk(func(b *layout.Box, x, y float64) {
				if b.Node.Tag == "img" && b.W != 300 && b.W != 375 {
					t.Errorf("on a phone the picture is %v px wide", b.W)
				}
				if b.Node.Tag == "p" && b.Lines[0].X != 0 {
					t.Error("on a phone words stand beside the picture")
				}
			})
		}
	}
}
