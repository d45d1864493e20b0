package place

import (
	"cmp"
	"slices"

	"openplot/core/doc"
)

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

// Again gives the place of a copy of block i: to its right where there is room and nothing
// stands, or else below it, over whatever is there.
func Again(ps []Placed, i, columns int) doc.Place {
	p := ps[i].Place
	p.Column += p.Span
	free := p.Column+p.Span-1 <= columns
	for _, q := range ps {
		free = free && (q.Hidden || !q.Overlaps(p))
	}
	if free {
		return p
	}
	p = ps[i].Place
	p.Row = min(p.Row+p.Rows, doc.MaxRow-p.Rows+1)
	p.Layer = min(p.Layer+1, doc.MaxLayer)
	return p
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
// changes. How any two other blocks lie on one another stays as it was, for which more
// of them may need another layer.
func Layers(ps []Placed, i, step int) map[int]int {
	past := -1
	for j, p := range ps {
		if j == i || p.Hidden || !p.Overlaps(ps[i].Place) {
			continue
		}
		if Above(ps, j, i) == (step > 0) && (past < 0 || Above(ps, past, j) == (step > 0)) {
			past = j
		}
	}
	if past < 0 {
		return nil
	}
	seq := paintOrder(ps)
	seq = slices.DeleteFunc(seq, func(j int) bool { return j == i })
	at := slices.Index(seq, past)
	if step > 0 {
		at++
	}
	seq = slices.Insert(seq, at, i)
	layers := map[int]int{}
	for n, b := range seq {
		layer := ps[b].Layer
		if b == i {
			layer = 0
		}
		for _, a := range seq[:n] {
			if !ps[a].Overlaps(ps[b].Place) {
				continue
			}
			need := layers[a] + 1
			if a != i && b != i && layers[a] == ps[a].Layer && ps[b].Layer == layers[a] {
				need = layers[a] // as they were, the document's order decides
			}
			layer = max(layer, need)
		}
		layers[b] = layer
	}
	for b, layer := range layers {
		if layer > doc.MaxLayer {
			return nil // there are no more
		}
		if layer == ps[b].Layer {
			delete(layers, b)
		}
	}
	return layers
}

// paintOrder gives the blocks from the lowest up.
func paintOrder(ps []Placed) []int {
	seq := order(doc.Holder{}, ps)
	slices.SortStableFunc(seq, func(a, b int) int { return cmp.Compare(ps[a].Layer, ps[b].Layer) })
	return seq
}

// Above reports whether block a is drawn over block b.
func Above(ps []Placed, a, b int) bool {
	if ps[a].Layer != ps[b].Layer {
		return ps[a].Layer > ps[b].Layer
	}
	for _, i := range order(doc.Holder{}, ps) { // later in the document is on top
		if i == a {
			return false
		}
		if i == b {
			return true
		}
	}
	return false
}
