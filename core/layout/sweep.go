package layout

import (
	"runtime"
	"sync"
	"sync/atomic"

	"openplot/core/element"
)

// Swept holds the boxes of a tree at every whole width of a range.
type Swept struct {
	From, To int // px, both included
	Nodes    []*element.Node
	rects    []rect // by width, then by node
	lines    []uint16
}

type rect struct{ x, y, w, h float32 }

// Rect is the border box of node i at a width, from the page's top left corner, in
// px; ok is false where it has none.
func (s *Swept) Rect(i, width int) (x, y, w, h float64, ok bool) {
	r := s.rects[(width-s.From)*len(s.Nodes)+i]
	return float64(r.x), float64(r.y), float64(r.w), float64(r.h), r.w >= 0
}

// Lines is the number of lines of text that node i has at a width.
func (s *Swept) Lines(i, width int) int { return int(s.lines[(width-s.From)*len(s.Nodes)+i]) }

// Sweep lays the tree out at all whole widths from one to another, in px.
func (t *Tree) Sweep(from, to int) *Swept {
	s := &Swept{From: from, To: to, Nodes: make([]*element.Node, 0, t.count)}
	var walk func(*object) // in the order of their indexes
	walk = func(o *object) {
		s.Nodes = append(s.Nodes, o.node)
		for _, c := range o.children {
			walk(c)
		}
	}
	walk(t.root)
	s.rects = make([]rect, (to-from+1)*t.count)
	s.lines = make([]uint16, len(s.rects))
	t.Each(from, to, func(width int, root *Box) bool {
		rects := s.rects[(width-from)*t.count:][:t.count]
		lines := s.lines[(width-from)*t.count:][:t.count]
		for i := range rects {
			rects[i].w = -1
		}
		root.Walk(func(b *Box, x, y float64) {
			i := b.index
			rects[i] = rect{float32(x), float32(y), float32(b.W), float32(b.H)}
			lines[i] = uint16(len(b.Lines))
		})
		return true
	})
	return s
}

// stretchOfWidths is how many neighbouring widths one thread takes at a time, so
// that what stays alike from one to the next is found again.
const stretchOfWidths = 64

// Each calls visit with the layout at every whole width from one to another, on
// all processors at once and in no order, until visit gives false. The box is only to be read.
func (t *Tree) Each(from, to int, visit func(width int, root *Box) bool) {
	var next atomic.Int64
	next.Store(int64(from))
	var wg sync.WaitGroup
	for range runtime.GOMAXPROCS(0) {
		wg.Go(func() {
			c := t.context()
			for {
				start := int(next.Add(stretchOfWidths)) - stretchOfWidths
				if start > to {
					return
				}
				for w := start; w < start+stretchOfWidths && w <= to; w++ {
					if !visit(w, c.at(float64(w))) {
						next.Store(int64(to) + 1)
						return
					}
				}
			}
		})
	}
	wg.Wait()
}
