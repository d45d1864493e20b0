package colour

// InGamut reports whether sRGB has the colour.
func (o OKLCH) InGamut() bool {
	const slack = 1e-4
	r, g, b := o.OKLab().rgb()
	return min(r, g, b) >= -slack && max(r, g, b) <= 1+slack
}

// MostChroma is the greatest OKLCH chroma that a colour of sRGB has at a hue in degrees, at
// whatever lightness, to about a hundredth of it.
func MostChroma(hue float64) float64 {
	most := 0.0
	for l := 0.3; l < 1; l += 0.004 {
		// From above: near blue the gamut is hollow.
		for c := 0.34; c > most; c -= 0.002 {
			if (OKLCH{l, c, hue}).InGamut() {
				most = c
			}
		}
	}
	return most
}

// Plane fills into with w by h colours of one hue in degrees, four bytes each, red, green,
// blue and opacity: the lightness falls from 1 at the top to 0, the chroma grows from 0 at
// the left to MostChroma. Colours that sRGB doesn't have are left see-through.
func Plane(into []byte, w, h int, hue float64) {
	most := MostChroma(hue)
	for y := range h {
		l := 1 - (float64(y)+0.5)/float64(h)
		for x := range w {
			o := OKLCH{l, (float64(x) + 0.5) / float64(w) * most, hue}
			p := into[4*(y*w+x):][:4]
			if !o.InGamut() {
				clear(p)
				continue
			}
			c := o.SRGB()
			p[0], p[1], p[2], p[3] = c.R, c.G, c.B, 255
		}
	}
}
