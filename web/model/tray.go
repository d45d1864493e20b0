package model

import (
	"cmp"
	"fmt"
	"html/template"
	"slices"
	"strconv"
	"strings"

	"openplot/core/check"
	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/place"
	"openplot/core/ready"
	"openplot/core/rights"
	"openplot/site"
	"openplot/web/paths"
)

// Tray is everything that can be changed about the selection.
type Tray struct {
	Zone      doc.Zone
	Range     string // of the zone, in words
	Trail     []crumb
	Note      string
	SharedAt  string // where they are drawn
	Shared    []link // the pages that the section stands on, this one included, when it is shared
	Node      string
	Kind      string // block kind, "section", or "" with nothing selected
	Hidden    bool
	Composes  bool
	Placed    bool  // in the cells of a grid, so that it has a layer
	Item      bool  // one of a Series
	Acts      []act // those used most
	More      []act // all, with their keys
	Restyles  bool  // what differs from a text style can become the style's
	Clusters  []cluster
	Elsewhere []elsewhere
}

type crumb struct{ ID, Name string }

// link is a way to another page's Bench.
type link struct{ Name, Href string }

// sharedOn gives the pages that a section stands on that is shared.
func (v trayParts) sharedOn(sec *doc.Section) (on []link) {
	if !sec.Shared {
		return nil
	}
	for _, p := range v.Source.Pages {
		if slices.Contains(p.Shared, sec.ID) || p.ID == v.Page.ID {
			on = append(on, link{p.Name, paths.To(v.Site.Slug).Page(p.Slug).At("bench")})
		}
	}
	return on
}

// sharedAt is where a shared section is drawn on all its pages.
func (v trayParts) sharedAt(sec *doc.Section) string {
	return paths.To(v.Site.Slug).Segment(v.Slug).At("shared", sec.ID) + fmt.Sprintf("?width=%.0f", v.Width)
}

// cluster is a group of fields.
type cluster struct {
	ID, Title, Note string
	Fields          []field
	Tabs            []tab
	Box             []field // padding and margin, drawn as nested boxes
	Edges           []field // each side's border and each corner's radius, drawn on a box
	Grid            *placeGrid
	Differs         []string // settings that differ from the text style, in words
	DiffersFrom     string
	PutBack         string // the command that lets them follow it again
	Play            string // how the entrance is played on the canvas, as JSON
	Crops           []crop
	SeenOn          []seenOn
	Order           *ordering
	Says            *saying
	Entries         *Entries
	Together        []together
}

// crop is what a zone shows of a picture: a frame of W by H px.
type crop struct {
	Zone, Src string
	W, H      float64
}

// tab is one of several groups of fields in a cluster, of which one is shown.
type tab struct {
	ID, Title string
	Fields    []field
}

// Set reports whether something in the cluster is set in this zone.
func (c cluster) Set() bool {
	set := func(f field) bool { return f.Zoned && f.Here }
	return slices.ContainsFunc(c.Fields, set) || slices.ContainsFunc(c.Box, set) || slices.ContainsFunc(c.Edges, set) ||
		slices.ContainsFunc(c.Tabs, tab.Set)
}

// Set reports whether something in the tab is set.
func (t tab) Set() bool { return slices.ContainsFunc(t.Fields, func(f field) bool { return f.Here }) }

// field is one thing to set. A value set in this zone is in Value; one that
// follows is in Follows.
type field struct {
	ID      string
	Label   string
	Short   string // what is shown for it beside its drawing, where Label is too long
	Spoken  string // what a value that is written in notation says, or ""
	Op      string // of the command
	Setting string
	Control string         // which template draws it: see field.html
	Sort    doc.MediumSort // of what a picture field takes
	At      int            // of an entry
	Value   string
	Raw     string // the canonical value in force, or ""
	Follows string
	Note    string
	Here    bool
	From    string // what it follows, in words
	Reset   string // op that puts it back, or "" where it can't be
	Zoned   bool
	Options []option
	Find    bool       // the options can be searched
	Paint   string     // what it looks like, as CSS has it
	Font    string     // the family that it is, to be shown in itself
	Thumb   string     // address of a picture
	Cells   [][]string // of a table
	Fixed   bool       // it can be chosen and not written
	Leads   string     // where a link leads, in words
	Broken  bool       // there is nothing there
	// Of numbers: bounds, how far a key goes, the units and house-style steps there are, and
	// what it is now in the first unit.
	Min, Max, Step float64
	Units          []string
	Steps          []step
	Quick          []option
	Now            string
	Slides         bool // with a slider beside it
	// Others are the narrower zones that have a value of their own, in words, so that this
	// one doesn't arrive there; ThereToo is the command that lets them follow.
	Others   string
	ThereToo string
	// Token tells that the value is one of the house style's, Promotes that it can be made
	// one.
	Token, Promotes bool
}

// Shown is what the field is called beside its control.
func (f field) Shown() string { return cmp.Or(f.Short, f.Label) }

