package visitors

import (
	"net/http"
	"os"
	"path"
	"path/filepath"
	"regexp"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/media"
	"openplot/site"
)

// pageHeaders are those of a site's pages. Frames may show its own HTML, which is at a host of
// its own, or players elsewhere.
func pageHeaders(h http.Header, own string) {
	h.Set(
		"Content-Security-Policy",
		"default-src 'none'; img-src 'self' data:; style-src 'self'; script-src 'self'; font-src 'self'; media-src 'self'; frame-src "+
			strings.TrimSpace("https: "+own)+"; form-action 'self'; base-uri 'none'; frame-ancestors 'none'",
	)
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("Referrer-Policy", "strict-origin-when-cross-origin")
	h.Set("Cross-Origin-Opener-Policy", "same-origin")
}

// ownHeaders let a site's own HTML do what it likes within its frame on the site's pages, and
// nothing outside it: the page is of an origin that no other has (CSP 3 §6.3.2, sandbox), even
// when it is opened by itself.
func (s *Server) ownHeaders(h http.Header, slug string) {
	h.Set("Content-Security-Policy", "sandbox allow-scripts; frame-ancestors "+s.Hosts.Public(slug)+" "+s.Hosts.Draft(slug))
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("Referrer-Policy", "no-referrer")
	h.Set("X-Robots-Tag", "noindex")
}

// svgHeaders keep an SVG from doing anything but being looked at.
func svgHeaders(h http.Header) {
	h.Set("Content-Security-Policy", "default-src 'none'; style-src 'unsafe-inline'; sandbox")
	h.Set("Content-Type", "image/svg+xml")
}

const forGood = "public, max-age=31536000, immutable"

// hashed are files whose name changes with what is in them: style sheets, scripts, own HTML and
// fonts by hash, copies of pictures by an id that is used once.
var hashed = regexp.MustCompile(`^assets/(style-[0-9a-f]{12}\.css|[a-z]+-[0-9a-f]{8}\.js|own-[0-9a-f]{12}\.html|fonts/[A-Za-z0-9-]+-[0-9a-f]{8,16}\.woff2|media/f[0-9a-v]{13}-[0-9]+\.[a-z0-9]+)$`)

// published serves what was published: pages and what they need at the site's host, own HTML
// at the host that is for it.
func (s *Server) published(w http.ResponseWriter, r *http.Request) {
	if r.Method != http.MethodGet && r.Method != http.MethodHead {
		w.Header().Set("Allow", "GET, HEAD")
		http.Error(w, "Pages can only be read.", http.StatusMethodNotAllowed)
		return
	}
	face, slug := s.Hosts.Which(r.Host)
	clean := path.Clean("/" + r.URL.Path)
	name := strings.TrimPrefix(clean, "/")
	embed := strings.HasPrefix(path.Base(name), site.EmbedPrefix) && path.Ext(name) == ".html"
	switch {
	case strings.Contains(clean, "/.") || strings.ContainsRune(clean, 0):
		http.NotFound(w, r)
		return
	case face == site.Public && embed: // where it was before, and pages of that time look for it
		http.Redirect(w, r, s.Hosts.Own(slug)+"/"+path.Base(name), http.StatusMovedPermanently)
		return
	case face == site.Own && embed && !strings.Contains(name, "/"):
		name = "assets/" + name
	case face != site.Public:
		http.NotFound(w, r)
		return
	}
	root, err := os.OpenRoot(filepath.Join(s.SiteDir, slug))
	if err != nil {
		http.NotFound(w, r)
		return
	}
	defer root.Close()
	fi, err := root.Stat(filepath.FromSlash(path.Join(".", name)))
	if err != nil {
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
	h := w.Header()
	if pageHeaders(h, s.Hosts.Own(slug)); face == site.Own {
		s.ownHeaders(h, slug)
	}
	h.Set("Cache-Control", "no-cache")
	if hashed.MatchString(name) {
		h.Set("Cache-Control", forGood)
	}
	if strings.HasSuffix(name, ".svg") {
		svgHeaders(h)
	}
	setType(h, name)
	http.ServeContent(w, r, name, fi.ModTime(), f)
}

// setType says what a file is whose type isn't in every system's table, and that what
// browsers don't show is to be saved.
func setType(h http.Header, name string) {
	switch ext := path.Ext(name); ext {
	case ".webp", ".avif":
		h.Set("Content-Type", "image/"+ext[1:])
	case ".webm", ".mp4":
		h.Set("Content-Type", "video/"+ext[1:])
	case ".mp3":
		h.Set("Content-Type", "audio/mpeg")
	case ".m4a":
		h.Set("Content-Type", "audio/mp4")
	case ".ogg", ".wav", ".flac", ".aac":
		h.Set("Content-Type", "audio/"+ext[1:])
	case ".pdf": // what shows it takes a sandbox for a refusal
		h.Set("Content-Type", "application/pdf")
		h.Del("Content-Security-Policy")
	case ".txt", ".csv", ".ics", ".vcf":
		h.Set("Content-Type", map[string]string{".txt": "text/plain", ".csv": "text/csv", ".ics": "text/calendar", ".vcf": "text/vcard"}[ext]+"; charset=utf-8")
	case ".zip", ".epub", ".gpx", ".docx", ".xlsx", ".pptx", ".odt", ".ods", ".odp":
		h.Set("Content-Type", "application/octet-stream")
		h.Set("Content-Disposition", "attachment")
	}
}

// mediaFile serves a copy of an upload to the Bench and to previews.
func (s *Server) mediaFile(c *gin.Context) {
	name := path.Base(c.Param("file"))
	if strings.HasPrefix(name, ".") || strings.HasSuffix(name, media.OriginalMark) || strings.ContainsRune(name, 0) {
		c.Status(http.StatusNotFound)
		return
	}
	h := c.Writer.Header()
	h.Set("Cache-Control", forGood)
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("Cross-Origin-Resource-Policy", "cross-origin")
	h.Set("Content-Security-Policy", "default-src 'none'; sandbox")
	if path.Ext(name) == ".svg" {
		svgHeaders(h)
	}
	setType(h, name)
	c.File(filepath.Join(s.MediaDir, name))
}
