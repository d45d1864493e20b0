package model

import (
	"slices"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/handle"
	"openplot/core/layout"
	"openplot/core/place"
	"openplot/core/ready"
	"openplot/core/rights"
	"openplot/core/style"
	"openplot/core/value"
)

// State is what the Bench's scripts know about the page: enough to move pixels.
type State struct {
	Seq    int64    `json:"seq"`
	Width  float64  `json:"width"`
	Select string   `json:"select"`
	Order  []string `json:"order"` // sections that are shown, as they are at the width
	Usual  []string `json:"usual"` // the same as in the document
	All    []string `json:"all"`   // sections that are there, hidden ones too
	// End is the section behind which new ones go unless a place is chosen: the last above the footers.
	End    string                 `json:"end"`
	Orders map[string][]string    `json:"orders"` // the same in zones in which they come otherwise by hand
	Show   []sectionText          `json:"show"`   // sections that changed
	Places map[string][]heldBlock `json:"places"` // by section
	Zones  doc.Zones              `json:"zones"`
	Names  map[string]string      `json:"names"`
	Grids  map[string]grid        `json:"grids"`  // at Width
	Across map[string]bool        `json:"across"` // by holder, whether one block stands beside the next
	Ground string                 `json:"ground"`
	Guides doc.Guides             `json:"guides"` // in the zone
	// Did is what was just done, and Told what is selected, for those who hear the Bench.
	Did  string `json:"did,omitempty"`
	Told string `json:"told"`
	// Handles are what can be dragged of the selection, beside its cells.
	Handles []handle.Handle `json:"handles"`
}

// grid is where the tracks of a Placed arrangement are, in px from the top left corner
// of the section or container.
type grid struct {
	X         float64   `json:"x"`
	Y         float64   `json:"y"`
	Columns   []float64 `json:"columns"`
	Rows      []float64 `json:"rows"`
	ColumnGap float64   `json:"columnGap"`
	RowGap    float64   `json:"rowGap"`
	RowHeight float64   `json:"rowHeight"`
}

// grids adds the grids of a section and the containers in it, by the id of what holds
// them.
func (v *View) grids(to map[string]grid, sec *doc.Section) {
	root := v.Stage.scene(v.Page, sec).at(v.Width)
	if sec.Arrangement == doc.Placed {
		root.Walk(func(b *layout.Box, x, y float64) {
			if b.Node.Key == sec.ID+"-g" {
				to[sec.ID] = v.grid(b, x, y)
			}
		})
	}
	placed := map[string]bool{}
	sec.Walk(func(b *doc.Block) {
		placed[b.ID] = b.Kind.Is(doc.Holding) && b.Kind != doc.Series && b.Arrangement == doc.Placed
	})
	root.Walk(func(b *layout.Box, _, _ float64) {
		if id, _ := doc.SplitItem(b.Node.Block); placed[id] {
			to[b.Node.Block] = v.grid(b, 0, 0)
		}
	})
}

func (v *View) grid(box *layout.Box, x, y float64) grid {
	st := &box.Node.Styles[v.Zone]
	view := style.Viewport{Width: v.Width}
	px := func(l style.Length) float64 { return l.Or(box.W, view, 0) }
	g := grid{
		X:         x + px(st.Padding.Left) + st.Border.Left,
		Y:         y + px(st.Padding.Top) + st.Border.Top,
		ColumnGap: px(st.ColumnGap),
		RowGap:    px(st.RowGap),
		RowHeight: px(st.GridAutoRows.Min),
		Columns:   []float64{}, Rows: []float64{},
	}
	if box.Tracks == nil {
		return g
	}
	for _, t := range box.Tracks.Columns {
		g.Columns = append(g.Columns, t.Size)
	}
	for _, t := range box.Tracks.Rows {
		g.Rows = append(g.Rows, t.Size)
	}
	return g
}

type sectionText struct {
	ID   string `json:"id"`
	HTML string `json:"html"`
	CSS  string `json:"css"`
}

