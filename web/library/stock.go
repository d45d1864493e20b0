package library

import (
	"bytes"
	"errors"
	"net/http"
	"strings"
	"sync"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/stock"
	"openplot/web/desk"
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

// takeStock puts a picture that ships into the site's library. It answers with its id for
// the Bench, with its card otherwise.
func (s *Screen) takeStock(c *gin.Context) {
	st := shell.SiteOf(c)
	p := stock.Find(c.PostForm("id"))
	if p == nil {
		c.String(http.StatusUnprocessableEntity, "There is no such stock picture.")
		return
	}
	m, err := s.Pictures.Keep(c, desk.By(c), p.Name, p.Alt, bytes.NewReader(p.Draw(p.Width).PNG()))
	var problem *doc.Problem
	if errors.As(err, &problem) {
		c.String(http.StatusUnprocessableEntity, "%s: %s", p.Name, problem.Sentence())
		return
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	if c.PostForm("for") == "bench" {
		c.String(http.StatusOK, m.ID)
		return
	}
	s.Parted(c, http.StatusOK, "library-item", s.libraryItem(st, m, nil))
}
