package people

import (
	"errors"
	"net/http"
	"strings"
	"time"

	"github.com/gin-gonic/gin"
	"golang.org/x/sync/semaphore"

	"openplot/core/rights"
	"openplot/origin"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/shell"
)

// Screen is how people sign in and out.
type Screen struct {
	*desk.Desk
	signIns  *origin.Attempts // by network
	pairs    *origin.Attempts // by network and account
	accounts *origin.Attempts // by account
	held     *semaphore.Weighted
}

// New is nobody held back yet.
func New(d *desk.Desk) *Screen {
	return &Screen{
		d, origin.NewAttempts(10, 6*time.Second), origin.NewAttempts(10, 30*time.Second), origin.NewAttempts(20, 30*time.Second),
		semaphore.NewWeighted(mostHeld),
	}
}

// Routes lists its addresses.
func (s *Screen) Routes() []shell.Route {
	return []shell.Route{
		shell.Get("/sign-in", rights.None, s.signInForm),
		shell.Post("/sign-in", rights.None, s.signIn),
		shell.Post("/sign-out", rights.Sign, s.signOut),
	}
}

type signInView struct {
	Email, Problem string
}

func (s *Screen) signInForm(c *gin.Context) {
	s.Screen(c, http.StatusOK, "sign-in", signInView{})
}

func (s *Screen) signIn(c *gin.Context) {
	v := signInView{Email: c.PostForm("email")}
	if !s.allowed(c, v.Email) {
		v.Problem = "Too many attempts. Try again in a minute."
		s.Screen(c, http.StatusTooManyRequests, "sign-in", v)
		return
	}
	u, err := s.Store.People.SignIn(c, v.Email, c.PostForm("password"))
	if errors.Is(err, store.ErrNotFound) {
		s.Note(c, "sign-in failed", "", v.Email)
		v.Problem = "No account has this email and password. Check both; capitals matter in the password."
		s.Screen(c, http.StatusUnprocessableEntity, "sign-in", v)
		return
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	if err := s.enter(c, u); err != nil {
		s.Fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, "/")
}

// allowed reports whether an attempt to sign in to an account is one of few, and notes it when not.
// Attempts from elsewhere make an account slow to sign in to, and lock nobody out.
func (s *Screen) allowed(c *gin.Context, email string) bool {
	now, network, account := s.Now(), origin.Network(c.ClientIP()), strings.ToLower(strings.TrimSpace(email))
	if s.signIns.Allow(network, now) && s.pairs.Allow(network+" "+account, now) &&
		(s.accounts.Allow(account, now) || s.hold(c)) {
		return true
	}
	s.Note(c, "sign-in refused, too many attempts", "", email)
	return false
}

// enter begins a session of somebody.
func (s *Screen) enter(c *gin.Context, u *store.User) error {
	ctx := c.Request.Context()
	if err := s.Sessions.RenewToken(ctx); err != nil { // against session fixation
		return err
	}
	s.Sessions.Put(ctx, "user", u.ID)
	s.Sessions.Put(ctx, "epoch", u.Epoch)
	s.Sessions.Put(ctx, "seen", s.Now().UnixMilli())
	c.Set(shell.KeyUser, u)
	s.Note(c, "signed in", "", "")
	return nil
}

// hold keeps an attempt waiting that is one of many with its account, unless as many are waiting as
// may, or whoever made it goes.
func (s *Screen) hold(c *gin.Context) bool {
	if !s.held.TryAcquire(1) {
		return false
	}
	defer s.held.Release(1)
	select {
	case <-time.After(s.HoldTime):
		return true
	case <-c.Done():
		return false
	}
}

// mostHeld is how many attempts are held up at once.
const mostHeld = 300

func (s *Screen) signOut(c *gin.Context) {
	s.Note(c, "signed out", "", "")
	if err := s.Sessions.Destroy(c.Request.Context()); err != nil {
		s.Fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, "/sign-in")
}
