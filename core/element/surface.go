package element

import (
	"cmp"

	"openplot/core/doc"
	"openplot/core/style"
	"openplot/core/value"
)

// surface sets what a section is seen as: its ground, its room, its edge, and where it
// stands on the page.
func (b grounds) surface(st *style.Style, s *doc.Section, z int) {
	sh := b.sheet(s.Style, z)
	none := style.Pixels(0)
	st.Background = sh.Colour("background", "")
	sh.Aligned(st)
	legible(st, sh)
	st.Padding = style.Edges{
		Top: sh.Length("padding-top", none), Right: sh.Length("padding-right", none),
		Bottom: sh.Length("padding-bottom", none), Left: sh.Length("padding-left", none),
	}
	st.MinHeight = minHeight(sh)
	b.ground(st, sh, s.Picture, z)
	if s.Video != "" {
		b.meanwhile(st, sh)
	}

	sides := sh.Length("margin-sides", none)
	st.Margin = style.Edges{
		Top:    sh.Length("margin-top", none),
		Right:  sh.Length("margin-right", sides),
		Bottom: sh.Length("margin-bottom", none),
		Left:   sh.Length("margin-left", sides),
	}
	// A bar that stays isn't pulled: at the top of the page it would be pushed back. What comes first
	// isn't either: there is nothing to be pulled over, and its words would be above the page.
	if up := sh.Length("pull", none); (up.N > 0 || up.Unit == style.Math) &&
		sh.Word("stays", value.Static) == value.Static && !b.first(s, z) {
		st.Margin.Top = up.Scaled(-1)
		st.Position, st.ZIndex = style.Relative, 1
	}
	st.BoxShadow = sh.Shadow("box-shadow")
	edged(st, sh)
	if at := sh.Word("content-at", value.Start); at != value.Start {
		st.Display, st.FlexDirection = style.Flex, style.Column
		st.JustifyContent = spreads[at]
	}
	// The edges are drawn by what the widest zone says, and hidden in none.
	if wide := b.sheet(s.Style, 0); wide.Word("edge-top", value.None) != value.None ||
		wide.Word("edge-bottom", value.None) != value.None {
		st.Position = style.Relative
	}
	if b.hangsOver(s, z) { // above what is drawn behind the next section
		st.Position, st.ZIndex = style.Relative, 1
	}
	if n := whole(sh.Word("layer", ""), 0); n > 0 {
		st.Position, st.ZIndex = style.Relative, n
	}
	switch sh.Word("stays", value.Static) {
	case value.Sticky:
		b.stay(st)
	case value.StickyAfter:
		b.stay(st)
		st.Reveal = !b.Still
	}
	if sh.Word("over", value.No) != value.No { // takes no room, so that the next section begins where it does
		if st.Position == style.Static {
			st.Position = style.Relative
		}
		st.Height, st.MinHeight, st.ZIndex = style.Pixels(0), style.Length{}, overAll
		st.Padding.Bottom = none
		st.Margin.Bottom = st.Padding.Top.Scaled(-1)
		st.Pictured = true // by whatever the next section shows
	}
}

// first reports whether a section is known to be the first that is seen on its page in a zone.
func (b grounds) first(s *doc.Section, zone int) bool {
	if b.Neighbours == nil {
		return false
	}
	above, below := b.Neighbours(s, zone)
	return above == nil && below != nil
}

// overAll is the layer of a bar that lies over the rest of the page.
const overAll = 100

func (b grounds) stay(st *style.Style) {
	if st.Position, st.ZIndex = style.Relative, overAll; !b.Still {
		st.Position, st.Inset.Top = style.Sticky, style.Pixels(0)
	}
}

// ground sets the layers behind a section or a container: gradient, picture, and the filter
// over them, all on its colour.
func (b grounds) ground(st *style.Style, sh style.Sheet, picture string, z int) {
	m, _ := b.medium(picture)
	// A tile is as wide as the picture is, or as is said, whichever copy of it is loaded.
	tile := sh.Length("tile", style.Pixels(float64(m.Width)))
	tiled := sh.Word("picture-fit", value.Cover) == value.Repeat
	want := b.across(z)
	if px, ok := tile.Resolve(0, style.Viewport{}); ok && tiled {
		want = int(2 * px) // on screens that show a pixel by four
	}
	st.BackgroundURL, st.BackgroundModern = b.backdrop(picture, want)
	if st.BackgroundURL != "" {
		b.meanwhile(st, sh)
		at := sh.Word("picture-position", cmp.Or(m.Focal, "50% 50%"))
		switch sh.Word("picture-fit", value.Cover) {
		case value.Contain:
			st.BackgroundFit = at + "/contain no-repeat"
		case value.Repeat:
			st.BackgroundFit = at + "/" + tile.String()
		default:
			st.BackgroundFit = at + "/cover"
		}
		if st.BackgroundFit == "50% 50%/cover" {
			st.BackgroundFit = ""
		}
		if sh.Word("picture-scroll", "") == value.Fixed {
			if st.BackgroundFit == "" {
				st.BackgroundFit = "center/cover"
			}
			st.BackgroundFit += " fixed"
		}
	}
	strength := sh.Share("filter-opacity", 0.5)
	var layers []string
	if g := sh.Gradient("filter-gradient", strength); g != "" {
		layers = append(layers, g)
	} else if c := sh.Colour("filter", ""); c != "" {
		veil := style.Veil(c, strength)
		layers = append(layers, "linear-gradient("+veil+", "+veil+")")
	}
	if g := sh.Gradient("gradient", 1); g != "" {
		layers = append(layers, g)
	}
	for i, l := range layers {
		if i > 0 {
			st.BackgroundTop += ", "
		}
		st.BackgroundTop += l
	}
}

// meanwhile gives what has a picture and no fill a colour of the palette on which its words can be
// read, if they can't be on what is behind: until the picture has come, or where none does (WCAG 2.2,
// technique F24).
func (b grounds) meanwhile(st *style.Style, sh style.Sheet) {
	if st.Background != "" || readable(st.Color, st.Behind) {
		return
	}
	for _, token := range []string{"deep", "words", "ground"} {
		if c := sh.Swatch(token, ""); c != "" && readable(st.Color, c) {
			st.Background = c
			return
		}
	}
}

// across gives how wide in px a background is at most in a zone.
func (b grounds) across(zone int) int {
	if zone > 0 {
		return b.Site.Zones.Max(zone)
	}
	return 1920
}

// backdrop gives the addresses of the variants that suit a width in px: the one
// that every browser reads, and the one in AVIF or "".
func (b grounds) backdrop(id string, want int) (url, modern string) {
	m, ok := b.medium(id)
	if !ok {
		return "", ""
	}
	v := suits(m.Variants, want)
	if len(m.Modern) > 0 {
		if a := suits(m.Modern, want); a.Width == v.Width {
			modern = a.StyleURL
		}
	}
	return v.StyleURL, modern
}
