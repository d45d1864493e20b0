package model

import (
	"fmt"
	"strings"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/place"
)

// Told says what is selected, for those who hear the Bench: what it is, where it stands and in what, and on
// which zones it is hidden.
func Told(v *View) string {
	switch {
	case v.Selected == "":
		return ""
	case len(v.Also) > 0:
		names := make([]string, 0, len(v.Also)+1)
		for _, id := range append([]string{v.Selected}, v.Also...) {
			names = append(names, NameOf(v.Page, id))
		}
		return fmt.Sprintf("%d selected: %s.", len(names), strings.Join(names, "; "))
	}
	if sec, i := v.Page.Section(v.Selected); sec != nil {
		_, said, _ := blockCount(sec)
		out := fmt.Sprintf("Section %s, %d of %d, %s", sec.Name, i+1, len(v.Page.Sections), said)
		if sec.Hidden {
			out += ", hidden"
		}
		return out + "."
	}
	id, item := doc.SplitItem(v.Selected)
	sec, b := v.Page.Block(id)
	if b == nil {
		return ""
	}
	h := sec.HolderOf(id)
	i := h.Index(id)
	in := sec.Name
	if path := sec.Path(id); len(path) > 1 {
		in = blockName(path[len(path)-2]) + " in " + in
	}
	out := fmt.Sprintf("%s, in %s, %d of %d", blockName(b), in, i+1, len(h.Blocks))
	if item != "" {
		for _, c := range sec.Path(id) {
			if _, n := c.FindItem(item); n >= 0 {
				out += fmt.Sprintf(", item %d of %d", n+1, len(c.Items))
			}
		}
	}
	resolved := place.Resolve(h, v.Site.Zones)
	if p := resolved[v.Zone][i]; h.Arrangement == doc.Placed {
		out += ", " + cells("column", p.Column, p.Span) + ", " + cells("row", p.Row, p.Rows)
		if p.Layer != 0 {
			out += fmt.Sprintf(", layer %d", p.Layer)
		}
	}
	if hidden := hiddenOn(b, v.Site.Zones); hidden != "" {
		out += ", hidden on " + hidden
	}
	if b.Locked {
		out += ", locked"
	}
	return out + "."
}

// cells names n of them from one on.
func cells(what string, from, n int) string {
	if n == 1 {
		return fmt.Sprintf("%s %d", what, from)
	}
	return fmt.Sprintf("%ss %d to %d", what, from, from+n-1)
}

// hiddenOn names the zones on which a block isn't seen, or is "".
func hiddenOn(b *doc.Block, zones doc.Zones) string {
	var names []string
	for z := range zones {
		if b.Hidden.Or(zones, z, false) {
			names = append(names, zones[z].Name)
		}
	}
	if n := len(names); n > 1 {
		return strings.Join(names[:n-1], ", ") + " and " + names[n-1]
	}
	return strings.Join(names, "")
}

// HiddenOn says on which zones a block isn't seen, and where it is found again.
func HiddenOn(p *doc.Page, id string, zones doc.Zones) string {
	of, _ := doc.SplitItem(id)
	_, b := p.Block(of)
	if b == nil {
		return ""
	}
	if on := hiddenOn(b, zones); on != "" {
		return "Hidden on " + on + ". It stays in the Overview."
	}
	return ""
}

// Did says what a command does, in a sentence, with the names of what it is about on the page before it.
func Did(before *doc.Page, c edit.Command) string {
	said := doc.Capital(edit.Said(c))
	switch c.Op {
	case "block.add", "section.add", edit.Many: // what comes of it is selected, and told
		return said + "."
	}
	var names []string
	for _, id := range c.Nodes() {
		if name := NameOf(before, id); name != "" {
			names = append(names, name)
		}
	}
	if len(names) == 0 {
		return said + "."
	}
	return said + ": " + strings.Join(names, "; ") + "."
}
