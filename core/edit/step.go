package edit

import (
	"fmt"
	"slices"

	"openplot/core/doc"
)

// Step is one change of a page, complete in itself: it holds all that is needed
// to make it, so that a log of steps can be played again.
type Step struct {
	Do      Do           `json:"do"`
	ID      string       `json:"id,omitempty"`      // of the node
	Parent  string       `json:"parent,omitempty"`  // section or container that a block goes into
	At      int          `json:"at,omitempty"`      // index of an inserted or moved node
	Section *doc.Section `json:"section,omitempty"` // whole for an insertion, without blocks for a replacement
	Block   *doc.Block   `json:"block,omitempty"`   // likewise
	Page    *PageHead    `json:"page,omitempty"`
}

// Do says what a step does.
type Do string

// The steps.
const (
	SetPage       Do = "set page"
	InsertSection Do = "insert section"
	RemoveSection Do = "remove section"
	MoveSection   Do = "move section"
	SetSection    Do = "set section"
	InsertBlock   Do = "insert block"
	RemoveBlock   Do = "remove block"
	MoveBlock     Do = "move block"
	SetBlock      Do = "set block"
)

// PageHead is a page without its sections.
type PageHead struct {
	Name        string   `json:"name"`
	Title       string   `json:"title"`
	Description string   `json:"description,omitempty"`
	Ground      string   `json:"ground,omitempty"`
	Categories  []string `json:"categories,omitempty"`
	Picture     string   `json:"picture,omitempty"`
	Date        string   `json:"date,omitempty"`
	Language    string   `json:"language,omitempty"`
	Unlisted    bool     `json:"unlisted,omitempty"`

	Guides doc.Zoned[doc.Guides] `json:"guides,omitempty"`
}

// headOf gives a page without its sections.
func headOf(p *doc.Page) PageHead {
	return PageHead{
		p.Name,
		p.Title,
		p.Description,
		p.Ground,
		p.Categories,
		p.Picture,
		p.Date,
		p.Language,
		p.Unlisted,
		p.Guides,
	}
}

// Run applies steps to a page and gives the new page and the steps that undo
// them, in the order to run them in. A step that doesn't fit the page is an error;
// the page given is never changed.
func Run(p *doc.Page, steps []Step) (*doc.Page, []Step, error) {
	next := p.Clone()
	inverse := make([]Step, 0, len(steps))
	for _, s := range steps {
		inv, err := s.apply(next)
		if err != nil {
			return nil, nil, err
		}
		inverse = append(inverse, inv)
	}
	slices.Reverse(inverse)
	return next, inverse, nil
}

// apply changes p, whose section list is its own, and gives the inverse.
func (s Step) apply(p *doc.Page) (Step, error) {
	missing := func() (Step, error) { return Step{}, fmt.Errorf("%s %s: no such node", s.Do, s.ID) }
	switch s.Do {
	case SetPage:
		was := headOf(p)
		inv := Step{Do: SetPage, Page: &was}
		p.Name, p.Title, p.Description, p.Ground = s.Page.Name, s.Page.Title, s.Page.Description, s.Page.Ground
		p.Categories, p.Picture, p.Guides = s.Page.Categories, s.Page.Picture, s.Page.Guides
		p.Date, p.Language, p.Unlisted = s.Page.Date, s.Page.Language, s.Page.Unlisted
		return inv, nil
	case InsertSection:
		if taken(p, s.Section.ID) {
			return Step{}, fmt.Errorf("%s: the id %s is on the page already", s.Do, s.Section.ID)
		}
		at := min(max(s.At, 0), len(p.Sections))
		p.Sections = slices.Insert(p.Sections, at, s.Section)
		return Step{Do: RemoveSection, ID: s.Section.ID}, nil
	case RemoveSection:
		sec, i := p.Section(s.ID)
		if sec == nil {
			return missing()
		}
		p.Sections = without(p.Sections, i)
		return Step{Do: InsertSection, At: i, Section: sec}, nil
	case MoveSection:
		sec, i := p.Section(s.ID)
		if sec == nil {
			return missing()
		}
		p.Sections = slices.Delete(p.Sections, i, i+1)
		p.Sections = slices.Insert(p.Sections, min(max(s.At, 0), len(p.Sections)), sec)
		return Step{Do: MoveSection, ID: s.ID, At: i}, nil
	case SetSection:
		sec, i := p.Section(s.ID)
		if sec == nil {
			return missing()
		}
		next := *s.Section
		next.Blocks = sec.Blocks
		p.Sections[i] = &next
		return Step{Do: SetSection, ID: s.ID, Section: sec.Head()}, nil
	case InsertBlock:
		var clash string
		s.Block.Walk(func(b *doc.Block) {
			if taken(p, b.ID) {
				clash = b.ID
			}
		})
		if clash != "" {
			return Step{}, fmt.Errorf("%s: the id %s is on the page already", s.Do, clash)
		}
		if !insert(p, s.Parent, s.At, s.Block) {
			return missing()
		}
		return Step{Do: RemoveBlock, ID: s.Block.ID}, nil
	case RemoveBlock:
		b, parent, at := remove(p, s.ID)
		if b == nil {
			return missing()
		}
		return Step{Do: InsertBlock, Parent: parent, At: at, Block: b}, nil
	case MoveBlock:
		b, parent, at := remove(p, s.ID)
		if b == nil || !insert(p, s.Parent, s.At, b) {
			return missing()
		}
		return Step{Do: MoveBlock, ID: s.ID, Parent: parent, At: at}, nil
	case SetBlock:
		var was *doc.Block
		found := within(p, s.ID, func(b *doc.Block) {
			was = b.Head()
			blocks := b.Blocks
			*b = *s.Block
			b.Blocks = blocks
		})
		if !found {
			return missing()
		}
		return Step{Do: SetBlock, ID: s.ID, Block: was}, nil
	}
	return Step{}, fmt.Errorf("unknown step %q", s.Do)
}

