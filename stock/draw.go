// Package stock draws made-up pictures: those that ship for every site, and what the
// demo's are drawn with. None of them shows a place or a person that there is.
//
// In come a few numbers; out come pixels. Start at Pictures.
package stock

import (
	"bytes"
	"image"
	"image/color"
	"image/png"
	"math"

	"golang.org/x/image/vector"
)

// Point is a place in a drawing, in shares of its width and height.
type Point struct{ X, Y float64 }

// P is a Point.
func P(x, y float64) Point { return Point{x, y} }

// Drawing is a picture at work; later shapes lie over earlier ones.
type Drawing struct {
	img  *image.RGBA
	w, h float64
}

// New begins a drawing of a size in px.
func New(w, h int) *Drawing {
	return &Drawing{image.NewRGBA(image.Rect(0, 0, w, h)), float64(w), float64(h)}
}

// Hex is a colour from 0xrrggbb and an opacity.
func Hex(v uint32, alpha float64) color.NRGBA {
	return color.NRGBA{uint8(v >> 16), uint8(v >> 8), uint8(v), uint8(alpha*255 + 0.5)}
}

// Mix goes from a to b, t from 0 to 1.
func Mix(a, b color.NRGBA, t float64) color.NRGBA {
	t = min(max(t, 0), 1)
	f := func(x, y uint8) uint8 { return uint8(float64(x)*(1-t) + float64(y)*t + 0.5) }
	return color.NRGBA{f(a.R, b.R), f(a.G, b.G), f(a.B, b.B), f(a.A, b.A)}
}

// Gradient fills rows from y0 to y1 (shares of the height) through colours; a
// little dither keeps the bands from showing.
func (d *Drawing) Gradient(y0, y1 float64, stops ...color.NRGBA) {
	from, to := int(y0*d.h), int(math.Ceil(y1*d.h))
	for y := max(from, 0); y < min(to, int(d.h)); y++ {
		t := float64(y-from) / float64(to-from) * float64(len(stops)-1)
		i := min(int(t), len(stops)-2)
		for x := range int(d.w) {
			noise := (fraction(math.Abs(math.Sin(float64(x)*12.9898+float64(y)*78.233))*43758.5453) - 0.5) / 90
			c := Mix(stops[i], stops[i+1], t-float64(i)+noise)
			d.img.SetRGBA(x, y, color.RGBA{c.R, c.G, c.B, 255})
		}
	}
}

// fraction is what a number that isn't negative has after its point.
func fraction(x float64) float64 { return x - math.Floor(x) }

// Fill fills a closed shape; points are shares of width and height.
func (d *Drawing) Fill(c color.NRGBA, ps ...Point) {
	box := image.Rectangle{Min: image.Pt(math.MaxInt32, math.MaxInt32), Max: image.Pt(math.MinInt32, math.MinInt32)}
	for _, p := range ps { // only what the shape covers is worked on
		x, y := p.X*d.w, p.Y*d.h
		box.Min.X, box.Min.Y = min(box.Min.X, int(math.Floor(x))), min(box.Min.Y, int(math.Floor(y)))
		box.Max.X, box.Max.Y = max(box.Max.X, int(math.Ceil(x))), max(box.Max.Y, int(math.Ceil(y)))
	}
	if box = box.Intersect(d.img.Bounds()); box.Empty() {
		return
	}
	r := vector.NewRasterizer(box.Dx(), box.Dy())
	for i, p := range ps {
		x, y := float32(p.X*d.w-float64(box.Min.X)), float32(p.Y*d.h-float64(box.Min.Y))
		if i == 0 {
			r.MoveTo(x, y)
		} else {
			r.LineTo(x, y)
		}
	}
	r.ClosePath()
	r.Draw(d.img, box, image.NewUniform(c), image.Point{})
}

// Disc fills a circle; the radius is a share of the height.
func (d *Drawing) Disc(c color.NRGBA, x, y, radius float64) {
	var ps []Point
	for i := range 96 {
		a := float64(i) / 96 * 2 * math.Pi
		ps = append(ps, Point{x + radius*math.Cos(a)*d.h/d.w, y + radius*math.Sin(a)})
	}
	d.Fill(c, ps...)
}

