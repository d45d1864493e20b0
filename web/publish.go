package web

import (
	"context"
	"net/http"
	"net/url"
	"strconv"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/site"
	"openplot/store"
)

// try opens a preview of the page as it stands, on the second origin.
func (s *Server) try(c *gin.Context) {
	slug := pageOf(c).Slug
	if slug != "" {
		slug += "/"
	}
	token := s.Previews.Token(siteOf(c).Slug, time.Now().Add(site.PreviewLife))
	c.Redirect(http.StatusSeeOther, s.PagesURL+"/try/"+token+"/"+slug)
}

// publish writes the page to disk.
func (s *Server) publish(c *gin.Context) {
	v, err := s.look(c)
	if err != nil {
		s.fail(c, err)
		return
	}
	address, lacking, err := s.publisher.Release(c, s.Store, v.Source, pageOf(c))
	if err != nil {
		s.fail(c, err)
		return
	}
	message := "Published as of edit " + strconv.FormatInt(v.Seq, 10) + "."
	if lacking > 0 {
		message += " Copies of pictures are still being made; the page gets them by itself."
	}
	s.answer(c, http.StatusOK, answer{View: v, message: message, link: s.PagesURL + (&url.URL{Path: address}).EscapedPath(), noTray: true})
}

// CopiesMade brings copies of a picture to the pages that were published without them.
func (s *Server) CopiesMade(ctx context.Context, job store.MakeCopies) error {
	return s.publisher.CopiesMade(ctx, s.Store, job)
}
