package element

import (
	"math"
	"strings"

	"openplot/core/colour"
	"openplot/core/doc"
	"openplot/core/style"
	"openplot/core/value"
)

// A button is one link that stands out.
var button = Anatomy{
	Name: "Button", Hint: "a link that stands out", Icon: "hand-index-thumb", Find: "link action cta",
	Shelf: Wording, Span: 3, Rows: 2,
	Fields: []Field{{Name: "link", Label: "Link", Type: Address}},
	start: func() *doc.Block {
		return &doc.Block{Content: doc.Content{Words: doc.PlainWords("Find out more")}}
	},
	Settings: []string{"button-look", "button-size"},
	build:    as(wordBlocks.button), pressed: true,
}

// waiting is how much is seen of a button without a link, from 0 to 1.
const waiting = 0.6

// button is a link drawn as a button; without an address it is a placeholder
// link (HTML, the a element, without href), which is said and looks as one that can't be
// pressed (ARIA in HTML §4).
func (b wordBlocks) button(grid *Node, bl *doc.Block) *Node {
	n := &Node{Tag: "a"}
	n.attr("data-button", "") // for those who choose all colours themselves
	leads := bl.Content.Link != ""
	if leads {
		b.lead(n, bl.Content.Link)
	} else {
		n.attr("role", "link")
		n.attr("aria-disabled", "true")
	}
	n.Styles = b.styles(grid, func(z int, st *style.Style) {
		if buttonLook(st, b.sheet(bl.Style, z)); !leads {
			st.Opacity = waiting
		}
	})
	b.said(n, bl, "span", b.phrase)
	return n
}

// buttonLook sets one of the house style's looks, in one of its sizes, with what the
// block has of its own.
func buttonLook(st *style.Style, sh style.Sheet) {
	house, size := sh.House.ButtonLook(), sh.House.ButtonSize(strings.TrimPrefix(sh.Word("button-size", ""), "$"))
	accent, ground := sh.Swatch("accent", "#1d5f6b"), sh.Swatch("ground", "#ffffff")
	fill, line := accent, house.Line
	inherited := st.Color
	st.Color = ground
	if look := sh.Word("button-look", value.Filled); look != value.Filled {
		if st.Color, fill = accent, ""; st.Pictured || !readable(accent, st.Behind) {
			st.Color = inherited
		}
		if look == value.Quiet {
			line, st.Underline = 0, true
		}
	} else {
		line = 0
	}
	st.TextAlign = style.TextCenter
	sh.Type(st, "button")
	if sh.Length("font-size", style.Length{}).Unit == style.Auto {
		st.FontSize = scaled(st.FontSize, size.Size)
	}
	line = math.Floor(line)
	// A line takes its room from within, so that buttons of one size are equally high.
	x, y := style.Pixels(max(size.X-line, 0)), style.Pixels(max(size.Y-line, 0))
	area(st, sh, style.Edges{Top: y, Right: x, Bottom: y, Left: x}, fill)
	if line > 0 {
		st.Border, st.BorderColor = style.AllSides(line), sh.Colour("border-color", st.Color)
	}
	if c, ok := doc.FindStep(sh.House.Corners, house.Corners); ok {
		st.BorderRadius = style.Pixels(c.Px)
	}
	st.AlignSelf, st.JustifySelf = style.AlignStart, style.AlignStart
}

// readable reports whether words in a colour can be read on what is behind them
// (WCAG 2.2, 1.4.3); what isn't known is taken to be light.
func readable(words, behind string) bool {
	c, err := colour.ParseHex(words)
	g, err2 := colour.ParseHex(behind)
	return err != nil || err2 != nil || colour.Contrast(c, g) >= colour.AA
}

// pressing are the looks of something to press under the pointer and while it is
// pressed: its fill, or where it has none its ground, gets darker.
func (b *Builder) pressing() []State {
	house := b.Site.House.ButtonLook()
	of := func(pseudo string, by float64) State {
		return State{pseudo, func(_ int, st *style.Style) {
			if st.Background != "" {
				st.Background = darker(st.Background, by)
				return
			}
			if st.BorderColor == st.Color {
				st.BorderColor = darker(st.Color, 2*by)
			}
			st.Color = darker(st.Color, 2*by)
		}}
	}
	return []State{of(":hover", house.Shift), of(":active", 2*house.Shift)}
}

// darker gives a colour less light by a difference of OKLCH lightness in per cent.
func darker(hex string, by float64) string {
	c, err := colour.ParseHex(hex)
	if err != nil {
		return hex
	}
	o := c.OKLCH()
	o.L = min(max(o.L-by/100, 0), 1)
	dark := o.SRGB()
	dark.A = c.A
	return dark.String()
}
