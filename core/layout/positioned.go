package layout

import (
	"openplot/core/shape"
	"openplot/core/style"
)

// positioned lays out the children with position: absolute, whose containing block
// is the padding box of their parent (CSS Positioned Layout 3 §3, §4). A side that
// isn't held counts from the start edge.
func (c *context) positioned(b *Box, o *object) {
	if o.inline {
		return
	}
	border := c.style(o).Border
	cw, ch := b.W-border.Left-border.Right, b.H-border.Top-border.Bottom
	for _, child := range o.children {
		s := c.style(child)
		if s.Position != style.Absolute || s.Display == style.None {
			continue
		}
		left, hasLeft := s.Inset.Left.Resolve(cw, c.viewport)
		right, hasRight := s.Inset.Right.Resolve(cw, c.viewport)
		top, hasTop := s.Inset.Top.Resolve(ch, c.viewport)
		bottom, hasBottom := s.Inset.Bottom.Resolve(ch, c.viewport)
		left, right, top, bottom = shape.Floor64(left), shape.Floor64(right), shape.Floor64(top), shape.Floor64(bottom)
		m := c.margins(s, cw)
		available := cw - left - right - m.x()
		w, ok := c.specifiedWidth(child, available, cw)
		switch {
		case ok:
		case child.replaced:
			w, _ = c.naturalWidth(child)
		case hasLeft && hasRight:
			w = available
		default:
			w = intrinsics{c}.fitContent(child, available, cw)
		}
		w = c.clampWidth(child, w, cw)
		h := auto
		if px, ok := s.Height.Resolve(ch, c.viewport); ok {
			h = c.clampHeight(s, shape.Floor64(px), ch)
		} else if hasTop && hasBottom && !child.replaced && s.AspectRatio == 0 {
			h = c.clampHeight(s, ch-top-bottom-m.y(), ch)
		}
		k := c.layout(child, constraint{w: w, h: h, cw: cw, ch: ch})
		x, y := left+m.left, top+m.top
		if !hasLeft && hasRight {
			x = cw - right - k.W - m.right
		}
		if !hasTop && hasBottom {
			y = ch - bottom - k.H - m.bottom
		}
		b.Children = append(b.Children, Child{border.Left + x, border.Top + y, k})
	}
}
