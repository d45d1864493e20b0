package demo

import (
	"image/color"

	"openplot/stock"
)

// picture is one of the demo's pictures: its name, the words for those who can't
// see it, and how it is drawn.
type picture struct {
	name, alt string
	draw      func() []byte
}

var pictures = []picture{
	{
		"dawn-over-the-sound.png",
		"Dawn over the sound: three dark islands, a pale sun and a small ferry on still water",
		func() []byte {
			d := stock.New(1920, 1080)
			d.Gradient(
				0, 0.76, stock.Hex(0x0b2b35, 1), stock.Hex(0x0f3a45, 1), stock.Hex(0x15505b, 1), stock.Hex(0x24656c, 1),
				stock.Hex(0x5b9490, 1), stock.Hex(0xefc48f, 1),
			)
			d.Disc(stock.Hex(0xfbe3b4, 0.2), 0.76, 0.66, 0.13)
			d.Disc(stock.Hex(0xfdebc4, 0.95), 0.76, 0.66, 0.06)
			d.Ridge(stock.Hex(0x4d8583, 0.8), 0.34, 0.84, 0.755, 0.13, 1.2)
			d.Ridge(stock.Hex(0x2b626a, 0.95), 0.6, 1.18, 0.756, 0.24, 3.4)
			d.Gradient(
				0.75,
				1,
				stock.Hex(0x6fa596, 1),
				stock.Hex(0x2c6b72, 1),
				stock.Hex(0x174852, 1),
				stock.Hex(0x0e323c, 1),
			)
			d.Waves(stock.Hex(0xf6d7a4, 0.5), 0.76, 1, 2.2, 60)
			d.Waves(stock.Hex(0x0c2c36, 0.35), 0.77, 1, 5.1, 50)
			d.Ridge(stock.Hex(0x0f353f, 1), -0.14, 0.5, 0.762, 0.13, 0.4)
			d.Boat(0.66, 0.86, 0.1, stock.Hex(0xb4532a, 1), stock.Hex(0xf5efe2, 1), stock.Hex(0xf5efe2, 1))
			return d.PNG()
		},
	},
	{"inner-holm.png", "Inner Holm: gabled houses in a row above a low green shore", func() []byte {
		d := stock.New(1440, 1080)
		d.Gradient(0, 0.66, stock.Hex(0x8fc0c4, 1), stock.Hex(0xc7dccf, 1), stock.Hex(0xf3e7cb, 1))
		d.Ridge(stock.Hex(0x9dbdae, 0.9), -0.1, 0.7, 0.66, 0.22, 2.6)
		d.Ridge(stock.Hex(0x6f9b7d, 1), 0.2, 1.2, 0.665, 0.26, 5.2)
		d.Houses(
			0.3, 0.64, 0.062,
			[]color.NRGBA{
				stock.Hex(0xb4532a, 1), stock.Hex(0xe8dcc4, 1), stock.Hex(0xd39a3c, 1), stock.Hex(0x7c3324, 1),
				stock.Hex(0xf1ead9, 1), stock.Hex(0x2f6b52, 1),
			},
		)
		d.Ridge(stock.Hex(0x4a7a58, 1), 0.05, 1.05, 0.69, 0.07, 1.1)
		d.Gradient(0.685, 1, stock.Hex(0x6aa3a3, 1), stock.Hex(0x2f7480, 1), stock.Hex(0x1d5563, 1))
		d.Waves(stock.Hex(0xf5f1e0, 0.5), 0.7, 1, 1.4, 70)
		return d.PNG()
	}},
	{"skarva.png", "Skarva: steep dark cliffs with sea birds above them", func() []byte {
		d := stock.New(1440, 1080)
		d.Gradient(0, 0.7, stock.Hex(0x5b8795, 1), stock.Hex(0x9cbcbf, 1), stock.Hex(0xe4dfcd, 1))
		d.Ridge(stock.Hex(0x7f9ea0, 0.85), 0.4, 1.2, 0.7, 0.3, 4.4)
		d.Fill(
			stock.Hex(0x2a3f45, 1), stock.P(0.08, 0.72), stock.P(0.16, 0.34), stock.P(0.24, 0.3), stock.P(0.3, 0.2),
			stock.P(0.42, 0.17), stock.P(0.5, 0.26), stock.P(0.57, 0.27), stock.P(0.66, 0.46), stock.P(0.72, 0.72),
		)
		d.Fill(
			stock.Hex(0x3d565b, 1), stock.P(0.3, 0.72), stock.P(0.33, 0.4), stock.P(0.42, 0.17), stock.P(0.5, 0.26),
			stock.P(0.47, 0.5), stock.P(0.55, 0.72),
		)
		d.Fill(
			stock.Hex(0x6f8f5f, 1), stock.P(0.24, 0.3), stock.P(0.3, 0.2), stock.P(0.42, 0.17), stock.P(0.5, 0.26),
			stock.P(0.44, 0.24), stock.P(0.33, 0.27),
		)
		d.Gradient(0.715, 1, stock.Hex(0x4f8089, 1), stock.Hex(0x27606c, 1), stock.Hex(0x163f4b, 1))
		d.Waves(stock.Hex(0xf2efe2, 0.6), 0.722, 1, 3.9, 80)
		for i := range 9 {
			x, y := 0.55+0.045*float64(i%5)+0.02*float64(i/5), 0.14+0.05*float64(i%3)
			d.Fill(
				stock.Hex(0x1f2a2c, 0.8),
				stock.P(x-0.016, y-0.008),
				stock.P(x, y),
				stock.P(x+0.016, y-0.008),
				stock.P(x, y+0.005),
			)
		}
		return d.PNG()
	}},
	{"langey.png", "Langey: a long flat island in the evening, with a lighthouse at its end", func() []byte {
		d := stock.New(1440, 1080)
		d.Gradient(
			0,
			0.64,
			stock.Hex(0x314a63, 1),
			stock.Hex(0x8a6f7c, 1),
			stock.Hex(0xe39a6a, 1),
			stock.Hex(0xf7d9a0, 1),
		)
		d.Disc(stock.Hex(0xfff0c9, 0.9), 0.26, 0.585, 0.05)
		d.Ridge(stock.Hex(0x4c4a5c, 1), 0.02, 1.2, 0.645, 0.075, 0.9)
		d.Fill(
			stock.Hex(0xf4ecdd, 1),
			stock.P(0.81, 0.6),
			stock.P(0.822, 0.36),
			stock.P(0.848, 0.36),
			stock.P(0.86, 0.6),
		)
		d.Fill(
			stock.Hex(0xb4532a, 1),
			stock.P(0.816, 0.48),
			stock.P(0.819, 0.42),
			stock.P(0.851, 0.42),
			stock.P(0.854, 0.48),
		)
		d.Fill(
			stock.Hex(0x1f2a2c, 1),
			stock.P(0.818, 0.36),
			stock.P(0.818, 0.32),
			stock.P(0.835, 0.29),
			stock.P(0.852, 0.32),
			stock.P(0.852, 0.36),
		)
		d.Fill(stock.Hex(0xfff3cf, 0.22), stock.P(0.83, 0.335), stock.P(0.1, 0.2), stock.P(0.1, 0.3))
		d.Gradient(0.64, 1, stock.Hex(0xcf8a66, 1), stock.Hex(0x6d6073, 1), stock.Hex(0x2c3c54, 1))
		d.Waves(stock.Hex(0xfbe0ab, 0.55), 0.65, 1, 0.7, 80)
		return d.PNG()
	}},
	{"the-langey-boat.png", "A small red ferry leaving the stone steps at low tide", func() []byte {
		d := stock.New(1440, 1080)
		d.Gradient(0, 0.52, stock.Hex(0xe9a46c, 1), stock.Hex(0xf1c391, 1), stock.Hex(0xf6dfba, 1))
		d.Ridge(stock.Hex(0x6f98a0, 0.8), -0.1, 0.75, 0.52, 0.2, 2.1)
		d.Ridge(stock.Hex(0x3c707c, 1), 0.45, 1.2, 0.522, 0.25, 4.9)
		d.Gradient(0.518, 1, stock.Hex(0x5a929a, 1), stock.Hex(0x2a6672, 1), stock.Hex(0x154450, 1))
		d.Waves(stock.Hex(0xf8e3bd, 0.5), 0.53, 1, 6.2, 80)
		d.Boat(0.45, 0.72, 0.5, stock.Hex(0xb4392a, 1), stock.Hex(0xf6f0e2, 1), stock.Hex(0xf0c067, 1))
		for i := range 6 {
			y := 0.74 + 0.045*float64(i)
			d.Fill(
				stock.Mix(stock.Hex(0x8a8272, 1), stock.Hex(0x4d4a44, 1), float64(i)/5),
				stock.P(0.9-0.045*float64(i), y),
				stock.P(1, y), stock.P(1, y+0.05),
				stock.P(0.9-0.045*float64(i), y+0.05),
			)
		}
		return d.PNG()
	}},
	{"winter-light.png", "Winter on the sound: snow on the islands under a low, cold sun", func() []byte {
		d := stock.New(1920, 1080)
		d.Gradient(0, 0.6, stock.Hex(0x6f8ea6, 1), stock.Hex(0xb9c9d2, 1), stock.Hex(0xf4e6d6, 1))
		d.Disc(stock.Hex(0xfffaf0, 0.9), 0.24, 0.42, 0.05)
		d.Ridge(stock.Hex(0xdfe6ea, 1), 0.28, 1.1, 0.6, 0.34, 1.9)
		d.Ridge(stock.Hex(0xa9bcc8, 1), 0.5, 1.3, 0.602, 0.2, 3.3)
		d.Ridge(stock.Hex(0xf3f5f5, 1), -0.2, 0.5, 0.605, 0.16, 5.7)
		d.Gradient(0.6, 1, stock.Hex(0xa9bfca, 1), stock.Hex(0x5f8496, 1), stock.Hex(0x365a6c, 1))
		d.Waves(stock.Hex(0xffffff, 0.5), 0.61, 1, 4.6, 90)
		d.Boat(0.7, 0.78, 0.12, stock.Hex(0xb4532a, 1), stock.Hex(0xf5efe2, 1), stock.Hex(0xf5efe2, 1))
		d.Houses(
			0.07,
			0.6,
			0.03,
			[]color.NRGBA{
				stock.Hex(0xb4532a, 1),
				stock.Hex(0xe8dcc4, 1),
				stock.Hex(0x7c3324, 1),
				stock.Hex(0xd39a3c, 1),
			},
		)
		return d.PNG()
	}},
}