// Ridge draws a skyline from x0 to x1 whose height is peak at its highest, down to
// the base line.
func (d *Drawing) Ridge(c color.NRGBA, x0, x1, base, peak, seed float64) {
	ps := []Point{{x0, base}}
	const n = 240
	for i := range n + 1 {
		t := float64(i) / n
		hill := math.Pow(math.Sin(math.Pi*t), 0.8)
		rough := 0.62 + 0.2*math.Sin(
			t*7+seed,
		) + 0.11*math.Sin(
			t*17+seed*2.3,
		) + 0.05*math.Sin(
			t*41+seed*3.1,
		) + 0.025*math.Sin(
			t*97+seed*1.7,
		)
		ps = append(ps, Point{x0 + (x1-x0)*t, base - peak*hill*rough})
	}
	ps = append(ps, Point{x1, base})
	d.Fill(c, ps...)
}

// Waves draws bands of light on the water, longer and thicker towards the viewer.
func (d *Drawing) Waves(c color.NRGBA, from, to, seed float64, n int) {
	for i := range n {
		t := (float64(i) + 0.5) / float64(n)
		y := from + (to-from)*t*t
		length := 0.03 + 0.16*t
		thick := 0.0008 + 0.004*t
		x := math.Mod(math.Abs(math.Sin(seed+float64(i)*7.31))*53.7, 1.2) - 0.1
		k := c
		k.A = uint8(float64(c.A) * (0.35 + 0.65*math.Mod(math.Abs(math.Sin(seed*3+float64(i)*3.7))*17.1, 1)))
		var top, bottom []Point
		for j := range 25 {
			s := float64(j) / 24
			bend := 0.0014 * math.Sin(s*9+seed+float64(i))
			swell := thick * math.Sin(math.Pi*s)
			top = append(top, Point{x + length*(s-0.5), y + bend - swell})
			bottom = append(bottom, Point{x + length*(0.5-s), y + bend + swell*0.6})
		}
		d.Fill(k, append(top, bottom...)...)
	}
}

// Boat draws a small ferry; size is its length as a share of the width.
func (d *Drawing) Boat(x, y, size float64, hull, cabin, stripe color.NRGBA) {
	k := d.w / d.h
	p := func(u, v float64) Point { return Point{x + (u-0.5)*size, y + v*size*k} }
	d.Fill(Hex(0x0b2a33, 0.28), p(-0.02, 0.012), p(1.02, 0.012), p(0.9, 0.035), p(0.1, 0.035))
	d.Fill(hull, p(0, -0.1), p(0.98, -0.12), p(0.9, 0.015), p(0.08, 0.015))
	d.Fill(stripe, p(0.003, -0.083), p(0.967, -0.1), p(0.96, -0.083), p(0.013, -0.066))
	d.Fill(cabin, p(0.12, -0.1), p(0.62, -0.11), p(0.6, -0.22), p(0.15, -0.21))
	d.Fill(cabin, p(0.4, -0.2), p(0.6, -0.2), p(0.58, -0.31), p(0.42, -0.31))
	for i := range 5 {
		u := 0.18 + 0.08*float64(i)
		d.Fill(Hex(0x24505c, 1), p(u, -0.185), p(u+0.05, -0.186), p(u+0.05, -0.145), p(u, -0.144))
	}
	d.Fill(Hex(0x24505c, 1), p(0.435, -0.29), p(0.575, -0.29), p(0.572, -0.25), p(0.43, -0.25))
	d.Fill(stripe, p(0.22, -0.215), p(0.3, -0.217), p(0.29, -0.3), p(0.23, -0.3))
	d.Fill(hull, p(0.7, -0.11), p(0.708, -0.11), p(0.708, -0.4), p(0.704, -0.4))
}

