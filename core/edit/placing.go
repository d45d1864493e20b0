package edit

import (
	"fmt"
	"slices"
	"strings"

	"openplot/core/doc"
	"openplot/core/number"
	"openplot/core/place"
)

// placed is the block's index in its holder and its placement in the command's zone,
// with all the others'.
func (e *editing) placed() (ps []place.Placed, index, columns int, err error) {
	h := e.holder()
	if h.Arrangement != doc.Placed {
		return nil, 0, 0, doc.Problemf(
			"Position",
			"has no cells here: the block stands in a %s, where its order and share count",
			arrangementName(h),
		)
	}
	z := e.zones().Index(e.c.Zone)
	return place.Resolve(h, e.zones())[z], h.Index(e.block.ID), h.Columns(e.zones(), z), nil
}

// arrangementName names the arrangement of a holder as people see it.
func arrangementName(h doc.Holder) string {
	return map[doc.Arrangement]string{doc.Placed: "grid", doc.Columns: "row of columns", doc.LineUp: "line-up"}[h.Arrangement]
}

// at gives the step that puts the block somewhere by hand in the zone.
func (e placeEdits) at(p doc.Place) []Step {
	if now, ok := e.block.Place[e.c.Zone]; ok && now == p {
		return nil
	}
	if steps := e.pinned(p); steps != nil {
		return steps
	}
	return e.replace(func(b *doc.Block) { b.Place = b.Place.With(e.c.Zone, p) })
}

// pinned gives the steps that put the block somewhere where its neighbours are in another order by
// hand in the zone: each of them gets the place that it has now, instead of an order among bands
// that are others by then. Nil where there is no such order.
func (e placeEdits) pinned(p doc.Place) (steps []Step) {
	h, zone := e.holder(), e.c.Zone
	inOrder := func(b *doc.Block) bool { return b.Style["order"][zone] != "" }
	z := e.zones().Index(zone)
	if z == 0 || !slices.ContainsFunc(h.Blocks, inOrder) {
		return nil
	}
	for i, at := range place.Resolve(h, e.zones())[z] {
		if h.Blocks[i].ID == e.block.ID {
			at.Place = p
		}
		steps = append(steps, setBlock(h.Blocks[i], func(b *doc.Block) {
			b.Place = b.Place.With(zone, at.Place)
			b.Style = orderIn(b.Style, zone, 0, true)
		})...)
	}
	return steps
}

func checkPlace(p doc.Place, columns int) error {
	switch {
	case p.Column < 1 || p.Column > columns:
		return doc.Problemf("Columns", "begin at %d; the grid has columns 1 to %d here", p.Column, columns)
	case p.Span < 1 || p.Column+p.Span-1 > columns:
		return doc.Problemf("Columns", "reach from %d over %d; the grid has %d columns here", p.Column, p.Span, columns)
	case p.Row < 1 || p.Rows < 1 || p.Row+p.Rows-1 > doc.MaxRow || p.Row > doc.MaxRow || p.Rows > doc.MaxRow:
		return doc.Problemf("Rows", "begin at %d and are %d; they lie between 1 and %d", p.Row, p.Rows, doc.MaxRow)
	case p.Layer < 0 || p.Layer > doc.MaxLayer:
		return doc.Problemf("Layer", "can't be %d; write 0 to %d", p.Layer, doc.MaxLayer)
	}
	return nil
}

func (e placeEdits) placeBlock() ([]Step, error) {
	if e.c.Place == nil {
		return nil, doc.Problemf("Position", "is missing: say columns and rows")
	}
	_, _, columns, err := e.placed()
	if err != nil {
		return nil, err
	}
	if err := checkPlace(*e.c.Place, columns); err != nil {
		return nil, err
	}
	return e.at(*e.c.Place), nil
}

