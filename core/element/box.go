package element

import (
	"math"
	"strings"

	"openplot/core/doc"
	"openplot/core/style"
	"openplot/core/value"
)

// box sets what every block has wherever it stands: its size, its edge and how it is
// painted.
func box(st *style.Style, sh style.Sheet) {
	st.Width = sh.Length("width", st.Width)
	if st.Width.Unit != style.Auto && st.Width.Unit != style.Percent {
		st.MaxWidth = style.Percentage(100)
	}
	st.MaxWidth = sh.Length("max-width", st.MaxWidth)
	st.MinWidth = sh.Length("min-width", st.MinWidth)
	if h := sh.Length("height", style.Length{}); h.N > 0 || h.Unit == style.Math {
		st.Height = h
	}
	if h := minHeight(sh); h.Unit != style.Auto {
		st.MinHeight = h
	}
	edged(st, sh)
	if s := sh.Shadow("box-shadow"); s != "" || sh.Word("box-shadow", "") == value.None {
		st.BoxShadow = s
	}
	st.Opacity = max(sh.Share("opacity", st.Opacity), 0)
	if v := sh.Word("opacity", ""); v == "0%" {
		st.Opacity = unseen
	}
	st.Rotate = sh.Angle("rotate")
}

// unseen is the opacity that stands for 0, which stands for 1.
const unseen = 0.0001

// edged sets the border of a box, on all sides or on some, and its corners.
func edged(st *style.Style, sh style.Sheet) {
	line := func(setting string, usual float64) float64 {
		w := sh.Length(setting, style.Length{})
		if w.Unit == style.Auto {
			return usual
		}
		if px := w.Or(0, style.Viewport{}, 0); px > 0 {
			return max(1, math.Floor(px))
		}
		return 0
	}
	all := line("border-width", 0)
	own := style.Widths{
		Top: line("border-top-width", all), Right: line("border-right-width", all),
		Bottom: line("border-bottom-width", all), Left: line("border-left-width", all),
	}
	if own != (style.Widths{}) || sh.Word("border-width", "") != "" {
		st.Border = own
		st.BorderColor = sh.Colour("border-color", sh.Swatch("line", "#cccccc"))
	}
	rounded(st, sh)
}

// rounded sets the corners of a box.
func rounded(st *style.Style, sh style.Sheet) {
	st.BorderRadius = sh.Length("border-radius", st.BorderRadius)
	st.Corners = style.Corners{
		TopLeft: sh.Length(
			"border-top-left-radius",
			style.Length{},
		), TopRight: sh.Length("border-top-right-radius", style.Length{}),
		BottomRight: sh.Length(
			"border-bottom-right-radius",
			style.Length{},
		), BottomLeft: sh.Length("border-bottom-left-radius", style.Length{}),
	}
}

// margins sets the space around a block: above and below where blocks stand in columns or
// on a line, and on all sides on a line. In a grid its place says where it is.
func margins(st *style.Style, sh style.Sheet, in doc.Arrangement) {
	set := func(side *style.Length, setting string) {
		if l := sh.Length(setting, style.Length{}); l.Unit != style.Auto {
			*side = l
		}
	}
	if in == doc.Placed {
		return
	}
	set(&st.Margin.Top, "margin-top")
	set(&st.Margin.Bottom, "margin-bottom")
	if in == doc.LineUp {
		set(&st.Margin.Left, "margin-left")
		set(&st.Margin.Right, "margin-right")
	}
}

// effects sets how a block comes into sight and moves while it is seen.
func effects(st *style.Style, sh style.Sheet) {
	if kind := sh.Word("entrance", value.None); kind != value.None {
		from := 100 * sh.Share("entrance-delay", 0)
		st.Entrance = style.Entrance{
			Kind: kind, By: sh.Length("entrance-by", style.Pixels(40)).N,
			From: from, To: min(100, from+100*sh.Share("entrance-length", 0.8)),
		}
	}
	if kind := sh.Word("sway", value.None); kind != value.None {
		st.Sway = style.Sway{
			Kind:   kind,
			By:     sh.Length("sway-by", style.Pixels(12)).N,
			Period: sh.Seconds("sway-period", 8),
		}
	}
}

