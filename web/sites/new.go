package sites

import (
	"cmp"
	"errors"
	"html/template"
	"net/http"
	"slices"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/bring"
	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/ready"
	"openplot/core/tree"
	"openplot/site"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/paths"
	"openplot/web/shell"
)

// newSiteView is the screen on which a site is begun.
type newSiteView struct {
	User       *store.User
	Site       *store.Site // none yet
	Form       newSiteForm
	Businesses []ready.Business
	Houses     []desk.Worn
	Sheet      *contactSheet
	Copies     []*store.SiteInfo // sites that one can be a copy of
	Problem    string
}

// newSiteForm is what was entered of a new site.
type newSiteForm struct {
	Name, Slug, Derived, Business, House, From string
	Leave                                      []string // names of pages
}

// contactSheet is the pages that a new site begins with, drawn.
type contactSheet struct {
	Pages []plannedDrawing
	Blank bool
}

type plannedDrawing struct {
	Name     string
	Home     bool
	Left     bool
	Drawing  template.HTML
	Sections int
}

// What a new site begins as.
const (
	fromPages = "pages" // ready-made pages
	fromBlank = "blank"
	copyOf    = "copy:" // before the address of a site
)

func newSiteEntered(get func(string) string, all func(string) []string) newSiteForm {
	f := newSiteForm{
		Name: strings.TrimSpace(
			get("name"),
		), Slug: strings.TrimSpace(get("slug")), Business: get("business"), House: get("house"), From: cmp.Or(get("from"), fromPages),
		Leave: all("leave"),
	}
	if ready.FindHouse(f.House) == nil {
		f.House = ready.Houses[0].ID
	}
	return f
}

// newSite shows the screen on which a site is begun.
func (s *Screen) newSite(c *gin.Context) {
	s.showNewSite(c, http.StatusOK, newSiteEntered(c.Query, c.QueryArray), "")
}

