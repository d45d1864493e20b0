package element

import (
	"openplot/core/doc"
	"openplot/core/style"
)

// A notice bar is an <aside> that says something for a while: a sailing that is
// cancelled, an office that is shut.
var notice = Anatomy{
	Name: "Notice bar", Hint: "something to know just now", Icon: "info-circle", Find: "alert warning message news banner announcement",
	Shelf: Cards, Span: 12, Rows: 1,
	start: func() *doc.Block {
		icon, text := Start(doc.Icon), Start(doc.Text)
		icon.Content.Values = map[string]string{"icon": "info-circle"}
		icon.Style = Look("icon-size", "22px", "color", "$accent")
		text.Content.Words = doc.Words{
			{{Text: "Good to know: ", Bold: true}, {Text: "say here what is different today, and until when."}},
		}
		text.Style = Look("grow", "yes", "width", "1px")
		return &doc.Block{
			Arrangement: doc.LineUp,
			Style: Look(
				"direction",
				"row",
				"wrap",
				"nowrap",
				"column-gap",
				"$snug",
				"background",
				"$quiet-ground",
				"color",
				"$words",
				"border-radius",
				"$soft",
				"padding-top",
				"12px",
				"padding-bottom",
				"12px",
				"padding-left",
				"$snug",
				"padding-right",
				"$snug",
			),
			Blocks: []*doc.Block{icon, text},
		}
	},
	build: func(b *Builder, in *Node, bl *doc.Block) *Node {
		return holderBlocks{b}.container("aside", in, bl, style.Edges{}, "")
	},
}
