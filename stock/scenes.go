package stock

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"openplot/core/colour"
	"openplot/core/number"
)

// Inks are the colours that scenes are drawn in: a site's own.
type Inks struct{ Ground, Quiet, Accent, Second, Deep, Words colour.Colour }

// Scenes lists what is drawn to stand in where no picture is chosen yet.
var Scenes = []string{"landscape", "room", "hands", "table", "people", "street", "product", "plan", "person"}

// Crops are the shapes that scenes are drawn in, width by height in px.
var Crops = map[string][2]int{"wide": {1200, 800}, "square": {900, 900}, "tall": {880, 1100}}

var scenes = map[string]func(*scene){
	"landscape": (*scene).landscape, "room": (*scene).room, "hands": (*scene).hands, "table": (*scene).table, "people": (*scene).people,
	"street": (*scene).street, "product": (*scene).product, "plan": (*scene).plan, "person": (*scene).person,
}

// Scene draws one of Scenes in one of Crops as SVG, in a site's colours; n varies it. It
// reports whether there is such a one.
func Scene(id, crop string, n int, k Inks) (svg string, ok bool) {
	draw, size := scenes[id], Crops[crop]
	if draw == nil || size[0] == 0 {
		return "", false
	}
	s := &scene{k: k, w: float64(size[0]), h: float64(size[1]), n: n & 0xff}
	draw(s)
	return fmt.Sprintf(
		`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %d %d" width="%d" height="%d">%s</svg>`,
		size[0],
		size[1],
		size[0],
		size[1],
		s.b.String(),
	), true
}

// scene is one at work. Places are shares of its width and height, sizes of its shorter side.
type scene struct {
	b    strings.Builder
	k    Inks
	w, h float64
	n    int
}

func (s *scene) u() float64 { return min(s.w, s.h) }

// between mixes two colours, t from 0 to 1, evenly to the eye.
func between(a, b colour.Colour, t float64) colour.Colour {
	p, q := a.OKLab(), b.OKLab()
	return colour.OKLab{L: p.L + (q.L-p.L)*t, A: p.A + (q.A-p.A)*t, B: p.B + (q.B-p.B)*t}.OKLCH().SRGB()
}

// pick chooses by the scene's number.
func (s *scene) pick(at int, of ...colour.Colour) colour.Colour { return of[(s.n>>at)%len(of)] }

func (s *scene) rect(c colour.Colour, x0, y0, x1, y1 float64) {
	fmt.Fprintf(&s.b, `<path fill="%s" d="M%.0f %.0fH%.0fV%.0fH%.0fz"/>`, c, x0*s.w, y0*s.h, x1*s.w, y1*s.h, x0*s.w)
}

// block is a box around a place, with corners rounded by a share of the shorter side.
func (s *scene) block(c colour.Colour, x, y, w, h, r float64) {
	u := s.u()
	fmt.Fprintf(
		&s.b,
		`<rect fill="%s" x="%.0f" y="%.0f" width="%.0f" height="%.0f" rx="%.0f"/>`,
		c,
		x*s.w-w*u/2,
		y*s.h-h*u/2,
		w*u,
		h*u,
		r*u,
	)
}

func (s *scene) disc(c colour.Colour, x, y, r float64) { s.oval(c, x, y, r, r) }

func (s *scene) oval(c colour.Colour, x, y, rx, ry float64) {
	fmt.Fprintf(
		&s.b,
		`<ellipse fill="%s" cx="%.0f" cy="%.0f" rx="%.0f" ry="%.0f"/>`,
		c,
		x*s.w,
		y*s.h,
		rx*s.u(),
		ry*s.u(),
	)
}

func (s *scene) ring(c colour.Colour, x, y, r, thick float64) {
	fmt.Fprintf(
		&s.b,
		`<circle fill="none" stroke="%s" stroke-width="%.1f" cx="%.0f" cy="%.0f" r="%.0f"/>`,
		c,
		thick*s.u(),
		x*s.w,
		y*s.h,
		r*s.u(),
	)
}

