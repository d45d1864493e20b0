// Package visitors is the second origin, or rather many: each site's published pages, its own
// HTML, its previews, and uploads for the Bench, at hosts of their own (site.Hosts), with the
// small services that published pages use, forms and search.
//
// It never sees a session, and imports nothing of the application's origin (package
// web); web/imports_test.go holds it to that. Start at New.
package visitors

import (
	"cmp"
	"log/slog"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/memory"
	"openplot/origin"
	"openplot/site"
	"openplot/store"
)

// Config is what the server needs to know.
type Config struct {
	Store    *store.Store
	MediaDir string // where uploads are kept
	SiteDir  string // where sites are published to
	Hosts    site.Hosts
	Proxies  []string // trusted, as origin.Options has them
	// Memory is what may be remembered in; 64 MB when nil.
	Memory *memory.Budget
	// Fresh is how long what is known of a host counts: a site that is deleted, a page that gets a
	// password, are so for visitors of every process that long after at the latest. 0 asks each time.
	Fresh time.Duration
	Log   *slog.Logger
}

// Server answers visitors.
type Server struct {
	Config
	limits
	releases  *memory.Cache[string, known] // by site
	standings *standings
}

// limits are how often an address, and a form, may be used.
type limits struct {
	senders, forms, programs, searchers, keys, visits *origin.Attempts
	daily                                             *origin.Attempts // of one network with one form
}

// New prepares a server.
func New(c Config) *Server {
	if c.Log == nil {
		c.Log = slog.New(slog.DiscardHandler)
	}
	if c.Memory == nil {
		c.Memory = memory.New(64 << 20)
	}
	releases := memory.Of[string](c.Memory, func(k known) int { return releaseShare * int(k.stat.Size()) })
	s := &Server{Config: c, limits: limits{
		senders:   origin.NewAttempts(10, 6*time.Second),
		forms:     origin.NewAttempts(300, 200*time.Millisecond),
		programs:  origin.NewAttempts(120, 3*time.Second),
		searchers: origin.NewAttempts(30, time.Second),
		keys:      origin.NewAttempts(10, 30*time.Second),
		visits:    origin.NewAttempts(60, time.Second),
		daily:     origin.NewAttempts(30, 48*time.Minute),
	}, releases: releases}
	s.standings = newStandings(&s.Config)
	return s
}

// Keys of what a request's host says.
const (
	keyFace = "face"
	keySlug = "slug"
	keySite = "site" // what visitors find there, a *store.Standing
)

// standingOf is the site that a request's host shows to visitors, or nil.
func standingOf(c *gin.Context) *store.Standing {
	st, _ := c.Get(keySite)
	found, _ := st.(*store.Standing)
	return found
}

// bounds are what a visitor's request may take; files take as long as a slow line needs.
var (
	bounds     = origin.Limits{Body: maxFormBytes, Time: 20 * time.Second}
	fileBounds = origin.Limits{Body: 4 << 10, Time: 15 * time.Minute}
)

// Handler serves all of the hosts. Errors are of the configuration.
func (s *Server) Handler() (http.Handler, error) {
	r, err := origin.New(origin.Options{
		Side: "pages", Log: s.Log, Proxies: s.Proxies, Secure: s.Hosts.Scheme == "https",
		Owns: func(host string) bool { face, _ := s.Hosts.Which(host); return face != site.Nothing },
		Broken: func(c *gin.Context) {
			s.tell(
				c,
				http.StatusInternalServerError,
				"Something went wrong on our side",
				"Try it again in a moment.",
				"",
			)
		},
	})
	if err != nil {
		return nil, err
	}
	r.Use(s.faced)
	within, file := origin.Within(bounds, nil), origin.Within(fileBounds, nil)
	get := func(path string, faces []site.Face, limits, handle gin.HandlerFunc) {
		for _, method := range []string{http.MethodGet, http.MethodHead} {
			r.Handle(method, path, s.on(faces), limits, handle)
		}
	}
	uploads := []site.Face{site.Uploads, site.Draft}
	get("/media/:file", uploads, file, s.mediaFile)
	get("/fonts/:file", []site.Face{site.Draft}, file, origin.Font)
	get(site.ScenesPath+":file", []site.Face{site.Draft}, file, origin.Scene)
	get("/fonts/own/:file", []site.Face{site.Draft}, file, origin.OwnFont(s.MediaDir))
	get("/scripts/:name", []site.Face{site.Draft}, within, s.script)
	r.POST("/_forms/:site/:form", s.on([]site.Face{site.Public}), within, forms{s}.takeForm)
	r.POST("/_visits", s.on([]site.Face{site.Public}), within, s.countVisit)
	get("/_search/:site", []site.Face{site.Public}, within, s.searchSite)
	get("/_visitors.css", nil, within, visitorStyle)
	get(saidPath, []site.Face{site.Public}, within, ownStyle)
	get("/try/:token/*path", []site.Face{site.Draft, site.Own}, within, s.preview)
	r.POST("/try/:token/*path", s.on([]site.Face{site.Draft}), within, s.tryForm)
	r.NoRoute(file, s.published)
	return r, nil
}

