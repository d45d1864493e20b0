package element

import (
	"slices"

	"openplot/core/doc"
	"openplot/core/style"
)

// button is a link drawn as a button; without an address it is a placeholder
// link (HTML, the a element, without href).
func (b *Builder) button(grid *Node, bl *doc.Block) *Node {
	n := &Node{Tag: "a"}
	if bl.Content.Link != "" {
		n.attr("href", b.link(bl.Content.Link))
	}
	n.Styles = b.styles(grid, func(z int, st *style.Style) {
		sh := b.sheet(bl.Style, z)
		st.Color = sh.Swatch("ground", "#ffffff")
		st.TextAlign = style.TextCenter
		words(st, sh, "button")
		st.Padding = style.Edges{
			Top:    sh.Length("padding-top", style.Pixels(12)),
			Right:  sh.Length("padding-right", style.Pixels(22)),
			Bottom: sh.Length("padding-bottom", style.Pixels(12)),
			Left:   sh.Length("padding-left", style.Pixels(22)),
		}
		st.Background = sh.Colour("background", sh.Swatch("accent", "#1d5f6b"))
		if sh.Word("background", "") == "none" {
			st.Background = ""
		}
		st.BorderRadius = sh.Length("border-radius", style.Pixels(4))
		st.AlignSelf, st.JustifySelf = style.AlignStart, style.AlignStart
	})
	for i, p := range bl.Content.Words {
		if i > 0 {
			n.Children = append(n.Children, &Node{Tag: "br", Styles: n.Styles})
		}
		p = slices.Clone(p)
		for k := range p {
			p[k].Link = "" // no link within a link
		}
		b.runs(n, p)
	}
	return n
}
