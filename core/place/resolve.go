package place

import (
	"cmp"
	"slices"

	"openplot/core/doc"
)

// Placed is where one block of a section stands in one zone.
type Placed struct {
	doc.Place
	// Derived is true when the rule placed it, false when somebody did.
	Derived bool
	Hidden  bool
}

// Resolve gives the placement of every block of a Placed arrangement in every zone:
// the first index is the zone's, the second the block's. In the other arrangements
// only Hidden means something.
//
// In the widest zone each block stands where it was put. In a narrower zone a
// block placed there by hand stays there; the others follow the rule: in the
// reading order of the next wider zone, each in full width, in rows of its own
// below one another, stepping over the rows that hand-placed blocks take. A
// block hidden in the zone takes no rows.
func Resolve(s doc.Holder, zs doc.Zones) [][]Placed {
	out := make([][]Placed, len(zs))
	for z := range zs {
		columns := s.Columns(zs, z)
		row := make([]Placed, len(s.Blocks))
		for i, b := range s.Blocks {
			row[i].Hidden = b.Hidden.Or(zs, z, false)
			if p, ok := b.Place[zs[z].ID]; ok {
				row[i].Place = Fit(p, columns)
			} else {
				row[i].Derived = true
			}
		}
		if z == 0 {
			for i := range row { // a block the widest zone has no place for stands first
				if row[i].Derived {
					row[i].Place = doc.Place{Column: 1, Span: columns, Row: 1, Rows: 1}
				}
			}
		} else {
			derive(s, row, out[z-1], columns)
		}
		out[z] = row
	}
	return out
}

func derive(s doc.Holder, row, wider []Placed, columns int) {
	next := 1
	for _, i := range order(wider) {
		if !row[i].Derived {
			continue
		}
		rows := 1
		if keepsRows(s.Blocks[i]) {
			rows = wider[i].Rows
		}
		p := doc.Place{Column: 1, Span: columns, Row: next, Rows: rows}
		if !row[i].Hidden {
			for moved := true; moved; {
				moved = false
				for _, h := range row {
					if !h.Derived && !h.Hidden && p.Overlaps(h.Place) {
						p.Row, moved = h.Row+h.Rows, true
					}
				}
			}
			next = p.Row + p.Rows
		}
		row[i].Place = p
	}
}

// keepsRows reports whether a block has no height but that of its rows, so that
// it needs as many of them in a narrower zone.
func keepsRows(b *doc.Block) bool {
	if b.Kind != doc.Picture {
		return false
	}
	for _, v := range b.Style["aspect-ratio"] {
		if v == "rows" {
			return true
		}
	}
	return false
}

// Order gives the indexes of the blocks in reading order for the widest zone, which
// is the order of the published document. In all arrangements but Placed it is the
// order they are held in.
func Order(s doc.Holder, zs doc.Zones) []int {
	if s.Arrangement != doc.Placed {
		seq := make([]int, len(s.Blocks))
		for i := range seq {
			seq[i] = i
		}
		return seq
	}
	return order(Resolve(s, zs[:1])[0])
}

// order sorts by what is seen: top to bottom by rows, left to right within a
// row. Blocks that overlap, directly or through others, stay together where the
// first of them stands, in their layer order.
func order(ps []Placed) []int {
	group := make([]int, len(ps)) // union-find by smallest reading position
	seq := make([]int, len(ps))
	for i := range seq {
		seq[i] = i
	}
	before := func(a, b int) int {
		p, q := ps[a], ps[b]
		return cmp.Or(cmp.Compare(p.Row, q.Row), cmp.Compare(p.Column, q.Column), cmp.Compare(p.Layer, q.Layer), cmp.Compare(a, b))
	}
	slices.SortFunc(seq, before)
	rank := make([]int, len(ps))
	for r, i := range seq {
		rank[i], group[i] = r, i
	}
	find := func(i int) int {
		for group[i] != i {
			i = group[i]
		}
		return i
	}
	for x, i := range seq {
		for _, j := range seq[x+1:] {
			if ps[j].Row >= ps[i].Row+ps[i].Rows {
				break
			}
			if !ps[i].Hidden && !ps[j].Hidden && ps[i].Overlaps(ps[j].Place) {
				a, b := find(i), find(j)
				if rank[a] > rank[b] {
					a, b = b, a
				}
				group[b] = a
			}
		}
	}
	root := make([]int, len(ps))
	for i := range ps {
		root[i] = find(i)
	}
	slices.SortStableFunc(seq, func(a, b int) int {
		if root[a] != root[b] {
			return cmp.Compare(rank[root[a]], rank[root[b]])
		}
		return cmp.Or(cmp.Compare(ps[a].Layer, ps[b].Layer), cmp.Compare(rank[a], rank[b]))
	})
	return seq
}

// Fit moves and narrows a placement until it lies within the columns.
func Fit(p doc.Place, columns int) doc.Place {
	p.Span = min(max(p.Span, 1), columns)
	p.Column = min(max(p.Column, 1), columns-p.Span+1)
	p.Rows = min(max(p.Rows, 1), doc.MaxRow)
	p.Row = min(max(p.Row, 1), doc.MaxRow-p.Rows+1)
	p.Layer = min(max(p.Layer, 0), doc.MaxLayer)
	return p
}
