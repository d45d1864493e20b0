package layout

import (
	"math"
	"strconv"

	"openplot/core/element"
	"openplot/core/shape"
	"openplot/core/style"
)

// auto marks a size that content decides.
var auto = math.NaN()

// edges are the used widths of a box's padding and border, in px.
type edges struct{ top, right, bottom, left float64 }

func (e edges) x() float64 { return e.left + e.right }
func (e edges) y() float64 { return e.top + e.bottom }

// inset gives padding plus border; percentages are of the containing block's width
// (CSS Box 4 §4.1).
func (c *context) inset(s *style.Style, containing float64) edges {
	px := func(l style.Length) float64 { return shape.Floor64(l.Or(containing, c.viewport, 0)) + s.BorderWidth }
	return edges{px(s.Padding.Top), px(s.Padding.Right), px(s.Padding.Bottom), px(s.Padding.Left)}
}

// blockLevel lays out a block-level box in normal flow: its width fills the
// containing block's (CSS 2.2 §10.3.3). Y is left to the caller.
func (c *context) blockLevel(n *element.Node, containing float64) *Box {
	s := c.style(n)
	left := s.Margin.Left.Or(containing, c.viewport, 0)
	right := s.Margin.Right.Or(containing, c.viewport, 0)
	w, definite := s.Width.Resolve(containing, c.viewport)
	if !definite {
		w = containing - left - right
	}
	w = c.clampWidth(s, w, containing)
	if s.CenterX && w < containing {
		left = shape.Floor64((containing - w) / 2)
	}
	b := c.layout(n, w, auto, containing, auto)
	b.X = left
	return b
}

func (c *context) clampWidth(s *style.Style, w, containing float64) float64 {
	if m, ok := s.MaxWidth.Resolve(containing, c.viewport); ok {
		w = min(w, m)
	}
	return max(w, s.MinWidth.Or(containing, c.viewport, 0), 0)
}

func (c *context) clampHeight(s *style.Style, h, containing float64) float64 {
	if m, ok := s.MaxHeight.Resolve(containing, c.viewport); ok {
		h = min(h, m)
	}
	return max(h, s.MinHeight.Or(containing, c.viewport, 0), 0)
}

// layout lays out a box whose border-box width is w; h is its border-box height
// where the formatting context decides it, or auto. The containing block's sizes
// are what percentages are of.
func (c *context) layout(n *element.Node, w, h, containingW, containingH float64) *Box {
	s := c.style(n)
	in := c.inset(s, containingW)
	w = max(shape.Floor64(w), in.x())
	b := &Box{Node: n, W: w}
	if math.IsNaN(h) {
		if px, ok := s.Height.Resolve(containingH, c.viewport); ok {
			h = c.clampHeight(s, px, containingH)
		}
	}
	var content float64 // height of what stands inside
	inner := w - in.x()
	switch {
	case n.Replaced():
		content = c.replacedHeight(n, inner)
	case s.Display == style.Grid:
		content = c.grid(b, inner, in)
	case n.Inline():
		content = c.inline(b, inner, in)
	default:
		content = c.blockChildren(b, inner, in)
	}
	b.H = h
	if math.IsNaN(h) {
		b.H = c.clampHeight(s, content+in.y(), containingH)
	}
	b.H = max(b.H, in.y())
	c.absolute(b, s)
	return b
}

// blockChildren stacks children in block flow and gives their height. Margins do
// not collapse here: only a paragraph after another one has a margin at all, so
// that no two ever meet (docs/layout.md).
func (c *context) blockChildren(b *Box, inner float64, in edges) float64 {
	y := 0.0
	for _, child := range b.Node.Children {
		s := c.style(child)
		if s.Display == style.None || s.Position == style.Absolute {
			continue
		}
		k := c.blockLevel(child, inner)
		y += s.Margin.Top.Or(inner, c.viewport, 0)
		k.X += in.left
		k.Y = in.top + y
		y += k.H + s.Margin.Bottom.Or(inner, c.viewport, 0)
		b.Children = append(b.Children, k)
	}
	return y
}

// absolute lays out the children with position: absolute and inset: 0 in the
// padding box (CSS Positioned Layout 3 §4).
func (c *context) absolute(b *Box, s *style.Style) {
	for _, child := range b.Node.Children {
		cs := c.style(child)
		if cs.Position != style.Absolute || cs.Display == style.None {
			continue
		}
		border := s.BorderWidth
		w, h := b.W-2*border, b.H-2*border
		kw := c.clampWidth(cs, cs.Width.Or(w, c.viewport, w), w)
		kh := c.clampHeight(cs, cs.Height.Or(h, c.viewport, h), h)
		k := c.layout(child, kw, kh, w, h)
		k.X, k.Y = border, border
		b.Children = append(b.Children, k)
	}
}

// replacedHeight gives the content height of a replaced element of a width: by
// its aspect ratio, or by its natural one (CSS Images 3 §4.2, CSS Sizing 4 §5).
func (c *context) replacedHeight(n *element.Node, inner float64) float64 {
	ratio := c.style(n).AspectRatio
	if ratio <= 0 {
		w, h := natural(n)
		if w <= 0 || h <= 0 {
			return 0
		}
		ratio = w / h
	}
	return shape.Floor64(inner / ratio)
}

// natural gives the natural size of a replaced element, from its attributes.
func natural(n *element.Node) (w, h float64) {
	for _, a := range n.Attrs {
		switch a.Name {
		case "width":
			w, _ = strconv.ParseFloat(a.Value, 64)
		case "height":
			h, _ = strconv.ParseFloat(a.Value, 64)
		}
	}
	return w, h
}

// fitContent is min(max-content, max(min-content, available)) of the border box
// (CSS Sizing 3 §5.1).
func (c *context) fitContent(n *element.Node, available float64) float64 {
	least, most := c.intrinsicWidths(n)
	return min(most, max(least, available))
}

// intrinsicWidths gives the min-content and max-content widths of the border box.
// Percentages count as auto, padding ones as 0 (CSS Sizing 3 §5.2).
func (c *context) intrinsicWidths(n *element.Node) (least, most float64) {
	s := c.style(n)
	in := c.inset(s, 0)
	switch {
	case s.Width.Unit != style.Auto && s.Width.Unit != style.Percent:
		w := s.Width.Or(0, c.viewport, 0)
		return w, w
	case n.Replaced():
		most, _ = natural(n)
	case s.Display == style.Grid:
		least, most = c.gridIntrinsicWidths(n)
	case n.Inline():
		least, most = c.flow(n).intrinsicWidths()
	default:
		for _, child := range n.Children {
			cs := c.style(child)
			if cs.Display == style.None || cs.Position == style.Absolute {
				continue
			}
			a, b := c.intrinsicWidths(child)
			least, most = max(least, a), max(most, b)
		}
	}
	return least + in.x(), most + in.x()
}
