package element

import (
	"math"

	"openplot/core/doc"
	"openplot/core/style"
)

// text is a <div> of paragraphs.
func (b *Builder) text(grid *Node, bl *doc.Block) *Node {
	n := &Node{Tag: "div"}
	n.Styles = b.styles(grid, func(z int, st *style.Style) {
		words(st, b.sheet(bl.Style, z), "body")
	})
	b.paragraphs(n, bl.Content.Words)
	return n
}

// paragraphs adds a <p> a paragraph; the space between two is three fifths of the
// font size (common practice for text set without indents).
func (b *Builder) paragraphs(n *Node, w doc.Words) {
	for i, p := range w {
		c := &Node{Tag: "p"}
		c.Styles = b.styles(n, func(z int, st *style.Style) {
			if i > 0 {
				st.Margin.Top = style.Pixels(b.share(st, z, 0.6))
			}
		})
		b.lines(c, p)
		n.Children = append(n.Children, c)
	}
}

// lines adds a paragraph's words; an empty one keeps its line.
func (b *Builder) lines(n *Node, p doc.Paragraph) {
	b.runs(n, p)
	if len(n.Children) == 0 {
		n.Children = append(n.Children, &Node{Tag: "br", Styles: n.Styles})
	}
}

// share is a part of the font size in whole px, a fluid one being taken at the
// zone's typical width.
func (b *Builder) share(st *style.Style, zone int, of float64) float64 {
	return math.Round(st.FontPx(style.Viewport{Width: float64(b.Site.Zones[zone].Typical)}) * of)
}
