package element

import (
	"cmp"

	"openplot/core/doc"
	"openplot/core/style"
	"openplot/core/value"
)

// A scroll hint says that the page goes on below the first screenful. It leads to the next
// section where that has an anchor.
var scrollHint = Anatomy{
	Name: "Scroll hint", Hint: "says that the page goes on below", Icon: "chevron-double-down", Find: "arrow down more scroll",
	Shelf: Finding, Span: 3, Rows: 2,
	Fields:   []Field{{Name: "label", Label: "Label", Type: Line, Default: "Scroll on"}},
	Settings: []string{"icon-size"},
	start:    func() *doc.Block { return &doc.Block{} },
	build: func(b *Builder, in *Node, bl *doc.Block) *Node {
		n := &Node{Tag: "div"}
		if b.Neighbours != nil && b.in != nil {
			if _, next := b.Neighbours(b.in, 0); next != nil && next.Anchor != "" {
				n.Tag = "a"
				n.attr("href", "#"+next.Anchor)
			}
		}
		n.Styles = b.styles(in, func(z int, st *style.Style) {
			words(st, b.sheet(bl.Style, z), "label")
			st.Display, st.FlexDirection, st.AlignItems, st.RowGap = style.Flex, style.Column, style.AlignCenter, style.Pixels(
				6,
			)
			st.AlignSelf, st.JustifySelf = style.AlignStart, style.AlignCenter
		})
		say(b.child(n, "span", inlineBlock), cmp.Or(bl.Content.Values["label"], "Scroll on"))
		moves := b.child(n, "span", func(_ int, st *style.Style) {
			st.Display = style.Block
			st.Sway = style.Sway{Kind: value.Vertical, By: 4, Period: 2.4}
		})
		b.drawing(moves, "chevron-down", "", func(z int) style.Length {
			return b.sheet(bl.Style, z).Length("icon-size", style.Pixels(20))
		})
		return n
	},
	pressed: true,
}
