package edit

import (
	"maps"
	"math"
	"slices"
	"strings"

	"openplot/core/doc"
	"openplot/core/style"
)

// Steps of a type scale, in powers of its ratio from the body's size, by text style.
var scaleSteps = map[string]float64{
	"display": 5, "h1": 4, "h2": 3, "h3": 1.5, "h4": 1, "h5": 0.5, "h6": 0, "quote": 1, "lead": 1, "body": 0, "mono": 0,
	"button": 0, "small": -1, "label": -1,
}

// setType changes one value of a text style: Token is the style, Name the value
// ("size" followed by a zone, weight, line-height, letter-spacing, case or fluid).
func setType(h doc.House, zones doc.Zones, c HouseCommand) (doc.House, error) {
	t, ok := h.Text[c.Token]
	if !ok {
		return h, doc.Problemf("Text style", "%.40q isn't in this house style", c.Token)
	}
	number := func(field string, least, most float64) (float64, error) {
		n, err := style.Evaluate(strings.TrimSuffix(strings.TrimSpace(c.Value), "px"))
		if err != nil || n < least || n > most {
			return 0, doc.Problemf(
				field,
				"can't be %.40q: write a number from %s to %s",
				c.Value,
				style.Number(least),
				style.Number(most),
			)
		}
		return n, nil
	}
	name := doc.Capital(c.Token)
	var err error
	var n float64
	value, zone, _ := strings.Cut(c.Name, " ")
	switch value {
	case "size":
		if zones.Index(zone) < 0 {
			return h, doc.Problemf("Zone", "%.40q isn't a zone of this site", zone)
		}
		if n, err = number(name+" size", 8, 300); err == nil {
			t.Size = t.Size.With(zone, math.Round(n*64)/64)
			if between(zones, zone) { // which a fluid size has none of
				t.Fluid = false
			}
		}
	case "weight":
		if n, err = number(name+" weight", 100, 900); err == nil {
			t.Weight = int(math.Round(n))
		}
	case "line-height":
		t.LineHeight, err = number(name+" line height", 0.8, 3)
	case "letter-spacing":
		t.LetterSpacing, err = number(name+" letter spacing", -0.2, 1)
	case "case":
		if c.Value != "" && c.Value != "upper" && c.Value != "lower" {
			return h, doc.Problemf(name+" case", "can't be %.40q: choose as written, upper or lower", c.Value)
		}
		t.Case = c.Value
	case "fluid":
		if t.Fluid && c.Value != "on" {
			t.Size = stepped(t.Size, zones)
		}
		t.Fluid = c.Value == "on"
	default:
		return h, doc.Problemf("Text style", "%.40q isn't a property of one", c.Name)
	}
	if err != nil {
		return h, err
	}
	h.Text = maps.Clone(h.Text)
	h.Text[c.Token] = t
	return h, nil
}

// between reports whether a zone is neither the widest nor the narrowest.
func between(zones doc.Zones, zone string) bool {
	i := zones.Index(zone)
	return i > 0 && i < len(zones)-1
}

// stepped gives the zones between the widest and the narrowest that have no size of their own the one that a fluid size
// has at their typical width, in whole px.
func stepped(size doc.Zoned[float64], zones doc.Zones) doc.Zoned[float64] {
	last := len(zones) - 1
	grows := style.Fluid(
		size.Or(zones, last, style.RootFontSize),
		size.Or(zones, 0, style.RootFontSize),
		float64(zones[last].Typical),
		float64(zones[0].Typical),
	)
	for _, z := range zones {
		if _, own := size[z.ID]; own || !between(zones, z.ID) {
			continue
		}
		if px, ok := grows.Resolve(0, style.Viewport{Width: float64(z.Typical)}); ok {
			size = size.With(z.ID, math.Round(px))
		}
	}
	return size
}

// scaleType sets all sizes from a base in px and a ratio, Value being "base ratio":
// on the widest zone in full steps, on narrower ones with a smaller ratio, since
// large headings take too many lines there (common practice).
func scaleType(h doc.House, zones doc.Zones, c HouseCommand) (doc.House, error) {
	base, ratio, ok := strings.Cut(strings.Join(strings.Fields(c.Value), " "), " ")
	b, err1 := style.Evaluate(strings.TrimSuffix(base, "px"))
	r, err2 := style.Evaluate(ratio)
	if !ok || err1 != nil || err2 != nil || b < 10 || b > 30 || r < 1 || r > 2 {
		return h, doc.Problemf(
			"Scale",
			"can't be %.40q: write a base from 10 to 30 px and a ratio from 1 to 2",
			c.Value,
		)
	}
	h.Text = maps.Clone(h.Text)
	for _, name := range slices.Sorted(maps.Keys(h.Text)) {
		step, ok := scaleSteps[name]
		if !ok {
			continue
		}
		t := h.Text[name]
		t.Size = doc.Zoned[float64]{}
		for z, zone := range zones {
			less := r
			if z > 0 {
				less = 1 + (r-1)*(1-0.35*float64(z)/float64(len(zones)-1))
			}
			t.Size[zone.ID] = math.Round(max(b*math.Pow(less, step), 8)*4) / 4
		}
		h.Text[name] = t
	}
	return h, nil
}
