package layout

import (
	"math"

	"openplot/core/element"
	"openplot/core/style"
)

// Box is the border box of an element, without its place: the same box can stand
// in several layouts.
type Box struct {
	Node     *element.Node
	W, H     float64 // px
	Children []Child
	Lines    []Line
	Tracks   *Tracks // of a grid container, or nil
	// Baseline is the first baseline's distance from the top in px, NaN without one.
	Baseline float64
	index    int // of the object in its tree
}

// Tracks are the columns and rows of a grid, in px from its content edges.
type Tracks struct{ Columns, Rows []Span }

// Child is a box with the place of its top left corner in its parent's, in px.
type Child struct {
	X, Y float64
	*Box
}

// Line is a line box: its place within the border box of the block it stands in, how far its
// baseline lies below its top, and how many characters it has, spaces at its end not counted.
type Line struct {
	X, Y, W, H, Above float64
	Runes             int
	Alone             bool // they are one word
}

// Span is a stretch of an axis.
type Span struct{ Start, Size float64 }

// End is where the span ends.
func (s Span) End() float64 { return s.Start + s.Size }

// Walk calls f for the box and all below it with their absolute positions.
func (b *Box) Walk(f func(b *Box, x, y float64)) { b.walk(0, 0, f) }

func (b *Box) walk(x, y float64, f func(*Box, float64, float64)) {
	f(b, x, y)
	for _, c := range b.Children {
		c.walk(x+c.X, y+c.Y, f)
	}
}

// Overflow is how far what stands in the box reaches from its top left corner, in
// px: the scrollable overflow (CSS Overflow 3 §2.2) as far as it lies right and
// down, at least the box itself. What an inner scroll container hides doesn't
// count.
func (b *Box) Overflow(zone int) (w, h float64) {
	w, h = b.W, b.H
	for _, l := range b.Lines {
		w, h = max(w, l.X+l.W), max(h, l.Y+l.H)
	}
	for _, c := range b.Children {
		cw, ch := c.W, c.H
		if c.Node.Styles[zone].Overflow == style.Visible {
			cw, ch = c.Box.Overflow(zone)
		}
		w, h = max(w, c.X+cw), max(h, c.Y+ch)
	}
	return w, h
}

// baseline is the first baseline, made up from the bottom edge where there is none
// (CSS Box Alignment 3 §9.1).
func (b *Box) baseline() float64 {
	if math.IsNaN(b.Baseline) {
		return b.H
	}
	return b.Baseline
}

// Painted is the box that is painted in a zone, from the place of its own, in px: scaled and
// turned about its middle and moved, as the individual transform properties do it (CSS
// Transforms 2 §4), and the box around that. Other boxes aren't moved by it.
func (b *Box) Painted(zone int) (x, y, w, h float64) {
	st := &b.Node.Styles[zone]
	w, h = b.W, b.H
	if st.Rotate == 0 && st.ScaleX == 0 && st.ScaleY == 0 && st.TranslateX == 0 && st.TranslateY == 0 {
		return 0, 0, w, h
	}
	if st.ScaleX != 0 {
		w *= math.Abs(st.ScaleX)
	}
	if st.ScaleY != 0 {
		h *= math.Abs(st.ScaleY)
	}
	if st.Rotate != 0 {
		sin, cos := math.Sincos(st.Rotate * math.Pi / 180)
		w, h = math.Abs(w*cos)+math.Abs(h*sin), math.Abs(w*sin)+math.Abs(h*cos)
	}
	return (b.W-w)/2 + st.TranslateX, (b.H-h)/2 + st.TranslateY, w, h
}
