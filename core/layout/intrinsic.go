package layout

import (
	"openplot/core/shape"
	"openplot/core/style"
)

// intrinsicWidths are the min-content and max-content widths of a border box in px.
type intrinsicWidths struct{ least, most float64 }

// intrinsic gives a box's intrinsic widths by its content, whatever its width
// property says (CSS Sizing 3 §5.1). Percentages in padding count as 0.
func (c intrinsics) intrinsic(o *object) intrinsicWidths {
	s := &c.slots[o.index]
	w := c.when(o)
	if s.known && s.widthsAt == w {
		return s.widths
	}
	if c.keep {
		o.mu.Lock()
		last := o.last
		o.mu.Unlock()
		if last.known && last.widthsAt == w {
			s.widths, s.widthsAt, s.known = last.widths, w, true
			return s.widths
		}
	}
	s.widths, s.widthsAt, s.known = c.contentWidths(o), w, true
	if c.keep {
		o.mu.Lock()
		o.last.widths, o.last.widthsAt, o.last.known = s.widths, w, true
		o.mu.Unlock()
	}
	return c.slots[o.index].widths
}

func (c intrinsics) contentWidths(o *object) intrinsicWidths {
	s := c.style(o)
	in := c.inset(s, 0).x()
	var v intrinsicWidths
	switch {
	case o.replaced:
		w, _ := c.naturalWidth(o)
		return intrinsicWidths{w, w}
	case s.AspectRatio > 0 && c.hasHeight(s, auto):
		h, _ := s.Height.Resolve(auto, c.viewport)
		w := max(c.clampHeight(s, h, auto)*s.AspectRatio, in)
		return intrinsicWidths{w, w}
	case s.Display == style.Grid:
		v = grids(c).gridIntrinsicWidths(o)
	case s.Display == style.Flex:
		v = flexing(c).flexIntrinsicWidths(o)
	case o.inline:
		v = inlines(c).flow(o).intrinsicWidths(s.OverflowWrap == style.Anywhere && !s.NoWrap)
	default:
		for _, child := range o.children {
			if k := c.style(child); k.Display != style.None && k.Position != style.Absolute {
				w := c.contribution(child)
				v.least, v.most = max(v.least, w.least), max(v.most, w.most)
			}
		}
	}
	return intrinsicWidths{v.least + in, v.most + in}
}

// contribution gives the min-content and max-content contributions of a box, its
// margins included (CSS Sizing 3 §5.2): its width where that is definite, within
// its limits. A replaced element with a percentage can be compressed to nothing
// (§5.2.2).
func (c intrinsics) contribution(o *object) intrinsicWidths {
	s := c.style(o)
	v := c.preferred(o)
	if o.replaced && (s.Width.OfBase() || s.MaxWidth.OfBase()) {
		v.least = 0
	}
	v.least, v.most = c.limitWidth(o, v.least), c.limitWidth(o, v.most)
	m := c.margins(s, 0).x()
	return intrinsicWidths{max(v.least+m, 0), max(v.most+m, 0)}
}

// preferred gives the intrinsic widths under a definite width, if there is one.
func (c intrinsics) preferred(o *object) intrinsicWidths {
	s := c.style(o)
	switch s.Width.Unit {
	case style.MinContent:
		v := c.intrinsic(o)
		return intrinsicWidths{v.least, v.least}
	case style.MaxContent:
		v := c.intrinsic(o)
		return intrinsicWidths{v.most, v.most}
	}
	if w, ok := s.Width.Resolve(auto, c.viewport); ok {
		w = max(shape.Floor64(w), c.inset(s, 0).x())
		return intrinsicWidths{w, w}
	}
	return c.intrinsic(o)
}

// limitWidth applies the definite ones of min-width and max-width.
func (c intrinsics) limitWidth(o *object, w float64) float64 {
	s := c.style(o)
	if m, ok := c.sizeIn(o, s.MaxWidth, auto, auto); ok && s.MaxWidth.Unit != style.FitContent {
		w = min(w, m)
	}
	if m, ok := c.sizeIn(o, s.MinWidth, auto, auto); ok && s.MinWidth.Unit != style.FitContent {
		w = max(w, m)
	}
	return max(w, c.inset(s, 0).x())
}

// within gives a box's intrinsic widths in a containing block of a width in px, of which
// percentages in padding are then; auto counts them as 0.
func (c intrinsics) within(o *object, cw float64) intrinsicWidths {
	v := c.intrinsic(o)
	if !isAuto(cw) && !c.facts(o).hasInset && !o.replaced {
		more := c.insetOf(o, cw).x() - c.inset(c.style(o), 0).x()
		v.least, v.most = v.least+more, v.most+more
	}
	return v
}

// fitContent is min(max-content, max(min-content, available)) of the border box in a containing
// block of a width in px (CSS Sizing 3 §5.1).
func (c intrinsics) fitContent(o *object, available, cw float64) float64 {
	v := c.within(o, cw)
	return min(v.most, max(v.least, available))
}
