// Package web is the application's origin: Gin routes, handlers, templates and static
// files.
//
// In come HTTP requests, out go server-rendered pages and parts for htmx. It holds no
// rules of the job: those are in core. What the Bench shows is in package bench below
// it, what visitors see in package visitors beside it, on an origin of its own that
// never sees a session. Start at New.
package web

import (
	"cmp"
	"context"
	"embed"
	"html/template"
	"log/slog"
	"net/http"
	"runtime"
	"strings"
	"time"

	"github.com/alexedwards/scs/postgresstore"
	"github.com/alexedwards/scs/v2"
	"github.com/gin-gonic/gin"
	"golang.org/x/sync/semaphore"

	"openplot/dns"
	"openplot/media"
	"openplot/memory"
	"openplot/origin"
	"openplot/site"
	"openplot/store"
	"openplot/web/bench"
)

//go:embed all:static templates
var files embed.FS

// Config is what the server needs to know.
type Config struct {
	Store    *store.Store
	MediaDir string        // where uploads are kept
	SiteDir  string        // where sites are published to
	Hosts    site.Hosts    // of the visitors' side
	Pictures *media.Keeper // of uploads
	Log      *slog.Logger
	Proxies  []string     // trusted, as origin.Options has them
	DNS      dns.Resolver // of sites' own domains
	AppHost  string       // the application's name, which is no site's
	// Secure says that the application is reached by HTTPS alone.
	Secure bool
	// Idle is how long a session goes on without a request; 12 hours when zero.
	Idle time.Duration
	// Memory is what may be remembered in; 64 MB when nil.
	Memory *memory.Budget
	// Room reports whether there is room on the disk; nil is not asked.
	Room func() error
}

// Server answers requests.
type Server struct {
	Config
	sessions  *scs.SessionManager
	workshop  *bench.Workshop
	templates map[string]*template.Template
	publisher *site.Publisher
	signIns   *origin.Attempts // by network
	pairs     *origin.Attempts // by network and account
	accounts  *origin.Attempts // by account
	held      *semaphore.Weighted
	holdTime  time.Duration
	static    *static
	sweeps    siteSweeps
	toCheck   turns // pages
}

// New prepares a server.
func New(c Config) (*Server, error) {
	if c.Log == nil {
		c.Log = slog.New(slog.DiscardHandler)
	}
	s := &Server{
		Config: c, publisher: &site.Publisher{Dir: c.SiteDir, MediaDir: c.MediaDir, Hosts: c.Hosts},
		toCheck: turns{all: runtime.GOMAXPROCS(0) + 1, each: max(runtime.GOMAXPROCS(0), 2)}, // one site leaves a turn to others
		signIns: origin.NewAttempts(10, 6*time.Second), pairs: origin.NewAttempts(10, 30*time.Second), accounts: origin.NewAttempts(20, 30*time.Second),
		held: semaphore.NewWeighted(mostHeld), holdTime: holdTime,
	}
	if c.Memory == nil {
		c.Memory = memory.New(64 << 20)
	}
	if c.DNS == nil {
		s.DNS = dns.World{}
	}
	s.Idle = cmp.Or(c.Idle, 12*time.Hour)
	var err error
	if s.workshop, err = bench.NewWorkshop(c.MediaDir, c.Hosts.Uploads()+"/media/", media.ReadPixels, c.Memory, c.Log); err != nil {
		return nil, err
	}
	if s.static, err = shipped(); err != nil {
		return nil, err
	}
	if s.templates, err = parseTemplates(s.static); err != nil {
		return nil, err
	}
	s.sessions = scs.New()
	s.sessions.Store = postgresstore.NewWithCleanupInterval(c.Store.DB(), 30*time.Minute)
	s.sessions.HashTokenInStore = true
	s.sessions.Lifetime = 14 * 24 * time.Hour
	s.sessions.Cookie.Name = "openplot"
	s.sessions.Cookie.SameSite = http.SameSiteLaxMode
	if c.Secure {
		s.sessions.Cookie.Name, s.sessions.Cookie.Secure = "__Host-openplot", true // RFC 6265bis §4.1.3.2
	}
	s.sessions.ErrorFunc = func(w http.ResponseWriter, _ *http.Request, err error) {
		s.Log.Error("session", "error", err)
		http.Error(w, "Open Plot can't reach its database just now. Your edits are kept; load the page again in a moment.", http.StatusServiceUnavailable)
	}
	return s, nil
}

// App is the handler of the application's origin. Errors are of the configuration.
func (s *Server) App() (http.Handler, error) {
	routes, err := s.routes()
	if err != nil {
		return nil, err
	}
	with := s.sessions.LoadAndSave(routes)
	chosen := http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if sessionless(r.URL.Path) {
			routes.ServeHTTP(w, r)
			return
		}
		with.ServeHTTP(w, r)
	})
	return http.NewCrossOriginProtection().Handler(chosen), nil
}

func (s *Server) routes() (*gin.Engine, error) {
	r, err := origin.New(origin.Options{
		Side: "app", Log: s.Log, Proxies: s.Proxies, Secure: s.Secure, Owns: func(host string) bool { return strings.EqualFold(origin.HostName(host), s.AppHost) },
		Broken: func(c *gin.Context) { s.problemPage(c, http.StatusInternalServerError) },
	})
	if err != nil {
		return nil, err
	}
	r.Use(s.guarded)
	for _, t := range s.table() {
		handlers := append(s.gates(t), t.handle)
		r.Handle(t.method, t.path, handlers...)
		if t.method == http.MethodGet {
			r.Handle(http.MethodHead, t.path, handlers...)
		}
	}
	r.NoRoute(origin.Within(ordinary, nil), func(c *gin.Context) { s.problemPage(c, http.StatusNotFound) })
	return r, nil
}

// ready answers whether requests can be answered: the database, its schema, and the disk.
func (s *Server) ready(c *gin.Context) {
	ctx, cancel := context.WithTimeout(c, 3*time.Second)
	defer cancel()
	err := s.Store.Ping(ctx)
	if err == nil && s.Room != nil {
		err = s.Room()
	}
	if err != nil {
		s.Log.Error("not ready", "error", err)
		c.String(http.StatusServiceUnavailable, "not ready; the log says why")
		return
	}
	c.String(http.StatusOK, "ready")
}
