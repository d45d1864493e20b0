package element

import (
	"strings"

	"openplot/core/doc"
	"openplot/core/style"
	"openplot/core/value"
)

// edgings are the shapes of a section's bottom edge, drawn on a plane of 1000 by 100
// that is stretched to the section's width. What is drawn is what the section ends in;
// a top edge is turned upside down.
var edgings = map[string]string{
	"wave":     `<path d="M0 60C170 0 330 0 500 50s330 50 500-10v60H0z"/>`,
	"swell":    `<path d="M0 100V40c120-50 250-30 380 10s260 50 370 10s170-50 250-30v70z"/>`,
	"tide":     `<path opacity=".45" d="M0 40c180-50 340 40 520 20S860-20 1000 30v70H0z"/><path d="M0 66c200-40 330 30 520 16s340-50 480-8v26H0z"/>`,
	"slope":    `<path d="M0 100L1000 0v100z"/>`,
	"arc":      `<path d="M0 100C250 0 750 0 1000 100z"/>`,
	"hollow":   `<path d="M0 0C250 100 750 100 1000 0v100H0z"/>`,
	"peak":     `<path d="M0 100L500 0l500 100z"/>`,
	"notch":    `<path d="M0 0h430l70 80 70-80h430v100H0z"/>`,
	"scallops": `<path d="M0 100V60a50 60 0 0 1 100 0a50 60 0 0 1 100 0a50 60 0 0 1 100 0a50 60 0 0 1 100 0a50 60 0 0 1 100 0a50 60 0 0 1 100 0a50 60 0 0 1 100 0a50 60 0 0 1 100 0a50 60 0 0 1 100 0a50 60 0 0 1 100 0v40z"/>`,
	"steps":    `<path d="M0 80h125V60h125V40h125V20h250v20h125v20h125v20h125v20H0z"/>`,
	"torn":     `<path d="M0 50l40-18 52 24 38-30 60 22 44-12 50 28 66-34 48 16 40-22 62 30 58-10 40 20 70-30 52 24 48-20 60 26 44-18 50 14 78-30v90H0z"/>`,
}

// DividerShape gives the SVG shapes of a divider, one of style.Dividers, on a plane of 1000
// by 100, or "".
func DividerShape(name string) string { return edgings[name] }

// edge adds the shape that a section begins or ends with, in the colour of what is
// beyond it: as wide as the section, so that it is right at every width. It lies over
// the section's ground and is decoration.
func (b grounds) edge(n *Node, s *doc.Section, side string) {
	drawing, ok := edgings[b.sheet(s.Style, 0).Word("edge-"+side, "straight")]
	if !ok {
		return
	}
	svg := b.child(n, "svg", func(z int, st *style.Style) {
		sh := b.sheet(s.Style, z)
		st.Position, st.Width = style.Absolute, style.Percentage(100)
		st.Height = sh.Length(
			"edge-"+side+"-height",
			style.Between(style.Pixels(28), style.Length{N: 6, Unit: style.Vw}, style.Pixels(90)),
		)
		st.Inset.Left = style.Pixels(0)
		if side == "top" {
			st.Inset.Top = style.Pixels(-1) // over the seam that rounding leaves
		} else {
			st.Inset.Bottom = style.Pixels(-1)
		}
		st.Color = sh.Colour("edge-"+side+"-colour", b.beyond(s, side, z))
	})
	var turn []string
	if b.sheet(s.Style, 0).Word("edge-"+side+"-flip", value.No) == value.Yes {
		turn = append(turn, "translate(1000 0) scale(-1 1)")
	}
	if side == "top" {
		turn = append(turn, "translate(0 100) scale(1 -1)")
	}
	if len(turn) > 0 {
		drawing = `<g transform="` + strings.Join(turn, " ") + `">` + drawing + `</g>`
	}
	svg.Raw = drawing
	svg.attr("viewBox", "0 0 1000 100")
	svg.attr("preserveAspectRatio", "none")
	svg.attr("fill", "currentColor")
	svg.attr("aria-hidden", "true")
}

// beyond is the ground of the section that a divider passes into, "#rrggbb": its colour, or
// the end of its gradient that lies there.
func (b grounds) beyond(s *doc.Section, side string, zone int) string {
	var to *doc.Section
	if b.Neighbours != nil {
		above, below := b.Neighbours(s, zone)
		if to = below; side == "top" {
			to = above
		}
	}
	if to == nil {
		return pageBuild(b).pageGround()
	}
	sh := b.sheet(to.Style, zone)
	if first, last := sh.GradientEnds("gradient"); side == "top" && last != "" {
		return last
	} else if first != "" {
		return first
	}
	return sh.Colour("background", pageBuild(b).pageGround())
}
