package web

import (
	"html/template"
	"net/http"
	"strconv"

	"github.com/gin-gonic/gin"

	"openplot/core/ready"
	"openplot/store"
)

// readyPages are the ready-made pages that a new one can begin as.
type readyPages struct {
	Site, Chosen string
	Drawn        bool
	Pages        []readyPage
}

type readyPage struct {
	ready.Page
	Drawing template.HTML
}

// readyView lists the ready-made pages, which are drawn when they are asked for by themselves.
func readyView(st *store.Site, chosen string) *readyPages {
	v := &readyPages{Site: st.Slug, Chosen: chosen}
	for _, r := range ready.Pages {
		v.Pages = append(v.Pages, readyPage{Page: r})
	}
	return v
}

// The size in px of a ready-made page's drawing.
const (
	readyWidth  = 150
	readyHeight = 190
)

// drawReady answers with the ready-made pages drawn in the site's house style and in the words
// of its business.
func (s *Server) drawReady(c *gin.Context) {
	st := siteOf(c)
	src, err := s.source(c, st)
	if err != nil {
		s.fail(c, err)
		return
	}
	stage := s.workshop.Stage(st, src, "")
	stocked(stage)
	v := readyView(st, c.Query("ready"))
	v.Drawn = true
	for i := range v.Pages {
		r := &v.Pages[i]
		ids := 0
		p, err := ready.NewPage(r.ID, r.Name, ready.FindBusiness(st.Business), func(prefix string) string {
			ids++
			return prefix + "-" + r.ID + "-" + strconv.Itoa(ids)
		}, func(id string) string { return stockPrefix + id })
		if err != nil {
			s.fail(c, err)
			return
		}
		r.Drawing = stage.DrawReady(r.ID, p, readyWidth, readyHeight)
	}
	s.parted(c, http.StatusOK, "ready-pages", v)
}
