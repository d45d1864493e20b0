package edit

import (
	"maps"
	"math"
	"slices"

	"openplot/core/doc"
	"openplot/core/style"
	"openplot/core/value"
)

// Restyled lists the settings of type that a text style has too.
var Restyled = []string{"font", "font-weight", "font-size", "line-height", style.LetterSpacing, "text-transform"}

// Restyle makes what a block sets of its own in a zone that of the text style it is set in,
// by token, and gives the house style with the settings that the block need not say any
// more. Errors are *doc.Problem.
func Restyle(h doc.House, token, zone string, own doc.Style) (doc.House, []string, error) {
	t, ok := h.Text[token]
	if !ok {
		return h, nil, doc.Problemf("Text style", "the house style has no %.40q any more", token)
	}
	var done []string
	sh := style.Sheet{House: &h, Zones: doc.Zones{{ID: zone}}, Style: own}
	for _, name := range Restyled {
		v, ok := own[name][zone]
		if !ok {
			continue
		}
		switch name {
		case "font":
			use := map[string]string{h.Fonts.Heading: "heading", h.Fonts.Body: "body", h.Fonts.Mono: "mono"}[v]
			if use == "" {
				return h, nil, doc.Problemf(
					"Font",
					"%s isn't one of the house style’s three families; choose it there first",
					v,
				)
			}
			t.Family = use
		case "font-size":
			px, ok := fixedPx(v)
			if !ok {
				return h, nil, doc.Problemf("Size", "can't become the style’s: it isn't the same on every screen")
			}
			t.Size, t.Fluid = t.Size.With(zone, math.Round(px*64)/64), false
		case "text-transform":
			t.Case = map[string]string{value.Uppercase: "upper", value.Lowercase: "lower"}[v]
		default:
			set := map[string]func(float64){
				"font-weight":       func(n float64) { t.Weight = int(n) },
				"line-height":       func(n float64) { t.LineHeight = n },
				style.LetterSpacing: func(n float64) { t.LetterSpacing = n },
			}[name]
			set(sh.Number(name))
		}
		done = append(done, name)
	}
	if len(done) == 0 {
		return h, nil, doc.Problemf("Text style", "nothing differs from it here any more")
	}
	h.Text = maps.Clone(h.Text)
	h.Text[token] = t
	return h, slices.Clip(done), nil
}
