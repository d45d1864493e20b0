package demo

import (
	"bytes"
	"image"
	"image/color"
	"image/png"
	"math"

	"golang.org/x/image/vector"
)

// The pictures are drawn here: skies, ridges, sea and small boats, from a few
// numbers each.

type point struct{ x, y float64 }

type drawing struct {
	img  *image.RGBA
	w, h float64
}

func newDrawing(w, h int) *drawing {
	return &drawing{image.NewRGBA(image.Rect(0, 0, w, h)), float64(w), float64(h)}
}

func hex(v uint32, alpha float64) color.NRGBA {
	return color.NRGBA{uint8(v >> 16), uint8(v >> 8), uint8(v), uint8(alpha*255 + 0.5)}
}

// mix goes from a to b, t from 0 to 1.
func mix(a, b color.NRGBA, t float64) color.NRGBA {
	t = min(max(t, 0), 1)
	f := func(x, y uint8) uint8 { return uint8(float64(x)*(1-t) + float64(y)*t + 0.5) }
	return color.NRGBA{f(a.R, b.R), f(a.G, b.G), f(a.B, b.B), f(a.A, b.A)}
}

// gradient fills rows from y0 to y1 (shares of the height) through colours; a
// little dither keeps the bands from showing.
func (d *drawing) gradient(y0, y1 float64, stops ...color.NRGBA) {
	from, to := int(y0*d.h), int(y1*d.h)
	for y := max(from, 0); y < min(to, int(d.h)); y++ {
		t := float64(y-from) / float64(to-from) * float64(len(stops)-1)
		i := min(int(t), len(stops)-2)
		for x := range int(d.w) {
			noise := (math.Mod(math.Abs(math.Sin(float64(x)*12.9898+float64(y)*78.233))*43758.5453, 1) - 0.5) / 90
			c := mix(stops[i], stops[i+1], t-float64(i)+noise)
			d.img.SetRGBA(x, y, color.RGBA{c.R, c.G, c.B, 255})
		}
	}
}

// fill fills a closed shape; points are shares of width and height.
func (d *drawing) fill(c color.NRGBA, ps ...point) {
	box := image.Rectangle{Min: image.Pt(math.MaxInt32, math.MaxInt32), Max: image.Pt(math.MinInt32, math.MinInt32)}
	for _, p := range ps { // only what the shape covers is worked on
		x, y := p.x*d.w, p.y*d.h
		box.Min.X, box.Min.Y = min(box.Min.X, int(math.Floor(x))), min(box.Min.Y, int(math.Floor(y)))
		box.Max.X, box.Max.Y = max(box.Max.X, int(math.Ceil(x))), max(box.Max.Y, int(math.Ceil(y)))
	}
	if box = box.Intersect(d.img.Bounds()); box.Empty() {
		return
	}
	r := vector.NewRasterizer(box.Dx(), box.Dy())
	for i, p := range ps {
		x, y := float32(p.x*d.w-float64(box.Min.X)), float32(p.y*d.h-float64(box.Min.Y))
		if i == 0 {
			r.MoveTo(x, y)
		} else {
			r.LineTo(x, y)
		}
	}
	r.ClosePath()
	r.Draw(d.img, box, image.NewUniform(c), image.Point{})
}

// disc fills a circle; the radius is a share of the height.
func (d *drawing) disc(c color.NRGBA, x, y, radius float64) {
	var ps []point
	for i := range 96 {
		a := float64(i) / 96 * 2 * math.Pi
		ps = append(ps, point{x + radius*math.Cos(a)*d.h/d.w, y + radius*math.Sin(a)})
	}
	d.fill(c, ps...)
}

// ridge draws a skyline from x0 to x1 whose height is peak at its highest, down to
// the base line.
func (d *drawing) ridge(c color.NRGBA, x0, x1, base, peak, seed float64) {
	ps := []point{{x0, base}}
	const n = 240
	for i := range n + 1 {
		t := float64(i) / n
		hill := math.Pow(math.Sin(math.Pi*t), 0.8)
		rough := 0.62 + 0.2*math.Sin(t*7+seed) + 0.11*math.Sin(t*17+seed*2.3) + 0.05*math.Sin(t*41+seed*3.1) + 0.025*math.Sin(t*97+seed*1.7)
		ps = append(ps, point{x0 + (x1-x0)*t, base - peak*hill*rough})
	}
	ps = append(ps, point{x1, base})
	d.fill(c, ps...)
}

// waves draws bands of light on the water, longer and thicker towards the viewer.
func (d *drawing) waves(c color.NRGBA, from, to, seed float64, n int) {
	for i := range n {
		t := (float64(i) + 0.5) / float64(n)
		y := from + (to-from)*t*t
		length := 0.03 + 0.16*t
		thick := 0.0008 + 0.004*t
		x := math.Mod(math.Abs(math.Sin(seed+float64(i)*7.31))*53.7, 1.2) - 0.1
		k := c
		k.A = uint8(float64(c.A) * (0.35 + 0.65*math.Mod(math.Abs(math.Sin(seed*3+float64(i)*3.7))*17.1, 1)))
		var top, bottom []point
		for j := range 25 {
			s := float64(j) / 24
			bend := 0.0014 * math.Sin(s*9+seed+float64(i))
			swell := thick * math.Sin(math.Pi*s)
			top = append(top, point{x + length*(s-0.5), y + bend - swell})
			bottom = append(bottom, point{x + length*(0.5-s), y + bend + swell*0.6})
		}
		d.fill(k, append(top, bottom...)...)
	}
}