func (s *Screen) showNewSite(c *gin.Context, status int, f newSiteForm, problem string) {
	v := newSiteView{User: shell.User(c), Form: f, Businesses: ready.Businesses, Problem: problem}
	for i := range ready.Houses {
		r := &ready.Houses[i]
		h := r.House()
		v.Houses = append(v.Houses, desk.WornAs(r.ID, r.Name, r.Hint, &h, false))
	}
	var err error
	if v.Form.Derived, err = s.Maker.Fresh(c, f.Name); err == nil {
		v.Copies, _, err = s.Store.Sites.Search(c, shell.User(c).ID, store.SiteQuery{Limit: 200})
		v.Copies = slices.DeleteFunc(v.Copies, func(i *store.SiteInfo) bool { return !i.Role.May(desk.Copying) })
	}
	if err == nil {
		v.Sheet, err = s.contactSheet(f)
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Screen(c, status, "new-site", v)
}

// newSiteSheet answers with the pages of a new site as they would be, and with its address.
func (s *Screen) newSiteSheet(c *gin.Context) {
	v, err := s.contactSheet(newSiteEntered(c.Query, c.QueryArray))
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Parted(c, http.StatusOK, "contact-sheet", v)
}

// newSiteSlug answers with the field of a new site's address while its name is typed.
func (s *Screen) newSiteSlug(c *gin.Context) {
	derived, err := s.Maker.Fresh(c, strings.TrimSpace(c.Query("name")))
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Parted(c, http.StatusOK, "site-slug", newSiteForm{Slug: c.Query("slug"), Derived: derived})
}

// The size in px of a page's drawing on the contact sheet.
const (
	sheetWidth  = 220
	sheetHeight = 300
)

// contactSheet draws the pages that a new site would begin with.
func (s *Screen) contactSheet(f newSiteForm) (*contactSheet, error) {
	if f.From != fromPages {
		return &contactSheet{Blank: true}, nil
	}
	b := ready.FindBusiness(f.Business)
	ids := map[string]int{}
	leave := func(name string) bool { return slices.Contains(f.Leave, name) }
	pages, t, err := ready.Planned(
		b,
		func(string) bool { return false },
		func(prefix string) string { // the same ids each time, so that drawings are found again
			ids[prefix]++
			return prefix + "-" + string(
				rune('a'+ids[prefix]/26%26),
			) + string(
				rune('a'+ids[prefix]%26),
			) + string(
				rune('a'+ids[prefix]/676),
			)
		},
		func(id string) string { return edit.StockPrefix + id },
	)
	if err != nil {
		return nil, err
	}
	house := ready.FindHouse(f.House).House()
	of := &store.Site{Site: doc.Site{
		ID: "new " + f.House + " " + f.Business + " " + strings.Join(
			f.Leave,
			",",
		), Slug: "new", Name: cmp.Or(f.Name, "Your site"), House: house, Zones: doc.StandardZones(), Business: f.Business,
	}}
	src := site.Source{Site: &of.Site}
	for i, p := range pages {
		if i == 0 || !leave(p.Name) {
			src.Pages = append(
				src.Pages,
				&store.PageInfo{ID: p.ID, Slug: t[i].Address, Name: p.Name, Placing: store.Placing{InMenu: true}},
			)
		}
	}
	stage := s.Workshop.Stage(of, src, "")
	desk.WithStock(stage)
	v := &contactSheet{}
	for i, p := range pages {
		v.Pages = append(v.Pages, plannedDrawing{
			Name: p.Name, Home: i == 0, Left: i > 0 && leave(p.Name), Sections: len(p.Sections),
			Drawing: stage.For(t[i].Address).DrawReady("new "+of.Name+" "+p.Name, p, sheetWidth, sheetHeight),
		})
	}
	return v, nil
}

// beginSite makes a site of what was entered, with whoever asks as its owner; a copy of another in
// the background.
func (s *Screen) beginSite(c *gin.Context) {
	f := newSiteEntered(c.PostForm, c.PostFormArray)
	to, err := s.makeSite(c, f)
	var problem *doc.Problem
	if errors.As(err, &problem) {
		s.showNewSite(c, http.StatusUnprocessableEntity, f, problem.Sentence())
		return
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, to)
}

// makeSite makes a site, or has it made, and tells where it goes on.
func (s *Screen) makeSite(c *gin.Context, f newSiteForm) (to string, err error) {
	slug := f.Slug
	if slug == "" {
		if slug, err = s.Maker.Fresh(c, f.Name); err != nil {
			return "", err
		}
	}
	made, err := ready.NewSite(slug, f.Name, store.NewID)
	if err != nil {
		return "", err
	}
	if of, ok := strings.CutPrefix(f.From, copyOf); ok {
		return s.copySite(c, of, made)
	}
	made.House, made.Business = ready.FindHouse(f.House).House(), f.Business
	if ready.FindBusiness(f.Business) == nil {
		made.Business = ""
	}
	st, err := s.Maker.Add(c, shell.User(c).ID, made, func(st *store.Site) error {
		c.Set(shell.KeySite, st)
		if f.From == fromBlank {
			return s.fillSite(c, st, func(newID func(string) string) ([]*doc.Page, tree.Tree, error) {
				home, err := ready.NewHome(st.Name, newID)
				if err != nil {
					return nil, nil, err
				}
				return []*doc.Page{home}, tree.Tree{{ID: home.ID, Name: home.Name}}, nil
			})
		}
		return s.planSite(c, st, f)
	})
	if err != nil {
		return "", err
	}
	s.Note(c, "site added", st.ID, st.Slug)
	return paths.To(st.Slug).At(), nil
}

// copySite has a site made in the background that is a copy of another.
func (s *Screen) copySite(c *gin.Context, of string, made *doc.Site) (to string, err error) {
	from, err := s.Store.Sites.BySlugFor(c, shell.User(c).ID, of)
	if err != nil {
		return "", doc.Problemf("Copy", "can't be of %.60q: it isn't one of your sites", of)
	}
	if !from.Role.May(desk.Copying) {
		return "", doc.Problemf(
			"Copy",
			"can't be of %s: on that site you write, and its owner would have to copy it for you",
			from.Name,
		)
	}
	if err := s.Store.Sites.MayBegin(c, shell.User(c).ID); err != nil {
		return "", err
	}
	taken, err := s.Store.Sites.Taken(c, made.Slug)
	if err != nil {
		return "", err
	}
	if taken {
		return "", doc.Problemf("Address", "%q is another site’s already; choose another", made.Slug)
	}
	w := s.work(c, made.Name)
	w.Slug, w.Source = made.Slug, from.ID
	return workPath(w.ID), s.Store.Works.Add(c, w)
}

// planSite gives a new site its ready-made pages.
func (s *Screen) planSite(c *gin.Context, st *store.Site, f newSiteForm) error {
	b := ready.FindBusiness(f.Business)
	leave := func(name string) bool { return slices.Contains(f.Leave, name) }
	return s.fillSite(c, st, func(newID func(string) string) ([]*doc.Page, tree.Tree, error) {
		pages, t, err := ready.Planned(b, leave, newID, func(id string) string {
			ids, _, kerr := s.Stocked(c, st, nil, []string{id})
			if kerr != nil { // the page begins without it
				s.Log.Error("stock", "picture", id, "error", kerr)
			}
			return ids[id]
		})
		if err == nil {
			pages[0].Title = st.Name
		}
		return pages, t, err
	})
}

// fillSite keeps the pages of a new site.
func (s *Screen) fillSite(
	c *gin.Context,
	st *store.Site,
	make func(newID func(string) string) ([]*doc.Page, tree.Tree, error),
) error {
	pages, t, err := make(store.NewID)
	if err != nil {
		return err
	}
	return s.Store.Transaction(c, func(in *store.Store) error { return bring.AddPages(c, in, st.ID, t, pages) })
}

// restoreSite brings a deleted site back.
func (s *Screen) restoreSite(c *gin.Context) {
	slug, err := s.Store.Sites.Restore(c, shell.User(c).ID, c.PostForm("id"))
	if err != nil {
		s.Fail(c, err)
		return
	}
	st, err := s.Store.Sites.BySlugFor(c, shell.User(c).ID, slug)
	if err == nil {
		s.Note(c, "site restored", st.ID, slug)
	}
	c.Redirect(http.StatusSeeOther, paths.To(slug).At())
}
