// Package site publishes pages: it writes them as plain files, and renders them
// for a preview.
//
// In come a site, its media and pages; out come a folder with its contents by hash, its assets
// (style sheets, fonts, pictures) and one file that says which address shows what, or the same
// text in memory. Addresses are relative, so that a site can be served from anywhere. Start at
// Publisher.Publish, then Release.
package site

import (
	"cmp"
	"context"
	"crypto/sha256"
	"encoding/base64"
	"encoding/hex"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"time"
	_ "time/tzdata" // for machines without one

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/emit"
	"openplot/core/layout"
	"openplot/core/shape"
	"openplot/durable"
	"openplot/icons"
	"openplot/stock"
	"openplot/store"
)

// Addresses says where a rendered page finds what it needs.
type Addresses struct {
	Stylesheet string
	Media      string // prefix of picture files, from the page
	StyleMedia string // the same from the style sheet
	Fonts      string // prefix of font files, from the page
	StyleFonts string
	// OwnFont gives the name of a file of the site's own fonts below Fonts.
	OwnFont func(*store.Font) string
	// Cut are the fonts as they are published; nil has them whole, under their own names.
	Cut *cutter
	// Script gives the address of a script by its name; nil leaves scripts out.
	Script func(name string) string
	// Link turns a site-relative link ("/fares") into the one to write.
	Link func(string) string
	// Form gives where a form sends to, by its block; nil is the site's own place for it.
	Form func(block string) string
	// Embed gives the address of a file of own HTML; nil leaves its frames empty.
	Embed func(file string) string
	// Self is the page's own address in the world, or "" for none; Origin is that of the site.
	Self, Origin string
	// Up leads from the page to the site's beginning: "" or "../", as often as it takes.
	Up string
	// Scenes is the prefix of what stands in where no picture is chosen yet, from the page, and
	// StyleScenes from the style sheet.
	Scenes, StyleScenes string
	// MediaDir is the folder of the library's files, where the site's own fonts are read to lay
	// pages out.
	MediaDir string

	library func() *shape.Library // that pages are laid out with; Render sets it
}

// Source is what the pages of a site are made from.
type Source struct {
	Site  *doc.Site
	Look  int64 // the site's version
	Media []*store.Medium
	Pages []*store.PageInfo
	Fonts []*store.Font
	// Domain is a host of the site's own at which it is shown, or "".
	Domain string
	// Redirects are addresses that lead elsewhere.
	Redirects []store.Redirect
	// Letters are what the words of other pages that are published need beside fonts.Usual.
	Letters string
}

// ReadSource reads what the pages of a site are made from.
func ReadSource(ctx context.Context, st *store.Store, s *store.Site) (src Source, err error) {
	src.Site, src.Look = &s.Site, s.Version
	if src.Media, err = st.Media.List(ctx, s.ID); err != nil {
		return src, err
	}
	if src.Pages, err = st.Pages.List(ctx, s.ID); err != nil {
		return src, err
	}
	src.Fonts, err = st.Houses.Fonts(ctx, s.ID)
	return src, err
}

// forVisitors reads what only published pages need.
func (src Source) forVisitors(ctx context.Context, st *store.Store) (_ Source, err error) {
	if src.Redirects, err = st.Tree.Redirects(ctx, src.Site.ID); err != nil {
		return src, err
	}
	ds, err := st.Hosts.Domains(ctx, src.Site.ID)
	for _, d := range ds {
		if d.FoundAt != nil && src.Domain == "" {
			src.Domain = d.Host
		}
	}
	return src, err
}

// Builder gives the element builder of a page of the site, "" being the home page.
func (src Source) Builder(slug string, a Addresses) *element.Builder {
	byID := make(map[string]element.Medium, len(src.Media))
	for _, m := range src.Media {
		em := element.Medium{
			ID:     m.ID,
			Name:   m.Name,
			Type:   m.Type,
			Width:  m.Width,
			Height: m.Height,
			Alt:    m.Alt,
			Focal:  m.Focal,
		}
		for _, v := range m.Variants {
			to := &em.Variants
			if v.Modern() {
				to = &em.Modern
			}
			*to = append(*to, element.Variant{URL: a.Media + v.File, StyleURL: a.StyleMedia + v.File, Width: v.Width})
		}
		byID[m.ID] = em
	}
	b := &element.Builder{
		Site:  src.Site,
		Media: func(id string) (element.Medium, bool) { m, ok := byID[id]; return m, ok },
		Link:  a.Link,
		Icon:  icons.Drawing,
		Here:  slug, Self: a.Self,
		Form:   func(block string) string { return "/_forms/" + src.Site.Slug + "/" + block },
		Search: "/_search/" + src.Site.Slug,
	}
	if a.Form != nil {
		b.Form = a.Form
	}
	b.Instant = instant
	if a.library == nil {
		a.library = src.library(a.MediaDir)
	}
	b.Reach = reach(b, a.library)
	b.StandIn, b.Scenes = standIn(&src.Site.House, a), scenesOf(src.Site)
	if a.Embed != nil {
		b.Embed = func(markup string) string { return a.Embed(embedFile(markup)) }
	}
	for _, p := range src.Pages {
		b.Pages = append(b.Pages, element.PageLink{
			Slug: p.Slug, Name: p.Name, Description: p.Description, Categories: p.Categories, Picture: p.Picture,
			Date: DateOf(p, src.Site), DateWords: inWords(DateOf(p, src.Site), src.Site.Language),
			Menu: p.MenuName, OutOfMenu: !p.InMenu, InFooter: p.InFooter, Locked: p.Lock != "",
		})
	}
	return b
}

