package pages

import (
	"cmp"
	"errors"
	"net/http"

	"github.com/gin-gonic/gin"

	"openplot/core/ready"
	"openplot/core/rights"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/paths"
	"openplot/web/shell"
)

// Screen is the screen of a site's pages.
type Screen struct{ *desk.Desk }

// Routes lists its addresses.
func (s *Screen) Routes() []shell.Route {
	return []shell.Route{
		shell.Get(paths.SiteRoute, rights.See, s.pages),
		shell.Get(paths.SiteRoute+"/pages", rights.See, s.moreRows),
		shell.Post(paths.SiteRoute+"/pages", rights.Compose, making{s}.newPage),
		shell.Post(paths.SiteRoute+"/begun", rights.Compose, s.dismiss),
		shell.Post(paths.SiteRoute+"/pages/restore", rights.Compose, s.restorePage),
		shell.Within(shell.Writing, shell.Post(paths.SiteRoute+"/pages/several", rights.Compose, s.several)),
		shell.Get(paths.SiteRoute+"/going", rights.Compose, s.goingPart),
		shell.Get(paths.SiteRoute+"/slug", rights.Compose, making{s}.derivedSlug),
		shell.Get(paths.SiteRoute+"/ready", rights.Compose, making{s}.drawReady),
		shell.Get(paths.PageRoute+"/settings", rights.See, s.pageSettingsPart),
		shell.Get(paths.SiteRoute+"/found", rights.See, s.previewPart),
		shell.Within(shell.Writing, shell.Post(paths.SiteRoute+"/pages/settings", rights.Compose, s.keepPageSettings)),
		shell.Post(paths.PageRoute+"/move", rights.Compose, s.movePage),
		shell.Post(paths.PageRoute+"/copy", rights.Compose, s.copyPage),
		shell.Post(paths.PageRoute+"/home", rights.Compose, s.makeHome),
		shell.Post(paths.PageRoute+"/begins", rights.Compose, making{s}.setBegins),
	}
}

// pagesView is the screen of a site's pages.
type pagesView struct {
	User    *store.User
	Site    *store.Site
	Role    store.Role
	Wall    bool // drawings beside each other, rather than a list
	List    *pageList
	Panel   *pagePanel // of the page that is chosen, or nil
	New     newPageForm
	Ready   *readyPages
	Deleted []*store.PageInfo
	Changed int // pages that visitors see an earlier state of, or nothing
	Problem string
	Done    string // what was done, in words
	Steps   []step
}

// newPageForm is what was entered of a new page.
type newPageForm struct {
	Name, Slug, Ready, Parent, Problem string
	Derived                            string // the address that the name gives
	Bare                               bool   // it doesn't get the bars that the site's pages share
	Parents                            []parentChoice
	Open                               bool
}

// pages shows the pages of a site.
func (s *Screen) pages(c *gin.Context) {
	v := pagesView{Done: desk.DoneWords[c.Query("done")]}
	v.New.Open, v.New.Parent = c.Query("new") != "", store.Clean(c.Query("parent"))
	if id := c.Query("page"); id != "" {
		p, err := s.Store.Pages.ByID(c, shell.SiteOf(c).ID, store.Clean(id))
		if err == nil {
			v.Panel, err = s.panelOf(c, shell.SiteOf(c), p)
		}
		if err != nil && !errors.Is(err, store.ErrNotFound) {
			s.Fail(c, err)
			return
		}
		if v.Panel != nil {
			v.Panel.Kept, v.Done = v.Done, ""
		}
	}
	s.pagesScreen(c, http.StatusOK, v)
}

func (s *Screen) pagesScreen(c *gin.Context, status int, v pagesView) {
	st := shell.SiteOf(c)
	var err error
	if v.List, err = s.rows(c, st, 0); err != nil {
		s.Fail(c, err)
		return
	}
	infos, err := s.Store.Pages.List(c, st.ID)
	if err == nil {
		v.Deleted, err = s.Store.Tree.Deleted(c, st.ID)
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	if v.Steps, err = s.firstSteps(c, st, infos); err != nil {
		s.Fail(c, err)
		return
	}
	for _, p := range infos {
		if desk.Standing(p, st.Version).Mark != "live" {
			v.Changed++
		}
	}
	v.User, v.Site, v.Role, v.Wall = shell.User(c), st, st.Role, walled(c)
	v.New.Ready = cmp.Or(v.New.Ready, ready.Pages[0].ID)
	v.New.Parents = parentsFor(store.Tree(infos), "", v.New.Parent)
	v.Ready = readyView(st, v.New.Ready)
	s.Screen(c, status, "pages", v)
}

// asCookie keeps how somebody last looked at pages.
const asCookie = "pages"

// walled reports whether pages are shown as a wall: unless the list was asked for, now or before.
func walled(c *gin.Context) bool {
	as := c.Query("as")
	if as == "wall" || as == "list" {
		http.SetCookie(c.Writer, &http.Cookie{
			Name: asCookie, Value: as, Path: "/", MaxAge: 365 * 24 * 3600, SameSite: http.SameSiteLaxMode, HttpOnly: true,
		})
	} else {
		as, _ = c.Cookie(asCookie)
	}
	return as != "list"
}
