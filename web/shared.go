package web

import (
	"net/http"
	"slices"

	"github.com/gin-gonic/gin"

	"openplot/store"
	"openplot/web/bench"
)

// sharedOn answers with the pages that a shared section stands on, each drawn with what is around
// it: what is changed of the section is seen on all of them.
func (s *Server) sharedOn(c *gin.Context) {
	st, here := siteOf(c), pageOf(c)
	section := store.Clean(c.Param("section"))
	src, err := s.source(c, st)
	if err != nil {
		s.fail(c, err)
		return
	}
	width, err := bench.ReadWidth(c.Query("width"), float64(st.Zones[0].Typical))
	if err != nil {
		s.fail(c, err)
		return
	}
	var on []bench.OnPage
	for _, info := range src.Pages {
		if !slices.Contains(info.Shared, section) {
			continue
		}
		p, err := s.Store.Pages.ByID(c, st.ID, info.ID)
		if err != nil {
			s.fail(c, err)
			return
		}
		drawn := s.workshop.Stage(st, src, info.Slug).DrawOn(p.Doc, section, width)
		drawn.Here = info.ID == here.ID
		on = append(on, drawn)
	}
	s.parted(c, http.StatusOK, "shared-on", on)
}