// line goes through places, bent evenly where there are three.
func (s *scene) line(c colour.Colour, thick float64, ps ...float64) {
	fmt.Fprintf(
		&s.b,
		`<path fill="none" stroke="%s" stroke-width="%.1f" stroke-linecap="round" stroke-linejoin="round" d="M%.0f %.0f`,
		c,
		thick*s.u(),
		ps[0]*s.w,
		ps[1]*s.h,
	)
	if len(ps) == 6 {
		fmt.Fprintf(&s.b, "Q%.0f %.0f %.0f %.0f", ps[2]*s.w, ps[3]*s.h, ps[4]*s.w, ps[5]*s.h)
	} else {
		for i := 2; i < len(ps); i += 2 {
			fmt.Fprintf(&s.b, "L%.0f %.0f", ps[i]*s.w, ps[i+1]*s.h)
		}
	}
	s.b.WriteString(`"/>`)
}

func (s *scene) shape(c colour.Colour, ps ...float64) {
	fmt.Fprintf(&s.b, `<path fill="%s" d="M`, c)
	for i := 0; i < len(ps); i += 2 {
		fmt.Fprintf(&s.b, "%.0f %.0f ", ps[i]*s.w, ps[i+1]*s.h)
	}
	s.b.WriteString(`z"/>`)
}

// hill is a smooth rise across the picture, down to its foot.
func (s *scene) hill(c colour.Colour, left, top, right float64, at float64) {
	fmt.Fprintf(
		&s.b,
		`<path fill="%s" d="M0 %.0fC%.0f %.0f %.0f %.0f %.0f %.0fS%.0f %.0f %.0f %.0fV%.0fH0z"/>`,
		c,
		left*s.h,
		(at-0.3)*s.w,
		left*s.h,
		(at-0.16)*s.w,
		top*s.h,
		at*s.w,
		top*s.h,
		(at+0.3)*s.w,
		right*s.h,
		s.w,
		right*s.h,
		s.h,
	)
}

// fade fills the picture from one colour down to another.
func (s *scene) fade(top, bottom colour.Colour) {
	const bands = 14
	for i := range bands {
		s.rect(between(top, bottom, float64(i)/(bands-1)), 0, float64(i)/bands, 1, 1)
	}
}

func (s *scene) landscape() {
	k := s.k
	s.fade(between(k.Accent, k.Ground, 0.72), between(k.Second, k.Ground, 0.82))
	x := 0.3 + 0.4*float64(s.n%4)/3
	s.disc(between(k.Second, k.Ground, 0.35), x, 0.3, 0.1)
	s.hill(between(k.Accent, k.Ground, 0.58), 0.62, 0.36, 0.56, 0.68-0.1*float64(s.n%3))
	s.hill(between(k.Accent, k.Ground, 0.3), 0.5, 0.66, 0.46, 0.5)
	s.hill(k.Accent, 0.82, 0.6, 0.8, 0.3+0.12*float64(s.n%3))
	s.hill(between(k.Accent, k.Deep, 0.6), 0.74, 0.92, 0.7, 0.55)
	s.hill(k.Deep, 0.96, 0.84, 0.97, 0.62)
	for i := range 5 {
		x, y := 0.1+0.045*float64(i), 0.8-0.012*float64(i%3)
		s.shape(k.Deep, x-0.018, y, x, y-0.13-0.03*float64(i%2), x+0.018, y)
	}
}

