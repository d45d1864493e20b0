package element

import (
	"cmp"

	"openplot/core/doc"
	"openplot/core/style"
)

// A search field looks through the site's pages; Builder.Search says where it goes.
var search = Anatomy{
	Name: "Search field", Hint: "looks through the site’s pages", Icon: "search", Find: "find look",
	Shelf: Asking, Span: 5, Rows: 2,
	Fields: []Field{
		{Name: "label", Label: "Label", Type: Line, Default: "Search this site"},
		{Name: "submit", Label: "Button label", Type: Line, Default: "Search"},
	},
	start: func() *doc.Block { return &doc.Block{} },
	build: func(b *Builder, in *Node, bl *doc.Block) *Node {
		n := &Node{Tag: "form"}
		n.attr("role", "search")
		n.attr("method", "get")
		n.attr("action", cmp.Or(b.Search, "#"))
		n.Styles = b.styles(in, func(z int, st *style.Style) {
			words(st, b.sheet(bl.Style, z), "body")
			st.Display, st.ColumnGap = style.Flex, style.Pixels(8)
		})
		f := b.child(n, "input", func(z int, st *style.Style) {
			formBlocks{b}.inputLook(st, bl, z)
			st.Width, st.MinWidth, st.Height, st.FlexGrow = style.Pixels(1), style.Pixels(0), style.Pixels(48), 1
		})
		f.attr("type", "search")
		f.attr("name", "q")
		f.attr("required", "")
		f.attr("aria-label", cmp.Or(bl.Content.Values["label"], "Search this site"))
		f.attr("placeholder", cmp.Or(bl.Content.Values["label"], "Search this site"))
		s := b.child(n, "button", func(z int, st *style.Style) { buttonLook(st, b.sheet(nil, z)) })
		s.States = b.pressing()
		s.attr("type", "submit")
		say(s, cmp.Or(bl.Content.Values["submit"], "Search"))
		return n
	},
}
