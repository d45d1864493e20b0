package web

import (
	"errors"
	"net/http"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/origin"
	"openplot/store"
)

type signInView struct {
	Email, Problem string
}

func (s *Server) signInForm(c *gin.Context) {
	s.screen(c, http.StatusOK, "sign-in", signInView{})
}

func (s *Server) signIn(c *gin.Context) {
	v := signInView{Email: c.PostForm("email")}
	now, network, account := time.Now(), origin.Network(c.ClientIP()), strings.ToLower(strings.TrimSpace(v.Email))
	// Attempts from elsewhere make an account slow to sign in to, and lock nobody out.
	if !s.signIns.Allow(network, now) || !s.pairs.Allow(network+" "+account, now) || !s.accounts.Allow(account, now) && !s.hold(c) {
		s.note(c, "sign-in refused, too many attempts", "", v.Email)
		v.Problem = "Too many attempts. Try again in a minute."
		s.screen(c, http.StatusTooManyRequests, "sign-in", v)
		return
	}
	u, err := s.Store.People.SignIn(c, v.Email, c.PostForm("password"))
	if errors.Is(err, store.ErrNotFound) {
		s.note(c, "sign-in failed", "", v.Email)
		v.Problem = "No account has this email and password. Check both; capitals matter in the password."
		s.screen(c, http.StatusUnprocessableEntity, "sign-in", v)
		return
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	ctx := c.Request.Context()
	if err := s.sessions.RenewToken(ctx); err != nil { // against session fixation
		s.fail(c, err)
		return
	}
	s.sessions.Put(ctx, "user", u.ID)
	s.sessions.Put(ctx, "epoch", u.Epoch)
	s.sessions.Put(ctx, "seen", now.UnixMilli())
	c.Set(keyUser, u)
	s.note(c, "signed in", "", "")
	c.Redirect(http.StatusSeeOther, "/")
}

// hold keeps an attempt waiting that is one of many with its account, unless as many are waiting as
// may, or whoever made it goes.
func (s *Server) hold(c *gin.Context) bool {
	if !s.held.TryAcquire(1) {
		return false
	}
	defer s.held.Release(1)
	select {
	case <-time.After(s.holdTime):
		return true
	case <-c.Done():
		return false
	}
}

// What many attempts with an account wait for, and how many wait at once.
const (
	holdTime = 4 * time.Second
	mostHeld = 300
)

func (s *Server) signOut(c *gin.Context) {
	s.note(c, "signed out", "", "")
	if err := s.sessions.Destroy(c.Request.Context()); err != nil {
		s.fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, "/sign-in")
}
