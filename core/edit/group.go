package edit

import (
	"fmt"
	"maps"
	"slices"
	"strconv"
	"strings"

	"openplot/core/doc"
	"openplot/core/number"
	"openplot/core/place"
	"openplot/core/style"
	"openplot/core/value"
)

// gathered gives the blocks that a command is about, which stand in one holder, as they are
// read, and their indices there.
func (e groupEdits) gathered() (bs []*doc.Block, indices []int, err error) {
	h := e.holder()
	if e.parentKind() == doc.Series {
		return nil, nil, doc.Problemf("Selection", "is the design of a Series; choose what is in it")
	}
	for _, id := range append([]string{e.block.ID}, e.c.With...) {
		own, _ := doc.SplitItem(id)
		i := h.Index(own)
		if i < 0 {
			return nil, nil, doc.Problemf(
				"Selection",
				"isn't all in one place; choose blocks that stand in the same section or container",
			)
		}
		if !slices.Contains(indices, i) {
			indices = append(indices, i)
		}
	}
	seq := place.Order(h, e.zones())
	slices.SortFunc(indices, func(a, b int) int { return slices.Index(seq, a) - slices.Index(seq, b) })
	for _, i := range indices {
		bs = append(bs, h.Blocks[i])
	}
	return bs, indices, nil
}

// area is what blocks of a grid cover together, in each zone in which one of them was put by
// hand, and where each of them is in it.
func (e groupEdits) area(h doc.Holder, indices []int) (area doc.Zoned[doc.Place], inside []doc.Zoned[doc.Place]) {
	area, inside = doc.Zoned[doc.Place]{}, make([]doc.Zoned[doc.Place], len(indices))
	for z, ps := range place.Resolve(h, e.zones()) {
		zone := e.zones()[z].ID
		var seen []doc.Place
		byHand := z == 0
		for _, i := range indices {
			if byHand = byHand || !ps[i].Derived; !ps[i].Hidden {
				seen = append(seen, ps[i].Place)
			}
		}
		if !byHand || len(seen) == 0 {
			continue
		}
		all := place.Around(seen)
		for _, p := range seen {
			all.Layer = max(all.Layer, p.Layer)
		}
		area[zone] = all
		for k, i := range indices {
			inside[k] = inside[k].With(zone, place.Fit(place.Inside(ps[i].Place, all), all.Span))
		}
	}
	return area, inside
}

// group puts several blocks of one holder into a container, in which they stand as they did,
// or with "line-up" one after another. What is seen stays where it is.
func (e groupEdits) group() ([]Step, error) {
	to := doc.Arrangement(e.c.Value)
	if to != "" && to != doc.LineUp {
		return nil, doc.Problemf(
			"Arrangement",
			"can't be %.40q: choose line-up, or nothing to leave it as it is",
			e.c.Value,
		)
	}
	bs, indices, err := e.gathered()
	if err != nil {
		return nil, err
	}
	h := e.holder()
	c := &doc.Block{ID: e.env.NewID("b"), Kind: doc.Container, Arrangement: doc.LineUp, Style: doc.Style{}}
	for _, name := range []string{"row-height", "column-gap", "row-gap"} {
		if z := h.Style[name]; z != nil {
			c.Style[name] = maps.Clone(z)
		}
	}
	moved := make([]*doc.Block, len(bs))
	for i, b := range bs {
		moved[i] = b.Clone()
	}
	switch {
	case h.Arrangement == doc.Placed:
		area, inside := e.area(h, indices)
		c.Place, c.Arrangement = area, doc.Placed
		for zone, p := range area {
			c.Style["columns"] = c.Style["columns"].With(zone, strconv.Itoa(p.Span))
		}
		for i, b := range moved {
			b.Place = inside[i]
		}
		if to == doc.LineUp {
			e.lineUp(c, moved)
		}
	case h.Arrangement == doc.LineUp:
		for _, name := range []string{"direction", "align-items", "wrap"} {
			if z := h.Style[name]; z != nil {
				c.Style[name] = maps.Clone(z)
			}
		}
	}
	at := indices[0]
	for _, i := range indices {
		at = min(at, i)
	}
	steps := []Step{{Do: InsertBlock, Parent: h.ID, At: at, Block: c}}
	for i, b := range bs {
		if !maps.Equal(b.Place, moved[i].Place) || len(b.Style) != len(moved[i].Style) {
			steps = append(
				steps,
				setBlock(b, func(to *doc.Block) { to.Place, to.Style = moved[i].Place, moved[i].Style })...)
		}
		steps = append(steps, Step{Do: MoveBlock, ID: b.ID, Parent: c.ID, At: i})
	}
	e.selected = c.ID
	return steps, nil
}

