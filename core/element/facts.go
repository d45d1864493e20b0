package element

import (
	"cmp"
	"strings"

	"openplot/core/doc"
	"openplot/core/style"
	"openplot/core/value"
)

// Site facts are the site's address, hours, telephone and mail, which are entered once
// for the site and shown wherever the block stands.
var facts = Anatomy{
	Name: "Site facts", Hint: "address, hours, telephone, mail: entered once", Icon: "geo-alt", Find: "contact opening hours phone email address",
	Shelf: Listing, Span: 4, Rows: 6,
	Fields: []Field{
		{
			Name:    "address",
			Label:   "Address",
			Type:    Choice,
			Choices: value.Is(value.Shown, "Shown", value.Hidden, "Hidden"),
		},
		{Name: "hours", Label: "Hours", Type: Choice, Choices: value.Is(value.Shown, "Shown", value.Hidden, "Hidden")},
		{
			Name:    "phone",
			Label:   "Telephone",
			Type:    Choice,
			Choices: value.Is(value.Shown, "Shown", value.Hidden, "Hidden"),
		},
		{Name: "mail", Label: "Email", Type: Choice, Choices: value.Is(value.Shown, "Shown", value.Hidden, "Hidden")},
	},
	Settings: []string{"row-gap"},
	start:    func() *doc.Block { return &doc.Block{} },
	build:    as(siteBlocks.facts),
}

func (b siteBlocks) facts(in *Node, bl *doc.Block) *Node {
	n := &Node{Tag: "address"}
	n.Styles = b.styles(in, func(z int, st *style.Style) {
		sh := b.sheet(bl.Style, z)
		words(st, sh, "body")
		st.Display, st.FlexDirection = style.Flex, style.Column
		st.RowGap = sh.Length("row-gap", style.Pixels(12))
	})
	f := b.Site.Facts
	none := f.Address+f.InWords()+f.Phone+f.Mail == "" // then words stand in, as in other blocks
	for _, k := range []struct{ name, icon, text, href, standIn string }{
		{"address", "geo-alt", f.Address, "", "Address"},
		{"hours", "clock", f.InWords(), "", "Opening hours"},
		{"phone", "telephone", f.Phone, "tel:" + strings.Map(dialled, f.Phone), "Telephone"},
		{"mail", "envelope", f.Mail, "mailto:" + f.Mail, "Mail address"},
	} {
		if bl.Content.Values[k.name] == value.Hidden || k.text == "" && !none {
			continue
		}
		row := b.child(n, "div", func(_ int, st *style.Style) {
			st.Display, st.ColumnGap, st.AlignItems = style.Flex, style.Pixels(12), style.AlignStart
		})
		mark := b.child(row, "span", func(z int, st *style.Style) {
			st.Display = style.Block
			st.Padding.Top = style.Pixels(b.share(st, z, 0.28)) // level with the first line
			st.FlexShrink = style.Times0
		})
		b.drawing(mark, k.icon, "", func(int) style.Length { return style.Pixels(18) })
		words := b.child(row, "div", func(_ int, st *style.Style) { st.MinWidth = style.Pixels(0) })
		at := words
		if k.href != "" && k.text != "" {
			at = b.child(words, "a", func(_ int, st *style.Style) {
				st.Display, st.Underline, st.OverflowWrap = style.Block, true, style.Anywhere
			})
			at.attr("href", k.href)
		}
		for i, line := range strings.Split(cmp.Or(k.text, k.standIn), "\n") {
			if i > 0 {
				at.Children = append(at.Children, &Node{Tag: "br", Styles: at.Styles})
			}
			say(at, cmp.Or(line, "\u00a0"))
		}
	}
	if b.DropEmpty && len(n.Children) == 0 {
		return nil
	}
	return n
}

// dialled keeps what a telephone number is dialled with (RFC 3966 §3).
func dialled(r rune) rune {
	if r >= '0' && r <= '9' || r == '+' {
		return r
	}
	return -1
}
