package check

import (
	"slices"

	"openplot/core/doc"
	"openplot/core/edit"
)

// Repair is what would mend a finding: a command, which can be tried before it is taken.
type Repair struct {
	Label   string // what it does, such as "Three across from 640 px"
	Command edit.Command
}

// Repair gives what may mend a finding of a page, or nil. Whether it does, Mends tells.
func (p *Page) Repair(f *Finding) *Repair {
	if f.repair == nil {
		return nil
	}
	return f.repair(p, f)
}

// AllOf gives one command for several repairs, which are taken back together.
func AllOf(rs []*Repair) edit.Command {
	c := edit.Command{Op: edit.Many}
	for _, r := range rs {
		if r.Command.Op == edit.Many {
			c.Parts = append(c.Parts, r.Command.Parts...)
		} else {
			c.Parts = append(c.Parts, r.Command)
		}
	}
	if len(c.Parts) > edit.MaxParts {
		c.Parts = c.Parts[:edit.MaxParts]
	}
	return c
}

// Mends reports whether a finding is gone among those that are there after a repair, and none is
// there that wasn't before: neither another one nor one at widths where it wasn't. Hints don't count.
func Mends(f *Finding, before, after []Finding) bool {
	was := map[Key]*Finding{}
	for i := range before {
		was[before[i].Key()] = &before[i]
	}
	for i := range after {
		a := &after[i]
		b := was[a.Key()]
		if a.Key() == f.Key() {
			return false
		}
		if a.Severity > Hint && (b == nil || a.Reach() > b.Reach()+8) {
			return false
		}
	}
	return true
}

// In reports whether a finding holds at a width of a zone.
func In(f *Finding, zs doc.Zones, zone int) bool {
	r := zoneRange(zs, zone)
	return slices.ContainsFunc(f.Ranges, func(w Range) bool { return w.From <= r.To && w.To >= r.From })
}

// block gives the block of the document that a finding is about, or nil.
func (p *Page) block(node string) *doc.Block {
	id, _ := doc.SplitItem(node)
	_, b := p.Doc.Block(id)
	return b
}

// set makes a command that sets something in the zones in which a finding holds.
func (p *Page) set(f *Finding, setting, v string) edit.Command {
	id, _ := doc.SplitItem(f.Node)
	var parts []edit.Command
	for z, zone := range p.Site.Zones {
		r := zoneRange(p.Site.Zones, z)
		for _, w := range f.Ranges {
			if w.From <= r.To && w.To >= r.From {
				parts = append(parts, edit.Command{Op: "set", Node: id, Zone: zone.ID, Setting: setting, Value: v})
				break
			}
		}
	}
	if len(parts) == len(p.Site.Zones) && p.block(f.Node) != nil { // everywhere: in the widest, and the others follow
		parts = parts[:1]
		for _, zone := range p.Site.Zones[1:] {
			parts = append(parts, edit.Command{Op: "set", Node: id, Zone: zone.ID, Setting: setting})
		}
	}
	if len(parts) == 1 {
		return parts[0]
	}
	return edit.Command{Op: edit.Many, Parts: parts}
}

// at is the id of the zone of a finding's worst width.
func (p *Page) at(f *Finding) string { return p.Site.Zones[p.Site.Zones.At(float64(f.Worst))].ID }

// where says in which widths a repair does something.
func (p *Page) where(f *Finding) string {
	z := p.Site.Zones.At(float64(f.Worst))
	return p.Site.Zones[z].Name
}

// sectionOf gives the section that a node stands in.
func (p *Page) sectionOf(node string) *doc.Section {
	id, _ := doc.SplitItem(node)
	if s, _ := p.Doc.Section(id); s != nil {
		return s
	}
	s, _ := p.Doc.Block(id)
	return s
}

// seen calls look for the boxes of what a finding is about, at its worst width.
func (p *Page) seen(f *Finding, look func(s *sight, b *box)) {
	sec := p.sectionOf(f.Node)
	for _, part := range p.Parts {
		if sec == nil || part.Section == nil || part.Section.ID != sec.ID {
			continue
		}
		s := &sight{gathered: part.gather()}
		s.take(part.Tree().At(float64(f.Worst)), f.Worst)
		for i := range s.boxes {
			if s.boxes[i].node() == f.Node {
				look(s, &s.boxes[i])
			}
		}
	}
}
