package place

import (
	"cmp"
	"math"
	"slices"

	"openplot/core/doc"
)

// The rule by which a narrower zone's grid is made from the wider one's (docs/arrangement.md has
// its reasons):
//
//   - What overlaps is one group, and stays one.
//   - What is seen is parted into bands, one below another, and a band into columns, until nothing
//     is left to part. Bands whose columns are one below another and begin with a picture or a
//     heading are columns first: cards.
//   - Columns stay beside each other where each is wide enough to read in; where they aren't, they
//     come below each other, from left to right.
//   - A picture that fills its rows keeps its shape.
//
// Reading order is the order in which that comes by blocks.

// Widths, in px, that the rule goes by; common practice.
const (
	leastColumn = 200.0 // of what stands beside something else
	leastWords  = 250.0 // of words that lie on something
	ofViewport  = 0.9   // how much of a viewport a section's content takes
	leastView   = 320.0 // the narrowest viewport
)

// unit is blocks that overlap, directly or through others, or a single one.
type unit struct {
	blocks []int // in the order in which they lie on one another
	area   doc.Place
}

// part is a unit, or parts beside or below each other.
type part struct {
	unit  *unit
	parts []*part
	down  bool
	area  doc.Place
}

// cover gives the least area that has two in it.
func cover(a, b doc.Place) doc.Place {
	if a.Span == 0 {
		return b
	}
	c, r := max(a.Column+a.Span, b.Column+b.Span), max(a.Row+a.Rows, b.Row+b.Rows)
	a.Column, a.Row = min(a.Column, b.Column), min(a.Row, b.Row)
	a.Span, a.Rows = c-a.Column, r-a.Row
	return a
}

// units gives the blocks as units; hidden ones are by themselves, where they would stand.
func units(ps []Placed) (out []*unit) {
	of := make([]int, len(ps))
	for i := range of {
		of[i] = i
	}
	find := func(i int) int {
		for of[i] != i {
			i = of[i]
		}
		return i
	}
	for i := range ps {
		for j := range i {
			if !ps[i].Hidden && !ps[j].Hidden && ps[i].Overlaps(ps[j].Place) {
				of[find(i)] = find(j)
			}
		}
	}
	at := map[int]*unit{}
	for i := range ps {
		root := find(i)
		if at[root] == nil {
			at[root] = &unit{}
			out = append(out, at[root])
		}
		u := at[root]
		u.blocks = append(u.blocks, i)
		u.area = cover(u.area, ps[i].Place)
	}
	for _, u := range out {
		slices.SortStableFunc(u.blocks, func(a, b int) int {
			p, q := ps[a], ps[b]
			return cmp.Or(
				cmp.Compare(p.Layer, q.Layer),
				cmp.Compare(p.Row, q.Row),
				cmp.Compare(p.Column, q.Column),
				cmp.Compare(a, b),
			)
		})
	}
	return out
}

// parting parts units until nothing is left to part. begins gives the kind of a block that begins
// a card.
func parting(us []*unit, begins func(block int) doc.Kind) *part {
	p := &part{}
	for _, u := range us {
		p.area = cover(p.area, u.area)
	}
	if len(us) == 1 {
		p.unit = us[0]
		return p
	}
	bands := split(us, func(u *unit) (from, to int) { return u.area.Row, u.area.Row + u.area.Rows })
	if len(bands) > 1 {
		p.down = true
		for i := 0; i < len(bands); {
			n := cards(bands[i:], begins)
			if n > 1 && n == len(bands) { // the columns of all of it
				for _, c := range columnsOf(slices.Concat(bands...)) {
					p.parts = append(p.parts, parting(c, begins))
				}
				p.down = false
				return p
			}
			p.parts = append(p.parts, parting(slices.Concat(bands[i:i+n]...), begins))
			i += n
		}
		return p
	}
	if cols := columnsOf(us); len(cols) > 1 {
		for _, c := range cols {
			p.parts = append(p.parts, parting(c, begins))
		}
		return p
	}
	// Neither: pinwheels. Row by row, as they begin.
	p.down = true
	slices.SortStableFunc(us, func(a, b *unit) int {
		return cmp.Or(cmp.Compare(a.area.Row, b.area.Row), cmp.Compare(a.area.Column, b.area.Column))
	})
	for _, u := range us {
		p.parts = append(p.parts, &part{unit: u, area: u.area})
	}
	return p
}

func columnsOf(us []*unit) [][]*unit {
	return split(us, func(u *unit) (from, to int) { return u.area.Column, u.area.Column + u.area.Span })
}

