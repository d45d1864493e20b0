package element

import (
	"cmp"
	"net/url"
	"strings"

	"openplot/core/doc"
	"openplot/core/style"
	"openplot/core/value"
)

// Share links hand the page's address on: by mail, to any service whose address takes one, or
// to the clipboard, which is the one thing that needs a script.
var share = Anatomy{
	Name: "Share links", Hint: "hand this page’s address on: by mail, copied, or elsewhere", Icon: "box-arrow-up", Find: "share send mail copy address networks",
	Shelf: Finding, Span: 3, Rows: 2,
	Fields: []Field{
		{Name: "copy", Label: "Copy button", Type: Choice, Choices: value.Is(value.Yes, "Yes", value.No, "No")},
	},
	EntryName: "Links",
	Entry: []Field{
		{Name: "label", Label: "Name", Type: Line},
		{Name: "icon", Label: "Icon", Type: IconName},
		{Name: "link", Label: "Link, with {url} and {title}", Type: Address},
	},
	Settings: []string{"icon-size", "column-gap"},
	start: func() *doc.Block {
		return &doc.Block{Content: doc.Content{Entries: []doc.Entry{
			{
				Values: map[string]string{
					"label": "Send by mail",
					"icon":  "envelope",
					"link":  "mailto:?subject={title}&body={url}",
				},
			},
		}}}
	},
	build: as(siteBlocks.shareLinks),
}

func (b siteBlocks) shareLinks(in *Node, bl *doc.Block) *Node {
	n := &Node{Tag: "ul", Script: "copy"}
	n.attr("role", "list")
	n.Styles = b.styles(in, func(z int, st *style.Style) {
		sh := b.sheet(bl.Style, z)
		sh.Aligned(st)
		area(st, sh, style.Edges{}, "")
		st.Display, st.FlexWrap, st.AlignItems = style.Flex, style.Wrap, style.AlignCenter
		st.ColumnGap, st.RowGap = sh.Length("column-gap", style.Pixels(4)), style.Pixels(4)
	})
	size := func(z int) style.Length { return b.sheet(bl.Style, z).Length("icon-size", style.Pixels(24)) }
	hit := func(_ int, st *style.Style) {
		st.Display = style.Block
		st.Padding = style.Same(style.Pixels(8)) // to be hit with a finger (WCAG 2.2, 2.5.8)
	}
	own := strings.NewReplacer("{url}", escaped(b.Self), "{title}", escaped(cmp.Or(b.Title, b.Site.Name)))
	for _, e := range bl.Content.Entries {
		a := b.child(b.child(n, "li", inlineBlock), "a", hit)
		if link := e.Values["link"]; link != "" {
			b.lead(a, own.Replace(link))
		}
		b.drawing(a, e.Values["icon"], cmp.Or(e.Values["label"], "Share"), size)
	}
	if bl.Content.Values["copy"] == value.No {
		n.Script = ""
		return n
	}
	li := b.child(n, "li", inlineBlock)
	li.attr("data-copy", "")
	li.attr("data-scripted", "yes")
	button := b.child(li, "button", hit)
	button.attr("type", "button")
	b.drawing(button, "link-45deg", "Copy this page’s address", size)
	b.child(li, "span", func(_ int, st *style.Style) { st.Display = style.None }).attr("role", "status")
	return n
}

// escaped makes a value part of an address's query (RFC 3986 §3.4).
func escaped(v string) string { return strings.ReplaceAll(url.QueryEscape(v), "+", "%20") }
