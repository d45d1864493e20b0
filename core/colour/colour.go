// Package colour reads, compares and makes colours.
//
// In come CSS notations (CSS Color 4) and pictures; out go sRGB colours, their
// contrast (WCAG 2.2), tints and shades of even lightness (OKLCH), and palettes.
// Start at Parse, Contrast, Colour.Scale and Clusters.
package colour

import (
	"fmt"
	"math"
	"strconv"
	"strings"
)

// Colour is an sRGB colour, each part 0 to 255; A is the opacity.
type Colour struct{ R, G, B, A uint8 }

// ParseHex reads "#rgb", "#rgba", "#rrggbb" or "#rrggbbaa", in any case, with or
// without the "#".
func ParseHex(s string) (Colour, error) {
	h := strings.TrimPrefix(strings.TrimSpace(s), "#")
	if len(h) == 3 || len(h) == 4 {
		d := make([]byte, 0, 8)
		for i := range len(h) {
			d = append(d, h[i], h[i])
		}
		h = string(d)
	}
	if len(h) == 6 {
		h += "ff"
	}
	n, err := strconv.ParseUint(h, 16, 32)
	if err != nil || len(h) != 8 {
		return Colour{}, fmt.Errorf("%.20q is no colour: write it like #1d5f6b", s)
	}
	return Colour{uint8(n >> 24), uint8(n >> 16), uint8(n >> 8), uint8(n)}, nil
}

// String gives "#rrggbb", or "#rrggbbaa" when it is not opaque.
func (c Colour) String() string {
	if c.A == 255 {
		return fmt.Sprintf("#%02x%02x%02x", c.R, c.G, c.B)
	}
	return fmt.Sprintf("#%02x%02x%02x%02x", c.R, c.G, c.B, c.A)
}

// Over is the colour that is seen where c lies on an opaque one: simple alpha compositing
// in sRGB, as browsers do it (Compositing and Blending 1 §5.1).
func (c Colour) Over(under Colour) Colour {
	mixed := func(a, b uint8) uint8 {
		o := float64(c.A) / 255
		return uint8(math.Round(float64(a)*o + float64(b)*(1-o)))
	}
	return Colour{mixed(c.R, under.R), mixed(c.G, under.G), mixed(c.B, under.B), 255}
}
