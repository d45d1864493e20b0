package main

import (
	"openplot/core/doc"
	"openplot/core/place"
)

// gesture is what begin left for the moves.
type gesture struct {
	grid   place.Metrics
	at     doc.Place
	others []place.Rect
	area   place.Rect
}

// begun reads what a gesture begins with.
func begun(g, at, others, area []float64) gesture {
	next := func() float64 {
		if len(g) == 0 {
			return 0
		}
		v := g[0]
		g = g[1:]
		return v
	}
	list := func() []float64 {
		l := make([]float64, min(max(int(next()), 0), len(g)))
		copy(l, g)
		g = g[len(l):]
		return l
	}
	b := gesture{
		grid: place.Metrics{Columns: list(), Rows: list(), ColumnGap: next(), RowGap: next(), RowHeight: next()},
	}
	if len(at) >= 4 {
		b.at = doc.Place{Column: int(at[0]), Span: int(at[1]), Row: int(at[2]), Rows: int(at[3])}
	}
	b.others = rects(others)
	if a := rects(area); len(a) > 0 {
		b.area = a[0]
	}
	return b
}

func rects(f []float64) (rs []place.Rect) {
	for ; len(f) >= 4; f = f[4:] {
		rs = append(rs, place.Rect{X: f[0], Y: f[1], W: f[2], H: f[3]})
	}
	return rs
}

// numbers answers where a placement is: column, span, row, rows, x, y, width, height, the
// number of guides and of gaps, then 4 numbers a guide (1 for vertical, its position, its two
// ends) and 5 a gap (1 for across, where it is drawn, its two ends, 1 for equal to another).
func (g gesture) numbers(p doc.Place) []float64 {
	r := g.grid.Rect(p)
	guides, gaps := place.Guides(r, g.others, g.area), place.Gaps(r, g.others, g.area)
	guides = guides[:min(len(guides), 24)]
	out := []float64{
		float64(p.Column),
		float64(p.Span),
		float64(p.Row),
		float64(p.Rows),
		r.X,
		r.Y,
		r.W,
		r.H,
		float64(len(guides)),
		float64(len(gaps)),
	}
	flag := func(b bool) float64 {
		if b {
			return 1
		}
		return 0
	}
	for _, g := range guides {
		out = append(out, flag(g.Vertical), g.At, g.From, g.To)
	}
	for _, g := range gaps {
		out = append(out, flag(g.Across), g.At, g.From, g.To, flag(g.Equal))
	}
	return out
}

// inserted answers where something goes among blocks in order: its index, then the line's x, y,
// width and height.
func inserted(boxes []float64, across bool, area []float64, x, y float64) []float64 {
	var in place.Rect
	if rs := rects(area); len(rs) > 0 {
		in = rs[0]
	}
	g := place.Insert(rects(boxes), across, in, x, y)
	return []float64{float64(g.Index), g.Line.X, g.Line.Y, g.Line.W, g.Line.H}
}
