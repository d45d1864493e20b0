// Package web is the application's origin: Gin routes, handlers, templates and static
// files.
//
// In come HTTP requests, out go server-rendered pages and parts for htmx. It holds no
// rules of the job: those are in core. What the Bench shows is in package bench below
// it, what visitors see in package visitors beside it, on an origin of its own that
// never sees a session. Start at New.
package web

import (
	"embed"
	"fmt"
	"html/template"
	"io/fs"
	"log/slog"
	"net/http"
	"time"

	"github.com/alexedwards/scs/postgresstore"
	"github.com/alexedwards/scs/v2"
	"github.com/gin-gonic/gin"

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
	MediaDir string // where uploads are kept
	SiteDir  string // where sites are published to
	// PagesURL is the visitors' origin, such as http://127.0.0.1:8081.
	PagesURL string
	Previews site.Previews
	Log      *slog.Logger
	// Secure marks cookies as for HTTPS only.
	Secure bool
}

// Server answers requests.
type Server struct {
	Config
	sessions  *scs.SessionManager
	workshop  *bench.Workshop
	templates map[string]*template.Template
	publisher *site.Publisher
	signIns   *origin.Attempts
	static    http.Handler
}

// New prepares a server.
func New(c Config) (*Server, error) {
	if c.Log == nil {
		c.Log = slog.New(slog.DiscardHandler)
	}
	s := &Server{Config: c, publisher: &site.Publisher{Dir: c.SiteDir, MediaDir: c.MediaDir}, signIns: origin.NewAttempts()}
	var err error
	if s.workshop, err = bench.NewWorkshop(c.MediaDir, c.PagesURL+"/media/", c.Log); err != nil {
		return nil, err
	}
	if s.templates, err = parseTemplates(); err != nil {
		return nil, err
	}
	s.sessions = scs.New()
	s.sessions.Store = postgresstore.NewWithCleanupInterval(c.Store.DB(), 30*time.Minute)
	s.sessions.Lifetime = 14 * 24 * time.Hour
	s.sessions.Cookie.Name = "openplot"
	s.sessions.Cookie.SameSite = http.SameSiteLaxMode
	s.sessions.Cookie.Secure = c.Secure
	static, err := fs.Sub(files, "static")
	if err != nil {
		return nil, fmt.Errorf("opening static files: %w", err)
	}
	s.static = newStatic(static)
	return s, nil
}

func init() { gin.SetMode(gin.ReleaseMode) }

// App is the handler of the application's origin.
func (s *Server) App() http.Handler {
	protection := http.NewCrossOriginProtection()
	return protection.Handler(s.sessions.LoadAndSave(s.routes()))
}

func (s *Server) routes() *gin.Engine {
	r := gin.New()
	r.RedirectTrailingSlash = false
	r.Use(origin.Logged(s.Log), origin.Recovered(s.Log, func(c *gin.Context) { s.problemPage(c, http.StatusInternalServerError) }), s.guarded)
	for _, t := range s.table() {
		r.Handle(t.method, t.path, append(s.gates(t), t.handle)...)
	}
	r.NoRoute(func(c *gin.Context) { s.problemPage(c, http.StatusNotFound) })
	return r
}
