package stock

import "image/color"

// Picture is one that ships: a site takes a copy of it into its library.
type Picture struct {
	ID, Name, Alt string
	Width, Height int // px, as it is taken
	draw          func(d *Drawing)
}

// Draw draws the picture at a width in px, no wider than it is taken.
func (p *Picture) Draw(width int) *Drawing {
	width = min(max(width, 16), p.Width)
	d := New(width, max(p.Height*width/p.Width, 1))
	p.draw(d)
	return d
}

// Find gives a picture by id, or nil.
func Find(id string) *Picture {
	for i := range Pictures {
		if Pictures[i].ID == id {
			return &Pictures[i]
		}
	}
	return nil
}

// block fills a rectangle.
func (d *Drawing) block(c color.NRGBA, x0, y0, x1, y1 float64) {
	d.Fill(c, Point{x0, y0}, Point{x1, y0}, Point{x1, y1}, Point{x0, y1})
}

// firs draws a row of firs on a line.
func (d *Drawing) firs(c color.NRGBA, base, height float64, n int, seed float64) {
	for i := range n {
		x := (float64(i) + 0.5*frac(seed+float64(i)*0.731)) / float64(n-1)
		h := height * (0.6 + 0.4*frac(seed*3.1+float64(i)*0.377))
		w := h * 0.17 * d.h / d.w * 2
		for k := range 3 {
			top := base - h + h*0.24*float64(k)
			d.Fill(
				c,
				Point{x, top},
				Point{x + w*(0.5+0.25*float64(k)), top + h*0.46},
				Point{x - w*(0.5+0.25*float64(k)), top + h*0.46},
			)
		}
	}
}

func frac(v float64) float64 { return v - float64(int(v)) }

