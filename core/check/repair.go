package check

import (
	"fmt"
	"math"
	"strconv"

	"openplot/core/colour"
	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/element"
	"openplot/core/style"
	"openplot/core/value"
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

func mendContrast(p *Page, f *Finding) *Repair {
	b := p.block(f.Node)
	if b == nil || style.Find("color", b.Kind) == nil {
		return nil
	}
	if f.Part == "picture" { // a veil over the section's picture, until it is enough
		s := p.sectionOf(f.Node)
		if s == nil || s.Picture == "" {
			return nil
		}
		id := s.ID
		return &Repair{
			fmt.Sprintf("Overlay at 80 %% in %s", p.where(f)),
			edit.Command{Op: "set", Node: id, Zone: p.at(f), Setting: "filter-opacity", Value: "80%"},
		}
	}
	said, behind, ok := p.colours(f)
	if !ok {
		return nil
	}
	mended := colour.Readable(said, behind, f.Of+0.02)
	return &Repair{"Words in " + mended.String(), p.set(f, "color", mended.String())}
}

// colours gives the colours of the words of a block and of what is behind them, in the zone of the
// finding's worst width.
func (p *Page) colours(f *Finding) (said, behind colour.Colour, ok bool) {
	z := p.Site.Zones.At(float64(f.Worst))
	p.each(z, func(n *element.Node, node string, _ bool) {
		if ok || node != f.Node || n.Text == "" {
			return
		}
		st := &n.Styles[z]
		a, err1 := colour.ParseHex(st.Color)
		b, err2 := colour.ParseHex(style.Over(st.Background, st.Behind))
		if err1 == nil && err2 == nil && colour.Contrast(a.Over(b), b) < f.Of {
			said, behind, ok = a, b, true
		}
	})
	return said, behind, ok
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

func mendSmallWords(p *Page, f *Finding) *Repair {
	return &Repair{"Set in 12 px", p.set(f, "font-size", "12px")}
}

func mendFields(p *Page, f *Finding) *Repair {
	return &Repair{
		"Fields in 16 px in " + p.where(f),
		edit.Command{Op: "set", Node: f.Node, Zone: p.at(f), Setting: "font-size", Value: "16px"},
	}
}

func mendAlone(p *Page, f *Finding) *Repair {
	b := p.block(f.Node)
	if b == nil || b.Kind != doc.Series || len(b.Items) < 3 {
		return nil
	}
	n, zone := len(b.Items), p.Site.Zones.At(float64(f.Worst))
	room := float64(zoneRange(p.Site.Zones, zone).From) * 0.86
	for per := min(n, 6); per >= 1; per-- {
		if (n%per == 0 || n%per > 1) && room/float64(per) >= 150 {
			label := fmt.Sprintf("%d across in %s", per, p.where(f))
			if per == 1 {
				label = "One below the other in " + p.where(f)
			}
			return &Repair{
				label,
				edit.Command{
					Op:      "set",
					Node:    b.ID,
					Zone:    p.Site.Zones[zone].ID,
					Setting: "per-row",
					Value:   strconv.Itoa(per),
				},
			}
		}
	}
	return nil
}

func mendLongWord(p *Page, f *Finding) *Repair {
	b := p.block(f.Node)
	if b == nil || style.Find("font-size", b.Kind) == nil {
		return nil
	}
	// As much smaller as the line is too long for its place.
	var size, room float64
	p.seen(f, func(s *sight, in *box) {
		for _, l := range in.Lines {
			if l.W > in.W && (room == 0 || in.W/l.W < room) {
				size, room = in.st.FontPx(s.view), in.W/l.W
			}
		}
	})
	if size == 0 || size*room < leastSize {
		return nil
	}
	v := strconv.Itoa(int(size*room)) + "px"
	return &Repair{
		v + " in " + p.where(f),
		edit.Command{Op: "set", Node: b.ID, Zone: p.at(f), Setting: "font-size", Value: v},
	}
}

func mendLongLines(p *Page, f *Finding) *Repair {
	b := p.block(f.Node)
	if b == nil || style.Find("width", b.Kind) == nil {
		return nil
	}
	var wide float64
	p.seen(f, func(_ *sight, in *box) {
		for _, l := range in.Lines {
			if wide == 0 && float64(l.Runes) >= f.By {
				wide = math.Floor(in.W * (mostOnLine - 8) / f.By)
			}
		}
	})
	if wide == 0 {
		return nil
	}
	v := fmt.Sprintf("%.0fpx", wide)
	return &Repair{v + " wide at most", p.set(f, "width", v)}
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

func mendBlurred(p *Page, f *Finding) *Repair {
	b := p.block(f.Node)
	if b == nil || style.Find("width", b.Kind) == nil {
		return nil
	}
	zs := p.Site.Zones
	if ratio, _, _ := b.Style["aspect-ratio"].Resolve(zs, zs.At(float64(f.Worst))); ratio == value.Rows {
		return nil
	}
	return &Repair{
		fmt.Sprintf("As wide as its %.0f px", f.Of),
		p.set(f, "width", fmt.Sprintf("%.0fpx", math.Floor(f.Of))),
	}
}

func mendBar(p *Page, f *Finding) *Repair {
	return &Repair{
		"Let it scroll in " + p.where(f),
		edit.Command{Op: "set", Node: f.Node, Zone: p.at(f), Setting: "stays", Value: value.Static},
	}
}

func mendTwice(p *Page, f *Finding) *Repair {
	have := Anchors(p.Doc)
	for n := 2; n < 100; n++ {
		name := fmt.Sprintf("%s-%d", f.Words, n)
		taken := false
		for _, a := range have {
			taken = taken || a == name
		}
		if taken {
			continue
		}
		if s, _ := p.Doc.Section(f.Node); s != nil {
			return &Repair{"Call it #" + name, edit.Command{Op: "section.anchor", Node: s.ID, Value: name}}
		}
		return &Repair{
			"Call it #" + name,
			edit.Command{Op: "block.content", Node: f.Node, Setting: "name", Value: name},
		}
	}
	return nil
}

func mendHeading(p *Page, f *Finding) *Repair {
	b := p.block(f.Node)
	if b == nil || b.Kind != doc.Heading || f.Part != "" && f.Part != "two" {
		return nil
	}
	level := int(f.Of) + 1
	if f.Part == "two" {
		level = 2
	}
	return &Repair{
		fmt.Sprintf("Level %d", level),
		edit.Command{Op: "block.content", Node: b.ID, Setting: "level", Value: strconv.Itoa(level)},
	}
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
