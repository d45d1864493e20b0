package check

import (
	"math"
	"strings"

	"openplot/core/colour"
	"openplot/core/number"
	"openplot/core/style"
)

// ground is what is behind words: layers from the one that lies on top. alpha is what is still
// seen through.
type ground struct {
	r, g, b, alpha float64
}

// under puts a colour below what there is.
func (d *ground) under(c colour.Colour, see float64) {
	a := float64(c.A) / 255 * see * d.alpha
	d.r, d.g, d.b = d.r+float64(c.R)*a, d.g+float64(c.G)*a, d.b+float64(c.B)*a
	d.alpha -= a
}

func (d *ground) colour() colour.Colour {
	return colour.Colour{
		R: uint8(math.Round(min(d.r, 255))),
		G: uint8(math.Round(min(d.g, 255))),
		B: uint8(math.Round(min(d.b, 255))),
		A: 255,
	}
}

// sample gives the colour behind a point, of boxes from the one that is painted first to the one
// that is painted last; ok is false where it isn't known.
func (s *sight) sample(boxes []int, x, y float64) (c colour.Colour, ok bool) {
	d := ground{alpha: 1}
	for i := len(boxes) - 1; i >= 0 && d.alpha > 0.02; i-- {
		b := &s.boxes[boxes[i]]
		if x < b.px || y < b.py || x > b.px+b.pw || y > b.py+b.ph {
			continue
		}
		st := b.st
		if b.shown {
			if b.Node.Tag != "img" || st.Filter != "" {
				return c, false
			}
			p := s.pixels(attr(b.Node, "src"))
			if p == nil {
				return c, false
			}
			d.under(fitted(p, st.ObjectFit, st.ObjectPos, b.pw, b.ph, x-b.px, y-b.py), b.see)
			continue
		}
		if st.BackgroundTop != "" {
			gs := s.gradients(st.BackgroundTop)
			if gs == nil {
				return c, false
			}
			for i := range gs {
				d.under(gs[i].at(b.pw, b.ph, x-b.px, y-b.py), b.see)
			}
		}
		if st.BackgroundURL != "" {
			p := s.pixels(st.BackgroundURL)
			if p == nil || strings.HasPrefix(st.BackgroundURL, "data:") {
				return c, false
			}
			at, size, _ := strings.Cut(st.BackgroundFit, "/")
			if strings.Contains(size, "fixed") { // it stands still behind: anything of it may be there
				return c, false
			}
			if strings.Contains(size, "auto") {
				return c, false
			}
			fit := "cover"
			if strings.Contains(size, "contain") {
				fit = "contain"
			}
			d.under(fitted(p, fit, at, b.pw, b.ph, x-b.px, y-b.py), b.see)
		}
		if g, ok := s.hex(st.Background); ok {
			d.under(g, b.see)
		}
	}
	base, ok := s.hex(s.Root.Styles[s.zone].Behind)
	if !ok {
		base = colour.Colour{R: 255, G: 255, B: 255, A: 255}
	}
	d.under(base, 1)
	return d.colour(), true
}

// hex reads a colour, which is read again and again.
func (s *sight) hex(v string) (c colour.Colour, ok bool) {
	if v == "" {
		return c, false
	}
	if c, ok = s.colours[v]; ok {
		return c, true
	}
	c, err := colour.ParseHex(v)
	if err != nil {
		return c, false
	}
	if s.colours == nil {
		s.colours = map[string]colour.Colour{}
	}
	s.colours[v] = c
	return c, true
}

func (s *sight) pixels(address string) *colour.Pixels {
	if s.Pixels == nil || address == "" {
		return nil
	}
	return s.Pixels(address)
}

// fitted gives the colour of a picture that fills a box by object-fit (CSS Images 3 §5.5), at a
// place in the box; it is see-through where the picture isn't.
func fitted(p *colour.Pixels, fit, position string, w, h, x, y float64) colour.Colour {
	if p.W == 0 || p.H == 0 || w <= 0 || h <= 0 {
		return colour.Colour{}
	}
	sx, sy := w/float64(p.W), h/float64(p.H)
	switch fit {
	case "cover", "":
		sx = max(sx, sy)
		sy = sx
	case "contain":
		sx = min(sx, sy)
		sy = sx
	}
	iw, ih := sx*float64(p.W), sy*float64(p.H)
	ax, ay := position2(position)
	u, v := (x-(w-iw)*ax)/iw, (y-(h-ih)*ay)/ih
	if u < 0 || v < 0 || u > 1 || v > 1 {
		return colour.Colour{}
	}
	return p.At(u, v)
}

