package layout_test

import (
	"fmt"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/layout"
	"openplot/fonts"
)

// A page's boxes at two widths: its words take more lines where it is narrow.
func ExampleTree_At() {
	site := &doc.Site{House: doc.StandardHouse(), Zones: doc.StandardZones()}
	page := &doc.Page{Sections: []*doc.Section{{ID: "s", Arrangement: doc.LineUp, Blocks: []*doc.Block{{
		ID: "b", Kind: doc.Text, Content: doc.Content{Words: doc.PlainWords("Boats leave from the north steps. Be there ten minutes before.")},
	}}}}}
	lib, err := fonts.Library()
	if err != nil {
		fmt.Println(err)
		return
	}
	tree := layout.New(lib, site.Zones, (&element.Builder{Site: site}).Page(page))
	for _, width := range []float64{320, 1280} {
		tree.At(width).Walk(func(b *layout.Box, x, y float64) {
			if b.Node.Tag == "p" {
				fmt.Printf("at %v px: %.0f × %.0f px in %d lines\n", width, b.W, b.H, len(b.Lines))
			}
		})
	}
	// Output:
	// at 320 px: 280 × 51 px in 2 lines
	// at 1280 px: 1080 × 27 px in 1 lines
}
