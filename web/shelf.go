package web

import (
	"openplot/core/doc"
	"openplot/core/edit"
)

// shelfView is what can be inserted.
type shelfView struct {
	Blocks   []shelfItem
	Sections []shelfItem
}

type shelfItem struct {
	ID, Name, Hint, Icon string
	Find                 string // what searching looks in
}

func shelf() shelfView {
	v := shelfView{Blocks: []shelfItem{
		{string(doc.Heading), "Heading", "a title in one of six levels", "card-heading", "heading title"},
		{string(doc.Text), "Text", "paragraphs with links, bold and italic", "text-paragraph", "text words paragraph link"},
		{string(doc.List), "List", "points with dots, numbers or squares", "list-ul", "list bullets numbers points"},
		{string(doc.Quote), "Quote", "what somebody said", "quote", "quote saying testimonial"},
		{string(doc.Picture), "Picture", "one of the site’s pictures, or a new one", "image", "picture image photo"},
		{string(doc.Button), "Button", "a link that stands out", "hand-index-thumb", "button link action"},
		{string(doc.Divider), "Divider", "a line across", "dash-lg", "divider line rule"},
	}}
	for _, p := range edit.Presets {
		v.Sections = append(v.Sections, shelfItem{p.ID, p.Name, p.Hint, "plus-lg", p.Name + " " + p.Hint + " section"})
	}
	return v
}
