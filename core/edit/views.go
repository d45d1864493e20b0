package edit

import (
	"slices"
	"strings"

	"openplot/core/doc"
	"openplot/core/tree"
	"openplot/core/value"
)

// maxCategories is how many categories a page is in at most.
const maxCategories = 12

// readCategories reads what lists of pages choose a page by, parted by commas.
func readCategories(v string) (out []string, err error) {
	for part := range strings.SplitSeq(v, ",") {
		name, err := doc.Line("Categories", strings.TrimSpace(part), 60)
		if err != nil {
			return nil, err
		}
		if name != "" && !slices.ContainsFunc(out, func(has string) bool { return strings.EqualFold(has, name) }) {
			out = append(out, name)
		}
	}
	if len(out) > maxCategories {
		return nil, doc.Problemf("Categories", "are %d; a page can be in %d", len(out), maxCategories)
	}
	return out, nil
}

// setView makes a section part of a view of the page, by the view's title; "" lets it be seen
// always. A view that is new gets an anchor that leads nowhere yet.
func (e sectionEdits) setView() ([]Step, error) {
	title, err := doc.Line("View", e.c.Value, doc.MaxNameRunes)
	if err != nil {
		return nil, err
	}
	if title != "" && e.section.Role != doc.RoleMain {
		return nil, doc.Problemf("View", "can't be given to a %s: it is seen with every view", e.section.Role)
	}
	return e.head(func(s *doc.Section) { s.View = e.view(title) }), nil
}

// view gives the page's view of a title.
func (e sectionEdits) view(title string) *doc.View {
	if title == "" {
		return nil
	}
	for _, s := range e.page.Sections {
		if s.View != nil && s.ID != e.section.ID && strings.EqualFold(s.View.Title, title) {
			return &doc.View{Title: s.View.Title, Anchor: s.View.Anchor}
		}
	}
	if v := e.section.View; v != nil && strings.EqualFold(v.Title, title) {
		return &doc.View{Title: title, Anchor: v.Anchor}
	}
	anchor := tree.Slug(title, func(name string) bool { return e.anchored(name) })
	if anchor == "" {
		anchor = tree.Slug("view", func(name string) bool { return e.anchored(name) })
	}
	return &doc.View{Title: title, Anchor: anchor}
}

// viewed reports whether a view of the page has an anchor.
func (e sectionEdits) viewed(anchor string) bool {
	return slices.ContainsFunc(
		e.page.Sections,
		func(s *doc.Section) bool { return s.View != nil && s.View.Anchor == anchor },
	)
}

// setFold makes a section one that visitors unfold, or no longer, or titles it.
func (e sectionEdits) setFold() ([]Step, error) {
	v := strings.TrimSpace(e.c.Value)
	if e.c.Setting == "title" {
		title, err := doc.Line("Fold title", v, doc.MaxNameRunes)
		if err != nil {
			return nil, err
		}
		if e.section.Fold == nil {
			return nil, doc.Problemf("Fold title", "is that of a section which folds; choose Closed or Open first")
		}
		return e.head(func(s *doc.Section) { s.Fold = &doc.Fold{Title: title, Open: s.Fold.Open} }), nil
	}
	switch v {
	case "", value.None:
		return e.head(func(s *doc.Section) { s.Fold = nil }), nil
	case value.Closed, value.Open:
		return e.head(func(s *doc.Section) {
			fold := doc.Fold{Title: s.Name}
			if s.Fold != nil {
				fold = *s.Fold
			}
			fold.Open = v == value.Open
			s.Fold = &fold
		}), nil
	}
	return nil, doc.Problemf("Fold", "can't be %.40q: choose None, Closed or Open", v)
}