func (s *scene) room() {
	k := s.k
	wall := s.pick(0, between(k.Quiet, k.Accent, 0.16), between(k.Quiet, k.Second, 0.2), between(k.Quiet, k.Deep, 0.12))
	s.rect(wall, 0, 0, 1, 0.76)
	s.rect(between(k.Second, k.Quiet, 0.55), 0, 0.76, 1, 1)
	s.rect(k.Ground, 0, 0.745, 1, 0.765)
	// a window with the country behind it
	s.rect(k.Ground, 0.08, 0.12, 0.42, 0.58)
	s.rect(between(k.Accent, k.Ground, 0.75), 0.1, 0.145, 0.4, 0.555)
	s.shape(between(k.Accent, k.Ground, 0.35), 0.1, 0.5, 0.2, 0.4, 0.3, 0.47, 0.4, 0.38, 0.4, 0.555, 0.1, 0.555)
	s.rect(k.Ground, 0.245, 0.13, 0.256, 0.57)
	s.rect(k.Ground, 0.09, 0.33, 0.41, 0.345)
	// a picture, a lamp, a sofa, a plant
	s.rect(k.Deep, 0.56, 0.2, 0.74, 0.42)
	s.rect(k.Ground, 0.575, 0.22, 0.725, 0.4)
	s.disc(k.Second, 0.65, 0.31, 0.05)
	s.line(k.Deep, 0.006, 0.86, 0, 0.86, 0.2)
	s.shape(k.Second, 0.8, 0.29, 0.83, 0.19, 0.89, 0.19, 0.92, 0.29)
	s.block(between(k.Accent, k.Deep, 0.25), 0.63, 0.66, 0.62*min(s.w/s.h, 1.2), 0.2, 0.05)
	s.block(k.Accent, 0.63, 0.73, 0.7*min(s.w/s.h, 1.2), 0.13, 0.04)
	s.block(between(k.Second, k.Ground, 0.3), 0.52, 0.67, 0.15, 0.13, 0.02)
	s.oval(between(k.Quiet, k.Deep, 0.14), 0.6, 0.9, 0.42, 0.045)
	for i := range 5 {
		a := -math.Pi/2 + (float64(i)-2)*0.42
		s.line(
			between(k.Accent, k.Deep, 0.5),
			0.022,
			0.17,
			0.74,
			0.17+0.05*math.Cos(a),
			0.72+0.06*math.Sin(a),
			0.17+0.1*math.Cos(a),
			0.74+0.17*math.Sin(a),
		)
	}
	s.shape(k.Second, 0.125, 0.74, 0.215, 0.74, 0.2, 0.88, 0.14, 0.88)
}

func (s *scene) hands() {
	k := s.k
	s.fade(between(k.Second, k.Quiet, 0.62), between(k.Second, k.Quiet, 0.36))
	for i := range 4 {
		s.rect(between(k.Second, k.Deep, 0.12), 0, 0.2+0.22*float64(i), 1, 0.206+0.22*float64(i))
	}
	s.shape(k.Ground, 0.26, 0.3, 0.78, 0.22, 0.84, 0.72, 0.31, 0.8)
	s.line(between(k.Accent, k.Ground, 0.55), 0.007, 0.35, 0.4, 0.62, 0.355)
	s.line(between(k.Accent, k.Ground, 0.55), 0.007, 0.36, 0.49, 0.7, 0.44)
	s.line(k.Accent, 0.012, 0.37, 0.62, 0.46, 0.5, 0.55, 0.58)
	hand := func(skin, sleeve colour.Colour, x, dir float64) {
		y := 0.66
		s.line(skin, 0.11, x+dir*0.02, y, x+dir*0.2, 0.98)
		s.line(sleeve, 0.17, x+dir*0.16, 0.9, x+dir*0.24, 1.08)
		s.oval(skin, x, y-0.02, 0.085, 0.09)
		for i := range 4 {
			fx := x + (float64(i)-1.5)*0.05*s.u()/s.w
			s.line(skin, 0.042, fx, y-0.04, fx-dir*0.015, y-0.13-0.012*float64(i%3))
		}
		s.line(skin, 0.045, x-dir*0.05, y, x-dir*0.1, y-0.06)
	}
	skin := s.pick(
		0,
		between(k.Second, k.Ground, 0.55),
		between(k.Second, k.Deep, 0.3),
		between(k.Second, k.Ground, 0.28),
	)
	hand(skin, k.Accent, 0.68, 1)
	hand(skin, k.Accent, 0.34, -1)
	s.line(k.Deep, 0.022, 0.565, 0.58, 0.67, 0.36)
	s.line(k.Second, 0.022, 0.655, 0.39, 0.67, 0.36)
}

