package colour

import "math"

// OKLab is a colour in the OKLab space (CSS Color 4 §9.2): L from 0 to 1, a and b
// about -0.4 to 0.4.
type OKLab struct{ L, A, B float64 }

// OKLCH is the same in polar form (CSS Color 4 §9.4): C from 0 to about 0.4, H in
// degrees.
type OKLCH struct{ L, C, H float64 }

// linear is the linear-light value of an sRGB part from 0 to 1 (CSS Color 4 §10.2).
func linear(v float64) float64 {
	if math.Abs(v) <= 0.04045 {
		return v / 12.92
	}
	return math.Copysign(math.Pow((math.Abs(v)+0.055)/1.055, 2.4), v)
}

// ofByte are the linear-light values of parts as bytes have them.
var ofByte = func() (out [256]float64) {
	for i := range out {
		out[i] = linear(float64(i) / 255)
	}
	return out
}()

func encoded(v float64) float64 {
	if math.Abs(v) <= 0.0031308 {
		return v * 12.92
	}
	return math.Copysign(1.055*math.Pow(math.Abs(v), 1/2.4)-0.055, v)
}

// OKLab converts from sRGB. The matrices are Björn Ottosson's, as CSS Color 4 §18
// has them for linear sRGB.
func (c Colour) OKLab() OKLab {
	r, g, b := ofByte[c.R], ofByte[c.G], ofByte[c.B]
	l := math.Cbrt(0.4122214708*r + 0.5363325363*g + 0.0514459929*b)
	m := math.Cbrt(0.2119034982*r + 0.6806995451*g + 0.1073969566*b)
	s := math.Cbrt(0.0883024619*r + 0.2817188376*g + 0.6299787005*b)
	return OKLab{
		0.2104542553*l + 0.7936177850*m - 0.0040720468*s,
		1.9779984951*l - 2.4285922050*m + 0.4505937099*s,
		0.0259040371*l + 0.7827717662*m - 0.8086757660*s,
	}
}

// rgb gives sRGB parts, which lie outside 0 to 1 for colours outside sRGB.
func (o OKLab) rgb() (r, g, b float64) {
	l := math.Pow(o.L+0.3963377774*o.A+0.2158037573*o.B, 3)
	m := math.Pow(o.L-0.1055613458*o.A-0.0638541728*o.B, 3)
	s := math.Pow(o.L-0.0894841775*o.A-1.2914855480*o.B, 3)
	return encoded(4.0767416621*l - 3.3077115913*m + 0.2309699292*s),
		encoded(-1.2684380046*l + 2.6097574011*m - 0.3413193965*s),
		encoded(-0.0041960863*l - 0.7034186147*m + 1.7076147010*s)
}

// OKLCH gives the polar form.
func (o OKLab) OKLCH() OKLCH {
	h := math.Mod(math.Atan2(o.B, o.A)*180/math.Pi+360, 360)
	return OKLCH{o.L, math.Hypot(o.A, o.B), h}
}

// OKLab gives the rectangular form.
func (o OKLCH) OKLab() OKLab {
	h := o.H * math.Pi / 180
	return OKLab{o.L, o.C * math.Cos(h), o.C * math.Sin(h)}
}

// SRGB gives the colour in sRGB. Outside its gamut the chroma is reduced until the
// colour lies within (CSS Color 4 §13.2, without its local clipping).
func (o OKLCH) SRGB() Colour {
	if o.L >= 1 {
		return Colour{255, 255, 255, 255}
	}
	if o.L <= 0 {
		return Colour{0, 0, 0, 255}
	}
	inside := func(c float64) bool { return OKLCH{o.L, c, o.H}.InGamut() }
	c := max(o.C, 0)
	if !inside(c) {
		low, high := 0.0, c
		for high-low > 1e-5 {
			if mid := (low + high) / 2; inside(mid) {
				low = mid
			} else {
				high = mid
			}
		}
		c = low
	}
	r, g, b := OKLCH{o.L, c, o.H}.OKLab().rgb()
	part := func(v float64) uint8 { return uint8(math.Round(min(max(v, 0), 1) * 255)) }
	return Colour{part(r), part(g), part(b), 255}
}

// OKLCH converts from sRGB.
func (c Colour) OKLCH() OKLCH { return c.OKLab().OKLCH() }

// Distance is how far two colours are apart in OKLab (CSS Color 4 §19, deltaEOK).
func Distance(a, b OKLab) float64 {
	return math.Sqrt((a.L-b.L)*(a.L-b.L) + (a.A-b.A)*(a.A-b.A) + (a.B-b.B)*(a.B-b.B))
}

// Scale gives n colours of the same hue from light to dark, the lightness in equal
// steps from 0.97 to 0.2 and the chroma falling off towards both ends, so that tints
// don't glare.
func (c Colour) Scale(n int) []Colour {
	o := c.OKLCH()
	out := make([]Colour, n)
	for i := range out {
		l := 0.97 - 0.77*float64(i)/float64(max(n-1, 1))
		fall := 1 - math.Pow(math.Abs(l-o.L)/max(o.L, 1-o.L), 2)
		out[i] = OKLCH{l, o.C * max(fall, 0), o.H}.SRGB()
	}
	return out
}
