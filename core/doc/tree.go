package doc

import (
	"maps"
	"slices"
	"strings"
)

// Arrangement says how the blocks of a section or a container stand.
type Arrangement string

// The arrangements.
const (
	Placed  Arrangement = ""        // in the cells of a grid, free to overlap
	Columns Arrangement = "columns" // side by side in twelfths, row below row
	LineUp  Arrangement = "line-up" // one after another, across or down
)

// Holder is what blocks stand in, a section or a container, as the arrangements
// see it.
type Holder struct {
	ID          string
	Arrangement Arrangement
	Style       Style
	Blocks      []*Block
}

// Holder is the section as what its blocks stand in.
func (s *Section) Holder() Holder { return Holder{s.ID, s.Arrangement, s.Style, s.Blocks} }

// Holder is the block as what those in it stand in.
func (b *Block) Holder() Holder { return Holder{b.ID, b.Arrangement, b.Style, b.Blocks} }

// Index finds a block held directly by id, or gives -1.
func (h Holder) Index(id string) int {
	for i, b := range h.Blocks {
		if b.ID == id {
			return i
		}
	}
	return -1
}

// Columns is the number of grid columns of a Placed arrangement in zone i.
func (h Holder) Columns(zs Zones, i int) int {
	n := 0
	if v, from, ok := h.Style["columns"].Resolve(zs, i); ok && zs.Index(from) == i {
		for _, c := range v {
			n = n*10 + int(c-'0')
		}
	}
	if n < 1 || n > MaxColumns {
		return zs[i].Columns
	}
	return n
}

// Path finds a block of the section at any depth: the containers that it stands in,
// from the outermost in, and last the block itself. It is nil when there is none.
func (s *Section) Path(id string) []*Block { return path(s.Blocks, id, nil) }

func path(blocks []*Block, id string, above []*Block) []*Block {
	for _, b := range blocks {
		if b.ID == id {
			return append(above, b)
		}
		if p := path(b.Blocks, id, append(above, b)); p != nil {
			return p
		}
	}
	return nil
}

// HolderOf gives what a block of the section stands in.
func (s *Section) HolderOf(id string) Holder {
	path := s.Path(id)
	if len(path) < 2 {
		return s.Holder()
	}
	return path[len(path)-2].Holder()
}

// Walk calls f for every block of the section, containers before what they hold.
func (s *Section) Walk(f func(b *Block)) { walk(s.Blocks, f) }

// Walk calls f for the block and every one in it.
func (b *Block) Walk(f func(b *Block)) { walk([]*Block{b}, f) }

func walk(blocks []*Block, f func(*Block)) {
	for _, b := range blocks {
		f(b)
		walk(b.Blocks, f)
	}
}

// Plain gives all that a page says: its head, and the words of its blocks, of their
// entries, and of a Series as each item says it.
func (p *Page) Plain() string {
	var b strings.Builder
	say := func(c Content) {
		for _, w := range c.Said() {
			b.WriteString(w.Plain() + "\n")
		}
		b.WriteString(c.Alt + "\n")
		for _, e := range c.Entries {
			b.WriteString(e.Words.Plain() + "\n")
			for _, name := range slices.Sorted(maps.Keys(e.Values)) {
				b.WriteString(e.Values[name] + "\n")
			}
		}
		b.WriteString(c.Values["cells"] + "\n")
	}
	b.WriteString(p.Title + "\n" + p.Description + "\n")
	var blocks func(list []*Block, in Item)
	blocks = func(list []*Block, in Item) {
		for _, bl := range list {
			c, ok := in.Contents[bl.ID]
			if !ok {
				c = bl.Content
			}
			say(c)
			if len(bl.Items) == 0 {
				blocks(bl.Blocks, in)
			}
			for _, it := range bl.Items {
				blocks(bl.Blocks, it)
			}
		}
	}
	for _, s := range p.Sections {
		blocks(s.Blocks, Item{})
	}
	return b.String()
}

// Shows reports whether a medium is seen anywhere on the page.
func (p *Page) Shows(medium string) bool {
	found := false
	for _, s := range p.Sections {
		s.EachValue(func(v string) { found = found || v == medium })
	}
	return found
}

// EachValue calls f with everything on a section that may be the id of a medium.
func (s *Section) EachValue(f func(string)) {
	values := func(m map[string]string) {
		for _, v := range m {
			f(v)
		}
	}
	content := func(c Content) {
		f(c.Picture)
		values(c.Values)
		for _, e := range c.Entries {
			values(e.Values)
		}
	}
	f(s.Picture)
	f(s.Video)
	s.Walk(func(b *Block) {
		content(b.Content)
		for _, it := range b.Items {
			for _, c := range it.Contents {
				content(c)
			}
		}
	})
}

// Uses reports whether a token of the house style is used anywhere on the page: as a
// value, in a gradient, or as the colour of words.
func (p *Page) Uses(token string) bool {
	found := false
	style := func(s Style) {
		for _, zones := range s {
			for _, v := range zones {
				for _, part := range strings.FieldsFunc(v, func(r rune) bool { return r == ' ' || r == ',' }) {
					found = found || part == "$"+token
				}
			}
		}
	}
	words := func(w Words) {
		for _, para := range w {
			for _, r := range para {
				found = found || r.Colour == token
			}
		}
	}
	content := func(c Content) {
		for _, w := range c.Said() {
			words(w)
		}
		for _, e := range c.Entries {
			words(e.Words)
		}
	}
	for _, s := range p.Sections {
		style(s.Style)
		s.Walk(func(b *Block) {
			style(b.Style)
			content(b.Content)
			for _, it := range b.Items {
				for _, c := range it.Contents {
					content(c)
				}
			}
		})
	}
	return found
}

// Depth is how many containers stand within each other in the block, itself
// included.
func (b *Block) Depth() int {
	deepest := 0
	for _, c := range b.Blocks {
		deepest = max(deepest, c.Depth())
	}
	return deepest + 1
}

// Item is one of a Series. Its blocks are those of the design; Contents holds, by
// the id of a block of the design, what says something else here.
type Item struct {
	ID       string             `json:"id"`
	Contents map[string]Content `json:"contents,omitempty"`
}

// itemMark stands between the two ids of a block of the design as one item shows it.
const itemMark = "~"

// ItemID names a block of the design as an item shows it.
func ItemID(block, item string) string { return block + itemMark + item }

// SplitItem takes an id apart into the block's and the item's, which is "" outside
// a Series.
func SplitItem(id string) (block, item string) {
	block, item, _ = strings.Cut(id, itemMark)
	return block, item
}

// Shows gives the design's block with the content it has in the item.
func (it Item) Shows(b *Block) *Block {
	c, ok := it.Contents[b.ID]
	if !ok && len(b.Blocks) == 0 {
		return b
	}
	shown := b.Clone()
	if ok {
		shown.Content = c
	}
	for i, in := range shown.Blocks {
		shown.Blocks[i] = it.Shows(in)
	}
	return shown
}

// FindItem finds an item of a Series by id and gives its index, or -1.
func (b *Block) FindItem(id string) (Item, int) {
	for i, it := range b.Items {
		if it.ID == id {
			return it, i
		}
	}
	return Item{}, -1
}
