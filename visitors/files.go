package visitors

import (
	"net/http"
	"os"
	"path"
	"path/filepath"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/media"
	"openplot/site"
)

func pageHeaders(h http.Header) {
	h.Set(
		"Content-Security-Policy",
		"default-src 'none'; img-src 'self' data:; style-src 'self'; script-src 'self'; font-src 'self'; media-src 'self'; frame-src 'self' https:; form-action 'self'; base-uri 'none'; frame-ancestors 'none'",
	)
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("Referrer-Policy", "strict-origin-when-cross-origin")
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

// mediaFile serves a copy of an upload, on the second origin.
func (s *Server) mediaFile(c *gin.Context) {
	name := path.Base(c.Param("file"))
	if strings.HasPrefix(name, ".") || strings.HasSuffix(name, media.OriginalMark) {
		c.Status(http.StatusNotFound)
		return
	}
	c.Header("Cache-Control", "public, max-age=31536000, immutable")
	c.Header("X-Content-Type-Options", "nosniff")
	c.Header("Cross-Origin-Resource-Policy", "cross-origin")
	c.Header("Content-Security-Policy", "default-src 'none'")
	switch path.Ext(name) {
	case ".svg":
		svgHeaders(c.Writer.Header())
	case ".webp":
		c.Header("Content-Type", "image/webp")
	case ".avif":
		c.Header("Content-Type", "image/avif")
	case ".webm":
		c.Header("Content-Type", "video/webm")
	}
	c.File(filepath.Join(s.MediaDir, name))
}
