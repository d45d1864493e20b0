package place

import (
	"math"

	"openplot/core/doc"
)

// Upward gives the place in the widest zone of something new that was put somewhere in the
// narrower zone z, and by how many rows others move down for it there, by index:
//
//   - What lies on another block there with half of it or more lies on it in the same place, in
//     proportion.
//   - What stands below another block stands below it, in its columns; where that isn't free, all
//     that begins further down makes room.
//   - What stands first stands first.
func Upward(h doc.Holder, zs doc.Zones, z int, at doc.Place) (to doc.Place, down map[int]int) {
	resolved := Resolve(h, zs)
	wide, narrow := resolved[0], resolved[z]
	columns := h.Columns(zs, 0)
	on, most, above, bottom := -1, 0, -1, 0
	for i, p := range narrow {
		if p.Hidden || wide[i].Hidden {
			continue
		}
		if o := overlap(p.Place, at); o > most && 2*o >= at.Span*at.Rows {
			on, most = i, o
		}
		if b := p.Row + p.Rows; b <= at.Row && b >= bottom {
			if b > bottom || above < 0 || shared(p.Place, at) > shared(narrow[above].Place, at) {
				above, bottom = i, b
			}
		}
	}
	to = doc.Place{Column: 1, Span: columns, Row: 1, Rows: at.Rows, Layer: at.Layer}
	if on >= 0 {
		was, now := narrow[on].Place, wide[on].Place
		scaled := func(n int) int { return int(math.Round(float64(n*now.Span) / float64(was.Span))) }
		to.Span = min(max(scaled(at.Span), 1), now.Span)
		to.Column = min(max(now.Column+scaled(at.Column-was.Column), now.Column), now.Column+now.Span-to.Span)
		to.Rows = min(at.Rows, now.Rows)
		to.Row = now.Row + int(math.Round(float64(at.Row-was.Row)/float64(was.Rows)*float64(now.Rows)))
		to.Layer = max(to.Layer, now.Layer+1)
		return Fit(to, columns), nil
	}
	if above >= 0 {
		a := wide[above].Place
		to.Column, to.Span, to.Row = a.Column, a.Span, a.Row+a.Rows
	}
	to = Fit(to, columns)
	taken := false
	for i, p := range wide {
		taken = taken || i != above && !p.Hidden && p.Overlaps(to)
	}
	if !taken {
		return to, nil
	}
	down = map[int]int{}
	for i, p := range wide {
		if p.Row >= to.Row && p.Row+p.Rows-1+to.Rows <= doc.MaxRow {
			down[i] = to.Rows
		}
	}
	return to, down
}

// shared is how many columns two places have in common.
func shared(p, q doc.Place) int {
	return max(min(p.Column+p.Span, q.Column+q.Span)-max(p.Column, q.Column), 0)
}
