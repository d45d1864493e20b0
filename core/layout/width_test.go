package layout

import (
	"math"
	"testing"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/style"
)

// Widths that are none, and sizes that aren't numbers, end in some layout.
func TestNoNumbers(t *testing.T) {
	lines := func(grow, shrink float64, base style.Length) *element.Node {
		row := &element.Node{Tag: "div", Styles: []style.Style{{Display: style.Flex, FontSize: style.Pixels(16)}}}
		for range 3 {
			row.Children = append(
				row.Children,
				&element.Node{
					Tag: "div",
					Styles: []style.Style{
						{Display: style.Block, FlexGrow: grow, FlexBasis: base, FontSize: style.Pixels(16)},
					},
				},
			)
		}
		return row
	}
	zones := doc.Zones{doc.StandardZones()[0]}
	zones[0].Min = 0
	for _, n := range []float64{math.NaN(), math.Inf(1), math.Inf(-1), 1e308, -1e308, math.Copysign(0, -1)} {
		for _, tree := range []*Tree{
			New(nil, zones, lines(1, 1, style.Pixels(10))), New(nil, zones, lines(n, 1, style.Pixels(10))), New(nil, zones, lines(1, 1, style.Pixels(n))),
		} {
			for _, width := range []float64{n, 1280} {
				if box := tree.At(width); box == nil || !(box.W > 0) {
					t.Errorf("%v at %v: %+v", n, width, box)
				}
			}
		}
	}
}
