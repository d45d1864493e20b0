package web

import (
	"context"
	"errors"
	"net/http"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/origin"
	"openplot/store"
)

// guarded sets the headers that keep the application's origin to itself.
func (s *Server) guarded(c *gin.Context) {
	h := c.Writer.Header()
	h.Set("Content-Security-Policy", "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; style-src 'self'; font-src 'self'; "+
		"img-src 'self' data: "+s.Hosts.Uploads()+"; media-src "+s.Hosts.Uploads()+"; connect-src 'self'; frame-src 'self'; "+
		"form-action 'self' "+s.Hosts.All()+"; base-uri 'none'; frame-ancestors 'none'")
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("Referrer-Policy", "same-origin")
	h.Set("Cross-Origin-Opener-Policy", "same-origin")
	h.Set("Permissions-Policy", "camera=(), microphone=(), geolocation=()")
	h.Set("Cache-Control", "no-store")
	c.Next()
}

// Keys of what the middleware below leaves in the context.
const (
	keyUser = "user"
	keySite = "site"
	keyPage = "page"
)

// signedIn sends others to the sign-in.
func (s *Server) signedIn(c *gin.Context) {
	id := s.sessions.GetString(c.Request.Context(), "user")
	if id != "" && s.seen(c.Request.Context()) {
		u, err := s.Store.People.User(c, id)
		if err == nil && u.Epoch == s.sessions.GetInt64(c.Request.Context(), "epoch") {
			c.Set(keyUser, u)
			c.Set(origin.KeyWho, u.ID)
			c.Next()
			return
		}
		if err == nil { // another password since
			err = store.ErrNotFound
		}
		if !errors.Is(err, store.ErrNotFound) {
			s.fail(c, err)
			return
		}
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
func (s *Server) seen(ctx context.Context) bool {
	last, now := time.UnixMilli(s.sessions.GetInt64(ctx, "seen")), time.Now()
	if since := now.Sub(last); since > s.Idle {
		return false
	} else if since > min(s.Idle/20, 5*time.Minute) {
		s.sessions.Put(ctx, "seen", now.UnixMilli())
	}
	return true
}

// member answers 404 unless the person belongs to the site.
func (s *Server) member(c *gin.Context) {
	site, err := s.Store.Sites.BySlugFor(c, user(c).ID, c.Param("site"))
	if err != nil {
		s.fail(c, err)
		return
	}
	c.Set(keySite, site)
	c.Next()
}

// homeSlug stands in addresses for the home page, whose slug is "".
const homeSlug = "home"

func (s *Server) onPage(c *gin.Context) {
	slug := strings.ReplaceAll(c.Param("page"), ".", "/")
	if slug == homeSlug {
		slug = ""
	}
	p, err := s.Store.Pages.At(c, siteOf(c).ID, slug)
	if err != nil {
		s.fail(c, err)
		return
	}
	c.Set(keyPage, p)
	c.Next()
}

func user(c *gin.Context) *store.User   { return c.MustGet(keyUser).(*store.User) }
func siteOf(c *gin.Context) *store.Site { return c.MustGet(keySite).(*store.Site) }
func pageOf(c *gin.Context) *store.Page { return c.MustGet(keyPage).(*store.Page) }

// fail answers with an error that no form can show.
func (s *Server) fail(c *gin.Context, err error) {
	c.Abort()
	if c.Request.Context().Err() != nil { // nobody waits for it any more
		return
	}
	if errors.Is(err, store.ErrNotFound) {
		s.problemPage(c, http.StatusNotFound)
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
		s.problemPage(c, http.StatusServiceUnavailable)
		return
	}
	s.problemPage(c, http.StatusInternalServerError)
}
