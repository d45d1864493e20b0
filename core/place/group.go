package place

import "openplot/core/doc"

// Inside gives a placement in a grid of its own that covers an area of the one it was in.
func Inside(p, area doc.Place) doc.Place {
	p.Column -= area.Column - 1
	p.Row -= area.Row - 1
	return p
}

// Outside gives a placement of a grid with so many columns, which covers an area of another
// grid, in that one: as it is seen, to the nearest column.
func Outside(p, area doc.Place, columns int) doc.Place {
	edge := func(n int) int { return (2*n*area.Span + columns) / (2 * columns) }
	from, to := edge(p.Column-1), edge(p.Column-1+p.Span)
	p.Column, p.Span = area.Column+from, max(to-from, 1)
	p.Row += area.Row - 1
	p.Layer = min(p.Layer+area.Layer, doc.MaxLayer)
	return p
}

// Mirror gives a placement as it is seen from behind, with left and right changed over.
func Mirror(p doc.Place, columns int) doc.Place {
	p.Column = columns - p.Column - p.Span + 2
	return Fit(p, columns)
}

// MakeRoom gives how many rows all that begins at a row or below it has to go down, so that
// block i covers nothing of it: the block's own rows below the first of those that it covers.
// Both are 0 when it covers none.
func MakeRoom(ps []Placed, i int) (from, by int) {
	p := ps[i]
	for k, q := range ps {
		if k != i && !q.Hidden && q.Row >= p.Row && p.Overlaps(q.Place) && (from == 0 || q.Row < from) {
			from = q.Row
		}
	}
	if from > 0 {
		by = p.Row + p.Rows - from
	}
	return from, by
}

// Turn gives columns, by index, with each row of them turned round, and the pattern of
// their shares then; a nil pattern is equal columns.
func Turn(shares []int, n int) (order, pattern []int) {
	tracks, spans := ColumnSpans(shares, n)
	var row []int
	at := 0
	turn := func() {
		for k := len(row) - 1; k >= 0; k-- {
			order = append(order, row[k])
		}
		row, at = nil, 0
	}
	for i, span := range spans {
		if at+span > tracks {
			turn()
		}
		row = append(row, i)
		at += span
	}
	turn()
	if len(shares) == 0 {
		return order, nil
	}
	for _, i := range order {
		pattern = append(pattern, shares[i%len(shares)])
	}
	return order, shortest(pattern)
}

// shortest is the shortest pattern that makes the same when it is repeated.
func shortest(pattern []int) []int {
	for n := 1; n < len(pattern); n++ {
		repeats := true
		for i, v := range pattern {
			repeats = repeats && v == pattern[i%n]
		}
		if repeats {
			return pattern[:n]
		}
	}
	return pattern
}
