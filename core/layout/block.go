package layout

import (
	"math"

	"openplot/core/shape"
	"openplot/core/style"
)

// edges are the used widths of a box's sides, in px.
type edges struct{ top, right, bottom, left float64 }

func (e edges) x() float64 { return e.left + e.right }
func (e edges) y() float64 { return e.top + e.bottom }

// inset gives padding plus border; percentages are of the containing block's width
// (CSS Box 4 §4.1), 0 where that is indefinite.
func (c *context) inset(s *style.Style, cw float64) edges {
	p := &s.Padding
	return edges{
		max(c.px(&p.Top, cw), 0) + s.Border.Top, max(c.px(&p.Right, cw), 0) + s.Border.Right,
		max(c.px(&p.Bottom, cw), 0) + s.Border.Bottom, max(c.px(&p.Left, cw), 0) + s.Border.Left,
	}
}

// insetOf is inset of an element, from memory where it is the same as before.
func (c *context) insetOf(o *object, cw float64) edges {
	if f := c.facts(o); f.hasInset {
		return f.inset
	}
	s := &c.slots[o.index]
	if s.insetIn != [2]float64{c.viewport.Width, cw} {
		s.inset, s.insetIn = c.inset(c.style(o), cw), [2]float64{c.viewport.Width, cw}
	}
	return s.inset
}

// marginsOf is margins of an element, from memory where they are always the same.
func (c *context) marginsOf(o *object, cw float64) edges {
	if f := c.facts(o); f.hasMargin {
		return f.margin
	}
	return c.margins(c.style(o), cw)
}

// px resolves a length that is 0 where it can't be; most are auto, or px.
func (c *context) px(l *style.Length, base float64) float64 {
	switch l.Unit {
	case style.Auto:
		return 0
	case style.Px:
		return shape.Floor64(l.N)
	}
	return shape.Floor64(l.Or(base, c.viewport, 0))
}

// margins gives the used margins, auto ones as 0.
func (c *context) margins(s *style.Style, cw float64) edges {
	px := func(l *style.Length, side style.Sides) float64 {
		if s.MarginAuto&side != 0 {
			return 0
		}
		return c.px(l, cw)
	}
	m := &s.Margin
	return edges{px(&m.Top, style.Top), px(&m.Right, style.Right), px(&m.Bottom, style.Bottom), px(&m.Left, style.Left)}
}

// layout lays a box out in the space it is given.
func (c *context) layout(o *object, k constraint) *Box {
	if !c.facts(o).containing {
		k.cw, k.ch = 0, auto
	}
	s := &c.slots[o.index]
	w := c.when(o)
	if b := s.find(k, w); b != nil {
		return b
	}
	if c.keep {
		o.mu.Lock()
		b := o.last.find(k, w)
		o.mu.Unlock()
		if b != nil {
			s.put(k, w, b)
			return b
		}
	}
	b := c.compute(o, k)
	s.put(k, w, b)
	if c.keep {
		o.mu.Lock()
		o.last.put(k, w, b)
		o.mu.Unlock()
	}
	return b
}

// space is the content box of a container: a width, a height where it is definite,
// and what the height is bounded by.
type space struct {
	w, h       float64
	percent    float64 // what percentages of the height are of, or auto
	minH, maxH float64
}

// bound clamps a content height.
func (s space) bound(h float64) float64 { return max(min(h, s.maxH), s.minH) }

func (c *context) compute(o *object, k constraint) *Box {
	s, f := c.style(o), c.facts(o)
	in := c.insetOf(o, k.cw)
	b := &Box{Node: o.node, index: o.index, W: max(shape.Floor64(k.w), in.x()), Baseline: auto}
	h, least := k.h, 0.0
	if isAuto(h) && !k.content && !f.autoHeight {
		if px, ok := s.Height.Resolve(k.ch, c.viewport); ok {
			h = c.clampHeight(s, shape.Floor64(px), k.ch)
		} else if s.AspectRatio > 0 && !o.replaced {
			// The ratio's height, but no less than the content's (CSS Sizing 4 §5.1).
			least = shape.Floor64(b.W / s.AspectRatio)
			if s.Overflow.Scrolls() {
				h = c.clampHeight(s, least, k.ch)
			}
		}
	}
	if !isAuto(h) {
		h = max(h, in.y())
	}
	room := space{w: b.W - in.x(), h: h - in.y(), percent: h - in.y(), minH: 0, maxH: math.Inf(1)}
	if k.loose {
		room.percent = auto
	}
	if isAuto(h) && !k.content && !(f.anyHeight && least == 0) {
		room.minH = max(c.clampHeight(s, 0, k.ch), least) - in.y()
		room.minH = max(room.minH, 0)
		room.maxH = max(c.clampHeight(s, math.Inf(1), k.ch)-in.y(), room.minH)
	}
	var content float64 // height of what stands inside
	switch {
	case o.replaced:
		content = c.replacedHeight(o, b.W, in) - in.y()
	case f.display == style.Grid:
		content = grids{c}.grid(b, o, room, in)
	case f.display == style.Flex:
		content = flexing{c}.flex(b, o, room, in)
	case o.inline:
		if k.beside != (floats{}) {
			content = inlines{c}.wrapBeside(b, o, room.w, in, k.beside)
		} else {
			content = inlines{c}.inline(b, o, room.w, in)
		}
	default:
		content = c.blockChildren(b, o, room, in, k.beside)
	}
	b.H = h
	if k.content {
		b.H = max(content+in.y(), least)
	} else if isAuto(h) {
		if b.H = max(content+in.y(), least); !f.anyHeight {
			b.H = c.clampHeight(s, b.H, k.ch)
		}
	}
	b.H = max(b.H, in.y())
	if f.holds {
		c.positioned(b, o)
	}
	return b
}

