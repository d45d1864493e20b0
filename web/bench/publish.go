package bench

import (
	"fmt"
	"net/http"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/metrics"
	"openplot/site"
	"openplot/store"
	"openplot/web/shell"
)

// publish writes the page to disk.
func (s *Screen) publish(c *gin.Context) {
	start := time.Now()
	v, err := s.Look(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	page := shell.PageOf(c)
	lacking, err := s.Publisher.Publish(
		c,
		s.Store,
		v.Source,
		site.Order{Pages: []*store.Page{page}, By: shell.User(c).ID, Note: page.Name},
	)
	if err != nil {
		s.Fail(c, err)
		return
	}
	metrics.Since(metrics.Publications, start)
	s.Note(c, "page published", v.Site.ID, page.Name)
	message := "Published, with all that is kept."
	if n := v.History.Edits; n > 0 { // the count that stands above the canvas
		message = fmt.Sprintf("Published, with all %d edits.", n)
	}
	if lacking > 0 {
		message += " Copies of pictures are still being made; the page gets them by itself."
	}
	link := s.Hosts.Public(v.Site.Slug) + strings.TrimSuffix("/"+page.Slug, "/") + "/"
	s.answer(c, http.StatusOK, answer{View: v, message: message, link: link, noTray: true})
}

// ask notes that somebody who may not publish says that the page is ready, for those who may.
func (s *Screen) ask(c *gin.Context) {
	v, err := s.Look(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	if err := s.Store.Pages.Ask(c, shell.PageOf(c).ID, shell.User(c).Name); err != nil {
		s.Fail(c, err)
		return
	}
	s.Note(c, "asked to publish", v.Site.ID, v.Page.Name)
	s.say(c, v, http.StatusOK, "Asked. Those who publish see it beside the page.")
}
