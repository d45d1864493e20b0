// Package carry is how things leave a site and come to another: a site's file, a house style's
// file, and what is copied to the clipboard.
//
// What is read here is counted before anything is built of it (Unpack), and of the form that the
// formats say (docs/site-file.md, docs/clipboard.md). Pages, sections and blocks in it are still to be
// taken by core/edit, as if somebody had entered them. Start at WriteSite and ReadSite.
package carry

import (
	"encoding/json"
	"path"
	"slices"
	"strings"

	"openplot/core/doc"
	"openplot/core/ready"
	"openplot/core/settings"
	"openplot/core/tree"
)

// SiteFormat marks a site's file (docs/site-file.md).
const SiteFormat = "open-plot-site"

// The parts of a site's file that every one has.
const (
	SitePart  = "site.json"
	HousePart = "house.json"
)

// MaxSitePart is the greatest size in bytes of a part of a site's file that is written in JSON.
const MaxSitePart = 16 << 20

// maxCarriedMedia is how many media a site's file has at most.
const maxCarriedMedia = 20000

// Site is a site with all that it needs where it is carried to, but the contents of its
// media.
type Site struct {
	Site  doc.Site
	Fonts []Font
	Pages []Page // each behind the one it stands under; the first is the home page
	Media []Medium
}

// Page is a page and its place in the site.
type Page struct {
	Address  string `json:"address"`
	Under    string `json:"under,omitempty"` // the address of the page that it stands under
	InMenu   bool   `json:"inMenu"`
	InFooter bool   `json:"inFooter"`
	MenuName string `json:"menuName,omitempty"`
	// Locked has a password, which isn't carried: it gets another one where it comes to.
	Locked bool      `json:"locked,omitempty"`
	File   string    `json:"file"`
	Page   *doc.Page `json:"-"`
}

// Medium is a file of the site's library.
type Medium struct {
	ID     string `json:"id"` // as the pages name it
	File   string `json:"file"`
	Name   string `json:"name"`
	Alt    string `json:"alt,omitempty"`
	Focal  string `json:"focal,omitempty"`
	Folder string `json:"folder,omitempty"`
}

type siteFile struct {
	Format  string       `json:"format"`
	Version int          `json:"version"`
	Site    siteFileHead `json:"site"`
	Pages   []Page       `json:"pages"`
	Media   []Medium     `json:"media,omitempty"`
}

type siteFileHead struct {
	Name         string                    `json:"name"`
	Language     string                    `json:"language,omitempty"`
	TimeZone     string                    `json:"timeZone,omitempty"`
	Business     string                    `json:"business,omitempty"`
	Zones        doc.Zones                 `json:"zones"`
	Facts        doc.Facts                 `json:"facts"`
	Menus        map[string][]doc.MenuItem `json:"menus,omitempty"`
	Icon         doc.SiteIcon              `json:"icon,omitzero"`
	SharePicture string                    `json:"sharePicture,omitempty"`
}

// WriteSite gives put the parts of a site's file that aren't media. Errors are put's, and
// *doc.Problem where its fonts are too large to be carried.
func WriteSite(c Site, put func(name string, b []byte) error) error {
	house, err := WriteHouse(House{c.Site.Name, c.Site.House, c.Fonts})
	if err != nil {
		return err
	}
	f := siteFile{SiteFormat, 1, siteFileHead{
		c.Site.Name, c.Site.Language, c.Site.TimeZone, c.Site.Business, c.Site.Zones, c.Site.Facts, c.Site.Menus, c.Site.Icon, c.Site.SharePicture,
	}, slices.Clone(c.Pages), c.Media}
	for i := range f.Pages {
		p := &f.Pages[i]
		p.File = "pages/home.json"
		if p.Address != "" {
			p.File = path.Join("pages/at", p.Address) + ".json"
		}
	}
	b, err := json.MarshalIndent(f, "", " ")
	if err == nil {
		err = put(SitePart, b)
	}
	if err == nil {
		err = put(HousePart, house)
	}
	for _, p := range f.Pages {
		if err != nil {
			return err
		}
		if b, err = json.MarshalIndent(p.Page, "", " "); err == nil {
			err = put(p.File, b)
		}
	}
	return err
}