// heldBlock is a block and what it stands in. In a Placed arrangement it has its
// placements by zone id: column, span, row, rows, layer.
type heldBlock struct {
	ID     string   `json:"id"`
	Kind   doc.Kind `json:"kind"`
	Holder string   `json:"holder"`
	Design bool     `json:"design,omitempty"` // of a Series, its holder
	Placed bool     `json:"placed,omitempty"`
	Holds  bool     `json:"holds,omitempty"`
	Writes bool     `json:"writes,omitempty"` // words of its own
	Locked bool     `json:"locked,omitempty"`
	// StandIn tells that its words are those that it began with, to be written over.
	StandIn bool `json:"standIn,omitempty"`
	// StandIns are the parts of its entries of which that is so, such as "2.title".
	StandIns []string          `json:"standIns,omitempty"`
	Zones    map[string][5]int `json:"zones,omitempty"`
	Hidden   map[string]bool   `json:"hidden,omitempty"`
	// Order is where it comes to the eye, by zone, where that isn't as in the document.
	Order map[string]int `json:"order,omitempty"`
}

// across reports whether one block stands beside the next in a holder at the width.
func (v *View) across(h doc.Holder, series bool) bool {
	sh := style.Sheet{House: &v.Site.House, Zones: v.Site.Zones, Zone: v.Zone, Style: h.Style}
	switch {
	case series:
		return element.PerRow(sh) > 1
	case h.Arrangement == doc.LineUp:
		return sh.Word("direction", value.Column) == value.Row
	case h.Arrangement == doc.Columns:
		return v.Zone == 0
	}
	return false
}

// handles are those of what is selected, when it is one thing and isn't locked.
func (v *View) handles() []handle.Handle {
	out := []handle.Handle{}
	if len(v.Also) > 0 || !v.Site.Role.May(rights.Compose) {
		return out
	}
	at := handle.View{House: &v.Site.House, Zones: v.Site.Zones, Zone: v.Zone, Width: v.Width}
	if sec, _ := v.Page.Section(v.Selected); sec != nil && !sec.Hidden {
		above, _ := place.Neighbours(v.Page, v.Site.Zones)(sec, v.Zone)
		return append(out, at.Section(sec, v.Stage.scene(v.Page, sec).at(v.Width), above == nil)...)
	}
	id, item := doc.SplitItem(v.Selected)
	sec, b := v.Page.Block(id)
	if b == nil || b.Locked || sec.Hidden {
		return out
	}
	series := false
	for _, c := range sec.Path(id) {
		series = series || item != "" && c.Kind == doc.Series && len(c.Blocks) > 0 && c.Blocks[0].ID == id
	}
	return append(out, at.Block(sec, b, v.Selected, v.Stage.scene(v.Page, sec).at(v.Width), series)...)
}

// ranks gives, by zone, where each block of a holder comes to the eye in the narrower ones; nil for
// a zone in which that is the order of the document.
func (v *View) ranks(h doc.Holder, resolved [][]place.Placed) [][]int {
	out := make([][]int, len(v.Site.Zones))
	for z := 1; z < len(out); z++ {
		seq, byHand := place.Sequence(h, v.Site.Zones, z)
		if h.Arrangement == doc.Placed {
			seq, byHand = seq[:0], true
			for _, band := range place.Bands(resolved[z], true) {
				seq = append(seq, band...)
			}
		}
		if !byHand {
			continue
		}
		out[z] = make([]int, len(seq))
		for to, i := range seq {
			out[z][i] = to
		}
	}
	return out
}

// held describes the blocks of a holder and of the containers in it.
// standIns tell of a section's blocks which words they began with.
type standIns struct {
	words func(*doc.Block) bool
	parts func(*doc.Block) []string
}

func (v *View) held(st *State, section string, h doc.Holder, series bool, standIn standIns) {
	resolved := place.Resolve(h, v.Site.Zones)
	st.Across[h.ID] = v.across(h, series)
	ranks := v.ranks(h, resolved)
	for i, b := range h.Blocks {
		e := heldBlock{
			ID: b.ID, Kind: b.Kind, Holder: h.ID, Design: series, Placed: h.Arrangement == doc.Placed && !series,
			Holds: b.Kind.Is(doc.Holding), Locked: b.Locked,
			Writes:  b.Kind.Is(doc.Worded),
			StandIn: standIn.words(b), StandIns: standIn.parts(b),
		}
		st.Names[b.ID] = blockName(b)
		for z, zone := range v.Site.Zones {
			p := resolved[z][i]
			if e.Placed {
				if e.Zones == nil {
					e.Zones = map[string][5]int{}
				}
				e.Zones[zone.ID] = [5]int{p.Column, p.Span, p.Row, p.Rows, p.Layer}
			}
			if ranks[z] != nil {
				if e.Order == nil {
					e.Order = map[string]int{}
				}
				e.Order[zone.ID] = ranks[z][i]
			}
			if p.Hidden {
				if e.Hidden == nil {
					e.Hidden = map[string]bool{}
				}
				e.Hidden[zone.ID] = true
			}
		}
		st.Places[section] = append(st.Places[section], e)
		if e.Holds {
			v.held(st, section, b.Holder(), b.Kind == doc.Series, standIn)
		}
	}
}

