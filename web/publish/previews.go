package publish

import (
	"html/template"
	"net/http"
	"slices"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/number"
	"openplot/store"
	"openplot/web/paths"
	"openplot/web/shell"
)

// Lives of links to drafts: of the one that "Try it" opens, and those that people choose from.
const trialLife = 2 * time.Hour

var previewLives = []previewLife{{"1 day", 1}, {"1 week", 7}, {"1 month", 30}}

type previewLife struct {
	Name string
	Days int
}

// draftAddress is what opens a link.
func (s *Screen) draftAddress(slug, token, page string) string {
	if page != "" {
		page += "/"
	}
	return s.Hosts.Draft(slug) + "/try/" + token + "/" + page
}

// try opens a preview of the page as it stands, at the host of the site's previews.
func (s *Screen) try(c *gin.Context) {
	st, p := shell.SiteOf(c), shell.PageOf(c)
	token, err := s.Store.Previews.Add(c, st.ID, p.ID, shell.User(c).ID, time.Now().Add(trialLife))
	if err != nil {
		s.Fail(c, err)
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
	Made    string        // address of the link that was just made; it isn't shown again
	Code    template.HTML // the same for a telephone to read
	Problem string
}

// previews lists the links by which others can look at drafts of the site.
func (s *Screen) previews(c *gin.Context) { s.previewsScreen(c, http.StatusOK, "", "") }

func (s *Screen) previewsScreen(c *gin.Context, status int, made, problem string) {
	st := shell.SiteOf(c)
	links, err := s.Store.Previews.List(c, st.ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	pages, err := s.Store.Pages.List(c, st.ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	v := previewsView{
		User: shell.User(c), Site: st, Links: links, Pages: pages, Lives: previewLives, Made: made, Problem: problem,
	}
	if made != "" {
		if v.Code, err = qrCode(made); err != nil {
			s.Fail(c, err)
			return
		}
	}
	s.Screen(c, status, "previews", v)
}

// newPreview makes a link to a page, or to the whole site.
func (s *Screen) newPreview(c *gin.Context) {
	st := shell.SiteOf(c)
	days, err := number.Whole(c.PostForm("days"))
	if err != nil || !slices.ContainsFunc(previewLives, func(l previewLife) bool { return l.Days == days }) {
		s.previewsScreen(
			c,
			http.StatusUnprocessableEntity,
			"",
			doc.Problemf("Ends", "can't be %.20q days: choose one of the list", c.PostForm("days")).Sentence(),
		)
		return
	}
	page, slug, name := c.PostForm("page"), "", "the whole site"
	if page != "" {
		pages, err := s.Store.Pages.List(c, st.ID)
		if err != nil {
			s.Fail(c, err)
			return
		}
		i := slices.IndexFunc(pages, func(p *store.PageInfo) bool { return p.ID == page })
		if i < 0 {
			s.previewsScreen(c, http.StatusUnprocessableEntity, "", "The page isn’t there any more; choose another.")
			return
		}
		slug, name = pages[i].Slug, pages[i].Name
	}
	token, err := s.Store.Previews.Add(
		c,
		st.ID,
		page,
		shell.User(c).ID,
		time.Now().Add(time.Duration(days)*24*time.Hour),
	)
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Note(c, "preview link made", st.ID, name)
	s.previewsScreen(c, http.StatusOK, s.draftAddress(st.Slug, token, slug), "")
}

// endPreview ends a link.
func (s *Screen) endPreview(c *gin.Context) {
	st := shell.SiteOf(c)
	if err := s.Store.Previews.End(c, st.ID, c.PostForm("id")); err != nil {
		s.Fail(c, err)
		return
	}
	s.Note(c, "preview link ended", st.ID, "")
	c.Redirect(http.StatusSeeOther, paths.To(st.Slug).At("previews"))
}
