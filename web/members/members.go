// Package members shows who belongs to a site and what each may do there, and lets its owners invite
// others, give roles and take them.
package members

import (
	"encoding/json"
	"errors"
	"net/http"
	"slices"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/policy"
	"openplot/core/rights"
	"openplot/mail"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/paths"
	"openplot/web/shell"
)

// Screen is the people of a site.
type Screen struct{ *desk.Desk }

// Routes lists its addresses. Everybody on a site sees who else is; what an owner alone sees and
// does is looked at by what it takes.
func (s *Screen) Routes() []shell.Route {
	return []shell.Route{
		shell.Get(paths.SiteRoute+"/people", rights.See, s.people),
		shell.Post(paths.SiteRoute+"/people", rights.Account, s.invite),
		shell.Post(paths.SiteRoute+"/people/role", rights.Account, s.setRole),
		shell.Post(paths.SiteRoute+"/people/remove", rights.Account, s.remove),
		shell.Post(paths.SiteRoute+"/people/uninvite", rights.Account, s.uninvite),
		shell.Post(paths.SiteRoute+"/people/leave", rights.See, s.leave),
	}
}

// role is what somebody can be on a site, in words.
type role struct {
	Role  store.Role
	Words string
}

var roles = []role{
	{store.Writer, "Words and pictures"},
	{store.Designer, "Everything on the pages, the house style, and publishing"},
	{store.Owner, "All of that, and who belongs to the site, its address and its end"},
}

// may is a row of what roles may do.
type may struct {
	Words string
	By    []bool // in the order of roles
}

// table says what each role may do, in the words of this screen.
func table() (rows []may) {
	for _, r := range []struct {
		right rights.Right
		words string
	}{
		{rights.See, "See pages, pictures, entries and checks"},
		{rights.Write, "Change words and pictures"},
		{rights.Compose, "Compose pages, add, move and delete them"},
		{rights.House, "Change the house style"},
		{rights.Publish, "Publish, take offline, make preview links"},
		{rights.Keep, "Delete pictures and entries, set menus and settings"},
		{rights.Account, "Invite people, see the audit log, set domains, delete the site"},
	} {
		row := may{Words: r.words}
		for _, of := range roles {
			row.By = append(row.By, of.Role.May(r.right))
		}
		rows = append(rows, row)
	}
	return rows
}

// view is the screen.
type view struct {
	User    *store.User
	Site    *store.Site
	Members []row
	Invited []*store.Invitation
	Roles   []role
	Table   []may
	Owns    bool   // whoever looks may change who belongs
	Made    string // a link that was just made
	For     string // whom it is for
	Mailed  bool   // it is on its way to them by mail
	Email   string // entered
	Wanted  store.Role
	Problem string // of an invitation
	Wrong   string // of a role
	Said    string
}

type row struct {
	*store.Member
	You      bool
	Initials string
	Edited   string
}

func (s *Screen) people(c *gin.Context) { s.show(c, http.StatusOK, view{}) }

