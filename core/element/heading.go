package element

import (
	"strconv"

	"openplot/core/doc"
	"openplot/core/style"
	"openplot/core/value"
)

// A heading is <h1> to <h6>: one paragraph of words, in lines of about one length.
var heading = Anatomy{
	Name: "Heading", Hint: "a title in one of six levels", Icon: "card-heading", Find: "title",
	Shelf: Wording, Span: 6, Rows: 2,
	Fields: []Field{
		{
			Name:    "level",
			Label:   "Level",
			Type:    Choice,
			Choices: value.Is("1", "H1", "2", "H2", "3", "H3", "4", "H4", "5", "H5", "6", "H6"),
		},
	},
	start: func() *doc.Block {
		return &doc.Block{Content: doc.Content{Level: 2, Words: doc.PlainWords("A heading for this part")}}
	},
	build: as(wordBlocks.heading),
}

func (b wordBlocks) heading(grid *Node, bl *doc.Block) *Node {
	level := min(max(bl.Content.Level, 1), 6)
	n := &Node{Tag: "h" + strconv.Itoa(level)}
	n.Styles = b.styles(grid, func(z int, st *style.Style) {
		st.Balance = true // no word alone on the last line
		words(st, b.sheet(bl.Style, z), b.textStyle("h"+strconv.Itoa(level), "h3"))
	})
	b.said(n, bl, "span", func(n *Node, w doc.Words) {
		for i, p := range w {
			if i > 0 {
				n.Children = append(n.Children, &Node{Tag: "br", Styles: n.Styles})
			}
			b.runs(n, p)
		}
	})
	return n
}

// textStyle is a text style of the house, or another where an older house style doesn't
// have it.
func (b wordBlocks) textStyle(name, otherwise string) string {
	if _, ok := b.Site.House.Text[name]; ok {
		return name
	}
	return otherwise
}