// instant writes a local time in a zone with its offset; without one where the zone isn't
// known.
func instant(local, zone string) string {
	if in, err := time.LoadLocation(zone); err == nil {
		if t, err := time.ParseInLocation("2006-01-02T15:04", local, in); err == nil {
			return t.Format("2006-01-02T15:04Z07:00")
		}
	}
	return local
}

// Rendered is a page as text, with the files it needs.
type Rendered struct {
	HTML, CSS string
	Letters   string            // what its words need of fonts beside fonts.Usual
	Media     []string          // file names
	Scenes    []string          // names of those that stand in for pictures
	Scripts   []string          // names
	Embeds    map[string]string // own HTML, by file name
	Body      *element.Node
}

// Render gives a page's HTML and CSS.
func (src Source) Render(slug string, p *doc.Page, a Addresses) Rendered {
	a.library = src.library(a.MediaDir)
	b := src.Builder(slug, a)
	b.DropEmpty, b.Title = true, p.Title
	r := Rendered{Embeds: map[string]string{}}
	if embed := b.Embed; embed != nil {
		b.Embed = func(markup string) string {
			r.Embeds[embedFile(markup)] = markup
			return embed(markup)
		}
	}
	draw := b.StandIn
	b.StandIn = func(scene, crop string, n int) element.Medium {
		m := draw(scene, crop, n)
		r.Scenes = append(r.Scenes, strings.TrimPrefix(m.Variants[0].URL, a.Scenes))
		return m
	}
	body := b.Page(p)
	r.Body = body
	layout.New(a.library(), src.Site.Zones, body).SayWidths()
	faces := src.faces(p, &r, a)
	sheet := emit.NewSheet(src.Site.Zones)
	head := emit.Page{
		Title: p.Title, Description: p.Description, Language: cmp.Or(p.Language, src.Site.Language, "en"), Stylesheet: a.Stylesheet, Fonts: faces,
		Hidden: p.Unlisted,
	}
	if a.Self != "" {
		src.describe(&head, slug, p, a)
		if pic := src.shared(p); pic.File != "" && slug != missingPage {
			r.Media = append(r.Media, pic.File)
		}
		grounds := firstView(body, src.Site.Zones)
		if a.Stylesheet == "" { // otherwise they are named from elsewhere
			head.Preloads = grounds
		}
	}
	if a.Script != nil {
		r.Scripts = emit.Scripts(body)
		if a.Self != "" && src.Site.CountsVisits {
			r.Scripts = append(r.Scripts, "visits")
		}
		for _, name := range r.Scripts {
			head.Scripts = append(head.Scripts, a.Script(name))
		}
	}
	r.HTML, r.CSS = sheet.Document(head, body)
	for _, m := range src.Media {
		for _, v := range m.Variants {
			if strings.Contains(r.HTML, a.Media+v.File) || strings.Contains(r.CSS, a.StyleMedia+v.File) {
				r.Media = append(r.Media, v.File)
			}
		}
	}
	return r
}

// Parts of a Publisher.
type (
	siteIcons struct{ *Publisher } // the icons of a site
	telling   struct{ *Publisher } // what visitors are told beside pages
	soundness struct{ *Publisher } // what is looked at for damage
)

// Publisher writes sites to disk.
type Publisher struct {
	Dir      string // what is published, one folder per site, named by its id
	MediaDir string // where uploads are kept
	Hosts    Hosts  // a site's own HTML is at a host of its own

	icons sync.Map // drawnIcon by site
}

// Prepared is a page of which all is on disk that it needs, itself included: it only has to be
// shown.
type Prepared struct {
	Entry *Entry
	Said  store.Said
}

// largestInline is the size in bytes of a style sheet that stands in the page: one that is
// fetched first keeps the page from being drawn for as long as that takes. Those of the demo's
// pages have 8 to 15 kB, 2 to 3 packed.
const largestInline = 48 << 10

// missingPage is the address of the page that is shown where nothing is, at any depth.
const missingPage = "404"