// split parts units where no one of them crosses, in the order of an axis.
func split(us []*unit, along func(*unit) (from, to int)) (out [][]*unit) {
	us = slices.Clone(us)
	slices.SortStableFunc(us, func(a, b *unit) int {
		x, _ := along(a)
		y, _ := along(b)
		return cmp.Compare(x, y)
	})
	end := math.MinInt
	for _, u := range us {
		from, to := along(u)
		if from >= end {
			out = append(out, nil)
		}
		out[len(out)-1] = append(out[len(out)-1], u)
		end = max(end, to)
	}
	return out
}

// cards gives how many bands from the first on are columns of cards: 1 where they aren't. Their
// columns are as many, and all begin alike, with a picture, an icon or a heading; another band that
// begins so is the next row of cards.
func cards(bands [][]*unit, begins func(int) doc.Kind) int {
	first := columnsOf(bands[0])
	kind := begins(first[0][0].blocks[0])
	if len(first) < 2 || kind == "" {
		return 1
	}
	for _, c := range first {
		if begins(c[0].blocks[0]) != kind {
			return 1
		}
	}
	n := 1
	for n < len(bands) {
		next := columnsOf(bands[n])
		if len(next) != len(first) || len(columnsOf(slices.Concat(bands[:n+1]...))) != len(first) ||
			begins(next[0][0].blocks[0]) == kind {
			break
		}
		n++
	}
	return n
}

// sequence gives blocks in the order of parts.
func (p *part) sequence(out []int) []int {
	if p.unit != nil {
		return append(out, p.unit.blocks...)
	}
	for _, c := range p.parts {
		out = c.sequence(out)
	}
	return out
}

// order sorts by what is seen: see the rule above. h may be without blocks, so that their kinds
// aren't known.
func order(h doc.Holder, ps []Placed) []int {
	if len(ps) == 0 {
		return []int{}
	}
	return parting(units(ps), begins(h)).sequence(make([]int, 0, len(ps)))
}

// begins gives the kind of a block that begins a card; "" of one that doesn't.
func begins(h doc.Holder) func(int) doc.Kind {
	return func(i int) doc.Kind {
		if i < len(h.Blocks) {
			switch k := h.Blocks[i].Kind; k {
			case doc.Picture, doc.Heading, doc.Icon:
				return k
			}
		}
		return ""
	}
}

// deriving arranges blocks in a narrower zone.
type deriving struct {
	h        doc.Holder
	wide     []Placed
	out      []Placed
	columns  int     // of the narrower zone's grid
	px       float64 // that one of them is wide, at least
	beneath  int     // how many rows of columns are being arranged
	wideness float64 // how wide, in px, a column of the wider grid is
}

// derive gives places to all blocks of a narrower zone, from those of the next wider one.
func derive(h doc.Holder, wide []Placed, columns, wideColumns int, zone, wider doc.Zone, hidden []bool) []Placed {
	d := &deriving{
		h: h, wide: slices.Clone(wide), out: make([]Placed, len(wide)), columns: columns,
		px:       max(float64(zone.Min), leastView) * ofViewport / float64(columns),
		wideness: float64(wider.Typical) * ofViewport / float64(wideColumns),
	}
	var us []*unit
	for i := range d.wide {
		d.wide[i].Hidden = hidden[i]
	}
	row := 1
	for _, u := range units(d.wide) {
		if len(u.blocks) > 1 || !d.wide[u.blocks[0]].Hidden {
			us = append(us, u)
		}
	}
	if len(us) > 0 {
		row += d.part(parting(us, begins(h)), 1, columns, 1)
	}
	for i := range d.out { // what isn't there would stand at the end
		if hidden[i] {
			d.out[i].Place = Fit(doc.Place{Column: 1, Span: columns, Row: row, Rows: 1, Layer: 0}, columns)
		}
	}
	return d.out
}

// part arranges a part in columns from one on, from a row on, and gives how many rows it takes.
func (d *deriving) part(p *part, column, span, row int) int {
	if p.unit != nil {
		if len(p.unit.blocks) == 1 {
			return d.single(p.unit.blocks[0], column, span, row)
		}
		return d.group(p.unit, column, span, row)
	}
	if p.down {
		return d.below(p.parts, column, span, row)
	}
	return d.columnsIn(p.parts, column, span, row)
}

// columnsIn puts columns beside each other where they have room, and else folds them.
func (d *deriving) columnsIn(parts []*part, column, span, row int) int {
	if spans := d.beside(parts, span); spans != nil {
		return d.across(parts, spans, column, row)
	}
	rows, all := 0, 0
	for _, c := range parts {
		all += c.area.Span
	}
	if n := len(parts); n >= 3 &&
		2*parts[0].area.Span >= all { // the wide one first, the narrow ones in a row of their own
		rows = d.part(parts[0], column, span, row) + 1
		return rows + d.columnsIn(parts[1:], column, span, row+rows)
	}
	if n := len(parts); n >= 4 && n%2 == 0 && float64(span/2)*d.px >= leastColumn { // two by two
		for i := 0; i < n; i += 2 {
			rows += d.across(parts[i:i+2], []int{span - span/2, span / 2}, column, row+rows)
		}
		return rows
	}
	for i, c := range parts {
		if i > 0 && c.unit == nil { // several blocks want air before them
			rows++
		}
		rows += d.folded(c, column, span, row+rows)
	}
	return rows
}

