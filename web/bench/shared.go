package bench

import (
	"net/http"
	"slices"

	"github.com/gin-gonic/gin"

	"openplot/store"
	"openplot/web/model"
	"openplot/web/shell"
)

// sharedOn answers with the pages that a shared section stands on, each drawn with what is around
// it: what is changed of the section is seen on all of them.
func (s *Shelf) sharedOn(c *gin.Context) {
	st, here := shell.SiteOf(c), shell.PageOf(c)
	section := store.Clean(c.Param("section"))
	src, err := s.Source(c, st)
	if err != nil {
		s.Fail(c, err)
		return
	}
	width, err := model.ReadWidth(c.Query("width"), float64(st.Zones[0].Typical))
	if err != nil {
		s.Fail(c, err)
		return
	}
	var on []model.OnPage
	for _, info := range src.Pages {
		if !slices.Contains(info.Shared, section) {
			continue
		}
		p, err := s.Store.Pages.ByID(c, st.ID, info.ID)
		if err != nil {
			s.Fail(c, err)
			return
		}
		drawn := s.Workshop.Stage(st, src, info.Slug).DrawOn(p.Doc, section, width)
		drawn.Here = info.ID == here.ID
		on = append(on, drawn)
	}
	s.Parted(c, http.StatusOK, "shared-on", on)
}
