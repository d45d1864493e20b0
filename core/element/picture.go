package element

import (
	"cmp"
	"strconv"
	"strings"

	"openplot/core/doc"
	"openplot/core/style"
	"openplot/core/value"
)

// A picture is one of the site's media.
var picture = Anatomy{
	Name: "Picture", Hint: "one of the site’s pictures, or a new one", Icon: "image", Find: "image photo",
	Shelf: Showing, Span: 6, Rows: 8,
	Fields: []Field{
		{Name: "picture", Label: "Picture", Type: PictureID},
		{Name: "alt", Label: "Alternative text", Type: Prose},
		{Name: "link", Label: "Link", Type: Address},
		{
			Name:    "large",
			Label:   "On click",
			Type:    Choice,
			Choices: value.Is(value.None, "Nothing", value.Large, "Opens large"),
		},
		{Name: "caption", Label: "Caption", Type: Line},
	},
	Settings: []string{"aspect-ratio", "object-fit", "shape", "object-position"},
	start:    func() *doc.Block { return &doc.Block{Style: doc.Style{"aspect-ratio": {"desktop": "rows"}}} },
	build:    as(mediaBlocks.picture),
}

// picture is an <img> in a <div>, or in an <a> when it leads somewhere. By its
// own shape or a ratio the img's width is the block's; set to "rows" it fills
// the area of the grid and is cropped to it. With words below it, or shown large when it
// is pressed, the img stands in a frame of its own.
func (b mediaBlocks) picture(grid *Node, bl *doc.Block) *Node {
	m, ok := b.medium(bl.Content.Picture)
	b.standing++ // chosen or not: what stands in for the others stays when one is chosen
	if ok = ok && m.Sort() == doc.PictureMedium; !ok {
		r := b.sheet(bl.Style, 0).Ratio("aspect-ratio")
		if bl.Style["shape"] != nil && r == 1 {
			defer func(was bool) { b.faces = was }(b.faces)
			b.faces = true // round pictures are mostly of people
		}
		var stands bool
		if m, stands = b.standIn(cmp.Or(r, 1.5)); !stands {
			return nil
		}
	}
	alt := cmp.Or(bl.Content.Alt, m.Alt)
	caption := bl.Content.Values["caption"]
	large := ok && bl.Content.Link == "" && bl.Content.Values["large"] == value.Large
	fill := func(z int) bool { return b.sheet(bl.Style, z).Word("aspect-ratio", value.Auto) == value.Rows }
	n := &Node{Tag: "div"}
	n.Styles = b.styles(grid, func(z int, st *style.Style) {
		if fill(z) {
			st.Position = style.Relative
		}
		// Without a width of its own a picture is as wide as its columns however it
		// is aligned, since its natural width depends on the variant loaded.
		st.Width = style.Percentage(100)
		if caption != "" || large {
			st.Display, st.FlexDirection = style.Flex, style.Column
		}
	})
	frame := n
	if caption != "" || large {
		frame = b.child(n, "div", func(z int, st *style.Style) {
			if fill(z) {
				st.Position, st.FlexGrow = style.Relative, 1
			}
			st.Width = style.Percentage(100)
		})
	}
	if caption != "" {
		n.Tag = "figure"
	}
	if bl.Content.Link != "" {
		frame.Tag = "a"
		b.lead(frame, bl.Content.Link)
	}
	id := "large-" + bl.ID + b.item
	if large {
		frame.Tag = "button"
		opens(frame, id, cmp.Or(alt, caption, "the picture"))
	}
	img := &Node{Tag: "img"}
	img.Styles = b.styles(frame, func(z int, st *style.Style) {
		sh := b.sheet(bl.Style, z)
		st.Width = style.Percentage(100)
		if fill(z) {
			st.Position = style.Absolute
			st.Inset = style.Same(style.Pixels(0))
			st.Height = style.Percentage(100)
		} else if r := sh.Ratio("aspect-ratio"); r > 0 {
			st.AspectRatio = r
		} else if m.Height > 0 {
			st.AspectRatio = float64(m.Width) / float64(m.Height)
		}
		if st.ObjectFit = "cover"; sh.Word("object-fit", value.Cover) == value.Contain {
			st.ObjectFit = "contain"
		}
		st.ClipPath = cuts[sh.Word("shape", value.None)]
		st.ObjectPos = sh.Word("object-position", m.Focal)
		rounded(st, sh)
		seen(st, sh)
	})
	b.source(img, m, alt)
	frame.Children = []*Node{img}
	if large {
		b.large(n, id, m, cmp.Or(alt, caption, "picture"), alt, caption)
	}
	if caption != "" {
		say(b.child(n, "figcaption", func(z int, st *style.Style) {
			b.smallWords(z, st)
			st.Padding.Top = style.Pixels(8)
		}), caption)
	}
	return n
}

// opens makes a button of an element that shows a picture large.
func opens(n *Node, id, what string) {
	n.attr("type", "button")
	n.attr("popovertarget", id)
	n.attr("aria-label", "Show large: "+what)
}