// Houses draws a row of gabled fronts on a base line.
func (d *Drawing) Houses(x, base, size float64, colours []color.NRGBA) {
	k := d.w / d.h
	for i, c := range colours {
		u := x + float64(i)*size*1.08
		hgt := size * k * (0.9 + 0.35*math.Mod(float64(i)*0.618, 1))
		d.Fill(
			c, Point{u, base}, Point{u, base - hgt},
			Point{u + size/2, base - hgt - size*k*0.5},
			Point{u + size, base - hgt},
			Point{u + size, base},
		)
		for r := range 2 {
			for q := range 2 {
				wx, wy := u+size*(0.2+0.38*float64(q)), base-hgt*(0.9-0.42*float64(r))
				d.Fill(
					Hex(0xfdf3d8, 0.85),
					Point{wx, wy},
					Point{wx + size*0.2, wy},
					Point{wx + size*0.2, wy + hgt*0.2},
					Point{wx, wy + hgt*0.2},
				)
			}
		}
	}
}

// Image is the drawing as it stands.
func (d *Drawing) Image() image.Image { return d.img }

// PNG gives the drawing as a file.
func (d *Drawing) PNG() []byte {
	var b bytes.Buffer
	e := png.Encoder{CompressionLevel: png.BestSpeed}
	if err := e.Encode(&b, d.img); err != nil {
		panic(err) // a bytes.Buffer takes everything, and the image is ours
	}
	return b.Bytes()
}

// Portrait draws a made-up head and shoulders in flat colours.
func (d *Drawing) Portrait(ground, skin, hair, coat color.NRGBA, style int) {
	d.Gradient(0, 1, ground, Mix(ground, Hex(0xffffff, 1), 0.25))
	long := style%2 == 1
	if long {
		d.Fill(
			hair,
			Point{0.3, 0.42},
			Point{0.33, 0.24},
			Point{0.5, 0.16},
			Point{0.67, 0.24},
			Point{0.7, 0.42},
			Point{0.74, 0.78},
			Point{0.26, 0.78},
		)
	}
	d.Fill(
		coat,
		Point{0.12, 1},
		Point{0.18, 0.82},
		Point{0.36, 0.73},
		Point{0.5, 0.77},
		Point{0.64, 0.73},
		Point{0.82, 0.82},
		Point{0.88, 1},
	)
	d.Fill(
		Mix(skin, Hex(0x000000, 1), 0.14),
		Point{0.42, 0.6},
		Point{0.58, 0.6},
		Point{0.6, 0.76},
		Point{0.5, 0.82},
		Point{0.4, 0.76},
	)
	d.Disc(skin, 0.5, 0.44, 0.19)
	d.Fill(
		skin,
		Point{0.32, 0.46},
		Point{0.36, 0.6},
		Point{0.45, 0.68},
		Point{0.55, 0.68},
		Point{0.64, 0.6},
		Point{0.68, 0.46},
	)
	d.Fill(
		hair,
		Point{0.3, 0.46},
		Point{0.3, 0.3},
		Point{0.4, 0.2},
		Point{0.54, 0.18},
		Point{0.66, 0.24},
		Point{0.7, 0.36},
		Point{0.69, 0.46},
		Point{0.64, 0.36},
		Point{0.5, 0.32},
		Point{0.37, 0.36},
	)
	dark := Hex(0x2a2320, 1)
	d.Disc(dark, 0.43, 0.46, 0.016)
	d.Disc(dark, 0.57, 0.46, 0.016)
	mouth := Mix(skin, Hex(0x7a2f22, 1), 0.6)
	d.Fill(mouth, Point{0.44, 0.57}, Point{0.5, 0.595}, Point{0.56, 0.57}, Point{0.5, 0.612})
	switch style % 3 {
	case 0: // a cap
		d.Fill(
			Mix(coat, Hex(0x000000, 1), 0.25),
			Point{0.29, 0.33}, Point{0.33, 0.19}, Point{0.5, 0.13}, Point{0.67, 0.19}, Point{0.71, 0.33},
			Point{0.8, 0.37}, Point{0.5, 0.34},
		)
	case 2: // a beard
		d.Fill(
			hair, Point{0.33, 0.5}, Point{0.38, 0.62}, Point{0.5, 0.72}, Point{0.62, 0.62}, Point{0.67, 0.5},
			Point{0.6, 0.58}, Point{0.5, 0.55}, Point{0.4, 0.58},
		)
		d.Fill(mouth, Point{0.46, 0.59}, Point{0.5, 0.6}, Point{0.54, 0.59}, Point{0.5, 0.605})
	}
}
