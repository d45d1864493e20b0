package colour

import (
	"fmt"
	"math"
	"strings"

	"openplot/core/number"
)

// Parse reads a colour as a designer writes one: hexadecimal, rgb(), hsl() or
// oklch(), with or without commas, and with an opacity behind a slash or a last comma
// (CSS Color 4 §4.2, §5.1, §7, §9.4), or the word transparent.
func Parse(s string) (Colour, error) {
	name, args, ok := strings.Cut(strings.ToLower(strings.TrimSpace(s)), "(")
	if !ok {
		if name == "transparent" {
			return Colour{}, nil
		}
		return ParseHex(s)
	}
	name = strings.TrimSuffix(name, "a") // rgba() and hsla() are the same (§5.1.1)
	wrong := fmt.Errorf(
		"%.40q is no colour: write it like #1d5f6b, rgb(29 95 107), hsl(189 57%% 27%%) or oklch(45%% 0.07 210)",
		s,
	)
	args, ok = strings.CutSuffix(strings.TrimSpace(args), ")")
	parts := strings.FieldsFunc(args, func(r rune) bool { return r == ' ' || r == ',' || r == '/' })
	if !ok || len(parts) != 3 && len(parts) != 4 {
		return Colour{}, wrong
	}
	// number reads a part; a percentage is of full.
	number := func(i int, full float64) float64 {
		t, percent := strings.CutSuffix(strings.TrimSuffix(parts[i], "deg"), "%")
		v, err := number.Real(t)
		if err != nil || math.IsInf(v, 0) {
			return math.NaN()
		}
		if percent {
			v = v / 100 * full
		}
		return v
	}
	var c Colour
	switch name {
	case "rgb":
		r, g, b := number(0, 255), number(1, 255), number(2, 255)
		if !within(0, 255, r, g, b) {
			return Colour{}, wrong
		}
		c = Colour{uint8(math.Round(r)), uint8(math.Round(g)), uint8(math.Round(b)), 255}
	case "hsl":
		h, s, l := number(0, 360), number(1, 100), number(2, 100)
		if !within(-3600, 3600, h) || !within(0, 100, s, l) {
			return Colour{}, wrong
		}
		c = hsl(math.Mod(math.Mod(h, 360)+360, 360), s/100, l/100)
	case "oklch":
		l, ch, h := number(0, 1), number(1, 0.4), number(2, 360)
		if !within(0, 1, l) || !within(0, 1, ch) || !within(-3600, 3600, h) {
			return Colour{}, wrong
		}
		c = OKLCH{l, ch, h}.SRGB()
	default:
		return Colour{}, wrong
	}
	if len(parts) == 4 {
		alpha := number(3, 1)
		if !within(0, 1, alpha) {
			return Colour{}, wrong
		}
		c.A = uint8(math.Round(alpha * 255))
	}
	return c, nil
}

func within(least, most float64, vs ...float64) bool {
	for _, v := range vs {
		if !(v >= least && v <= most) { // false for NaN
			return false
		}
	}
	return true
}

// hsl is the conversion of CSS Color 4 §7.1.
func hsl(h, s, l float64) Colour {
	part := func(n float64) uint8 {
		k := math.Mod(n+h/30, 12)
		a := s * min(l, 1-l)
		return uint8(math.Round((l - a*max(-1, min(k-3, 9-k, 1))) * 255))
	}
	return Colour{part(0), part(8), part(4), 255}
}
