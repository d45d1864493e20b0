package edit

import (
	"slices"

	"openplot/core/doc"
	"openplot/core/number"
	"openplot/core/place"
	"openplot/core/value"
)

// several gives the blocks that a command is about, of one grid, as they are placed in its
// zone, with how many columns that has. The first is the command's node.
func (e severalEdits) several() (bs []*doc.Block, ps []doc.Place, columns int, err error) {
	placed, index, columns, err := e.placed()
	if err != nil {
		return nil, nil, 0, err
	}
	h := e.holder()
	indices := []int{index}
	for _, id := range e.c.With {
		own, _ := doc.SplitItem(id)
		i := h.Index(own)
		if i < 0 {
			return nil, nil, 0, doc.Problemf(
				"Selection",
				"isn't all in one grid; choose blocks that stand in the same section or container",
			)
		}
		if !slices.Contains(indices, i) {
			indices = append(indices, i)
		}
	}
	for _, i := range indices {
		if placed[i].Hidden {
			continue
		}
		bs, ps = append(bs, h.Blocks[i]), append(ps, placed[i].Place)
	}
	if len(bs) == 0 {
		return nil, nil, 0, doc.Problemf("Selection", "is hidden in this zone: show it first")
	}
	return bs, ps, columns, nil
}

// putAll gives the steps that put blocks somewhere by hand in the zone.
func (e severalEdits) putAll(bs []*doc.Block, was, to []doc.Place) (steps []Step) {
	for i, b := range bs {
		if p := to[i]; p != was[i] {
			steps = append(steps, setBlock(b, func(b *doc.Block) { b.Place = b.Place.With(e.c.Zone, p) })...)
		}
	}
	e.selected = "" // all of them stay so
	return steps
}

// alignAll puts several blocks to an edge of one another, or of their section.
func (e severalEdits) alignAll() ([]Step, error) {
	how := []string{value.Left, value.Center, value.Right, value.Top, value.Middle, value.Bottom}
	if !slices.Contains(how, e.c.Value) {
		return nil, doc.Problemf(
			"Align",
			"can't be %.40q: choose left, center, right, top, middle or bottom",
			e.c.Value,
		)
	}
	bs, ps, columns, err := e.several()
	if err != nil {
		return nil, err
	}
	area := place.Around(ps)
	if e.c.Setting == "section" || len(bs) == 1 {
		all, _, _, _ := e.placed()
		every := []doc.Place{{Column: 1, Span: columns, Row: 1, Rows: 1}}
		for _, p := range all {
			if !p.Hidden {
				every = append(every, p.Place)
			}
		}
		area = place.Around(every)
	}
	return e.putAll(bs, ps, place.Align(ps, e.c.Value, area, columns)), nil
}

// spreadAll leaves equal gaps between several blocks.
func (e severalEdits) spreadAll() ([]Step, error) {
	if e.c.Value != value.Across && e.c.Value != value.Down {
		return nil, doc.Problemf("Spread", "can't be %.40q: choose across or down", e.c.Value)
	}
	bs, ps, columns, err := e.several()
	if err != nil {
		return nil, err
	}
	if e.c.Setting != "" {
		gap, err := number.Whole(e.c.Setting)
		if err != nil || gap < 0 || gap > doc.MaxRow {
			return nil, doc.Problemf("Gap", "can't be %.20q: write how many cells, from 0", e.c.Setting)
		}
		return e.putAll(bs, ps, place.Apart(ps, e.c.Value == value.Across, gap, columns)), nil
	}
	if len(bs) < 3 {
		return nil, doc.Problemf("Spread", "takes three blocks or more, so that there are gaps to be made equal")
	}
	return e.putAll(bs, ps, place.Spread(ps, e.c.Value == value.Across, columns)), nil
}

// sameAll makes several blocks as wide or as high as the first.
func (e severalEdits) sameAll() ([]Step, error) {
	if e.c.Value != "width" && e.c.Value != "height" {
		return nil, doc.Problemf("Same", "can't be %.40q: choose width or height", e.c.Value)
	}
	bs, ps, columns, err := e.several()
	if err != nil {
		return nil, err
	}
	return e.putAll(bs, ps, place.Same(ps, e.c.Value == "width", columns)), nil
}

// scaleAll makes several blocks larger or smaller together, into an area.
func (e severalEdits) scaleAll() ([]Step, error) {
	bs, ps, columns, err := e.several()
	if err != nil {
		return nil, err
	}
	if e.c.Place == nil {
		return nil, doc.Problemf("Size", "is missing: say columns and rows")
	}
	if err := checkPlace(*e.c.Place, columns); err != nil {
		return nil, err
	}
	return e.putAll(bs, ps, place.Scale(ps, *e.c.Place, columns)), nil
}

// nudgeAll moves several blocks together.
func (e severalEdits) nudgeAll() ([]Step, error) {
	bs, ps, columns, err := e.several()
	if err != nil {
		return nil, err
	}
	return e.putAll(bs, ps, place.NudgeAll(ps, bounded(e.c.DX), bounded(e.c.DY), columns)), nil
}

// tidyAll brings several blocks to the fewest different edges, with equal gaps.
func (e severalEdits) tidyAll() ([]Step, error) {
	bs, ps, columns, err := e.several()
	if err != nil {
		return nil, err
	}
	return e.putAll(bs, ps, place.Tidy(ps, columns)), nil
}

