package model

import (
	"encoding/json"
	"slices"
	"strconv"
	"strings"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/style"
	"openplot/core/value"
)

// together is a row of things that are done to all that is selected.
type together struct {
	Label string
	Acts  []act
}

// styled is a selected block or section: what it is, and the values that it has of its own.
type styled struct {
	id    string
	kind  doc.Kind
	style doc.Style
}

// chosen gives the blocks that are selected, the first one first; of an item of a Series its
// design. Sections are selected together as well, without blocks.
func (v trayParts) chosen() (all []styled) {
	for _, id := range append([]string{v.Selected}, v.Also...) {
		own, _ := doc.SplitItem(id)
		var one styled
		if _, b := v.Page.Block(own); b != nil {
			one = styled{b.ID, b.Kind, b.Style}
		} else if sec, _ := v.Page.Section(own); sec != nil {
			one = styled{sec.ID, style.OnSection, sec.Style}
		}
		mixed := len(all) > 0 && (one.kind == style.OnSection) != (all[0].kind == style.OnSection)
		if one.id != "" && !mixed && !slices.ContainsFunc(all, func(o styled) bool { return o.id == one.id }) {
			all = append(all, one)
		}
	}
	return all
}

// severalTray makes the Tray of one block or section that of several: what can be done to all of
// them, and the settings that all of them have.
func (v trayParts) severalTray(t *Tray, bs []styled) {
	what := " blocks"
	if bs[0].kind == style.OnSection {
		what = " sections"
	}
	t.Kind, t.Note, t.Item = "several", "", false
	t.Trail = append(t.Trail[:max(len(t.Trail)-1, 0)], crumb{"", strconv.Itoa(len(bs)) + what})
	var clusters []cluster
	if t.Placed {
		clusters = append(clusters, cluster{ID: "together", Title: "Together", Together: v.togethers(t)})
	}
	for _, c := range t.Clusters {
		kept := cluster{ID: c.ID, Title: c.Title, Fields: v.shared(c.Fields, bs)}
		if len(c.Box) > 0 && len(v.shared(c.Box, bs)) == len(c.Box) {
			kept.Box = v.shared(c.Box, bs)
		}
		if len(c.Edges) > 0 && len(v.shared(c.Edges, bs)) == len(c.Edges) {
			kept.Edges = v.shared(c.Edges, bs)
		}
		for _, tab := range c.Tabs {
			if fields := v.shared(tab.Fields, bs); len(fields) > 0 {
				tab.Fields = fields
				kept.Tabs = append(kept.Tabs, tab)
			}
		}
		if len(kept.Fields)+len(kept.Box)+len(kept.Edges)+len(kept.Tabs) > 0 {
			clusters = append(clusters, kept)
		}
	}
	t.Clusters, t.Acts, t.More, t.Elsewhere = clusters, nil, nil, nil
	t.Shared, t.SharedAt = nil, ""
	type done struct {
		name, keys string
		command    edit.Command
	}
	acts := []done{
		{
			"Group",
			"Ctrl+G",
			edit.Command{Op: "blocks.group"},
		}, {"Duplicate", "Ctrl+D", edit.Command{Op: "duplicate"}}, {"Delete", "Delete", edit.Command{Op: "delete"}},
		{"Hide", "", edit.Command{Op: "block.hide", Zone: t.Zone.ID, Hide: true}},
	}
	if bs[0].kind == style.OnSection {
		acts = []done{
			{"Duplicate", "Ctrl+D", edit.Command{Op: "duplicate"}},
			{"Delete", "Delete", edit.Command{Op: "delete"}},
			{"Hide", "", edit.Command{Op: "section.hide", Hide: true}},
		}
	}
	for _, a := range acts {
		t.Acts = append(t.Acts, v.onAll(a.name, a.keys, "", a.command))
	}
	t.More = t.Acts
}

// shared gives the fields that set what all of some blocks have; where they differ a field
// says so.
func (v trayParts) shared(fields []field, bs []styled) (out []field) {
	for _, f := range fields {
		if f.Op != "set" ||
			slices.ContainsFunc(bs, func(b styled) bool { return style.Find(f.Setting, b.kind) == nil }) {
			continue
		}
		first, _, _ := bs[0].style[f.Setting].Resolve(v.Site.Zones, v.Zone)
		if slices.ContainsFunc(bs[1:], func(b styled) bool {
			other, _, _ := b.style[f.Setting].Resolve(v.Site.Zones, v.Zone)
			return other != first
		}) {
			f.Value, f.Raw, f.Now, f.Paint, f.Note, f.Follows, f.Here = "", "", "", "", "", "mixed", false
			f.Options = slices.Clone(f.Options)
			for i := range f.Options {
				f.Options[i].Chosen = false
			}
		}
		f.Others, f.ThereToo, f.Promotes = "", "", false
		out = append(out, f)
	}
	return out
}

// togethers are what is done to several blocks of a grid.
func (v trayParts) togethers(t *Tray) []together {
	zone := t.Zone.ID
	of := func(name, icon, op, value, setting string) act {
		return v.onAll(name, "", icon, edit.Command{Op: op, Value: value, Setting: setting, Zone: zone})
	}
	align := func(setting, to string) (acts []act) {
		for _, a := range [][3]string{
			{"Left", "align-start", value.Left}, {"Center", "align-center", value.Center}, {"Right", "align-end", value.Right},
			{"Top", "align-top", value.Top}, {"Middle", "align-middle", value.Middle}, {"Bottom", "align-bottom", value.Bottom},
		} {
			acts = append(acts, of("Align "+to+": "+a[0], a[1], "blocks.align", a[2], setting))
		}
		return acts
	}
	gaps := func(way, value string) (acts []act) {
		for cells := range 5 {
			n := strconv.Itoa(cells)
			a := of("Gap "+way+": "+n+" cells", "", "blocks.spread", value, n)
			a.Text = n
			acts = append(acts, a)
		}
		return acts
	}
	return []together{
		{"To each other", align("", "to each other")},
		{"To the section", align("section", "to the section")},
		{
			"Equal gaps",
			[]act{
				of("Equal gaps across", "distribute-horizontal", "blocks.spread", value.Across, ""),
				of("Equal gaps down", "distribute-vertical", "blocks.spread", value.Down, ""),
			},
		},
		{"Gap across, cells", gaps("across", value.Across)}, {"Gap down, cells", gaps("down", value.Down)},
		{
			"Same",
			[]act{
				of("Same width", "arrows", "blocks.same", "width", ""),
				of("Same height", "arrows-vertical", "blocks.same", "height", ""),
			},
		},
		{
			"Order",
			[]act{
				of("To front", "front", "blocks.order", "front", ""),
				of("To back", "back", "blocks.order", "back", ""),
			},
		},
		{"Tidy", []act{of("Fewest edges, equal gaps", "grid-1x2", "blocks.tidy", "", "")}},
	}
}

// onAll is something done to all that is selected: an operation on several, or one on each.
func (v trayParts) onAll(name, keys, icon string, c edit.Command) act {
	c.Node = v.Selected
	if strings.HasPrefix(c.Op, "blocks.") {
		c.With = v.Also
	} else {
		all := edit.Command{Op: edit.Many}
		for _, id := range append([]string{v.Selected}, v.Also...) {
			one := c
			one.Node = id
			all.Parts = append(all.Parts, one)
		}
		c = all
	}
	text, _ := json.Marshal(c) // it is made of words and numbers
	title := name
	if keys != "" {
		title += " (" + keys + ")"
	}
	return act{Name: name, Title: title, Command: string(text), Keys: keys, Icon: icon}
}
