package element

import (
	"openplot/core/doc"
	"openplot/core/style"
)

// A person is a portrait with a name, what they do, and a sentence.
var person = Anatomy{
	Name: "Person", Hint: "a portrait, a name and what they do", Icon: "person-square", Find: "people team crew staff portrait",
	Shelf: Cards, Span: 3, Rows: 6,
	start: func() *doc.Block {
		picture, name, role, text := Start(doc.Picture), Start(doc.Heading), Start(doc.Text), Start(doc.Text)
		picture.Style = Look("aspect-ratio", "1:1", "shape", "circle", "width", "144px")
		name.Content = doc.Content{Level: 3, Words: doc.PlainWords("Their name")}
		role.Content.Words = doc.PlainWords("What they do here")
		role.Style = Look("text-style", "$label", "color", "$accent")
		text.Content.Words = doc.PlainWords("Something only they would say about themselves.")
		return &doc.Block{
			Arrangement: doc.LineUp,
			Style:       Look("row-gap", "8px"),
			Blocks:      []*doc.Block{picture, name, role, text},
		}
	},
	build: func(b *Builder, in *Node, bl *doc.Block) *Node {
		return holderBlocks{b}.container("div", in, bl, style.Edges{}, "")
	},
}
