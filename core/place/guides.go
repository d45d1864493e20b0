package place

import "math"

// Guide is a line to draw while dragging: an edge or a middle falls together with another's.
type Guide struct {
	Vertical bool
	At       float64 // px: x of a vertical guide, y of a horizontal one
	From, To float64 // px along the line
}

// close is within how many px edges are seen as one.
const close = 0.5

// Guides gives the lines on which edges and middles of a box fall together with those of
// others, and of the area that they are in; all in px of one origin.
func Guides(r Rect, others []Rect, area Rect) []Guide {
	var gs []Guide
	add := func(vertical bool, at, from, to float64) {
		for i := range gs {
			if gs[i].Vertical == vertical && math.Abs(gs[i].At-at) < close {
				gs[i].From, gs[i].To = min(gs[i].From, from), max(gs[i].To, to)
				return
			}
		}
		gs = append(gs, Guide{vertical, at, from, to})
	}
	lines := func(from, size float64) [3]float64 { return [3]float64{from, from + size/2, from + size} }
	meet := func(a, b [3]float64, f func(at float64)) {
		for i, x := range a {
			for k, y := range b {
				if (i == 1) == (k == 1) && math.Abs(x-y) < close { // edges with edges, middles with middles
					f(x)
				}
			}
		}
	}
	xs, ys := lines(r.X, r.W), lines(r.Y, r.H)
	for _, o := range others {
		meet(xs, lines(o.X, o.W), func(at float64) { add(true, at, min(r.Y, o.Y), max(r.Y+r.H, o.Y+o.H)) })
		meet(ys, lines(o.Y, o.H), func(at float64) { add(false, at, min(r.X, o.X), max(r.X+r.W, o.X+o.W)) })
	}
	if area.W > 0 {
		meet(xs, lines(area.X, area.W), func(at float64) { add(true, at, area.Y, max(area.Y+area.H, r.Y+r.H)) })
	}
	return gs
}

// GapMark is the room between two boxes, to draw with its size while dragging.
type GapMark struct {
	Across   bool    // from left to right, otherwise from top to bottom
	At       float64 // px: y of one across, x of one down
	From, To float64
	Equal    bool // as large as another one beside it
}

// Gaps gives the room between a box and what is next to it on each side, or the area's edge
// at the sides, and where that is as large as the room beyond, or on the other side, both.
func Gaps(r Rect, others []Rect, area Rect) []GapMark {
	return append(gaps(r, others, area, true), gaps(r, others, area, false)...)
}

func gaps(r Rect, others []Rect, area Rect, across bool) (out []GapMark) {
	start := func(r Rect) float64 { return r.Y }
	end := func(r Rect) float64 { return r.Y + r.H }
	low := func(r Rect) float64 { return r.X }
	high := func(r Rect) float64 { return r.X + r.W }
	if across {
		start, end, low, high = low, high, start, end
	}
	// next is the box that is nearest before or behind one, of those that it faces.
	next := func(of Rect, behind bool) (found Rect, gap float64) {
		gap = math.Inf(1)
		for _, o := range others {
			if low(o) >= high(of)-close || high(o) <= low(of)+close {
				continue
			}
			d := start(of) - end(o)
			if behind {
				d = start(o) - end(of)
			}
			if d > -close && d < gap {
				found, gap = o, max(d, 0)
			}
		}
		return found, gap
	}
	mark := func(a, b Rect, from, to float64, equal bool) {
		if to-from < close {
			return
		}
		out = append(out, GapMark{across, (max(low(a), low(b)) + min(high(a), high(b))) / 2, from, to, equal})
	}
	same := func(a, b float64) bool { return math.Abs(a-b) < 1 && !math.IsInf(a, 0) && a > close }
	before, left := next(r, false)
	behind, right := next(r, true)
	equal := same(left, right)
	for _, side := range []struct {
		box    Rect
		gap    float64
		behind bool
	}{{before, left, false}, {behind, right, true}} {
		if math.IsInf(side.gap, 0) {
			if across && area.W > 0 { // to the area's edge
				if side.behind {
					mark(r, r, end(r), end(area), false)
				} else {
					mark(r, r, start(area), start(r), false)
				}
			}
			continue
		}
		beyond, further := next(side.box, side.behind)
		again := same(side.gap, further)
		if side.behind {
			mark(r, side.box, end(r), start(side.box), equal || again)
			if again {
				mark(side.box, beyond, end(side.box), start(beyond), true)
			}
			continue
		}
		mark(r, side.box, end(side.box), start(r), equal || again)
		if again {
			mark(side.box, beyond, end(beyond), start(side.box), true)
		}
	}
	return out
}