func (s *scene) table() {
	k := s.k
	s.fade(between(k.Second, k.Quiet, 0.5), between(k.Second, k.Quiet, 0.34))
	for i := range 3 {
		s.rect(between(k.Second, k.Quiet, 0.24), 0, 0.24+0.27*float64(i), 1, 0.246+0.27*float64(i))
	}
	plate := func(x, y, r float64, food, green colour.Colour) {
		s.disc(between(k.Second, k.Deep, 0.28), x+0.012, y+0.018, r)
		s.disc(k.Ground, x, y, r)
		s.ring(between(k.Ground, k.Deep, 0.12), x, y, r*0.72, 0.006)
		s.disc(food, x-0.02, y+0.01, r*0.46)
		s.disc(green, x+0.03, y-0.03, r*0.26)
		s.disc(between(food, k.Ground, 0.5), x-0.04, y-0.01, r*0.13)
	}
	plate(0.36, 0.42, 0.24, k.Second, k.Accent)
	plate(0.72, 0.72, 0.2, between(k.Accent, k.Ground, 0.35), k.Second)
	s.disc(k.Deep, 0.78, 0.26, 0.11)
	s.disc(between(k.Second, k.Deep, 0.45), 0.78, 0.26, 0.085)
	s.line(k.Deep, 0.024, 0.85, 0.2, 0.9, 0.17)
	s.line(k.Ground, 0.014, 0.11, 0.25, 0.11, 0.62)
	s.line(k.Ground, 0.03, 0.11, 0.22, 0.11, 0.32)
	s.shape(k.Accent, 0.08, 0.76, 0.34, 0.74, 0.38, 1, 0.06, 1)
	s.line(between(k.Accent, k.Ground, 0.6), 0.006, 0.1, 0.79, 0.34, 0.77)
	for i := range 3 {
		s.oval(between(k.Accent, k.Deep, 0.35), 0.5+0.05*float64(i), 0.14+0.04*float64(i%2), 0.045, 0.022)
	}
}

