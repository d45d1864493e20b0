package people

import (
	"errors"
	"net/http"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/rights"
	"openplot/origin"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/paths"
	"openplot/web/shell"
)

// Join is how people who were invited to a site come to belong to it: with their account, signed in or
// by its password, or with one that they make. Nobody becomes another than whom the invitation is for.
type Join struct {
	*desk.Desk
	entrance *Screen
}

// NewJoin lets people in by the same door as those who sign in.
func NewJoin(entrance *Screen) *Join { return &Join{entrance.Desk, entrance} }

// Routes lists its addresses.
func (s *Join) Routes() []shell.Route {
	return []shell.Route{
		shell.Get("/join/:token", rights.None, s.invited),
		shell.Post("/join/:token", rights.None, s.join),
	}
}

// joinView is an invitation as whoever has its link sees it.
type joinView struct {
	*store.Invitation
	User    *store.User // signed in, or nil
	Known   bool        // the email has an account
	Name    string      // entered
	Least   int         // characters of a password
	Problem string
}

// invitation is the one that a link is of.
func (s *Join) invitation(c *gin.Context) (*joinView, bool) {
	i, err := s.Store.Members.Named(c, c.Param("token"))
	if errors.Is(err, store.ErrNotFound) {
		s.Screen(c, http.StatusNotFound, "join", &joinView{})
		return nil, false
	}
	v := &joinView{Invitation: i, Least: store.MinPassword}
	if err == nil {
		v.User, err = s.Who(c)
	}
	if err == nil {
		if _, err = s.Store.People.UserByEmail(c, i.Email); err == nil {
			v.Known = true
		} else if errors.Is(err, store.ErrNotFound) {
			err = nil
		}
	}
	if err != nil {
		s.Fail(c, err)
		return nil, false
	}
	return v, true
}

func (s *Join) invited(c *gin.Context) {
	if v, ok := s.invitation(c); ok {
		s.Screen(c, http.StatusOK, "join", v)
	}
}

// join makes whoever the invitation is for a member of the site.
func (s *Join) join(c *gin.Context) {
	v, ok := s.invitation(c)
	if !ok {
		return
	}
	u, err := v.User, error(nil)
	enters := u == nil
	switch {
	case u != nil:
	case !s.entrance.allowed(c, v.Email):
		v.Problem = "Too many attempts. Try again in a minute."
		s.Screen(c, http.StatusTooManyRequests, "join", v)
		return
	case v.Known:
		if u, err = s.Store.People.SignIn(c, v.Email, c.PostForm("password")); errors.Is(err, store.ErrNotFound) {
			s.Note(c, "sign-in failed", "", v.Email)
			err = doc.Problemf("Password", "isn't that of %s’s account: capitals matter", v.Email)
		}
	default:
		v.Name = strings.TrimSpace(c.PostForm("name"))
		u, err = s.Store.People.AddUser(c, v.Email, v.Name, c.PostForm("password"))
	}
	if err == nil {
		err = s.Store.Members.Accept(c, v.Invitation, u)
	}
	var problem *doc.Problem
	switch {
	case errors.As(err, &problem):
		v.Problem = problem.Sentence()
		s.Screen(c, http.StatusUnprocessableEntity, "join", v)
		return
	case errors.Is(err, store.ErrNotFound): // it was taken meanwhile
		s.Screen(c, http.StatusNotFound, "join", &joinView{})
		return
	case err == nil && enters:
		err = s.entrance.enter(c, u)
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	c.Set(shell.KeyUser, u)
	c.Set(origin.KeyWho, u.ID)
	s.Note(c, "member joined", v.SiteID, u.Email+" as "+string(v.Role))
	c.Redirect(http.StatusSeeOther, paths.To(v.Site).At())
}
