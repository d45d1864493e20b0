package bench

import (
	"cmp"
	"fmt"
	"html/template"
	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/element"
	"openplot/core/place"
	"openplot/core/rights"
	"openplot/core/style"
	"openplot/core/value"
	"slices"
	"strconv"
)

// Tray is everything that can be changed about the selection.
type Tray struct {
	Zone      doc.Zone
	Range     string // of the zone, in words
	Trail     []crumb
	Note      string
	Node      string
	Kind      string // block kind, "section", or "" with nothing selected
	Hidden    bool
	Composes  bool
	Placed    bool // in the cells of a grid, so that it has a layer
	Item      bool // one of a Series
	Clusters  []cluster
	Elsewhere []elsewhere
}

type crumb struct{ ID, Name string }

// cluster is a group of fields.
type cluster struct {
	Title, Note string
	Fields      []field
	SeenOn      []seenOn
	Entries     *Entries
}

// field is one thing to set. A value set in this zone is in Value; one that
// follows is in Follows.
type field struct {
	ID      string
	Label   string
	Op      string // of the command
	Setting string
	Control string // "text", "choice", "area", "words", "crop" or "picture"
	Video   bool   // a "picture" that is a video
	At      int    // of an entry
	Value   string
	Follows string
	Here    bool
	From    string // what it follows, in words
	Reset   string // op that puts it back, or "" where it can't be
	Zoned   bool
	Options []option
	List    string // id of a list of suggestions
	Swatch  string // a colour to show
	// Others are the narrower zones that have a value of their own, in words, so that this
	// one doesn't arrive there; ThereToo is the command that lets them follow.
	Others   string
	ThereToo string
	// Token tells that the value is one of the house style's, Promotes that it can be made
	// one.
	Token, Promotes bool
}

type option struct {
	Value, Label string
	Chosen       bool
}

type seenOn struct {
	Zone    doc.Zone
	Visible bool
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
	t := &Tray{Zone: v.Current(), Range: zoneRange(v.Site.Zones, v.Zone), Node: v.Selected, Composes: v.Site.Role.May(rights.Compose)}
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
		v.blockTray(t, sec, block, item)
	case sec != nil:
		v.sectionTray(t, sec)
	default:
		t.Node = ""
		t.Trail = []crumb{{"", v.Page.Name}}
		if t.Composes {
			t.Clusters = []cluster{{Title: "Page", Fields: []field{
				{ID: "f-name", Label: "Name", Op: "page.set", Setting: "name", Control: "text", Value: v.Page.Name, Here: true},
				{ID: "f-title", Label: "Title", Op: "page.set", Setting: "title", Control: "text", Value: v.Page.Title, Here: true},
				{
					ID: "f-description", Label: "Meta description", Op: "page.set", Setting: "description",
					Control: "area", Value: v.Page.Description, Here: v.Page.Description != "",
				},
			}}}
		}
		return t
	}
	v.elsewhere(t, sec)
	return t
}