// bust draws a head with shoulders, as large as size, standing on y.
func (s *scene) bust(x, y, size float64, n int) {
	k := s.k
	of := func(at int, cs ...colour.Colour) colour.Colour { return cs[(n>>at)%len(cs)] }
	skin := []colour.Colour{between(k.Second, k.Ground, 0.62), between(k.Second, k.Deep, 0.42), between(k.Second, k.Ground, 0.42), between(k.Second, k.Deep, 0.15)}[n%4]
	hair := of(1, k.Deep, between(k.Second, k.Deep, 0.55), between(k.Quiet, k.Deep, 0.35), k.Words)
	shirt := of(2, k.Accent, k.Deep, k.Second, between(k.Accent, k.Ground, 0.5))
	u := size * s.u() / s.h // of the height
	v := size * s.u() / s.w // of the width
	long := n%3 == 1
	if long {
		s.block(hair, x, y-0.66*u, 0.52*size, 0.62*size, 0.24*size)
	}
	fmt.Fprintf(
		&s.b,
		`<path fill="%s" d="M%.0f %.0fC%.0f %.0f %.0f %.0f %.0f %.0fS%.0f %.0f %.0f %.0fz"/>`,
		shirt,
		(x-0.5*v)*s.w,
		(y+0.02)*s.h,
		(x-0.5*v)*s.w,
		(y-0.34*u)*s.h,
		(x-0.3*v)*s.w,
		(y-0.38*u)*s.h,
		x*s.w,
		(y-0.38*u)*s.h,
		(x+0.5*v)*s.w,
		(y-0.34*u)*s.h,
		(x+0.5*v)*s.w,
		(y+0.02)*s.h,
	)
	s.block(between(skin, k.Deep, 0.12), x, y-0.42*u, 0.17*size, 0.2*size, 0.06*size)
	s.oval(skin, x, y-0.68*u, 0.2*size, 0.24*size)
	switch n % 3 {
	case 0: // short
		fmt.Fprintf(
			&s.b,
			`<path fill="%s" d="M%.0f %.0fA%.0f %.0f 0 0 1 %.0f %.0fQ%.0f %.0f %.0f %.0fz"/>`,
			hair,
			(x-0.205*v)*s.w,
			(y-0.68*u)*s.h,
			0.205*size*s.u(),
			0.26*size*s.u(),
			(x+0.205*v)*s.w,
			(y-0.68*u)*s.h,
			(x+0.1*v)*s.w,
			(y-0.86*u)*s.h,
			(x-0.205*v)*s.w,
			(y-0.68*u)*s.h,
		)
	case 1: // parted
		fmt.Fprintf(
			&s.b,
			`<path fill="%s" d="M%.0f %.0fA%.0f %.0f 0 0 1 %.0f %.0fQ%.0f %.0f %.0f %.0fQ%.0f %.0f %.0f %.0fz"/>`,
			hair,
			(x-0.215*v)*s.w,
			(y-0.62*u)*s.h,
			0.215*size*s.u(),
			0.31*size*s.u(),
			(x+0.215*v)*s.w,
			(y-0.62*u)*s.h,
			(x+0.19*v)*s.w,
			(y-0.8*u)*s.h,
			(x+0.02*v)*s.w,
			(y-0.87*u)*s.h,
			(x-0.19*v)*s.w,
			(y-0.8*u)*s.h,
			(x-0.215*v)*s.w,
			(y-0.62*u)*s.h,
		)
	default: // a bun, and a fringe
		s.disc(hair, x, y-0.98*u, 0.09*size)
		fmt.Fprintf(
			&s.b,
			`<path fill="%s" d="M%.0f %.0fA%.0f %.0f 0 0 1 %.0f %.0fQ%.0f %.0f %.0f %.0fz"/>`,
			hair,
			(x-0.21*v)*s.w,
			(y-0.72*u)*s.h,
			0.21*size*s.u(),
			0.22*size*s.u(),
			(x+0.21*v)*s.w,
			(y-0.72*u)*s.h,
			x*s.w,
			(y-0.8*u)*s.h,
			(x-0.21*v)*s.w,
			(y-0.72*u)*s.h,
		)
	}
	eye := between(k.Deep, k.Words, 0.5)
	s.disc(eye, x-0.075*v, y-0.68*u, 0.015*size)
	s.disc(eye, x+0.075*v, y-0.68*u, 0.015*size)
	s.line(between(skin, k.Deep, 0.5), 0.014*size, x-0.06*v, y-0.56*u, x, y-0.53*u, x+0.06*v, y-0.56*u)
}

func (s *scene) person() {
	k := s.k
	back := s.pick(
		1,
		between(k.Accent, k.Ground, 0.68),
		between(k.Second, k.Ground, 0.72),
		between(k.Quiet, k.Accent, 0.2),
		between(k.Quiet, k.Deep, 0.16),
	)
	s.rect(back, 0, 0, 1, 1)
	s.disc(between(back, k.Ground, 0.4), 0.5, 0.46, 0.4)
	s.bust(0.5, 1.02, 0.86, s.n)
}

func (s *scene) people() {
	k := s.k
	s.fade(between(k.Accent, k.Ground, 0.74), between(k.Quiet, k.Second, 0.16))
	s.rect(between(k.Accent, k.Ground, 0.55), 0.06, 0.1, 0.28, 0.56)
	s.rect(between(k.Second, k.Ground, 0.6), 0.36, 0.06, 0.66, 0.5)
	s.rect(between(k.Accent, k.Ground, 0.5), 0.74, 0.14, 0.95, 0.58)
	s.bust(0.27, 1.02, 0.56, s.n+3)
	s.bust(0.74, 1.02, 0.58, s.n+10)
	s.bust(0.5, 1.06, 0.68, s.n+5)
}

