package place

import "openplot/core/doc"

// Nudge moves a placement by whole columns and rows and stops at the edges of the
// grid.
func Nudge(p doc.Place, dx, dy, columns int) doc.Place {
	p.Column += dx
	p.Row += dy
	return Fit(p, columns)
}

// Resize changes a placement's extent by whole columns and rows from its right
// and bottom edges; it never gets smaller than one cell or leaves the grid.
func Resize(p doc.Place, dx, dy, columns int) doc.Place {
	p.Span = min(max(p.Span+dx, 1), columns-p.Column+1)
	p.Rows = min(max(p.Rows+dy, 1), doc.MaxRow-p.Row+1)
	return p
}

// Span is how many of a grid's columns come nearest to a share in twelfths.
func Span(twelfths, columns int) int {
	return min(max((twelfths*columns+Twelfths/2)/Twelfths, 1), columns)
}

// FreeRow is the first row below every block of a zone's placements.
func FreeRow(ps []Placed) int {
	row := 1
	for _, p := range ps {
		if !p.Hidden {
			row = max(row, p.Row+p.Rows)
		}
	}
	return row
}

// Layers gives the layers of the blocks after block i went one step up (+1) or
// down (-1) past the nearest block it overlaps; when none is in the way nothing
// changes. Only blocks that overlap i, and i itself, can change.
func Layers(ps []Placed, i, step int) map[int]int {
	best := -1
	for j, p := range ps {
		if j == i || p.Hidden || !p.Overlaps(ps[i].Place) {
			continue
		}
		if above(ps, j, i) == (step > 0) && (best < 0 || above(ps, best, j) == (step > 0)) {
			best = j
		}
	}
	if best < 0 {
		return nil
	}
	a, b := ps[i].Layer, ps[best].Layer
	if a != b {
		return map[int]int{i: b, best: a}
	}
	// Same layer: document order decided, so that one of them needs another layer.
	if step > 0 {
		return map[int]int{i: min(a+1, doc.MaxLayer)}
	}
	if a > 0 {
		return map[int]int{i: a - 1}
	}
	return map[int]int{best: min(b+1, doc.MaxLayer)}
}

// above reports whether block a is drawn over block b.
func above(ps []Placed, a, b int) bool {
	if ps[a].Layer != ps[b].Layer {
		return ps[a].Layer > ps[b].Layer
	}
	for _, i := range order(ps) { // later in the document is on top
		if i == a {
			return false
		}
		if i == b {
			return true
		}
	}
	return false
}
