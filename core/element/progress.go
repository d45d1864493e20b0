package element

import (
	"cmp"
	"strconv"

	"openplot/core/doc"
	"openplot/core/number"
	"openplot/core/style"
)

// Progress is how much of something is there: a label, a bar and a share.
var progress = Anatomy{
	Name: "Progress bars", Hint: "how much of something is done", Icon: "bar-chart-steps", Find: "share percent level meter",
	Shelf: Listing, Span: 6, Rows: 5,
	EntryName: "Bars",
	Entry: []Field{
		{Name: "label", Label: "Title", Type: Line},
		{Name: "share", Label: "Value, %", Type: Number, Min: 0, Max: 100},
	},
	Settings: []string{"bar-colour", "row-gap"},
	start: func() *doc.Block {
		entry := func(label, share string) doc.Entry {
			return doc.Entry{Values: map[string]string{"label": label, "share": share}}
		}
		return &doc.Block{
			Content: doc.Content{Entries: []doc.Entry{entry("The first part", "80"), entry("The second", "45")}},
		}
	},
	build: as(siteBlocks.progress),
}

func (b siteBlocks) progress(in *Node, bl *doc.Block) *Node {
	n := &Node{Tag: "ul"}
	n.attr("role", "list")
	n.Styles = b.styles(in, func(z int, st *style.Style) {
		sh := b.sheet(bl.Style, z)
		words(st, sh, "body")
		st.Display, st.FlexDirection = style.Flex, style.Column
		st.RowGap = sh.Length("row-gap", style.Pixels(16))
	})
	for i, e := range bl.Content.Entries {
		share, _ := number.Real(e.Values["share"])
		share = min(max(share, 0), 100)
		percent := strconv.FormatFloat(share, 'f', -1, 64)
		li := b.child(n, "li", inlineBlock)
		line := b.child(li, "div", func(_ int, st *style.Style) {
			st.Display, st.JustifyContent, st.ColumnGap = style.Flex, style.SpaceBetween, style.Pixels(16)
		})
		say(b.child(line, "span", inlineBlock), cmp.Or(e.Values["label"], " ")).Part = part(i, "label")
		say(b.child(line, "span", inlineBlock), percent+" %")
		track := b.child(li, "div", func(z int, st *style.Style) {
			st.Height, st.Margin.Top = style.Pixels(10), style.Pixels(6)
			st.BorderRadius, st.Overflow = style.Pixels(5), style.Hidden
			st.Background = b.sheet(bl.Style, z).Swatch("line", "#d9d4c8")
		})
		track.attr("role", "progressbar")
		track.attr("aria-valuenow", percent)
		track.attr("aria-label", cmp.Or(e.Values["label"], "Progress"))
		b.child(track, "div", func(z int, st *style.Style) {
			sh := b.sheet(bl.Style, z)
			st.Width, st.Height = style.Percentage(share), style.Pixels(10)
			st.Background = sh.Colour("bar-colour", sh.Swatch("accent", "#1d5f6b"))
		})
	}
	return n
}
