package site

import (
	"cmp"
	"encoding/json"
	"path"
	"strconv"
	"strings"
	"unicode/utf8"

	"golang.org/x/text/language"

	"openplot/core/doc"
	"openplot/core/emit"
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
		}, {Name: "og:site_name", Content: s.Name}, {Name: "og:locale", Content: locale(head.Language)},
	}
	card := "summary"
	if pic := src.shared(p); pic.File != "" {
		head.Properties = append(
			head.Properties,
			emit.Property{Name: "og:image", Content: a.Origin + "/assets/media/" + pic.File},
			emit.Property{Name: "og:image:width", Content: strconv.Itoa(pic.width)},
			emit.Property{Name: "og:image:height", Content: strconv.Itoa(pic.height)},
			emit.Property{Name: "og:image:alt", Content: pic.alt},
		)
		if pic.width >= wideCard {
			card = "summary_large_image"
		}
	}
	head.Properties = append(head.Properties, emit.Property{Name: "twitter:card", Content: card})
	if with := head.Title + " – " + s.Name; s.Name != "" && slug != missingPage &&
		!strings.Contains(head.Title, s.Name) && utf8.RuneCountInString(with) <= mostTitle {
		head.Title = with
	}
	if slug == missingPage { // it is at no address of its own
		head.Canonical, head.Hidden = "", true
		head.Properties = nil
	}
	head.Icons = append(iconLinks(s, a.Up), src.feedLink(p, a.Up)...)
	head.Data = src.data(slug, p, a)
}

// shareWidth is the width in px of the picture that stands for a page, where there is one so
// wide (common practice, as is its shape of 1.91 : 1).
const shareWidth = 1200

// wideCard is the least width in px of a picture that is shown large, and mostTitle how many letters
// of a title are shown in lists of what was found (both common practice).
const wideCard, mostTitle = 600, 60

// sharedPicture is what a link to a page is shown with.
type sharedPicture struct {
	File, alt     string
	width, height int // px
}

// shared gives the picture that a link to a page is shown with: the page's own, the site's, or the
// first on the page.
func (src Source) shared(p *doc.Page) (pic sharedPicture) {
	ids := []string{p.Picture, src.Site.SharePicture}
	for _, sec := range p.Sections {
		if !sec.Hidden && sec.Role == doc.RoleMain {
			ids = append(ids, sec.Picture)
			sec.Walk(func(b *doc.Block) { ids = append(ids, b.Content.Picture) })
		}
	}
	for _, id := range ids {
		for _, m := range src.Media {
			if m.ID != id || id == "" || m.Sort() != doc.PictureMedium {
				continue
			}
			for _, v := range m.Variants { // narrow to wide; not every reader of links knows AVIF
				if !v.Modern() && path.Ext(v.File) != ".svg" && (pic.width < shareWidth || pic.File == "") {
					pic = sharedPicture{v.File, m.Alt, v.Width, (v.Width*m.Height + m.Width/2) / max(m.Width, 1)}
				}
			}
			if pic.File != "" {
				return pic
			}
		}
	}
	return pic
}

// locale gives a language as Open Graph has it, with the territory where most who speak it are
// unless it says one (Unicode CLDR, likely subtags).
func locale(lang string) string {
	tag, err := language.Parse(lang)
	if err != nil {
		return ""
	}
	base, _ := tag.Base()
	region, _ := tag.Region()
	return base.String() + "_" + region.String()
}

// about is what a page tells of beside where it stands, by schema.org: what happens at a time, where
// something counts down to it, and news, where it is in a category; or nil.
func (src Source) about(slug string, p *doc.Page, a Addresses) map[string]any {
	s := src.Site
	what := map[string]any{"name": cmp.Or(p.Name, p.Title), "url": a.Self}
	for _, sec := range p.Sections {
		sec.Walk(func(b *doc.Block) {
			until := b.Content.Values["until"]
			if _, ok := doc.ParseMoment(until); ok && b.Kind == doc.Countdown && !sec.Hidden &&
				what["startDate"] == nil {
				what["startDate"] = instant(until, cmp.Or(b.Content.Values["zone"], "UTC"))
			}
		})
	}
	switch {
	case what["startDate"] != nil:
		what["@type"] = "Event"
		if s.Facts.Address != "" {
			what["location"] = map[string]any{"@type": "Place", "name": s.Name, "address": s.Facts.Address}
		}
	case len(p.Categories) > 0 && slug != "":
		delete(what, "name")
		what["@type"], what["headline"], what["inLanguage"] = "Article", cmp.Or(p.Name, p.Title), s.Language
		what["articleSection"], what["publisher"] = p.Categories, map[string]any{
			"@type": "Organization",
			"name":  s.Name,
		}
		if day := src.dateOf(slug); day != "" {
			what["datePublished"] = day
		}
	default:
		return nil
	}
	if p.Description != "" {
		what["description"] = p.Description
	}
	if pic := src.shared(p); pic.File != "" {
		what["image"] = a.Origin + "/assets/media/" + pic.File
	}
	return what
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
		if lines := strings.FieldsFunc(s.Facts.Address, func(r rune) bool { return r == '\n' }); len(lines) > 0 {
			what["address"] = object{"@type": "PostalAddress", "streetAddress": strings.Join(lines, ", ")}
		}
		put("telephone", s.Facts.Phone)
		put("email", s.Facts.Mail)
		if pic := src.shared(p); pic.File != "" {
			put("image", a.Origin+"/assets/media/"+pic.File)
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
	if what := src.about(slug, p, a); what != nil {
		graph = append(graph, what)
	}
	b, err := json.Marshal(object{"@context": "https://schema.org", "@graph": graph})
	if err != nil {
		return "" // of text alone, it can be written
	}
	return string(b)
}