// within changes a copy of a block, and has copies of all that it stands in on the
// page; found is false when there is none of the id.
func within(p *doc.Page, id string, change func(*doc.Block)) (found bool) {
	for i, sec := range p.Sections {
		if path := sec.Path(id); path != nil {
			next := sec.Clone()
			p.Sections[i] = next
			blocks := next.Blocks
			for k, b := range path {
				at := slices.Index(blocks, b)
				blocks[at] = b.Clone()
				if k == len(path)-1 {
					change(blocks[at])
				}
				blocks = blocks[at].Blocks
			}
			return true
		}
	}
	return false
}

// insert puts a block into a section or container.
func insert(p *doc.Page, parent string, at int, b *doc.Block) bool {
	into := func(list []*doc.Block) []*doc.Block {
		return slices.Insert(list, min(max(at, 0), len(list)), b)
	}
	if sec, i := p.Section(parent); sec != nil {
		next := sec.Clone()
		next.Blocks = into(next.Blocks)
		p.Sections[i] = next
		return true
	}
	return within(p, parent, func(c *doc.Block) { c.Blocks = into(c.Blocks) })
}

// remove takes a block from the page and tells where it stood.
func remove(p *doc.Page, id string) (b *doc.Block, parent string, at int) {
	sec, b := p.Block(id)
	if b == nil {
		return nil, "", 0
	}
	h := sec.HolderOf(id)
	at = h.Index(id)
	if h.ID == sec.ID {
		next := sec.Clone()
		next.Blocks = without(next.Blocks, at)
		_, i := p.Section(sec.ID)
		p.Sections[i] = next
	} else {
		within(p, h.ID, func(c *doc.Block) { c.Blocks = without(c.Blocks, at) })
	}
	return b, h.ID, at
}

// without removes an element; of the last one nothing is left, so that a page is
// the same however it became empty.
func without[T any](s []T, i int) []T {
	if len(s) == 1 {
		return nil
	}
	return slices.Delete(s, i, i+1)
}

func taken(p *doc.Page, id string) bool {
	s, _ := p.Section(id)
	if s == nil {
		s, _ = p.Block(id)
	}
	return s != nil
}

// Touched gives the ids of the nodes that steps change, and of the sections those
// stand in on either page.
func Touched(steps []Step, before, after *doc.Page) (nodes, sections []string) {
	add := func(to *[]string, id string) {
		if id != "" && !slices.Contains(*to, id) {
			*to = append(*to, id)
		}
	}
	for _, s := range steps {
		id := s.ID
		if id == "" && s.Section != nil {
			id = s.Section.ID
		}
		if id == "" && s.Block != nil {
			id = s.Block.ID
		}
		if s.Do == SetPage {
			id = "page"
			for _, sec := range after.Sections { // what a page lies on is seen through its sections
				if before.Ground != after.Ground {
					add(&sections, sec.ID)
				}
			}
		}
		add(&nodes, id)
		for _, p := range []*doc.Page{before, after} {
			if sec, _ := p.Section(id); sec != nil {
				add(&sections, id)
			} else if sec, _ := p.Block(id); sec != nil {
				add(&sections, sec.ID)
			}
		}
	}
	return nodes, sections
}

// Within gives nodes with all that stands in them on a page.
func Within(nodes []string, p *doc.Page) []string {
	out := slices.Clone(nodes)
	for _, id := range nodes {
		if s, _ := p.Section(id); s != nil {
			s.Walk(func(b *doc.Block) { out = append(out, b.ID) })
		} else if _, b := p.Block(id); b != nil {
			b.Walk(func(b *doc.Block) { out = append(out, b.ID) })
		}
	}
	return out
}

// Reselect picks the node to select after an undo: the first touched one that is
// on the page.
func Reselect(nodes []string, p *doc.Page) string {
	for _, id := range nodes {
		if s, _ := p.Section(id); s != nil {
			return id
		}
		if s, _ := p.Block(id); s != nil {
			return id
		}
	}
	return ""
}