// show answers with the screen.
func (s *Screen) show(c *gin.Context, status int, v view) {
	st := shell.SiteOf(c)
	v.User, v.Site, v.Roles, v.Table, v.Owns = shell.User(c), st, roles, table(), st.Role.May(rights.Account)
	if v.Wanted == "" {
		v.Wanted = store.Designer
	}
	all, err := s.Store.Members.List(c, st.ID)
	if err == nil && v.Owns {
		v.Invited, err = s.Store.Members.Invited(c, st.ID)
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	for _, m := range all {
		r := row{Member: m, You: m.User == v.User.ID, Initials: initials(m.Name)}
		if m.EditedAt != nil {
			r.Edited = desk.Ago(time.Since(*m.EditedAt))
		}
		if !v.Owns { // it isn't theirs to know
			r.Email = ""
		}
		v.Members = append(v.Members, r)
	}
	if c.GetHeader("HX-Request") != "" {
		s.Parted(c, status, "people", v)
		return
	}
	s.Screen(c, status, "members", v)
}

// initials are the first letters of a name's first and last words.
func initials(name string) string {
	var first, last rune
	begins := true
	for _, r := range name {
		if r == ' ' || r == '-' {
			begins = true
			continue
		}
		if begins && first == 0 {
			first = r
		} else if begins {
			last = r
		}
		begins = false
	}
	if last == 0 {
		return string(first)
	}
	return string(first) + string(last)
}

// entered reads a role.
func entered(c *gin.Context) (store.Role, error) {
	r := store.Role(c.PostForm("role"))
	if !slices.ContainsFunc(roles, func(of role) bool { return of.Role == r }) {
		return "", doc.Problemf("Role", "can't be %.20q: choose writer, designer or owner", string(r))
	}
	return r, nil
}

// invite makes a link by which somebody joins.
func (s *Screen) invite(c *gin.Context) {
	st := shell.SiteOf(c)
	v := view{Email: c.PostForm("email")}
	r, err := entered(c)
	if err == nil {
		v.Wanted = r
		var token string
		token, err = s.Store.Members.Invite(c, st.ID, shell.User(c).ID, v.Email, r, time.Now().Add(policy.Invitations))
		v.Made = "/join/" + token
	}
	var problem *doc.Problem
	if errors.As(err, &problem) {
		v.Made, v.Problem = "", problem.Sentence()
		s.show(c, http.StatusUnprocessableEntity, v)
		return
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	scheme := "http://"
	if s.Secure {
		scheme = "https://"
	}
	if s.Mails {
		err := s.mailInvitation(c, v.Email, v.Made)
		if err != nil && !errors.Is(err, store.ErrMails) {
			s.Fail(c, err)
			return
		}
		v.Mailed = err == nil
	}
	v.Made, v.For, v.Email = scheme+c.Request.Host+v.Made, v.Email, ""
	s.Note(c, "member invited", st.ID, v.For+" as "+string(r))
	s.show(c, http.StatusOK, v)
}

// mailInvitation sends a link by which somebody joins to whom it is for.
func (s *Screen) mailInvitation(c *gin.Context, to, link string) error {
	st, by := shell.SiteOf(c), shell.User(c)
	letter, err := json.Marshal(mail.Letter{
		Subject: by.Name + " invites you to " + st.Name,
		Lead:    []string{by.Name + " invites you to work on the site " + st.Name + " with them."},
		Link:    &mail.Link{Words: "Join the site", URL: link},
		Foot:    "The link works for a week, once, and for this address alone. If you don’t know " + by.Name + ", do nothing.",
	})
	if err != nil {
		return err
	}
	return s.Store.Mails.Queue(
		c,
		&store.Mail{Site: st.ID, Sort: store.MailOfInvitation, To: to, ReplyTo: by.Email, Letter: letter},
	)
}

// setRole gives somebody another role.
func (s *Screen) setRole(c *gin.Context) {
	r, err := entered(c)
	if err == nil {
		err = s.Store.Members.Set(c, shell.SiteOf(c).ID, c.PostForm("user"), r)
	}
	s.changed(c, err, "role changed", c.PostForm("user")+" to "+string(r), "Kept.")
}

// remove takes somebody off the site.
func (s *Screen) remove(c *gin.Context) {
	user := c.PostForm("user")
	err := s.Store.Members.Set(c, shell.SiteOf(c).ID, user, "")
	s.changed(c, err, "member removed", user, "They don’t belong to the site any more. What they made stays.")
}

// uninvite ends an invitation.
func (s *Screen) uninvite(c *gin.Context) {
	err := s.Store.Members.Uninvite(c, shell.SiteOf(c).ID, c.PostForm("id"))
	s.changed(c, err, "invitation ended", c.PostForm("id"), "The link doesn’t work any more.")
}

// changed answers after something was, or wasn't, with the people as they are now.
func (s *Screen) changed(c *gin.Context, err error, act, about, said string) {
	var problem *doc.Problem
	switch {
	case errors.Is(err, store.ErrNotFound):
		s.ProblemPage(c, http.StatusNotFound)
	case errors.As(err, &problem):
		s.show(c, http.StatusUnprocessableEntity, view{Wrong: problem.Sentence()})
	case err != nil:
		s.Fail(c, err)
	default:
		st := shell.SiteOf(c)
		s.Note(c, act, st.ID, about)
		role, err := s.Store.Sites.BySlugFor(c, shell.User(c).ID, st.Slug)
		if err != nil { // it was oneself
			c.Header("HX-Redirect", "/")
			c.Redirect(http.StatusSeeOther, "/")
			return
		}
		st.Role = role.Role
		s.show(c, http.StatusOK, view{Said: said})
	}
}

// leave takes whoever asks off the site.
func (s *Screen) leave(c *gin.Context) {
	st, u := shell.SiteOf(c), shell.User(c)
	err := s.Store.Members.Set(c, st.ID, u.ID, "")
	s.changed(c, err, "member left", u.ID, "")
}
