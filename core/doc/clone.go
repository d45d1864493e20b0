package doc

import (
	"maps"
	"slices"
)

// Clone gives a copy of the page whose section list may be changed; the sections
// themselves are shared.
func (p *Page) Clone() *Page {
	c := *p
	c.Sections = slices.Clone(p.Sections)
	return &c
}

// Clone gives a copy of the section whose fields and block list may be changed;
// the blocks themselves are shared.
func (s *Section) Clone() *Section {
	c := *s
	c.Style = maps.Clone(s.Style)
	c.Blocks = slices.Clone(s.Blocks)
	return &c
}

// Head is the section without its blocks.
func (s *Section) Head() *Section {
	c := *s
	c.Blocks = nil
	return &c
}

// Clone gives a copy of the block whose fields and list of blocks may be changed.
// Zoned values, content and the blocks themselves are shared: they are replaced,
// never written to.
func (b *Block) Clone() *Block {
	c := *b
	c.Style = maps.Clone(b.Style)
	c.Blocks = slices.Clone(b.Blocks)
	return &c
}

// Head is the block without those in it.
func (b *Block) Head() *Block {
	c := *b
	c.Blocks = nil
	return &c
}

// Anew gives a copy of the block in which it, all blocks in it and the items have new
// ids.
func (b *Block) Anew(newID func(prefix string) string) *Block {
	ids := map[string]string{}
	c := b.anew(newID, ids)
	c.Walk(func(b *Block) {
		for i, it := range b.Items {
			contents := make(map[string]Content, len(it.Contents))
			for id, content := range it.Contents {
				contents[ids[id]] = content
			}
			b.Items[i] = Item{ID: newID("i"), Contents: contents}
		}
	})
	return c
}

func (b *Block) anew(newID func(string) string, ids map[string]string) *Block {
	c := b.Clone()
	c.ID = newID("b")
	ids[b.ID] = c.ID
	c.Items = slices.Clone(b.Items)
	for i, in := range c.Blocks {
		c.Blocks[i] = in.anew(newID, ids)
	}
	return c
}
