package layout

import (
	"openplot/core/element"
	"openplot/core/shape"
	"openplot/core/style"
)

// gridItem is an in-flow child of a grid container with its area, counted from 0.
type gridItem struct {
	node               *element.Node
	column, columnSpan int
	row, rowSpan       int
	x, areaWidth       float64
	width              float64 // of the border box
	natural            *Box    // laid out at that width, its height content's
}

// grid lays out the items of a grid container (CSS Grid 2 §12.1) and gives the
// height of its rows. Every item has a definite column and row; the explicit grid
// has columns only, so that rows are implicit ones of grid-auto-rows.
func (c *context) grid(b *Box, inner float64, in edges) float64 {
	s := c.style(b.Node)
	items, rows := c.gridItems(b.Node)
	columnGap := shape.Floor64(s.ColumnGap.Or(inner, c.viewport, 0))
	rowGap := shape.Floor64(s.RowGap.Or(inner, c.viewport, 0))

	columns := newTracks(s.GridColumns)
	c.sizeTracks(columns, c.columnContributions(items, columns), columnGap, inner)
	b.Columns = spans(columns, columnGap)

	rowTracks := make([]track, rows)
	for i := range rowTracks {
		rowTracks[i] = track{min: s.GridRows.Min, max: s.GridRows.Max, fr: s.GridRows.Fr}
	}
	contributions := make([]contribution, len(items))
	for i := range items {
		it := &items[i]
		first, last := b.Columns[it.column], b.Columns[it.column+it.columnSpan-1]
		it.x, it.areaWidth = first.Start, last.Start+last.Size-first.Start
		c.sizeItem(it)
		contributions[i] = contribution{it.row, it.rowSpan, it.natural.H, it.natural.H}
	}
	c.sizeTracks(rowTracks, contributions, rowGap, auto)
	b.Rows = spans(rowTracks, rowGap)

	for i := range items {
		first, last := b.Rows[items[i].row], b.Rows[items[i].row+items[i].rowSpan-1]
		k := c.placeItem(&items[i], first.Start, last.Start+last.Size-first.Start)
		k.X += in.left
		k.Y += in.top
		b.Children = append(b.Children, k)
	}
	if rows == 0 {
		return 0
	}
	return b.Rows[rows-1].Start + b.Rows[rows-1].Size
}

func (c *context) gridItems(n *element.Node) (items []gridItem, rows int) {
	columns := len(c.style(n).GridColumns)
	for _, child := range n.Children {
		s := c.style(child)
		if s.Display == style.None || s.Position == style.Absolute {
			continue
		}
		it := gridItem{node: child, column: s.ColumnStart - 1, columnSpan: s.ColumnSpan, row: s.RowStart - 1, rowSpan: s.RowSpan}
		it.column = min(max(it.column, 0), columns-1)
		it.columnSpan = min(max(it.columnSpan, 1), columns-it.column)
		it.row, it.rowSpan = max(it.row, 0), max(it.rowSpan, 1)
		rows = max(rows, it.row+it.rowSpan)
		items = append(items, it)
	}
	return items, rows
}

func newTracks(ts []style.Track) []track {
	out := make([]track, len(ts))
	for i, t := range ts {
		out[i] = track{min: t.Min, max: t.Max, fr: t.Fr}
	}
	return out
}

// columnContributions are needed only where a track's size depends on content.
func (c *context) columnContributions(items []gridItem, columns []track) []contribution {
	intrinsic := false
	for i := range columns {
		intrinsic = intrinsic || columns[i].intrinsicMin() || columns[i].intrinsicMax()
	}
	if !intrinsic {
		return nil
	}
	out := make([]contribution, len(items))
	for i, it := range items {
		least, most := c.intrinsicWidths(it.node)
		out[i] = contribution{it.column, it.columnSpan, least, most}
	}
	return out
}

func (c *context) gridIntrinsicWidths(n *element.Node) (least, most float64) {
	s := c.style(n)
	items, _ := c.gridItems(n)
	for _, indefinite := range []bool{true, false} {
		ts := newTracks(s.GridColumns)
		var cs []contribution
		for _, it := range items {
			a, b := c.intrinsicWidths(it.node)
			if indefinite {
				b = a
			}
			cs = append(cs, contribution{it.column, it.columnSpan, a, b})
		}
		gap := s.ColumnGap.Or(0, c.viewport, 0)
		c.sizeTracks(ts, cs, gap, auto)
		if indefinite {
			least = total(ts, gap)
		} else {
			most = total(ts, gap)
		}
	}
	return least, most
}

// sizeItem finds the width of an item in its area (§6.2): stretched, or fitted to
// its content where justify-self says so, and its height by content.
func (c *context) sizeItem(it *gridItem) {
	s := c.style(it.node)
	w, definite := s.Width.Resolve(it.areaWidth, c.viewport)
	if !definite {
		w = it.areaWidth
		if s.JustifySelf != style.AlignAuto {
			w = c.fitContent(it.node, it.areaWidth)
		}
	}
	it.width = c.clampWidth(s, w, it.areaWidth)
	it.natural = c.layout(it.node, it.width, auto, it.areaWidth, auto)
	it.width = it.natural.W
}

// placeItem aligns an item in its area (§10, CSS Box Alignment 3 §6): an auto
// height stretches to the area's.
func (c *context) placeItem(it *gridItem, y, height float64) *Box {
	s := c.style(it.node)
	k := it.natural
	if s.AlignSelf == style.AlignAuto && s.Height.Unit == style.Auto {
		if h := c.clampHeight(s, height, height); h != k.H {
			k = c.stretch(it, h)
		}
	}
	k.X = it.x + aligned(s.JustifySelf, it.areaWidth-k.W)
	k.Y = y + aligned(s.AlignSelf, height-k.H)
	return k
}

// stretch gives an item another height. Only what is positioned against the box
// depends on it, so that text is not laid out again.
func (c *context) stretch(it *gridItem, h float64) *Box {
	for _, child := range it.node.Children {
		if c.style(child).Position == style.Absolute {
			return c.layout(it.node, it.width, h, it.areaWidth, h)
		}
	}
	k := *it.natural
	k.H = h
	return &k
}

func aligned(a style.Align, free float64) float64 {
	switch a {
	case style.AlignCenter:
		return free / 2
	case style.AlignEnd:
		return free
	}
	return 0
}

// spans gives the positions of the tracks. Each edge is rounded down to 1/64 px by
// itself, so that the rounding doesn't add up over the tracks.
func spans(ts []track, gap float64) []Span {
	out := make([]Span, len(ts))
	sum, at := 0.0, 0.0 // tracks so far, exact and rounded
	for i, t := range ts {
		sum += t.base
		edge := shape.Floor64(sum + 1e-6)
		out[i] = Span{at + gap*float64(i), edge - at}
		at = edge
	}
	return out
}
