package element

import (
	"cmp"

	"openplot/core/doc"
	"openplot/core/style"
)

// Figures are a <dl>: numbers, large, with what each of them counts.
var figures = Anatomy{
	Name: "Figures", Hint: "large numbers and what they count", Icon: "123", Find: "numbers statistics facts count counter stats",
	Shelf: Listing, Span: 12, Rows: 3,
	EntryName: "Figures",
	Entry: []Field{
		{Name: "number", Label: "Number", Type: Line},
		{Name: "label", Label: "Label", Type: Line},
	},
	Settings: []string{"per-row", "column-gap", "row-gap", "figure-colour"},
	start: func() *doc.Block {
		entry := func(number, label string) doc.Entry {
			return doc.Entry{Values: map[string]string{"number": number, "label": label}}
		}
		return &doc.Block{
			Content: doc.Content{
				Entries: []doc.Entry{
					entry("12", "of the one"),
					entry("3,400", "of the other"),
					entry("1 in 9", "of all there are"),
				},
			},
		}
	},
	build: as(wordBlocks.figures),
}

func (b wordBlocks) figures(in *Node, bl *doc.Block) *Node {
	n := &Node{Tag: "dl"}
	n.Styles = b.styles(in, func(z int, st *style.Style) {
		sh := b.sheet(bl.Style, z)
		words(st, sh, "body")
		st.Display = style.Grid
		st.GridColumns = style.EqualColumns(PerRow(sh))
		st.ColumnGap, st.RowGap = sh.Length("column-gap", style.Pixels(24)), sh.Length("row-gap", style.Pixels(24))
	})
	for i, e := range bl.Content.Entries {
		group := b.child(n, "div", func(_ int, st *style.Style) {
			st.Display, st.FlexDirection = style.Flex, style.Column
		})
		// A term comes before its description (HTML, the dl element); the number is drawn first.
		label := say(b.child(group, "dt", nil), cmp.Or(e.Values["label"], " "))
		number := say(b.child(group, "dd", func(z int, st *style.Style) {
			sh := b.sheet(bl.Style, z)
			colour := st.Color
			sh.TextStyle(st, "display")
			st.Color = sh.Colour("figure-colour", colour)
			st.Order = -1
		}), cmp.Or(e.Values["number"], " "))
		label.Part, number.Part = part(i, "label"), part(i, "number")
	}
	return n
}
