package model

import (
	"cmp"
	"encoding/json"
	"fmt"
	"slices"
	"strings"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/element"
	"openplot/core/place"
	"openplot/core/style"
	"openplot/core/value"
)

// named gives fields other names beside their controls, by turns a setting and its name.
func named(fs []field, pairs ...string) []field {
	for i := range fs {
		for k := 0; k+1 < len(pairs); k += 2 {
			if fs[i].Setting == pairs[k] {
				fs[i].Short = pairs[k+1]
			}
		}
	}
	return fs
}

func (v clusters) sectionTray(t *Tray, sec *doc.Section) {
	t.Kind, t.Hidden = "section", sec.Hidden
	t.Trail, t.Shared, t.SharedAt = []crumb{{sec.ID, sec.Name}}, trayParts(v).sharedOn(sec), trayParts(v).sharedAt(sec)
	_, t.Note, _ = blockCount(sec)
	picture, film := fields(
		v,
	).pictureField(sec.Picture, "section.picture", ""),
		fields(
			v,
		).pictureField(sec.Video, "section.video", "")
	film.ID, film.Label, film.Sort = "f-video", "Video", doc.VideoMedium
	if !t.Composes {
		t.Clusters = []cluster{{ID: "surface", Title: "Background", Fields: []field{picture, film}}}
		return
	}
	of := func(names ...string) []field { return fields(v).settings(sec.Style, style.OnSection, names...) }
	roles := []option{
		{Value: "", Label: "Section", Chosen: sec.Role == doc.RoleMain},
		{Value: "header", Label: "Header", Chosen: sec.Role == doc.RoleHeader},
		{Value: "footer", Label: "Footer", Chosen: sec.Role == doc.RoleFooter},
	}
	t.Clusters = []cluster{
		{ID: "content", Title: "Section", Fields: []field{
			{ID: "f-name", Label: "Name", Op: "rename", Control: "text", Value: sec.Name, Here: true},
			{
				ID:      "f-anchor",
				Label:   "Anchor",
				Op:      "section.anchor",
				Control: "text",
				Value:   sec.Anchor,
				Here:    sec.Anchor != "",
				Follows: "None",
			},
			trayParts(v).layoutField(sec),
			{ID: "f-role", Label: "Landmark", Op: "section.role", Control: "options", Options: roles, Here: true},
		}},
		v.visibilityCluster(sec),
		v.groundCluster(sec.Style, style.OnSection, picture, &film, "color", "text-align"),
		v.spacingCluster(sec.Style, style.OnSection, doc.LineUp),
		{
			ID:    "size",
			Title: "Size",
			Fields: named(
				of("min-height", "content-at", "content", "margin-sides", "pull", "layer"),
				"content-at",
				"Align vert.",
				"margin-sides",
				"Margin sides",
			),
		},
		v.arrangementCluster(sec.Holder(), style.OnSection),
		{ID: "border", Title: "Border", Fields: of(edges...), Edges: v.edgeSides(sec.Style, style.OnSection)},
		{ID: "dividers", Title: "Shape dividers", Fields: v.edgeFields(sec)},
		{ID: "scroll", Title: "On scroll", Fields: of("stays", "over", "picture-scroll", "parallax")},
	}
	if o := trayParts(v).sectionOrder(sec); o != nil {
		t.Clusters = append(t.Clusters, cluster{ID: "order", Title: "Order", Order: o})
	}
}

