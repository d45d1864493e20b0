package element

import (
	"math"

	"openplot/core/doc"
	"openplot/core/style"
)

// text is a <div> of paragraphs; the space between two is three fifths of the
// font size (common practice for text set without indents).
func (b *Builder) text(grid *Node, bl *doc.Block) *Node {
	n := &Node{Tag: "div"}
	n.Styles = b.styles(grid, func(z int, st *style.Style) {
		words(st, b.sheet(bl.Style, z), "body")
	})
	for i, p := range bl.Content.Words {
		c := &Node{Tag: "p"}
		c.Styles = b.styles(n, func(z int, st *style.Style) {
			if i > 0 {
				st.Margin.Top = style.Pixels(math.Round(st.FontPx(style.Viewport{Width: float64(b.Site.Zones[z].Typical)}) * 0.6))
			}
		})
		b.runs(c, p)
		if len(c.Children) == 0 { // an empty paragraph keeps its line
			c.Children = append(c.Children, &Node{Tag: "br", Styles: c.Styles})
		}
		n.Children = append(n.Children, c)
	}
	return n
}
