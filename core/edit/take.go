package edit

import (
	"strings"

	"openplot/core/doc"
	"openplot/core/place"
	"openplot/core/ready"
	"openplot/core/settings"
	"openplot/core/style"
)

// TakeSettings checks the menus, the icon and the share picture of a site from a file; what
// isn't here is left out. Errors are *doc.Problem.
func TakeSettings(st doc.Site, env Env) (doc.Site, error) {
	picture := func(id string) bool { return env.Medium != nil && env.Medium(id) == doc.PictureMedium }
	if !picture(st.SharePicture) {
		st.SharePicture = ""
	}
	icon, err := settings.ReadIcon(st.Icon, &st.House, env.HasIcon, picture)
	if err != nil {
		icon = doc.SiteIcon{}
	}
	st.Icon = icon
	var menus map[string][]doc.MenuItem
	for _, id := range settings.MenuIDs(&st) {
		items, err := settings.CheckMenu(st.Menus[id])
		if err != nil {
			return st, err
		}
		if len(items) > 0 {
			if menus == nil {
				menus = map[string][]doc.MenuItem{}
			}
			menus[id] = items
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
		{"picture", was.Picture}, {"date", was.Date}, {"language", was.Language}, {"unlisted", unlisted},
	} {
		e.c = Command{Op: "page.set", Setting: s[0], Value: s[1]}
		steps, err := sectionEdits{e}.setPage()
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
		if !doc.IsID(id) || seen[id] {
			return wrong(doc.Problemf("Id", "%.60q is there twice, or isn't small letters and digits", id))
		}
		seen[id] = true
		return nil
	}
	for _, sec := range was.Sections {
		if sec == nil {
			continue
		}
		s, err := additions{e}.cleanSection(sec)
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
func (e additions) cleanSection(was *doc.Section) (*doc.Section, error) {
	s := &doc.Section{
		ID:          was.ID,
		Style:       e.cleanStyle(was.Style, style.OnSection),
		Arrangement: arrangementOr(was.Arrangement),
		Hidden:      was.Hidden,
	}
	if s.Name = plainText(was.Name, doc.MaxNameRunes); s.Name == "" {
		s.Name = "Section"
	}
	if was.Role == doc.RoleHeader || was.Role == doc.RoleFooter {
		s.Role = was.Role
	}
	if ready.FindPreset(was.Made) != nil {
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
func (e additions) standAll(blocks []*doc.Block) {
	widest := e.zones().Widest()
	row := 1
	for _, b := range blocks {
		if p, ok := b.Place[widest]; ok {
			row = max(row, p.Row+p.Rows)
		}
	}
	for _, b := range blocks {
		if _, ok := b.Place[widest]; !ok {
			b.Place = b.Place.With(
				widest,
				place.Fit(doc.Place{Span: doc.MaxColumns, Row: row}, e.env.Site.Zones[0].Columns),
			)
			row++
		}
	}
}
