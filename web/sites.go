package web

import (
	"html/template"
	"net/http"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/style"
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
		pages, err := s.Store.Pages(c, st.ID)
		if err != nil {
			s.fail(c, err)
			return
		}
		card := siteCard{Slug: st.Slug, Name: st.Name, Role: string(st.Role), Pages: len(pages)}
		if home, err := s.Store.Page(c, st.ID, ""); err == nil {
			if card.Drawing, err = s.pageDrawing(c, st, home, 400); err != nil {
				s.fail(c, err)
				return
			}
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
}

// pages shows the pages of a site.
func (s *Server) pages(c *gin.Context) {
	s.pagesScreen(c, http.StatusOK, pagesForm{Facts: siteOf(c).Facts, Ready: "home"})
}

func (s *Server) pagesScreen(c *gin.Context, status int, form pagesForm) {
	st := siteOf(c)
	infos, err := s.Store.Pages(c, st.ID)
	if err != nil {
		s.fail(c, err)
		return
	}
	var cards []pageCard
	for _, i := range infos {
		p, err := s.Store.Page(c, st.ID, i.Slug)
		if err != nil {
			s.fail(c, err)
			return
		}
		card := pageCard{Slug: pageSlug(i.Slug), Name: i.Name, State: publishedState(i)}
		if card.Drawing, err = s.pageDrawing(c, st, p, 290); err != nil {
			s.fail(c, err)
			return
		}
		cards = append(cards, card)
	}
	s.screen(c, status, "pages", map[string]any{
		"User": user(c), "Site": st, "Pages": cards, "Live": s.PagesURL + "/" + st.Slug + "/", "Designer": st.Role == store.Designer,
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

// pageDrawing draws a page at the widest zone's typical width.
func (s *Server) pageDrawing(c *gin.Context, st *store.Site, p *store.Page, width float64) (template.HTML, error) {
	stage, err := s.stage(c, st, p.Slug)
	if err != nil {
		return "", err
	}
	d := drawing{width: float64(st.Zones[0].Typical)}
	var b strings.Builder
	y := 0.0
	for _, sec := range p.Doc.Sections {
		if !sec.Hidden {
			box := stage.scene(sec).at(d.width)
			margin, view := box.Node.Styles[d.zone].Margin, style.Viewport{Width: d.width}
			y += margin.Top.Or(d.width, view, 0)
			d.section(&b, box, y)
			y += box.H + margin.Bottom.Or(d.width, view, 0)
		}
	}
	return d.svg(b.String(), y, width), nil
}
