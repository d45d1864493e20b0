package web

import (
	"errors"
	"net/http"
	"net/url"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/store"
)

// setFacts keeps what the site says about itself.
func (s *Server) setFacts(c *gin.Context) {
	entered := doc.Facts{Address: c.PostForm("address"), Hours: c.PostForm("hours"), Phone: c.PostForm("phone"), Mail: c.PostForm("mail")}
	f, err := edit.ReadFacts(entered)
	var problem *doc.Problem
	if errors.As(err, &problem) {
		s.pagesScreen(c, http.StatusUnprocessableEntity, pagesForm{Facts: entered, FactsProblem: problem.Field + " " + problem.Message + "."})
		return
	}
	if err == nil {
		err = s.Store.SetFacts(c, siteOf(c).ID, f)
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, "/sites/"+siteOf(c).Slug+"?kept=facts#facts")
}

// newPage adds a page made of ready-made sections.
func (s *Server) newPage(c *gin.Context) {
	st := siteOf(c)
	form := pagesForm{Facts: st.Facts, Name: c.PostForm("name"), Slug: c.PostForm("slug"), Ready: c.PostForm("ready")}
	infos, err := s.Store.Pages(c, st.ID)
	if err != nil {
		s.fail(c, err)
		return
	}
	p, err := edit.NewPage(form.Ready, form.Name, form.Slug, store.NewID)
	if err == nil && len(infos) >= maxPages {
		err = doc.Problemf("Site", "has %d pages already, the most there can be", maxPages)
	}
	for _, i := range infos {
		if err == nil && i.Slug == form.Slug {
			err = doc.Problemf("Address", "%q is the page %q’s already; choose another", form.Slug, i.Name)
		}
	}
	if form.Slug == homeSlug && err == nil {
		err = doc.Problemf("Address", "%q is kept for the first page; choose another", homeSlug)
	}
	var problem *doc.Problem
	if errors.As(err, &problem) {
		form.Problem = problem.Field + " " + problem.Message + "."
		s.pagesScreen(c, http.StatusUnprocessableEntity, form)
		return
	}
	if err == nil {
		err = s.Store.AddPage(c, st.ID, form.Slug, len(infos), p)
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, "/sites/"+st.Slug+"/pages/"+url.PathEscape(form.Slug)+"/bench")
}

// maxPages is how many pages a site can have.
const maxPages = 200

// formEntries shows what visitors sent.
func (s *Server) formEntries(c *gin.Context) {
	st := siteOf(c)
	es, err := s.Store.FormEntries(c, st.ID, 200)
	if err != nil {
		s.fail(c, err)
		return
	}
	s.screen(c, http.StatusOK, "entries", map[string]any{"User": user(c), "Site": st, "Entries": es})
}
