package model

import (
	"strconv"

	"openplot/core/doc"
	"openplot/core/place"
)

// placeGrid is a grid in small: the block and its neighbours by their cells.
type placeGrid struct {
	Columns, Rows int
	Own           doc.Place
	Others        []doc.Place
	Lines         []int // between columns
}

// placeCluster is the block's cells.
func (v clusters) placeCluster(b *doc.Block, h doc.Holder, ps []place.Placed, at int) cluster {
	_, byHand := b.Place[v.Current().ID]
	p := ps[at]
	from := "by rule"
	if !p.Derived {
		from = ""
	}
	placeField := func(label, setting, value string) field {
		f := field{
			ID: "f-place-" + setting, Label: label, Op: "block.place.set", Setting: setting, Control: "text",
			Here: byHand, Zoned: true, From: from,
		}
		if byHand {
			f.Value = value
			if v.Zone > 0 {
				f.Reset = "block.place.reset"
			}
		} else {
			f.Follows = value
		}
		return f
	}
	g := &placeGrid{Columns: h.Columns(v.Site.Zones, v.Zone), Own: p.Place}
	for i, o := range ps {
		if o.Hidden {
			continue
		}
		g.Rows = max(g.Rows, o.Row+o.Rows-1)
		if i != at {
			g.Others = append(g.Others, o.Place)
		}
	}
	g.Rows = max(g.Rows, p.Row+p.Rows-1) + 2
	for i := 1; i < g.Columns; i++ {
		g.Lines = append(g.Lines, i)
	}
	return cluster{
		ID: "place", Title: "Place", Note: strconv.Itoa(g.Columns) + " columns", Grid: g,
		Fields: []field{
			placeField("Columns", "columns", reach(p.Column, p.Span)),
			placeField("Rows", "rows", reach(p.Row, p.Rows)),
			placeField("Layer", "layer", strconv.Itoa(p.Layer)),
		},
	}
}

// arrangementCluster is how the blocks of a section or container stand.
func (v clusters) arrangementCluster(h doc.Holder, kind doc.Kind) cluster {
	c := cluster{ID: "layout", Title: "Layout"}
	f := field{ID: "f-arrange", Label: "Arrangement", Op: "arrange", Control: "segments", Here: true}
	f.Options = []option{
		{Value: "placed", Label: "Placed", Chosen: h.Arrangement == doc.Placed, Icon: "grid-3x3"},
		{Value: "columns", Label: "Columns", Chosen: h.Arrangement == doc.Columns, Icon: "layout-three-columns"},
		{Value: "line-up", Label: "Line-up", Chosen: h.Arrangement == doc.LineUp, Icon: "distribute-vertical"},
	}
	c.Fields = []field{f}
	var names []string
	switch h.Arrangement {
	case doc.Placed:
		c.Note = strconv.Itoa(h.Columns(v.Site.Zones, v.Zone)) + " columns"
		names = []string{"columns", "row-height", "column-gap", "row-gap"}
	case doc.Columns:
		c.Note = "in twelfths"
		names = []string{"shares", "column-gap", "row-gap", "align-items", "below"}
	case doc.LineUp:
		names = []string{"direction", "column-gap", "row-gap", "spread", "align-items", "wrap", "grow-items"}
	}
	c.Fields = append(c.Fields, fields(v).settings(h.Style, kind, names...)...)
	return c
}
