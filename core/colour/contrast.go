package colour

// Luminance is the relative luminance, 0 to 1 (WCAG 2.2, definition of relative
// luminance).
func (c Colour) Luminance() float64 {
	return 0.2126*ofByte[c.R] + 0.7152*ofByte[c.G] + 0.0722*ofByte[c.B]
}

// Contrast is the contrast ratio of two colours, 1 to 21 (WCAG 2.2, definition of
// contrast ratio).
func Contrast(a, b Colour) float64 {
	la, lb := a.Luminance(), b.Luminance()
	if la < lb {
		la, lb = lb, la
	}
	return (la + 0.05) / (lb + 0.05)
}

// Ratios that WCAG 2.2 asks for.
const (
	AALarge = 3.0 // 1.4.3 for large text, 1.4.11 for controls
	AA      = 4.5 // 1.4.3
	AAA     = 7.0 // 1.4.6
)

// Passes says what a contrast ratio is good for, in words: "all text", "large text
// and controls" or "decoration only"; AAA is told apart.
func Passes(ratio float64) string {
	switch {
	case ratio >= AAA:
		return "all text, AAA"
	case ratio >= AA:
		return "all text"
	case ratio >= AALarge:
		return "large text, controls"
	}
	return "decoration only"
}

// Readable gives the colour nearest to c in lightness, of its hue, that has at
// least a contrast ratio on a ground: darker on light grounds, lighter on dark ones.
func Readable(c, ground Colour, ratio float64) Colour {
	if Contrast(c, ground) >= ratio {
		return c
	}
	o := c.OKLCH()
	to := 0.0
	if ground.Luminance() < 0.18 {
		to = 1
	}
	from := o.L
	for range 24 { // halving finds the edge to far below one step of sRGB
		mid := (from + to) / 2
		if Contrast(OKLCH{mid, o.C, o.H}.SRGB(), ground) >= ratio {
			to = mid
		} else {
			from = mid
		}
	}
	return OKLCH{to, o.C, o.H}.SRGB()
}
