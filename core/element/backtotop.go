package element

import (
	"cmp"

	"openplot/core/doc"
	"openplot/core/style"
)

// Back to top leads to the beginning of the page (HTML, navigating to a fragment: the
// empty one and "top").
var backToTop = Anatomy{
	Name: "Back to top", Hint: "a link to the beginning of the page", Icon: "arrow-up-circle", Find: "up beginning",
	Shelf: Finding, Span: 3, Rows: 2,
	Fields: []Field{{Name: "label", Label: "Label", Type: Line, Default: "Back to top"}},
	start:  func() *doc.Block { return &doc.Block{} },
	build: func(b *Builder, in *Node, bl *doc.Block) *Node {
		n := &Node{Tag: "a"}
		n.attr("href", "#top")
		n.Styles = b.styles(in, func(z int, st *style.Style) {
			words(st, b.sheet(bl.Style, z), "label")
			st.Display, st.AlignItems, st.ColumnGap = style.Flex, style.AlignCenter, style.Pixels(8)
			st.AlignSelf, st.JustifySelf = style.AlignStart, style.AlignStart
		})
		b.drawing(n, "arrow-up", "", func(int) style.Length { return style.Pixels(16) })
		say(b.child(n, "span", inlineBlock), cmp.Or(bl.Content.Values["label"], "Back to top"))
		return n
	},
	pressed: true,
}

// inlineBlock is what a <span> is as an item of a flex container.
func inlineBlock(_ int, st *style.Style) { st.Display = style.Block }
