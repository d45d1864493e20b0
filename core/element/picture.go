package element

import (
	"strconv"
	"strings"

	"openplot/core/doc"
	"openplot/core/style"
)

// A picture is one of the site's media.
var picture = Anatomy{
	Name: "Picture", Hint: "one of the site’s pictures, or a new one", Icon: "image", Find: "image photo",
	Shelf: Showing, Span: 6, Rows: 8,
	Fields: []Field{
		{Name: "picture", Label: "Picture", Type: PictureID},
		{Name: "link", Label: "Opens", Type: Address},
		{Name: "alt", Label: "Words for those who can’t see it", Type: Prose},
	},
	Settings: []string{"aspect-ratio", "object-fit", "shape", "object-position"},
	start:    func() *doc.Block { return &doc.Block{Style: doc.Style{"aspect-ratio": {"desktop": "rows"}}} },
	build:    (*Builder).picture,
}

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
		m = emptyMedium
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
		if st.ObjectFit = "cover"; sh.Word("object-fit", "fill") == "whole" {
			st.ObjectFit = "contain"
		}
		st.ClipPath = cuts[sh.Word("shape", "none")]
		st.ObjectPos = sh.Word("object-position", m.Focal)
		st.BorderRadius = sh.Length("border-radius", style.Length{})
	})
	alt := bl.Content.Alt
	if alt == "" {
		alt = m.Alt
	}
	b.source(img, m, alt)
	n.Children = []*Node{img}
	return n
}

// cuts are the shapes that a picture is cut to (CSS Shapes 1 §3).
var cuts = map[string]string{
	"circle":  "circle(50%)",
	"arch":    "inset(0 round 50% 50% 0 0/40% 40% 0 0)",
	"leaf":    "inset(0 round 40% 0)",
	"slant":   "polygon(0 8%,100% 0,100% 92%,0 100%)",
	"hexagon": "polygon(25% 0,75% 0,100% 50%,75% 100%,25% 100%,0 50%)",
}

// EmptyPicture stands in on the canvas for a picture not chosen yet.
const EmptyPicture = "/static/img/no-picture.svg"

var emptyMedium = Medium{Width: 300, Height: 200, Variants: []Variant{{URL: EmptyPicture, StyleURL: EmptyPicture, Width: 300}}}

func (b *Builder) source(img *Node, m Medium, alt string) {
	largest := m.Variants[len(m.Variants)-1]
	img.attr("src", largest.URL)
	if len(m.Variants) > 1 {
		set := make([]string, len(m.Variants))
		for i, v := range m.Variants {
			set[i] = v.URL + " " + strconv.Itoa(v.Width) + "w"
		}
		img.attr("srcset", strings.Join(set, ", "))
		img.attr("sizes", b.sizes())
	}
	img.attr("width", strconv.Itoa(m.Width))
	img.attr("height", strconv.Itoa(m.Height))
	img.attr("alt", alt)
	img.attr("loading", "lazy")
}

// sizes tells the browser the width the picture will have in each zone, as the
// share that the block has of the content's width.
func (b *Builder) sizes() string {
	var parts []string
	zs := b.Site.Zones
	for z := len(zs) - 1; z >= 0; z-- {
		share := partOf(b.portion, z)
		if z > 0 {
			parts = append(parts, "(max-width: "+strconv.Itoa(zs.Max(z))+".98px) "+style.Number(float64(int(share*100+0.5)))+"vw")
		} else {
			parts = append(parts, "min("+style.Number(float64(int(share*100+0.5)))+"vw, "+style.Number(float64(int(share*b.Site.House.ContentWidth+0.5)))+"px)")
		}
	}
	return strings.Join(parts, ", ")
}
