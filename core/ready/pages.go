package ready

import (
	"slices"

	"openplot/core/doc"
	"openplot/core/tree"
)

// Page is a ready-made page: ready-made sections in an order.
type Page struct {
	ID, Name, Hint string
	Sections       []string // presets
}

// Pages lists the ready-made pages; the first is empty.
var Pages = []Page{
	{"blank", "Blank page", "one empty section", []string{"empty"}},
	{
		"home", "Home page", "welcome, reasons, about, voices, a call and a footer",
		[]string{
			"bar-over",
			"welcome-picture",
			"features",
			"about-picture",
			"figures",
			"testimonials",
			"action",
			"footer",
		},
	},
	{
		"landing", "Landing page", "one offer from the welcome to the button",
		[]string{
			"welcome-middle",
			"features-list",
			"prices",
			"questions-middle",
			"testimonial",
			"action-card",
			"footer-line",
		},
	},
	{
		"about", "About us", "the story, people, pictures and voices",
		[]string{"bar", "about-columns", "about-figures", "people", "gallery", "action-line", "footer"},
	},
	{
		"prices",
		"Prices",
		"cards, a table and questions",
		[]string{"bar", "prices", "prices-table", "questions", "footer"},
	},
	{
		"contact",
		"Contact",
		"a form, a map and the site’s facts",
		[]string{"bar", "form", "contact-map", "questions-middle", "footer"},
	},
	{
		"programme", "Programme", "what happens when, steps and notices",
		[]string{"bar", "notice", "timetable", "timetable-days", "steps", "notices", "footer"},
	},
}

// PageName gives the name of a page as it is kept. Errors are *doc.Problem.
func PageName(name string) (string, error) {
	name, err := doc.Line("Name", name, doc.MaxNameRunes)
	if err == nil && name == "" {
		err = doc.Problemf("Name", "can't be empty: it is how the page is found, such as Fares")
	}
	return name, err
}

// NewPage makes a page of a ready-made one, in the words of a business or, where it is nil, of
// any; stock is as Env.Stock. Errors are *doc.Problem.
func NewPage(
	ready, name string,
	business *Business,
	newID func(string) string,
	stock func(id string) string,
) (*doc.Page, error) {
	name, err := PageName(name)
	if err != nil {
		return nil, err
	}
	for _, r := range Pages {
		if r.ID != ready {
			continue
		}
		p := &doc.Page{ID: newID("p"), Name: name, Title: name}
		for _, id := range r.Sections {
			preset := FindPreset(id)
			s := preset.Make(newID, business)
			if preset.Stock != "" && stock != nil {
				s.Picture = stock(preset.Stock)
			}
			p.Sections = append(p.Sections, s)
		}
		return p, nil
	}
	return nil, doc.Problemf("Page", "there is no ready-made page %.40q", ready)
}

// Around gives a new page the bars and the footers that another of the site shares with its pages, in
// place of its own.
func Around(p, other *doc.Page) {
	shared := func(role doc.Role) (out []*doc.Section) {
		for _, s := range other.Sections {
			if s.Shared && s.Role == role && s.View == nil {
				out = append(out, s)
			}
		}
		return out
	}
	bars, footers := shared(doc.RoleHeader), shared(doc.RoleFooter)
	own := slices.DeleteFunc(p.Sections, func(s *doc.Section) bool {
		return s.Role == doc.RoleHeader && bars != nil || s.Role == doc.RoleFooter && footers != nil
	})
	p.Sections = slices.Concat(bars, own, footers)
}

// maxSiteSlug leaves room for the marks of a site's other hosts: a label has 63 bytes at most
// (RFC 1035 §2.3.4).
const maxSiteSlug = 55

// NewSite makes a site without pages. Errors are *doc.Problem.
func NewSite(address, name string, newID func(string) string) (*doc.Site, error) {
	name, err := doc.Line("Name", name, doc.MaxNameRunes)
	if err != nil {
		return nil, err
	}
	if name == "" {
		return nil, doc.Problemf("Name", "can't be empty: it is what the site is called")
	}
	if tree.CheckSegment(address) != nil || len(address) > maxSiteSlug {
		return nil, doc.Problemf(
			"Address",
			"can't be %.60q: write at most %d small letters, digits and hyphens, such as skerry-line",
			address,
			maxSiteSlug,
		)
	}
	if doc.SiteReserved(address) {
		return nil, doc.Problemf("Address", "%q is kept for the program; choose another", address)
	}
	return &doc.Site{
		ID:    newID("w"),
		Slug:  address,
		Name:  name,
		House: doc.StandardHouse(),
		Zones: doc.StandardZones(),
	}, nil
}

// NewHome makes a site's first page.
func NewHome(site string, newID func(string) string) (*doc.Page, error) {
	p, err := NewPage(Pages[0].ID, "Home", nil, newID, nil)
	if err != nil {
		return nil, err
	}
	p.Title = site
	return p, nil
}
