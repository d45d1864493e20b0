package element

import (
	"openplot/core/doc"
	"openplot/core/style"
)

// A price card is what something costs and what is in it.
var priceCard = Anatomy{
	Name: "Price card", Hint: "a price, what is in it and a button", Icon: "tag", Find: "fare cost plan offer",
	Shelf: Cards, Span: 4, Rows: 8,
	start: func() *doc.Block {
		name, price, per, in, button := Start(
			doc.Heading,
		), Start(
			doc.Text,
		), Start(
			doc.Text,
		), Start(
			doc.List,
		), Start(
			doc.Button,
		)
		name.Content = doc.Content{Level: 3, Words: doc.PlainWords("What it is called")}
		price.Content.Words = doc.PlainWords("24")
		price.Style = Look("text-style", "$h1")
		per.Content.Words = doc.PlainWords("for one person, a day")
		per.Style = Look("text-style", "$small", "color", "$quiet-words")
		in.Content.Words = doc.PlainWords("The first thing in it", "The second", "And the third")
		in.Style = Look("list-marks", "check", "grow", "yes")
		button.Content.Words = doc.PlainWords("Choose this")
		button.Style = Look("justify-self", "stretch")
		card := onCard("row-gap", "12px")
		for _, side := range []string{"padding-left", "padding-right"} { // three stand side by side on a tablet
			card[side] = doc.Zoned[string]{"desktop": "$snug"}
		}
		return &doc.Block{Arrangement: doc.LineUp, Style: card, Blocks: []*doc.Block{name, price, per, in, button}}
	},
	build: func(b *Builder, in *Node, bl *doc.Block) *Node {
		return holderBlocks{b}.container("article", in, bl, style.Edges{}, "")
	},
}
