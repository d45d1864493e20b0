package web

import (
	"cmp"
	"errors"
	"net/http"
	"net/url"
	"slices"

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
		s.pagesScreen(c, http.StatusUnprocessableEntity, pagesForm{Facts: entered, FactsProblem: problem.Sentence()})
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
	form.Derived = freshSlug(form.Name, infos)
	slug := cmp.Or(form.Slug, form.Derived)
	has, err := s.Store.Media(c, st.ID)
	if err != nil {
		s.fail(c, err)
		return
	}
	p, err := edit.NewPage(form.Ready, form.Name, slug, edit.FindBusiness(st.Business), store.NewID, func(id string) string {
		ids, _, kerr := s.stocked(c, st, has, []string{id})
		if kerr != nil { // the page begins without it
			s.Log.Error("stock", "picture", id, "error", kerr)
		}
		return ids[id]
	})
	if err == nil && len(infos) >= maxPages {
		err = doc.Problemf("Site", "has %d pages already, the most there can be", maxPages)
	}
	for _, i := range infos {
		if err == nil && i.Slug == slug {
			err = doc.Problemf("Address", "%q is the page %q’s already; choose another", slug, i.Name)
		}
	}
	var problem *doc.Problem
	if errors.As(err, &problem) {
		form.Problem = problem.Sentence()
		s.pagesScreen(c, http.StatusUnprocessableEntity, form)
		return
	}
	if err == nil {
		err = s.Store.AddPage(c, st.ID, slug, len(infos), p)
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, "/sites/"+st.Slug+"/pages/"+url.PathEscape(slug)+"/bench")
}

// maxPages is how many pages a site can have.
const maxPages = 2000

// derivedSlug answers with the field of a new page's address while its name is typed.
func (s *Server) derivedSlug(c *gin.Context) {
	infos, err := s.Store.Pages(c, siteOf(c).ID)
	if err != nil {
		s.fail(c, err)
		return
	}
	s.parted(c, http.StatusOK, "slug", pagesForm{Slug: c.Query("slug"), Derived: freshSlug(c.Query("name"), infos)})
}

// freshSlug derives an address from a page's name that no page of the site has.
func freshSlug(name string, pages []*store.PageInfo) string {
	return edit.Slug(name, func(slug string) bool {
		return doc.PageReserved(slug) || slices.ContainsFunc(pages, func(p *store.PageInfo) bool { return p.Slug == slug })
	})
}