func (s *scene) street() {
	k := s.k
	s.fade(between(k.Accent, k.Ground, 0.76), between(k.Second, k.Ground, 0.8))
	fronts := []colour.Colour{
		between(k.Second, k.Ground, 0.42),
		k.Quiet,
		between(k.Accent, k.Ground, 0.5),
		k.Second,
		between(k.Quiet, k.Second, 0.3),
		between(k.Accent, k.Ground, 0.2),
	}
	const houses = 4
	for i := range houses {
		x0, x1 := float64(i)/houses, float64(i+1)/houses
		top := 0.3 - 0.07*float64((i+s.n)%3)
		c := fronts[(i+s.n)%len(fronts)]
		if (i+s.n)%2 == 0 {
			s.shape(k.Deep, x0, top, (x0+x1)/2, top-0.13, x1, top)
		} else {
			s.rect(between(k.Deep, c, 0.2), x0, top-0.03, x1, top)
		}
		s.rect(c, x0, top, x1, 0.82)
		for row := range 2 {
			for col := range 2 {
				x, y := x0+0.05+0.09*float64(col), top+0.07+0.17*float64(row)
				s.rect(k.Ground, x-0.008, y-0.012, x+0.068, y+0.112)
				s.rect(between(k.Accent, k.Deep, 0.4), x, y, x+0.06, y+0.1)
			}
		}
		s.rect(between(k.Deep, k.Accent, 0.3), x0+0.035, 0.66, x1-0.035, 0.82)
		for stripe := range 4 {
			w := (x1 - x0 - 0.04) / 4
			s.rect(
				[]colour.Colour{k.Ground, k.Second}[(stripe+i)%2],
				x0+0.02+w*float64(stripe),
				0.62,
				x0+0.02+w*float64(stripe+1),
				0.675,
			)
		}
	}
	s.rect(between(k.Quiet, k.Deep, 0.2), 0, 0.82, 1, 0.87)
	s.rect(between(k.Quiet, k.Deep, 0.34), 0, 0.87, 1, 1)
	s.line(k.Deep, 0.014, 0.5, 0.85, 0.5, 0.44)
	s.disc(between(k.Second, k.Ground, 0.55), 0.5, 0.42, 0.035)
	s.line(between(k.Second, k.Deep, 0.6), 0.02, 0.88, 0.86, 0.88, 0.6)
	s.disc(k.Accent, 0.88, 0.54, 0.11)
	s.disc(between(k.Accent, k.Ground, 0.2), 0.9, 0.5, 0.06)
}

func (s *scene) product() {
	k := s.k
	back := s.pick(
		0,
		between(k.Accent, k.Ground, 0.66),
		between(k.Second, k.Ground, 0.66),
		between(k.Quiet, k.Deep, 0.1),
	)
	s.rect(back, 0, 0, 1, 1)
	s.disc(between(back, k.Ground, 0.45), 0.5, 0.42, 0.36)
	s.rect(between(back, k.Deep, 0.14), 0, 0.76, 1, 1)
	s.oval(between(back, k.Deep, 0.3), 0.52, 0.84, 0.34, 0.035)
	s.block(k.Ground, 0.5, 0.83, 0.56, 0.1, 0.012)
	s.block(between(k.Ground, k.Deep, 0.12), 0.5, 0.795, 0.56, 0.03, 0.012)
	v := s.u() / s.w
	s.block(k.Accent, 0.5-0.09*v, 0.78-0.21*s.u()/s.h, 0.2, 0.42, 0.045)
	s.block(k.Deep, 0.5-0.09*v, 0.78-0.46*s.u()/s.h, 0.08, 0.1, 0.012)
	s.block(k.Ground, 0.5-0.09*v, 0.78-0.2*s.u()/s.h, 0.2, 0.17, 0)
	s.line(k.Deep, 0.01, 0.5-0.14*v, 0.78-0.23*s.u()/s.h, 0.5-0.04*v, 0.78-0.23*s.u()/s.h)
	s.line(between(k.Deep, k.Ground, 0.4), 0.007, 0.5-0.14*v, 0.78-0.18*s.u()/s.h, 0.5-0.06*v, 0.78-0.18*s.u()/s.h)
	s.block(k.Second, 0.5+0.14*v, 0.78-0.12*s.u()/s.h, 0.19, 0.24, 0.012)
	s.block(between(k.Second, k.Deep, 0.25), 0.5+0.14*v, 0.78-0.225*s.u()/s.h, 0.21, 0.045, 0.01)
	s.disc(k.Ground, 0.5+0.14*v, 0.78-0.1*s.u()/s.h, 0.05)
}

