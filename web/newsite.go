package web

import (
	"cmp"
	"context"
	"errors"
	"html/template"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/ready"
	"openplot/core/rights"
	"openplot/core/tree"
	"openplot/site"
	"openplot/store"
)

// newSiteView is the screen on which a site is begun.
type newSiteView struct {
	User       *store.User
	Site       *store.Site // none yet
	Form       newSiteForm
	Businesses []ready.Business
	Houses     []wornView
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
		Name: strings.TrimSpace(get("name")), Slug: strings.TrimSpace(get("slug")), Business: get("business"), House: get("house"), From: cmp.Or(get("from"), fromPages),
		Leave: all("leave"),
	}
	if ready.FindHouse(f.House) == nil {
		f.House = ready.Houses[0].ID
	}
	return f
}

// newSite shows the screen on which a site is begun.
func (s *Server) newSite(c *gin.Context) {
	s.showNewSite(c, http.StatusOK, newSiteEntered(c.Query, c.QueryArray), "")
}

func (s *Server) showNewSite(c *gin.Context, status int, f newSiteForm, problem string) {
	v := newSiteView{User: user(c), Form: f, Businesses: ready.Businesses, Problem: problem}
	for i := range ready.Houses {
		r := &ready.Houses[i]
		h := r.House()
		v.Houses = append(v.Houses, worn(r.ID, r.Name, r.Hint, &h, false))
	}
	var err error
	if v.Form.Derived, err = s.freshSite(c, f.Name); err == nil {
		v.Copies, _, err = s.Store.Sites.Search(c, user(c).ID, store.SiteQuery{Limit: 200})
		v.Copies = slices.DeleteFunc(v.Copies, func(i *store.SiteInfo) bool { return !i.Role.May(copying) })
	}
	if err == nil {
		v.Sheet, err = s.contactSheet(f)
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	s.screen(c, status, "new-site", v)
}

// freshSite derives an address from a site's name that no site has, or "".
func (s *Server) freshSite(ctx context.Context, name string) (slug string, err error) {
	if name == "" {
		return "", nil
	}
	slug = tree.Fresh(name, "site", func(word string) bool {
		taken, terr := s.Store.Sites.Taken(ctx, word)
		err = errors.Join(err, terr)
		return terr == nil && (taken || doc.SiteReserved(word))
	})
	return slug, err
}

// newSiteSheet answers with the pages of a new site as they would be, and with its address.
func (s *Server) newSiteSheet(c *gin.Context) {
	v, err := s.contactSheet(newSiteEntered(c.Query, c.QueryArray))
	if err != nil {
		s.fail(c, err)
		return
	}
	s.parted(c, http.StatusOK, "contact-sheet", v)
}

// newSiteSlug answers with the field of a new site's address while its name is typed.
func (s *Server) newSiteSlug(c *gin.Context) {
	derived, err := s.freshSite(c, strings.TrimSpace(c.Query("name")))
	if err != nil {
		s.fail(c, err)
		return
	}
	s.parted(c, http.StatusOK, "site-slug", newSiteForm{Slug: c.Query("slug"), Derived: derived})
}

// The size in px of a page's drawing on the contact sheet.
const (
	sheetWidth  = 220
	sheetHeight = 300
)

// contactSheet draws the pages that a new site would begin with.
func (s *Server) contactSheet(f newSiteForm) (*contactSheet, error) {
	if f.From != fromPages {
		return &contactSheet{Blank: true}, nil
	}
	b := ready.FindBusiness(f.Business)
	ids := map[string]int{}
	leave := func(name string) bool { return slices.Contains(f.Leave, name) }
	pages, t, err := ready.Planned(b, func(string) bool { return false }, func(prefix string) string { // the same ids each time, so that drawings are found again
		ids[prefix]++
		return prefix + "-" + string(rune('a'+ids[prefix]/26%26)) + string(rune('a'+ids[prefix]%26)) + string(rune('a'+ids[prefix]/676))
	}, func(id string) string { return stockPrefix + id })
	if err != nil {
		return nil, err
	}
	house := ready.FindHouse(f.House).House()
	of := &store.Site{Site: doc.Site{
		ID: "new " + f.House + " " + f.Business + " " + strings.Join(f.Leave, ","), Slug: "new", Name: cmp.Or(f.Name, "Your site"), House: house, Zones: doc.StandardZones(), Business: f.Business,
	}}
	src := site.Source{Site: &of.Site}
	for i, p := range pages {
		if i == 0 || !leave(p.Name) {
			src.Pages = append(src.Pages, &store.PageInfo{ID: p.ID, Slug: t[i].Address, Name: p.Name, Placing: store.Placing{InMenu: true}})
		}
	}
	stage := s.workshop.Stage(of, src, "")
	stocked(stage)
	v := &contactSheet{}
	for i, p := range pages {
		v.Pages = append(v.Pages, plannedDrawing{
			Name: p.Name, Home: i == 0, Left: i > 0 && leave(p.Name), Sections: len(p.Sections),
			Drawing: stage.For(t[i].Address).DrawReady("new "+of.Name+" "+p.Name, p, sheetWidth, sheetHeight),
		})
	}
	return v, nil
}

// beginSite makes a site of what was entered, with whoever asks as its owner.
func (s *Server) beginSite(c *gin.Context) {
	f := newSiteEntered(c.PostForm, c.PostFormArray)
	made, err := s.makeSite(c, f)
	var problem *doc.Problem
	if errors.As(err, &problem) {
		s.showNewSite(c, http.StatusUnprocessableEntity, f, problem.Sentence())
		return
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	s.note(c, "site added", made.ID, made.Slug)
	c.Redirect(http.StatusSeeOther, "/sites/"+made.Slug)
}

// copying is the right on a site that whoever copies it has to have: that of saving it as a file.
const copying = rights.Publish

// makeSite makes a site: the site itself first, since its pictures belong to it, and then its
// pages; all of it, or nothing.
func (s *Server) makeSite(c *gin.Context, f newSiteForm) (*store.Site, error) {
	slug := f.Slug
	var err error
	if slug == "" {
		if slug, err = s.freshSite(c, f.Name); err != nil {
			return nil, err
		}
	}
	made, err := ready.NewSite(slug, f.Name, store.NewID)
	if err != nil {
		return nil, err
	}
	made.House, made.Business = ready.FindHouse(f.House).House(), f.Business
	if ready.FindBusiness(f.Business) == nil {
		made.Business = ""
	}
	var from *store.Site
	if of, ok := strings.CutPrefix(f.From, copyOf); ok {
		if from, err = s.Store.Sites.BySlugFor(c, user(c).ID, of); err != nil {
			return nil, doc.Problemf("Copy", "can't be of %.60q: it isn't one of your sites", of)
		}
		if !from.Role.May(copying) {
			return nil, doc.Problemf("Copy", "can't be of %s: on that site you write, and its owner would have to copy it for you", from.Name)
		}
		copied := from.Site
		copied.ID, copied.Slug, copied.Name = made.ID, made.Slug, made.Name
		made = &copied
	}
	return s.addSite(c, made, func(st *store.Site) error {
		switch {
		case from != nil:
			return s.copySite(c, from, st)
		case f.From == fromBlank:
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
}

// addSite keeps a new site, with whoever asks as its owner, and has fill give it its pages; all
// of it, or nothing, also when the program is killed meanwhile.
func (s *Server) addSite(c *gin.Context, made *doc.Site, fill func(st *store.Site) error) (*store.Site, error) {
	if err := s.Store.Transaction(c, func(in *store.Store) error {
		if err := in.Sites.MayBegin(c, user(c).ID); err != nil {
			return err
		}
		if err := in.Sites.Add(c, made); err != nil {
			return err
		}
		if err := in.Jobs.Making(c, made.ID); err != nil {
			return err
		}
		return in.People.AddMember(c, made.ID, user(c).ID, store.Owner)
	}); err != nil {
		return nil, err
	}
	st, err := s.Store.Sites.ByIDFor(c, user(c).ID, made.ID)
	if err == nil {
		c.Set(keySite, st)
		err = fill(st)
	}
	if err == nil {
		err = s.Store.Jobs.Made(c, made.ID)
	}
	if err != nil {
		// What there is of it isn't one that anybody asked for.
		return nil, errors.Join(err, s.Store.Sites.Drop(context.WithoutCancel(c), made.ID))
	}
	return st, nil
}

// planSite gives a new site its ready-made pages.
func (s *Server) planSite(c *gin.Context, st *store.Site, f newSiteForm) error {
	b := ready.FindBusiness(f.Business)
	leave := func(name string) bool { return slices.Contains(f.Leave, name) }
	return s.fillSite(c, st, func(newID func(string) string) ([]*doc.Page, tree.Tree, error) {
		pages, t, err := ready.Planned(b, leave, newID, func(id string) string {
			ids, _, kerr := s.stocked(c, st, nil, []string{id})
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
func (s *Server) fillSite(c *gin.Context, st *store.Site, make func(newID func(string) string) ([]*doc.Page, tree.Tree, error)) error {
	pages, t, err := make(store.NewID)
	if err != nil {
		return err
	}
	return s.Store.Transaction(c, func(in *store.Store) error { return addPages(c, in, st.ID, t, pages) })
}

// addPages keeps the pages of a new site where a tree has them.
func addPages(ctx context.Context, in *store.Store, site string, t tree.Tree, pages []*doc.Page) error {
	for i, p := range pages {
		if err := in.Pages.Add(ctx, site, t[i].Address, i, p); err != nil {
			return err
		}
	}
	return in.Tree.Rearrange(ctx, site, func(now tree.Tree) (tree.Tree, error) {
		now = slices.Clone(now)
		for i := range now {
			now[i].Parent = t[t.Index(now[i].ID)].Parent
		}
		return tree.Sorted(now), nil
	})
}

// archive sets a site aside, or brings it back.
func (s *Server) archive(c *gin.Context) {
	back := c.PostForm("back") != ""
	err := s.Store.Sites.Archive(c, siteOf(c).ID, !back)
	if err == nil && back {
		err = s.publisher.Show(c, s.Store, siteOf(c).ID)
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	s.note(c, map[bool]string{false: "site archived", true: "site brought back"}[back], siteOf(c).ID, siteOf(c).Slug)
	to := "/?done=archived"
	if back {
		to = "/?done=unarchived"
	}
	c.Redirect(http.StatusSeeOther, to)
}

// moveSite gives a site another address.
func (s *Server) moveSite(c *gin.Context) {
	st := siteOf(c)
	slug := strings.TrimSpace(c.PostForm("slug"))
	probe, err := ready.NewSite(slug, st.Name, store.NewID)
	if err == nil && probe.Slug != st.Slug {
		err = s.Store.Sites.Rename(c, st.ID, slug)
	}
	var problem *doc.Problem
	if errors.As(err, &problem) {
		s.showSettings(c, http.StatusUnprocessableEntity, settingsView{Problem: problem.Sentence()}, nil)
		return
	}
	if err == nil {
		s.note(c, "site moved", st.ID, st.Slug+" to "+slug)
		err = s.publisher.Again(c, s.Store, st.ID)
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, "/sites/"+slug+"/settings?kept=1")
}

// deleteSite deletes a site whose name was written to confirm it.
func (s *Server) deleteSite(c *gin.Context) {
	st := siteOf(c)
	if strings.TrimSpace(c.PostForm("name")) != st.Name {
		s.showSettings(c, http.StatusUnprocessableEntity, settingsView{Problem: doc.Problemf("Name", "isn't “%s”: write it to delete the site", st.Name).Sentence()}, nil)
		return
	}
	if err := s.Store.Sites.Delete(c, st.ID); err != nil {
		s.fail(c, err)
		return
	}
	s.note(c, "site deleted", st.ID, st.Slug)
	c.Redirect(http.StatusSeeOther, "/?done=deleted")
}

// restoreSite brings a deleted site back.
func (s *Server) restoreSite(c *gin.Context) {
	slug, err := s.Store.Sites.Restore(c, user(c).ID, c.PostForm("id"))
	if err != nil {
		s.fail(c, err)
		return
	}
	st, err := s.Store.Sites.BySlugFor(c, user(c).ID, slug)
	if err == nil {
		s.note(c, "site restored", st.ID, slug)
	}
	c.Redirect(http.StatusSeeOther, "/sites/"+slug)
}

// dismiss hides a site's first steps.
func (s *Server) dismiss(c *gin.Context) {
	if err := s.Store.Sites.Begun(c, siteOf(c).ID); err != nil {
		s.fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, "/sites/"+siteOf(c).Slug)
}

// step is one of the first steps of a new site.
type step struct {
	Done             bool
	Name, Hint, Href string
}

// firstSteps are those of a site, ticked off by what was done; nil when they are all done or
// not wanted.
func (s *Server) firstSteps(c *gin.Context, st *store.Site, infos []*store.PageInfo) ([]step, error) {
	if st.Begun {
		return nil, nil
	}
	styled, phone, err := s.Store.Sites.Firsts(c, st.ID)
	if err != nil {
		return nil, err
	}
	home := "/sites/" + st.Slug + "/pages/" + homeSlug + "/bench"
	edited, published := false, false
	for _, p := range infos {
		edited = edited || p.Seq > 0
		published = published || p.PublishedSeq != nil
	}
	steps := []step{
		{styled, "Colours and type", "set them once, for all pages", "/sites/" + st.Slug + "/house"},
		{edited, "Your first page", "put your words and pictures on it", home},
		{phone, "On a phone", "see it at 375 px, and set something for phones alone", home + "?" + url.Values{"width": {"375"}}.Encode()},
		{published, "Publish", "bring it to visitors; you can take it back", "/sites/" + st.Slug + "/publish"},
	}
	if !slices.ContainsFunc(steps, func(t step) bool { return !t.Done }) {
		return nil, s.Store.Sites.Begun(c, st.ID)
	}
	return steps, nil
}
