package edit

import (
	"regexp"
	"strconv"
	"strings"

	"github.com/gosimple/slug"

	"openplot/core/doc"
)

// ReadyPage is a ready-made page: ready-made sections in an order.
type ReadyPage struct {
	ID, Name, Hint string
	Sections       []string // presets
}

// ReadyPages lists the ready-made pages; the first is empty.
var ReadyPages = []ReadyPage{
	{"blank", "Blank page", "one empty section", []string{"empty"}},
	{
		"home", "Home page", "welcome, reasons, about, voices, a call and a footer",
		[]string{"bar-over", "welcome-picture", "features", "about-picture", "figures", "testimonials", "action", "footer"},
	},
	{
		"landing", "Landing page", "one offer from the welcome to the button",
		[]string{"welcome-middle", "features-list", "prices", "questions-middle", "testimonial", "action-card", "footer-line"},
	},
	{
		"about", "About us", "the story, people, pictures and voices",
		[]string{"bar", "about-columns", "about-figures", "people", "gallery", "action-line", "footer"},
	},
	{"prices", "Prices", "cards, a table and questions", []string{"bar", "prices", "prices-table", "questions", "footer"}},
	{"contact", "Contact", "a form, a map and the site’s facts", []string{"bar", "form", "contact-map", "questions-middle", "footer"}},
	{
		"programme", "Programme", "what happens when, steps and notices",
		[]string{"bar", "notice", "timetable", "timetable-days", "steps", "notices", "footer"},
	},
}

// Slug derives an address from a page's name: transliterated, small letters, digits and
// hyphens, with a number where the address is taken; "" when the name has none of those.
func Slug(name string, taken func(string) bool) string {
	base := slug.Make(name)
	if len(base) > maxSlug-4 {
		base = strings.Trim(base[:maxSlug-4], "-") // it is ASCII
	}
	if base == "" {
		return ""
	}
	s := base
	for n := 2; taken(s); n++ { // ends: there are only so many
		s = base + "-" + strconv.Itoa(n)
	}
	return s
}

// maxSlug is how long an address can be.
const maxSlug = 60

var slugPattern = regexp.MustCompile(`^[a-z0-9]+(-[a-z0-9]+)*$`)

// NewPage makes a page of a ready-made one, in the words of a business or, where it is nil, of
// any; stock is as Env.Stock. Errors are *doc.Problem.
func NewPage(ready, name, address string, business *Business, newID func(string) string, stock func(id string) string) (*doc.Page, error) {
	name, err := text("Name", name, doc.MaxNameRunes)
	if err != nil {
		return nil, err
	}
	if name == "" {
		return nil, doc.Problemf("Name", "can't be empty: it is how the page is found, such as Fares")
	}
	if !slugPattern.MatchString(address) || len(address) > maxSlug {
		return nil, doc.Problemf("Address", "can't be %.60q: write small letters, digits and hyphens, such as winter-fares", address)
	}
	if doc.PageReserved(address) {
		return nil, doc.Problemf("Address", "%q means something else on every site; choose another", address)
	}
	for _, r := range ReadyPages {
		if r.ID != ready {
			continue
		}
		p := &doc.Page{ID: newID("p"), Name: name, Title: name}
		for _, id := range r.Sections {
			preset := FindPreset(id)
			s := preset.make(newID, business)
			if preset.Stock != "" && stock != nil {
				s.Picture = stock(preset.Stock)
			}
			p.Sections = append(p.Sections, s)
		}
		return p, nil
	}
	return nil, doc.Problemf("Page", "there is no ready-made page %.40q", ready)
}

// ReadFacts checks what a site says about itself. Errors are *doc.Problem.
func ReadFacts(f doc.Facts) (doc.Facts, error) {
	var err error
	lines := func(field, v string) string {
		v, e := textLines(field, v, 12)
		if err == nil {
			err = e
		}
		return v
	}
	line := func(field, v string) string {
		v, e := text(field, v, 200)
		if err == nil {
			err = e
		}
		return v
	}
	f = doc.Facts{
		Address: lines("Address", f.Address),
		Hours:   lines("Hours", f.Hours),
		Phone:   line("Telephone", f.Phone),
		Mail:    line("Email", f.Mail),
	}
	if err == nil && f.Mail != "" && !mailPattern.MatchString(f.Mail) {
		err = doc.Problemf("Email", "can't be %.60q: write an address such as office@example.org", f.Mail)
	}
	return f, err
}

var mailPattern = regexp.MustCompile(`^[^@\s<>"]+@[^@\s<>"]+\.[^@\s<>"]+$`)

// maxSiteSlug leaves room for the marks of a site's other hosts: a label has 63 bytes at most
// (RFC 1035 §2.3.4).
const maxSiteSlug = 55

// NewSite makes a site without pages. Errors are *doc.Problem.
func NewSite(address, name string, newID func(string) string) (*doc.Site, error) {
	name, err := text("Name", name, doc.MaxNameRunes)
	if err != nil {
		return nil, err
	}
	if name == "" {
		return nil, doc.Problemf("Name", "can't be empty: it is what the site is called")
	}
	if !slugPattern.MatchString(address) || len(address) > maxSiteSlug {
		return nil, doc.Problemf("Address", "can't be %.60q: write at most %d small letters, digits and hyphens, such as skerry-line", address, maxSiteSlug)
	}
	if doc.SiteReserved(address) {
		return nil, doc.Problemf("Address", "%q is kept for the program; choose another", address)
	}
	return &doc.Site{ID: newID("w"), Slug: address, Name: name, House: doc.StandardHouse(), Zones: doc.StandardZones()}, nil
}

// NewHome makes a site's first page.
func NewHome(site string, newID func(string) string) (*doc.Page, error) {
	p, err := NewPage(ReadyPages[0].ID, "Home", "x", nil, newID, nil)
	if err != nil {
		return nil, err
	}
	p.Title = site
	return p, nil
}
