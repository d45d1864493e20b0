package library

import (
	"errors"
	"net/http"
	"strings"
	"sync"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/stock"
	"openplot/web/shell"
)

// stockWidth is the width in px at which stock pictures are shown to be chosen.
const stockWidth = 360

// thumb draws a stock picture as it is shown, once.
var thumb = func() func(p *stock.Picture) []byte {
	var drawn sync.Map // as many as there are pictures, by id
	return func(p *stock.Picture) []byte {
		once, _ := drawn.LoadOrStore(p.ID, sync.OnceValue(func() []byte { return p.Draw(stockWidth).PNG() }))
		return once.(func() []byte)()
	}
}()

// stockPicture serves a picture that ships, small.
func (s *Screen) stockPicture(c *gin.Context) {
	p := stock.Find(strings.TrimSuffix(c.Param("picture"), ".png"))
	if p == nil {
		c.Status(http.StatusNotFound)
		return
	}
	c.Header("Cache-Control", "private, max-age=86400")
	c.Data(http.StatusOK, "image/png", thumb(p))
}

// takeStock puts a picture that ships into the site's library, once, and answers with its card.
func (s *Screen) takeStock(c *gin.Context) {
	st := shell.SiteOf(c)
	p := stock.Find(c.PostForm("id"))
	if p == nil {
		c.String(http.StatusUnprocessableEntity, "There is no such stock picture.")
		return
	}
	media, err := s.Store.Media.List(c, st.ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	own, _, err := s.Stocked(c, st, media, []string{p.ID})
	var problem *doc.Problem
	if errors.As(err, &problem) {
		c.String(http.StatusUnprocessableEntity, "%s: %s", p.Name, problem.Sentence())
		return
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	m, err := s.Store.Media.ByID(c, st.ID, own[p.ID])
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Parted(c, http.StatusOK, "library-item", s.opened(st, m, nil))
}
