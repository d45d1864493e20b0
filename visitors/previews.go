package visitors

import (
	"net/http"
	"path"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/site"
	"openplot/store"
)

// tryForm keeps what was sent from a preview, as a trial.
func (s *Server) tryForm(c *gin.Context) {
	form, ok := strings.CutPrefix(c.Param("path"), "/_forms/")
	slug, valid := s.Previews.Site(c.Param("token"), time.Now())
	if !ok || !valid {
		visitorPage(c, http.StatusNotFound, "This preview has ended", "Choose “Try it” on the Bench for a new one.", "")
		return
	}
	s.keepForm(c, slug, form, true)
}

// preview renders a page of a site as it stands now.
func (s *Server) preview(c *gin.Context) {
	slug, ok := s.Previews.Site(c.Param("token"), time.Now())
	if !ok {
		c.String(http.StatusNotFound, "This preview has ended. Choose “Try it” on the Bench for a new one.")
		return
	}
	rest := strings.Trim(c.Param("path"), "/")
	css := path.Base(rest) == "style.css"
	if css {
		rest = strings.Trim(strings.TrimSuffix(rest, "style.css"), "/")
	}
	st, err := s.Store.SiteBySlug(c, slug)
	if err != nil {
		c.String(http.StatusNotFound, "There is nothing here.")
		return
	}
	p, err := s.Store.Page(c, st.ID, rest)
	if err != nil {
		c.String(http.StatusNotFound, "This site has no page at /%s.", rest)
		return
	}
	src, err := site.ReadSource(c, s.Store, &st.Site)
	if err != nil {
		c.String(http.StatusInternalServerError, "The preview can't be made just now.")
		return
	}
	root := "/try/" + c.Param("token")
	r := src.Render(rest, p.Doc, site.Addresses{
		Script:     func(name string) string { return "/scripts/" + name + ".js" },
		OwnFont:    func(f *store.Font) string { return "own/" + f.File },
		Stylesheet: root + path.Join("/", rest, "style.css"), Media: "/media/", StyleMedia: "/media/", Fonts: "/fonts/", StyleFonts: "/fonts/",
		Form: func(block string) string { return root + "/_forms/" + block },
		Link: func(href string) string {
			if after, ok := strings.CutPrefix(href, "/"); ok {
				return root + "/" + after
			}
			return href
		},
	})
	pageHeaders(c.Writer.Header())
	c.Header("Cache-Control", "no-store")
	c.Header("X-Robots-Tag", "noindex")
	if css {
		c.Data(http.StatusOK, "text/css; charset=utf-8", []byte(r.CSS))
		return
	}
	c.Data(http.StatusOK, "text/html; charset=utf-8", []byte(r.HTML))
}

// script serves a script of published pages to previews.
func (s *Server) script(c *gin.Context) {
	b, err := site.Script(strings.TrimSuffix(c.Param("name"), ".js"))
	if err != nil {
		c.String(http.StatusNotFound, "There is no such script.")
		return
	}
	pageHeaders(c.Writer.Header())
	c.Data(http.StatusOK, "text/javascript; charset=utf-8", b)
}