// lineUp makes a container in whose grid blocks stand a line of them. It goes across when one
// block stands beside the next; they are as wide then as they were, and in the narrowest
// zone they stand below one another as wide as there is room.
func (e groupEdits) lineUp(c *doc.Block, bs []*doc.Block) {
	widest, narrowest := e.zones().Widest(), e.zones()[len(e.zones())-1].ID
	all := c.Place[widest]
	columns := c.Style["columns"]
	delete(c.Style, "columns")
	delete(c.Style, "row-height")
	c.Arrangement = doc.LineUp
	beside := len(bs) > 1
	for i := 1; i < len(bs); i++ {
		was, p := bs[i-1].Place[widest], bs[i].Place[widest]
		beside = beside && p.Column >= was.Column+was.Span
	}
	if !beside {
		return
	}
	c.Style["direction"] = doc.Zoned[string]{widest: value.Row, narrowest: value.Column}
	c.Style["wrap"] = doc.Zoned[string]{widest: value.NoWrap}
	c.Style["spread"] = doc.Zoned[string]{widest: value.SpaceBetween}
	n, _ := number.Whole(columns[widest])
	gap := e.env.Site.House.ColumnGap.Or(e.zones(), 0, doc.StandardGap)
	for _, b := range bs {
		// So many of the columns, with the gaps between them.
		share := float64(b.Place[widest].Span) / float64(max(n, all.Span, 1))
		width, _ := style.Find("width", b.Kind).
			Read(&e.env.Site.House, style.Number(100*share)+"% - "+style.Number(gap*(1-share))+"px")
		if b.Style == nil {
			b.Style = doc.Style{}
		}
		b.Style["width"] = doc.Zoned[string]{widest: width, narrowest: "100%"}
	}
}

// ungroup takes a container apart: what it holds stands where it did, in what held it.
func (e groupEdits) ungroup() ([]Step, error) {
	c := e.block
	if !c.Kind.Is(doc.Holding) || c.Kind == doc.Series || len(c.Blocks) == 0 {
		return nil, doc.Problemf("Selection", "holds no blocks to let go; choose a container")
	}
	if e.parentKind() == doc.Series {
		return nil, doc.Problemf("Selection", "is the design of a Series, which shows one container for each item")
	}
	h := e.holder()
	at := h.Index(c.ID)
	in := c.Holder()
	seq := place.Order(in, e.zones())
	places := make([]doc.Zoned[doc.Place], len(c.Blocks))
	if h.Arrangement == doc.Placed {
		places = e.letGo(h, at, in)
	}
	var steps []Step
	for k, i := range seq {
		b := c.Blocks[i]
		if p := places[i]; p != nil {
			steps = append(steps, setBlock(b, func(b *doc.Block) { b.Place = p })...)
		}
		steps = append(steps, Step{Do: MoveBlock, ID: b.ID, Parent: h.ID, At: at + k})
	}
	e.selected = c.Blocks[seq[0]].ID
	return append(steps, Step{Do: RemoveBlock, ID: c.ID}), nil
}

// letGo gives the placements, in the grid of a holder, of what the container at an index
// there holds.
func (e groupEdits) letGo(h doc.Holder, at int, in doc.Holder) []doc.Zoned[doc.Place] {
	out := make([]doc.Zoned[doc.Place], len(in.Blocks))
	outer, inner := place.Resolve(h, e.zones()), place.Resolve(in, e.zones())
	for z, zone := range e.zones() {
		area := outer[z][at]
		if z > 0 && area.Derived {
			continue
		}
		columns := in.Columns(e.zones(), z)
		cells := make([]doc.Place, len(in.Blocks))
		for i, p := range inner[z] {
			cells[i] = p.Place
		}
		if in.Arrangement != doc.Placed {
			for _, s := range place.Rearrange(in, doc.Placed, e.zones()).Children {
				for _, b := range s.Blocks {
					if i := in.Index(b.ID); i >= 0 {
						cells[i] = s.Place
					} else if s.Emptied != nil { // a mere stack, which stays one
						i = in.Index(s.Emptied.ID)
						cells[i] = s.Place
					}
				}
			}
			columns = in.Columns(e.zones(), 0)
		}
		for i, p := range cells {
			out[i] = out[i].With(zone.ID, place.Fit(place.Outside(p, area.Place, columns), h.Columns(e.zones(), z)))
		}
	}
	return out
}

