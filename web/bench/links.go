package bench

import (
	"net/http"
	"slices"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/icons"
	"openplot/store"
	"openplot/web/shell"
)

// target is something of the site that a link can lead to.
type target struct {
	Name string `json:"name"`
	Href string `json:"href"`
	File string `json:"file,omitempty"` // of a file of the library: how it ends
}

// links answers with what links can lead to: the site's pages and files or, of one page, the
// sections that have an anchor.
func (s *Shelf) links(c *gin.Context) {
	st := shell.SiteOf(c)
	pages, err := s.Store.Pages.List(c, st.ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	out := []target{}
	of, one := c.GetQuery("page")
	if !one {
		for _, p := range pages {
			out = append(out, target{Name: p.Name, Href: "/" + p.Slug})
		}
		ms, err := s.Store.Media.List(c, st.ID)
		if err != nil {
			s.Fail(c, err)
			return
		}
		for _, m := range ms {
			if !m.Picture() && !m.Video() {
				out = append(out, target{m.Name, doc.FilePrefix + m.ID, strings.ToUpper(m.Extension())})
			}
		}
		c.JSON(http.StatusOK, out)
		return
	}
	if !slices.ContainsFunc(pages, func(p *store.PageInfo) bool { return "/"+p.Slug == of }) {
		c.JSON(http.StatusNotFound, out)
		return
	}
	p, err := s.Store.Pages.At(c, st.ID, of[1:])
	if err != nil {
		s.Fail(c, err)
		return
	}
	for _, sec := range p.Doc.Sections {
		if sec.Anchor != "" {
			out = append(out, target{Name: sec.Name, Href: of + "#" + sec.Anchor})
		}
	}
	c.JSON(http.StatusOK, out)
}

// iconSheet answers with all icons that ship, to be chosen from: their names and drawings.
func (s *Shelf) iconSheet(c *gin.Context) {
	c.Header("Cache-Control", "private, max-age=86400")
	s.Parted(c, http.StatusOK, "icon-sheet", icons.Find("", 10_000))
}
