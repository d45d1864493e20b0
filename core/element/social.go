package element

import (
	"cmp"

	"openplot/core/doc"
	"openplot/core/style"
)

// Social links are a list of links drawn as icons, each with a name for those who
// can't see it.
var social = Anatomy{
	Name: "Social links", Hint: "icons that lead to where you are elsewhere", Icon: "share", Find: "networks channels follow share",
	Shelf: Finding, Span: 3, Rows: 2,
	EntryName: "Links",
	Entry: []Field{
		{Name: "label", Label: "Name", Type: Line},
		{Name: "icon", Label: "Icon", Type: IconName},
		{Name: "link", Label: "Link", Type: Address},
	},
	Settings: []string{"icon-size", "column-gap"},
	start: func() *doc.Block {
		entry := func(label, icon, link string) doc.Entry {
			return doc.Entry{Values: map[string]string{"label": label, "icon": icon, "link": link}}
		}
		return &doc.Block{Content: doc.Content{Entries: []doc.Entry{
			entry(
				"Write to us", "envelope", "mailto:office@example.org",
			), entry("Pictures", "camera", "https://pictures.example.org/"), entry("News feed", "rss", "https://news.example.org/feed"),
		}}}
	},
	build: as(siteBlocks.social),
}

func (b siteBlocks) social(in *Node, bl *doc.Block) *Node {
	n := &Node{Tag: "ul"}
	n.attr("role", "list")
	n.Styles = b.styles(in, func(z int, st *style.Style) {
		sh := b.sheet(bl.Style, z)
		sh.Aligned(st)
		area(st, sh, style.Edges{}, "")
		st.Display, st.FlexWrap = style.Flex, style.Wrap
		st.ColumnGap, st.RowGap = sh.Length("column-gap", style.Pixels(4)), style.Pixels(4)
	})
	for _, e := range bl.Content.Entries {
		a := b.child(b.child(n, "li", inlineBlock), "a", func(_ int, st *style.Style) {
			st.Display = style.Block
			st.Padding = style.Same(style.Pixels(8)) // to be hit with a finger (WCAG 2.2, 2.5.8)
		})
		if link := e.Values["link"]; link != "" {
			b.lead(a, link)
		}
		b.drawing(a, e.Values["icon"], cmp.Or(e.Values["label"], "Link"), func(z int) style.Length {
			return b.sheet(bl.Style, z).Length("icon-size", style.Pixels(24))
		})
	}
	return n
}
