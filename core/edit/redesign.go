package edit

import (
	"cmp"
	"slices"
	"strconv"
	"strings"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/ready"
)

// redesign gives a section another ready-made design and carries over what it says and
// shows: headings to headings, texts and quotes to either, buttons with where they lead,
// pictures with their words, and what lists entries to its own kind; first to those of the
// same role, and then in reading order. The items of a Series become those of the new
// one. Stand-in words aren't carried, and those of the design that nothing corresponds to
// go. What the design has no place for is kept at the section's end, since losing it
// would be worse than a design that isn't quite met.
func (e sectionEdits) redesign() ([]Step, error) {
	id := cmp.Or(e.c.Preset, e.c.Value)
	preset := ready.FindPreset(id)
	if preset == nil {
		return nil, doc.Problemf("Layout", "there is no ready-made section %.40q", id)
	}
	next := preset.Make(e.env.NewID, ready.FindBusiness(e.env.Site.Business))
	next.View, next.Fold = e.section.View, e.section.Fold
	next.ID, next.Name, next.Anchor, next.Hidden = e.section.ID, e.section.Name, e.section.Anchor, e.section.Hidden
	if next.Picture, next.Video = e.section.Picture, e.section.Video; next.Role == doc.RoleMain {
		next.Role = e.section.Role
	}
	c := carried{standIn: ready.StandIns(e.section)}
	c.gather(e.section.Blocks)
	c.match(next)
	next.Blocks = c.fill(next.Blocks, e.env.NewID)
	c.ofSeries(e.env.NewID)
	for _, b := range c.rest() {
		if next.Arrangement == doc.Placed {
			cells, _, err := e.cells(next.Holder(), b.Kind, nil)
			if err != nil {
				return nil, err
			}
			b = b.Clone()
			b.Place = cells
		}
		next.Blocks = append(next.Blocks, b)
	}
	_, at := e.page.Section(e.section.ID)
	e.selected = next.ID
	return []Step{{Do: RemoveSection, ID: e.section.ID}, {Do: InsertSection, At: at, Section: next}}, nil
}

// role is what a block is for within a section: a heading's level, a text's style.
func role(b *doc.Block) string {
	switch {
	case b.Kind == doc.Heading:
		return "heading " + strconv.Itoa(min(max(b.Content.Level, 1), 3))
	case b.Kind == doc.Text || b.Kind == doc.Quote:
		for _, style := range b.Style["text-style"] {
			return strings.TrimPrefix(style, "$")
		}
	}
	return string(b.Kind)
}

// aside reports whether a role is for something short beside the words proper, such as
// the line above a heading; other words have no business there.
func aside(role string) bool { return role == "label" || role == "small" }

// carried is what a section says, on its way into another design.
type carried struct {
	standIn func(*doc.Block) bool
	pieces  []*piece          // in reading order
	into    map[string]*piece // by the block of the design that says it then
	items   [][]doc.Content   // of a Series: what each item says, by the kinds below
	kinds   [][]doc.Kind
}

// piece is one block that says something.
type piece struct {
	block   *doc.Block
	role    string
	standIn bool
	used    bool
}

func (c *carried) add(b *doc.Block) {
	c.pieces = append(c.pieces, &piece{block: b, role: role(b), standIn: c.standIn(b)})
}

// gather collects the blocks that say something.
func (c *carried) gather(blocks []*doc.Block) {
	for _, b := range blocks {
		switch {
		case b.Kind == doc.Series && len(c.items) == 0 && len(b.Blocks) > 0:
			for _, it := range b.Items {
				var contents []doc.Content
				var kinds []doc.Kind
				it.Shows(b.Blocks[0]).Walk(func(in *doc.Block) {
					if !in.Kind.Is(doc.Holding) {
						contents, kinds = append(contents, in.Content), append(kinds, in.Kind)
					}
				})
				c.items, c.kinds = append(c.items, contents), append(c.kinds, kinds)
			}
		case b.Kind == doc.Series:
			c.add(b)
		case b.Kind.Is(doc.Holding):
			c.gather(b.Blocks)
		default:
			c.add(b)
		}
	}
}

// alikeKinds reports whether what one kind says can be said by the other.
func alikeKinds(a, b doc.Kind) bool {
	prose := func(k doc.Kind) bool { return k == doc.Text || k == doc.Quote }
	return a == b || prose(a) && prose(b)
}

