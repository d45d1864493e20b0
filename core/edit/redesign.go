package edit

import (
	"slices"

	"openplot/core/doc"
	"openplot/core/element"
)

// redesign gives a section another ready-made design and carries over what it says and
// shows. Words go to words of their kind, in reading order: headings to headings, texts
// and quotes to either, buttons with where they lead, pictures with their words, and
// what lists entries to its own kind. The items of a Series become those of the new
// one. What the design has no place for is kept at the section's end, since losing it
// would be worse than a design that isn't quite met.
func (e *editing) redesign() ([]Step, error) {
	preset := FindPreset(e.c.Preset)
	if preset == nil {
		return nil, doc.Problemf("Layout", "there is no ready-made section %.40q", e.c.Preset)
	}
	next := preset.make(e.env.NewID)
	next.ID, next.Name, next.Anchor, next.Hidden = e.section.ID, e.section.Name, e.section.Anchor, e.section.Hidden
	if next.Picture, next.Video = e.section.Picture, e.section.Video; next.Role == doc.RoleMain {
		next.Role = e.section.Role
	}
	c := carried{}
	c.gather(e.section.Blocks)
	for i, b := range next.Blocks {
		next.Blocks[i] = c.fill(b, e.env.NewID)
	}
	c.ofSeries(e.env.NewID)
	for _, b := range c.left {
		if next.Arrangement == doc.Placed {
			cells, err := e.cells(next.Holder(), b.Kind, nil)
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

// carried is what a section says, on its way into another design.
type carried struct {
	left  []*doc.Block    // not placed yet, in reading order
	items [][]doc.Content // of a Series: what each item says, by the kinds below
	kinds [][]doc.Kind
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
			c.left = append(c.left, b)
		case b.Kind.Is(doc.Holding):
			c.gather(b.Blocks)
		default:
			c.left = append(c.left, b)
		}
	}
}

// alikeKinds reports whether what one kind says can be said by the other.
func alikeKinds(a, b doc.Kind) bool {
	prose := func(k doc.Kind) bool { return k == doc.Text || k == doc.Quote }
	return a == b || prose(a) && prose(b)
}

// take gives the next block of a kind, or nil.
func (c *carried) take(k doc.Kind) *doc.Block {
	for i, b := range c.left {
		if alikeKinds(b.Kind, k) {
			c.left = slices.Delete(slices.Clone(c.left), i, i+1)
			return b
		}
	}
	return nil
}

// fill gives a block of the design with what was carried.
func (c *carried) fill(b *doc.Block, newID func(string) string) *doc.Block {
	b = b.Clone()
	if b.Kind == doc.Series {
		if len(c.items) > 0 && len(b.Blocks) > 0 {
			b.Items = c.itemsOf(b, newID)
		}
		return b
	}
	for i, in := range b.Blocks {
		b.Blocks[i] = c.fill(in, newID)
	}
	if b.Kind.Is(doc.Holding) || !says(b.Kind) {
		return b
	}
	if from := c.take(b.Kind); from != nil {
		level := b.Content.Level
		if b.Content = from.Content; level == 1 || b.Content.Level == 0 {
			b.Content.Level = level // there is one title a page
		}
	}
	return b
}

// says reports whether blocks of a kind say something of their own.
func says(k doc.Kind) bool {
	return k.Is(doc.Worded) || k == doc.Picture || k == doc.Icon || element.Of(k).EntryName != "" || len(element.Of(k).Fields) > 0
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
				c.left = append(c.left, &doc.Block{ID: newID("b"), Kind: kind, Content: contents[k]})
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
			c.left = append(c.left, &doc.Block{ID: newID("b"), Kind: c.kinds[i][k], Content: content})
		}
	}
	c.items = nil
}