// ReadSite reads a site from the parts of its file that aren't media; part gives one by
// name. What it says of itself, its house style and its tree are checked. Pages are as the file
// has them, and still to be read with TakePage, menus and the icon with TakeSettings, fonts as
// uploaded ones. Errors are *doc.Problem, and part's.
func ReadSite(part func(name string) ([]byte, error), newID func(string) string) (Site, tree.Tree, error) {
	var none Site
	b, err := part(SitePart)
	if err != nil {
		return none, nil, err
	}
	part = once(part)
	var f siteFile
	if err := Unpack(b, &f, maxValues, "File"); err != nil {
		return none, nil, doc.Problemf(
			"File",
			"has a %s that can't be read: %s",
			SitePart,
			strings.TrimPrefix(err.Error(), "json: "),
		)
	}
	if f.Format != SiteFormat || f.Version != 1 {
		return none, nil, doc.Problemf(
			"File",
			"isn't a site of version 1: its format is %.40q, version %d",
			f.Format,
			f.Version,
		)
	}
	c := Site{Media: f.Media, Pages: f.Pages, Site: doc.Site{
		Zones: f.Site.Zones, Business: f.Site.Business, Menus: f.Site.Menus, Icon: f.Site.Icon, SharePicture: f.Site.SharePicture,
	}}
	if c.Site.Name, c.Site.Language, c.Site.TimeZone, err = settings.ReadSite(f.Site.Name, f.Site.Language, f.Site.TimeZone); err != nil {
		return none, nil, err
	}
	if err := settings.CheckZones(c.Site.Zones); err != nil {
		return none, nil, err
	}
	hours := map[string]string{}
	for _, day := range doc.Days {
		hours[day] = f.Site.Facts.HoursOf(day)
	}
	if c.Site.Facts, err = settings.ReadFacts(f.Site.Facts, hours, strings.Join(f.Site.Facts.Social, "\n")); err != nil {
		return none, nil, err
	}
	if ready.FindBusiness(c.Site.Business) == nil {
		c.Site.Business = ""
	}
	if b, err = part(HousePart); err != nil {
		return none, nil, err
	}
	house, err := ReadHouse(b, c.Site.Zones)
	if err != nil {
		return none, nil, err
	}
	was := house.House
	was.Own = nil
	if c.Site.House, err = TakeHouse(was, house.House, house.Fonts...); err != nil {
		return none, nil, err
	}
	c.Fonts = house.Fonts
	if err := checkMedia(c.Media); err != nil {
		return none, nil, err
	}
	t, err := readTree(c.Pages, newID)
	if err != nil {
		return none, nil, err
	}
	for i := range c.Pages {
		p := &c.Pages[i]
		if b, err = part(p.File); err != nil {
			return none, nil, err
		}
		if err := Unpack(b, &p.Page, maxValues, "Page"); err != nil || p.Page == nil {
			return none, nil, doc.Problemf("File", "has a page /%s that can't be read: %v", p.Address, err)
		}
	}
	return c, t, nil
}

// MaxSiteParts is how much of a site's file is unpacked in all, in bytes, beside its media.
const MaxSiteParts = 64 << 20

// once reads each part once, and no more than MaxSiteParts of all of them.
func once(part func(string) ([]byte, error)) func(string) ([]byte, error) {
	read, left := map[string]bool{}, MaxSiteParts
	return func(name string) ([]byte, error) {
		name = path.Clean(name)
		if read[name] {
			return nil, doc.Problemf("File", "names %.120q for two things; each has a part of its own", name)
		}
		read[name] = true
		b, err := part(name)
		if left -= len(b); err == nil && left < 0 {
			return nil, doc.Problemf("File", "unpacks to more than %d MB beside its media", MaxSiteParts>>20)
		}
		return b, err
	}
}

// readTree puts the pages of a site's file in a tree, under ids of their own.
func readTree(pages []Page, newID func(string) string) (t tree.Tree, err error) {
	if len(pages) == 0 || pages[0].Address != "" {
		return nil, doc.Problemf("Pages", "in the file don't begin with the home page, whose address is empty")
	}
	ids := map[string]string{}
	for i, p := range pages {
		if _, there := ids[p.Address]; there {
			return nil, doc.Problemf("Pages", "in the file have the address /%.60s twice", p.Address)
		}
		if utf := []rune(p.MenuName); len(utf) > doc.MaxNameRunes {
			return nil, doc.Problemf(
				"Menu name",
				"of /%.60s in the file has %d characters; %d is the most",
				p.Address,
				len(utf),
				doc.MaxNameRunes,
			)
		}
		at := tree.Page{ID: newID("p"), Name: path.Base("/" + p.Address), Address: p.Address}
		ids[p.Address] = at.ID
		if i == 0 {
			t = tree.Tree{at}
			continue
		}
		segment := p.Address
		if p.Under != "" {
			under, there := ids[p.Under]
			rest, within := strings.CutPrefix(p.Address, p.Under+"/")
			if !there || !within {
				return nil, doc.Problemf(
					"Pages",
					"in the file have /%.60s under /%.60s, which isn't before it or has another address",
					p.Address,
					p.Under,
				)
			}
			at.Parent, segment = under, rest
		}
		if err := tree.CheckSegment(segment); err != nil {
			return nil, err
		}
		if t, err = t.Add(at, segment); err != nil {
			return nil, err
		}
	}
	return t, nil
}

func checkMedia(media []Medium) error {
	if len(media) > maxCarriedMedia {
		return doc.Problemf("Media", "in the file are %d; %d is the most", len(media), maxCarriedMedia)
	}
	seen, files := map[string]bool{}, map[string]bool{}
	for _, m := range media {
		if !doc.IsID(m.ID) || seen[m.ID] {
			return doc.Problemf(
				"Media",
				"in the file have the id %.60q twice, or it isn't small letters and digits",
				m.ID,
			)
		}
		seen[m.ID] = true
		if files[m.File] {
			return doc.Problemf("Media", "in the file have %.120q twice; each has a part of its own", m.File)
		}
		files[m.File] = true
		for _, v := range []struct {
			what, text string
			limit      int
		}{{"name", m.Name, doc.MaxNameRunes}, {"alternative text", m.Alt, 1000}, {"folder", m.Folder, 60}} {
			if _, err := doc.Line("Media", v.text, v.limit); err != nil {
				return doc.Problemf("Media", "in the file have a %s that can't be kept: %.60q", v.what, v.text)
			}
		}
	}
	return nil
}
