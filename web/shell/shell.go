package shell

import (
	"cmp"
	"context"
	"log/slog"
	"net/http"
	"strings"
	"time"

	"github.com/alexedwards/scs/postgresstore"
	"github.com/alexedwards/scs/v2"
	"github.com/gin-gonic/gin"

	"openplot/bring"
	"openplot/core/rights"
	"openplot/dns"
	"openplot/domains"
	"openplot/mail"
	"openplot/media"
	"openplot/memory"
	"openplot/origin"
	"openplot/site"
	"openplot/store"
	"openplot/web/model"
	"openplot/web/paths"
)

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
	Mails    bool         // there is a server that mails go to
	// StandIn is the mail server that keeps what it gets, where mails go to that; or nil.
	StandIn *mail.StandIn
	// Secure says that the application is reached by HTTPS alone.
	Secure bool
	// Idle is how long a session goes on without a request; 12 hours when zero.
	Idle time.Duration
	// Now is the clock by which sessions are idle; time.Now when nil.
	Now func() time.Time
	// HoldTime is how long sign-ins are held up from where many failed; 4 s when zero.
	HoldTime time.Duration
	// Memory is what may be remembered in; 64 MB when nil.
	Memory *memory.Budget
	// Room reports whether there is room on the disk; nil is not asked.
	Room func() error
}

// Shell is what the screens stand in: what they need, who asks, and how they answer.
type Shell struct {
	Config
	Workshop  *model.Workshop
	Checker   *model.Checker
	Publisher *site.Publisher
	Maker     *bring.Maker
	Domains   *domains.Watch
	files     *Files
	Sessions  *scs.SessionManager
	rights    map[string]rights.Right // that it takes to look at a path
}

// New prepares what the screens need. Errors are of the configuration.
func New(c Config, files *Files) (*Shell, error) {
	if c.Log == nil {
		c.Log = slog.New(slog.DiscardHandler)
	}
	if c.Memory == nil {
		c.Memory = memory.New(64 << 20)
	}
	if c.DNS == nil {
		c.DNS = dns.World{}
	}
	if c.Now == nil {
		c.Now = time.Now
	}
	c.Idle, c.HoldTime = cmp.Or(c.Idle, 12*time.Hour), cmp.Or(c.HoldTime, 4*time.Second)
	s := &Shell{
		Config:    c,
		files:     files,
		Publisher: &site.Publisher{Dir: c.SiteDir, MediaDir: c.MediaDir, Hosts: c.Hosts},
		Maker:     &bring.Maker{Store: c.Store, Pictures: c.Pictures, MediaDir: c.MediaDir},
	}
	var err error
	if s.Workshop, err = model.NewWorkshop(c.MediaDir, c.Hosts.Uploads()+"/media/", media.ReadPixels, c.Memory, c.Log); err != nil {
		return nil, err
	}
	s.Checker = model.NewChecker(c.Store, s.Workshop)
	s.Domains = &domains.Watch{Store: c.Store, DNS: c.DNS, Hosts: c.Hosts, Log: c.Log}
	s.Sessions = scs.New()
	s.Sessions.Store = postgresstore.NewWithCleanupInterval(c.Store.DB(), 30*time.Minute)
	s.Sessions.HashTokenInStore = true
	s.Sessions.Lifetime = 14 * 24 * time.Hour
	s.Sessions.Cookie.Name = "openplot"
	s.Sessions.Cookie.SameSite = http.SameSiteLaxMode
	if c.Secure {
		s.Sessions.Cookie.Name, s.Sessions.Cookie.Secure = "__Host-openplot", true // RFC 6265bis §4.1.3.2
	}
	s.Sessions.ErrorFunc = func(w http.ResponseWriter, _ *http.Request, err error) {
		s.Log.Error("session", "error", err)
		http.Error(
			w,
			"Open Plot can't reach its database just now. Your edits are kept; load the page again in a moment.",
			http.StatusServiceUnavailable,
		)
	}
	return s, nil
}

// Handler serves screens, and what every page needs. Errors are of the configuration.
func (s *Shell) Handler(screens ...Screen) (http.Handler, error) {
	routes, err := s.engine(screens)
	if err != nil {
		return nil, err
	}
	with := s.Sessions.LoadAndSave(routes)
	chosen := http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if sessionless(r.URL.Path) {
			routes.ServeHTTP(w, r)
			return
		}
		with.ServeHTTP(w, r)
	})
	return http.NewCrossOriginProtection().Handler(chosen), nil
}

func (s *Shell) engine(screens []Screen) (*gin.Engine, error) {
	r, err := origin.New(origin.Options{
		Side: "app", Log: s.Log, Proxies: s.Proxies, Secure: s.Secure, Owns: func(host string) bool { return strings.EqualFold(origin.HostName(host), s.AppHost) },
		Broken: func(c *gin.Context) { s.ProblemPage(c, http.StatusInternalServerError) },
	})
	if err != nil {
		return nil, err
	}
	r.Use(s.guarded)
	s.rights = rightsOf(screens)
	for _, of := range append([]Screen{s}, screens...) {
		for _, t := range of.Routes() {
			handlers := append(s.gates(t), t.handle)
			r.Handle(t.Method, t.Path, handlers...)
			if t.Method == http.MethodGet {
				r.Handle(http.MethodHead, t.Path, handlers...)
			}
		}
	}
	r.NoRoute(origin.Within(ordinary, nil), func(c *gin.Context) { s.ProblemPage(c, http.StatusNotFound) })
	return r, nil
}

// Routes lists what every page needs, and what asks whether the program is well.
func (s *Shell) Routes() []Route {
	return []Route{
		Get("/static/*file", rights.None, gin.WrapH(http.StripPrefix("/static", s.files.static))),
		Get("/fonts/:file", rights.None, origin.Font),
		Get("/scenes/:file", rights.None, origin.Scene),
		Get("/fonts/own/:file", rights.None, origin.OwnFont(s.MediaDir)),
		Get("/healthy", rights.None, func(c *gin.Context) { c.String(http.StatusOK, "ok") }),
		Get("/ready", rights.None, s.ready),
		Get(paths.SiteRoute+"/rail", rights.See, s.rail),
	}
}

// Address is where a file that ships is found.
func (s *Shell) Address(file string) string { return s.files.static.address(file) }

// ready answers whether requests can be answered: the database, its schema, and the disk.
func (s *Shell) ready(c *gin.Context) {
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
