package visitors

import (
	"errors"
	"net/http"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/core/number"
	"openplot/origin"
	"openplot/store"
)

// countVisit counts that a page was seen in a window of a width. Of who it was only the network is
// looked at, to keep it from counting too often, and that is kept nowhere.
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
	err = s.Store.Visits.Count(c, at.Site, strings.Trim(c.PostForm("page"), "/"), width)
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
