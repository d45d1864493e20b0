package element

import (
	"openplot/core/doc"
	"openplot/core/style"
)

// A container is a <div> that holds blocks in any arrangement.
var container = Anatomy{
	Name: "Container", Hint: "blocks held together in an arrangement of their own", Icon: "bounding-box", Find: "group box stack row",
	Shelf: Arranging, Span: 6, Rows: 8,
	start: func() *doc.Block {
		return &doc.Block{Arrangement: doc.LineUp, Blocks: []*doc.Block{
			Start(doc.Heading), Start(doc.Text),
		}}
	},
	build: func(b *Builder, in *Node, bl *doc.Block) *Node {
		return holderBlocks{b}.container("div", in, bl, style.Edges{}, "")
	},
}

// container is an element that holds a block's blocks.
func (b holderBlocks) container(tag string, in *Node, bl *doc.Block, padding style.Edges, fill string) *Node {
	n := &Node{Tag: tag}
	n.Styles = b.styles(in, func(z int, st *style.Style) {
		sh := b.sheet(bl.Style, z)
		sh.Aligned(st)
		area(st, sh, padding, fill)
		grounds(b).ground(st, sh, bl.Content.Picture, z)
	})
	b.hold(n, bl.Holder())
	return n
}
