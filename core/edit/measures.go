package edit

import (
	"maps"
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
		out = append(out, Measure{"gutter." + z.ID, "Beside the content, px", z.Name, h.Gutter.Or(zones, zones.Index(z.ID), 20), 0, 200, func(h *doc.House, v float64) { h.Gutter[z.ID] = v }})
	}
	for i, s := range h.Corners {
		out = append(out, Measure{"corners." + s.Token, "Corners, px", s.Name, s.Px, 0, 1000, func(h *doc.House, v float64) { h.Corners[i].Px = v }})
	}
	for i, s := range h.Shadows {
		out = append(out,
			Measure{"shadows." + s.Token + ".y", "Shadows", s.Name + ", down", s.Y, 0, 100, func(h *doc.House, v float64) { h.Shadows[i].Y = v }},
			Measure{"shadows." + s.Token + ".blur", "Shadows", s.Name + ", blur", s.Blur, 0, 200, func(h *doc.House, v float64) { h.Shadows[i].Blur = v }},
			Measure{"shadows." + s.Token + ".opacity", "Shadows", s.Name + ", strength", s.Opacity, 0, 1, func(h *doc.House, v float64) { h.Shadows[i].Opacity = v }})
	}
	b, _ := h.Button("")
	for i, s := range b.Sizes {
		out = append(out,
			Measure{"buttons." + s.Token + ".x", "Buttons", s.Name + ", at the sides", s.X, 0, 100, func(h *doc.House, v float64) { h.Buttons.Sizes[i].X = v }},
			Measure{"buttons." + s.Token + ".y", "Buttons", s.Name + ", above", s.Y, 0, 60, func(h *doc.House, v float64) { h.Buttons.Sizes[i].Y = v }},
			Measure{"buttons." + s.Token + ".size", "Buttons", s.Name + ", type", s.Size, 0.5, 2, func(h *doc.House, v float64) { h.Buttons.Sizes[i].Size = v }})
	}
	return append(out,
		Measure{"buttons.line", "Buttons", "Line of outlined ones", b.Line, 1, 12, func(h *doc.House, v float64) { h.Buttons.Line = v }},
		Measure{"buttons.shift", "Buttons", "Darker under the pointer, %", b.Shift, -30, 30, func(h *doc.House, v float64) { h.Buttons.Shift = v }})
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
	h.Gutter = maps.Clone(h.Gutter)
	if h.Gutter == nil {
		h.Gutter = doc.Zoned[float64]{}
	}
	h.Buttons, _ = h.Button("")
	h.Buttons.Sizes = slices.Clone(h.Buttons.Sizes)
	m.set(&h, v)
	return h, nil
}

// setButtonCorners sets the step that buttons' corners are of.
func setButtonCorners(h doc.House, c HouseCommand) (doc.House, error) {
	if _, ok := doc.FindStep(h.Corners, c.Value); !ok {
		return h, doc.Problemf("Buttons’ corners", "can't be %.40q: choose one of the house style's corners", c.Value)
	}
	h.Buttons, _ = h.Button("")
	h.Buttons.Corners = c.Value
	return h, nil
}