// boat draws a small ferry; size is its length as a share of the width.
func (d *drawing) boat(x, y, size float64, hull, cabin, stripe color.NRGBA) {
	k := d.w / d.h
	p := func(u, v float64) point { return point{x + (u-0.5)*size, y + v*size*k} }
	d.fill(hex(0x0b2a33, 0.28), p(-0.02, 0.012), p(1.02, 0.012), p(0.9, 0.035), p(0.1, 0.035))
	d.fill(hull, p(0, -0.1), p(0.98, -0.12), p(0.9, 0.015), p(0.08, 0.015))
	d.fill(stripe, p(0.003, -0.083), p(0.967, -0.1), p(0.96, -0.083), p(0.013, -0.066))
	d.fill(cabin, p(0.12, -0.1), p(0.62, -0.11), p(0.6, -0.22), p(0.15, -0.21))
	d.fill(cabin, p(0.4, -0.2), p(0.6, -0.2), p(0.58, -0.31), p(0.42, -0.31))
	for i := range 5 {
		u := 0.18 + 0.08*float64(i)
		d.fill(hex(0x24505c, 1), p(u, -0.185), p(u+0.05, -0.186), p(u+0.05, -0.145), p(u, -0.144))
	}
	d.fill(hex(0x24505c, 1), p(0.435, -0.29), p(0.575, -0.29), p(0.572, -0.25), p(0.43, -0.25))
	d.fill(stripe, p(0.22, -0.215), p(0.3, -0.217), p(0.29, -0.3), p(0.23, -0.3))
	d.fill(hull, p(0.7, -0.11), p(0.708, -0.11), p(0.708, -0.4), p(0.704, -0.4))
}

// houses draws a row of gabled fronts on a base line.
func (d *drawing) houses(x, base, size float64, colours []color.NRGBA) {
	k := d.w / d.h
	for i, c := range colours {
		u := x + float64(i)*size*1.08
		hgt := size * k * (0.9 + 0.35*math.Mod(float64(i)*0.618, 1))
		d.fill(c, point{u, base}, point{u, base - hgt}, point{u + size/2, base - hgt - size*k*0.5}, point{u + size, base - hgt}, point{u + size, base})
		for r := range 2 {
			for q := range 2 {
				wx, wy := u+size*(0.2+0.38*float64(q)), base-hgt*(0.9-0.42*float64(r))
				d.fill(hex(0xfdf3d8, 0.85), point{wx, wy}, point{wx + size*0.2, wy}, point{wx + size*0.2, wy + hgt*0.2}, point{wx, wy + hgt*0.2})
			}
		}
	}
}

func (d *drawing) png() []byte {
	var b bytes.Buffer
	e := png.Encoder{CompressionLevel: png.BestSpeed}
	if err := e.Encode(&b, d.img); err != nil {
		panic(err) // a bytes.Buffer takes everything, and the image is ours
	}
	return b.Bytes()
}

// portrait draws a made-up head and shoulders in flat colours.
func (d *drawing) portrait(ground, skin, hair, coat color.NRGBA, style int) {
	d.gradient(0, 1, ground, mix(ground, hex(0xffffff, 1), 0.25))
	long := style%2 == 1
	if long {
		d.fill(hair, point{0.3, 0.42}, point{0.33, 0.24}, point{0.5, 0.16}, point{0.67, 0.24}, point{0.7, 0.42}, point{0.74, 0.78}, point{0.26, 0.78})
	}
	d.fill(coat, point{0.12, 1}, point{0.18, 0.82}, point{0.36, 0.73}, point{0.5, 0.77}, point{0.64, 0.73}, point{0.82, 0.82}, point{0.88, 1})
	d.fill(mix(skin, hex(0x000000, 1), 0.14), point{0.42, 0.6}, point{0.58, 0.6}, point{0.6, 0.76}, point{0.5, 0.82}, point{0.4, 0.76})
	d.disc(skin, 0.5, 0.44, 0.19)
	d.fill(skin, point{0.32, 0.46}, point{0.36, 0.6}, point{0.45, 0.68}, point{0.55, 0.68}, point{0.64, 0.6}, point{0.68, 0.46})
	d.fill(hair, point{0.3, 0.46}, point{0.3, 0.3}, point{0.4, 0.2}, point{0.54, 0.18}, point{0.66, 0.24}, point{0.7, 0.36}, point{0.69, 0.46}, point{0.64, 0.36}, point{0.5, 0.32}, point{0.37, 0.36})
	dark := hex(0x2a2320, 1)
	d.disc(dark, 0.43, 0.46, 0.016)
	d.disc(dark, 0.57, 0.46, 0.016)
	mouth := mix(skin, hex(0x7a2f22, 1), 0.6)
	d.fill(mouth, point{0.44, 0.57}, point{0.5, 0.595}, point{0.56, 0.57}, point{0.5, 0.612})
	switch style % 3 {
	case 0: // a cap
		d.fill(mix(coat, hex(0x000000, 1), 0.25), point{0.29, 0.33}, point{0.33, 0.19}, point{0.5, 0.13}, point{0.67, 0.19}, point{0.71, 0.33}, point{0.8, 0.37}, point{0.5, 0.34})
	case 2: // a beard
		d.fill(hair, point{0.33, 0.5}, point{0.38, 0.62}, point{0.5, 0.72}, point{0.62, 0.62}, point{0.67, 0.5}, point{0.6, 0.58}, point{0.5, 0.55}, point{0.4, 0.58})
		d.fill(mouth, point{0.46, 0.59}, point{0.5, 0.6}, point{0.54, 0.59}, point{0.5, 0.605})
	}
}