// below puts parts below each other, with an empty row where there was one.
func (d *deriving) below(parts []*part, column, span, row int) int {
	rows := 0
	for i, c := range parts {
		if i > 0 && c.area.Row > parts[i-1].area.Row+parts[i-1].area.Rows {
			rows++
		}
		rows += d.part(c, column, span, row+rows)
	}
	return rows
}

// across puts parts beside each other. What is in them keeps its rows, so that words that are high
// don't push what is beside them apart.
func (d *deriving) across(parts []*part, spans []int, column, row int) int {
	d.beneath++
	defer func() { d.beneath-- }()
	rows := 0
	for i, c := range parts {
		rows = max(rows, d.part(c, column, spans[i], row))
		column += spans[i]
	}
	return rows
}

// folded puts a column below the one that it stood beside: a card's picture beside its words, where
// there is room for both.
func (d *deriving) folded(p *part, column, span, row int) int {
	picture := span * 3 / 8
	if p.unit == nil && p.down && len(p.parts) > 1 && float64(picture)*d.px >= leastColumn && d.pictured(p.parts[0]) {
		d.beneath++
		defer func() { d.beneath-- }()
		return max(d.part(p.parts[0], column, picture, row), d.below(p.parts[1:], column+picture, span-picture, row))
	}
	return d.part(p, column, span, row)
}

// pictured reports whether a part is a picture.
func (d *deriving) pictured(p *part) bool {
	if p.unit == nil || len(p.unit.blocks) > 1 {
		return false
	}
	i := p.unit.blocks[0]
	return i < len(d.h.Blocks) && d.h.Blocks[i].Kind == doc.Picture
}

// beside shares columns among parts, as they had them, or gives nil where one gets too few.
func (d *deriving) beside(parts []*part, span int) []int {
	all := 0
	for _, c := range parts {
		all += c.area.Span
	}
	spans := make([]int, len(parts))
	end, given := 0, 0
	for i, c := range parts {
		end += c.area.Span
		spans[i] = (2*end*span+all)/(2*all) - given
		given += spans[i]
		if float64(spans[i])*d.px < leastColumn {
			return nil
		}
	}
	return spans
}

// single puts a block by itself.
func (d *deriving) single(i, column, span, row int) int {
	rows := 1
	switch {
	case d.filled(i):
		rows = d.shaped(i, span)
	case d.beneath > 0:
		rows = d.wide[i].Rows
	}
	d.out[i].Place = doc.Place{Column: column, Span: span, Row: row, Rows: rows}
	return rows
}

// shaped is how many rows a block has in so many columns that keeps its shape.
func (d *deriving) shaped(i, span int) int {
	was := d.wide[i]
	ratio := float64(span) * d.px * 1.1 / (float64(was.Span) * d.wideness) // its zone is wider than its least
	return max(1, int(math.Round(float64(was.Rows)*min(ratio, 1))))
}

// group puts blocks that overlap: the largest of those that lie lowest fills the columns, the
// others lie on it, or on one another, as they did, and as wide as words need.
func (d *deriving) group(u *unit, column, span, row int) int {
	base := u.blocks[0]
	size := func(i int) int { return d.wide[i].Span * d.wide[i].Rows }
	for _, i := range u.blocks {
		if d.wide[i].Layer == d.wide[u.blocks[0]].Layer && size(i) > size(base) {
			base = i
		}
	}
	rows := d.wide[base].Rows
	if d.filled(base) {
		rows = d.shaped(base, span)
	}
	d.out[base].Place = doc.Place{Column: column, Span: span, Row: row, Rows: rows, Layer: d.wide[base].Layer}
	put := []int{base}
	for len(put) < len(u.blocks) {
		next, on, most := -1, -1, 0
		for _, i := range u.blocks {
			if slices.Contains(put, i) {
				continue
			}
			for _, k := range put {
				if o := overlap(d.wide[i].Place, d.wide[k].Place); o > most {
					next, on, most = i, k, o
				}
			}
		}
		d.out[next].Place = d.onto(next, on, column, span)
		put = append(put, next)
	}
	settled := d.settle(put)
	top, bottom := row, row
	for _, i := range put {
		top, bottom = min(top, d.out[i].Row), max(bottom, d.out[i].Row+d.out[i].Rows)
	}
	if !settled || bottom-top > 3*u.area.Rows {
		return d.scaled(u, column, span, row)
	}
	for _, i := range put { // what lies over the upper edge needs room above
		d.out[i].Row += row - top
	}
	return bottom - top
}

