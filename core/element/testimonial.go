package element

import (
	"openplot/core/doc"
	"openplot/core/style"
)

// A testimonial is a <figure> of what somebody said and who said it.
var testimonial = Anatomy{
	Name: "Testimonial", Hint: "what somebody said about you, with their picture", Icon: "chat-quote", Find: "saying review praise voice",
	Shelf: Cards, Span: 6, Rows: 5,
	start: func() *doc.Block {
		said, by, portrait, name := Start(doc.Quote), Start(doc.Container), Start(doc.Picture), Start(doc.Text)
		said.Content.Words = doc.PlainWords("Put here what they said, in their own words and no longer than that.")
		said.Style = Look("padding-left", "0px", "border-width", "none", "grow", "yes")
		portrait.Style = Look("aspect-ratio", "1:1", "shape", "circle", "width", "56px")
		name.Content.Words = doc.Words{
			{{Text: "Their name", Bold: true}, {Text: "\nWhere they come from", Small: true}},
		}
		by.Style = Look("direction", "row", "column-gap", "$snug", "align-items", "center", "wrap", "nowrap")
		by.Blocks = []*doc.Block{portrait, name}
		return &doc.Block{Arrangement: doc.LineUp, Style: onCard("row-gap", "$room"), Blocks: []*doc.Block{said, by}}
	},
	build: func(b *Builder, in *Node, bl *doc.Block) *Node {
		n := holderBlocks{b}.container("figure", in, bl, style.Edges{}, "")
		// Who said it is the caption (HTML §4.4.4): what comes last, if it holds more than words.
		if k := len(n.Children) - 1; k > 0 && n.Children[k].Tag == "div" {
			n.Children[k].Tag = "figcaption"
		}
		return n
	},
}
