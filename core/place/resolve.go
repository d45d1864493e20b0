package place

import "openplot/core/doc"

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
// In the widest zone each block stands where it was put. In a narrower zone a block placed
// there by hand stands there; the others stand where the rule (derive.go) puts them, as if none
// had been: so that placing one by hand moves no other.
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
			hidden := make([]bool, len(row))
			for i := range row {
				hidden[i] = row[i].Hidden
			}
			for i, p := range derive(s, out[z-1], columns, s.Columns(zs, z-1), zs[z], zs[z-1], hidden) {
				if row[i].Derived {
					row[i].Place = Fit(p.Place, columns)
				}
			}
			if s.Arrangement == doc.Placed {
				reorder(s, row, zs[z].ID)
			}
		}
		out[z] = row
	}
	return out
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
	return order(s, Resolve(s, zs[:1])[0])
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
