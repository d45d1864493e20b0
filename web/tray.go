package web

import (
	"fmt"
	"html/template"
	"slices"
	"strconv"
	"strings"

	"openplot/core/doc"
	"openplot/core/place"
	"openplot/core/style"
	"openplot/store"
)

// trayView is everything that can be changed about the selection.
type trayView struct {
	Zone      doc.Zone
	Range     string // of the zone, in words
	Trail     []crumb
	Note      string
	Node      string
	Kind      string // block kind, "section", or "" with nothing selected
	Hidden    bool
	Designer  bool
	Clusters  []cluster
	Elsewhere []elsewhere
}

type crumb struct{ ID, Name string }

// cluster is a group of fields.
type cluster struct {
	Title, Note string
	Fields      []field
	SeenOn      []seenOn
}

// field is one thing to set. A value set in this zone is in Value; one that
// follows is in Follows.
type field struct {
	ID      string
	Label   string
	Op      string // of the command
	Setting string
	Control string // "text", "choice", "area", "crop" or "picture"
	Value   string
	Follows string
	Here    bool
	From    string // what it follows, in words
	Reset   string // op that puts it back, or "" where it can't be
	Zoned   bool
	Options []option
	List    string // id of a list of suggestions
	Swatch  string // a colour to show
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

func (v *view) tray() *trayView {
	t := &trayView{Zone: v.current(), Range: zoneRange(v.site.Zones, v.zone), Node: v.selects, Designer: v.site.Role == store.Designer}
	sec, _ := v.page.Section(v.selects)
	var block *doc.Block
	if sec == nil {
		sec, block = v.page.Block(v.selects)
	}
	switch {
	case block != nil:
		v.blockTray(t, sec, block)
	case sec != nil:
		v.sectionTray(t, sec)
	default:
		t.Node = ""
		t.Trail = []crumb{{"", v.page.Name}}
		if t.Designer {
			t.Clusters = []cluster{{Title: "Page", Fields: []field{
				{ID: "f-name", Label: "Name", Op: "page.set", Setting: "name", Control: "text", Value: v.page.Name, Here: true},
				{ID: "f-title", Label: "Title", Op: "page.set", Setting: "title", Control: "text", Value: v.page.Title, Here: true},
				{ID: "f-description", Label: "For search results", Op: "page.set", Setting: "description", Control: "area", Value: v.page.Description, Here: v.page.Description != ""},
			}}}
		}
		return t
	}
	v.elsewhere(t, sec)
	return t
}

func (v *view) sectionTray(t *trayView, sec *doc.Section) {
	t.Kind, t.Hidden = "section", sec.Hidden
	t.Trail = []crumb{{sec.ID, sec.Name}}
	t.Note = fmt.Sprintf("%d blocks", len(sec.Blocks))
	if len(sec.Blocks) == 1 {
		t.Note = "1 block"
	}
	picture := v.pictureField(sec.Picture, "section.picture", "")
	if !t.Designer {
		t.Clusters = []cluster{{Title: "Surface", Fields: []field{picture}}}
		return
	}
	roles := []option{{"", "Section", sec.Role == doc.RoleMain}, {"header", "Header", sec.Role == doc.RoleHeader}, {"footer", "Footer", sec.Role == doc.RoleFooter}}
	t.Clusters = []cluster{
		{Title: "Section", Fields: []field{
			{ID: "f-name", Label: "Name", Op: "rename", Control: "text", Value: sec.Name, Here: true},
			{ID: "f-anchor", Label: "Anchor", Op: "section.anchor", Control: "text", Value: sec.Anchor, Here: sec.Anchor != "", Follows: "none"},
			{ID: "f-role", Label: "Part", Op: "section.role", Control: "choice", Options: roles, Here: true},
		}},
		{Title: "Surface", Fields: append(v.settings(sec.Style, style.OnSection, "background", "color"), picture)},
		{Title: "Room", Fields: v.settings(sec.Style, style.OnSection, "padding-top", "padding-bottom", "min-height")},
		{Title: "Grid", Note: strconv.Itoa(sec.Columns(v.site.Zones, v.zone)) + " columns", Fields: v.settings(sec.Style, style.OnSection, "columns", "row-height", "column-gap", "row-gap")},
		{Title: "Width", Fields: v.settings(sec.Style, style.OnSection, "content")},
	}
}

func (v *view) blockTray(t *trayView, sec *doc.Section, b *doc.Block) {
	t.Kind = string(b.Kind)
	t.Trail = []crumb{{sec.ID, sec.Name}, {b.ID, blockName(b)}}
	resolved := place.Resolve(sec, v.site.Zones)
	_, i := sec.Block(b.ID)
	p := resolved[v.zone][i]
	if over := overlapped(sec, resolved[v.zone], i); over != "" {
		t.Note = over
	}
	content := v.contentCluster(b)
	if !t.Designer {
		if len(content.Fields) > 0 {
			t.Clusters = []cluster{content}
		}
		return
	}
	_, byHand := b.Place[v.current().ID]
	from := "by rule"
	if !p.Derived {
		from = ""
	}
	placeField := func(label, setting, value string) field {
		f := field{ID: "f-" + setting, Label: label, Op: "block.place.set", Setting: setting, Control: "text", Here: byHand, Zoned: true, From: from}
		if byHand {
			f.Value = value
			if v.zone > 0 {
				f.Reset = "block.place.reset"
			}
		} else {
			f.Follows = value
		}
		return f
	}
	t.Clusters = append(t.Clusters, cluster{
		Title: "Place", Note: strconv.Itoa(sec.Columns(v.site.Zones, v.zone)) + " columns",
		Fields: []field{
			placeField("Columns", "columns", reach(p.Column, p.Span)),
			placeField("Rows", "rows", reach(p.Row, p.Rows)),
			placeField("Layer", "layer", strconv.Itoa(p.Layer)),
		},
	})
	if len(content.Fields) > 0 {
		t.Clusters = append(t.Clusters, content)
	}
	t.Clusters = append(t.Clusters, cluster{Title: "Size", Fields: v.settings(b.Style, b.Kind, "width", "min-height", "aspect-ratio", "object-position")})
	if b.Kind.Worded() {
		t.Clusters = append(t.Clusters,
			cluster{Title: "Words", Fields: v.settings(b.Style, b.Kind, "text-style", "font-size", "color", "text-align", "list-marks")},
			cluster{Title: "Padding", Fields: v.settings(b.Style, b.Kind, "padding-top", "padding-right", "padding-bottom", "padding-left")})
	}
	t.Clusters = append(t.Clusters,
		cluster{Title: "Edge", Fields: v.settings(b.Style, b.Kind, "background", "border-radius", "box-shadow", "border-width")},
		cluster{Title: "In its cells", Fields: v.settings(b.Style, b.Kind, "justify-self", "align-self", "opacity", "border-color")})
	seen := cluster{Title: "Seen on"}
	for z := range v.site.Zones {
		seen.SeenOn = append(seen.SeenOn, seenOn{v.site.Zones[z], !resolved[z][i].Hidden})
	}
	t.Clusters = append(t.Clusters, seen)
}

func reach(from, n int) string {
	if n == 1 {
		return strconv.Itoa(from)
	}
	return fmt.Sprintf("%d – %d", from, from+n-1)
}

// overlapped says which blocks the block lies on or under.
func overlapped(sec *doc.Section, ps []place.Placed, i int) string {
	var on, under []string
	for j, p := range ps {
		if j == i || p.Hidden || !p.Overlaps(ps[i].Place) {
			continue
		}
		if p.Layer <= ps[i].Layer {
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

func (v *view) contentCluster(b *doc.Block) cluster {
	c := cluster{Title: "Content"}
	link := field{ID: "f-link", Label: "Opens", Op: "block.content", Setting: "link", Control: "text", Value: b.Content.Link, Here: b.Content.Link != "", Follows: "nothing", List: "list-pages"}
	switch b.Kind {
	case doc.Heading:
		f := field{ID: "f-level", Label: "Level", Op: "block.content", Setting: "level", Control: "choice", Here: true}
		for n := 1; n <= 6; n++ {
			f.Options = append(f.Options, option{strconv.Itoa(n), "Heading " + strconv.Itoa(n), b.Content.Level == n})
		}
		c.Fields = []field{f}
	case doc.Picture:
		alt := field{ID: "f-alt", Label: "Words for those who can’t see it", Op: "block.content", Setting: "alt", Control: "area", Value: b.Content.Alt, Here: b.Content.Alt != ""}
		if m, ok := v.builder.Media(b.Content.Picture); ok {
			alt.Follows = m.Alt
		}
		c.Fields = []field{v.pictureField(b.Content.Picture, "block.content", "picture"), link, alt}
	case doc.Button:
		c.Fields = []field{link}
	}
	return c
}

func (v *view) pictureField(id, op, setting string) field {
	f := field{ID: "f-picture", Label: "Picture", Op: op, Setting: setting, Control: "picture", Value: id, Here: id != "", Follows: "none"}
	for _, m := range v.media {
		if m.ID == id {
			f.Follows = m.Name
		}
	}
	return f
}

// settings gives the fields of settings by name, those that the kind has.
func (v *view) settings(values doc.Style, kind doc.Kind, names ...string) []field {
	var fs []field
	zs, house := v.site.Zones, &v.site.House
	zone := v.current()
	for _, name := range names {
		s := style.Find(name, kind)
		if s == nil {
			continue
		}
		f := field{ID: "f-" + name, Label: s.Label, Op: "set", Setting: name, Control: "text", Zoned: true}
		value, from, ok := values[name].Resolve(zs, v.zone)
		if name == "columns" && from != zone.ID { // each zone has its own
			value, from, ok = "", "", false
		}
		f.Here = ok && from == zone.ID
		shown := s.Words[0]
		if ok {
			shown = s.Shown(house, value)
		}
		switch {
		case f.Here:
			f.Value, f.Reset = shown, "follow"
			f.From = "the usual value"
			if _, wider, ok := values[name].Resolve(zs, v.zone-1); ok {
				f.From = zs[zs.Index(wider)].Name
			}
		default:
			f.Follows = shown
			if ok {
				f.From = zs[zs.Index(from)].Name
			} else if name == "columns" {
				f.Follows = strconv.Itoa(zone.Columns)
			}
		}
		switch s.Type {
		case style.TypeWord:
			f.Control = "choice"
			if name == "object-position" {
				f.Control = "crop"
			}
			for _, w := range s.Words {
				f.Options = append(f.Options, option{w, strings.ToUpper(w[:1]) + w[1:], w == value})
			}
		case style.TypeColour:
			f.List = "list-colour"
			if ok {
				sh := style.Sheet{House: house, Zones: zs, Zone: v.zone, Style: values}
				f.Swatch = sh.Colour(name, "")
			}
		case style.TypeTextStyle:
			f.List = "list-text-style"
		case style.TypeShadow:
			f.List = "list-shadow"
		case style.TypeLength:
			if offers := s.Offers(house); len(offers) > 0 {
				f.List = "list-space"
				if name == "border-radius" {
					f.List = "list-corners"
				}
			}
		}
		fs = append(fs, f)
	}
	return fs
}

// elsewhere draws the section in the other zones, with the selection marked.
func (v *view) elsewhere(t *trayView, sec *doc.Section) {
	if sec.Hidden {
		return
	}
	for z, zone := range v.site.Zones {
		if z == v.zone {
			continue
		}
		d := drawing{width: float64(zone.Typical), zone: z, marked: v.selects}
		box := v.scene(sec).at(d.width)
		var b strings.Builder
		d.section(&b, box, 0)
		e := elsewhere{Zone: zone, Drawing: d.svg(b.String(), box.H, map[bool]float64{true: 84, false: 46}[zone.Typical >= 600])}
		if i := slices.IndexFunc(sec.Blocks, func(b *doc.Block) bool { return b.ID == v.selects }); i >= 0 {
			p := place.Resolve(sec, v.site.Zones)[z][i]
			switch {
			case z == 0 && !p.Hidden:
			case p.Hidden:
				e.Note = "not shown"
			case p.Derived:
				e.Note = "by rule"
			default:
				e.Note = "by hand"
			}
		}
		t.Elsewhere = append(t.Elsewhere, e)
	}
}
