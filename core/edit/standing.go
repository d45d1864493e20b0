package edit

import "openplot/core/doc"

// Standing gives what stands for a node once a page was changed: the node itself while it is
// there, else what stood beside it, the next one first, else what held it; "" when none of them
// is left, and for what was on neither page.
func Standing(before, after *doc.Page, node string) string {
	id, item := doc.SplitItem(node)
	if on(after, id, item) {
		return node
	}
	sec, block := before.Block(id)
	if block == nil {
		if s, i := before.Section(id); s != nil {
			return neighbour(after, before.Sections, i, func(s *doc.Section) string { return s.ID })
		}
		return ""
	}
	if item != "" { // the item is gone, or what it showed
		for _, around := range sec.Path(id) {
			if around.Kind == doc.Series {
				return Standing(before, after, around.ID)
			}
		}
	}
	h := sec.HolderOf(id)
	if next := neighbour(after, h.Blocks, h.Index(id), func(b *doc.Block) string { return b.ID }); next != "" {
		return next
	}
	return Standing(before, after, h.ID)
}

// on reports whether a section, a block or a block of an item is on a page.
func on(p *doc.Page, id, item string) bool {
	if s, _ := p.Section(id); s != nil {
		return item == ""
	}
	sec, b := p.Block(id)
	if b == nil || item == "" {
		return b != nil
	}
	for _, around := range sec.Path(id) {
		if _, i := around.FindItem(item); i >= 0 {
			return true
		}
	}
	return false
}

// neighbour gives the id of the nearest of several that is still on a page, behind the one at an
// index first, or "".
func neighbour[T any](after *doc.Page, all []T, at int, id func(T) string) string {
	for i := at + 1; i < len(all); i++ {
		if on(after, id(all[i]), "") {
			return id(all[i])
		}
	}
	for i := at - 1; i >= 0; i-- {
		if on(after, id(all[i]), "") {
			return id(all[i])
		}
	}
	return ""
}

// Came gives the first section, or else the first block, that a page has and had not before, or
// "".
func Came(before, after *doc.Page) (id string) {
	for _, s := range after.Sections {
		if !on(before, s.ID, "") {
			return s.ID
		}
	}
	for _, s := range after.Sections {
		s.Walk(func(b *doc.Block) {
			if id == "" && !on(before, b.ID, "") {
				id = b.ID
			}
		})
	}
	return id
}