// Pictures lists those that ship.
var Pictures = []Picture{
	{"first-light", "First light", "Mountains one behind another in the first light", 1920, 1200, func(d *Drawing) {
		d.Gradient(0, 1, Hex(0x33486b, 1), Hex(0xb98a94, 1), Hex(0xf6d7a9, 1), Hex(0xfbeacb, 1))
		d.Disc(Hex(0xfff6dd, 0.9), 0.64, 0.47, 0.06)
		for _, r := range []struct {
			c                      uint32
			x0, x1, base, peak, at float64
		}{
			{0x9d92a8, -0.1, 0.8, 0.75, 0.4, 1.3},
			{0x7c7b9c, 0.3, 1.2, 0.8, 0.36, 4.4},
			{0x545c84, -0.3, 0.75, 0.9, 0.34, 2.6},
			{0x333f63, 0.2, 1.3, 1, 0.36, 6.8},
		} {
			d.Ridge(Hex(r.c, 1), r.x0, r.x1, r.base, r.peak, r.at)
			d.block(Hex(r.c, 1), 0, r.base-0.005, 1, 1)
		}
	}},
	{"meadow", "Meadow", "Green hills under a wide sky", 1920, 1200, func(d *Drawing) {
		d.Gradient(0, 0.8, Hex(0x7fb5cf, 1), Hex(0xcfe4e2, 1), Hex(0xf7f2dc, 1))
		for i, x := range []float64{0.2, 0.27, 0.34, 0.7, 0.76} {
			d.Disc(Hex(0xffffff, 0.75), x, 0.2+0.02*float64(i%2), 0.055)
		}
		d.Ridge(Hex(0x9cbf7f, 1), -0.2, 0.9, 0.78, 0.2, 1.1)
		d.block(Hex(0x9cbf7f, 1), 0, 0.775, 1, 1)
		d.Ridge(Hex(0x76a862, 1), 0.2, 1.4, 0.86, 0.22, 3.2)
		d.block(Hex(0x76a862, 1), 0, 0.855, 1, 1)
		d.Ridge(Hex(0x4f8749, 1), -0.4, 0.8, 0.98, 0.2, 5.3)
		d.block(Hex(0x4f8749, 1), 0, 0.975, 1, 1)
		d.Houses(0.62, 0.79, 0.035, []color.NRGBA{Hex(0xb4532a, 1), Hex(0xf2e6cf, 1)})
	}},
	{"forest", "Forest in mist", "Firs in rows, fading into mist", 1600, 1200, func(d *Drawing) {
		d.Gradient(0, 1, Hex(0xdfe8e4, 1), Hex(0xc4d6d0, 1), Hex(0x9dbab2, 1))
		d.firs(Hex(0xb0c8c0, 1), 0.62, 0.3, 15, 1.3)
		d.block(Hex(0xb0c8c0, 1), 0, 0.6, 1, 1)
		d.firs(Hex(0x7fa399, 1), 0.76, 0.36, 13, 2.7)
		d.block(Hex(0x7fa399, 1), 0, 0.74, 1, 1)
		d.firs(Hex(0x3f6a60, 1), 0.9, 0.42, 11, 4.1)
		d.block(Hex(0x3f6a60, 1), 0, 0.88, 1, 1)
		d.firs(Hex(0x1d3f39, 1), 1.06, 0.46, 9, 5.9)
	}},
	{"dunes", "Dunes", "Dunes in low light, one side of each in shadow", 1920, 1080, func(d *Drawing) {
		d.Gradient(0, 0.6, Hex(0xf0c9a0, 1), Hex(0xf8e5c8, 1))
		d.Disc(Hex(0xfffbee, 0.9), 0.22, 0.24, 0.07)
		for i := range 4 {
			y, x := 0.5+0.13*float64(i), 0.2+0.22*float64(i%3)
			light, dark := Mix(
				Hex(0xe5a868, 1),
				Hex(0xb8662f, 1),
				float64(i)/3,
			), Mix(
				Hex(0xb77445, 1),
				Hex(0x6d331d, 1),
				float64(i)/3,
			)
			d.Fill(
				light,
				Point{-0.2, y + 0.2},
				Point{x, y - 0.1},
				Point{x + 0.34, y + 0.04},
				Point{1.2, y - 0.03},
				Point{1.2, 1},
				Point{-0.2, 1},
			)
			d.Fill(
				dark,
				Point{x, y - 0.1},
				Point{x + 0.34, y + 0.04},
				Point{1.2, y - 0.03},
				Point{1.2, y + 0.16},
				Point{x + 0.2, y + 0.24},
			)
		}
	}},
	{"town-at-night", "Town at night", "Houses at night with lit windows", 1920, 1080, func(d *Drawing) {
		d.Gradient(0, 1, Hex(0x0f1a33, 1), Hex(0x26335a, 1), Hex(0x5a5480, 1))
		d.Disc(Hex(0xfbf1d0, 1), 0.8, 0.2, 0.055)
		for i := range 22 {
			x, h := float64(i)/22, 0.28+0.38*frac(float64(i)*0.617+0.2)
			d.block(Mix(Hex(0x1a2444, 1), Hex(0x0c1226, 1), frac(float64(i)*0.41)), x, 1-h, x+0.055, 1)
			for k := range int(h * 14) {
				for c := range 2 {
					if frac(float64(i*7+k*3+c*5)*0.271) > 0.52 {
						d.block(
							Hex(0xf6cf7a, 0.9), x+0.012+0.02*float64(c),
							1-h+0.03+0.06*float64(k),
							x+0.022+0.02*float64(c),
							1-h+0.06+0.06*float64(k),
						)
					}
				}
			}
		}
	}},
	{"desk", "A desk", "A desk with a notebook, a pencil and a cup, seen from above", 1600, 1067, func(d *Drawing) {
		d.Gradient(0, 1, Hex(0xd9b48c, 1), Hex(0xcaa077, 1))
		d.Fill(Hex(0x000000, 0.12), Point{0.245, 0.235}, Point{0.605, 0.135}, Point{0.705, 0.835}, Point{0.345, 0.925})
		d.Fill(Hex(0xfbf7ec, 1), Point{0.23, 0.22}, Point{0.59, 0.12}, Point{0.69, 0.81}, Point{0.33, 0.91})
		for i := range 9 {
			t := 0.1 + 0.09*float64(i)
			d.Fill(
				Hex(0xb9c7cc, 1),
				Point{0.25 + 0.1*t, 0.22 + 0.69*t},
				Point{0.58 + 0.1*t, 0.13 + 0.69*t},
				Point{0.58 + 0.1*t, 0.134 + 0.69*t},
				Point{0.25 + 0.1*t, 0.224 + 0.69*t},
			)
		}
		d.Fill(Hex(0xd3401b, 1), Point{0.74, 0.3}, Point{0.755, 0.29}, Point{0.83, 0.74}, Point{0.815, 0.75})
		d.Fill(Hex(0x2a2320, 1), Point{0.83, 0.74}, Point{0.815, 0.75}, Point{0.83, 0.79})
		d.Disc(Hex(0x000000, 0.14), 0.135, 0.37, 0.165)
		d.Disc(Hex(0xf2ede2, 1), 0.125, 0.35, 0.16)
		d.Disc(Hex(0x5a321f, 1), 0.125, 0.35, 0.13)
		d.Disc(Hex(0x7c4a2e, 1), 0.12, 0.34, 0.09)
	}},
	{"breakfast", "A breakfast", "Bread, an egg and a bowl of berries on a cloth", 1440, 1440, func(d *Drawing) {
		d.Gradient(0, 1, Hex(0xe9eef0, 1), Hex(0xd5dfe2, 1))
		for i := range 12 {
			d.block(Hex(0x9db4bd, 0.35), float64(i)/12, 0, float64(i)/12+0.03, 1)
			d.block(Hex(0x9db4bd, 0.35), 0, float64(i)/12, 1, float64(i)/12+0.03)
		}
		d.Disc(Hex(0x000000, 0.12), 0.415, 0.43, 0.29)
		d.Disc(Hex(0xfdfcf8, 1), 0.4, 0.41, 0.29)
		d.Disc(Hex(0xede8dc, 1), 0.4, 0.41, 0.23)
		d.Fill(
			Hex(0xb8763c, 1),
			Point{0.25, 0.36},
			Point{0.31, 0.27},
			Point{0.45, 0.27},
			Point{0.51, 0.36},
			Point{0.49, 0.5},
			Point{0.27, 0.5},
		)
		d.Fill(
			Hex(0xeccf9c, 1), Point{0.275, 0.365}, Point{0.325, 0.295}, Point{0.44, 0.295}, Point{0.485, 0.365},
			Point{0.47, 0.48}, Point{0.29, 0.48},
		)
		d.Disc(Hex(0xffffff, 1), 0.42, 0.53, 0.07)
		d.Disc(Hex(0xf2b437, 1), 0.42, 0.53, 0.035)
		d.Disc(Hex(0x000000, 0.12), 0.785, 0.745, 0.16)
		d.Disc(Hex(0x3e6d78, 1), 0.775, 0.73, 0.16)
		d.Disc(Hex(0x2f5660, 1), 0.775, 0.73, 0.135)
		for i := range 14 {
			d.Disc(
				Mix(Hex(0xb3202f, 1), Hex(0x4b2a63, 1), frac(float64(i)*0.37)),
				0.775+0.08*(frac(float64(i)*0.618)-0.5)*2,
				0.73+0.08*(frac(float64(i)*0.414)-0.5)*2,
				0.03,
			)
		}
	}},
	{"workbench", "A workbench", "Tools on a wall over a wooden bench", 1600, 1067, func(d *Drawing) {
		d.Gradient(0, 1, Hex(0x3f5a60, 1), Hex(0x35494f, 1))
		d.block(Hex(0xb98555, 1), 0, 0.76, 1, 1)
		d.block(Hex(0x8d5f38, 1), 0, 0.76, 1, 0.785)
		d.block(Hex(0xcaa06f, 1), 0.1, 0.2, 0.115, 0.56)
		d.block(Hex(0x2a2f31, 1), 0.065, 0.16, 0.15, 0.23)
		d.Fill(Hex(0xcfd5d6, 1), Point{0.27, 0.2}, Point{0.3, 0.2}, Point{0.32, 0.5}, Point{0.25, 0.5})
		d.block(Hex(0xd3401b, 1), 0.268, 0.5, 0.302, 0.62)
		d.Fill(Hex(0xcfd5d6, 1), Point{0.42, 0.24}, Point{0.62, 0.3}, Point{0.62, 0.36}, Point{0.42, 0.4})
		d.block(Hex(0xcaa06f, 1), 0.36, 0.27, 0.43, 0.39)
		d.Disc(Hex(0xe3b34c, 1), 0.78, 0.34, 0.12)
		d.Disc(Hex(0x3a5359, 1), 0.78, 0.34, 0.085)
		d.block(Hex(0xe8dcc4, 1), 0.2, 0.68, 0.48, 0.765)
		d.block(Hex(0xc9b48c, 1), 0.24, 0.62, 0.44, 0.685)
		d.block(Hex(0xb4532a, 1), 0.7, 0.6, 0.83, 0.765)
	}},
	{"flowers", "Flowers", "Three flowers in a blue vase", 1200, 1500, func(d *Drawing) {
		d.Gradient(0, 0.78, Hex(0xf6e3d3, 1), Hex(0xf2d2bd, 1))
		d.block(Hex(0xd9a98a, 1), 0, 0.78, 1, 1)
		for i, x := range []float64{0.34, 0.52, 0.68} {
			y := []float64{0.3, 0.2, 0.34}[i]
			d.Fill(Hex(0x3f7048, 1), Point{x - 0.006, y}, Point{x + 0.006, y}, Point{0.512, 0.6}, Point{0.488, 0.6})
			c := []color.NRGBA{Hex(0xd3401b, 1), Hex(0xe8a63a, 1), Hex(0xb5446e, 1)}[i]
			for k := range 6 {
				dx, dy := []float64{1, 0.5, -0.5, -1, -0.5, 0.5}[k], []float64{0, 0.87, 0.87, 0, -0.87, -0.87}[k]
				d.Disc(c, x+0.065*dx, y+0.052*dy, 0.042)
			}
			d.Disc(Hex(0x5a321f, 1), x, y, 0.036)
		}
		d.Fill(
			Hex(0x2f5f86, 1), Point{0.42, 0.56}, Point{0.58, 0.56}, Point{0.6, 0.64}, Point{0.66, 0.74},
			Point{0.62, 0.86}, Point{0.38, 0.86}, Point{0.34, 0.74}, Point{0.4, 0.64},
		)
		d.Fill(
			Hex(0x4f82aa, 1), Point{0.42, 0.56}, Point{0.47, 0.56}, Point{0.45, 0.7}, Point{0.47, 0.86},
			Point{0.38, 0.86}, Point{0.34, 0.74}, Point{0.4, 0.64},
		)
	}},
	{"discs", "Discs", "Overlapping discs in warm colours", 1600, 1000, func(d *Drawing) {
		d.Gradient(0, 1, Hex(0xf7efe2, 1), Hex(0xf1e4d0, 1))
		for i := range 9 {
			c := []uint32{0xd3401b, 0x1d5f6b, 0xe8a63a, 0x2f6b52, 0xb5446e}[i%5]
			d.Disc(
				Hex(c, 0.82),
				0.08+0.11*float64(i),
				0.5+0.26*(frac(float64(i)*0.618)-0.5)*2,
				0.14+0.12*frac(float64(i)*0.31),
			)
		}
	}},
	{"layers", "Layers", "Waves of blue, one over another", 1920, 1080, func(d *Drawing) {
		d.Gradient(0, 1, Hex(0xeaf2f5, 1), Hex(0xd3e4ea, 1))
		for i := range 6 {
			base := 0.4 + 0.14*float64(i)
			c := Mix(Hex(0x9cc6d3, 1), Hex(0x123a44, 1), float64(i)/5)
			d.Ridge(c, -0.6+0.25*float64(i%3), 0.9+0.25*float64(i%3), base, 0.16, 1.7*float64(i)+0.6)
			d.block(c, 0, base-0.004, 1, 1)
		}
	}},
	{"paper", "Paper", "A sheet of pale paper with a soft grain", 1600, 1000, func(d *Drawing) {
		d.Gradient(0, 1, Hex(0xf4efe4, 1), Hex(0xece4d4, 1))
		for i := range 260 {
			x, y := frac(float64(i)*0.6180339), frac(float64(i)*0.4142135+0.13)
			d.Fill(
				Hex(0xbfae8c, 0.16),
				Point{x, y},
				Point{x + 0.012 + 0.02*frac(float64(i)*0.77), y + 0.004},
				Point{x + 0.01, y + 0.006},
			)
		}
	}},
	{"person-ivo", "Ivo", "A made-up man with a beard and a brown coat", 800, 800, func(d *Drawing) {
		d.Portrait(Hex(0xc9d6c4, 1), Hex(0xc98f64, 1), Hex(0x4a2f22, 1), Hex(0x6b4a2f, 1), 2)
	}},
	{"person-una", "Una", "A made-up woman with long dark hair", 800, 800, func(d *Drawing) {
		d.Portrait(Hex(0xe9cdb4, 1), Hex(0x9c6644, 1), Hex(0x221a17, 1), Hex(0x36528a, 1), 1)
	}},
	{"person-per", "Per", "A made-up man in a green cap", 800, 800, func(d *Drawing) {
		d.Portrait(Hex(0xb9cfdb, 1), Hex(0xf0c8a4, 1), Hex(0xb98d4a, 1), Hex(0x3f7048, 1), 0)
	}},
	{"person-mai", "Mai", "A made-up woman with red hair", 800, 800, func(d *Drawing) {
		d.Portrait(Hex(0xd9d2e6, 1), Hex(0xf5d6bd, 1), Hex(0xa5431f, 1), Hex(0x5a3d6b, 1), 7)
	}},
}