// position2 reads an object-position, "30% 70%", as parts of 1; the middle where it says none.
func position2(v string) (x, y float64) {
	x, y = 0.5, 0.5
	for i, f := range strings.Fields(v) {
		n, err := number.Real(strings.TrimSuffix(f, "%"))
		if err != nil || i > 1 {
			continue
		}
		if i == 0 {
			x = n / 100
		} else {
			y = n / 100
		}
	}
	return x, y
}

// layers parts background images at their commas.
func layers(v string) []string {
	parts := style.Parts(v)
	for i := range parts {
		parts[i] = strings.TrimSpace(parts[i])
	}
	return parts
}

// gradient is a CSS gradient, as package style writes it, read.
type gradient struct {
	kind  string // linear, radial or conic
	angle float64
	stops []stop
}

type stop struct {
	at float64
	c  colour.Colour
}

// readGradient reads one (CSS Images 4 §3); ok is false where it can't be.
func readGradient(v string) (g gradient, ok bool) {
	kind, rest, found := strings.Cut(v, "-gradient(")
	if !found || !strings.HasSuffix(rest, ")") || kind != "linear" && kind != "radial" && kind != "conic" {
		return g, false
	}
	parts := layers(strings.TrimSuffix(rest, ")"))
	g.kind, g.angle = kind, 180
	if a, is := strings.CutSuffix(strings.TrimPrefix(parts[0], "from "), "deg"); is {
		n, err := number.Real(a)
		if err != nil {
			return g, false
		}
		g.angle, parts = n, parts[1:]
	} else if kind == "conic" {
		g.angle = 0
	}
	for i, p := range parts {
		said, at, placed := strings.Cut(p, " ")
		col, err := colour.ParseHex(said)
		if err != nil {
			return g, false
		}
		s := stop{float64(i) / float64(max(len(parts)-1, 1)), col}
		if n, err := number.Real(strings.TrimSuffix(at, "%")); placed && err == nil {
			s.at = n / 100
		}
		g.stops = append(g.stops, s)
	}
	return g, len(g.stops) > 0
}

// gradients reads the gradients of a background, which is looked at again and again; nil where one
// can't be read.
func (s *sight) gradients(v string) []gradient {
	if gs, known := s.read[v]; known {
		return gs
	}
	var gs []gradient
	for _, l := range layers(v) {
		g, ok := readGradient(l)
		if !ok {
			gs = nil
			break
		}
		gs = append(gs, g)
	}
	if s.read == nil {
		s.read = map[string][]gradient{}
	}
	s.read[v] = gs
	return gs
}

// at gives the gradient's colour at a place in a box. Colours are mixed with their opacity (§3.4.3).
func (g *gradient) at(w, h, x, y float64) colour.Colour {
	var t float64
	switch g.kind {
	case "linear":
		sin, cos := math.Sincos(g.angle * math.Pi / 180)
		length := math.Abs(w*sin) + math.Abs(h*cos)
		t = ((x-w/2)*sin-(y-h/2)*cos)/length + 0.5
	case "radial": // to the farthest corner
		rx, ry := w/math.Sqrt2, h/math.Sqrt2
		t = math.Hypot((x-w/2)/rx, (y-h/2)/ry)
	default:
		t = math.Mod(math.Atan2(x-w/2, h/2-y)/(2*math.Pi)-g.angle/360+2, 1)
	}
	if t <= g.stops[0].at {
		return g.stops[0].c
	}
	for i := 1; i < len(g.stops); i++ {
		a, b := g.stops[i-1], g.stops[i]
		if t > b.at {
			continue
		}
		k := 0.0
		if b.at > a.at {
			k = (t - a.at) / (b.at - a.at)
		}
		alpha := float64(a.c.A)*(1-k) + float64(b.c.A)*k
		if alpha == 0 {
			return colour.Colour{}
		}
		mix := func(x, y uint8) uint8 {
			return uint8(math.Round((float64(x)*float64(a.c.A)*(1-k) + float64(y)*float64(b.c.A)*k) / alpha))
		}
		return colour.Colour{
			R: mix(a.c.R, b.c.R),
			G: mix(a.c.G, b.c.G),
			B: mix(a.c.B, b.c.B),
			A: uint8(math.Round(alpha)),
		}
	}
	return g.stops[len(g.stops)-1].c
}