func (v *View) sectionTray(t *Tray, sec *doc.Section) {
	t.Kind, t.Hidden = "section", sec.Hidden
	t.Trail = []crumb{{sec.ID, sec.Name}}
	blocks := 0
	sec.Walk(func(*doc.Block) { blocks++ })
	t.Note = blockCount(blocks)
	picture, film := v.pictureField(sec.Picture, "section.picture", ""), v.pictureField(sec.Video, "section.video", "")
	film.ID, film.Label, film.Video = "f-video", "Video", true
	if !t.Composes {
		t.Clusters = []cluster{{Title: "Background", Fields: []field{picture, film}}}
		return
	}
	roles := []option{
		{"", "Section", sec.Role == doc.RoleMain},
		{"header", "Header", sec.Role == doc.RoleHeader},
		{"footer", "Footer", sec.Role == doc.RoleFooter},
	}
	t.Clusters = []cluster{
		{Title: "Section", Fields: []field{
			{ID: "f-name", Label: "Name", Op: "rename", Control: "text", Value: sec.Name, Here: true},
			{ID: "f-anchor", Label: "Anchor", Op: "section.anchor", Control: "text", Value: sec.Anchor, Here: sec.Anchor != "", Follows: "None"},
			v.layoutField(sec),
			{ID: "f-role", Label: "Landmark", Op: "section.role", Control: "choice", Options: roles, Here: true},
		}},
		{Title: "Background", Fields: append(v.settings(sec.Style, style.OnSection, "background", "gradient", "color", "text-align"), picture, film)},
	}
	if sec.Picture != "" || sec.Video != "" {
		t.Clusters = append(
			t.Clusters,
			cluster{
				Title: "Background picture",
				Fields: v.settings(
					sec.Style, style.OnSection, "picture-fit", "picture-scroll", "filter", "filter-gradient",
					"filter-opacity", "picture-position",
				),
			},
		)
	}
	t.Clusters = append(t.Clusters,
		cluster{
			Title: "Padding and size",
			Fields: v.settings(
				sec.Style, style.OnSection, "padding-top", "padding-bottom", "padding-left", "padding-right",
				"min-height", "content-at", "content",
			),
		},
		v.arrangementCluster(sec.Holder(), style.OnSection),
		cluster{Title: "Shape dividers", Fields: v.edgeFields(sec)},
		cluster{
			Title: "Margin and border",
			Fields: v.settings(
				sec.Style, style.OnSection, "margin-top", "margin-bottom", "margin-sides", "margin-left", "margin-right",
				"pull", "layer", "border-radius", "border-width", "box-shadow",
			),
		},
		cluster{Title: "On scroll", Fields: v.settings(sec.Style, style.OnSection, "stays", "over")},
	)
}

// edgeFields are the shapes of the section's edges, and their measures where they have
// one.
func (v *View) edgeFields(sec *doc.Section) []field {
	var names []string
	for _, side := range []string{"edge-top", "edge-bottom"} {
		names = append(names, side)
		sh := style.Sheet{House: &v.Site.House, Zones: v.Site.Zones, Zone: 0, Style: sec.Style}
		if sh.Word(side, value.None) != value.None {
			names = append(names, side+"-height", side+"-colour", side+"-flip")
		}
	}
	return v.settings(sec.Style, style.OnSection, names...)
}

func (v *View) blockTray(t *Tray, sec *doc.Section, b *doc.Block, item string) {
	t.Kind = string(b.Kind)
	t.Trail = []crumb{{sec.ID, sec.Name}}
	scope, series := "", (*doc.Block)(nil)
	for _, c := range sec.Path(b.ID) {
		id := c.ID
		if scope != "" {
			id = doc.ItemID(c.ID, scope)
		}
		name := blockName(c)
		if c.ID != b.ID { // those it stands in are known by their kind
			name = element.Of(c.Kind).Name
		}
		t.Trail = append(t.Trail, crumb{id, name})
		if _, i := c.FindItem(item); item != "" && i >= 0 {
			scope, series = item, c
		}
	}
	h := sec.HolderOf(b.ID)
	resolved := place.Resolve(h, v.Site.Zones)
	i := h.Index(b.ID)
	shown := b
	if series != nil {
		it, n := series.FindItem(item)
		shown = it.Shows(b)
		t.Trail[len(t.Trail)-1].Name = blockName(shown)
		t.Note = fmt.Sprintf("%d of %d, alike in look", n+1, len(series.Items))
		t.Item = true
	} else if over := overlapped(h, resolved[v.Zone], i); over != "" && h.Arrangement == doc.Placed {
		t.Note = over
	} else if h.Arrangement != doc.Placed {
		t.Note = fmt.Sprintf("%d of %d", i+1, len(h.Blocks))
	}
	t.Placed = h.Arrangement == doc.Placed && (series == nil || h.ID != series.ID)
	content := v.contentClusters(shown)
	if !t.Composes {
		t.Clusters = content
		return
	}
	if t.Placed {
		t.Clusters = append(t.Clusters, v.placeCluster(b, h, resolved[v.Zone][i]))
	}
	t.Clusters = append(t.Clusters, content...)
	if a := element.Of(b.Kind); len(a.Settings) > 0 {
		t.Clusters = append(t.Clusters, cluster{Title: a.Name, Fields: v.settings(b.Style, b.Kind, a.Settings...)})
	}
	if b.Kind.Is(doc.Holding) && b.Kind != doc.Series {
		t.Clusters = append(t.Clusters, v.arrangementCluster(b.Holder(), b.Kind))
	}
	own := func(title string, names ...string) {
		names = slices.DeleteFunc(names, func(name string) bool { return slices.Contains(element.Of(b.Kind).Settings, name) }) // shown already
		if fs := v.settings(b.Style, b.Kind, names...); len(fs) > 0 {
			t.Clusters = append(t.Clusters, cluster{Title: title, Fields: fs})
		}
	}
	size := []string{"width", "min-height"}
	if h.Arrangement == doc.LineUp {
		size = append(size, "grow")
	}
	own("Size", size...)
	own("Text", "text-style", "font-size", "color", "text-align")
	own("Padding", "padding-top", "padding-right", "padding-bottom", "padding-left")
	own("Fill and border", "background", "border-radius", "box-shadow", "border-width")
	own("Align", "justify-self", "align-self", "opacity", "border-color")
	seen := cluster{Title: "Visible on"}
	for z := range v.Site.Zones {
		seen.SeenOn = append(seen.SeenOn, seenOn{v.Site.Zones[z], !resolved[z][i].Hidden})
	}
	t.Clusters = append(t.Clusters, seen)
}

