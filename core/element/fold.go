package element

import (
	"cmp"

	"openplot/core/doc"
	"openplot/core/style"
)

// fold makes a section one that visitors unfold: a <details> whose summary is the title,
// which needs no script. Where it is worked on it is open.
func (b holderBlocks) fold(n, in *Node, f *doc.Fold) *Node {
	d := b.child(n, "details", func(z int, st *style.Style) {
		st.Position, st.ZIndex = in.Styles[z].Position, in.Styles[z].ZIndex
		if n.Styles[z].Display == style.Flex {
			st.Width = style.Percentage(100)
		}
	})
	open := f.Open || b.Still
	if open {
		d.attr("open", "")
	}
	in.Folded = !open
	summary := b.child(d, "summary", func(z int, st *style.Style) {
		sh := b.sheet(nil, z)
		colour := st.Color
		sh.TextStyle(st, "h3")
		st.Color = colour
		at := &in.Styles[z]
		st.MaxWidth, st.MarginAuto = at.MaxWidth, at.MarginAuto
		st.Padding = style.Edges{
			Left:   at.Padding.Left,
			Right:  at.Padding.Right,
			Top:    style.Pixels(14),
			Bottom: style.Pixels(14),
		}
		st.Display, st.AlignItems, st.JustifyContent, st.ColumnGap = style.Flex, style.AlignCenter, style.SpaceBetween, style.Pixels(
			16,
		)
	})
	say(b.child(summary, "span", inlineBlock), cmp.Or(f.Title, "More"))
	b.drawing(summary, "chevron-down", "", func(int) style.Length { return style.Pixels(20) })
	return d
}
