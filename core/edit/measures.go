package edit

import (
	"cmp"
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
// steps, gaps to the viewport's edge, corners and buttons.
func Measures(h *doc.House, zones doc.Zones) (out []Measure) {
	narrowest := zones[len(zones)-1].Name
	for i, s := range h.Space {
		out = append(out, Measure{
			Name: "space." + s.Token, Group: "Spacing, px", Label: s.Name, Value: s.Px, Most: 400,
			set: func(h *doc.House, v float64) { h.Space[i].Px = v },
		})
	}
	for i, s := range h.Space {
		out = append(out, Measure{
			Name: "space." + s.Token + ".narrow", Group: "Spacing on " + narrowest + ", px", Label: s.Name,
			Value: cmp.Or(s.Narrow, s.Px), Least: min(1, s.Px), Most: 400,
			set: func(h *doc.House, v float64) { h.Space[i].Narrow = unless(v, h.Space[i].Px) },
		})
	}
	byZone := func(token, group string, of func(h *doc.House) doc.Zoned[float64], usual, least, most float64) {
		for i, z := range zones {
			out = append(out, Measure{
				Name: token + "." + z.ID, Group: group, Label: z.Name, Value: of(h).Or(zones, i, usual), Least: least, Most: most,
				set: func(h *doc.House, v float64) { of(h)[z.ID] = v },
			})
		}
	}
	byZone("gutter", "Gutter, px", func(h *doc.House) doc.Zoned[float64] { return h.Gutter }, 20, 0, 200)
	byZone(
		"gap",
		"Column gap, px",
		func(h *doc.House) doc.Zoned[float64] { return h.ColumnGap },
		doc.StandardGap,
		0,
		200,
	)
	byZone(
		"view",
		"Viewport height, px",
		func(h *doc.House) doc.Zoned[float64] { return h.ViewHeight },
		doc.ViewHeight,
		320,
		2400,
	)
	for i, s := range h.LineSteps() {
		out = append(out, Measure{
			Name: "lines." + s.Token, Group: "Border widths, px", Label: s.Name, Value: s.Px, Least: 1, Most: 40,
			set: func(h *doc.House, v float64) { h.Lines[i].Px = v },
		})
	}
	for i, s := range h.Corners {
		out = append(out, Measure{
			Name: "corners." + s.Token, Group: "Corner radii, px", Label: s.Name, Value: s.Px, Most: 1000,
			set: func(h *doc.House, v float64) { h.Corners[i].Px = v },
		})
	}
	b := h.ButtonLook()
	for i, s := range b.Sizes {
		of := func(part, label string, value, least, most float64, field func(*doc.ButtonSize) *float64) Measure {
			return Measure{
				Name: "buttons." + s.Token + "." + part, Group: "Buttons", Label: s.Name + ", " + label, Value: value, Least: least, Most: most,
				set: func(h *doc.House, v float64) { *field(&h.Buttons.Sizes[i]) = v },
			}
		}
		out = append(out,
			of("x", "padding left and right", s.X, 0, 100, func(s *doc.ButtonSize) *float64 { return &s.X }),
			of("y", "padding top and bottom", s.Y, 0, 60, func(s *doc.ButtonSize) *float64 { return &s.Y }),
			of("size", "font size", s.Size, 0.5, 2, func(s *doc.ButtonSize) *float64 { return &s.Size }))
	}
	return append(
		out,
		Measure{
			Name: "buttons.line", Group: "Buttons", Label: "Border of outlined buttons, px", Value: b.Line, Least: 1, Most: 12,
			set: func(h *doc.House, v float64) { h.Buttons.Line = v },
		},
		Measure{
			Name: "buttons.shift", Group: "Buttons", Label: "Darker on hover, %", Value: b.Shift, Least: -30, Most: 30,
			set: func(h *doc.House, v float64) { h.Buttons.Shift = v },
		},
		Measure{
			Name: "links.line", Group: "Links", Label: "Underline thickness, px (0 is auto)", Value: h.Links.Line, Most: 8,
			set: func(h *doc.House, v float64) { h.Links.Line = v },
		},
		Measure{
			Name: "links.drop", Group: "Links", Label: "Underline offset, px (0 is auto)", Value: h.Links.Drop, Most: 12,
			set: func(h *doc.House, v float64) { h.Links.Drop = v },
		},
	)
}

// unless is v, or 0 where it is what holds anyway.
func unless(v, anyway float64) float64 {
	if v == anyway {
		return 0
	}
	return v
}

// inAll gives a value its own in every zone, so that setting one leaves the others.
func inAll(z doc.Zoned[float64], zones doc.Zones, usual float64) doc.Zoned[float64] {
	out := doc.Zoned[float64]{}
	for i, zone := range zones {
		out[zone.ID] = z.Or(zones, i, usual)
	}
	return out
}

// pick sets one of the Picks: Name is its, Value a token.
func pick(h doc.House, _ doc.Zones, c HouseCommand) (doc.House, error) {
	ps := style.Picks(&h)
	i := slices.IndexFunc(ps, func(p style.Pick) bool { return p.Name == c.Name })
	if i < 0 {
		return h, doc.Problemf("House style", "has no choice %.60q", c.Name)
	}
	p := ps[i]
	if !slices.ContainsFunc(p.Offers, func(o style.Offer) bool { return o.Value == c.Value }) &&
		(c.Value != "" || p.Usual == "") {
		return h, doc.Problemf(p.Label, "can't be %.40q: choose one of the house style's", c.Value)
	}
	p.Set(&h, c.Value)
	return h, nil
}

// setShadow sets a shadow: Token is its, Value as style.ReadShadow reads it.
func setShadow(h doc.House, _ doc.Zones, c HouseCommand) (doc.House, error) {
	i := slices.IndexFunc(h.Shadows, func(s doc.Shadow) bool { return s.Token == c.Token })
	if i < 0 {
		return h, doc.Problemf("Shadow", "the house style has none called %.40q", c.Token)
	}
	sh, wrong := style.ReadShadow(h.Shadows[i].Name, &h, c.Value)
	if wrong != nil {
		return h, wrong
	}
	sh.Token, sh.Name = h.Shadows[i].Token, h.Shadows[i].Name
	h.Shadows = slices.Clone(h.Shadows)
	h.Shadows[i] = sh
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
		return h, doc.Problemf(
			m.Label,
			"can't be %.40q: write a number from %s to %s",
			c.Value,
			style.Number(m.Least),
			style.Number(m.Most),
		)
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