// layoutField offers other designs for a section's purpose; for a section of one's own,
// all of them.
func (v *View) layoutField(sec *doc.Section) field {
	f := field{ID: "f-layout", Label: "Change layout", Op: "section.redesign", Control: "choice", Here: true}
	made := edit.FindPreset(sec.Made)
	if made == nil {
		f.Here, f.Follows = false, "its own"
	}
	for i := range edit.Presets {
		p := &edit.Presets[i]
		if p.Purpose != "Blank" && (made == nil || made.Purpose == "Blank" || p.Purpose == made.Purpose) || p == made {
			f.Options = append(f.Options, option{p.ID, p.Name, p == made})
		}
	}
	return f
}

// placeCluster is the block's cells.
func (v *View) placeCluster(b *doc.Block, h doc.Holder, p place.Placed) cluster {
	_, byHand := b.Place[v.Current().ID]
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
	return cluster{
		Title: "Grid position", Note: strconv.Itoa(h.Columns(v.Site.Zones, v.Zone)) + " columns",
		Fields: []field{
			placeField("Columns", "columns", reach(p.Column, p.Span)),
			placeField("Rows", "rows", reach(p.Row, p.Rows)),
			placeField("Layer", "layer", strconv.Itoa(p.Layer)),
		},
	}
}

// arrangementCluster is how the blocks of a section or container stand.
func (v *View) arrangementCluster(h doc.Holder, kind doc.Kind) cluster {
	c := cluster{Title: "Layout"}
	f := field{ID: "f-arrange", Label: "Arrangement", Op: "arrange", Control: "choice", Here: true}
	f.Options = []option{
		{"placed", "Placed", h.Arrangement == doc.Placed},
		{"columns", "Columns", h.Arrangement == doc.Columns},
		{"line-up", "Line-up", h.Arrangement == doc.LineUp},
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
	c.Fields = append(c.Fields, v.settings(h.Style, kind, names...)...)
	return c
}

// manyBlocks is from how many blocks on a section is said to have too many (common
// practice).
const manyBlocks = 60

// blockCount says how many blocks a section has, and why fewer were better when they are
// many.
func blockCount(n int) string {
	if n == 1 {
		return "1 block"
	}
	if n >= manyBlocks {
		return strconv.Itoa(n) + " blocks: with so many, phones slow down; part the section in two"
	}
	return strconv.Itoa(n) + " blocks"
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

// elsewhere draws the section in the other zones, with the selection marked.
func (v *View) elsewhere(t *Tray, sec *doc.Section) {
	if sec.Hidden {
		return
	}
	for z, zone := range v.Site.Zones {
		if z == v.Zone {
			continue
		}
		d := drawing{width: float64(zone.Typical), zone: z, marked: v.Selected}
		e := elsewhere{Zone: zone, Drawing: v.drawn(sec, d, map[bool]float64{true: 84, false: 46}[zone.Typical >= 600])}
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