// nudge moves a block by cells, or to an earlier or later place where there are none.
func (e placeEdits) nudge() ([]Step, error) {
	if h := e.holder(); h.Arrangement != doc.Placed {
		if e.zones().Index(e.c.Zone) > 0 && e.series == nil {
			e.c.DY = sign(e.c.DX + e.c.DY)
			return e.order()
		}
		from := h.Index(e.block.ID)
		to := min(max(from+sign(e.c.DX+e.c.DY), 0), len(h.Blocks)-1)
		if to == from || e.series != nil && h.ID == e.series.ID {
			return nil, nil
		}
		return []Step{{Do: MoveBlock, ID: e.block.ID, Parent: h.ID, At: to}}, nil
	}
	ps, i, columns, err := e.placed()
	if err != nil {
		return nil, err
	}
	return e.at(place.Nudge(ps[i].Place, bounded(e.c.DX), bounded(e.c.DY), columns)), nil
}

func (e placeEdits) resize() ([]Step, error) {
	ps, i, columns, err := e.placed()
	if err != nil {
		return nil, err
	}
	return e.at(place.Resize(ps[i].Place, bounded(e.c.DX), bounded(e.c.DY), columns)), nil
}

// bounded keeps a step from overflowing when it is added.
func bounded(n int) int { return min(max(n, -doc.MaxRow), doc.MaxRow) }

// setPlace reads "3 – 8" for columns and rows, or one number, and the layer.
func (e placeEdits) setPlace() ([]Step, error) {
	ps, i, columns, err := e.placed()
	if err != nil {
		return nil, err
	}
	p := ps[i].Place
	from, to, err := span(e.c.Value)
	switch e.c.Setting {
	case "columns":
		if err != nil {
			return nil, doc.Problemf(
				"Columns",
				"can't be %.40q: write the first and the last, such as 3 – 8",
				e.c.Value,
			)
		}
		p.Column, p.Span = from, to-from+1
	case "rows":
		if err != nil {
			return nil, doc.Problemf("Rows", "can't be %.40q: write the first and the last, such as 2 – 6", e.c.Value)
		}
		p.Row, p.Rows = from, to-from+1
	case "layer":
		if p.Layer, err = number.Whole(strings.TrimSpace(e.c.Value)); err != nil {
			return nil, doc.Problemf("Layer", "can't be %.40q: write a number from 0 to %d", e.c.Value, doc.MaxLayer)
		}
	default:
		return nil, doc.Problemf("Setting", "%.40q isn't part of a placement; columns, rows and layer are", e.c.Setting)
	}
	if err := checkPlace(p, columns); err != nil {
		return nil, err
	}
	return e.at(p), nil
}

// span reads "a – b", "a-b", "a b" or "a".
func span(v string) (from, to int, err error) {
	parts := strings.FieldsFunc(v, func(r rune) bool { return strings.ContainsRune("-–— ", r) })
	if len(parts) == 1 {
		parts = append(parts, parts[0])
	}
	if len(parts) != 2 {
		return 0, 0, fmt.Errorf("%d parts", len(parts))
	}
	if from, err = number.Whole(parts[0]); err == nil {
		to, err = number.Whole(parts[1])
	}
	if err == nil && (from < 0 || to < from || to > 1<<20) {
		err = fmt.Errorf("from %d to %d", from, to)
	}
	return from, to, err
}

func (e placeEdits) followPlace() ([]Step, error) {
	if e.c.Zone == e.zones().Widest() {
		return nil, doc.Problemf("Position", "can't follow in %s: it is the zone the others follow", e.zones()[0].Name)
	}
	if _, ok := e.block.Place[e.c.Zone]; !ok {
		return nil, nil
	}
	return e.replace(func(b *doc.Block) { b.Place = b.Place.Without(e.c.Zone) }), nil
}

func (e placeEdits) changeLayer() ([]Step, error) {
	ps, i, _, err := e.placed()
	if err != nil {
		return nil, err
	}
	if e.c.DY == 0 {
		return nil, doc.Problemf("Layer", "say up or down")
	}
	var steps []Step
	layers := place.Layers(ps, i, sign(e.c.DY))
	for k, b := range e.holder().Blocks {
		if layer, ok := layers[k]; ok && layer != ps[k].Layer {
			p := ps[k].Place
			p.Layer = layer
			steps = append(steps, setBlock(b, func(b *doc.Block) { b.Place = b.Place.With(e.c.Zone, p) })...)
		}
	}
	return steps, nil
}