// crew are the demo's people: their pictures are drawn like the others.
var crew = []struct {
	name, alt                string
	ground, skin, hair, coat uint32
}{
	{"ada.png", "Ada, in a dark blue cap", 0x9fc3c6, 0xe8b48e, 0x6b3a22, 0x1d4a5c},
	{"bo.png", "Bo, with long fair hair", 0xf0d9a8, 0xf2c7a4, 0xd8a94c, 0xb4532a},
	{"carl.png", "Carl, with a grey beard", 0xb9cbb4, 0xd99f77, 0x8d8a84, 0x33503f},
	{"dina.png", "Dina, in a green cap", 0xe6b79a, 0xa8714c, 0x2a1d18, 0x2f6b52},
	{"egil.png", "Egil, with short dark hair", 0xc7cfe0, 0xf0c39c, 0x3a2a22, 0x5a3d6b},
	{"frida.png", "Frida, with a red scarf of hair", 0xd8e2da, 0xf3cfb0, 0xa8442a, 0x22313a},
}

func init() {
	for i, c := range crew {
		pictures = append(pictures, picture{c.name, c.alt, func() []byte {
			d := stock.New(640, 640)
			d.Portrait(
				stock.Hex(c.ground, 1),
				stock.Hex(c.skin, 1),
				stock.Hex(c.hair, 1),
				stock.Hex(c.coat, 1),
				[]int{0, 1, 2, 3, 4, 7}[i],
			)
			return d.PNG()
		}})
	}
	pictures = append(
		pictures,
		picture{"the-bakery.png", "The bakery on Inner Holm at first light, its window lit", func() []byte {
			d := stock.New(1080, 1350)
			d.Gradient(0, 0.7, stock.Hex(0x35506b, 1), stock.Hex(0x8c7f92, 1), stock.Hex(0xe7b48a, 1))
			d.Ridge(stock.Hex(0x4c6170, 1), -0.2, 0.9, 0.7, 0.12, 2.2)
			d.Gradient(0.695, 0.9, stock.Hex(0x5d7079, 1), stock.Hex(0x6d6a62, 1))
			d.Fill(
				stock.Hex(0x8a3f2a, 1),
				stock.P(0.22, 0.9),
				stock.P(0.22, 0.5),
				stock.P(0.5, 0.3),
				stock.P(0.78, 0.5),
				stock.P(0.78, 0.9),
			)
			d.Fill(
				stock.Hex(
					0x4a2018,
					1,
				),
				stock.P(0.17, 0.52),
				stock.P(0.5, 0.26),
				stock.P(0.83, 0.52),
				stock.P(0.8, 0.55),
				stock.P(0.5, 0.31),
				stock.P(0.2, 0.55),
			)
			d.Fill(
				stock.Hex(0xf9d98c, 1),
				stock.P(0.32, 0.74),
				stock.P(0.32, 0.6),
				stock.P(0.5, 0.6),
				stock.P(0.5, 0.74),
			)
			d.Fill(
				stock.Hex(0x5a2a1d, 1),
				stock.P(0.57, 0.9),
				stock.P(0.57, 0.62),
				stock.P(0.7, 0.62),
				stock.P(0.7, 0.9),
			)
			d.Gradient(0.89, 1, stock.Hex(0x6d6a62, 1), stock.Hex(0x3d3f40, 1))
			return d.PNG()
		}},
		picture{
			"the-wheelhouse.png",
			"The view from the wheelhouse: the bow, a buoy and an island ahead",
			func() []byte {
				d := stock.New(1600, 1000)
				d.Gradient(0, 0.55, stock.Hex(0x7fb0bb, 1), stock.Hex(0xc3dad4, 1), stock.Hex(0xf2ead4, 1))
				d.Ridge(stock.Hex(0x54808a, 1), 0.3, 0.95, 0.55, 0.18, 4.1)
				d.Gradient(0.545, 1, stock.Hex(0x5c979e, 1), stock.Hex(0x1f5a68, 1))
				d.Waves(stock.Hex(0xf4efdf, 0.5), 0.56, 1, 2.4, 70)
				d.Fill(stock.Hex(0xb4392a, 1), stock.P(0.28, 0.64), stock.P(0.3, 0.54), stock.P(0.32, 0.64))
				d.Fill(stock.Hex(0xf5efe2, 1), stock.P(0.34, 1), stock.P(0.6, 0.72), stock.P(0.86, 1))
				d.Fill(stock.Hex(0xb4532a, 1), stock.P(0.4, 1), stock.P(0.6, 0.77), stock.P(0.8, 1))
				d.Fill(
					stock.Hex(0x1f2a2c, 1),
					stock.P(0, 0),
					stock.P(1, 0),
					stock.P(1, 0.07),
					stock.P(0.06, 0.07),
					stock.P(0.06, 1),
					stock.P(0, 1),
				)
				return d.PNG()
			},
		},
		picture{"gulls.png", "Gulls over the wake in the evening", func() []byte {
			d := stock.New(1440, 960)
			d.Gradient(0, 0.62, stock.Hex(0x46607c, 1), stock.Hex(0xc99682, 1), stock.Hex(0xf6d9a6, 1))
			d.Gradient(0.615, 1, stock.Hex(0x8d7f80, 1), stock.Hex(0x2b4a5d, 1))
			d.Waves(stock.Hex(0xfbe7bd, 0.6), 0.63, 1, 3.3, 90)
			for i := range 7 {
				x, y, s := 0.14+0.12*float64(i), 0.16+0.07*float64((i*3)%5), 0.03+0.008*float64(i%3)
				d.Fill(
					stock.Hex(0xf7f2e6, 1),
					stock.P(x-s, y-s*0.6),
					stock.P(x, y),
					stock.P(x+s, y-s*0.6),
					stock.P(x, y+s*0.35),
				)
			}
			return d.PNG()
		}},
	)
}

// PictureNames lists the demo's pictures.
func PictureNames() []string {
	names := make([]string, len(pictures))
	for i, p := range pictures {
		names[i] = p.name
	}
	return names
}
