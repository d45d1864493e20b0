package edit

import (
	"slices"
	"strings"

	"openplot/core/doc"
	"openplot/core/style"
)

// Measure is a number of a house style that can be set by itself.
type Measure struct {
	Name        string // such as "space.room"
	Group       string // what it stands with on the screen
	Label       string
	Value       float64
	Least, Most float64
	set         func(h *doc.House, v float64)
}

// Measures lists the numbers of a house style beside its type and its width: spacing
// steps, gaps to the viewport's edge, corners, shadows and buttons.
func Measures(h *doc.House, zones doc.Zones) (out []Measure) {
	for i, s := range h.Space {
		out = append(out, Measure{"space." + s.Token, "Spacing, px", s.Name, s.Px, 0, 400, func(h *doc.House, v float64) { h.Space[i].Px = v }})
	}
	for _, z := range zones {
		out = append(out, Measure{"gutter." + z.ID, "Gutter, px", z.Name, h.Gutter.Or(
			zones, zones.Index(z.ID), 20,
		), 0, 200, func(h *doc.House, v float64) { h.Gutter[z.ID] = v }})
	}
	for _, z := range zones {
		out = append(out, Measure{"gap." + z.ID, "Column gap, px", z.Name, h.ColumnGap.Or(
			zones, zones.Index(z.ID), doc.StandardGap,
		), 0, 200, func(h *doc.House, v float64) { h.ColumnGap[z.ID] = v }})
	}
	for _, z := range zones {
		out = append(out, Measure{
			Name: "view." + z.ID, Group: "Viewport height, px", Label: z.Name, Value: h.ViewHeight.Or(
				zones, zones.Index(z.ID), doc.ViewHeight,
			), Least: 320, Most: 2400,
			set: func(h *doc.House, v float64) { h.ViewHeight[z.ID] = v },
		})
	}
	for i, s := range h.LineSteps() {
		out = append(out, Measure{"lines." + s.Token, "Border widths, px", s.Name, s.Px, 1, 40, func(h *doc.House, v float64) { h.Lines[i].Px = v }})
	}
	for i, s := range h.Corners {
		out = append(out, Measure{"corners." + s.Token, "Corner radii, px", s.Name, s.Px, 0, 1000, func(h *doc.House, v float64) { h.Corners[i].Px = v }})
	}
	for i, s := range h.Shadows {
		out = append(out,
			Measure{"shadows." + s.Token + ".y", "Shadows", s.Name + ", offset", s.Y, 0, 100, func(h *doc.House, v float64) { h.Shadows[i].Y = v }},
			Measure{"shadows." + s.Token + ".blur", "Shadows", s.Name + ", blur", s.Blur, 0, 200, func(h *doc.House, v float64) { h.Shadows[i].Blur = v }},
			Measure{"shadows." + s.Token + ".opacity", "Shadows", s.Name + ", opacity", s.Opacity, 0, 1, func(h *doc.House, v float64) { h.Shadows[i].Opacity = v }})
	}
	b := h.ButtonLook()
	for i, s := range b.Sizes {
		out = append(out,
			Measure{"buttons." + s.Token + ".x", "Buttons", s.Name + ", padding left and right", s.X, 0, 100, func(h *doc.House, v float64) { h.Buttons.Sizes[i].X = v }},
			Measure{"buttons." + s.Token + ".y", "Buttons", s.Name + ", padding top and bottom", s.Y, 0, 60, func(h *doc.House, v float64) { h.Buttons.Sizes[i].Y = v }},
			Measure{"buttons." + s.Token + ".size", "Buttons", s.Name + ", font size", s.Size, 0.5, 2, func(h *doc.House, v float64) { h.Buttons.Sizes[i].Size = v }})
	}
	out = append(out,
		Measure{"buttons.line", "Buttons", "Border of outlined buttons, px", b.Line, 1, 12, func(h *doc.House, v float64) { h.Buttons.Line = v }},
		Measure{"buttons.shift", "Buttons", "Darker on hover, %", b.Shift, -30, 30, func(h *doc.House, v float64) { h.Buttons.Shift = v }},
		Measure{"links.line", "Links", "Underline thickness, px (0 is auto)", h.Links.Line, 0, 8, func(h *doc.House, v float64) { h.Links.Line = v }},
		Measure{"links.drop", "Links", "Underline offset, px (0 is auto)", h.Links.Drop, 0, 12, func(h *doc.House, v float64) { h.Links.Drop = v }})
	return out
}