// onto gives a place to a block that lies on another one, whose place is known, within the columns
// of the group.
func (d *deriving) onto(i, on, column, span int) doc.Place {
	p, was, now := d.wide[i].Place, d.wide[on].Place, d.out[on].Place
	to := doc.Place{Rows: p.Rows, Layer: p.Layer}
	s := max(int(math.Round(float64(p.Span*now.Span)/float64(was.Span))), 1)
	if !d.filled(i) {
		s = max(s, int(math.Ceil(leastWords/d.px)))
	}
	to.Span = min(s, span)
	if d.filled(i) {
		to.Span = min(max(to.Span, (3*span+4)/5), span)
		to.Rows = d.shaped(i, to.Span)
	}
	left, right := p.Column-was.Column, was.Column+was.Span-p.Column-p.Span
	scaled := func(n int) int { return int(math.Round(float64(n*now.Span) / float64(was.Span))) }
	if left > right { // to the side on which it was
		to.Column = now.Column + now.Span - to.Span - scaled(right)
	} else {
		to.Column = now.Column + scaled(left)
	}
	to.Column = min(max(to.Column, column), column+span-to.Span)
	to.Row = now.Row + int(math.Round(float64(p.Row-was.Row)/float64(was.Rows)*float64(now.Rows)))
	if contains(was, p) {
		return to
	}
	// It lies over an edge: a part of it still does, so that what is under it is seen.
	some := max(1, min(int(math.Round(float64(overlapRows(p, was))*0.3)), now.Rows/2))
	if p.Row < was.Row && p.Row+p.Rows <= was.Row+was.Rows {
		to.Row = now.Row + some - to.Rows
	} else {
		to.Row = now.Row + now.Rows - some
	}
	if to.Span == span && span > 2 { // not all of its width either
		to.Span--
		if to.Column = column; left > right || left == right && p.Column > was.Column {
			to.Column++
		}
	}
	return to
}

// settle has what overlapped overlap, what was within another be within it, and what was apart be
// apart: by moving down what comes later, and by giving rows to what others lie on. It reports
// whether it got there.
func (d *deriving) settle(put []int) bool {
	for range 4 * len(put) {
		changed := false
		for n, i := range put {
			for _, k := range put[:n] {
				a, b := &d.out[k].Place, &d.out[i].Place // b came later
				was, is := d.wide[k].Overlaps(d.wide[i].Place), a.Overlaps(*b)
				switch {
				case is && !was:
					b.Row, changed = a.Row+a.Rows, true
				case was && !is && a.Row+a.Rows <= b.Row:
					a.Rows, changed = b.Row-a.Row+1, true
				case was && !is && b.Row+b.Rows <= a.Row:
					b.Rows, changed = a.Row-b.Row+1, true
				case was && !is: // side by side: the wider one reaches below the other
					b.Column, b.Span, changed = a.Column, max(a.Span, b.Span), true
				case contains(d.wide[k].Place, d.wide[i].Place) && a.Row+a.Rows < b.Row+b.Rows:
					a.Rows, changed = b.Row+b.Rows-a.Row, true
				}
			}
		}
		if !changed {
			return true
		}
	}
	return false
}

// scaled puts blocks that lie on one another in too many ways where they were, narrower.
func (d *deriving) scaled(u *unit, column, span, row int) int {
	edge := func(n int) int { return (2*n*span + u.area.Span) / (2 * u.area.Span) }
	for _, i := range u.blocks {
		p := d.wide[i].Place
		from, to := edge(p.Column-u.area.Column), edge(p.Column+p.Span-u.area.Column)
		from = min(from, span-1)
		p.Column, p.Span = column+from, max(to-from, 1)
		p.Row += row - u.area.Row
		d.out[i].Place = p
	}
	return u.area.Rows
}

// contains reports whether the second place lies in the first.
func contains(p, q doc.Place) bool {
	return q.Column >= p.Column && q.Column+q.Span <= p.Column+p.Span && q.Row >= p.Row && q.Row+q.Rows <= p.Row+p.Rows
}

// overlap is how many cells two places share.
func overlap(p, q doc.Place) int {
	return overlapRows(p, q) * shared(p, q)
}

// filled reports whether a block fills its rows, and has no height of its own.
func (d *deriving) filled(i int) bool { return i < len(d.h.Blocks) && keepsRows(d.h.Blocks[i]) }

// overlapRows is how many rows of one lie in another's.
func overlapRows(p, q doc.Place) int {
	return max(min(p.Row+p.Rows, q.Row+q.Rows)-max(p.Row, q.Row), 0)
}
