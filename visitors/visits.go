package visitors

import (
	"errors"
	"net/http"
	"net/url"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/core/number"
	"openplot/core/visit"
	"openplot/origin"
	"openplot/site"
	"openplot/store"
)

// countVisit counts that a page was seen in a window of a width, and from where. Of who it was the network and the
// browser's name are looked at, to tell people of a day apart: a hash with a salt of the day is kept as long as the day.
// Robots aren't counted, nor who asks not to be (DNT, Sec-GPC).
func (s *Server) countVisit(c *gin.Context) {
	width, err := number.Whole(c.PostForm("width"))
	if err != nil || width < 1 {
		c.Status(http.StatusUnprocessableEntity)
		return
	}
	if !s.visits.Allow(origin.Network(c.ClientIP()), time.Now()) {
		c.Header("Retry-After", "1")
		c.Status(http.StatusTooManyRequests)
		return
	}
	at := standingOf(c)
	if at == nil {
		c.Status(http.StatusNotFound)
		return
	}
	h := c.Request.Header
	if visit.Robot(h.Get("User-Agent")) || h.Get("DNT") == "1" || h.Get("Sec-GPC") == "1" {
		c.Status(http.StatusNoContent)
		return
	}
	page, err := url.Parse(c.PostForm("page"))
	if err != nil {
		c.Status(http.StatusUnprocessableEntity)
		return
	}
	err = s.Store.Visits.See(c, at.Site, store.Viewed{
		Page: strings.Trim(page.Path, "/"), Width: width, Who: origin.Network(c.ClientIP()) + " " + h.Get("User-Agent"),
		From: visit.From(
			c.PostForm("from"),
			c.Request.Host,
		), Campaign: visit.Campaign(page.RawQuery), Language: visit.Language(c.PostForm("language")),
	})
	switch {
	case errors.Is(err, store.ErrNotFound):
		c.Status(http.StatusNotFound)
	case err != nil:
		s.Log.Error("visit", "id", origin.RequestID(c), "error", err)
		c.Status(http.StatusInternalServerError)
	default:
		c.Status(http.StatusNoContent)
	}
}

// count counts something that happened on the site that a host shows, unless a robot did it or somebody who asks not
// to be counted.
func (s *Server) count(c *gin.Context, what, key string) {
	at, h := standingOf(c), c.Request.Header
	if at == nil || c.MustGet(keyFace) != site.Public || visit.Robot(h.Get("User-Agent")) || h.Get("DNT") == "1" ||
		h.Get("Sec-GPC") == "1" ||
		!s.visits.Allow(origin.Network(c.ClientIP()), time.Now()) {
		return
	}
	if err := s.Store.Visits.Add(c, at.Site, store.Count{What: what, Key: visit.Line(key, 100)}); err != nil {
		s.Log.Warn("count", "id", origin.RequestID(c), "error", err)
	}
}