// faced finds out what the host shows. Addresses of the time before every site had its own
// lead there.
func (s *Server) faced(c *gin.Context) {
	face, slug := s.Hosts.Which(c.Request.Host)
	var found *store.Standing
	var err error
	switch face {
	case site.Nothing:
		if found, err = s.standings.atHost(c.Request.Host); found != nil {
			face, slug = site.Public, found.Slug
		}
	case site.Public, site.Own, site.Draft:
		found, err = s.standings.atAddress(slug)
	}
	if err != nil {
		s.Log.Error("hosts", "id", origin.RequestID(c), "error", err)
		c.Header("Retry-After", "5")
		s.tell(
			c,
			http.StatusServiceUnavailable,
			"This page can’t be shown just now",
			"Try it again in a moment.",
			"",
		)
		c.Abort()
		return
	}
	if face == site.Nothing {
		s.moved(c)
		c.Abort()
		return
	}
	c.Set(keyFace, face)
	c.Set(keySlug, slug)
	c.Set(keySite, found)
	if face == site.Public && found != nil && found.Offline && !stays(c.Request.URL.Path) {
		c.Header("Retry-After", "3600")
		s.tell(
			c,
			http.StatusServiceUnavailable,
			"This site is offline for a while",
			cmp.Or(found.OfflineWords, "It will be back. Come again later."),
			"",
		)
		c.Abort()
		return
	}
	c.Next()
}

// saidPath is the style sheet of what visitors are told on a page as the site's are.
const saidPath = "/_said.css"

// stays reports whether an address answers while a site is offline: what the page needs that says so.
func stays(path string) bool {
	return path == saidPath || path == "/_visitors.css" || strings.HasPrefix(path, "/assets/")
}

// on lets requests through to hosts that show one of some faces; nil is all.
func (s *Server) on(faces []site.Face) gin.HandlerFunc {
	return func(c *gin.Context) {
		if face, _ := c.MustGet(keyFace).(site.Face); faces != nil && !slices.Contains(faces, face) {
			s.notHere(c)
			c.Abort()
			return
		}
		c.Next()
	}
}

func (s *Server) notHere(c *gin.Context) {
	s.tell(c, http.StatusNotFound, "There is nothing here", "The address is wrong, or what was there is gone.", "")
}

// moved answers what was asked of a host that has no site.
func (s *Server) moved(c *gin.Context) {
	first, rest, _ := strings.Cut(strings.TrimPrefix(c.Request.URL.EscapedPath(), "/"), "/")
	to := ""
	switch first {
	case "media":
		to = s.Hosts.Uploads() + "/media/" + rest
	case "_forms", "_search":
		slug, _, _ := strings.Cut(rest, "/")
		to = s.publicly(c, slug, "/"+first+"/"+rest)
	default:
		to = s.publicly(c, first, "/"+rest)
	}
	if to == "" {
		s.notHere(c)
		return
	}
	if q := c.Request.URL.RawQuery; q != "" {
		to += "?" + q
	}
	status := http.StatusMovedPermanently
	if c.Request.Method != http.MethodGet && c.Request.Method != http.MethodHead {
		status = http.StatusPermanentRedirect // with what was sent
	}
	c.Redirect(status, to)
}

// publicly is an address at the host of a site, or "" when there is no such site.
func (s *Server) publicly(c *gin.Context, slug, path string) string {
	if slug == "" {
		return ""
	}
	st, err := s.standings.atAddress(slug)
	if err != nil || st == nil {
		return ""
	}
	return s.Hosts.Public(st.Slug) + path
}
