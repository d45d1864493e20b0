package layout

import (
	"math"

	"openplot/core/shape"
	"openplot/core/style"
)

// floats is what floats take of a box's content: so much from its left and its right
// edge down to bottom, all in px from the content box. A box has one at most on either
// side (docs/layout.md), and none is taller than what it takes.
type floats struct{ left, right, bottom float64 }

// in gives the part that falls on a box which stands at x and y in the content and is w
// px wide, from that box's own content edges.
func (f floats) in(x, y, w, room float64, in edges) floats {
	g := floats{max(f.left-x-in.left, 0), max(f.right-(room-x-w)-in.right, 0), f.bottom - y - in.top}
	if g.bottom <= 0 || g.left == 0 && g.right == 0 {
		return floats{}
	}
	return g
}

// float lays a floated child out at the height y (CSS 2.2 §9.5.1) and adds it; what is
// beside it afterwards is in the floats given back. Its margins don't collapse.
func (c inlines) float(b *Box, child *object, room space, in edges, y float64, f floats) floats {
	s := c.style(child)
	m := c.margins(s, room.w)
	k := c.layout(child, constraint{w: c.usedWidth(child, room.w, room.percent), h: auto, cw: room.w, ch: room.percent})
	x := m.left
	if s.Float == style.FloatRight {
		x = room.w - m.right - k.W
		f.right = k.W + m.x()
	} else {
		f.left = k.W + m.x()
	}
	f.bottom = max(f.bottom, y+m.top+k.H+m.bottom)
	b.Children = append(b.Children, Child{in.left + x, in.top + y + m.top, k})
	return f
}

// wrapBeside lays out lines of text beside floats and gives their height. A line whose
// top is above the floats' bottom is shortened; one that isn't even wide enough for a
// word begins below them (§9.5).
func (c inlines) wrapBeside(b *Box, o *object, inner float64, in edges, f floats) float64 {
	text, s := c.flow(o), c.style(o)
	y := 0.0
	place := func(p *shape.Paragraph, l shape.Line) {
		x, room := 0.0, inner
		if y < f.bottom {
			x, room = f.left, inner-f.left-f.right
		}
		switch free := max(room-l.Width, 0); s.TextAlign {
		case style.TextCenter:
			x += free / 2
		case style.TextEnd:
			x += free
		}
		runes, alone := p.Words(l)
		b.Lines = append(b.Lines, Line{in.left + x, in.top + y, l.Width, l.Above + l.Below, l.Above, runes, alone})
		y += l.Above + l.Below
	}
	for _, p := range text.segments {
		w := shape.Wrapping{
			Above:      text.above,
			Below:      text.below,
			BreakWords: s.OverflowWrap != style.WrapNormal && !s.NoWrap,
		}
		var at shape.Cursor
		for some := false; ; some = true {
			w.Width = inner
			if y < f.bottom {
				w.Width = inner - f.left - f.right
			}
			l, next, fits, ok := p.Next(at, w)
			if !ok {
				if !some {
					place(p, shape.Line{Above: text.above, Below: text.below})
				}
				break
			}
			if !fits && y < f.bottom && inner > max(w.Width, 0) { // there is more room below
				y = f.bottom
				continue
			}
			place(p, l)
			at = next
		}
	}
	if len(b.Lines) > 0 {
		b.Baseline = b.Lines[0].Y + b.Lines[0].Above
	}
	return math.Max(y, 0)
}
