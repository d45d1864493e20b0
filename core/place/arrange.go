package place

import (
	"cmp"
	"slices"
	"strconv"
	"strings"

	"openplot/core/doc"
	"openplot/core/value"
)

// Arranged is how blocks stand after a change of arrangement.
type Arranged struct {
	Children []Stack
	// Shares is the pattern of Columns for the widest zone, or "" for equal ones.
	Shares string
	// Across tells whether a Line-up goes across.
	Across bool
}

// Stack is what becomes one child of the new arrangement: a block, or more that are to
// stand below one another in a container of their own. Emptied is the container that
// held a single block or more before, when it isn't needed any longer.
type Stack struct {
	Blocks  []*doc.Block
	Emptied *doc.Block
	// Place is its cells in a Placed arrangement.
	Place doc.Place
}

// Rearrange gives the blocks of a holder another arrangement. No block is lost, and
// each keeps its placements, so that they are still there on the way back:
//
//   - Placed to Columns: rows are cut wherever no block crosses, since what is above
//     the cut is read before what is below; within such a band, blocks that share a
//     grid column stand in one column, below one another. A column's share is from its
//     left edge to the next one's.
//   - Placed to a Line-up: all in reading order, across when they stand side by side
//     in one band, down otherwise.
//   - Columns to Placed: each in the cells it covers already. A column that is a mere
//     stack is taken apart, since in a grid its blocks have cells of their own.
//   - Columns to a Line-up, and back: children stay what they are; one row of columns
//     is a line across, and a line down becomes columns of full width.
//   - A Line-up to Placed: as columns, below one another or side by side.
func Rearrange(h doc.Holder, to doc.Arrangement, zs doc.Zones) Arranged {
	switch {
	case h.Arrangement == to:
		return asTheyAre(h)
	case to == doc.Placed:
		return toPlaced(h, zs)
	case h.Arrangement == doc.Placed && to == doc.Columns:
		return toColumns(h, zs)
	case h.Arrangement == doc.Placed:
		a := Arranged{Across: len(Bands(Resolve(h, zs[:1])[0], true)) == 1 && len(h.Blocks) > 1}
		for _, i := range Order(h, zs) {
			a.Children = append(a.Children, Stack{Blocks: h.Blocks[i : i+1]})
		}
		return a
	}
	a := asTheyAre(h)
	if to == doc.Columns && !across(h, zs) {
		a.Shares = strconv.Itoa(Twelfths)
	}
	a.Across = to == doc.LineUp && len(h.Blocks) > 1 && rowsOf(h, zs) == 1
	return a
}

func asTheyAre(h doc.Holder) Arranged {
	var a Arranged
	for i := range h.Blocks {
		a.Children = append(a.Children, Stack{Blocks: h.Blocks[i : i+1]})
	}
	return a
}

// across reports whether a Line-up goes across in the widest zone.
func across(h doc.Holder, zs doc.Zones) bool {
	return h.Style["direction"].Or(zs, 0, "") == value.Row
}

// rowsOf is how many rows the columns take in the widest zone.
func rowsOf(h doc.Holder, zs doc.Zones) int {
	tracks, spans := ColumnSpans(Shares(h, zs, 0), len(h.Blocks))
	rows, at := 1, 0
	for _, s := range spans {
		if at+s > tracks {
			rows, at = rows+1, 0
		}
		at += s
	}
	return rows
}

func toColumns(h doc.Holder, zs doc.Zones) Arranged {
	ps := Resolve(h, zs[:1])[0]
	rank := make([]int, len(ps))
	for r, i := range Order(h, zs) {
		rank[i] = r
	}
	columns := h.Columns(zs, 0)
	var a Arranged
	var shares []string
	for _, b := range Bands(ps, true) {
		slices.SortStableFunc(b, func(x, y int) int { return cmp.Compare(ps[x].Column, ps[y].Column) })
		type column struct {
			from, to int
			blocks   []int
		}
		var cs []column
		for _, i := range b {
			p := ps[i]
			if k := len(cs) - 1; k >= 0 && p.Column < cs[k].to {
				cs[k].to = max(cs[k].to, p.Column+p.Span)
				cs[k].blocks = append(cs[k].blocks, i)
				continue
			}
			cs = append(cs, column{p.Column, p.Column + p.Span, []int{i}})
		}
		edge := 0 // twelfths given away in this band
		for k, c := range cs {
			slices.SortFunc(c.blocks, func(x, y int) int { return cmp.Compare(rank[x], rank[y]) })
			var s Stack
			for _, i := range c.blocks {
				s.Blocks = append(s.Blocks, h.Blocks[i])
			}
			a.Children = append(a.Children, s)
			end := Twelfths
			if k+1 < len(cs) {
				end = (Twelfths*(cs[k+1].from-1) + columns/2) / columns
			}
			end = min(max(end, edge+1), Twelfths-(len(cs)-1-k))
			shares = append(shares, strconv.Itoa(max(end-edge, 1)))
			edge = end
		}
	}
	if len(shares) <= MaxShares {
		a.Shares = strings.Join(shares, " ")
	}
	return a
}

// mereStack reports whether a container only makes its blocks stand below one another.
func mereStack(b *doc.Block, zs doc.Zones) bool {
	return b.Kind == doc.Container && b.Arrangement == doc.LineUp && !across(b.Holder(), zs) && len(b.Blocks) > 0 &&
		b.Name == "" && !slices.ContainsFunc([]string{
		"background", "border-width", "box-shadow", "padding-top", "min-height",
	}, func(s string) bool { return b.Style[s] != nil })
}

func toPlaced(h doc.Holder, zs doc.Zones) Arranged {
	columns := h.Columns(zs, 0)
	tracks, spans := 1, make([]int, len(h.Blocks))
	switch {
	case h.Arrangement == doc.Columns:
		tracks, spans = ColumnSpans(Shares(h, zs, 0), len(h.Blocks))
	case across(h, zs):
		tracks, spans = ColumnSpans(nil, len(h.Blocks))
	default:
		for i := range spans {
			spans[i] = 1
		}
	}
	var a Arranged
	at, row, next := 0, 1, 1
	for i, b := range h.Blocks {
		if at+spans[i] > tracks {
			at, row = 0, next
		}
		from := at * columns / tracks
		span := max((at+spans[i])*columns/tracks-from, 1)
		at += spans[i]
		stack := []*doc.Block{b}
		var emptied *doc.Block
		if mereStack(b, zs) {
			stack, emptied = b.Blocks, b
		}
		y := row
		for k, c := range stack {
			rows := rowsNeeded(c, zs)
			s := Stack{
				Blocks: []*doc.Block{c},
				Place:  Fit(doc.Place{Column: from + 1, Span: span, Row: y, Rows: rows}, columns),
			}
			if k == len(stack)-1 {
				s.Emptied = emptied
			}
			a.Children = append(a.Children, s)
			y += rows
		}
		next = max(next, y)
	}
	return a
}

// rowsNeeded is how many rows a block had in a grid, or is likely to need.
func rowsNeeded(b *doc.Block, zs doc.Zones) int {
	if p, _, ok := b.Place.Resolve(zs, 0); ok && p.Rows > 0 {
		return min(p.Rows, doc.MaxRow)
	}
	if len(b.Blocks) == 0 {
		return 3
	}
	rows := 0
	for _, c := range b.Blocks {
		n := rowsNeeded(c, zs)
		if b.Arrangement == doc.LineUp && !across(b.Holder(), zs) {
			rows += n
		} else {
			rows = max(rows, n)
		}
	}
	return min(rows, doc.MaxRow)
}