// orderAll brings several blocks in front of all others that they overlap, or behind them,
// leaving the order among themselves.
func (e severalEdits) orderAll() ([]Step, error) {
	if e.c.Value != "front" && e.c.Value != "back" {
		return nil, doc.Problemf("Order", "can't be %.40q: choose front or back", e.c.Value)
	}
	bs, ps, _, err := e.several()
	if err != nil {
		return nil, err
	}
	all, _, _, _ := e.placed()
	h := e.holder()
	least, most := doc.MaxLayer, 0 // of the others
	for i, p := range all {
		if !p.Hidden && !slices.Contains(bs, h.Blocks[i]) {
			least, most = min(least, p.Layer), max(most, p.Layer)
		}
	}
	low, high := ps[0].Layer, ps[0].Layer
	for _, p := range ps {
		low, high = min(low, p.Layer), max(high, p.Layer)
	}
	by := most + 1 - low
	if e.c.Value == "back" {
		by = least - 1 - high
	}
	to := slices.Clone(ps)
	short := 0 // how far below 0 the lowest would be
	for i := range to {
		to[i].Layer += by
		short = max(short, -to[i].Layer)
	}
	var steps []Step
	if short > 0 { // the others make room below
		for i := range to {
			to[i].Layer += short
		}
		for i, b := range h.Blocks {
			if p := all[i].Place; !all[i].Hidden && !slices.Contains(bs, b) {
				if p.Layer += short; p.Layer > doc.MaxLayer {
					return nil, doc.Problemf("Order", "has no layers left: there are %d", doc.MaxLayer+1)
				}
				steps = append(steps, setBlock(b, func(b *doc.Block) { b.Place = b.Place.With(e.c.Zone, p) })...)
			}
		}
	}
	for _, p := range to {
		if p.Layer > doc.MaxLayer {
			return nil, doc.Problemf("Order", "has no layers left: there are %d", doc.MaxLayer+1)
		}
	}
	return append(steps, e.putAll(bs, ps, to)...), nil
}

// moveAll puts several blocks into a section or container: in a grid as they stand to one
// another, the first where it is said, or else one behind the other.
func (e severalEdits) moveAll() ([]Step, error) {
	to, err := e.into(e.c.Into)
	if err != nil {
		return nil, err
	}
	from := e.holder()
	bs := []*doc.Block{e.block}
	for _, id := range e.c.With {
		own, _ := doc.SplitItem(id)
		if _, b := e.page.Block(own); b == nil {
			return nil, doc.Problemf("Selection", "isn't on this page any more")
		} else if !slices.Contains(bs, b) {
			bs = append(bs, b)
		}
	}
	for _, b := range bs {
		sec, _ := e.page.Block(b.ID)
		if path := sec.Path(b.ID); len(path) > 1 && path[len(path)-2].Kind == doc.Series {
			return nil, doc.Problemf("Position", "can't change: a Series needs its design")
		}
		inside := false
		b.Walk(func(in *doc.Block) { inside = inside || in.ID == to.ID })
		if inside {
			return nil, doc.Problemf("Position", "can't be in the block itself")
		}
	}
	var steps []Step
	if to.Arrangement == doc.Placed && from.Arrangement == doc.Placed && from.ID != to.ID {
		if steps, err = e.carried(bs, from, to); err != nil {
			return nil, err
		}
	}
	at := e.behind(to)
	for _, b := range bs { // counted without them
		if i := to.Index(b.ID); i >= 0 && i < at {
			at--
		}
	}
	for i, b := range bs {
		if to.Arrangement == doc.Placed && len(steps) == 0 && to.Index(b.ID) < 0 {
			cells, _, err := e.cells(to, b.Kind, nil)
			if err != nil {
				return nil, err
			}
			for zone, p := range cells { // one below the other
				p.Row = min(p.Row+i*p.Rows, doc.MaxRow-p.Rows+1)
				cells[zone] = p
			}
			steps = append(steps, setBlock(b, func(b *doc.Block) { b.Place = cells })...)
		}
	}
	for i, b := range bs {
		steps = append(steps, Step{Do: MoveBlock, ID: b.ID, Parent: to.ID, At: at + i})
	}
	return steps, nil
}

// carried gives the steps that put blocks of one grid into another as they stand to one another
// in the widest zone, the first of them in the command's place, above all that is there.
func (e severalEdits) carried(bs []*doc.Block, from, to doc.Holder) (steps []Step, err error) {
	zones := e.zones()
	resolved, there := place.Resolve(from, zones)[0], place.Resolve(to, zones)[0]
	columns := to.Columns(zones, 0)
	var ps []doc.Place
	for _, b := range bs {
		i := from.Index(b.ID)
		if i < 0 {
			return nil, doc.Problemf(
				"Selection",
				"isn't all in one grid; choose blocks that stand in the same section or container",
			)
		}
		ps = append(ps, place.Fit(resolved[i].Place, columns))
	}
	row := place.FreeRow(there)
	column := ps[0].Column
	if e.c.Place != nil && zones.Index(e.c.Zone) == 0 {
		row, column = e.c.Place.Row, e.c.Place.Column
	} else {
		row += ps[0].Row - place.Around(ps).Row
	}
	moved := place.NudgeAll(ps, column-ps[0].Column, row-ps[0].Row, columns)
	above := 0
	for _, p := range there {
		if !p.Hidden {
			above = max(above, p.Layer+1)
		}
	}
	low := moved[0].Layer
	for _, p := range moved {
		low = min(low, p.Layer)
	}
	for i, b := range bs {
		p := moved[i]
		p.Layer = min(p.Layer-low+above, doc.MaxLayer)
		steps = append(steps, setBlock(b, func(b *doc.Block) { b.Place = doc.Zoned[doc.Place]{zones.Widest(): p} })...)
	}
	return steps, nil
}
