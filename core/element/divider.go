package element

import (
	"math"

	"openplot/core/doc"
	"openplot/core/style"
)

// A divider is an <hr>: a line across, in the middle of its rows.
var divider = Anatomy{
	Name: "Divider", Hint: "a line across", Icon: "dash-lg", Find: "line rule",
	Shelf: Arranging, Span: 12, Rows: 1,
	build: as(grounds.divider), finish: rule,
}

func (b grounds) divider(grid *Node, bl *doc.Block) *Node {
	n := &Node{Tag: "hr"}
	n.Styles = b.styles(grid, func(z int, st *style.Style) {
		st.AlignSelf = style.AlignCenter
	})
	return n
}

// rule makes the divider's line of its border settings.
func rule(st *style.Style, sh style.Sheet) {
	w := sh.Length("border-width", style.Pixels(1)).N
	st.Border = style.Widths{Top: max(1, math.Floor(w))}
	st.BorderColor = sh.Colour("border-color", sh.Swatch("line", "#cccccc"))
}
