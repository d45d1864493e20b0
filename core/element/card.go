package element

import (
	"openplot/core/doc"
	"openplot/core/style"
)

// A card is an <article> on a ground of its own: a picture, a heading, a text and a
// way on.
var card = Anatomy{
	Name: "Card", Hint: "a picture, a heading, a text and a link", Icon: "card-image", Find: "article teaser box tile",
	Shelf: Cards, Span: 4, Rows: 8,
	start: func() *doc.Block {
		picture, heading, text, button := Start(doc.Picture), Start(doc.Heading), Start(doc.Text), Start(doc.Button)
		picture.Style = Look("aspect-ratio", "3:2", "border-radius", "$soft")
		heading.Content = doc.Content{Level: 3, Words: doc.PlainWords("What the card is about")}
		text.Content.Words = doc.PlainWords("Two sentences are enough. They say what is behind the link.")
		button.Content.Words = doc.PlainWords("Read on")
		button.Style = Look("button-look", "quiet", "padding-left", "0px", "padding-right", "0px")
		return &doc.Block{
			Arrangement: doc.LineUp,
			Style:       onCard("row-gap", "$snug"),
			Blocks:      []*doc.Block{picture, heading, text, button},
		}
	},
	build: func(b *Builder, in *Node, bl *doc.Block) *Node {
		return holderBlocks{b}.container("article", in, bl, style.Edges{}, "")
	},
}

// onCard is the look that cards begin with.
func onCard(pairs ...string) doc.Style {
	return padded(
		"$room",
		Look(
			append(
				[]string{
					"background",
					"$ground",
					"color",
					"$words",
					"border-radius",
					"$card",
					"border-width",
					"1px",
					"border-color",
					"$line",
				},
				pairs...,
			)...,
		),
	)
}
