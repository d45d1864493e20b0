package layout

import (
	"openplot/core/element"
	"openplot/core/number"
	"openplot/core/shape"
)

// natural gives the natural size in px of a replaced element, from its attributes. A frame
// has the default one (CSS Images 3 §4.2), and no ratio.
func natural(n *element.Node) (w, h float64) {
	if n.Tag == "iframe" {
		return 300, 150
	}
	for _, a := range n.Attrs {
		switch a.Name {
		case "width":
			w, _ = number.Real(a.Value)
		case "height":
			h, _ = number.Real(a.Value)
		}
	}
	if !(w > 0 && h > 0 && w < 1e9 && h < 1e9) { // false for NaN
		return 0, 0
	}
	return w, h
}

// naturalWidth is the border-box width that a replaced element has by itself: from
// its height and ratio when it has a height, else its natural one (CSS Images 3
// §4.2). fixed is true when a height decided it.
func (c *context) naturalWidth(o *object) (w float64, fixed bool) {
	s := c.style(o)
	in := c.inset(s, 0)
	w, h := o.natW, o.natH
	if px, ok := s.Height.Resolve(auto, c.viewport); ok {
		switch {
		case s.AspectRatio > 0:
			return shape.Floor64(px * s.AspectRatio), true
		case w > 0 && h > 0 && o.node.Tag != "iframe":
			return shape.Floor64(max(px-in.y(), 0)*w/h) + in.x(), true
		}
	}
	return w + in.x(), false
}

// replacedHeight gives the border-box height of a replaced element of a width: by
// its aspect ratio, which is the border box's, or else by its natural one, which
// is the content's (CSS Sizing 4 §5).
func (c *context) replacedHeight(o *object, w float64, in edges) float64 {
	if r := c.style(o).AspectRatio; r > 0 {
		return max(shape.Floor64(w/r), in.y())
	}
	nw, nh := o.natW, o.natH
	if nw <= 0 || nh <= 0 {
		return in.y()
	}
	if o.node.Tag == "iframe" {
		return nh + in.y()
	}
	return shape.Floor64((w-in.x())*nh/nw) + in.y()
}
