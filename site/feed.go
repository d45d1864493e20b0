package site

import (
	"cmp"
	"encoding/xml"
	"fmt"
	"maps"
	"slices"
	"strings"
	"time"

	"openplot/core/doc"
	"openplot/core/emit"
	"openplot/store"
)

// feedFile is where a site's news are told to those who follow it.
const feedFile = "feed.xml"

// tells reports whether a site has news: pages in categories, which everybody may read.
func (src Source) tells() bool { return slices.ContainsFunc(src.Pages, news) }

func news(p *store.PageInfo) bool { return len(p.Categories) > 0 && p.Lock == "" }

// feedLink leads from a page that lists pages to the feed of them, up being the way to the site's root.
func (src Source) feedLink(p *doc.Page, up string) (links []emit.Icon) {
	if !src.tells() {
		return nil
	}
	for _, s := range p.Sections {
		s.Walk(func(b *doc.Block) {
			if b.Kind == doc.PageList && links == nil {
				links = []emit.Icon{{Rel: "alternate", Type: "application/atom+xml", Href: up + feedFile}}
			}
		})
	}
	return links
}

// feed lists the pages that are in categories and that visitors see, newest first, as Atom
// (RFC 4287).
func (src Source) feed(r *Release, origin string) (string, error) {
	type link struct {
		Rel  string `xml:"rel,attr"`
		Href string `xml:"href,attr"`
	}
	type category struct {
		Term string `xml:"term,attr"`
	}
	type entry struct {
		ID         string     `xml:"id"`
		Title      string     `xml:"title"`
		Link       link       `xml:"link"`
		Updated    string     `xml:"updated"`
		Summary    string     `xml:"summary,omitempty"`
		Categories []category `xml:"category"`
	}
	all := struct {
		XMLName xml.Name `xml:"http://www.w3.org/2005/Atom feed"`
		Lang    string   `xml:"xml:lang,attr,omitempty"`
		ID      string   `xml:"id"`
		Title   string   `xml:"title"`
		Updated string   `xml:"updated"`
		Author  string   `xml:"author>name"`
		Links   []link   `xml:"link"`
		Entries []entry  `xml:"entry"`
	}{
		Lang: src.Site.Language, ID: origin + "/", Title: src.Site.Name, Author: src.Site.Name,
		Links: []link{{"self", origin + "/" + feedFile}, {"alternate", origin + "/"}},
	}
	told := map[string]*store.PageInfo{}
	for _, p := range src.Pages {
		if news(p) {
			told[p.ID] = p
		}
	}
	var last time.Time
	addresses := slices.SortedFunc(maps.Keys(r.Pages), func(a, b string) int {
		return cmp.Or(r.Pages[b].Since.Compare(r.Pages[a].Since), cmp.Compare(a, b))
	})
	for _, at := range addresses {
		e := r.Pages[at]
		p := told[e.Page]
		if p == nil || e.Hidden || at == missingPage {
			continue
		}
		if e.Since.After(last) {
			last = e.Since
		}
		address := origin + strings.TrimSuffix("/"+at, "/") + "/"
		one := entry{
			ID: address, Title: p.Name, Link: link{"alternate", address},
			Updated: e.Since.UTC().Format(time.RFC3339), Summary: p.Description,
		}
		for _, c := range p.Categories {
			one.Categories = append(one.Categories, category{c})
		}
		all.Entries = append(all.Entries, one)
	}
	all.Updated = last.UTC().Format(time.RFC3339)
	b, err := xml.MarshalIndent(all, "", " ")
	if err != nil {
		return "", fmt.Errorf("writing the feed: %w", err)
	}
	return xml.Header + string(b) + "\n", nil
}
