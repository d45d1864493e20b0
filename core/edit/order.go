package edit

import (
	"maps"
	"slices"
	"strconv"

	"openplot/core/doc"
	"openplot/core/place"
)

// order has a section or a block come earlier or later in a zone. In the widest zone that is its
// place in the document; in a narrower one the document stays as it is, and only what is seen there
// is in another order.
func (e placeEdits) order() ([]Step, error) {
	z := e.zones().Index(e.c.Zone)
	if e.block == nil {
		return e.orderSection(z)
	}
	h := e.holder()
	switch {
	case e.series != nil && h.ID == e.series.ID || e.parentKind() == doc.Series:
		return nil, doc.Problemf("Order", "can't change: a Series needs its design")
	case h.Arrangement == doc.Placed && z == 0:
		return nil, doc.Problemf("Order", "goes by the cells here: move the block")
	case h.Arrangement == doc.Placed:
		return e.orderBand(h, z)
	case z == 0:
		e.c.DX = 0
		return e.nudge()
	}
	now, _ := place.Sequence(h, e.zones(), z)
	next, err := e.moved(now, h.Index)
	if err != nil || slices.Equal(now, next) {
		return nil, err
	}
	wider, _ := place.Sequence(h, e.zones(), z-1)
	var steps []Step
	for to, i := range next {
		steps = append(steps, e.orderBlock(h.Blocks[i], to+1, slices.Equal(next, wider))...)
	}
	return steps, nil
}

// orderBlock gives a block its place in the order of the zone, or takes the one that it has.
func (e placeEdits) orderBlock(b *doc.Block, at int, follow bool) []Step {
	if follow && b.Style["order"][e.c.Zone] == "" {
		return nil
	}
	return setBlock(b, func(c *doc.Block) { c.Style = orderIn(c.Style, e.c.Zone, at, follow) })
}

// orderIn gives a style with another order in a zone, or with none there.
func orderIn(st doc.Style, zone string, at int, follow bool) doc.Style {
	v := st["order"].Without(zone)
	if !follow {
		v = v.With(zone, strconv.Itoa(at))
	}
	next := doc.Style{}
	maps.Copy(next, st)
	if next["order"] = v; len(v) == 0 {
		delete(next, "order")
	}
	if len(next) == 0 {
		return nil
	}
	return next
}

// orderBand moves what stands on one level with the block in a grid.
func (e placeEdits) orderBand(h doc.Holder, z int) ([]Step, error) {
	bands := place.Bands(place.Resolve(h, e.zones())[z], false)
	at := func(id string) int {
		i := h.Index(id)
		return slices.IndexFunc(bands, func(b []int) bool { return slices.Contains(b, i) })
	}
	if at(e.block.ID) < 0 {
		return nil, doc.Problemf("Order", "can't change where the block is hidden: show it first")
	}
	now := make([]int, len(bands))
	for k := range now {
		now[k] = k
	}
	next, err := e.moved(now, at)
	if err != nil || slices.Equal(now, next) {
		return nil, err
	}
	ruled := h
	ruled.Blocks = nil
	for _, b := range h.Blocks {
		c := *b
		c.Style = orderIn(b.Style, e.c.Zone, 0, true)
		ruled.Blocks = append(ruled.Blocks, &c)
	}
	byRule := place.Bands(place.Resolve(ruled, e.zones())[z], false)
	follow := len(byRule) == len(bands)
	for to := 0; follow && to < len(next); to++ {
		a, b := slices.Sorted(slices.Values(byRule[to])), slices.Sorted(slices.Values(bands[next[to]]))
		follow = slices.Equal(a, b)
	}
	var steps []Step
	for to, k := range next {
		for _, i := range bands[k] {
			steps = append(steps, e.orderBlock(h.Blocks[i], to+1, follow)...)
		}
	}
	return steps, nil
}

// moved gives a sequence in which the node of the command, at gives its number, has moved as the
// command says.
func (e placeEdits) moved(now []int, at func(id string) int) ([]int, error) {
	id := e.section.ID
	if e.block != nil {
		id = e.block.ID
	}
	from := slices.Index(now, at(id))
	next := slices.Delete(slices.Clone(now), from, from+1)
	to := 0
	switch {
	case e.c.DY != 0:
		to = min(max(from+bounded(e.c.DY), 0), len(next))
	case e.c.After != "":
		own, _ := doc.SplitItem(e.c.After)
		k := at(own)
		if k < 0 {
			return nil, doc.Problemf("Order", "can't be changed so: what it should come after isn't there any more")
		}
		if k == now[from] {
			return now, nil
		}
		to = slices.Index(next, k) + 1
	}
	return slices.Insert(next, to, now[from]), nil
}

// orderSection moves a section among those that can come in another order.
func (e placeEdits) orderSection(z int) ([]Step, error) {
	if z == 0 {
		if e.c.DY != 0 {
			return sectionEdits(e).shiftSection()
		}
		return sectionEdits(e).moveSection()
	}
	if !place.Orderable(e.section) {
		return nil, doc.Problemf(
			"Order",
			"is the same in all zones for top bars, footers, views and shared sections; change it in %s",
			e.zones()[0].Name,
		)
	}
	free := func(zone int) (out []*doc.Section) {
		all, _ := place.Sections(e.page, e.zones(), zone)
		for _, s := range all {
			if place.Orderable(s) {
				out = append(out, s)
			}
		}
		return out
	}
	seen := free(z)
	if e.c.After != "" { // what it is put behind may be one that keeps its place
		all, _ := place.Sections(e.page, e.zones(), z)
		i := slices.IndexFunc(all, func(s *doc.Section) bool { return s.ID == e.c.After })
		for i >= 0 && (!place.Orderable(all[i])) {
			i--
		}
		if i < 0 {
			e.c.After = ""
		} else {
			e.c.After = all[i].ID
		}
	}
	at := func(id string) int { return slices.IndexFunc(seen, func(s *doc.Section) bool { return s.ID == id }) }
	now := make([]int, len(seen))
	for i := range now {
		now[i] = i
	}
	next, err := e.moved(now, at)
	if err != nil || slices.Equal(now, next) {
		return nil, err
	}
	wider, follow := free(z-1), true
	for to, i := range next {
		follow = follow && wider[to] == seen[i]
	}
	var steps []Step
	for to, i := range next {
		s := seen[i]
		if follow && s.Style["order"][e.c.Zone] == "" {
			continue
		}
		head := s.Head()
		head.Style = orderIn(s.Style, e.c.Zone, to+1, follow)
		steps = append(steps, Step{Do: SetSection, ID: s.ID, Section: head})
	}
	e.selected = e.section.ID
	e.note = "On " + e.zones()[z].Name + " only."
	return steps, nil
}
