package site

import (
	"cmp"
	"encoding/json"
	"strings"

	"openplot/core/doc"
	"openplot/core/emit"
	"openplot/store"
)

// describe says what a page is about to those who don't see it: search engines (RFC 6596,
// schema.org as JSON-LD) and those who show a link to it (Open Graph, ogp.me).
func (src Source) describe(head *emit.Page, slug string, p *doc.Page, a Addresses) {
	s := src.Site
	head.Canonical = a.Self
	kind := "article"
	if slug == "" {
		kind = "website"
	}
	head.Properties = []emit.Property{
		{
			Name:    "og:type",
			Content: kind,
		}, {Name: "og:title", Content: p.Title}, {Name: "og:description", Content: p.Description},
		{
			Name:    "og:url",
			Content: a.Self,
		}, {Name: "og:site_name", Content: s.Name}, {Name: "og:locale", Content: strings.ReplaceAll(head.Language, "-", "_")},
	}
	if file, alt := src.shared(p); file != "" {
		head.Properties = append(
			head.Properties,
			emit.Property{Name: "og:image", Content: a.Origin + "/assets/media/" + file},
			emit.Property{Name: "og:image:alt", Content: alt},
		)
	}
	head.Icons = iconLinks(s, a.Up)
	head.Data = src.data(slug, p, a)
}

// shareWidth is the width in px of the picture that stands for a page, where there is one so
// wide (common practice, as is its shape of 1.91 : 1).
const shareWidth = 1200

// shared gives the file of the picture that a link to a page is shown with, the page's own or
// the site's, and its alternative text.
func (src Source) shared(p *doc.Page) (file, alt string) {
	for _, id := range []string{p.Picture, src.Site.SharePicture} {
		for _, m := range src.Media {
			if m.ID != id || id == "" {
				continue
			}
			var best store.MediumCopy
			for _, v := range m.Variants { // narrow to wide; not every reader of links knows AVIF
				if !v.Modern() && (best.Width < shareWidth || best.File == "") {
					best = v
				}
			}
			return best.File, m.Alt
		}
	}
	return "", ""
}

// data is what a page is about as JSON-LD: the business, on the home page, and where the page
// stands in the site, on others.
func (src Source) data(slug string, p *doc.Page, a Addresses) string {
	s := src.Site
	type object = map[string]any
	var graph []object
	if slug == "" {
		what := object{"@type": "Organization", "name": s.Name, "url": a.Origin + "/"}
		if len(s.Facts.Opening) > 0 || s.Facts.Address != "" {
			what["@type"] = "LocalBusiness"
		}
		put := func(name string, v string) {
			if v != "" {
				what[name] = v
			}
		}
		put("address", strings.Join(strings.Fields(strings.ReplaceAll(s.Facts.Address, "\n", ", ")), " "))
		put("telephone", s.Facts.Phone)
		put("email", s.Facts.Mail)
		if file, _ := src.shared(p); file != "" {
			put("image", a.Origin+"/assets/media/"+file)
		}
		if len(s.Facts.Social) > 0 {
			what["sameAs"] = s.Facts.Social
		}
		var hours []object
		for _, o := range s.Facts.Opening {
			hours = append(
				hours,
				object{
					"@type":     "OpeningHoursSpecification",
					"dayOfWeek": "https://schema.org/" + o.Day,
					"opens":     o.From,
					"closes":    o.To,
				},
			)
		}
		if hours != nil {
			what["openingHoursSpecification"] = hours
		}
		graph = append(graph, what)
	} else {
		step := func(n int, name, address string) object {
			return object{"@type": "ListItem", "position": n, "name": name, "item": a.Origin + strings.TrimSuffix("/"+address, "/") + "/"}
		}
		home := "Home"
		var trail []object
		for _, i := range src.Pages { // those above come first
			if i.Slug == "" {
				home = i.Name
			}
			if i.Slug != "" && strings.HasPrefix(slug, i.Slug+"/") {
				trail = append(trail, step(len(trail)+2, i.Name, i.Slug))
			}
		}
		trail = append([]object{step(1, home, "")}, trail...)
		graph = append(graph, object{"@type": "BreadcrumbList", "itemListElement": append(trail, step(len(trail)+1, cmp.Or(p.Name, p.Title), slug))})
	}
	b, err := json.Marshal(object{"@context": "https://schema.org", "@graph": graph})
	if err != nil {
		return "" // of text alone, it can be written
	}
	return string(b)
}