// match finds for the blocks of a design what they say: what has their role, and then what
// is of their kind, in reading order.
func (c *carried) match(design *doc.Section) {
	c.into = map[string]*piece{}
	var slots []*doc.Block
	var collect func(blocks []*doc.Block)
	collect = func(blocks []*doc.Block) {
		for _, b := range blocks {
			if b.Kind.Is(doc.Holding) {
				if b.Kind != doc.Series {
					collect(b.Blocks)
				}
			} else if says(b.Kind) {
				slots = append(slots, b)
			}
		}
	}
	collect(design.Blocks)
	pass := func(fits func(slot *doc.Block, p *piece) bool) {
		for _, slot := range slots {
			if c.into[slot.ID] != nil {
				continue
			}
			i := slices.IndexFunc(
				c.pieces,
				func(p *piece) bool { return !p.used && alikeKinds(p.block.Kind, slot.Kind) && fits(slot, p) },
			)
			if i >= 0 {
				c.into[slot.ID], c.pieces[i].used = c.pieces[i], true
			}
		}
	}
	pass(func(slot *doc.Block, p *piece) bool { return role(slot) == p.role })
	pass(func(slot *doc.Block, p *piece) bool { return !aside(role(slot)) && !aside(p.role) })
}

// fill gives the blocks of the design with what was carried. Those with stand-in words that
// nothing corresponds to are left out, and containers that hold nothing then.
func (c *carried) fill(blocks []*doc.Block, newID func(string) string) (out []*doc.Block) {
	for _, b := range blocks {
		b = b.Clone()
		switch {
		case b.Kind == doc.Series:
			if len(c.items) > 0 && len(b.Blocks) > 0 {
				b.Items = c.itemsOf(b, newID)
			}
		case b.Kind.Is(doc.Holding):
			had := len(b.Blocks)
			if b.Blocks = c.fill(b.Blocks, newID); had > 0 && len(b.Blocks) == 0 {
				continue
			}
		case says(b.Kind):
			p := c.into[b.ID]
			if p == nil {
				if b.Content.Words.Plain() != "" && b.Kind != doc.Logo {
					continue
				}
				break
			}
			if p.standIn {
				break
			}
			level := b.Content.Level
			if b.Content = p.block.Content; level == 1 || b.Content.Level == 0 {
				b.Content.Level = level // there is one title a page
			}
		}
		out = append(out, b)
	}
	return out
}

// rest gives what the design had no place for, stand-in words apart.
func (c *carried) rest() (out []*doc.Block) {
	for _, p := range c.pieces {
		if !p.used && !p.standIn {
			out = append(out, p.block)
		}
	}
	return out
}

// says reports whether blocks of a kind say something of their own.
func says(k doc.Kind) bool {
	return k.Is(doc.Worded) || k == doc.Picture || k == doc.Icon || element.Of(k).EntryName != "" ||
		len(element.Of(k).Fields) > 0
}

// itemsOf makes the items of a new Series of those carried, block by block of a kind.
func (c *carried) itemsOf(series *doc.Block, newID func(string) string) []doc.Item {
	var out []doc.Item
	for i, contents := range c.items {
		kinds := slices.Clone(c.kinds[i])
		it := doc.Item{ID: newID("i"), Contents: map[string]doc.Content{}}
		series.Blocks[0].Walk(func(in *doc.Block) {
			for k, kind := range kinds {
				if kind != "" && alikeKinds(kind, in.Kind) {
					it.Contents[in.ID] = contents[k]
					kinds[k] = ""
					return
				}
			}
		})
		for k, kind := range kinds { // what the design has no place for
			if kind != "" && (contents[k].Words.Plain() != "" || contents[k].Picture != "") && kind != doc.Icon {
				c.add(&doc.Block{ID: newID("b"), Kind: kind, Content: contents[k]})
			}
		}
		out = append(out, it)
	}
	c.items = nil
	return out
}

// ofSeries gives what is left of a Series that the design has no place for, as blocks.
func (c *carried) ofSeries(newID func(string) string) {
	for i, contents := range c.items {
		for k, content := range contents {
			c.add(&doc.Block{ID: newID("b"), Kind: c.kinds[i][k], Content: content})
		}
	}
	c.items = nil
}
