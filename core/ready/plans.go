package ready

import (
	"openplot/core/doc"
	"openplot/core/tree"
)

// PlannedPage is a page that a new site can begin with.
type PlannedPage struct {
	Ready string // the ready-made page that it begins as
	Name  string
}

// plans are the pages that sites of each kind of business begin with beside the home page; those
// of any are "".
var plans = map[string][]PlannedPage{
	"":         {{"about", "About"}, {"prices", "Prices"}, {"contact", "Contact"}},
	"food":     {{"prices", "Menu"}, {"about", "About"}, {"contact", "Find us"}},
	"lodging":  {{"prices", "Rooms"}, {"about", "The house"}, {"contact", "Contact"}},
	"trade":    {{"about", "Our work"}, {"prices", "Prices"}, {"contact", "Ask for a quote"}},
	"shop":     {{"prices", "Gift boxes"}, {"about", "About"}, {"contact", "Visit us"}},
	"health":   {{"about", "The practice"}, {"programme", "Hours"}, {"contact", "Make an appointment"}},
	"office":   {{"about", "Who we are"}, {"prices", "Fees"}, {"contact", "Contact"}},
	"culture":  {{"programme", "Programme"}, {"prices", "Tickets"}, {"about", "About"}, {"contact", "Contact"}},
	"outdoors": {{"programme", "Dates"}, {"prices", "Prices"}, {"about", "Guides"}, {"contact", "Contact"}},
	"teaching": {{"programme", "Courses"}, {"prices", "Fees"}, {"about", "About"}, {"contact", "Sign up"}},
	"club":     {{"programme", "Dates"}, {"about", "About us"}, {"contact", "Join"}},
}

// Plan gives the pages that a site for a business begins with, the home page first; nil is any.
func Plan(b *Business) []PlannedPage {
	id := ""
	if b != nil {
		id = b.ID
	}
	return append([]PlannedPage{{"home", "Home"}}, plans[id]...)
}

// Planned makes those pages, without the ones that are left out by name, and the tree that they
// stand in. newID and stock are as NewPage has them.
func Planned(
	b *Business,
	leave func(name string) bool,
	newID func(string) string,
	stock func(string) string,
) ([]*doc.Page, tree.Tree, error) {
	var pages []*doc.Page
	var t tree.Tree
	for i, planned := range Plan(b) {
		if i > 0 && leave(planned.Name) {
			continue
		}
		p, err := NewPage(planned.Ready, planned.Name, b, newID, stock)
		if err != nil {
			return nil, nil, err
		}
		if i == 0 {
			t = tree.Tree{{ID: p.ID, Name: p.Name}}
		} else if t, err = t.Add(tree.Page{ID: p.ID, Name: p.Name}, ""); err != nil {
			return nil, nil, err
		}
		pages = append(pages, p)
	}
	shareEnds(pages, b, newID)
	return pages, t, nil
}

// shareEnds gives all pages of a new site one bar and one footer, which are changed once.
func shareEnds(pages []*doc.Page, b *Business, newID func(string) string) {
	for role, preset := range map[doc.Role]string{doc.RoleHeader: "bar", doc.RoleFooter: "footer"} {
		shared := FindPreset(preset).Make(newID, b)
		shared.Shared = true
		for _, p := range pages {
			for i, s := range p.Sections {
				if s.Role == role {
					p.Sections[i] = shared
				}
			}
		}
	}
}
