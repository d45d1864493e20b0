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

// Clone gives a copy of the block whose fields may be changed. Zoned values and
// words are shared: both are replaced, never written to.
func (b *Block) Clone() *Block {
	c := *b
	c.Style = maps.Clone(b.Style)
	return &c
}
