package place

import (
	"cmp"
	"slices"

	"openplot/core/doc"
	"openplot/core/number"
	"openplot/core/value"
)

// MaxOrder is the last place in an order by hand.
const MaxOrder = 1000

// ordered sorts n things by the order that was given to them by hand in a zone, and reports
// whether any was given. What has none goes along with what it comes after.
func ordered(n int, at func(i int) (order string, ok bool)) (seq []int, byHand bool) {
	seq = make([]int, n)
	ranks := make([]int, n)
	for i := range seq {
		seq[i] = i
		if i > 0 {
			ranks[i] = ranks[i-1]
		}
		if v, ok := at(i); ok {
			if r, err := number.Whole(v); err == nil {
				ranks[i], byHand = r, true
			}
		}
	}
	slices.SortStableFunc(seq, func(a, b int) int { return cmp.Compare(ranks[a], ranks[b]) })
	return seq, byHand
}

// Sequence gives the indexes of the blocks of Columns or of a Line-up in the order in which they
// are seen in a zone, which may differ from that of the document by hand, and reports whether it
// was given by hand, there or in a wider zone.
func Sequence(h doc.Holder, zs doc.Zones, z int) (seq []int, byHand bool) {
	return ordered(len(h.Blocks), func(i int) (string, bool) {
		v, _, ok := h.Blocks[i].Style["order"].Resolve(zs, z)
		return v, ok
	})
}

// Sections gives the sections of a page in the order in which they are seen in a zone, and
// reports whether it was given by hand. Those of the main part alone can be in another one than
// that of the document, and only where the page is all seen at once.
func Sections(p *doc.Page, zs doc.Zones, z int) (out []*doc.Section, byHand bool) {
	var free []int
	for i, s := range p.Sections {
		if Orderable(s) {
			free = append(free, i)
		}
	}
	seq, byHand := ordered(len(free), func(i int) (string, bool) {
		v, _, ok := p.Sections[free[i]].Style["order"].Resolve(zs, z)
		return v, ok
	})
	if !byHand {
		return p.Sections, false
	}
	out = slices.Clone(p.Sections)
	for to, from := range seq {
		out[free[to]] = p.Sections[free[from]]
	}
	return out, true
}

// Neighbours gives a function that gives the sections which are seen above and below a section of
// a page in a zone, nil where there is none. A bar that lies over the one below it isn't above
// anything.
func Neighbours(p *doc.Page, zs doc.Zones) func(s *doc.Section, z int) (above, below *doc.Section) {
	orders := make([][]*doc.Section, len(zs))
	for z := range zs {
		orders[z], _ = Sections(p, zs, z)
	}
	return func(s *doc.Section, z int) (above, below *doc.Section) {
		order := orders[z]
		i := slices.IndexFunc(order, func(at *doc.Section) bool { return at.ID == s.ID })
		if i < 0 {
			return nil, nil
		}
		for k := i - 1; k >= 0 && above == nil; k-- {
			if _, over := order[k].Style["over"]; !order[k].Hidden && !over {
				above = order[k]
			}
		}
		for k := i + 1; k < len(order) && below == nil; k++ {
			if !order[k].Hidden {
				below = order[k]
			}
		}
		return above, below
	}
}

// Over gives a function that gives the section which lies over a section of a page in a zone, nil
// where there is none: a bar that takes no room, right above it.
func Over(p *doc.Page, zs doc.Zones) func(s *doc.Section, z int) *doc.Section {
	if !slices.ContainsFunc(p.Sections, (*doc.Section).LiesOver) {
		return func(*doc.Section, int) *doc.Section { return nil }
	}
	return func(s *doc.Section, z int) (bar *doc.Section) {
		order, _ := Sections(p, zs, z)
		for _, at := range order {
			if at.ID == s.ID {
				break
			}
			if at.Hidden {
				continue
			}
			if bar = nil; at.Style["over"].Or(zs, z, value.No) != value.No {
				bar = at
			}
		}
		return bar
	}
}

// Orderable reports whether a section can stand elsewhere in a narrower zone. One that stands on
// several pages can't: what comes before it on one isn't there on another.
func Orderable(s *doc.Section) bool { return s.Role == doc.RoleMain && s.View == nil && !s.Shared }

// Bands gives the blocks of a Placed arrangement in a zone as bands, one below another: groups of
// indexes that no level line parts. Of those that aren't seen there it gives none, unless all are
// asked for.
func Bands(ps []Placed, all bool) (out [][]int) {
	var seq []int
	for i := range ps {
		if all || !ps[i].Hidden {
			seq = append(seq, i)
		}
	}
	slices.SortStableFunc(seq, func(a, b int) int { return cmp.Compare(ps[a].Row, ps[b].Row) })
	end := 0 // the row behind the band
	for _, i := range seq {
		if len(out) == 0 || ps[i].Row >= end {
			out = append(out, nil)
		}
		out[len(out)-1] = append(out[len(out)-1], i)
		end = max(end, ps[i].Row+ps[i].Rows)
	}
	return out
}

// reorder puts the bands of a zone in the order that was given to their blocks there by hand.
// What is between them stays as it is.
func reorder(h doc.Holder, ps []Placed, zone string) {
	bands := Bands(ps, false)
	seq, byHand := ordered(len(bands), func(k int) (string, bool) {
		first, ok := "", false
		for _, i := range bands[k] {
			if v, set := h.Blocks[i].Style["order"][zone]; set &&
				(!ok || len(v) < len(first) || len(v) == len(first) && v < first) {
				first, ok = v, true
			}
		}
		return first, ok
	})
	if !byHand {
		return
	}
	top := func(band []int) int { return ps[band[0]].Row }
	bottom := func(band []int) int {
		b := 0
		for _, i := range band {
			b = max(b, ps[i].Row+ps[i].Rows)
		}
		return b
	}
	gaps := make([]int, len(bands))
	for k := 1; k < len(bands); k++ {
		gaps[k] = top(bands[k]) - bottom(bands[k-1])
	}
	row := top(bands[0])
	var shifts []int
	for k, from := range seq {
		row += gaps[k]
		shifts = append(shifts, row-top(bands[from]))
		row += bottom(bands[from]) - top(bands[from])
	}
	for k, from := range seq {
		for _, i := range bands[from] {
			ps[i].Row = min(ps[i].Row+shifts[k], doc.MaxRow-ps[i].Rows+1)
		}
	}
}
