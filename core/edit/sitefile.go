package edit

import (
	"encoding/json"
	"path"
	"regexp"
	"slices"
	"strings"

	"openplot/core/doc"
	"openplot/core/place"
	"openplot/core/style"
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

// CarriedSite is a site with all that it needs where it is carried to, but the contents of its
// media.
type CarriedSite struct {
	Site  doc.Site
	Fonts []CarriedFont
	Pages []CarriedPage // each behind the one it stands under; the first is the home page
	Media []CarriedMedium
}

// CarriedPage is a page and its place in the site.
type CarriedPage struct {
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

// CarriedMedium is a file of the site's library.
type CarriedMedium struct {
	ID     string `json:"id"` // as the pages name it
	File   string `json:"file"`
	Name   string `json:"name"`
	Alt    string `json:"alt,omitempty"`
	Focal  string `json:"focal,omitempty"`
	Folder string `json:"folder,omitempty"`
}

type siteFile struct {
	Format  string          `json:"format"`
	Version int             `json:"version"`
	Site    siteFileHead    `json:"site"`
	Pages   []CarriedPage   `json:"pages"`
	Media   []CarriedMedium `json:"media,omitempty"`
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
func WriteSite(c CarriedSite, put func(name string, b []byte) error) error {
	house, err := WriteHouse(CarriedHouse{c.Site.Name, c.Site.House, c.Fonts})
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

// ReadSiteFile reads a site from the parts of its file that aren't media; part gives one by
// name. What it says of itself, its house style and its tree are checked. Pages are as the file
// has them, and still to be read with TakePage, menus and the icon with TakeSettings, fonts as
// uploaded ones. Errors are *doc.Problem, and part's.
func ReadSiteFile(part func(name string) ([]byte, error), newID func(string) string) (CarriedSite, tree.Tree, error) {
	var none CarriedSite
	b, err := part(SitePart)
	if err != nil {
		return none, nil, err
	}
	part = once(part)
	var f siteFile
	if err := unpack(b, &f, maxValues, "File"); err != nil {
		return none, nil, doc.Problemf("File", "has a %s that can't be read: %s", SitePart, strings.TrimPrefix(err.Error(), "json: "))
	}
	if f.Format != SiteFormat || f.Version != 1 {
		return none, nil, doc.Problemf("File", "isn't a site of version 1: its format is %.40q, version %d", f.Format, f.Version)
	}
	c := CarriedSite{Media: f.Media, Pages: f.Pages, Site: doc.Site{
		Zones: f.Site.Zones, Business: f.Site.Business, Menus: f.Site.Menus, Icon: f.Site.Icon, SharePicture: f.Site.SharePicture,
	}}
	if c.Site.Name, c.Site.Language, c.Site.TimeZone, err = ReadSite(f.Site.Name, f.Site.Language, f.Site.TimeZone); err != nil {
		return none, nil, err
	}
	if err := CheckZones(c.Site.Zones); err != nil {
		return none, nil, err
	}
	hours := map[string]string{}
	for _, day := range doc.Days {
		hours[day] = f.Site.Facts.HoursOf(day)
	}
	if c.Site.Facts, err = ReadFacts(f.Site.Facts, hours, strings.Join(f.Site.Facts.Social, "\n")); err != nil {
		return none, nil, err
	}
	if FindBusiness(c.Site.Business) == nil {
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
		if err := unpack(b, &p.Page, maxValues, "Page"); err != nil || p.Page == nil {
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
func readTree(pages []CarriedPage, newID func(string) string) (t tree.Tree, err error) {
	if len(pages) == 0 || pages[0].Address != "" {
		return nil, doc.Problemf("Pages", "in the file don't begin with the home page, whose address is empty")
	}
	ids := map[string]string{}
	for i, p := range pages {
		if _, there := ids[p.Address]; there {
			return nil, doc.Problemf("Pages", "in the file have the address /%.60s twice", p.Address)
		}
		if utf := []rune(p.MenuName); len(utf) > doc.MaxNameRunes {
			return nil, doc.Problemf("Menu name", "of /%.60s in the file has %d characters; %d is the most", p.Address, len(utf), doc.MaxNameRunes)
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
				return nil, doc.Problemf("Pages", "in the file have /%.60s under /%.60s, which isn't before it or has another address", p.Address, p.Under)
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

var carriedID = regexp.MustCompile(`^[a-z][a-z0-9_-]{0,39}$`)

func checkMedia(media []CarriedMedium) error {
	if len(media) > maxCarriedMedia {
		return doc.Problemf("Media", "in the file are %d; %d is the most", len(media), maxCarriedMedia)
	}
	seen, files := map[string]bool{}, map[string]bool{}
	for _, m := range media {
		if !carriedID.MatchString(m.ID) || seen[m.ID] {
			return doc.Problemf("Media", "in the file have the id %.60q twice, or it isn't small letters and digits", m.ID)
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
			if _, err := text("Media", v.text, v.limit); err != nil {
				return doc.Problemf("Media", "in the file have a %s that can't be kept: %.60q", v.what, v.text)
			}
		}
	}
	return nil
}

// Limits of zones.
const (
	maxZones   = 8
	leastZone  = 40                          // px that a zone is wide
	widestZone = doc.MaxViewport - leastZone // px at which the widest begins at most
)

// CheckZones checks a site's zones: from the widest to the narrowest, which begins at 0. Errors
// are *doc.Problem.
func CheckZones(zs doc.Zones) error {
	if len(zs) == 0 || len(zs) > maxZones {
		return doc.Problemf("Zones", "are %d; a site has 1 to %d", len(zs), maxZones)
	}
	seen := map[string]bool{}
	for i, z := range zs {
		name, err := text("Zone", z.Name, 40)
		above := doc.MaxViewport + 1
		if i > 0 {
			above = zs[i-1].Min
		}
		switch {
		case err != nil:
			return err
		case name == "" || name != z.Name:
			return doc.Problemf("Zone", "can't be called %.40q: write a name", z.Name)
		case !carriedID.MatchString(z.ID) || seen[z.ID]:
			return doc.Problemf("Zone", "%s has an id that another has, or that isn't small letters and digits: %.40q", z.Name, z.ID)
		case i == len(zs)-1 && z.Min != 0:
			return doc.Problemf("Zone", "%s is the narrowest and begins at %d px; the narrowest begins at 0", z.Name, z.Min)
		case i == 0 && z.Min > widestZone, i > 0 && z.Min > above-leastZone, i < len(zs)-1 && z.Min < doc.MinViewport:
			return doc.Problemf("Zone", "%s can't begin at %d px: a zone is %d px wide at least, and all but the narrowest begin between %d and %d px", z.Name, z.Min, leastZone, doc.MinViewport, widestZone)
		case z.Typical < z.Min || z.Typical >= above || z.Typical < doc.MinViewport:
			return doc.Problemf("Zone", "%s is shown at %d px, which isn't in it", z.Name, z.Typical)
		case z.Columns < 1 || z.Columns > doc.MaxColumns:
			return doc.Problemf("Zone", "%s has a grid of %d columns; 1 to %d is what there can be", z.Name, z.Columns, doc.MaxColumns)
		}
		seen[z.ID] = true
	}
	return nil
}

// TakeSettings checks the menus, the icon and the share picture of a site from a file; what
// isn't here is left out. Errors are *doc.Problem.
func TakeSettings(st doc.Site, env Env) (doc.Site, error) {
	picture := func(id string) bool { return env.Medium != nil && env.Medium(id) == doc.PictureMedium }
	if !picture(st.SharePicture) {
		st.SharePicture = ""
	}
	icon, err := ReadIcon(st.Icon, &st.House, env.HasIcon, picture)
	if err != nil {
		icon = doc.SiteIcon{}
	}
	st.Icon = icon
	var menus map[string][]doc.MenuItem
	for _, m := range MenuNames {
		var labels, links []string
		var under []bool
		for _, i := range st.Menus[m.ID] {
			labels, links, under = append(labels, i.Label), append(links, i.Link), append(under, i.Under)
		}
		items, err := ReadMenu(labels, links, under)
		if err != nil {
			return st, err
		}
		if len(items) > 0 {
			if menus == nil {
				menus = map[string][]doc.MenuItem{}
			}
			menus[m.ID] = items
		}
	}
	st.Menus = menus
	return st, nil
}

// TakePage reads a page from a file for a site that has its zones, its house style and its media,
// all of it as if somebody had entered it. What can't be here is left out; it keeps the ids of
// its sections and blocks, and gets the id given. Errors are *doc.Problem.
func TakePage(was *doc.Page, id string, env Env) (*doc.Page, error) {
	p := &doc.Page{ID: id}
	e := &editing{page: p, env: env, whole: true}
	wrong := func(err error) error {
		return doc.Problemf("Page", "%.60q in the file can't be read: %v", was.Name, err)
	}
	ground, unlisted := "", ""
	if was.Ground != "" {
		ground = "$" + was.Ground
	}
	if was.Unlisted {
		unlisted = "yes"
	}
	for _, s := range [][2]string{
		{"name", was.Name}, {"title", was.Title}, {"description", was.Description}, {"ground", ground}, {"categories", strings.Join(was.Categories, ",")},
		{"picture", was.Picture}, {"language", was.Language}, {"unlisted", unlisted},
	} {
		e.c = Command{Op: "page.set", Setting: s[0], Value: s[1]}
		steps, err := e.setPage()
		if err != nil && (s[0] == "name" || s[0] == "title") {
			return nil, wrong(err)
		}
		if err == nil {
			if p, _, err = Run(p, steps); err != nil {
				return nil, wrong(err)
			}
			e.page = p
		}
	}
	for zone, g := range was.Guides {
		if e.zones().Index(zone) >= 0 && len(g.X) <= doc.MaxGuides && len(g.Y) <= doc.MaxGuides {
			p.Guides = p.Guides.With(zone, g)
		}
	}
	if len(was.Sections) > doc.MaxSections {
		return nil, wrong(doc.Problemf("Sections", "are %d; %d is the most", len(was.Sections), doc.MaxSections))
	}
	seen := map[string]bool{}
	once := func(id string) error {
		if !carriedID.MatchString(id) || seen[id] {
			return wrong(doc.Problemf("Id", "%.60q is there twice, or isn't small letters and digits", id))
		}
		seen[id] = true
		return nil
	}
	for _, sec := range was.Sections {
		if sec == nil {
			continue
		}
		s, err := e.cleanSection(sec)
		if err != nil {
			return nil, wrong(err)
		}
		if err := once(s.ID); err != nil {
			return nil, err
		}
		s.Walk(func(b *doc.Block) {
			if ierr := once(b.ID); ierr != nil && err == nil {
				err = ierr
			}
		})
		if err != nil {
			return nil, err
		}
		s.Shared = sec.Shared
		if anchorPattern.MatchString(sec.Anchor) && !e.anchored(sec.Anchor) {
			s.Anchor = sec.Anchor
		}
		if v := sec.View; v != nil && s.Role == doc.RoleMain && anchorPattern.MatchString(v.Anchor) {
			if title := plainText(v.Title, doc.MaxNameRunes); title != "" {
				s.View = &doc.View{Title: title, Anchor: v.Anchor}
			}
		}
		p.Sections = append(p.Sections, s)
	}
	if err := withinLimits(&doc.Page{}, p); err != nil {
		return nil, wrong(err)
	}
	return p, nil
}

// EvenShared has sections that are shared be the same on all pages of a file: as they are on the
// first of them that has them.
func EvenShared(pages []*doc.Page) {
	first := map[string]*doc.Section{}
	for _, p := range pages {
		for i, s := range p.Sections {
			if s.Shared && first[s.ID] != nil {
				p.Sections[i] = first[s.ID]
			} else if s.Shared {
				first[s.ID] = s
			}
		}
	}
}

// cleanSection gives a section of which all is checked as if somebody had entered it, with what
// can't be here left out. It keeps its id.
func (e *editing) cleanSection(was *doc.Section) (*doc.Section, error) {
	s := &doc.Section{ID: was.ID, Style: e.cleanStyle(was.Style, style.OnSection), Arrangement: arrangementOr(was.Arrangement), Hidden: was.Hidden}
	if s.Name = plainText(was.Name, doc.MaxNameRunes); s.Name == "" {
		s.Name = "Section"
	}
	if was.Role == doc.RoleHeader || was.Role == doc.RoleFooter {
		s.Role = was.Role
	}
	if FindPreset(was.Made) != nil {
		s.Made = was.Made
	}
	if e.medium("", was.Picture, doc.PictureMedium) == nil {
		s.Picture = was.Picture
	}
	if e.medium("", was.Video, doc.VideoMedium) == nil {
		s.Video = was.Video
	}
	if was.Fold != nil {
		s.Fold = &doc.Fold{Title: plainText(was.Fold.Title, doc.MaxNameRunes), Open: was.Fold.Open}
	}
	for _, b := range was.Blocks {
		c, err := e.clean(b, 0)
		if err != nil {
			return nil, err
		}
		s.Blocks = append(s.Blocks, c)
	}
	if e.whole && s.Arrangement == doc.Placed {
		e.standAll(s.Blocks)
	}
	return s, nil
}

// standAll gives blocks of a grid a place that have none in the widest zone.
func (e *editing) standAll(blocks []*doc.Block) {
	widest := e.zones().Widest()
	row := 1
	for _, b := range blocks {
		if p, ok := b.Place[widest]; ok {
			row = max(row, p.Row+p.Rows)
		}
	}
	for _, b := range blocks {
		if _, ok := b.Place[widest]; !ok {
			b.Place = b.Place.With(widest, place.Fit(doc.Place{Span: doc.MaxColumns, Row: row}, e.env.Site.Zones[0].Columns))
			row++
		}
	}
}
