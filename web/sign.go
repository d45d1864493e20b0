package web

import (
	"errors"
	"net/http"
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
	c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, 16<<10)
	v := signInView{Email: c.PostForm("email")}
	if !s.signIns.Allow(origin.Address(c.Request), time.Now()) {
		v.Problem = "Too many attempts. Try again in a minute."
		s.screen(c, http.StatusTooManyRequests, "sign-in", v)
		return
	}
	u, err := s.Store.SignIn(c, v.Email, c.PostForm("password"))
	if errors.Is(err, store.ErrNotFound) {
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
	c.Redirect(http.StatusSeeOther, "/")
}

func (s *Server) signOut(c *gin.Context) {
	if err := s.sessions.Destroy(c.Request.Context()); err != nil {
		s.fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, "/sign-in")
}
