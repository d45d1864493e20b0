package visitors

import (
	"io/fs"
	"net/http"
	"os"
	"path"
	"path/filepath"
	"regexp"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/media"
	"openplot/site"
	"openplot/store"
)

// pageHeaders are those of a site's pages. Frames may show what is at some origins: its own HTML,
// which is at a host of its own, or players elsewhere.
func pageHeaders(h http.Header, frames ...string) {
	if len(frames) == 0 {
		frames = []string{"'none'"}
	}
	h.Set(
		"Content-Security-Policy",
		"default-src 'none'; connect-src 'self'; manifest-src 'self'; img-src 'self' data:; style-src 'self'; script-src 'self'; font-src 'self'; media-src 'self'; frame-src "+
			strings.Join(
				frames,
				" ",
			)+"; form-action 'self'; base-uri 'none'; frame-ancestors 'none'",
	)
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("Referrer-Policy", "strict-origin-when-cross-origin")
	h.Set("Cross-Origin-Opener-Policy", "same-origin")
}

// ownHeaders let a site's own HTML do what it likes within its frame on the site's pages, and
// nothing outside it: the page is of an origin that no other has (CSP 3 §6.3.2, sandbox), even
// when it is opened by itself.
func (s *Server) ownHeaders(h http.Header, at *store.Standing) {
	pages := []string{s.Hosts.Public(at.Slug), s.Hosts.Draft(at.Slug)}
	for _, host := range at.Domains {
		pages = append(pages, s.Hosts.Scheme+"://"+host)
	}
	h.Set("Content-Security-Policy", "sandbox allow-scripts; frame-ancestors "+strings.Join(pages, " "))
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
var hashed = regexp.MustCompile(
	`^assets/(style-[0-9a-f]{12}\.css|[a-z]+-[0-9a-f]{8}\.js|own-[0-9a-f]{12}\.html|fonts/[A-Za-z0-9-]+-[0-9a-f]{8,16}\.woff2|scenes/[a-z0-9-]+\.svg|media/f[0-9a-v]{13}-[0-9]+\.[a-z0-9]+)$`,
)

// published serves what was published: pages and what they need at the site's host, own HTML
// at the host that is for it.
func (s *Server) published(c *gin.Context) {
	w, r := c.Writer, c.Request
	face, _ := c.MustGet(keyFace).(site.Face)
	slug := c.GetString(keySlug)
	clean := path.Clean("/" + r.URL.Path)
	name := strings.TrimPrefix(clean, "/")
	embed := strings.HasPrefix(path.Base(name), site.EmbedPrefix) && path.Ext(name) == ".html"
	if strings.Contains(clean, "/.") || strings.ContainsRune(clean, 0) {
		http.NotFound(w, r)
		return
	}
	at := standingOf(c)
	if at == nil {
		http.NotFound(w, r)
		return
	}
	if at.Slug != slug { // it had this address before
		to := map[site.Face]string{site.Own: s.Hosts.Own(at.Slug), site.Public: s.Hosts.Public(at.Slug)}[face]
		if to == "" {
			http.NotFound(w, r)
			return
		}
		http.Redirect(w, r, to+r.URL.RequestURI(), http.StatusMovedPermanently)
		return
	}
	if !at.Published {
		http.NotFound(w, r)
		return
	}
	f, err := s.folder(at)
	if err != nil {
		http.NotFound(w, r)
		return
	}
	defer f.root.Close()
	h := w.Header()
	pageHeaders(h)
	reads := r.Method == http.MethodGet || r.Method == http.MethodHead
	switch {
	case reads && face == site.Public && path.Base(clean) == "index.html": // as files on a disk are called; the address is the folder's
		to := *r.URL
		to.Path, to.RawPath = strings.TrimSuffix(clean, "index.html"), ""
		http.Redirect(w, r, to.RequestURI(), http.StatusMovedPermanently)
	case r.Method == http.MethodPost && face == site.Public: // a password
		s.unlock(c, f, name)
	case r.Method != http.MethodGet && r.Method != http.MethodHead:
		h.Set("Allow", "GET, HEAD")
		http.Error(w, "Pages can only be read.", http.StatusMethodNotAllowed)
	case face == site.Public && embed: // where it was before, and pages of that time look for it
		http.Redirect(w, r, s.Hosts.Own(slug)+"/"+path.Base(name), http.StatusMovedPermanently)
	case face == site.Own && embed && !strings.Contains(name, "/"):
		s.ownHeaders(h, at)
		f.asset(w, r, "assets/"+name)
	case face != site.Public:
		http.NotFound(w, r)
	case strings.HasPrefix(name, "assets/"):
		if taken[path.Ext(name)] && r.Method == http.MethodGet && r.Header.Get("Range") == "" {
			if _, err := f.root.Stat(name); err == nil { // nothing is taken that isn't there
				id, _, _ := strings.Cut(path.Base(name), "-")
				s.count(c, store.CountedFile, id)
			}
		}
		f.asset(w, r, name)
	default:
		if _, moved := f.release.Moved[name]; !moved && f.release.Pages[name] == nil && f.release.Files[name] == nil {
			s.count(c, store.CountedMissing, clean)
		}
		page(w, r, f, name)
	}
}

// taken are the endings of files that visitors take away.
var taken = map[string]bool{
	".pdf": true, ".zip": true, ".epub": true, ".gpx": true, ".docx": true, ".xlsx": true, ".pptx": true, ".odt": true, ".ods": true, ".odp": true,
	".txt": true, ".csv": true, ".ics": true, ".vcf": true,
}

// page answers with what an address shows.
func page(w http.ResponseWriter, r *http.Request, f *folder, name string) {
	e, file := f.release.Pages[name], f.release.Files[name]
	switch to, moved := f.release.Moved[name]; {
	case e != nil && name != "" && !strings.HasSuffix(r.URL.Path, "/"):
		http.Redirect(w, r, "/"+name+"/", http.StatusMovedPermanently)
	case e != nil && f.lock(e) != "" && !opens(r, e.Page, f.lock(e)):
		f.askPassword(w, http.StatusOK, "")
	case e != nil:
		f.entry(w, r, e, http.StatusOK)
	case file != nil && !strings.HasSuffix(r.URL.Path, "/"):
		f.entry(w, r, file, http.StatusOK)
	case moved:
		if !strings.Contains(to, "://") {
			at := strings.IndexAny(to+"#", "?#")
			to = strings.TrimSuffix("/"+to[:at], "/") + "/" + to[at:]
		}
		http.Redirect(w, r, to, http.StatusMovedPermanently)
	case f.release.Missing != nil:
		f.entry(w, r, f.release.Missing, http.StatusNotFound)
	default:
		http.NotFound(w, r)
	}
}

// folder is the folder of a site, with what its host shows.
type folder struct {
	root    *os.Root
	release *site.Release
	locks   map[string]string
	own     string // origin of the site's own HTML
}

// lock is the hash of the password that what an address shows has now, or "".
func (f *folder) lock(e *site.Entry) string { return f.locks[e.Page] }

// known is what a host showed when it was last looked at.
type known struct {
	stat    fs.FileInfo
	release *site.Release
}

// releaseShare is about how many times the size of its file a release takes in memory.
const releaseShare = 4

// folder opens the folder of a site; it has to be closed.
func (s *Server) folder(at *store.Standing) (*folder, error) {
	root, err := os.OpenRoot(filepath.Join(s.SiteDir, at.Site))
	if err != nil {
		return nil, err
	}
	fi, err := site.StatRelease(root)
	if err != nil {
		root.Close()
		return nil, err
	}
	if k, ok := s.releases.Get(at.Site); ok && os.SameFile(k.stat, fi) && k.stat.ModTime().Equal(fi.ModTime()) {
		return &folder{root, k.release, at.Locks, s.Hosts.Own(at.Slug)}, nil
	}
	r, err := site.ReadRelease(root.FS())
	if err != nil {
		root.Close()
		return nil, err
	}
	s.releases.Put(at.Site, known{fi, r}, nil)
	return &folder{root, r, at.Locks, s.Hosts.Own(at.Slug)}, nil
}

// asset serves a file that pages need.
func (f *folder) asset(w http.ResponseWriter, r *http.Request, name string) {
	h := w.Header()
	h.Set("Cache-Control", "no-cache")
	if hashed.MatchString(name) {
		h.Set("Cache-Control", forGood)
	}
	if strings.HasSuffix(name, ".svg") {
		svgHeaders(h)
	}
	setType(h, name)
	f.send(w, r, name, packs[path.Ext(name)])
}

// packs are the endings of assets that are kept packed too.
var packs = map[string]bool{".css": true, ".js": true, ".html": true}

// entry serves what an address shows.
func (f *folder) entry(w http.ResponseWriter, r *http.Request, e *site.Entry, status int) {
	h := w.Header()
	h.Set("Content-Type", e.Type)
	h.Set("Cache-Control", "no-cache")
	f.policy(h, e)
	if e.Type == "image/svg+xml" {
		svgHeaders(h)
	}
	if e.Hidden || f.lock(e) != "" {
		h.Set("X-Robots-Tag", "noindex")
	}
	if f.lock(e) != "" {
		h.Set("Cache-Control", "private, no-store")
	}
	if status != http.StatusOK { // nothing to compare with
		h.Set("Cache-Control", "no-store")
		w = &answering{w, status}
		r = r.WithContext(r.Context())
		r.Header.Del("If-None-Match")
		r.Header.Del("If-Modified-Since")
		r.Header.Del("Range")
	} else {
		h.Set("ETag", `"`+strings.TrimSuffix(e.File, path.Ext(e.File))+`"`)
	}
	f.send(w, r, e.Content(), true)
}

// policy says what a page may load.
func (f *folder) policy(h http.Header, e *site.Entry) {
	frames := e.Frames
	if frames == nil && strings.HasPrefix(e.Type, "text/html") { // published before that was kept
		frames = []string{"https:", f.own}
	}
	pageHeaders(h, frames...)
	if len(e.Styles) > 0 {
		h.Set(
			"Content-Security-Policy",
			strings.Replace(
				h.Get("Content-Security-Policy"),
				"style-src 'self'",
				"style-src 'self' "+strings.Join(e.Styles, " "),
				1,
			),
		)
	}
}

// answering answers with another status than 200.
type answering struct {
	http.ResponseWriter
	status int
}

// WriteHeader implements http.ResponseWriter.
func (a *answering) WriteHeader(int) { a.ResponseWriter.WriteHeader(a.status) }

// send sends a file, packed as the browser likes it if it is kept so.
func (f *folder) send(w http.ResponseWriter, r *http.Request, name string, packed bool) {
	h := w.Header()
	if packed {
		h.Add("Vary", "Accept-Encoding")
		for _, p := range site.Packed() {
			if !accepts(r, p.Coding) {
				continue
			}
			if file, err := f.root.Open(filepath.FromSlash(name + p.Ending)); err == nil {
				h.Set("Content-Encoding", p.Coding)
				if tag := h.Get("ETag"); tag != "" { // another text has another tag (RFC 9110 §8.8.3)
					h.Set("ETag", strings.TrimSuffix(tag, `"`)+"-"+p.Coding+`"`)
				}
				serve(w, r, name, file)
				return
			}
		}
	}
	file, err := f.root.Open(filepath.FromSlash(name))
	if err != nil {
		http.NotFound(w, r)
		return
	}
	serve(w, r, name, file)
}

func serve(w http.ResponseWriter, r *http.Request, name string, file *os.File) {
	defer file.Close()
	fi, err := file.Stat()
	if err != nil || fi.IsDir() {
		w.Header().Del("Content-Encoding")
		http.NotFound(w, r)
		return
	}
	http.ServeContent(w, r, name, fi.ModTime(), file)
}

// accepts reports whether a browser takes a content coding (RFC 9110 §12.5.3).
func accepts(r *http.Request, coding string) bool {
	for part := range strings.SplitSeq(r.Header.Get("Accept-Encoding"), ",") {
		name, weight, _ := strings.Cut(part, ";")
		if strings.EqualFold(strings.TrimSpace(name), coding) {
			q := strings.TrimPrefix(strings.TrimSpace(weight), "q=")
			return strings.Trim(q, "0.") != "" || q == ""
		}
	}
	return false
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
		h.Set(
			"Content-Type",
			map[string]string{".txt": "text/plain", ".csv": "text/csv", ".ics": "text/calendar", ".vcf": "text/vcard"}[ext]+"; charset=utf-8",
		)
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