// visibilityCluster is whether visitors see a section at once: the view that it is part of,
// and whether it is folded.
func (v clusters) visibilityCluster(sec *doc.Section) cluster {
	view := field{ID: "f-view", Label: "View", Op: "section.view", Control: "text", Follows: "None: always seen"}
	if sec.View != nil {
		view.Value, view.Here, view.Note = sec.View.Title, true, "#"+sec.View.Anchor
	}
	as := value.None
	if sec.Fold != nil {
		if as = value.Closed; sec.Fold.Open {
			as = value.Open
		}
	}
	fold := field{ID: "f-fold", Label: "Folds", Op: "section.fold", Setting: "as", Control: "options", Here: true}
	for _, o := range value.Is(value.None, "No", value.Closed, "Closed", value.Open, "Open") {
		fold.Options = append(fold.Options, option{Value: o.Value, Label: o.Label, Chosen: o.Value == as})
	}
	fold.segmented()
	c := cluster{ID: "visibility", Title: "Visibility", Fields: []field{view, fold}}
	if sec.Fold != nil {
		c.Fields = append(
			c.Fields,
			field{
				ID:      "f-fold-title",
				Label:   "Title",
				Op:      "section.fold",
				Setting: "title",
				Control: "text",
				Value:   sec.Fold.Title,
				Here:    true,
			},
		)
	}
	return c
}

// edgeFields are the shapes of the section's edges, and their measures where they have
// one.
func (v clusters) edgeFields(sec *doc.Section) []field {
	var names []string
	for _, side := range []string{"edge-top", "edge-bottom"} {
		names = append(names, side)
		sh := style.Sheet{House: &v.Site.House, Zones: v.Site.Zones, Zone: 0, Style: sec.Style}
		if sh.Word(side, value.None) != value.None {
			names = append(names, side+"-height", side+"-colour", side+"-flip")
		}
	}
	return fields(v).settings(sec.Style, style.OnSection, names...)
}

// edges are a box's border, corners and shadow; sides and corners are those that can be other
// than all.
var (
	edges = []string{"border-width", "border-color", "border-radius", "box-shadow", "opacity", "rotate"}
	sides = []string{
		"border-top-width", "border-right-width", "border-bottom-width", "border-left-width",
		"border-top-left-radius", "border-top-right-radius", "border-bottom-right-radius", "border-bottom-left-radius",
	}
)

// edgeSides gives the sides and corners, with room for a number only.
func (v clusters) edgeSides(values doc.Style, kind doc.Kind) []field {
	fs := fields(v).settings(values, kind, sides...)
	for i := range fs {
		if !fs[i].Here {
			fs[i].Follows = "·"
		}
	}
	return fs
}

// groundCluster is what something lies on: a colour, a gradient, a picture or a video, and
// the filter over it; further settings follow.
func (v clusters) groundCluster(values doc.Style, kind doc.Kind, picture field, film *field, more ...string) cluster {
	of := func(names ...string) []field { return fields(v).settings(values, kind, names...) }
	c := cluster{ID: "surface", Title: "Surface"}
	c.Tabs = []tab{
		{ID: "fill", Title: "Fill", Fields: of("background")},
		{ID: "gradient", Title: "Gradient", Fields: of("gradient")},
	}
	pictured := append([]field{picture}, of("picture-fit", "tile", "picture-position")...)
	v.focal(pictured, "picture-position", picture.Value)
	c.Tabs = append(
		c.Tabs,
		tab{
			ID:     "picture",
			Title:  "Picture",
			Fields: named(pictured, "picture-fit", "Size", "tile", "Tile width", "picture-position", "Position"),
		},
	)
	if film != nil {
		c.Tabs = append(c.Tabs, tab{ID: "video", Title: "Video", Fields: []field{*film}})
	}
	filters := of("filter", "filter-gradient", "filter-opacity")
	for i := range filters {
		if filters[i].Setting == "filter-gradient" {
			filters[i].Thumb = picture.Thumb
			filters[i].Now = style.Number(
				style.Sheet{
					House: &v.Site.House,
					Zones: v.Site.Zones,
					Zone:  v.Zone,
					Style: values,
				}.Share(
					"filter-opacity",
					0.5,
				),
			)
		}
	}
	c.Tabs = append(
		c.Tabs,
		tab{
			ID:     "filter",
			Title:  "Overlay",
			Fields: named(filters, "filter", "Colour", "filter-gradient", "Gradient", "filter-opacity", "Opacity"),
		},
	)
	c.Fields = of(more...)
	return c
}

