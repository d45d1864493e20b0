package web

import (
	"cmp"
	"errors"
	"html/template"
	"net/http"
	"strconv"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/core/number"
	"openplot/core/ready"
	"openplot/store"
)

type siteCard struct {
	store.SiteInfo
	Drawing template.HTML
	Edited  string
	State   pageState
	Next    int // where the next part begins, in the last of a part
}

// sitesView is the screen of somebody's sites.
type sitesView struct {
	User     *store.User
	Site     *store.Site
	Sites    []siteCard
	Waiting  bool // some drawings are still to be made
	Query    string
	Archived bool
	From     int
	Next     int
	All      int
	Deleted  []store.DeletedSite
	Done     string
}

// sitesAtOnce is how many sites are shown before one scrolls on.
const sitesAtOnce = 24

// sites shows the sites of the person, each with a drawing of its home page.
func (s *Server) sites(c *gin.Context) {
	q := store.SiteQuery{Words: strings.TrimSpace(c.Query("q")), Archived: c.Query("archived") != "", Limit: sitesAtOnce}
	q.From, _ = number.Whole(c.Query("from"))
	q.From = max(q.From, 0)
	found, all, err := s.Store.Sites.Search(c, user(c).ID, q)
	if err != nil {
		s.fail(c, err)
		return
	}
	v := sitesView{User: user(c), Query: q.Words, Archived: q.Archived, From: q.From, All: all, Done: map[string]string{
		"archived": "Archived: visitors find nothing of it until you bring it back. It is listed under Archived.", "unarchived": "It is among your sites again, and visitors see what they saw before.",
		"deleted": "Deleted. It can be had back below for 30 days.",
	}[c.Query("done")]}
	for _, i := range found {
		card := siteCard{SiteInfo: *i, Drawing: template.HTML(i.SVG), Edited: ago(time.Since(i.EditedAt)), State: siteStanding(i)}
		if !i.Fresh || i.Look != s.lookAt(i.Version) {
			v.Waiting = true
			if err := s.Store.Drawings.Want(c, i.Slug); err != nil {
				s.fail(c, err)
				return
			}
		}
		v.Sites = append(v.Sites, card)
	}
	if q.From+len(found) < all {
		v.Next = q.From + len(found)
	}
	if c.GetHeader("HX-Request") != "" {
		s.parted(c, http.StatusOK, "site-cards", v)
		return
	}
	if v.Deleted, err = s.Store.Sites.Deleted(c, user(c).ID); err != nil {
		s.fail(c, err)
		return
	}
	s.screen(c, http.StatusOK, "sites", v)
}

// siteStanding tells how a site's pages and what visitors see of them stand to each other.
func siteStanding(i *store.SiteInfo) pageState {
	switch never := i.Pages - i.Published; {
	case i.Published == 0:
		return pageState{"never", "Not published"}
	case i.Changed > 0 || never > 0:
		return pageState{"changed", pagesIn(i.Changed+never) + " not as visitors see it"}
	}
	return pageState{"live", "Published"}
}

// pagesIn counts pages in words.
func pagesIn(n int) string {
	if n == 1 {
		return "1 page"
	}
	return strconv.Itoa(n) + " pages"
}

// ago says how long ago something was.
func ago(d time.Duration) string {
	for _, u := range []struct {
		of        time.Duration
		one, many string
	}{
		{365 * 24 * time.Hour, "a year", "years"}, {30 * 24 * time.Hour, "a month", "months"}, {24 * time.Hour, "a day", "days"},
		{time.Hour, "an hour", "hours"}, {time.Minute, "a minute", "minutes"},
	} {
		if n := int(d / u.of); n == 1 {
			return u.one + " ago"
		} else if n > 1 {
			return strconv.Itoa(n) + " " + u.many + " ago"
		}
	}
	return "just now"
}

// pagesView is the screen of a site's pages.
type pagesView struct {
	User    *store.User
	Site    *store.Site
	Role    store.Role
	Live    string
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
	Parents                            []parentChoice
	Open                               bool
}

// doneWords say what was done to a page.
var doneWords = map[string]string{
	"kept": "Kept.", "home": "It is the home page now.", "copied": "Copied.", "restored": "It is back.", "delete": "Deleted. It can be had back below for 30 days.",
	"withdraw": "Withdrawn: visitors don’t see it any more.", "show": "In the menu.", "hide": "Left out of the menu.", "move": "Moved.", "published": "Published.",
	"trimmed":  "The site is here. Some of what is in the file couldn’t be kept as it is there: the site’s log says on which pages, and what.",
	"siteback": "The site is as it was then. What it was before is kept as a version.", "back": "Visitors see that publication again.",
}

// pages shows the pages of a site.
func (s *Server) pages(c *gin.Context) {
	v := pagesView{Done: doneWords[c.Query("done")]}
	v.New.Open = c.Query("new") != ""
	if id := c.Query("page"); id != "" {
		p, err := s.Store.Pages.ByID(c, siteOf(c).ID, store.Clean(id))
		if err == nil {
			v.Panel, err = s.panelOf(c, siteOf(c), p)
		}
		if err != nil && !errors.Is(err, store.ErrNotFound) {
			s.fail(c, err)
			return
		}
		if v.Panel != nil {
			v.Panel.Kept, v.Done = v.Done, ""
		}
	}
	s.pagesScreen(c, http.StatusOK, v)
}

func (s *Server) pagesScreen(c *gin.Context, status int, v pagesView) {
	st := siteOf(c)
	var err error
	if v.List, err = s.rows(c, st, 0); err != nil {
		s.fail(c, err)
		return
	}
	infos, err := s.Store.Pages.List(c, st.ID)
	if err == nil {
		v.Deleted, err = s.Store.Tree.Deleted(c, st.ID)
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	if v.Steps, err = s.firstSteps(c, st, infos); err != nil {
		s.fail(c, err)
		return
	}
	for _, p := range infos {
		if standing(p, st.Version).Mark != "live" {
			v.Changed++
		}
	}
	v.User, v.Site, v.Role, v.Live = user(c), st, st.Role, s.Hosts.Public(st.Slug)+"/"
	v.New.Ready = cmp.Or(v.New.Ready, ready.Pages[0].ID)
	v.New.Parents = parentsFor(store.Tree(infos), "", v.New.Parent)
	v.Ready = readyView(st, v.New.Ready)
	s.screen(c, status, "pages", v)
}

// pageSlug is a page's address as a part of ours: one path segment, and never empty.
func pageSlug(slug string) string {
	return cmp.Or(strings.ReplaceAll(slug, "/", "."), homeSlug)
}
