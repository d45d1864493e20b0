package place

import (
	"cmp"
	"slices"

	"openplot/core/doc"
	"openplot/core/value"
)

// What is done to several placements of one grid at once. All give new placements in the
// order of those given, none of which leaves the grid.

// Around is the smallest placement that covers all of them.
func Around(ps []doc.Place) doc.Place {
	out := ps[0]
	right, bottom := out.Column+out.Span, out.Row+out.Rows
	for _, p := range ps[1:] {
		out.Column, out.Row = min(out.Column, p.Column), min(out.Row, p.Row)
		right, bottom = max(right, p.Column+p.Span), max(bottom, p.Row+p.Rows)
	}
	out.Span, out.Rows = right-out.Column, bottom-out.Row
	return out
}

// Align puts placements to an edge or the middle of an area: value.Left, Center, Right, Top,
// Middle or Bottom. Middles are to the cell.
func Align(ps []doc.Place, how string, area doc.Place, columns int) []doc.Place {
	out := slices.Clone(ps)
	for i, p := range ps {
		switch how {
		case value.Left:
			p.Column = area.Column
		case value.Center:
			p.Column = area.Column + (area.Span-p.Span)/2
		case value.Right:
			p.Column = area.Column + area.Span - p.Span
		case value.Top:
			p.Row = area.Row
		case value.Middle:
			p.Row = area.Row + (area.Rows-p.Rows)/2
		case value.Bottom:
			p.Row = area.Row + area.Rows - p.Rows
		}
		out[i] = Fit(p, columns)
	}
	return out
}

// Spread leaves equal gaps between placements, across or down, the first and the last of
// which stay: equal as far as whole cells can be, the wider ones first.
func Spread(ps []doc.Place, across bool, columns int) []doc.Place {
	start := func(p doc.Place) int { return p.Row }
	size := func(p doc.Place) int { return p.Rows }
	if across {
		start, size = func(p doc.Place) int { return p.Column }, func(p doc.Place) int { return p.Span }
	}
	seq := make([]int, len(ps))
	free := 0
	for i, p := range ps {
		seq[i] = i
		free -= size(p)
	}
	slices.SortStableFunc(seq, func(a, b int) int {
		return cmp.Or(cmp.Compare(start(ps[a]), start(ps[b])), cmp.Compare(size(ps[a]), size(ps[b])))
	})
	out := slices.Clone(ps)
	if len(ps) < 3 {
		return out
	}
	last := ps[seq[len(seq)-1]]
	free += start(last) + size(last) - start(ps[seq[0]])
	gaps := len(ps) - 1
	at := start(ps[seq[0]])
	for n, i := range seq {
		if across {
			out[i].Column = max(at, 1)
		} else {
			out[i].Row = max(at, 1)
		}
		out[i] = Fit(out[i], columns)
		gap := free / gaps
		if rest := free % gaps; rest > n {
			gap++
		} else if rest < 0 && -rest > n {
			gap--
		}
		at += size(ps[i]) + gap
	}
	return out
}

// Same makes placements as wide or as high as the first one.
func Same(ps []doc.Place, width bool, columns int) []doc.Place {
	out := slices.Clone(ps)
	for i := range out {
		if width {
			out[i].Span = ps[0].Span
			out[i].Column = min(out[i].Column, columns-ps[0].Span+1)
		} else {
			out[i].Rows = ps[0].Rows
		}
		out[i] = Fit(out[i], columns)
	}
	return out
}

// Scale gives placements in another area in which they stand to one another as they did, to the
// nearest cell.
func Scale(ps []doc.Place, to doc.Place, columns int) []doc.Place {
	from := Around(ps)
	// edge is where a line of the old area, counted from its beginning, is in the new one.
	edge := func(n, was, now int) int { return (2*n*now + was) / (2 * was) }
	out := slices.Clone(ps)
	for i, p := range ps {
		left, right := edge(
			p.Column-from.Column,
			from.Span,
			to.Span,
		), edge(
			p.Column-from.Column+p.Span,
			from.Span,
			to.Span,
		)
		top, bottom := edge(p.Row-from.Row, from.Rows, to.Rows), edge(p.Row-from.Row+p.Rows, from.Rows, to.Rows)
		out[i].Column, out[i].Span = to.Column+left, max(right-left, 1)
		out[i].Row, out[i].Rows = to.Row+top, max(bottom-top, 1)
		out[i] = Fit(out[i], columns)
	}
	return out
}

// Apart gives placements with a gap of so many cells between one and the next, across or down,
// from the first on.
func Apart(ps []doc.Place, across bool, gap, columns int) []doc.Place {
	seq := make([]int, len(ps))
	for i := range seq {
		seq[i] = i
	}
	slices.SortStableFunc(seq, func(a, b int) int {
		if across {
			return cmp.Compare(ps[a].Column, ps[b].Column)
		}
		return cmp.Compare(ps[a].Row, ps[b].Row)
	})
	out := slices.Clone(ps)
	for n := 1; n < len(seq); n++ {
		was, p := out[seq[n-1]], &out[seq[n]]
		if across {
			p.Column = was.Column + was.Span + gap
		} else {
			p.Row = was.Row + was.Rows + gap
		}
		*p = Fit(*p, columns)
	}
	return out
}

// NudgeAll moves placements together by whole columns and rows, as far as all of them can go.
func NudgeAll(ps []doc.Place, dx, dy, columns int) []doc.Place {
	all := Around(ps)
	dx = min(max(dx, 1-all.Column), columns+1-all.Column-all.Span)
	dy = min(max(dy, 1-all.Row), doc.MaxRow+1-all.Row-all.Rows)
	out := slices.Clone(ps)
	for i := range out {
		out[i].Column += dx
		out[i].Row += dy
	}
	return out
}

// Tidy brings placements to the fewest different edges: left edges that are one column apart
// become the leftmost of them, and where they stand above one another the gaps become the
// commonest of those there are.
func Tidy(ps []doc.Place, columns int) []doc.Place {
	out := slices.Clone(ps)
	edges := make([]int, 0, len(ps))
	for _, p := range ps {
		edges = append(edges, p.Column)
	}
	slices.Sort(edges)
	for i := range out {
		to := out[i].Column
		for _, e := range edges { // the leftmost that is reached in steps of one
			if e > out[i].Column {
				break
			}
			if k, ok := slices.BinarySearch(edges, to-1); ok {
				to = edges[k]
			}
		}
		out[i].Column = to
		out[i] = Fit(out[i], columns)
	}
	// Those with one left edge stand above one another.
	byEdge := map[int][]int{}
	for i, p := range out {
		byEdge[p.Column] = append(byEdge[p.Column], i)
	}
	for _, column := range byEdge {
		slices.SortStableFunc(column, func(a, b int) int { return cmp.Compare(out[a].Row, out[b].Row) })
		count := map[int]int{}
		best := 0
		for n := 1; n < len(column); n++ {
			gap := out[column[n]].Row - out[column[n-1]].Row - out[column[n-1]].Rows
			if gap < 0 {
				continue
			}
			if count[gap]++; count[gap] > count[best] || count[gap] == count[best] && gap < best {
				best = gap
			}
		}
		for n := 1; n < len(column); n++ {
			above := out[column[n-1]]
			out[column[n]].Row = above.Row + above.Rows + best
			out[column[n]] = Fit(out[column[n]], columns)
		}
	}
	return out
}
