package element

import (
	"math"

	"openplot/core/doc"
	"openplot/core/style"
)

// A text is a <div> of paragraphs.
var text = Anatomy{
	Name: "Text", Hint: "paragraphs with links, bold and italic", Icon: "text-paragraph", Find: "words paragraph link",
	Shelf: Wording, Span: 6, Rows: 4,
	start: func() *doc.Block {
		return &doc.Block{Content: doc.Content{Words: doc.PlainWords("Write a few sentences here: what this is about, whom it is for, and what they can do next.")}}
	},
	build: (*Builder).text,
}

func (b *Builder) text(grid *Node, bl *doc.Block) *Node {
	n := &Node{Tag: "div"}
	n.Styles = b.styles(grid, func(z int, st *style.Style) {
		words(st, b.sheet(bl.Style, z), "body")
	})
	b.paragraphs(n, bl.Content.Words)
	return n
}

// paragraphs adds a <p> a paragraph, and a list for those that follow each other as
// items of one; the space between two paragraphs is three fifths of the font size
// (common practice for text set without indents).
func (b *Builder) paragraphs(n *Node, w doc.Words) {
	for i := 0; i < len(w); {
		between := func(z int, st *style.Style) {
			if i > 0 {
				st.Margin.Top = style.Pixels(b.share(st, z, 0.6))
			}
		}
		if w[i].Item() == "" {
			b.lines(b.child(n, "p", between), w[i])
			i++
			continue
		}
		tag, marks := "ul", "disc"
		if w[i].Item() == "numbers" {
			tag, marks = "ol", "decimal"
		}
		l := b.child(n, tag, func(z int, st *style.Style) {
			between(z, st)
			st.ListStyle = marks
			st.Padding.Left = style.Pixels(b.share(st, z, 1.5))
		})
		for item := w[i].Item(); i < len(w) && w[i].Item() == item; i++ {
			b.lines(b.listItem(l), w[i])
		}
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
