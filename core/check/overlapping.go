package check

import (
	"fmt"

	"openplot/core/doc"
	"openplot/core/edit"
)

// What overlaps in the width that it was placed at is meant to: the typical width of the widest
// zone, and of each zone in which one of the two was placed by hand.
var overlapping = Rule{
	repair: mendRoom,
	ID:     "overlapping", Name: "Blocks run into each other", Family: Layout, Severity: Doubtful,
	What: "blocks overlap that don't at the width they were placed at",
	Why:  "They don’t where they were placed: what they hold needs more room here.",
	short: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("%.0f px into %s", f.By, name(f.Other))
	},
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("%s runs %.0f px into %s", name(f.Node), f.By, name(f.Other))
	},
	say: func(f *Finding, _ func(string) string) string {
		return fmt.Sprintf("At %d px they overlap; where they were placed they don’t.", f.Worst)
	},
	at: func(s *sight) {
		s.overlaps(func(a, b *box, by float64) {
			if !s.meant[s.zone][pair(a.block, b.block)] {
				s.note(a.block, b.block, by)
			}
		})
	},
}

func pair(a, b string) [2]string {
	if a > b {
		a, b = b, a
	}
	return [2]string{a, b}
}

// overlaps calls f for blocks beside each other of which something lies over something.
func (s *sight) overlaps(f func(a, b *box, by float64)) {
	for i := range s.boxes {
		a := &s.boxes[i]
		if !s.stands(a) {
			continue
		}
		for k := range s.boxes[:i] {
			b := &s.boxes[k]
			if b.above != a.above || !s.stands(b) || b.block == a.block {
				continue
			}
			w, h := min(a.px+a.pw, b.px+b.pw)-max(a.px, b.px), min(a.py+a.ph, b.py+b.ph)-max(a.py, b.py)
			if w > 2 && h > 2 {
				f(a, b, min(w, h))
			}
		}
	}
}

// stands reports whether a box is a block's that takes room.
func (s *sight) stands(b *box) bool {
	return b.top && b.block != "" && !b.free && b.see >= unseen && b.W > 0 && b.H > 0
}

// refer notes which blocks overlap where they were placed, for a zone.
func (g *gathered) refer(z int, zone doc.Zone) {
	g.meant[z] = map[[2]string]bool{}
	note := func(at doc.Zone, all bool) {
		root := g.Tree().At(float64(at.Typical))
		s := &sight{gathered: g}
		s.take(root, at.Typical)
		s.overlaps(func(a, b *box, _ float64) {
			if all || g.byHand(a.block, zone.ID) || g.byHand(b.block, zone.ID) {
				g.meant[z][pair(a.block, b.block)] = true
			}
		})
	}
	note(g.Zones[0], true)
	if z > 0 {
		note(zone, false)
	}
}

// byHand reports whether a block was placed by hand in a zone.
func (g *gathered) byHand(node, zone string) bool {
	b := g.kind(node)
	if b == nil {
		return false
	}
	_, placed := b.Place[zone]
	return placed
}

// kind gives the block of the document that a node is, or nil.
func (g *gathered) kind(node string) *doc.Block {
	id, _ := doc.SplitItem(node)
	return g.kinds[id]
}

// mendPull has a section that lies over the one above lie below it where it covers something.
func mendPull(p *Page, f *Finding) *Repair {
	of := func(node string) *doc.Section {
		id, _ := doc.SplitItem(node)
		if s, _ := p.Doc.Section(id); s != nil {
			return s
		}
		s, _ := p.Doc.Block(id)
		return s
	}
	a, b := of(f.Node), of(f.Other)
	if a == b || a == nil || b == nil {
		return nil
	}
	for _, s := range []*doc.Section{a, b} {
		if s.Style["pull"] != nil {
			return &Repair{
				"No overlap in " + p.where(f),
				edit.Command{Op: "set", Node: s.ID, Zone: p.at(f), Setting: "pull", Value: "0"},
			}
		}
	}
	return nil
}

// mendRoom has what is in the way go down, or the block go back to where the rule puts it.
func mendRoom(p *Page, f *Finding) *Repair {
	if r := mendPull(p, f); r != nil {
		return r
	}
	b := p.block(f.Node)
	if b == nil {
		return nil
	}
	zone := p.at(f)
	var back []edit.Command // to where the rule puts them
	for _, node := range []string{f.Node, f.Other} {
		if o := p.block(node); o != nil && zone != p.Site.Zones.Widest() {
			if _, byHand := o.Place[zone]; byHand {
				back = append(back, edit.Command{Op: "block.place.reset", Node: o.ID, Zone: zone})
			}
		}
	}
	if len(back) > 0 {
		return &Repair{"Where the rule puts them in " + p.where(f), edit.Command{Op: edit.Many, Parts: back}}
	}
	if o := p.block(f.Other); o != nil {
		return &Repair{"Make room in " + p.where(f), edit.Command{Op: "block.room", Node: o.ID, Zone: zone}}
	}
	return nil
}
