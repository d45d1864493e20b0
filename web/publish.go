package web

import (
	"context"
	"crypto/hmac"
	"crypto/sha256"
	"encoding/base64"
	"encoding/binary"
	"net/http"
	"net/url"
	"os"
	"path"
	"path/filepath"
	"strconv"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/site"
	"openplot/store"
)

// previewLife is how long a preview's address works.
const previewLife = 12 * time.Hour

// try opens a preview of the page as it stands, on the second origin.
func (s *Server) try(c *gin.Context) {
	slug := pageOf(c).Slug
	if slug != "" {
		slug += "/"
	}
	token := s.previewToken(siteOf(c).Slug, time.Now().Add(previewLife))
	c.Redirect(http.StatusSeeOther, s.PagesURL+"/try/"+token+"/"+slug)
}

// previewToken is the site's slug, the time it ends, and a signature over both.
func (s *Server) previewToken(slug string, ends time.Time) string {
	b := binary.BigEndian.AppendUint64(nil, uint64(ends.Unix()))
	b = append(b, slug...)
	return base64.RawURLEncoding.EncodeToString(append(s.sign(b), b...))
}

func (s *Server) sign(b []byte) []byte {
	m := hmac.New(sha256.New, s.Secret)
	m.Write([]byte("preview"))
	m.Write(b)
	return m.Sum(nil)[:16]
}

// previewed gives the slug that a token is for.
func (s *Server) previewed(token string, now time.Time) (string, bool) {
	b, err := base64.RawURLEncoding.DecodeString(token)
	if err != nil || len(b) < 24 || !hmac.Equal(b[:16], s.sign(b[16:])) {
		return "", false
	}
	if now.Unix() > int64(binary.BigEndian.Uint64(b[16:24])) {
		return "", false
	}
	return string(b[24:]), true
}

func pageHeaders(h http.Header) {
	h.Set("Content-Security-Policy", "default-src 'none'; img-src 'self' data:; style-src 'self'; script-src 'self'; font-src 'self'; media-src 'self'; frame-src 'self' https:; form-action 'self'; base-uri 'none'; frame-ancestors 'none'")
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("Referrer-Policy", "strict-origin-when-cross-origin")
}

// preview renders a page of a site as it stands now.
func (s *Server) preview(c *gin.Context) {
	slug, ok := s.previewed(c.Param("token"), time.Now())
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
	media, err := s.Store.Media(c, st.ID)
	if err != nil {
		c.String(http.StatusInternalServerError, "The preview can't be made just now.")
		return
	}
	pages, err := s.Store.Pages(c, st.ID)
	if err != nil {
		c.String(http.StatusInternalServerError, "The preview can't be made just now.")
		return
	}
	own, err := s.Store.Fonts(c, st.ID)
	if err != nil {
		c.String(http.StatusInternalServerError, "The preview can't be made just now.")
		return
	}
	root := "/try/" + c.Param("token")
	r := site.Source{Site: &st.Site, Media: media, Pages: pages, Fonts: own}.Render(rest, p.Doc, site.Addresses{
		Script:     func(name string) string { return "/scripts/" + name + ".js" },
		OwnFont:    func(f *store.Font) string { return "own/" + f.File },
		Stylesheet: root + path.Join("/", rest, "style.css"), Media: "/media/", StyleMedia: "/media/", Fonts: "/fonts/", StyleFonts: "/fonts/",
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

// publish writes the page to disk.
func (s *Server) publish(c *gin.Context) {
	v, err := s.look(c)
	if err != nil {
		s.fail(c, err)
		return
	}
	p := pageOf(c)
	edition, err := v.source.Edition(v.seq, p.Slug, v.page)
	if err != nil {
		s.fail(c, err)
		return
	}
	ready, err := s.publisher.Prepare(v.source, p.Slug, v.page)
	if err != nil {
		s.fail(c, err)
		return
	}
	if err := s.Store.Publish(c, edition, ready.Put); err != nil {
		s.fail(c, err)
		return
	}
	lacking, err := s.publisher.CatchUp(c, s.Store, v.site.ID, edition)
	if err != nil {
		s.fail(c, err)
		return
	}
	message := "Published as of edit " + strconv.FormatInt(v.seq, 10) + "."
	if lacking > 0 {
		message += " Copies of pictures are still being made; the page gets them by itself."
	}
	s.answer(c, http.StatusOK, answer{view: v, message: message, link: s.PagesURL + (&url.URL{Path: ready.Address}).EscapedPath(), noTray: true})
}

// CopiesMade brings copies of a picture to the pages that were published without them.
func (s *Server) CopiesMade(ctx context.Context, job store.MakeCopies) error {
	return s.publisher.CopiesMade(ctx, s.Store, job)
}

// publishedFiles serves what was published.
func (s *Server) publishedFiles() http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if r.Method != http.MethodGet && r.Method != http.MethodHead {
			http.Error(w, "Pages can only be read.", http.StatusMethodNotAllowed)
			return
		}
		clean := path.Clean("/" + r.URL.Path)
		if strings.Contains(clean, "/.") {
			http.NotFound(w, r)
			return
		}
		root, err := os.OpenRoot(s.SiteDir)
		if err != nil {
			http.NotFound(w, r)
			return
		}
		defer root.Close()
		name := strings.TrimPrefix(clean, "/")
		fi, err := root.Stat(filepath.FromSlash(name))
		if name == "" || err != nil {
			http.NotFound(w, r)
			return
		}
		if fi.IsDir() {
			if !strings.HasSuffix(r.URL.Path, "/") {
				http.Redirect(w, r, clean+"/", http.StatusMovedPermanently)
				return
			}
			name = path.Join(name, "index.html")
		}
		f, err := root.Open(filepath.FromSlash(name))
		if err != nil {
			http.NotFound(w, r)
			return
		}
		defer f.Close()
		if fi, err = f.Stat(); err != nil || fi.IsDir() {
			http.NotFound(w, r)
			return
		}
		pageHeaders(w.Header())
		w.Header().Set("Cache-Control", "no-cache")
		if strings.Contains(name, "/assets/") {
			w.Header().Set("Cache-Control", "public, max-age=31536000, immutable")
		}
		if strings.HasSuffix(name, ".svg") {
			svgHeaders(w.Header())
		}
		if strings.HasPrefix(path.Base(name), site.EmbedPrefix) {
			embedHeaders(w.Header())
		}
		if ext := path.Ext(name); ext == ".webp" || ext == ".avif" { // not in every system's table
			w.Header().Set("Content-Type", "image/"+ext[1:])
		} else if ext == ".webm" || ext == ".mp4" {
			w.Header().Set("Content-Type", "video/"+ext[1:])
		}
		http.ServeContent(w, r, name, fi.ModTime(), f)
	})
}

// embedHeaders let own HTML do what it likes within its frame, and nothing outside it:
// the page is of an origin that no other has (CSP 3 §6.3.2, sandbox).
func embedHeaders(h http.Header) {
	h.Set("Content-Security-Policy", "sandbox allow-scripts; frame-ancestors 'self'")
}

// svgHeaders keep an SVG from doing anything but being looked at.
func svgHeaders(h http.Header) {
	h.Set("Content-Security-Policy", "default-src 'none'; style-src 'unsafe-inline'; sandbox")
	h.Set("Content-Type", "image/svg+xml")
}
