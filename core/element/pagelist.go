package element

import (
	"cmp"

	"openplot/core/doc"
	"openplot/core/style"
	"openplot/core/value"
)

// A page list links to the site's other pages, each with what it is about.
var pageList = Anatomy{
	Name: "Page list", Hint: "the site’s pages with what they are about", Icon: "files", Find: "links contents sitemap",
	Shelf: Finding, Span: 12, Rows: 4,
	Fields: []Field{
		{Name: "with", Label: "Content", Type: Choice, Choices: value.Is(value.Descriptions, "Names and descriptions", value.Names, "Names")},
	},
	Settings: []string{"per-row", "column-gap", "row-gap"},
	start:    func() *doc.Block { return &doc.Block{} },
	build: func(b *Builder, in *Node, bl *doc.Block) *Node {
		n := &Node{Tag: "ul"}
		n.attr("role", "list")
		n.Styles = b.styles(in, func(z int, st *style.Style) {
			sh := b.sheet(bl.Style, z)
			words(st, sh, "body")
			st.Display = style.Grid
			st.GridColumns = style.EqualColumns(PerRow(sh))
			st.ColumnGap, st.RowGap = sh.Length("column-gap", style.Pixels(24)), sh.Length("row-gap", style.Pixels(16))
		})
		pages := b.Pages
		if len(pages) == 0 {
			pages = []PageLink{{"somewhere", "Another page", "What it is about."}}
		}
		for _, p := range pages {
			if p.Slug == b.Here && len(b.Pages) > 0 {
				continue
			}
			li := b.child(n, "li", inlineBlock)
			a := b.child(li, "a", func(_ int, st *style.Style) { st.Display, st.FontWeight, st.Underline = style.Block, 600, true })
			a.attr("href", b.link("/"+p.Slug))
			say(a, cmp.Or(p.Name, "Page"))
			if p.Description != "" && bl.Content.Values["with"] != value.Names {
				say(b.child(li, "p", b.smallWords), p.Description)
			}
		}
		return n
	},
}