// seen sets how a picture itself is painted: its colours, and mirrored.
func seen(st *style.Style, sh style.Sheet) {
	var filter []string
	share := func(setting, function string, usual float64) {
		if v := sh.Share(setting, usual); v != usual {
			filter = append(filter, function+"("+style.Number(v)+")")
		}
	}
	share("brightness", "brightness", 1)
	share("contrast", "contrast", 1)
	share("saturate", "saturate", 1)
	share("grayscale", "grayscale", 0)
	share("sepia", "sepia", 0)
	if a := sh.Angle("hue-rotate"); a != 0 {
		filter = append(filter, "hue-rotate("+style.Number(a)+"deg)")
	}
	st.Filter = strings.Join(filter, " ")
	st.Glide = sh.Share("picture-parallax", 0)
	mirror := sh.Word("mirror", value.None)
	if mirror == value.Horizontal || mirror == value.Both {
		st.ScaleX = -1
	}
	if mirror == value.Vertical || mirror == value.Both {
		st.ScaleY = -1
	}
}

// pseudos are the selectors of states: what is focused is, for what holds something to
// press, that too.
var pseudos = map[string]string{"hover": ":hover", "focus": ":focus-within", "active": ":active"}

// states adds the looks that a block was given for when it is pointed at or pressed.
func (b grounds) states(n *Node, bl *doc.Block) {
	for _, state := range style.States {
		own := false
		for name := range bl.Style {
			own = own || strings.HasPrefix(name, state.Name+"-")
		}
		if !own {
			continue
		}
		pseudo := pseudos[state.Name]
		if bl.Kind == doc.Button && state.Name == "focus" {
			pseudo = ":focus-visible"
		}
		change := func(zone int, st *style.Style) { inState(st, b.sheet(bl.Style, zone), state.Name+"-") }
		at := -1
		for i := range n.States {
			if n.States[i].Pseudo == pseudo {
				at = i
			}
		}
		if at < 0 {
			n.States = append(n.States, State{pseudo, change})
		} else {
			usual := n.States[at].Change
			n.States[at].Change = func(zone int, st *style.Style) {
				as := *st
				usual(zone, st)
				if sh := b.sheet(bl.Style, zone); sh.Word(state.Name+"-background", "") != "" {
					st.Color, st.BorderColor = as.Color, as.BorderColor
				}
				change(zone, st)
			}
		}
		for z := range n.Styles {
			n.Styles[z].Quick = true
		}
	}
}

// inState changes a look to what the settings of a state say, whose names begin with prefix.
func inState(st *style.Style, sh style.Sheet, prefix string) {
	st.Color = sh.Colour(prefix+"color", st.Color)
	if st.Background = sh.Colour(prefix+"background", st.Background); sh.Word(prefix+"background", "") == value.None {
		st.Background = ""
	}
	st.BorderColor = sh.Colour(prefix+"border-color", st.BorderColor)
	if s := sh.Shadow(prefix + "box-shadow"); s != "" || sh.Word(prefix+"box-shadow", "") == value.None {
		st.BoxShadow = s
	}
	st.TranslateY -= sh.Length(prefix+"lift", style.Pixels(0)).N
	if by := sh.Share(prefix+"grow", 1); by != 1 {
		st.ScaleX, st.ScaleY = by, by
	}
	if o := sh.Share(prefix+"opacity", -1); o >= 0 {
		st.Opacity = max(o, unseen)
	}
	switch sh.Word(prefix+"underline", "") {
	case value.Yes:
		st.Underline = true
	case value.No:
		st.Underline = false
	}
}
