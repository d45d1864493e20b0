package element

import (
	"openplot/core/doc"
	"openplot/core/number"
	"openplot/core/style"
)

// An icon is an <svg> of the shipped set. Without words it is decoration, and hidden
// from those who can't see it.
var icon = Anatomy{
	Name: "Icon", Hint: "one of nearly two thousand shipped icons", Icon: "star", Find: "symbol sign pictogram",
	Shelf: Showing, Span: 1, Rows: 2,
	Fields: []Field{
		{Name: "icon", Label: "Icon", Type: IconName},
		{Name: "link", Label: "Link", Type: Address},
		{Name: "alt", Label: "Alternative text", Type: Line, Default: "decorative"},
	},
	Settings: []string{"icon-size"},
	start: func() *doc.Block {
		return &doc.Block{Content: doc.Content{Values: map[string]string{"icon": "star"}}}
	},
	build: as(mediaBlocks.icon),
}

func (b mediaBlocks) icon(in *Node, bl *doc.Block) *Node {
	n := &Node{Tag: "div"}
	if bl.Content.Link != "" {
		n.Tag = "a"
		b.lead(n, bl.Content.Link)
	}
	n.Styles = b.styles(in, func(z int, st *style.Style) {
		sh := b.sheet(bl.Style, z)
		st.Color = sh.Colour("color", st.Color)
		area(st, sh, style.Edges{}, "")
		st.AlignSelf, st.JustifySelf = style.AlignStart, style.AlignStart
	})
	b.drawing(n, bl.Content.Values["icon"], bl.Content.Alt, func(z int) style.Length {
		return b.sheet(bl.Style, z).Length("icon-size", style.Pixels(32))
	})
	return n
}

// drawing adds an icon of a size, with a name for those who can't see it or as mere
// decoration. An icon that isn't in the set is left out on a page and is a circle on
// the canvas.
func (b *Builder) drawing(in *Node, name, alt string, size func(zone int) style.Length) *Node {
	svg, ok := "", false
	if b.Icon != nil {
		svg, ok = b.Icon(name)
	}
	if !ok {
		svg = `<circle cx="8" cy="8" r="7" fill="none" stroke="currentColor" stroke-dasharray="2 2"/>`
	}
	n := b.child(in, "svg", func(z int, st *style.Style) {
		st.Width, st.Height = size(z), size(z)
		st.FlexShrink = style.Times0
	})
	n.Raw = svg
	n.attr("viewBox", "0 0 16 16")
	n.attr("width", "16")
	n.attr("height", "16")
	n.attr("fill", "currentColor")
	if alt == "" {
		n.attr("aria-hidden", "true")
	} else {
		n.attr("role", "img")
		n.attr("aria-label", alt)
	}
	return n
}

// whole gives an entry's or a block's whole number, or a fallback.
func whole(v string, fallback int) int {
	if n, err := number.Whole(v); err == nil {
		return n
	}
	return fallback
}
