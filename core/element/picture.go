package element

import (
	"strconv"
	"strings"

	"openplot/core/doc"
	"openplot/core/style"
)

// picture is an <img> in a <div>, or in an <a> when it leads somewhere. By its
// own shape or a ratio the img's width is the block's; set to "rows" it fills
// the area of the grid and is cropped to it.
func (b *Builder) picture(grid *Node, bl *doc.Block) *Node {
	m, ok := b.Media(bl.Content.Picture)
	if !ok && b.DropEmpty {
		return nil
	}
	n := &Node{Tag: "div"}
	if bl.Content.Link != "" {
		n.Tag = "a"
		n.attr("href", b.link(bl.Content.Link))
	}
	fill := func(sh style.Sheet) bool { return sh.Word("aspect-ratio", "own") == "rows" }
	n.Styles = b.styles(grid, func(z int, st *style.Style) {
		if fill(b.sheet(bl.Style, z)) {
			st.Position = style.Relative
		}
		// Without a width of its own a picture is as wide as its columns however it
		// is aligned, since its natural width depends on the variant loaded.
		st.Width = style.Percentage(100)
	})
	img := &Node{Tag: "img"}
	if !ok {
		m = Medium{Width: 3, Height: 2, Variants: []Variant{{URL: EmptyPicture, Width: 3}}}
	}
	img.Styles = b.styles(n, func(z int, st *style.Style) {
		sh := b.sheet(bl.Style, z)
		st.Width = style.Percentage(100)
		if fill(sh) {
			st.Position = style.Absolute
			st.Inset = style.Same(style.Pixels(0))
			st.Height = style.Percentage(100)
		} else if r := sh.Ratio("aspect-ratio"); r > 0 {
			st.AspectRatio = r
		} else if m.Height > 0 {
			st.AspectRatio = float64(m.Width) / float64(m.Height)
		}
		st.ObjectFit = "cover"
		st.ObjectPos = sh.Word("object-position", "50% 50%")
		st.BorderRadius = sh.Length("border-radius", style.Length{})
	})
	alt := bl.Content.Alt
	if alt == "" {
		alt = m.Alt
	}
	b.source(img, bl, m, alt, fill)
	n.Children = []*Node{img}
	return n
}

// EmptyPicture stands in on the canvas for a picture not chosen yet.
const EmptyPicture = "/static/img/no-picture.svg"

func (b *Builder) source(img *Node, bl *doc.Block, m Medium, alt string, fill func(style.Sheet) bool) {
	largest := m.Variants[len(m.Variants)-1]
	img.attr("src", largest.URL)
	if len(m.Variants) > 1 {
		set := make([]string, len(m.Variants))
		for i, v := range m.Variants {
			set[i] = v.URL + " " + strconv.Itoa(v.Width) + "w"
		}
		img.attr("srcset", strings.Join(set, ", "))
		img.attr("sizes", b.sizes(bl, fill))
	}
	img.attr("width", strconv.Itoa(m.Width))
	img.attr("height", strconv.Itoa(m.Height))
	img.attr("alt", alt)
	img.attr("loading", "lazy")
}

// sizes tells the browser the width the picture will have in each zone, as the
// share of the columns it spans in the content's width.
func (b *Builder) sizes(bl *doc.Block, fill func(style.Sheet) bool) string {
	var parts []string
	zs := b.Site.Zones
	for z := len(zs) - 1; z >= 0; z-- {
		share := 1.0
		if p, ok := bl.Place[zs[z].ID]; ok {
			share = float64(p.Span) / float64(zs[z].Columns)
		}
		share = min(share, 1)
		if z > 0 {
			parts = append(parts, "(max-width: "+strconv.Itoa(zs.Max(z))+".98px) "+style.Number(float64(int(share*100+0.5)))+"vw")
		} else {
			parts = append(parts, "min("+style.Number(float64(int(share*100+0.5)))+"vw, "+style.Number(float64(int(share*b.Site.House.ContentWidth+0.5)))+"px)")
		}
	}
	return strings.Join(parts, ", ")
}
