package element

import (
	"openplot/core/doc"
	"openplot/core/style"
)

// A space is an empty <div> of a height.
var space = Anatomy{
	Name: "Spacer", Hint: "space between blocks", Icon: "arrows-expand", Find: "gap distance spacer",
	Shelf: Arranging, Span: 12, Rows: 2,
	Settings: []string{"height"},
	build: func(b *Builder, in *Node, bl *doc.Block) *Node {
		n := &Node{Tag: "div"}
		n.Styles = b.styles(in, func(z int, st *style.Style) {
			st.Height = b.sheet(bl.Style, z).Length("height", style.Pixels(40))
			st.FlexShrink = style.Times0
		})
		return n
	},
}
