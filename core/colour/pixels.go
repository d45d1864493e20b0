package colour

// Pixels is a picture, mostly a small copy of one, from left to right and top to bottom.
type Pixels struct {
	W, H int
	RGBA []Colour
}

// At gives the colour at a place, 0 to 1 from the left and from the top.
func (p *Pixels) At(x, y float64) Colour {
	c := min(max(int(x*float64(p.W)), 0), p.W-1)
	r := min(max(int(y*float64(p.H)), 0), p.H-1)
	return p.RGBA[r*p.W+c]
}