// inAll gives a value its own in every zone, so that setting one leaves the others.
func inAll(z doc.Zoned[float64], zones doc.Zones, usual float64) doc.Zoned[float64] {
	out := doc.Zoned[float64]{}
	for i, zone := range zones {
		out[zone.ID] = z.Or(zones, i, usual)
	}
	return out
}

// Pick is a choice of a house style among its own values.
type Pick struct {
	Name   string // such as "links.colour"
	Group  string // that of the Measures it stands with
	Label  string
	Value  string // a token, or ""
	Usual  string // what "" stands for, in words; "" where it can't be
	Offers []style.Offer
	set    func(h *doc.House, token string)
}

// Picks lists the choices of a house style.
func Picks(h *doc.House) []Pick {
	b := h.ButtonLook()
	var colours, corners []style.Offer
	for _, w := range h.Palette {
		colours = append(colours, style.Offer{Name: w.Name, Value: w.Token, Colour: w.Value})
	}
	for _, s := range h.Corners {
		corners = append(corners, style.Offer{Name: s.Name, Value: s.Token})
	}
	return []Pick{
		{Name: "page.ground", Group: "Page", Label: "Page background", Value: h.PageGround, Usual: "Ground", Offers: colours, set: func(h *doc.House, t string) { h.PageGround = t }},
		{Name: "buttons.corners", Group: "Buttons", Label: "Corner radius", Value: b.Corners, Offers: corners, set: func(h *doc.House, t string) { h.Buttons = h.ButtonLook(); h.Buttons.Corners = t }},
		{Name: "links.colour", Group: "Links", Label: "Colour", Value: h.Links.Colour, Usual: "Inherit", Offers: colours, set: func(h *doc.House, t string) { h.Links.Colour = t }},
		{Name: "links.hover", Group: "Links", Label: "Hover colour", Value: h.Links.Hover, Usual: "Inherit", Offers: colours, set: func(h *doc.House, t string) { h.Links.Hover = t }},
	}
}

// pick sets one of the Picks: Name is its, Value a token.
func pick(h doc.House, _ doc.Zones, c HouseCommand) (doc.House, error) {
	ps := Picks(&h)
	i := slices.IndexFunc(ps, func(p Pick) bool { return p.Name == c.Name })
	if i < 0 {
		return h, doc.Problemf("House style", "has no choice %.60q", c.Name)
	}
	p := ps[i]
	if !slices.ContainsFunc(p.Offers, func(o style.Offer) bool { return o.Value == c.Value }) && (c.Value != "" || p.Usual == "") {
		return h, doc.Problemf(p.Label, "can't be %.40q: choose one of the house style's", c.Value)
	}
	p.set(&h, c.Value)
	return h, nil
}

// setMeasure sets one of the Measures: Name is its, Value a number or a sum.
func setMeasure(h doc.House, zones doc.Zones, c HouseCommand) (doc.House, error) {
	ms := Measures(&h, zones)
	i := slices.IndexFunc(ms, func(m Measure) bool { return m.Name == c.Name })
	if i < 0 {
		return h, doc.Problemf("House style", "has no measure %.60q", c.Name)
	}
	m := ms[i]
	v, err := style.Evaluate(strings.TrimSuffix(strings.TrimSuffix(strings.TrimSpace(c.Value), "px"), "%"))
	if err != nil || v < m.Least || v > m.Most {
		return h, doc.Problemf(m.Label, "can't be %.40q: write a number from %s to %s", c.Value, style.Number(m.Least), style.Number(m.Most))
	}
	h.Space, h.Corners, h.Shadows = slices.Clone(h.Space), slices.Clone(h.Corners), slices.Clone(h.Shadows)
	h.Lines = slices.Clone(h.LineSteps())
	h.Gutter, h.ColumnGap = inAll(h.Gutter, zones, 20), inAll(h.ColumnGap, zones, doc.StandardGap)
	h.ViewHeight = inAll(h.ViewHeight, zones, doc.ViewHeight)
	h.Buttons = h.ButtonLook()
	h.Buttons.Sizes = slices.Clone(h.Buttons.Sizes)
	m.set(&h, v)
	return h, nil
}