type option struct {
	Value, Label string
	Chosen       bool
	Icon         string // that draws it, or ""
	Sample       string // letters as it sets them, or ""
	Drawing      template.HTML
	Clip         string // CSS's clip-path of what a picture is cut to, or ""
	Font         string // the family that its label is set in, or ""
	Weight       int
	Size         float64 // px
}

type seenOn struct {
	Zone    doc.Zone
	Visible bool
}

// ordering is where something comes among what is beside it in a narrower zone.
type ordering struct {
	Zone   string
	At, Of int
	Here   bool // it was given there by hand
	Wider  string
}

// ordering is the order of a block or section in a narrower zone, or nil.
func (v trayParts) ordering(at, of int, set doc.Style) *ordering {
	if v.Zone == 0 || of < 2 || at < 0 {
		return nil
	}
	_, here := set["order"][v.Current().ID]
	return &ordering{v.Current().Name, at + 1, of, here, v.Site.Zones[v.Zone-1].Name}
}

// blockOrder is that of a block.
func (v trayParts) blockOrder(h doc.Holder, resolved [][]place.Placed, i int) *ordering {
	if h.Arrangement == doc.Placed {
		bands := place.Bands(resolved[v.Zone], false)
		at := slices.IndexFunc(bands, func(b []int) bool { return slices.Contains(b, i) })
		return v.ordering(at, len(bands), h.Blocks[i].Style)
	}
	seq, _ := place.Sequence(h, v.Site.Zones, v.Zone)
	return v.ordering(slices.Index(seq, i), len(seq), h.Blocks[i].Style)
}

// sectionOrder is that of a section.
func (v trayParts) sectionOrder(sec *doc.Section) *ordering {
	all, _ := place.Sections(v.Page, v.Site.Zones, v.Zone)
	all = slices.DeleteFunc(slices.Clone(all), func(s *doc.Section) bool { return !place.Orderable(s) })
	return v.ordering(slices.Index(all, sec), len(all), sec.Style)
}

// saying is whether a block says something of its own in a narrower zone.
type saying struct {
	Zone, Wider string
	Here        bool
	Elsewhere   string // what is said in the wider zone
}

// saying gives that of a block, or nil where it can't differ.
func (v trayParts) saying(b *doc.Block) *saying {
	if v.Zone == 0 || !element.Varies(b.Kind, b.Content) {
		return nil
	}
	_, here := b.Content.Instead[v.Current().ID]
	w, _ := b.Content.WordsIn(v.Site.Zones, v.Zone-1)
	return &saying{
		v.Current().Name,
		v.Site.Zones[v.Zone-1].Name,
		here,
		shorten(strings.Join(strings.Fields(w.Plain()), " ")),
	}
}

// shorten keeps what fits into a line of the Tray.
func shorten(s string) string {
	if r := []rune(s); len(r) > 70 {
		return string(r[:69]) + "…"
	}
	return s
}

type elsewhere struct {
	Zone    doc.Zone
	Drawing template.HTML
	Note    string
}

func zoneRange(zs doc.Zones, i int) string {
	switch {
	case i == 0:
		return fmt.Sprintf("%d px and up", zs[i].Min)
	case i == len(zs)-1:
		return fmt.Sprintf("below %d px", zs[i-1].Min)
	}
	return fmt.Sprintf("%d to %d px", zs[i].Min, zs.Max(i))
}

// Tray gives what can be changed about the selection.
func (v *View) Tray() *Tray {
	t := &Tray{
		Zone:     v.Current(),
		Range:    zoneRange(v.Site.Zones, v.Zone),
		Node:     v.Selected,
		Composes: v.Site.Role.May(rights.Compose),
	}
	sec, _ := v.Page.Section(v.Selected)
	var block *doc.Block
	id, item := doc.SplitItem(v.Selected)
	if sec == nil {
		sec, block = v.Page.Block(id)
	}
	if sec != nil {
		v.holds = v.inForce(sec, cmp.Or(id, sec.ID), v.Zone)
	}
	switch {
	case block != nil:
		clusters{v}.blockTray(t, sec, block, item)
	case sec != nil:
		clusters{v}.sectionTray(t, sec)
	default:
		t.Node = ""
		t.Trail = []crumb{{"", v.Page.Name}}
		if t.Composes {
			picture := fields{v}.pictureField(v.Page.Picture, "page.set", "picture")
			t.Clusters = []cluster{{ID: "page", Title: "Page", Fields: []field{
				{
					ID:      "f-name",
					Label:   "Name",
					Op:      "page.set",
					Setting: "name",
					Control: "text",
					Value:   v.Page.Name,
					Here:    true,
				},
				{
					ID:      "f-title",
					Label:   "Title",
					Op:      "page.set",
					Setting: "title",
					Control: "text",
					Value:   v.Page.Title,
					Here:    true,
				},
				{
					ID: "f-description", Label: "Meta description", Op: "page.set", Setting: "description",
					Control: "area", Value: v.Page.Description, Here: v.Page.Description != "",
				},
				trayParts{v}.groundField(),
			}}, {ID: "listed", Title: "In lists", Fields: []field{
				{
					ID: "f-categories", Label: "Categories", Op: "page.set", Setting: "categories", Control: "text", Follows: "None",
					Value: strings.Join(v.Page.Categories, ", "), Here: len(v.Page.Categories) > 0,
				},
				picture,
				{
					ID: "f-date", Label: "Date", Op: "page.set", Setting: "date", Control: "date", Value: v.Page.Date, Here: v.Page.Date != "",
					Follows: begun(v),
				},
			}}}
		}
		return t
	}
	if t.Composes {
		trayParts{v}.acts(t, sec, block)
	}
	if bs := (trayParts{v}).chosen(); len(bs) > 1 && t.Composes {
		trayParts{v}.severalTray(t, bs)
		return t
	}
	t.Restyles = v.Site.Role.May(rights.House)
	trayParts{v}.elsewhere(t, sec)
	return t
}

