package doc

import "unicode/utf8"

// Size is what a page comes to as it is shown: the design of a Series once for each item.
type Size struct {
	Blocks int
	Runes  int // characters of all words
}

// Limits of a page as it is shown. Checks of a page at both take some seconds (docs/performance.md).
const (
	MaxShownBlocks = 3000
	MaxPageRunes   = 200_000
)

// Over reports whether a page of the size is too large.
func (s Size) Over() bool { return s.Blocks > MaxShownBlocks || s.Runes > MaxPageRunes }

// Size measures a page; of one that is far too large only that much.
func (p *Page) Size() Size {
	var s Size
	var blocks func(list []*Block, in Item)
	blocks = func(list []*Block, in Item) {
		for _, b := range list {
			if s.Blocks > 10*MaxShownBlocks || s.Runes > 10*MaxPageRunes {
				return
			}
			c, own := in.Contents[b.ID]
			if !own {
				c = b.Content
			}
			s.Blocks++
			s.Runes += c.runes()
			if len(b.Items) == 0 {
				blocks(b.Blocks, in)
			}
			for _, it := range b.Items {
				blocks(b.Blocks, it)
			}
		}
	}
	for _, sec := range p.Sections {
		blocks(sec.Blocks, Item{})
	}
	return s
}

// runes counts the characters that a content says; of what differs by zone the longest.
func (c Content) runes() (n int) {
	for _, w := range c.Said() {
		n = max(n, w.runes())
	}
	for _, v := range c.Values {
		n += utf8.RuneCountInString(v)
	}
	for _, e := range c.Entries {
		n += e.Words.runes()
		for _, v := range e.Values {
			n += utf8.RuneCountInString(v)
		}
	}
	return n
}

func (w Words) runes() (n int) {
	for _, p := range w {
		for _, r := range p {
			n += utf8.RuneCountInString(r.Text)
		}
	}
	return n
}

// MaxColours is how many colours a palette holds at most, its roles included.
const MaxColours = 40

// MaxFamilies is how many families of its own a site has at most.
const MaxFamilies = 20

// MaxSteps is how many steps of spacing, of corners or of lines there are at most, and
// how many text styles.
const MaxSteps = 40
