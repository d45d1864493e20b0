package shell

import (
	"context"
	"errors"
	"net/http"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/origin"
	"openplot/store"
	"openplot/web/paths"
)

// guarded sets the headers that keep the application's origin to itself.
func (s *Shell) guarded(c *gin.Context) {
	h := c.Writer.Header()
	h.Set(
		"Content-Security-Policy",
		"default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; style-src 'self'; font-src 'self'; "+
			"img-src 'self' data: "+s.Hosts.Uploads()+"; media-src "+s.Hosts.Uploads()+"; connect-src 'self'; frame-src 'self'; "+
			"form-action 'self' "+s.Hosts.All()+"; base-uri 'none'; frame-ancestors 'none'",
	)
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("Referrer-Policy", "same-origin")
	h.Set("Cross-Origin-Opener-Policy", "same-origin")
	h.Set("Permissions-Policy", "camera=(), microphone=(), geolocation=()")
	h.Set("Cache-Control", "no-store")
	c.Next()
}

// Keys of what the middleware below leaves in the context.
const (
	KeyUser = "user"
	KeySite = "site"
	KeyPage = "page"
)

// Who is whoever asks, or nil when nobody is signed in.
func (s *Shell) Who(c *gin.Context) (*store.User, error) {
	ctx := c.Request.Context()
	id := s.Sessions.GetString(ctx, "user")
	if id == "" || !s.seen(ctx) {
		return nil, nil
	}
	u, err := s.Store.People.User(c, id)
	if errors.Is(err, store.ErrNotFound) ||
		err == nil && u.Epoch != s.Sessions.GetInt64(ctx, "epoch") { // another password since
		return nil, nil
	}
	return u, err
}

// signedIn sends others to the sign-in.
func (s *Shell) signedIn(c *gin.Context) {
	u, err := s.Who(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	if u != nil {
		c.Set(KeyUser, u)
		c.Set(origin.KeyWho, u.ID)
		c.Next()
		return
	}
	if c.Request.Method != http.MethodGet && c.Request.Method != http.MethodHead || c.GetHeader("HX-Request") != "" {
		c.Header("HX-Redirect", "/sign-in")
		c.AbortWithStatus(http.StatusUnauthorized)
		return
	}
	c.Redirect(http.StatusSeeOther, "/sign-in")
	c.Abort()
}

// seen reports whether a session was used lately. It is noted now and then, so that not every
// request writes to the database.
func (s *Shell) seen(ctx context.Context) bool {
	last, now := time.UnixMilli(s.Sessions.GetInt64(ctx, "seen")), s.Now()
	if since := now.Sub(last); since > s.Idle {
		return false
	} else if since > min(s.Idle/20, 5*time.Minute) {
		s.Sessions.Put(ctx, "seen", now.UnixMilli())
	}
	return true
}

// member answers 404 unless the person belongs to the site.
func (s *Shell) member(c *gin.Context) {
	site, err := s.Store.Sites.BySlugFor(c, User(c).ID, c.Param("site"))
	if err != nil {
		s.Fail(c, err)
		return
	}
	c.Set(KeySite, site)
	c.Next()
}

func (s *Shell) onPage(c *gin.Context) {
	p, err := s.Store.Pages.At(c, SiteOf(c).ID, paths.Segment(c.Param("page")).Address())
	if err != nil {
		s.Fail(c, err)
		return
	}
	c.Set(KeyPage, p)
	c.Next()
}

func User(c *gin.Context) *store.User   { return c.MustGet(KeyUser).(*store.User) }
func SiteOf(c *gin.Context) *store.Site { return c.MustGet(KeySite).(*store.Site) }
func PageOf(c *gin.Context) *store.Page { return c.MustGet(KeyPage).(*store.Page) }

// Fail answers with an error that no form can show.
func (s *Shell) Fail(c *gin.Context, err error) {
	c.Abort()
	if c.Request.Context().Err() != nil { // nobody waits for it any more
		return
	}
	if errors.Is(err, store.ErrNotFound) {
		s.ProblemPage(c, http.StatusNotFound)
		return
	}
	var problem *doc.Problem
	if errors.As(err, &problem) {
		s.sayProblem(c, http.StatusUnprocessableEntity, "That can’t be done", problem.Sentence())
		return
	}
	s.Log.Error("failed", "id", origin.RequestID(c), "error", err)
	if store.Unreachable(err) {
		c.Header("Retry-After", "5")
		s.ProblemPage(c, http.StatusServiceUnavailable)
		return
	}
	s.ProblemPage(c, http.StatusInternalServerError)
}