// blockChildren stacks children in block flow and gives their height. Margins do
// not collapse here: emit writes no two that meet (docs/layout.md). A negative margin below
// the last child doesn't make the height less, as browsers have it.
func (c *context) blockChildren(b *Box, o *object, room space, in edges, beside floats) float64 {
	y, edge, floated := 0.0, 0.0, 0.0
	for _, child := range o.children {
		f := c.facts(child)
		if !f.inFlow() {
			continue
		}
		if f.floated {
			beside = inlines{c}.float(b, child, room, in, y, beside)
			floated = max(floated, beside.bottom)
			continue
		}
		m := c.marginsOf(child, room.w)
		w := c.usedWidth(child, room.w, room.percent)
		k := c.layout(
			child,
			constraint{
				w:      w,
				h:      auto,
				cw:     room.w,
				ch:     room.percent,
				beside: beside.in(m.left, y+m.top, w, room.w, c.insetOf(child, room.w)),
			},
		)
		x := m.left
		if free := room.w - k.W - m.x(); free > 0 { // auto margins (CSS 2.2 §10.3.3)
			switch f.marginAuto & (style.Left | style.Right) {
			case style.Left | style.Right:
				x += shape.Floor64(free / 2)
			case style.Left:
				x += free
			}
		}
		y += m.top
		if isAuto(b.Baseline) && !isAuto(k.Baseline) {
			b.Baseline = in.top + y + k.Baseline
		}
		if b.Children == nil {
			b.Children = make([]Child, 0, len(o.children))
		}
		b.Children = append(b.Children, Child{in.left + x, in.top + y, k})
		edge = y + k.H
		y = edge + m.bottom
	}
	return max(y, edge, floated) // what has floats of its own is a formatting context (docs/layout.md)
}

// usedWidth gives the border-box width of a block-level box in normal flow: it
// fills the containing block's unless it has one (CSS 2.2 §10.3.3, §10.4).
func (c *context) usedWidth(o *object, cw, ch float64) float64 {
	available := cw - c.marginsOf(o, cw).x()
	if c.facts(o).autoWidth && !o.replaced {
		return c.clampWidth(o, available, cw)
	}
	s := c.style(o)
	w, ok := c.specifiedWidth(o, available, cw)
	switch {
	case ok:
	case o.replaced:
		w, _ = c.naturalWidth(o)
	case s.AspectRatio > 0 && s.Width.Unit == style.Auto && c.hasHeight(s, ch):
		h, _ := s.Height.Resolve(ch, c.viewport)
		w = h * s.AspectRatio
	default:
		w = available
	}
	return c.clampWidth(o, w, cw)
}

func (c *context) hasHeight(s *style.Style, ch float64) bool {
	_, ok := s.Height.Resolve(ch, c.viewport)
	return ok
}

// specifiedWidth resolves the width property; ok is false for auto.
func (c *context) specifiedWidth(o *object, available, cw float64) (w float64, ok bool) {
	return c.sizeIn(o, c.style(o).Width, available, cw)
}

// sizeIn resolves a width: a length, or a keyword by intrinsic sizes.
func (c *context) sizeIn(o *object, l style.Length, available, cw float64) (w float64, ok bool) {
	switch l.Unit {
	case style.MinContent:
		return intrinsics{c}.within(o, cw).least, true
	case style.MaxContent:
		return intrinsics{c}.within(o, cw).most, true
	case style.FitContent:
		return intrinsics{c}.fitContent(o, available, cw), true
	}
	w, ok = l.Resolve(cw, c.viewport)
	return shape.Floor64(w), ok
}

// clampWidth applies min-width and max-width; an automatic minimum is 0.
func (c *context) clampWidth(o *object, w, cw float64) float64 {
	if c.facts(o).anyWidth {
		return max(w, c.insetOf(o, cw).x())
	}
	s := c.style(o)
	if m, ok := c.sizeIn(o, s.MaxWidth, cw, cw); ok {
		w = min(w, m)
	}
	if m, ok := c.sizeIn(o, s.MinWidth, cw, cw); ok {
		w = max(w, m)
	}
	return max(w, c.insetOf(o, cw).x())
}

func (c *context) clampHeight(s *style.Style, h, ch float64) float64 {
	if s.MaxHeight.Unit == style.Auto && s.MinHeight.Unit == style.Auto {
		return max(h, 0)
	}
	if m, ok := s.MaxHeight.Resolve(ch, c.viewport); ok {
		h = min(h, shape.Floor64(m))
	}
	if m, ok := s.MinHeight.Resolve(ch, c.viewport); ok {
		h = max(h, shape.Floor64(m))
	}
	return max(h, 0)
}
