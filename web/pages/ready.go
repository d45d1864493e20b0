package pages

import (
	"html/template"
	"net/http"
	"strconv"

	"github.com/gin-gonic/gin"

	"openplot/core/edit"
	"openplot/core/ready"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/shell"
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
func (s *Screen) drawReady(c *gin.Context) {
	st := shell.SiteOf(c)
	src, err := s.Source(c, st)
	if err != nil {
		s.Fail(c, err)
		return
	}
	stage := s.Workshop.Stage(st, src, "")
	desk.WithStock(stage)
	v := readyView(st, c.Query("ready"))
	v.Drawn = true
	for i := range v.Pages {
		r := &v.Pages[i]
		ids := 0
		p, err := ready.NewPage(r.ID, r.Name, ready.FindBusiness(st.Business), func(prefix string) string {
			ids++
			return prefix + "-" + r.ID + "-" + strconv.Itoa(ids)
		}, func(id string) string { return edit.StockPrefix + id })
		if err != nil {
			s.Fail(c, err)
			return
		}
		r.Drawing = stage.DrawReady(r.ID, p, readyWidth, readyHeight)
	}
	s.Parted(c, http.StatusOK, "ready-pages", v)
}
