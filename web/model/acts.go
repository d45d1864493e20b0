package model

import (
	"encoding/json"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/web/paths"
)

// act is something that can be done with the selection.
type act struct {
	Name, Title string
	Command     string // as JSON, or ""
	Keys        string // that do the same, or ""
	Icon, Text  string // that draws it, or that says it, or ""
	Keep        bool   // keeps the section on the Shelf
	Href        string // where it is done, or ""
}

// acts gives what can be done with the selection: the acts used most, and all of them.
func (v trayParts) acts(t *Tray, sec *doc.Section, b *doc.Block) {
	of := func(name, keys string, c edit.Command) act {
		c.Node = t.Node
		text, err := json.Marshal(c)
		if err != nil {
			return act{Name: name}
		}
		title := name
		if keys != "" {
			title += " (" + keys + ")"
		}
		return act{Name: name, Title: title, Command: string(text), Keys: keys}
	}
	zone := t.Zone.ID
	var first, more []act
	switch {
	case b == nil:
		first = []act{
			of(
				"Earlier",
				"Ctrl+Shift+↑",
				edit.Command{Op: "section.shift", DY: -1},
			), of("Later", "Ctrl+Shift+↓", edit.Command{Op: "section.shift", DY: 1}),
		}
		hide := of("Hide", "", edit.Command{Op: "section.hide", Hide: true})
		if sec.Hidden {
			hide = of("Show", "", edit.Command{Op: "section.hide"})
		}
		share := of("Share on several pages", "", edit.Command{Op: "section.share"})
		if sec.Shared {
			share = of("Make it this page’s own", "", edit.Command{Op: "section.own"})
		}
		more = []act{
			hide,
			share,
			v.everywhere(sec, doc.RoleHeader),
			v.everywhere(sec, doc.RoleFooter),
			{Name: "Keep on the Shelf", Keep: true},
		}
	case t.Placed:
		first = []act{
			of("Forward", "Ctrl+PageUp", edit.Command{Op: "block.layer", Zone: zone, DY: 1}),
			of("Backward", "Ctrl+PageDown", edit.Command{Op: "block.layer", Zone: zone, DY: -1}),
		}
		for _, way := range []struct {
			name, keys string
			dx, dy     int
		}{{"Move left", "←", -1, 0}, {"Move right", "→", 1, 0}, {"Move up", "↑", 0, -1}, {"Move down", "↓", 0, 1}} {
			more = append(
				more,
				of(way.name, way.keys, edit.Command{Op: "block.nudge", Zone: zone, DX: way.dx, DY: way.dy}),
			)
		}
		for _, way := range []struct {
			name, keys string
			dx, dy     int
		}{{"Wider", "Shift+→", 1, 0}, {"Narrower", "Shift+←", -1, 0}, {"Taller", "Shift+↓", 0, 1}, {"Less tall", "Shift+↑", 0, -1}} {
			more = append(
				more,
				of(way.name, way.keys, edit.Command{Op: "block.resize", Zone: zone, DX: way.dx, DY: way.dy}),
			)
		}
	case t.Item:
		first = []act{
			of(
				"Item earlier",
				"",
				edit.Command{Op: "item.shift", DY: -1},
			), of("Item later", "", edit.Command{Op: "item.shift", DY: 1}),
			of(
				"Add an item",
				"",
				edit.Command{Op: "item.add"},
			), of("Remove the item", "", edit.Command{Op: "item.remove"}),
		}
	default:
		first = []act{
			of(
				"Earlier",
				"←",
				edit.Command{Op: "block.nudge", Zone: zone, DX: -1},
			), of("Later", "→", edit.Command{Op: "block.nudge", Zone: zone, DX: 1}),
		}
	}
	first = append(
		first,
		of("Duplicate", "Ctrl+D", edit.Command{Op: "duplicate"}),
		of("Delete", "Delete", edit.Command{Op: "delete"}),
	)
	t.Acts = first
	for _, a := range first {
		switch a.Name {
		case "Forward":
			a.Name = "Bring forward"
		case "Backward":
			a.Name = "Send backward"
		}
		t.More = append(t.More, a)
	}
	t.More = append(t.More, more...)
	if b == nil || b.Kind.Is(doc.Holding) && b.Kind != doc.Series {
		t.More = append(t.More, of("Flip sides", "", edit.Command{Op: "flip"}))
	}
	if b == nil {
		return
	}
	if !t.Item {
		t.More = append(t.More, of("Group", "Ctrl+G", edit.Command{Op: "blocks.group"}))
		if b.Kind.Is(doc.Holding) && b.Kind != doc.Series {
			t.More = append(t.More, of("Ungroup", "Ctrl+Shift+G", edit.Command{Op: "block.ungroup"}))
		}
	}
	lock := of("Lock", "Ctrl+Shift+L", edit.Command{Op: "block.lock", Hide: true})
	if b.Locked {
		lock = of("Unlock", "Ctrl+Shift+L", edit.Command{Op: "block.lock"})
	}
	t.More = append(t.More, lock)
}

// everywhere leads to making a section the site's top bar or its footer.
func (v trayParts) everywhere(sec *doc.Section, role doc.Role) act {
	name := "Make it the site’s top bar…"
	if role == doc.RoleFooter {
		name = "Make it the site’s footer…"
	}
	return act{
		Name: name,
		Href: paths.To(v.Site.Slug).Segment(v.Slug).At("everywhere", sec.ID) + "?role=" + string(role),
	}
}
