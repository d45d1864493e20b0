package web

import (
	"context"
	"net/http"
	"strconv"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/metrics"
	"openplot/site"
	"openplot/store"
)

// publish writes the page to disk.
func (s *Server) publish(c *gin.Context) {
	start := time.Now()
	v, err := s.look(c)
	if err != nil {
		s.fail(c, err)
		return
	}
	page := pageOf(c)
	lacking, err := s.publisher.Publish(c, s.Store, v.Source, site.Order{Pages: []*store.Page{page}, By: user(c).ID, Note: page.Name})
	if err != nil {
		s.fail(c, err)
		return
	}
	metrics.Since(metrics.Publications, start)
	s.note(c, "page published", v.Site.ID, page.Name)
	message := "Published as of edit " + strconv.FormatInt(v.Seq, 10) + "."
	if lacking > 0 {
		message += " Copies of pictures are still being made; the page gets them by itself."
	}
	link := s.Hosts.Public(v.Site.Slug) + strings.TrimSuffix("/"+page.Slug, "/") + "/"
	s.answer(c, http.StatusOK, answer{View: v, message: message, link: link, noTray: true})
}

// CopiesMade brings copies of a picture to the pages that were published without them.
func (s *Server) CopiesMade(ctx context.Context, job store.MakeCopies) error {
	return s.publisher.CopiesMade(ctx, s.Store, job)
}
