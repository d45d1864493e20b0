package web

import (
	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/element"
)

// shelfView is what can be inserted.
type shelfView struct {
	Blocks   []shelfGroup
	Sections []shelfItem
}

type shelfGroup struct {
	Name  string
	Items []shelfItem
}

type shelfItem struct {
	ID, Name, Hint, Icon string
	Find                 string // what searching looks in
	Span, Rows           int    // of a block in a grid, in twelfths and rows
}

func shelf() shelfView {
	var v shelfView
	for _, name := range element.Shelves {
		g := shelfGroup{Name: string(name)}
		for _, k := range doc.Kinds {
			if a := element.Of(k); a.Shelf == name {
				g.Items = append(g.Items, shelfItem{string(k), a.Name, a.Hint, a.Icon, a.Name + " " + a.Find + " " + a.Hint, a.Span, a.Rows})
			}
		}
		v.Blocks = append(v.Blocks, g)
	}
	for _, p := range edit.Presets {
		v.Sections = append(v.Sections, shelfItem{ID: p.ID, Name: p.Name, Hint: p.Hint, Icon: "plus-lg", Find: p.Name + " " + p.Hint + " section"})
	}
	return v
}
