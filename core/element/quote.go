package element

import (
	"openplot/core/doc"
	"openplot/core/style"
	"openplot/core/value"
)

// A quote is a <blockquote> of paragraphs with a line in the accent colour before it.
var quote = Anatomy{
	Name: "Quote", Hint: "what somebody said", Icon: "quote", Find: "saying",
	Shelf: Wording, Span: 6, Rows: 4,
	start: func() *doc.Block {
		return &doc.Block{
			Content: doc.Content{
				Words: doc.PlainWords(
					"Put here what somebody said, in their own words.",
					"Their name, and who they are",
				),
			},
		}
	},
	build: as(wordBlocks.quote), finish: line,
}

func (b wordBlocks) quote(grid *Node, bl *doc.Block) *Node {
	n := &Node{Tag: "blockquote"}
	n.Styles = b.styles(grid, func(z int, st *style.Style) {
		sh := b.sheet(bl.Style, z)
		words(st, sh, b.textStyle("quote", "lead"))
		st.Padding.Left = sh.Length("padding-left", style.Pixels(24))
	})
	b.said(n, bl, "div", b.paragraphs)
	return n
}

// line gives a quote its line, unless it has a border of its own.
func line(st *style.Style, sh style.Sheet) {
	if st.Border == (style.Widths{}) && sh.Word("border-width", "") != value.None {
		st.Border.Left, st.BorderColor = 3, sh.Swatch("accent", "#1d5f6b")
	}
}
