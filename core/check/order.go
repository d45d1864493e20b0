package check

import (
	"fmt"
	"slices"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/place"
)

// Blocks of a grid are read in the order of the document, wherever they stand.
var order = Rule{
	repair: mendOrder,
	ID:     "order", Name: "Read in another order than it is seen", Family: Reading, Severity: Doubtful, Standard: "WCAG 2.2, 1.3.2", least: 8,
	What:  "of two blocks, or sections, the one that comes later in the document stands above, or before on the row",
	Why:   "Who hears the page, or goes through it by Tab, gets the later part first.",
	short: func(f *Finding, name func(string) string) string { return "read after " + name(f.Other) },
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("%s is read before %s, but stands after it", name(f.Other), name(f.Node))
	},
	say: func(f *Finding, _ func(string) string) string { return fmt.Sprintf("So it stands at %d px.", f.Worst) },
	whole: func(p *Page, r *report) {
		p.inZones(r, func(z int, note func(Finding)) {
			seen, byHand := place.Sections(p.Doc, p.Site.Zones, z)
			if !byHand {
				return
			}
			seen = slices.DeleteFunc(slices.Clone(seen), func(s *doc.Section) bool { return s.Hidden })
			for _, moved := range elsewhere(p.Doc, seen) {
				at := slices.Index(seen, moved)
				_, nth := p.Doc.Section(moved.ID)
				for _, s := range seen[at+1:] { // it was put before what is read first
					if _, n := p.Doc.Section(s.ID); n < nth {
						note(Finding{Node: moved.ID, Other: s.ID})
						return
					}
				}
				for _, s := range seen[:at] {
					if _, n := p.Doc.Section(s.ID); n > nth {
						note(Finding{Node: s.ID, Other: moved.ID})
						return
					}
				}
			}
		})
	},
	at: func(s *sight) {
		for i := range s.boxes {
			b := &s.boxes[i]
			if !s.stands(b) || !s.placed(b) {
				continue
			}
			var first *box // of those that come before it in the document, and after it to the eye
			for k := range s.boxes {
				a := &s.boxes[k]
				if first != nil && first.nth < a.nth || a.nth >= b.nth || a.above != b.above || a.block == b.block ||
					!s.stands(a) {
					continue
				}
				// b comes later in the document: it may stand below or to the right, in other columns
				// above, but neither over the same column nor to the left of the same row.
				across := min(a.x+a.W, b.x+b.W) - max(a.x, b.x)
				down := min(a.y+a.H, b.y+b.H) - max(a.y, b.y)
				above := b.y+b.H <= a.y+1 && across > min(a.W, b.W)/2
				before := b.x+b.W <= a.x+1 && down > max(a.H, b.H)*0.75
				if (above || before) && s.says(a) && s.says(b) {
					first = a
				}
			}
			if first != nil {
				s.note(b.block, first.block, 1)
			}
		}
	},
}

// placed reports whether a block stands in a grid, or comes in another order by hand.
func (s *sight) placed(b *box) bool {
	if b.st.Order != 0 {
		return true
	}
	if up := s.kind(b.above); up != nil {
		return up.Arrangement == doc.Placed && up.Kind != doc.Series
	}
	return s.Section != nil && b.above == "" && s.Section.Arrangement == doc.Placed
}

// elsewhere gives the fewest sections without which the others come in the order of the document.
func elsewhere(p *doc.Page, seen []*doc.Section) []*doc.Section {
	nth := func(i int) int { _, n := p.Section(seen[i].ID); return n }
	long, from := make([]int, len(seen)), make([]int, len(seen)) // the longest rising sequence that ends there
	best := 0
	for i := range seen {
		from[i] = -1
		for k := range i {
			if nth(k) < nth(i) && long[k]+1 > long[i] {
				long[i], from[i] = long[k]+1, k
			}
		}
		if long[i] > long[best] {
			best = i
		}
	}
	stay := make([]bool, len(seen))
	for i := best; i >= 0 && len(seen) > 0; i = from[i] {
		stay[i] = true
	}
	var out []*doc.Section
	for i, s := range seen {
		if !stay[i] {
			out = append(out, s)
		}
	}
	return out
}

// says reports whether a block is something to be read or heard.
func (s *sight) says(b *box) bool {
	k := s.kind(b.block)
	return k != nil && (k.Kind.Is(doc.Worded) || k.Kind.Is(doc.Holding) || len(k.Content.Entries) > 0)
}

// mendOrder has what comes in another order by hand in a zone come as it does in the wider one.
func mendOrder(p *Page, f *Finding) *Repair {
	zone := p.at(f)
	var back []edit.Command
	follow := func(id string, st doc.Style) {
		if _, byHand := st["order"][zone]; byHand {
			back = append(back, edit.Command{Op: "follow", Node: id, Zone: zone, Setting: "order"})
		}
	}
	if s, _ := p.Doc.Section(f.Node); s != nil {
		for _, s := range p.Doc.Sections {
			follow(s.ID, s.Style)
		}
	} else if b := p.block(f.Node); b != nil {
		s, _ := p.Doc.Block(b.ID)
		for _, beside := range s.HolderOf(b.ID).Blocks {
			follow(beside.ID, beside.Style)
		}
	}
	if len(back) == 0 {
		return mendRoom(p, f)
	}
	return &Repair{"The order of the document in " + p.where(f), edit.Command{Op: edit.Many, Parts: back}}
}
