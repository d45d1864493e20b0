package place

import (
	"math"

	"openplot/core/doc"
)

// Metrics are the measured tracks of a grid in px, from its content edges. Beyond
// the last measured row the grid goes on with empty rows of RowHeight.
type Metrics struct {
	Columns   []float64 // widths
	Rows      []float64 // heights
	ColumnGap float64
	RowGap    float64
	RowHeight float64
}

// Rect is a rectangle in px.
type Rect struct{ X, Y, W, H float64 }

// Rect gives the area that a placement covers.
func (m *Metrics) Rect(p doc.Place) Rect {
	x, _ := m.column(p.Column)
	rx, rw := m.column(p.Column + p.Span - 1)
	y, _ := m.row(p.Row)
	by, bh := m.row(p.Row + p.Rows - 1)
	return Rect{x, y, rx + rw - x, by + bh - y}
}

func (m *Metrics) column(n int) (x, w float64) {
	for i := 0; i < n-1 && i < len(m.Columns); i++ {
		x += m.Columns[i] + m.ColumnGap
	}
	if n >= 1 && n <= len(m.Columns) {
		w = m.Columns[n-1]
	}
	return x, w
}

func (m *Metrics) row(n int) (y, h float64) {
	for i := 0; i < n-1; i++ {
		y += m.rowHeight(i) + m.RowGap
	}
	return y, m.rowHeight(n - 1)
}

func (m *Metrics) rowHeight(i int) float64 {
	if i < len(m.Rows) {
		return m.Rows[i]
	}
	return m.RowHeight
}

// nearestColumn is the column whose left edge is nearest to x.
func (m *Metrics) nearestColumn(x float64) int {
	best, at := math.Inf(1), 1
	left := 0.0
	for i, w := range m.Columns {
		if d := math.Abs(left - x); d < best {
			best, at = d, i+1
		}
		left += w + m.ColumnGap
	}
	return at
}

// nearestRow is the row whose top edge is nearest to y.
func (m *Metrics) nearestRow(y float64) int {
	top := 0.0
	for i := range doc.MaxRow {
		step := m.rowHeight(i) + m.RowGap
		if step <= 0 || y < top+step/2 {
			return i + 1
		}
		top += step
	}
	return doc.MaxRow
}

// lastColumn is the column whose right edge is nearest to x, lastRow likewise.
func (m *Metrics) lastColumn(x float64) int {
	best, at := math.Inf(1), 1
	right := 0.0
	for i, w := range m.Columns {
		right += w
		if d := math.Abs(right - x); d < best {
			best, at = d, i+1
		}
		right += m.ColumnGap
	}
	return at
}

func (m *Metrics) lastRow(y float64) int {
	best, at := math.Inf(1), 1
	bottom := 0.0
	for i := range doc.MaxRow {
		bottom += m.rowHeight(i)
		if d := math.Abs(bottom - y); d < best {
			best, at = d, i+1
		} else {
			break
		}
		bottom += m.RowGap
	}
	return at
}

// Move gives the placement nearest to the block dragged so that its top left
// corner is at (x, y); its extent in cells stays.
func (m *Metrics) Move(p doc.Place, x, y float64) doc.Place {
	p.Column, p.Row = m.nearestColumn(x), m.nearestRow(y)
	return Fit(p, len(m.Columns))
}

// Edge names the edges that a resize pulls, as a sum of the four.
type Edge int

// The edges.
const (
	Left Edge = 1 << iota
	Top
	Right
	Bottom
)

// Pull gives the placement after its edges were pulled to those of r; edges not
// named stay, and the block keeps at least one cell.
func (m *Metrics) Pull(p doc.Place, edges Edge, r Rect) doc.Place {
	right, bottom := p.Column+p.Span-1, p.Row+p.Rows-1
	if edges&(Left|Right) == Left|Right { // it goes with both of them
		right = len(m.Columns)
	}
	if edges&(Top|Bottom) == Top|Bottom {
		bottom = doc.MaxRow
	}
	if edges&Left != 0 {
		p.Column = min(m.nearestColumn(r.X), right)
	}
	if edges&Right != 0 {
		right = max(m.lastColumn(r.X+r.W), p.Column)
	}
	if edges&Top != 0 {
		p.Row = min(m.nearestRow(r.Y), bottom)
	}
	if edges&Bottom != 0 {
		bottom = max(m.lastRow(r.Y+r.H), p.Row)
	}
	p.Span, p.Rows = right-p.Column+1, bottom-p.Row+1
	return Fit(p, len(m.Columns))
}

// At gives the cell that a point falls in, for a block of span by rows dropped
// there with its top left corner in that cell.
func (m *Metrics) At(x, y float64, span, rows int) doc.Place {
	column, left := 1, 0.0
	for i, w := range m.Columns {
		if x >= left {
			column = i + 1
		}
		left += w + m.ColumnGap
	}
	row, top := 1, 0.0
	for i := range doc.MaxRow {
		if y < top {
			break
		}
		row = i + 1
		top += m.rowHeight(i) + m.RowGap
	}
	return Fit(doc.Place{Column: column, Span: span, Row: row, Rows: rows}, len(m.Columns))
}
