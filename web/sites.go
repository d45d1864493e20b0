package web

import (
	"html/template"
	"net/http"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/store"
)

type siteCard struct {
	Slug, Name, Role string
	Pages            int
	Drawing          template.HTML
}

// sites shows the sites of the person, each with a drawing of its home page.
func (s *Server) sites(c *gin.Context) {
	sites, err := s.Store.Sites(c, user(c).ID)
	if err != nil {
		s.fail(c, err)
		return
	}
	var cards []siteCard
	for _, st := range sites {
		src, err := s.source(c, st)
		if err != nil {
			s.fail(c, err)
			return
		}
		card := siteCard{Slug: st.Slug, Name: st.Name, Role: string(st.Role), Pages: len(src.Pages)}
		if home, err := s.Store.Page(c, st.ID, ""); err == nil {
			card.Drawing = s.workshop.Stage(st, src, "").DrawPage(home.Doc, 400)
		}
		cards = append(cards, card)
	}
	s.screen(c, http.StatusOK, "sites", map[string]any{"User": user(c), "Sites": cards})
}

type pageCard struct {
	Slug, Name, State string
	Drawing           template.HTML
}

// pagesForm is what was entered in the forms of the screen of pages.
type pagesForm struct {
	Facts                      doc.Facts
	FactsProblem               string
	Name, Slug, Ready, Problem string
	Derived                    string // the address that the name gives
}

// pages shows the pages of a site.
func (s *Server) pages(c *gin.Context) {
	s.pagesScreen(c, http.StatusOK, pagesForm{Facts: siteOf(c).Facts, Ready: "home"})
}

func (s *Server) pagesScreen(c *gin.Context, status int, form pagesForm) {
	st := siteOf(c)
	src, err := s.source(c, st)
	if err != nil {
		s.fail(c, err)
		return
	}
	stage := s.workshop.Stage(st, src, "")
	var cards []pageCard
	for _, i := range src.Pages {
		p, err := s.Store.Page(c, st.ID, i.Slug)
		if err != nil {
			s.fail(c, err)
			return
		}
		cards = append(
			cards,
			pageCard{Slug: pageSlug(i.Slug), Name: i.Name, State: publishedState(i), Drawing: stage.For(i.Slug).DrawPage(p.Doc, 290)},
		)
	}
	s.screen(c, status, "pages", map[string]any{
		"User": user(c), "Site": st, "Pages": cards, "Live": s.PagesURL + "/" + st.Slug + "/", "Role": st.Role,
		"Form": form, "ReadyPages": edit.ReadyPages, "Kept": c.Query("kept") == "facts",
	})
}

func pageSlug(slug string) string {
	if slug == "" {
		return homeSlug
	}
	return slug
}

func publishedState(i *store.PageInfo) string {
	switch {
	case i.PublishedSeq == nil:
		return "Not published yet"
	case *i.PublishedSeq == i.Seq:
		return "Published"
	}
	return "Published, with newer edits here"
}