func (s *scene) plan() {
	k := s.k
	s.rect(k.Accent, 0, 0, 1, 1)
	for i := range 12 {
		p := float64(i+1) / 12
		s.line(between(k.Accent, k.Ground, 0.14), 0.002, p, 0, p, 1)
		s.line(between(k.Accent, k.Ground, 0.14), 0.002, 0, p, 1, p)
	}
	white := between(k.Ground, k.Accent, 0.06)
	s.line(white, 0.014, 0.16, 0.2, 0.82, 0.2, 0.82, 0.78, 0.16, 0.78, 0.16, 0.2)
	s.line(white, 0.01, 0.5, 0.2, 0.5, 0.46)
	s.line(white, 0.01, 0.5, 0.58, 0.5, 0.78)
	s.line(white, 0.01, 0.16, 0.54, 0.34, 0.54)
	s.line(white, 0.01, 0.66, 0.5, 0.82, 0.5)
	s.line(between(k.Accent, k.Ground, 0.6), 0.005, 0.5, 0.46, 0.58, 0.47, 0.6, 0.58)
	s.line(between(k.Accent, k.Ground, 0.6), 0.005, 0.34, 0.54, 0.35, 0.64, 0.43, 0.66)
	s.line(between(k.Second, k.Ground, 0.3), 0.006, 0.16, 0.88, 0.82, 0.88)
	for _, x := range []float64{0.16, 0.5, 0.82} {
		s.line(between(k.Second, k.Ground, 0.3), 0.006, x, 0.86, x, 0.9)
	}
	s.ring(white, 0.66, 0.35, 0.06, 0.006)
	s.block(between(k.Accent, k.Ground, 0.3), 0.28, 0.34, 0.14, 0.1, 0.01)
	s.line(k.Second, 0.034, 0.72, 0.9, 0.93, 0.62)
	s.line(between(k.Second, k.Ground, 0.7), 0.034, 0.715, 0.907, 0.725, 0.893)
}

// variants is how many of each scene there are.
const variants = 12

// SceneName names a file with a scene: in it is all that Scene needs.
func SceneName(id, crop string, n int, k Inks) string {
	name := id + "-" + crop + "-" + strconv.Itoa(n%variants)
	for _, c := range []colour.Colour{k.Ground, k.Quiet, k.Accent, k.Second, k.Deep, k.Words} {
		c.A = 255
		name += "-" + strings.TrimPrefix(c.String(), "#")
	}
	return name + ".svg"
}

// SceneNamed draws what SceneName named; it reports whether there is such a scene.
func SceneNamed(name string) (svg string, ok bool) {
	parts := strings.Split(strings.TrimSuffix(name, ".svg"), "-")
	var k Inks
	inks := []*colour.Colour{&k.Ground, &k.Quiet, &k.Accent, &k.Second, &k.Deep, &k.Words}
	if len(parts) != 3+len(inks) {
		return "", false
	}
	n, err := number.Whole(parts[2])
	if err != nil || n < 0 || n >= variants {
		return "", false
	}
	for i, to := range inks {
		if *to, err = colour.ParseHex("#" + parts[3+i]); err != nil || len(parts[3+i]) != 6 {
			return "", false
		}
	}
	return Scene(parts[0], parts[1], n, k)
}
