package model

import (
	"html/template"
	"slices"
	"strconv"

	"openplot/core/doc"
	"openplot/core/place"
	"openplot/core/rights"
)

// Top is the part of the top bar that edits change.
type Top struct {
	Edits            int64
	CanUndo, CanRedo bool
	Undo, Redo       string // what it would be, in a few words, or ""
}

// Top gives that part.
func (v *View) Top() Top {
	return Top{v.History.Edits, v.History.CanUndo, v.History.CanRedo, v.History.Undo, v.History.Redo}
}

// Overview is the whole page drawn to scale.
type Overview struct {
	Count    int
	Composes bool
	Items    []OverviewItem
	Insert   insertMark // at the beginning
	Zone     string     // in which the sections come in an order of its own, or ""
}

// OverviewItem is one section of it.
type OverviewItem struct {
	ID, Name, Measure string
	Count             string // of blocks, in words
	Blocks            int
	Many              bool // too many of them
	Hidden, Selected  bool
	Composes          bool
	Drawing           template.HTML
	View              string // the title of the view that it is part of, or ""
	Insert            insertMark
}

// insertMark is where a section can be put in: behind another, or "" for the beginning.
type insertMark struct{ After, Label string }

// mark gives the one behind a section at an index of the order that is seen, -1 for the beginning.
func mark(sections []*doc.Section, i int) insertMark {
	switch {
	case len(sections) == 0:
		return insertMark{Label: "Insert the first section"}
	case i < 0:
		return insertMark{Label: "Insert before " + sections[0].Name}
	case i+1 == len(sections):
		return insertMark{sections[i].ID, "Insert after " + sections[i].Name}
	}
	return insertMark{sections[i].ID, "Insert between " + sections[i].Name + " and " + sections[i+1].Name}
}

// Overview gives all sections, each drawn.
func (v *View) Overview() Overview {
	o := Overview{Count: len(v.Page.Sections), Composes: v.Site.Role.May(rights.Compose)}
	sections, byHand := place.Sections(v.Page, v.Site.Zones, v.Zone)
	if byHand {
		o.Zone = v.Current().Name
	}
	o.Insert = mark(sections, -1)
	for i, sec := range sections {
		o.Items = append(o.Items, overviewItem(v, sec, mark(sections, i)))
	}
	return o
}

// overviewWidth is the width of the Overview's drawings in px.
const overviewWidth = 131

// OverviewItem gives one section.
func (v *View) OverviewItem(sec *doc.Section) OverviewItem {
	sections, _ := place.Sections(v.Page, v.Site.Zones, v.Zone)
	return overviewItem(v, sec, mark(sections, slices.Index(sections, sec)))
}

func overviewItem(v *View, sec *doc.Section, behind insertMark) OverviewItem {
	it := OverviewItem{
		Insert: behind,
		ID:     sec.ID, Name: sec.Name, Hidden: sec.Hidden,
		Selected: v.selectedSection() == sec.ID,
		Composes: v.Site.Role.May(rights.Compose),
	}
	if sec.View != nil {
		it.View = sec.View.Title
	}
	it.Blocks, it.Count, it.Many = blockCount(sec)
	if sec.Hidden {
		it.Measure = "hidden"
		return it
	}
	box := v.Stage.scene(v.Page, sec).at(v.Width)
	if it.Measure = strconv.Itoa(int(box.H + 0.5)); v.over(sec, v.Zone) {
		it.Measure = "over"
	}
	it.Drawing = v.drawn(sec, drawing{width: v.Width, zone: v.Zone}, overviewWidth)
	return it
}

// selectedSection is the selected section, or the one the selected block is in.
func (v *View) selectedSection() string {
	if s, _ := v.Page.Section(v.Selected); s != nil {
		return s.ID
	}
	id, _ := doc.SplitItem(v.Selected)
	if s, _ := v.Page.Block(id); s != nil {
		return s.ID
	}
	return ""
}