func (v clusters) blockTray(t *Tray, sec *doc.Section, b *doc.Block, item string) {
	t.Kind = string(b.Kind)
	t.Trail, t.Shared, t.SharedAt = []crumb{{sec.ID, sec.Name}}, trayParts(v).sharedOn(sec), trayParts(v).sharedAt(sec)
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
	content := fields(v).contentClusters(shown)
	if !t.Composes {
		t.Clusters = content
		return
	}
	of := func(names ...string) []field {
		own := element.Of(b.Kind).Settings // shown with the kind
		return fields(
			v,
		).settings(b.Style, b.Kind, slices.DeleteFunc(slices.Clone(names), func(name string) bool { return slices.Contains(own, name) })...)
	}
	add := func(c cluster) {
		if len(c.Fields) > 0 || len(c.Tabs) > 0 || len(c.Box) > 0 {
			t.Clusters = append(t.Clusters, c)
		}
	}
	t.Clusters = content
	if t.Placed {
		add(v.placeCluster(b, h, resolved[v.Zone], i))
	}
	if a := element.Of(b.Kind); len(a.Settings) > 0 {
		c := cluster{ID: "kind", Title: a.Name, Fields: fields(v).settings(b.Style, b.Kind, a.Settings...)}
		if b.Kind == doc.Form {
			c.Fields, c.Tabs = nil, v.formTabs(c.Fields)
		}
		if b.Kind == doc.Picture {
			v.focal(c.Fields, "object-position", shown.Content.Picture)
			c.Crops = v.crops(sec, shown.Content.Picture)
		}
		add(c)
	}
	if b.Kind.Is(doc.Holding) && b.Kind != doc.Series {
		add(v.arrangementCluster(b.Holder(), b.Kind))
	}
	add(v.typeCluster(b))
	add(v.spacingCluster(b.Style, b.Kind, h.Arrangement))
	if style.Find("gradient", b.Kind) != nil {
		add(
			v.groundCluster(
				b.Style,
				b.Kind,
				fields(v).pictureField(b.Content.Picture, "block.content", "picture"),
				nil,
			),
		)
		add(cluster{ID: "border", Title: "Border", Fields: of(edges...), Edges: v.edgeSides(b.Style, b.Kind)})
	} else {
		add(cluster{ID: "surface", Title: "Surface", Fields: of(append([]string{"background"}, edges...)...), Edges: v.edgeSides(b.Style, b.Kind)})
	}
	size := []string{"width", "min-width", "max-width", "height", "min-height"}
	align := []string{"justify-self", "align-self"}
	if h.Arrangement == doc.LineUp {
		align = append(align, "grow")
	}
	align = append(align, "overhang")
	add(cluster{ID: "size", Title: "Size", Fields: of(size...)})
	add(
		cluster{
			ID:     "align",
			Title:  "Align",
			Fields: named(of(align...), "justify-self", "Horizontal", "align-self", "Vertical", "overhang", "Overhang"),
		},
	)
	if b.Kind == doc.Picture {
		add(
			cluster{
				ID:     "filters",
				Title:  "Picture filters",
				Fields: of("brightness", "contrast", "saturate", "grayscale", "sepia", "hue-rotate", "mirror"),
			},
		)
	}
	add(v.statesCluster(b))
	add(v.effectsCluster(b))
	seen := cluster{ID: "seen", Title: "Visible on"}
	for z := range v.Site.Zones {
		seen.SeenOn = append(seen.SeenOn, seenOn{v.Site.Zones[z], !resolved[z][i].Hidden})
	}
	if series == nil || h.ID != series.ID {
		seen.Order = trayParts(v).blockOrder(h, resolved, i)
	}
	t.Clusters = append(t.Clusters, seen)
}

// formTabs parts the settings of a form by what of it they are about, as pressing one of its parts shows them.
func (v clusters) formTabs(all []field) (out []tab) {
	for _, part := range []struct{ id, title string }{{"field", "Fields"}, {"label", "Labels"}, {"button", "Button"}} {
		t := tab{ID: part.id, Title: part.title}
		for _, f := range all {
			if of, _, _ := strings.Cut(f.Setting, "-"); of != part.id &&
				(f.Setting != "field-labels" || part.id != "label") {
				continue
			}
			if f.Setting == "field-labels" && part.id == "field" {
				continue
			}
			name := strings.TrimPrefix(f.Label, strings.TrimSuffix(part.title, "s")+" ")
			f.Short = doc.Capital(name)
			t.Fields = append(t.Fields, f)
		}
		out = append(out, t)
	}
	return out
}

