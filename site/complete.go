package site

import (
	"context"
	"encoding/xml"
	"fmt"
	"maps"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"time"

	"openplot/core/compose"
	"openplot/core/doc"
	"openplot/store"
)

// complete makes what a host shows beside its pages: the site map, what robots are told, and
// the page for addresses that have nothing.
func (p *Publisher) complete(src Source, r *Release) error {
	origin := p.origin(src)
	add := func(address, ending, media, text string) error {
		file, err := p.keep(src.Site.ID, ending, []byte(text))
		if err != nil {
			return err
		}
		r.Files[address] = &Entry{File: file, Type: media}
		return nil
	}
	siteMap, err := siteMap(r, origin, src.locked())
	if err != nil {
		return err
	}
	if err := add("sitemap.xml", ".xml", "application/xml", siteMap); err != nil {
		return err
	}
	robots := "User-agent: *\nAllow: /\nSitemap: " + origin + "/sitemap.xml\n"
	if err := add("robots.txt", ".txt", "text/plain; charset=utf-8", robots); err != nil {
		return err
	}
	if src.tells() {
		feed, err := src.feed(r, origin)
		if err != nil {
			return err
		}
		if err := add(feedFile, ".xml", "application/atom+xml", feed); err != nil {
			return err
		}
	}
	r.lead(src.Redirects)
	drawn, err := siteIcons{p}.iconFiles(src)
	if err != nil {
		return err
	}
	for address, b := range drawn {
		if err := add(address, filepath.Ext(address), iconTypes[filepath.Ext(address)], string(b)); err != nil {
			return err
		}
	}
	if own := r.Pages[missingPage]; own != nil {
		r.Missing = own
	}
	return nil
}

// missing makes the page for addresses that have nothing: the site's own takes its place at /404.
func (p telling) missing(ctx context.Context, src Source, home *doc.Page) (*Entry, error) {
	return p.told(
		ctx, src, home, "This page isn’t here",
		compose.Words("lead", "The address may have a slip in it, or the page has gone."),
		&doc.Block{Kind: doc.Text, Content: doc.Content{Words: doc.Words{{{Text: "Go to the home page", Link: "/"}}}}},
	)
}

// What stands in Release.Frame for a title and for words.
const (
	FrameTitle = "openplot-title"
	FrameWords = "openplot-words"
)

// frame makes the page around what visitors are told beside pages: thanks, a question for a password,
// what a search found.
func (p telling) frame(ctx context.Context, src Source, home *doc.Page) (*Entry, error) {
	return p.told(ctx, src, home, FrameTitle, compose.Words("", FrameWords))
}

// shownHome is the home page as visitors see it with an order carried out, or nil where they don't: what
// is told stands between its bars, and says nothing that isn't published.
func shownHome(ctx context.Context, st *store.Store, src Source, o Order) (*doc.Page, error) {
	for _, info := range src.Pages {
		if info.Slug != "" || info.Lock != "" {
			continue
		}
		for _, page := range o.Pages {
			if page.ID == info.ID {
				return page.Doc, nil
			}
		}
		if info.PublishedSeq != nil && !slices.Contains(o.Withdraw, info.ID) {
			return st.Pages.AsOf(ctx, info.ID, *info.PublishedSeq)
		}
	}
	return nil, nil
}

// told makes a page of a title and blocks, between the bar and the footer of the home page if there is one.
func (p telling) told(
	ctx context.Context,
	src Source,
	home *doc.Page,
	title string,
	blocks ...*doc.Block,
) (*Entry, error) {
	page := &doc.Page{ID: "told", Name: title, Title: title + " – " + src.Site.Name, Unlisted: true}
	words := compose.Section(
		doc.LineUp, compose.Centred("min-height", "50vh", "justify-content", "center"),
		append([]*doc.Block{compose.Heading(1, title)}, blocks...)...,
	)
	words.ID, words.Name = "s404", title
	for i, b := range words.Blocks {
		b.ID = "b404" + strconv.Itoa(i)
	}
	put := false
	if home != nil {
		for _, s := range home.Sections {
			if s.Role == doc.RoleFooter && !put {
				page.Sections, put = append(page.Sections, words), true
			}
			if s.Role != doc.RoleMain {
				page.Sections = append(page.Sections, s)
			}
		}
	}
	if !put {
		page.Sections = append(page.Sections, words)
	}
	ready, err := p.Prepare(ctx, src, missingPage, page)
	if err != nil {
		return nil, err
	}
	ready.Entry.Page = ""
	return ready.Entry, nil
}

// iconTypes are the media types of the files of a site's icon.
var iconTypes = map[string]string{
	".ico":         "image/vnd.microsoft.icon",
	".svg":         "image/svg+xml",
	".png":         "image/png",
	".webmanifest": "application/manifest+json",
}

// locked gives the pages that have a password, by id.
func (src Source) locked() map[string]bool {
	locked := map[string]bool{}
	for _, p := range src.Pages {
		if p.Lock != "" {
			locked[p.ID] = true
		}
	}
	return locked
}

// siteMap lists the pages for search engines, as sitemaps.org has it (protocol 0.9).
func siteMap(r *Release, origin string, locked map[string]bool) (string, error) {
	type address struct {
		Loc     string `xml:"loc"`
		Lastmod string `xml:"lastmod"`
	}
	set := struct {
		XMLName xml.Name  `xml:"http://www.sitemaps.org/schemas/sitemap/0.9 urlset"`
		URLs    []address `xml:"url"`
	}{}
	for _, at := range slices.Sorted(maps.Keys(r.Pages)) {
		if e := r.Pages[at]; !e.Hidden && !locked[e.Page] && at != missingPage {
			set.URLs = append(
				set.URLs,
				address{origin + strings.TrimSuffix("/"+at, "/") + "/", e.Since.Format("2006-01-02")},
			)
		}
	}
	b, err := xml.MarshalIndent(set, "", " ")
	if err != nil {
		return "", fmt.Errorf("writing the site map: %w", err)
	}
	return xml.Header + string(b) + "\n", nil
}

// Refresh brings to visitors what isn't of a page: redirects, the site's icon, the site map.
func (p *Publisher) Refresh(ctx context.Context, st *store.Store, src Source) error {
	src, err := src.forVisitors(ctx, st)
	if err != nil {
		return err
	}
	return st.Releases.Amend(ctx, src.Site.ID, p.change(src, func(*Release, int64) error { return nil }))
}

// lead fills in where addresses lead at which there is no page: to where pages are, as far as
// visitors can see them, or to what somebody entered.
func (r *Release) lead(redirects []store.Redirect) {
	r.Moved = map[string]string{}
	to := map[string]string{}
	for _, d := range redirects {
		if d.Page == "" {
			to[d.Address] = d.Target
			if d.Target == "/" {
				to[d.Address] = ""
			}
		} else if at, e := r.At(d.Page); e != nil {
			to[d.Address] = at
		}
	}
	for from := range to {
		if r.Pages[from] != nil {
			continue
		}
		at := to[from]
		for range to { // from one to another, as long as that leads on
			next, leads := to[at]
			if !leads || r.Pages[at] != nil {
				break
			}
			at = next
		}
		r.Moved[from] = at
	}
}

// KnownZone reports whether there is a time zone of a name (IANA).
func KnownZone(name string) bool {
	_, err := time.LoadLocation(name)
	return err == nil
}

// Again publishes what a site has published as it was, with what is the site's as it is now.
func (p *Publisher) Again(ctx context.Context, st *store.Store, site string) error {
	return soundness{p}.again(ctx, st, site)
}
