package element

import (
	"strconv"

	"openplot/core/doc"
	"openplot/core/style"
)

// heading is <h1> to <h6>: one paragraph of words, in lines of about one length.
func (b *Builder) heading(grid *Node, bl *doc.Block) *Node {
	level := min(max(bl.Content.Level, 1), 6)
	n := &Node{Tag: "h" + strconv.Itoa(level)}
	n.Styles = b.styles(grid, func(z int, st *style.Style) {
		words(st, b.sheet(bl.Style, z), "h"+strconv.Itoa(min(level, 3)))
		st.Balance = true // no word alone on the last line
	})
	for i, p := range bl.Content.Words {
		if i > 0 {
			n.Children = append(n.Children, &Node{Tag: "br", Styles: n.Styles})
		}
		b.runs(n, p)
	}
	return n
}
