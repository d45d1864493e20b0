package element

import (
	"openplot/core/doc"
	"openplot/core/style"
	"openplot/core/value"
)

// A list begins with three points.
var list = Anatomy{
	Name: "List", Hint: "points with dots, numbers, squares or ticks", Icon: "list-ul", Find: "bullets numbers points ticks",
	Shelf: Wording, Span: 6, Rows: 3,
	start: func() *doc.Block {
		return &doc.Block{
			Content: doc.Content{
				Words: doc.PlainWords("The first thing to know", "The second, a little longer than it", "And the last"),
			},
		}
	},
	Settings: []string{"list-marks"},
	build:    as(wordBlocks.list),
}

// listMarks are values of list-style-type (CSS Lists 3 §3.1) by the setting's words.
var listMarks = map[string]string{
	value.Disc:    "disc",
	value.Decimal: "decimal",
	value.Square:  "square",
	value.Check:   "\"✓ \"",
}

// list is a <ul>, or an <ol> when it is numbered on the widest zone, with an <li> a
// paragraph. The marks stand in the padding beside the words. A list without marks
// says that it is one, since some browsers no longer do (common practice).
func (b wordBlocks) list(grid *Node, bl *doc.Block) *Node {
	n := &Node{Tag: "ul"}
	switch b.sheet(bl.Style, 0).Word("list-marks", value.Disc) {
	case value.Decimal:
		n.Tag = "ol"
	case "none":
		n.attr("role", "list")
	}
	n.Styles = b.styles(grid, func(z int, st *style.Style) {
		sh := b.sheet(bl.Style, z)
		words(st, sh, "body")
		marks := sh.Word("list-marks", value.Disc)
		if st.ListStyle = listMarks[marks]; st.ListStyle != "" {
			st.Padding.Left = style.Sum(st.Padding.Left, style.Pixels(b.share(st, z, 1.5)))
		}
	})
	for _, p := range bl.Content.Words {
		b.lines(b.listItem(n), p)
	}
	if len(n.Children) == 0 { // a list without items isn't one
		b.lines(b.listItem(n), nil)
	}
	return n
}

// listItem adds an <li>, a little apart from one before it.
func (b wordBlocks) listItem(n *Node) *Node {
	return b.child(n, "li", func(z int, st *style.Style) {
		st.Display = style.ListItem
		if len(n.Children) > 0 {
			st.Margin.Top = style.Pixels(b.share(st, z, 0.35))
		}
	})
}
