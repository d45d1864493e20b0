package element

import (
	"openplot/core/doc"
	"openplot/core/style"
)

// A breadcrumb says where the page stands in the site (WAI-ARIA Authoring Practices,
// breadcrumb).
var breadcrumb = Anatomy{
	Name: "Breadcrumb", Hint: "where this page stands in the site", Icon: "signpost-split", Find: "path trail navigation",
	Shelf: Finding, Span: 6, Rows: 1,
	start: func() *doc.Block { return &doc.Block{} },
	build: func(b *Builder, in *Node, bl *doc.Block) *Node {
		n := &Node{Tag: "nav"}
		n.attr("aria-label", "Breadcrumb")
		n.Styles = b.styles(in, func(z int, st *style.Style) { words(st, b.sheet(bl.Style, z), "small") })
		ol := b.child(n, "ol", func(_ int, st *style.Style) {
			st.Display, st.FlexWrap, st.ColumnGap = style.Flex, style.Wrap, style.Pixels(8)
		})
		ol.attr("role", "list")
		home, here := "Home", "This page"
		for _, p := range b.Pages {
			if p.Slug == "" {
				home = p.Name
			}
			if p.Slug == b.Here {
				here = p.Name
			}
		}
		if b.Here != "" || len(b.Pages) == 0 {
			a := b.child(b.child(ol, "li", inlineBlock), "a", func(_ int, st *style.Style) { st.Display, st.Underline = style.Block, true })
			a.attr("href", b.link("/"))
			say(a, home)
			mark := b.child(ol, "li", inlineBlock)
			mark.attr("aria-hidden", "true")
			say(mark, "/")
		}
		last := b.child(ol, "li", inlineBlock)
		last.attr("aria-current", "page")
		say(last, here)
		return n
	},
}