// typeCluster is how words are set, and what of it differs from their text style.
func (v clusters) typeCluster(b *doc.Block) cluster {
	fs := fields(v).settings(
		b.Style, b.Kind, "text-style", "font", "font-weight", "font-size", "color", "line-height", "letter-spacing",
		"text-transform", "text-shadow", "text-align", "text-wrap",
	)
	c := cluster{ID: "type", Title: "Type", Fields: named(
		fs,
		"text-style",
		"Style",
		"font-size",
		"Size",
		"color",
		"Colour",
		"letter-spacing",
		"Spacing",
		"text-align",
		"Align",
		"text-wrap",
		"Balance",
	)}
	all := edit.Command{Op: edit.Many}
	for i := range fs {
		switch fs[i].Setting {
		case "text-style":
			c.DiffersFrom = cmp.Or(fs[i].Value, fs[i].Follows)
		case "color", "text-align", "text-wrap":
		default:
			if fs[i].Here {
				c.Differs = append(c.Differs, strings.ToLower(fs[i].Label))
				all.Parts = append(
					all.Parts,
					edit.Command{Op: "follow", Node: v.Selected, Zone: v.Current().ID, Setting: fs[i].Setting},
				)
			}
		}
	}
	if len(c.Differs) > 0 {
		if text, err := json.Marshal(all); err == nil {
			c.PutBack = string(text)
		}
	}
	return c
}

// spacingCluster is padding and margin, drawn as nested boxes, and what else is between
// blocks.
func (v clusters) spacingCluster(values doc.Style, kind doc.Kind, in doc.Arrangement) cluster {
	c := cluster{ID: "spacing", Title: "Spacing"}
	for _, of := range []string{"padding", "margin"} {
		for _, side := range []string{"top", "right", "bottom", "left"} {
			sideways := side == "left" || side == "right"
			if of == "margin" && kind != style.OnSection && (in == doc.Placed || in == doc.Columns && sideways) {
				continue
			}
			c.Box = append(c.Box, fields(v).settings(values, kind, of+"-"+side)...)
		}
	}
	sides := style.Sheet{
		House: &v.Site.House,
		Zones: v.Site.Zones,
		Zone:  v.Zone,
		Style: values,
	}.Length(
		"margin-sides",
		style.Pixels(0),
	)
	for i := range c.Box { // there is room for a number only
		f := &c.Box[i]
		if f.Now == "" && kind == style.OnSection {
			f.Now = style.Number(sides.Or(v.Width, style.Viewport{Width: v.Width}, 0))
		}
		if f.Now != "" && !f.Here {
			f.Follows = f.Now
		}
	}
	return c
}

// statesCluster is what is other while the block is pointed at, has the focus or is pressed.
func (v clusters) statesCluster(b *doc.Block) cluster {
	c := cluster{ID: "states", Title: "States"}
	if style.Find("hover-color", b.Kind) == nil {
		return c
	}
	c.Tabs = []tab{{ID: "default", Title: "Default"}}
	for _, st := range style.States {
		var names, shown []string
		for _, s := range []string{"background", "color", "border-color", "box-shadow", "lift", "grow", "opacity", "underline"} {
			names = append(names, st.Name+"-"+s)
			if f := style.Find(st.Name+"-"+s, b.Kind); f != nil {
				_, label, _ := strings.Cut(f.Label, ": ")
				shown = append(shown, f.Name, doc.Capital(label))
			}
		}
		c.Tabs = append(
			c.Tabs,
			tab{ID: st.Name, Title: st.Label, Fields: named(fields(v).settings(b.Style, b.Kind, names...), shown...)},
		)
	}
	return c
}