// State describes the sections named, or every one's placements for nil, when the
// canvas has its text already.
func (v *View) State(changed []string, grids bool) State {
	st := State{
		Seq: v.Seq, Width: v.Width, Select: v.Selected, Show: []sectionText{},
		Places: map[string][]heldBlock{},
		Zones:  v.Site.Zones,
		Names:  map[string]string{},
		Grids:  map[string]grid{}, Across: map[string]bool{},
		Ground: v.ground(), Handles: v.handles(), Guides: v.Page.Guides[v.Current().ID],
	}
	st.Order, st.Usual, st.Orders = v.orders()
	st.End = endOf(v.Page)
	for _, sec := range v.Page.Sections {
		st.All = append(st.All, sec.ID)
		touched := changed == nil || slices.Contains(changed, sec.ID)
		if !sec.Hidden && (grids || touched) {
			v.grids(st.Grids, sec)
		}
		if !touched {
			continue
		}
		if changed != nil {
			sc := v.Stage.scene(v.Page, sec)
			st.Show = append(st.Show, sectionText{sec.ID, sc.HTML, sc.CSS})
		}
		st.Names[sec.ID] = sec.Name
		st.Places[sec.ID] = []heldBlock{}
		v.held(&st, sec.ID, sec.Holder(), false, standIns{ready.StandIns(sec), ready.StandInParts(sec)})
	}
	return st
}

// orders gives the sections that are shown: in their order at the width, in that of the document,
// and in those of zones in which they come otherwise by hand.
func (v *View) orders() (here, usual []string, zones map[string][]string) {
	shown := func(all []*doc.Section) []string {
		ids := []string{}
		for _, sec := range all {
			if !sec.Hidden {
				ids = append(ids, sec.ID)
			}
		}
		return ids
	}
	usual, zones = shown(v.Page.Sections), map[string][]string{}
	here = usual
	for z, zone := range v.Site.Zones {
		if all, byHand := place.Sections(v.Page, v.Site.Zones, z); byHand {
			if zones[zone.ID] = shown(all); z == v.Zone {
				here = zones[zone.ID]
			}
		}
	}
	return here, usual, zones
}

// endOf is the last section of a page above its footers, or "".
func endOf(p *doc.Page) (id string) {
	for _, sec := range p.Sections {
		if sec.Role != doc.RoleFooter {
			id = sec.ID
		}
	}
	return id
}

// Order gives the sections that are shown, as they come at the width.
func (v *View) Order() []string {
	here, _, _ := v.orders()
	return here
}

// Boxes gives where the blocks of some sections stand at the width, by section and id: x and y
// from the section's top left corner, width and height, in px.
func (v *View) Boxes(sections []string) map[string]map[string][4]float64 {
	out := map[string]map[string][4]float64{}
	for _, id := range sections {
		sec, _ := v.Page.Section(id)
		if sec == nil || sec.Hidden {
			continue
		}
		out[id] = map[string][4]float64{}
		v.Stage.scene(v.Page, sec).at(v.Width).Walk(func(b *layout.Box, x, y float64) {
			if b.Node.Block != "" && b.Node.Styles[v.Zone].Display != style.None {
				out[id][b.Node.Block] = [4]float64{x, y, b.W, b.H}
			}
		})
	}
	return out
}

// Tried is what the canvas would show after a command.
type Tried struct {
	Select string        `json:"select"`
	Order  []string      `json:"order"`
	Show   []sectionText `json:"show"`
	Ground string        `json:"ground"`
}

// ground is the colour that the page lies on.
func (v *View) ground() string {
	if w := v.Site.House.Swatch(v.Page.Ground); w != nil {
		return w.Value
	}
	return v.Site.House.Ground()
}

// Tried describes the sections named as the page, which isn't kept, has them. Nothing of it
// is remembered, and nothing is laid out.
func (v *View) Tried(changed []string, selected string) Tried {
	t := Tried{Select: selected, Show: []sectionText{}, Ground: v.ground()}
	t.Order = v.Order()
	for _, sec := range v.Page.Sections {
		if !sec.Hidden && slices.Contains(changed, sec.ID) {
			html, css, _ := v.Stage.write(v.Page, sec)
			t.Show = append(t.Show, sectionText{sec.ID, html, css})
		}
	}
	return t
}
