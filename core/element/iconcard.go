package element

import (
	"openplot/core/doc"
	"openplot/core/style"
)

// An icon card is an icon with a heading and a short text.
var iconCard = Anatomy{
	Name: "Icon card", Hint: "an icon, a heading and a short text", Icon: "card-checklist", Find: "feature advantage",
	Shelf: Cards, Span: 4, Rows: 4,
	start: func() *doc.Block {
		icon, heading, text := Start(doc.Icon), Start(doc.Heading), Start(doc.Text)
		icon.Style = Look("color", "$accent", "icon-size", "36px")
		heading.Content = doc.Content{Level: 3, Words: doc.PlainWords("One advantage")}
		text.Content.Words = doc.PlainWords("Say in a sentence what it means for those who come.")
		return &doc.Block{
			Arrangement: doc.LineUp,
			Style:       Look("row-gap", "12px"),
			Blocks:      []*doc.Block{icon, heading, text},
		}
	},
	build: func(b *Builder, in *Node, bl *doc.Block) *Node {
		return holderBlocks{b}.container("div", in, bl, style.Edges{}, "")
	},
}
