package web

import (
	"bytes"
	"errors"
	"net/http"
	"slices"
	"strings"
	"sync"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/stock"
	"openplot/store"
)

// stockItem is a picture that ships, as people choose it.
type stockItem struct{ ID, Name, Alt, Thumb string }

func stockItems() (out []stockItem) {
	for i := range stock.Pictures {
		p := &stock.Pictures[i]
		out = append(out, stockItem{p.ID, p.Name, p.Alt, "/stock/" + p.ID + ".png"})
	}
	return out
}

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
func (s *Server) stockPicture(c *gin.Context) {
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
func (s *Server) takeStock(c *gin.Context) {
	st := siteOf(c)
	p := stock.Find(c.PostForm("id"))
	if p == nil {
		c.String(http.StatusUnprocessableEntity, "There is no such stock picture.")
		return
	}
	m, err := s.Pictures.Keep(c, by(c), p.Name, p.Alt, bytes.NewReader(p.Draw(p.Width).PNG()))
	var problem *doc.Problem
	if errors.As(err, &problem) {
		c.String(http.StatusUnprocessableEntity, "%s: %s", p.Name, problem.Sentence())
		return
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	if c.PostForm("for") == "bench" {
		c.String(http.StatusOK, m.ID)
		return
	}
	s.parted(c, http.StatusOK, "library-item", s.libraryItem(st, m, nil))
}

// stocked gives the site's own of stock pictures, by their ids there, and puts those into its
// library that it doesn't have yet.
func (s *Server) stocked(c *gin.Context, st *store.Site, has []*store.Medium, wanted []string) (ids map[string]string, added bool, err error) {
	ids = map[string]string{}
	for _, id := range wanted {
		p := stock.Find(id)
		if p == nil {
			continue
		}
		if i := slices.IndexFunc(has, func(m *store.Medium) bool { return m.Name == p.Name && m.Alt == p.Alt }); i >= 0 {
			ids[id] = has[i].ID
			continue
		}
		m, err := s.Pictures.Keep(c, by(c), p.Name, p.Alt, bytes.NewReader(p.Draw(p.Width).PNG()))
		if err != nil {
			return nil, false, err
		}
		ids[id], added = m.ID, true
	}
	return ids, added, nil
}