// Prepare writes a page, "" being the home page, and what it needs. It takes seconds where
// fonts of the site's own are published for the first time.
func (p *Publisher) Prepare(ctx context.Context, src Source, slug string, page *doc.Page) (*Prepared, error) {
	up := ""
	if slug == missingPage {
		up = "/"
	} else if slug != "" {
		up = strings.Repeat("../", strings.Count(slug, "/")+1)
	}
	a := Addresses{
		MediaDir: p.MediaDir, Media: up + "assets/media/", StyleMedia: up + "assets/media/", Fonts: up + "assets/fonts/", StyleFonts: up + "assets/fonts/",
		Scenes: up + "assets/scenes/", StyleScenes: up + "assets/scenes/",
		Link:   func(href string) string { return relative(href, up) },
		Script: func(name string) string { return up + "assets/" + scriptFile(name) },
		Embed:  func(file string) string { return p.Hosts.Own(src.Site.Slug) + "/" + file },
		Self:   p.origin(src) + strings.TrimSuffix("/"+slug, "/") + "/",
		Origin: p.origin(src), Up: up,
	}
	assets := filepath.Join(p.folder(src.Site.ID), assetFolder)
	a.Cut = &cutter{ctx: ctx, dir: filepath.Join(assets, "fonts"), mediaDir: p.MediaDir}
	r := src.Render(slug, page, a)
	if len(r.CSS) > largestInline {
		a.StyleMedia, a.StyleFonts, a.StyleScenes = "media/", "fonts/", "scenes/"
		a.Stylesheet = styleFile(src.Render(slug, page, a).CSS)
		css := a.Stylesheet
		a.Stylesheet = up + "assets/" + css
		r = src.Render(slug, page, a)
		if err := writePacked(filepath.Join(assets, css), []byte(r.CSS)); err != nil {
			return nil, err
		}
	}
	if err := p.bring(assets, r); err != nil {
		return nil, err
	}
	if a.Cut.err != nil {
		return nil, a.Cut.err
	}
	words, err := said(r.HTML, src.Site.Slug)
	if err != nil {
		return nil, err
	}
	e := &Entry{
		Type:    htmlType,
		Page:    page.ID,
		Name:    page.Name,
		Look:    src.Look,
		Hidden:  page.Unlisted,
		Frames:  Frames(r.Body),
		Letters: r.Letters,
	}
	if a.Stylesheet == "" {
		sum := sha256.Sum256([]byte(r.CSS))
		e.Styles = []string{"'sha256-" + base64.StdEncoding.EncodeToString(sum[:]) + "'"}
	}
	if e.File, err = p.keep(src.Site.ID, ".html", []byte(r.HTML)); err != nil {
		return nil, err
	}
	return &Prepared{e, words}, nil
}

// origin is where a site's pages are in the world.
func (p *Publisher) origin(src Source) string {
	if src.Domain != "" {
		return p.Hosts.Scheme + "://" + src.Domain
	}
	return p.Hosts.Public(src.Site.Slug)
}

// htmlType is the media type of pages.
const htmlType = "text/html; charset=utf-8"

// styleFile names a style sheet's file after what is in it.
func styleFile(css string) string {
	sum := sha256.Sum256([]byte(css))
	return "style-" + hex.EncodeToString(sum[:6]) + ".css"
}

// bring writes the pictures, own HTML and scripts that a page needs among its site's
// assets.
func (p *Publisher) bring(assets string, r Rendered) error {
	for _, name := range r.Media {
		if err := copyFile(filepath.Join(assets, "media", name), filepath.Join(p.MediaDir, name)); err != nil {
			return err
		}
	}
	for _, name := range r.Scenes {
		svg, ok := stock.SceneNamed(name)
		if !ok {
			return fmt.Errorf("there is no scene %s", name)
		}
		if err := writePacked(filepath.Join(assets, "scenes", name), []byte(svg)); err != nil {
			return err
		}
	}
	for name, markup := range r.Embeds {
		if err := writePacked(filepath.Join(assets, name), []byte(EmbedDocument(markup))); err != nil {
			return err
		}
	}
	for _, name := range r.Scripts {
		b, err := Script(name)
		if err != nil {
			return err
		}
		if err := writePacked(filepath.Join(assets, scriptFile(name)), b); err != nil {
			return err
		}
	}
	return nil
}

// relative turns "/fares#prices" into "fares/#prices" or "../fares/#prices", and
// "/" into "./" or "../"; other addresses stay.
func relative(href, up string) string {
	rest, ok := strings.CutPrefix(href, "/")
	if !ok {
		return href
	}
	at := strings.IndexAny(rest, "?#")
	tail := ""
	if at >= 0 {
		rest, tail = rest[:at], rest[at:]
	}
	rest = strings.TrimSuffix(rest, "/")
	if rest == "" {
		if up == "" {
			return "./" + tail
		}
		return up + tail
	}
	return up + rest + "/" + tail
}

func copyFile(to, from string) error {
	if _, err := os.Stat(to); err == nil {
		return durable.Touch(to) // media files never change
	} else if !errors.Is(err, fs.ErrNotExist) {
		return fmt.Errorf("publishing: %w", err)
	}
	f, err := os.Open(from)
	if err != nil {
		return fmt.Errorf("publishing a picture: %w", err)
	}
	defer f.Close()
	if _, err := durable.Copy(to, f); err != nil {
		return fmt.Errorf("publishing a picture: %w", err)
	}
	return nil
}
