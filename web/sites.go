package web

import (
	"html/template"
	"net/http"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
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
	waiting := false // some drawings are still to be made
	for _, st := range sites {
		pages, all, err := s.Store.DrawnPages(c, st.ID, s.lookOf(st), 0, 1)
		if err != nil {
			s.fail(c, err)
			return
		}
		card := siteCard{Slug: st.Slug, Name: st.Name, Role: string(st.Role), Pages: all}
		if len(pages) > 0 {
			card.Drawing = template.HTML(pages[0].SVG)
			if !pages[0].Fresh {
				waiting = true
				if err := s.Store.WantDrawings(c, st.Slug); err != nil {
					s.fail(c, err)
					return
				}
			}
		}
		cards = append(cards, card)
	}
	s.screen(c, http.StatusOK, "sites", map[string]any{"User": user(c), "Sites": cards, "Waiting": waiting})
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
	cards, err := s.cards(c, st, 0)
	if err != nil {
		s.fail(c, err)
		return
	}
	s.screen(c, status, "pages", map[string]any{
		"User": user(c), "Site": st, "Cards": cards, "Live": s.Hosts.Public(st.Slug) + "/", "Role": st.Role,
		"Form": form, "Ready": readyView(st, form.Ready), "Kept": c.Query("kept") == "facts",
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