// makeRoom moves down what a block covers, and all below that.
func (e groupEdits) makeRoom() ([]Step, error) {
	ps, i, columns, err := e.placed()
	if err != nil {
		return nil, err
	}
	from, by := place.MakeRoom(ps, i)
	if by == 0 {
		return nil, doc.Problemf("Room", "is there already: the block covers nothing that begins at its top or below")
	}
	var steps []Step
	for k, b := range e.holder().Blocks {
		if k == i || ps[k].Hidden || ps[k].Row < from {
			continue
		}
		p := ps[k].Place
		p.Row += by
		if p.Row+p.Rows-1 > doc.MaxRow {
			return nil, doc.Problemf("Room", "isn't there: a grid has at most %d rows", doc.MaxRow)
		}
		steps = append(
			steps,
			setBlock(b, func(b *doc.Block) { b.Place = b.Place.With(e.c.Zone, place.Fit(p, columns)) })...)
	}
	return steps, nil
}

// flip changes left and right over in a section or container.
func (e groupEdits) flip() ([]Step, error) {
	h := e.section.Holder()
	if e.block != nil {
		h = e.block.Holder()
		if !e.block.Kind.Is(doc.Holding) || e.block.Kind == doc.Series {
			h = e.holder()
		}
	}
	order := make([]int, len(h.Blocks))
	for i := range order {
		order[i] = len(order) - 1 - i
	}
	var steps []Step
	switch {
	case h.Arrangement == doc.Placed:
		for _, b := range h.Blocks {
			to := doc.Zoned[doc.Place]{}
			for zone, p := range b.Place {
				to[zone] = p
				if z := e.zones().Index(zone); z >= 0 {
					to[zone] = place.Mirror(p, h.Columns(e.zones(), z))
				}
			}
			if !maps.Equal(to, b.Place) {
				steps = append(steps, setBlock(b, func(b *doc.Block) { b.Place = to })...)
			}
		}
		return steps, nil
	case h.Arrangement == doc.Columns:
		zoned := doc.Zoned[string]{}
		order, _ = place.Turn(place.Shares(h, e.zones(), 0), len(h.Blocks))
		for zone, v := range h.Style["shares"] {
			zoned[zone] = v
			if _, pattern := place.Turn(place.ReadShares(v), len(h.Blocks)); pattern != nil {
				zoned[zone] = strings.Trim(fmt.Sprint(pattern), "[]")
			}
		}
		if len(zoned) > 0 && !maps.Equal(zoned, h.Style["shares"]) {
			steps = append(steps, e.restyleHolder(h, func(s doc.Style) { s["shares"] = zoned })...)
		}
	case h.Style["direction"].Or(e.zones(), 0, value.Column) != value.Row:
		return nil, doc.Problemf("Flip", "has nothing to change over: the blocks stand below one another")
	}
	for at, i := range order {
		steps = append(steps, Step{Do: MoveBlock, ID: h.Blocks[i].ID, Parent: h.ID, At: at})
	}
	return steps, nil
}

// restyleHolder gives the step that changes the style of a section or container.
func (e groupEdits) restyleHolder(h doc.Holder, change func(doc.Style)) []Step {
	with := func(s doc.Style) doc.Style {
		next := maps.Clone(s)
		if next == nil {
			next = doc.Style{}
		}
		change(next)
		return next
	}
	if h.ID == e.section.ID {
		return e.head(func(s *doc.Section) { s.Style = with(s.Style) })
	}
	_, b := e.page.Block(h.ID)
	return setBlock(b, func(b *doc.Block) { b.Style = with(b.Style) })
}

// lock keeps a block as it is, or lets it be changed again.
func (e groupEdits) lock() ([]Step, error) {
	if e.block.Locked == e.c.Hide {
		return nil, nil
	}
	return e.replace(func(b *doc.Block) { b.Locked = e.c.Hide }), nil
}

// unlocked checks that nothing that a command changes is locked.
func (e *editing) unlocked() error {
	if e.c.Op == "block.lock" || e.c.Op == "rename" || e.c.Op == "duplicate" || e.c.Op == "paste" {
		return nil
	}
	locked := func(b *doc.Block) error {
		if b == nil || !b.Locked {
			return nil
		}
		return doc.Problemf("Selection", "is locked; unlock it first (Ctrl+Shift+L)")
	}
	if err := locked(e.block); err != nil {
		return err
	}
	for _, id := range e.c.With {
		own, _ := doc.SplitItem(id)
		_, b := e.page.Block(own)
		if err := locked(b); err != nil {
			return err
		}
	}
	return nil
}