// large adds a picture as it is shown over the page, closed until then, with its name and what
// stands below it. It needs no script (HTML §6.12, popover): all of it is a button that closes it.
func (b mediaBlocks) large(in *Node, id string, m Medium, name, alt, caption string) *Node {
	over := b.child(in, "div", func(_ int, st *style.Style) {
		st.Display, st.Color = style.None, "#ffffff"
	})
	over.attr("id", id)
	over.attr("popover", "")
	over.attr("role", "dialog")
	over.attr("aria-label", name)
	over.States = []State{
		{":popover-open", func(_ int, st *style.Style) {
			st.Display, st.Position, st.Inset = style.Grid, style.OnViewport, style.Same(style.Pixels(0))
			st.Width, st.Height = style.Percentage(100), style.Percentage(100)
			st.GridRows = style.EqualColumns(1)
			st.Padding, st.Background = style.Same(style.Pixels(24)), "rgb(0 0 0 / 0.88)"
		}},
	}
	shown := b.child(over, "figure", func(_ int, st *style.Style) {
		st.Display, st.FlexDirection, st.RowGap = style.Flex, style.Column, style.Pixels(12)
		st.MinHeight = style.Pixels(0)
	})
	full := b.child(shown, "img", func(_ int, st *style.Style) {
		st.Width, st.Height, st.ObjectFit = style.Percentage(100), style.Percentage(100), "contain"
		st.MinHeight = style.Pixels(0)
	})
	portion := b.portion
	b.portion = nil
	b.source(full, m, alt)
	b.portion = portion
	if caption != "" {
		say(b.child(shown, "figcaption", func(z int, st *style.Style) {
			b.smallWords(z, st)
			st.TextAlign = style.TextCenter
			st.Padding = style.Edges{Left: style.Pixels(56), Right: style.Pixels(56)} // beside the buttons
		}), caption)
	}
	shut := b.child(over, "button", func(_ int, st *style.Style) {
		st.Position, st.Inset = style.Absolute, style.Same(style.Pixels(0))
		st.Width, st.Height = style.Percentage(100), style.Percentage(100)
	})
	shut.attr("type", "button")
	shut.attr("popovertarget", id)
	shut.attr("popovertargetaction", "hide")
	shut.attr("aria-label", "Close")
	b.drawing(b.child(shut, "span", func(z int, st *style.Style) {
		roundButton(z, st)
		st.Position, st.Background = style.Absolute, "rgb(0 0 0 / 0.6)"
		st.Inset.Top, st.Inset.Right = style.Pixels(16), style.Pixels(16)
	}), "x-lg", "", func(int) style.Length { return style.Pixels(18) })
	return over
}

// cuts are the shapes that a picture is cut to (CSS Shapes 1 §3).
var cuts = map[string]string{
	"circle":  "circle(50%)",
	"arch":    "inset(0 round 50% 50% 0 0/40% 40% 0 0)",
	"leaf":    "inset(0 round 40% 0)",
	"slant":   "polygon(0 8%,100% 0,100% 92%,0 100%)",
	"hexagon": "polygon(25% 0,75% 0,100% 50%,75% 100%,25% 100%,0 50%)",
}

// MaskPath gives the CSS clip-path of a picture's mask, or "".
func MaskPath(name string) string { return cuts[name] }

// EmptyPicture stands in on the canvas for a picture not chosen yet.
const EmptyPicture = "/static/img/no-picture.svg"

var emptyMedium = Medium{
	Width:    300,
	Height:   200,
	Variants: []Variant{{URL: EmptyPicture, StyleURL: EmptyPicture, Width: 300}},
}

func (b *Builder) source(img *Node, m Medium, alt string) {
	largest := m.Variants[len(m.Variants)-1]
	sizes := mediaBlocks{b}.sizes()
	if len(m.Modern) > 0 {
		img.Sources = []Source{{"image/avif", srcset(m.Modern), sizes}}
	}
	img.attr("src", largest.URL)
	if len(m.Variants) > 1 {
		img.attr("srcset", srcset(m.Variants))
		img.attr("sizes", sizes)
	}
	img.attr("width", strconv.Itoa(m.Width))
	img.attr("height", strconv.Itoa(m.Height))
	img.attr("alt", alt)
	img.attr("loading", "lazy")
}

func srcset(vs []Variant) string {
	set := make([]string, len(vs))
	for i, v := range vs {
		set[i] = v.URL + " " + strconv.Itoa(v.Width) + "w"
	}
	return strings.Join(set, ", ")
}

// sizes tells the browser the width the picture will have in each zone, as the
// share that the block has of the content's width.
func (b mediaBlocks) sizes() string {
	var parts []string
	zs := b.Site.Zones
	for z := len(zs) - 1; z >= 0; z-- {
		share := partOf(b.portion, z)
		if z > 0 {
			parts = append(
				parts,
				"(max-width: "+strconv.Itoa(zs.Max(z))+".98px) "+style.Number(float64(int(share*100+0.5)))+"vw",
			)
		} else {
			parts = append(
				parts,
				"min("+style.Number(float64(int(share*100+0.5)))+"vw, "+style.Number(float64(int(share*b.Site.House.ContentWidth+0.5)))+"px)",
			)
		}
	}
	return strings.Join(parts, ", ")
}
