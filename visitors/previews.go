package visitors

import (
	"errors"
	"net/http"
	"path"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/origin"
	"openplot/site"
	"openplot/store"
)

// opened is the preview that a request's token opens, if it is of the host's site; it
// answers otherwise.
func (s *Server) opened(c *gin.Context) (*store.Preview, bool) {
	p, err := s.Store.Previews.Named(c, c.Param("token"))
	if err == nil && p.Site == c.GetString(keySlug) {
		return p, true
	}
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		s.Log.Error("preview", "id", origin.RequestID(c), "error", err)
		s.tell(
			c,
			http.StatusServiceUnavailable,
			"The preview can’t be made just now",
			"Try it again in a moment.",
			"",
		)
		return nil, false
	}
	s.tell(c, http.StatusNotFound, "This preview has ended", "Ask whoever sent it for a new one.", "")
	return nil, false
}

// tryForm keeps what was sent from a preview, as a trial.
func (s *Server) tryForm(c *gin.Context) {
	form, ok := strings.CutPrefix(c.Param("path"), "/_forms/")
	if !ok {
		s.notHere(c)
		return
	}
	p, ok := s.opened(c)
	if !ok {
		return
	}
	st, err := s.Store.Sites.ByID(c, p.SiteID)
	if err != nil {
		forms{s}.formFailed(c, err)
		return
	}
	forms{s}.keepForm(c, st, form, nil, true)
}

// preview renders a page of a site as it stands now, or what it needs: its style sheet, or
// at the host for that its own HTML.
func (s *Server) preview(c *gin.Context) {
	p, ok := s.opened(c)
	if !ok {
		return
	}
	rest := strings.Trim(c.Param("path"), "/")
	file := path.Base(rest)
	embed := strings.HasPrefix(file, site.EmbedPrefix) && path.Ext(file) == ".html"
	if embed != (c.MustGet(keyFace) == site.Own) {
		s.notHere(c)
		return
	}
	if css := file == "style.css"; css || embed {
		rest = strings.Trim(strings.TrimSuffix(rest, file), "/")
	}
	st, err := s.Store.Sites.ByID(c, p.SiteID)
	if err != nil {
		s.notHere(c)
		return
	}
	if p.PageID != "" && rest != p.Slug {
		s.tell(
			c,
			http.StatusNotFound,
			"This preview is of one page",
			"Other pages of the site aren’t part of it.",
			"/try/"+c.Param("token")+"/"+p.Slug,
		)
		return
	}
	page, err := s.Store.Pages.At(c, st.ID, store.Clean(rest))
	if err != nil {
		s.notHere(c)
		return
	}
	src, err := site.ReadSource(c, s.Store, st)
	if err == nil && p.PageID != "" {
		err = s.alone(c, &src, p.PageID)
	}
	if err != nil {
		s.Log.Error("preview", "id", origin.RequestID(c), "error", err)
		s.tell(
			c,
			http.StatusServiceUnavailable,
			"The preview can’t be made just now",
			"Try it again in a moment.",
			"",
		)
		return
	}
	r := s.rendered(src, page, "/try/"+c.Param("token"))
	h := c.Writer.Header()
	pageHeaders(h, site.Frames(r.Body)...)
	h.Set("Cache-Control", "no-store")
	h.Set("X-Robots-Tag", "noindex")
	h.Set("Referrer-Policy", "same-origin") // the address opens the preview
	switch {
	case embed:
		markup, ok := r.Embeds[file]
		if !ok {
			s.notHere(c)
			return
		}
		s.ownHeaders(h, &store.Standing{Slug: p.Site})
		c.Data(http.StatusOK, "text/html; charset=utf-8", []byte(site.EmbedDocument(markup)))
	case file == "style.css":
		c.Data(http.StatusOK, "text/css; charset=utf-8", []byte(r.CSS))
	default:
		c.Data(http.StatusOK, "text/html; charset=utf-8", []byte(r.HTML))
	}
}

// rendered is a page of a preview whose addresses are below root.
func (s *Server) rendered(src site.Source, page *store.Page, root string) site.Rendered {
	return src.Render(page.Slug, page.Doc, site.Addresses{
		MediaDir: s.MediaDir,
		Scenes:   site.ScenesPath, StyleScenes: site.ScenesPath,
		Script:  func(name string) string { return "/scripts/" + name + ".js" },
		OwnFont: func(f *store.Font) string { return "own/" + f.File },
		Stylesheet: root + path.Join(
			"/",
			page.Slug,
			"style.css",
		), Media: "/media/", StyleMedia: "/media/", Fonts: "/fonts/", StyleFonts: "/fonts/",
		Form:  func(block string) string { return root + "/_forms/" + block },
		Embed: func(file string) string { return s.Hosts.Own(src.Site.Slug) + root + path.Join("/", page.Slug, file) },
		Link: func(href string) string {
			if after, ok := strings.CutPrefix(href, "/"); ok {
				return root + "/" + after
			}
			return href
		},
	})
}

// script serves a script of published pages to previews.
func (s *Server) script(c *gin.Context) {
	b, err := site.Script(strings.TrimSuffix(c.Param("name"), ".js"))
	if err != nil {
		s.notHere(c)
		return
	}
	pageHeaders(c.Writer.Header())
	c.Data(http.StatusOK, "text/javascript; charset=utf-8", b)
}

// alone leaves of a site's pages what a preview of one page may tell: that page, and of the others
// what visitors know of them.
func (s *Server) alone(c *gin.Context, src *site.Source, page string) error {
	known, err := s.Store.Visible.Known(c, src.Site.ID)
	if err != nil {
		return err
	}
	var pages []*store.PageInfo
	for _, info := range src.Pages {
		k, published := known[info.ID]
		switch {
		case info.ID == page:
			pages = append(pages, info)
		case published:
			as := *info
			as.Name, as.Description, as.Slug, as.MenuName = k.Name, k.Description, k.Slug, ""
			pages = append(pages, &as)
		}
	}
	src.Pages = pages
	return nil
}