// begun says of which day a page is that doesn't say it.
func begun(v *View) string {
	for _, p := range v.Source.Pages {
		if p.ID == v.Page.ID {
			return site.DateOf(p, &v.Site.Site)
		}
	}
	return "None"
}

// groundField is the colour that the page lies on.
func (v trayParts) groundField() field {
	f := field{
		ID:      "f-ground",
		Label:   "Page background",
		Op:      "page.set",
		Setting: "ground",
		Control: "colour",
		Follows: "House style’s",
		Paint:   v.ground(),
	}
	if w := v.Site.House.Swatch(v.Page.Ground); w != nil {
		f.Value, f.Raw, f.Here, f.Reset = w.Name, "$"+w.Token, true, "page.set"
	}
	return f
}

// layoutField leads to other designs for a section's purpose; for a section of one's own,
// to all of them.
func (v trayParts) layoutField(sec *doc.Section) field {
	f := field{ID: "f-layout", Label: "Layout", Control: "layouts", Here: true, Follows: "its own"}
	if made := ready.FindPreset(sec.Made); made != nil {
		f.Value = made.Name
		if made.Purpose != ready.Purposes[0] {
			f.Raw = made.Purpose
		}
	}
	return f
}

// blockCount says how many blocks a section has, and why fewer were better when they are
// many.
func blockCount(sec *doc.Section) (n int, said string, many bool) {
	n, many = check.Crowded(sec)
	switch {
	case n == 1:
		said = "1 block"
	case many:
		said = strconv.Itoa(n) + " blocks: with so many, phones slow down; part the section in two"
	default:
		said = strconv.Itoa(n) + " blocks"
	}
	return n, said, many
}

func reach(from, n int) string {
	if n == 1 {
		return strconv.Itoa(from)
	}
	return fmt.Sprintf("%d – %d", from, from+n-1)
}

// overlapped says which blocks the block lies on or under.
func overlapped(sec doc.Holder, ps []place.Placed, i int) string {
	var on, under []string
	for j, p := range ps {
		if j == i || p.Hidden || !p.Overlaps(ps[i].Place) {
			continue
		}
		if place.Above(ps, i, j) {
			on = append(on, blockName(sec.Blocks[j]))
		} else {
			under = append(under, blockName(sec.Blocks[j]))
		}
	}
	switch {
	case len(on) > 0 && len(under) > 0:
		return "between " + under[0] + " and " + on[0]
	case len(on) > 0:
		return "on top of " + on[0]
	case len(under) > 0:
		return "under " + under[0]
	}
	return ""
}

// Elsewhere draws what is selected as it is in the zones that aren't shown, by zone.
func (v *View) Elsewhere() map[string]template.HTML {
	id, _ := doc.SplitItem(v.Selected)
	sec, _ := v.Page.Section(id)
	if sec == nil {
		sec, _ = v.Page.Block(id)
	}
	out := map[string]template.HTML{}
	if sec == nil {
		return out
	}
	var t Tray
	trayParts{v}.elsewhere(&t, sec)
	for _, e := range t.Elsewhere {
		out[e.Zone.ID] = e.Drawing
	}
	return out
}

// elsewhere draws the section in the other zones, with the selection marked.
func (v trayParts) elsewhere(t *Tray, sec *doc.Section) {
	if sec.Hidden {
		return
	}
	for z, zone := range v.Site.Zones {
		if z == v.Zone {
			continue
		}
		d := drawing{width: float64(zone.Typical), zone: z, marked: v.Selected}
		e := elsewhere{Zone: zone, Drawing: v.drawn(sec, d, map[bool]float64{true: 62, false: 38}[zone.Typical >= 600])}
		id, _ := doc.SplitItem(v.Selected)
		h := sec.HolderOf(id)
		if i := h.Index(id); i >= 0 {
			p := place.Resolve(h, v.Site.Zones)[z][i]
			switch {
			case p.Hidden:
				e.Note = "not shown"
			case z == 0 || h.Arrangement != doc.Placed:
			case p.Derived:
				e.Note = "by rule"
			default:
				e.Note = "by hand"
			}
		}
		t.Elsewhere = append(t.Elsewhere, e)
	}
}
