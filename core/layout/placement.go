package layout

import (
	"cmp"
	"slices"

	"openplot/core/style"
)

// area is a grid area: tracks of both axes, counted from 0.
type area struct{ column, columns, row, rows int }

// maxTrack bounds the implicit grid, as browsers do.
const maxTrack = 1000

// axis is a placement along one axis; start is -1 for auto.
type axisPlace struct{ start, span int }

func axisOf(start, span int) axisPlace {
	span = min(max(span, 1), maxTrack)
	if start <= 0 {
		return axisPlace{-1, span}
	}
	return axisPlace{min(start, maxTrack) - 1, span}
}

// placeItems is the grid item placement algorithm (CSS Grid 2 §8.5) for items in
// order-modified document order. explicit is the number of columns, or rows when
// the flow is in columns. It gives an area an item and the size of the grid.
func placeItems(styles []*style.Style, flow style.GridFlow, explicit int) (areas []area, columns, rows int) {
	byColumn := flow == style.FlowColumn || flow == style.FlowColumnDense
	dense := flow == style.FlowRowDense || flow == style.FlowColumnDense
	// The flow's axis: minor is along a line of items (columns in a row), major is
	// from line to line.
	type item struct {
		index        int
		minor, major axisPlace
	}
	items := make([]item, len(styles))
	width := explicit // of the implicit grid along the minor axis
	for i, s := range styles {
		minor, major := axisOf(s.ColumnStart, s.ColumnSpan), axisOf(s.RowStart, s.RowSpan)
		if byColumn {
			minor, major = major, minor
		}
		items[i] = item{i, minor, major}
		width = max(width, minor.span) // step 3
		if minor.start >= 0 {
			width = max(width, minor.start+minor.span)
		}
	}
	taken := occupancy{width: width}
	placed := make([]area, len(styles))
	put := func(it item, minor, major int) {
		taken.mark(minor, it.minor.span, major, it.major.span)
		placed[it.index] = area{minor, it.minor.span, major, it.major.span}
	}
	// 1. Position anything that's not auto-positioned.
	for _, it := range items {
		if it.minor.start >= 0 && it.major.start >= 0 {
			put(it, it.minor.start, it.major.start)
		}
	}
	// 2. Process the items locked to a given row.
	cursors := map[int]int{}
	for _, it := range items {
		if it.major.start < 0 || it.minor.start >= 0 {
			continue
		}
		at := 0
		if !dense {
			at = cursors[it.major.start]
		}
		for !taken.free(at, it.minor.span, it.major.start, it.major.span) {
			at++
		}
		put(it, at, it.major.start)
		cursors[it.major.start] = at + it.minor.span
		width = max(width, at+it.minor.span)
	}
	taken.width = width
	// 4. Position the remaining grid items.
	minor, major := 0, 0
	for _, it := range items {
		if it.major.start >= 0 {
			continue
		}
		if dense {
			minor, major = 0, 0
		}
		if it.minor.start >= 0 { // it has a definite column position
			if !dense && it.minor.start < minor {
				major++
			}
			minor = it.minor.start
			for !taken.free(minor, it.minor.span, major, it.major.span) {
				major++
			}
		} else {
			for minor+it.minor.span > width || !taken.free(minor, it.minor.span, major, it.major.span) {
				if minor++; minor+it.minor.span > width {
					minor, major = 0, major+1
				}
			}
		}
		put(it, minor, major)
	}
	for i, a := range placed {
		if byColumn {
			a = area{a.row, a.rows, a.column, a.columns}
			placed[i] = a
		}
		columns, rows = max(columns, a.column+a.columns), max(rows, a.row+a.rows)
	}
	if byColumn {
		rows = max(rows, explicit)
	} else {
		columns = max(columns, explicit)
	}
	return placed, columns, rows
}

// occupancy is which cells of a grid are taken; lines grow as needed.
type occupancy struct {
	width int
	lines [][]bool
}

func (o *occupancy) mark(minor, span, major, spans int) {
	for len(o.lines) < major+spans {
		o.lines = append(o.lines, nil)
	}
	for l := major; l < major+spans; l++ {
		if n := minor + span; len(o.lines[l]) < n {
			o.lines[l] = append(o.lines[l], make([]bool, max(n, o.width)-len(o.lines[l]))...)
		}
		for c := minor; c < minor+span; c++ {
			o.lines[l][c] = true
		}
	}
}

func (o *occupancy) free(minor, span, major, spans int) bool {
	for l := major; l < min(major+spans, len(o.lines)); l++ {
		line := o.lines[l]
		if minor < len(line) && slices.Contains(line[minor:min(minor+span, len(line))], true) {
			return false
		}
	}
	return true
}

// ordered sorts a container's in-flow children by order (CSS Flexbox 1 §5.4).
func (c *context) ordered(o *object) []*object {
	var out []*object
	sorted := true
	for _, child := range o.children {
		s := c.style(child)
		if s.Display == style.None || s.Position == style.Absolute {
			continue
		}
		sorted = sorted && s.Order == 0
		out = append(out, child)
	}
	if !sorted {
		slices.SortStableFunc(out, func(a, b *object) int { return cmp.Compare(c.style(a).Order, c.style(b).Order) })
	}
	return out
}
