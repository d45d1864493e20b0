package layout

import "math"

// auto marks a size that content decides, or an indefinite one.
var auto = math.NaN()

func isAuto(v float64) bool { return v != v }

// constraint is the space that a formatting context gives a box, in px.
type constraint struct {
	w float64 // border-box width
	h float64 // border-box height where the formatting context decides it, or auto
	// cw and ch are the containing block's sizes, of which percentages are; ch is
	// auto where it is indefinite.
	cw, ch float64
	// content asks for the height of the content, as if height and its limits were
	// unset (CSS Flexbox 1 §7.2.1).
	content bool
	// loose marks h as indefinite for percentages inside: that of a flexed item in a
	// column whose own height is indefinite (§9.8).
	loose bool
	// beside is what floats take of it, from its content edges.
	beside floats
}

// when is what a result holds for beside its constraint: a zone, and the viewport's
// width where that plays a part.
type when struct {
	zone  int
	width float64
}

func (c *context) when(o *object) when {
	if c.facts(o).viewport {
		return when{c.zone, c.viewport.Width}
	}
	return when{c.zone, -1}
}

// slot keeps what was computed for one object. A box is often asked for under the
// same few constraints: to measure it, to stretch it, and at the next width.
type slot struct {
	entries  [4]entry
	next     int
	widths   intrinsicWidths
	widthsAt when
	known    bool
	// inset is that in a viewport and a containing block of these widths in px.
	inset   edges
	insetIn [2]float64
	// placed is where the items of a grid stand.
	placed  placement
	wrapped wrapped
}

type entry struct {
	constraint
	when when
	box  *Box
}

func same(a, b float64) bool { return a == b || a != a && b != b }

func (s *slot) find(k constraint, w when) *Box {
	for i := range s.entries {
		e := &s.entries[i]
		if e.box != nil && e.when == w && e.w == k.w && e.content == k.content && e.loose == k.loose &&
			e.beside == k.beside &&
			same(
				e.h, k.h,
			) &&
			same(
				e.cw, k.cw,
			) &&
			same(e.ch, k.ch) {
			return e.box
		}
	}
	return nil
}

func (s *slot) put(k constraint, w when, b *Box) {
	s.entries[s.next] = entry{k, w, b}
	s.next = (s.next + 1) % len(s.entries)
}
