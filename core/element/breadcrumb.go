package element

import (
	"strings"

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
		step := func(name, to string) {
			li := b.child(ol, "li", func(_ int, st *style.Style) {
				st.Display, st.ColumnGap = style.Flex, style.Pixels(8)
			})
			a := b.child(li, "a", func(_ int, st *style.Style) { st.Display, st.Underline = style.Block, true })
			a.attr("href", b.link(to))
			say(a, name)
			mark := b.child(li, "span", inlineBlock)
			mark.attr("aria-hidden", "true")
			say(mark, "/")
		}
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
			step(home, "/")
		}
		for _, p := range b.Pages { // those that it stands under, which come before it
			if p.Slug != "" && strings.HasPrefix(b.Here, p.Slug+"/") {
				step(p.InMenus(), "/"+p.Slug)
			}
		}
		last := b.child(ol, "li", inlineBlock)
		last.attr("aria-current", "page")
		say(last, here)
		return n
	},
}
