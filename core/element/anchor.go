package element

import (
	"openplot/core/doc"
)

// An anchor is a place for links to lead to; nothing is seen of it.
var anchor = Anatomy{
	Name: "Anchor", Hint: "a place that links lead to", Icon: "geo", Find: "jump place target bookmark",
	Shelf: Finding, Span: 12, Rows: 1,
	Fields: []Field{{Name: "name", Label: "Name", Type: LinkName, Default: "not set"}},
	start:  func() *doc.Block { return &doc.Block{} },
	build: func(b *Builder, in *Node, bl *doc.Block) *Node {
		n := &Node{Tag: "div"}
		if name := bl.Content.Values["name"]; name != "" {
			n.attr("id", name)
		}
		n.Styles = b.styles(in, nil)
		return n
	},
}
