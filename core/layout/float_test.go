package layout_test

import (
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/layout"
	"openplot/demo"
)

// Words go round a picture: no line runs into it, lines below it are as long as there is
// room, and the block is no lower than the picture.
func TestWordsGoRoundAPicture(t *testing.T) {
	s := demo.Site()
	for _, side := range []string{"left", "right"} {
		for _, n := range []int{1, 40} {
			text := &doc.Block{
				ID: "b", Kind: doc.Text,
				Style: element.Look("wrap-side", side, "wrap-width", "300px"),
				Content: doc.Content{
					Picture: "p",
					Words:   doc.PlainWords(strings.Repeat("The boat leaves from the north steps. ", n)),
				},
			}
			page := &doc.Page{
				Sections: []*doc.Section{
					{
						ID:          "s",
						Arrangement: doc.LineUp,
						Style:       element.Look("content", "full"),
						Blocks:      []*doc.Block{text},
					},
				},
			}
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
						if beside++; side == "left" && left < px+picture.W+24-0.02 ||
							side == "right" && right > px-24+0.02 {
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
