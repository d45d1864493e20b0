package web

import (
	"net/http"
	"slices"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/number"
	"openplot/store"
)

// Lives of links to drafts: of the one that "Try it" opens, and those that people choose from.
const trialLife = 2 * time.Hour

var previewLives = []previewLife{{"1 day", 1}, {"1 week", 7}, {"1 month", 30}}

type previewLife struct {
	Name string
	Days int
}

// draftAddress is what opens a link.
func (s *Server) draftAddress(slug, token, page string) string {
	if page != "" {
		page += "/"
	}
	return s.Hosts.Draft(slug) + "/try/" + token + "/" + page
}

// try opens a preview of the page as it stands, at the host of the site's previews.
func (s *Server) try(c *gin.Context) {
	st, p := siteOf(c), pageOf(c)
	token, err := s.Store.Previews.Add(c, st.ID, p.ID, user(c).ID, time.Now().Add(trialLife))
	if err != nil {
		s.fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, s.draftAddress(st.Slug, token, p.Slug))
}

// previewsView is the screen of links to drafts.
type previewsView struct {
	User    *store.User
	Site    *store.Site
	Links   []*store.Preview
	Pages   []*store.PageInfo
	Lives   []previewLife
	Made    string // address of the link that was just made; it isn't shown again
	Problem string
}

// previews lists the links by which others can look at drafts of the site.
func (s *Server) previews(c *gin.Context) { s.previewsScreen(c, http.StatusOK, "", "") }

func (s *Server) previewsScreen(c *gin.Context, status int, made, problem string) {
	st := siteOf(c)
	links, err := s.Store.Previews.List(c, st.ID)
	if err != nil {
		s.fail(c, err)
		return
	}
	pages, err := s.Store.Pages.List(c, st.ID)
	if err != nil {
		s.fail(c, err)
		return
	}
	s.screen(c, status, "previews", previewsView{user(c), st, links, pages, previewLives, made, problem})
}

// newPreview makes a link to a page, or to the whole site.
func (s *Server) newPreview(c *gin.Context) {
	st := siteOf(c)
	days, err := number.Whole(c.PostForm("days"))
	if err != nil || !slices.ContainsFunc(previewLives, func(l previewLife) bool { return l.Days == days }) {
		s.previewsScreen(c, http.StatusUnprocessableEntity, "", doc.Problemf("Ends", "can't be %.20q days: choose one of the list", c.PostForm("days")).Sentence())
		return
	}
	page, slug, name := c.PostForm("page"), "", "the whole site"
	if page != "" {
		pages, err := s.Store.Pages.List(c, st.ID)
		if err != nil {
			s.fail(c, err)
			return
		}
		i := slices.IndexFunc(pages, func(p *store.PageInfo) bool { return p.ID == page })
		if i < 0 {
			s.previewsScreen(c, http.StatusUnprocessableEntity, "", "The page isn’t there any more; choose another.")
			return
		}
		slug, name = pages[i].Slug, pages[i].Name
	}
	token, err := s.Store.Previews.Add(c, st.ID, page, user(c).ID, time.Now().Add(time.Duration(days)*24*time.Hour))
	if err != nil {
		s.fail(c, err)
		return
	}
	s.note(c, "preview link made", st.ID, name)
	s.previewsScreen(c, http.StatusOK, s.draftAddress(st.Slug, token, slug), "")
}

// endPreview ends a link.
func (s *Server) endPreview(c *gin.Context) {
	st := siteOf(c)
	if err := s.Store.Previews.End(c, st.ID, c.PostForm("id")); err != nil {
		s.fail(c, err)
		return
	}
	s.note(c, "preview link ended", st.ID, "")
	c.Redirect(http.StatusSeeOther, "/sites/"+st.Slug+"/previews")
}
