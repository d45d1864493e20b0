package entries

import (
	"cmp"
	"encoding/json"
	"errors"
	"net/http"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/policy"
	"openplot/core/rights"
	"openplot/mail"
	"openplot/store"
	"openplot/web/paths"
	"openplot/web/shell"
)

// mailRoutes lists the addresses of how entries are sent on by mail.
func (s *Screen) mailRoutes() []shell.Route {
	const at = paths.SiteRoute + "/entries/mails"
	return []shell.Route{
		shell.Get(at, rights.Keep, s.mails),
		shell.Post(at, rights.Keep, s.setMailTo),
		shell.Post(at+"/trial", rights.Keep, s.sendTrial),
		shell.Post(at+"/again", rights.Keep, s.sendAgain),
		shell.Get(at+"/:mail", rights.Keep, s.mail),
		shell.Get(at+"/:mail/page", rights.Keep, s.mailPage),
	}
}

// shownMails is how many mails the list has, the newest.
const shownMails = 30

// mailsView is the list of mails.
type mailsView struct {
	Site  *store.Site
	Mails []*store.Mail
}

// Waiting reports whether a mail is on its way, so that the list is asked for again.
func (v mailsView) Waiting() bool {
	for _, m := range v.Mails {
		if m.Waiting() && m.Tried == 0 {
			return true
		}
	}
	return false
}

// mails answers with the list alone, while mails are on their way.
func (s *Screen) mails(c *gin.Context) {
	st := shell.SiteOf(c)
	all, err := s.Store.Mails.List(c, st.ID, shownMails)
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Parted(c, http.StatusOK, "mails", mailsView{st, all})
}

// setMailTo says which addresses entries go to.
func (s *Screen) setMailTo(c *gin.Context) {
	st := shell.SiteOf(c)
	to, err := addresses(c.PostForm("to"))
	var problem *doc.Problem
	if errors.As(err, &problem) {
		s.entriesScreen(
			c,
			http.StatusUnprocessableEntity,
			entriesView{Problem: problem.Sentence(), To: c.PostForm("to")},
		)
		return
	}
	if err := s.Store.Mails.SetTo(c, st.ID, to); err != nil {
		s.Fail(c, err)
		return
	}
	st.MailTo = to
	s.Note(c, "form entries sent on", st.ID, to)
	said := "Kept. New entries go to " + strings.ReplaceAll(to, ",", ", ") + "."
	if to == "" {
		said = "Kept. Entries stay here alone."
	}
	s.entriesScreen(c, http.StatusOK, entriesView{Said: said})
}

// addresses reads addresses with commas between, each once.
func addresses(entered string) (string, error) {
	var all []string
	for a := range strings.FieldsFuncSeq(entered, func(r rune) bool { return r == ',' || r == ';' || r == ' ' || r == '\n' || r == '\r' }) {
		address, err := mail.Address(a)
		if err != nil {
			return "", doc.Problemf(
				"To",
				"can't have %.60q: write addresses such as office@example.org, with commas between",
				a,
			)
		}
		if !strings.Contains(","+strings.Join(all, ",")+",", ","+address+",") {
			all = append(all, address)
		}
	}
	if len(all) > policy.MailAddresses {
		return "", doc.Problemf(
			"To",
			"has %d addresses: write %d at most, or one that goes on to all",
			len(all),
			policy.MailAddresses,
		)
	}
	return strings.Join(all, ","), nil
}

// trust takes an entry for a person's, which then goes where others went at once.
func (s *Screen) trust(c *gin.Context, st *store.Site, e *store.FormEntry) error {
	forms, err := s.formsOf(c, st)
	if err != nil {
		return err
	}
	fields := make([]mail.Field, len(e.Answers))
	for i, a := range e.Answers {
		fields[i] = mail.Field{Label: a.Field, Value: a.Value}
	}
	letter, reply := mail.OfEntry(
		st.Name,
		paths.To(st.Slug).At("entries"),
		cmp.Or(forms[e.Form].Page, "a page that isn’t there any more"),
		fields,
	)
	mails, err := st.MailsOf(letter, reply)
	if err != nil {
		return err
	}
	return s.Store.Entries.Trust(c, st.ID, e.ID, mails...)
}

// sendTrial sends a mail to the addresses, to see whether it arrives.
func (s *Screen) sendTrial(c *gin.Context) {
	st := shell.SiteOf(c)
	letter, err := json.Marshal(mail.Letter{
		Subject: "A trial from " + st.Name,
		Lead: []string{
			shell.User(c).Name + " wanted to see whether what visitors send reaches this address. It does.",
		},
		Link: &mail.Link{Words: "Open the Inbox", URL: paths.To(st.Slug).At("entries")},
		Foot: "The Inbox of " + st.Name + " says where entries are sent on to.",
	})
	if err != nil {
		s.Fail(c, err)
		return
	}
	for to := range strings.SplitSeq(st.MailTo, ",") {
		if to == "" {
			continue
		}
		err := s.Store.Mails.Queue(c, &store.Mail{Site: st.ID, Sort: store.MailOfTrial, To: to, Letter: letter})
		if errors.Is(err, store.ErrMails) {
			s.entriesScreen(
				c,
				http.StatusTooManyRequests,
				entriesView{Problem: "As many mails went out today as a site sends. Try it tomorrow."},
			)
			return
		}
		if err != nil {
			s.Fail(c, err)
			return
		}
	}
	s.Note(c, "trial mail sent", st.ID, st.MailTo)
	c.Redirect(http.StatusSeeOther, paths.To(st.Slug).At("entries")+"#mails")
}

// sendAgain has a mail tried once more that couldn't be sent.
func (s *Screen) sendAgain(c *gin.Context) {
	st := shell.SiteOf(c)
	if err := s.Store.Mails.Again(c, st.ID, c.PostForm("id")); err != nil && !errors.Is(err, store.ErrNotFound) {
		s.Fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, paths.To(st.Slug).At("entries")+"#mails")
}

// mailView is one mail as it looks.
type mailView struct {
	User *store.User
	Site *store.Site
	Mail *store.Mail
	*mail.Received
	Came bool // to the stand-in, from which it is
}

// look reads the mail that is asked for: as the stand-in got it, or as it is to be sent. Invitations
// are the owners' to see.
func (s *Screen) look(c *gin.Context) (*mailView, error) {
	st := shell.SiteOf(c)
	m, err := s.Store.Mails.ByID(c, c.Param("mail"))
	if err != nil {
		return nil, err
	}
	if m.Site != st.ID || m.Sort == store.MailOfInvitation && !st.Role.May(rights.Account) {
		return nil, store.ErrNotFound
	}
	v := &mailView{User: shell.User(c), Site: st, Mail: m}
	if s.StandIn != nil {
		if v.Received, err = s.StandIn.Find(m.ID); err != nil {
			return nil, err
		}
	}
	if v.Came = v.Received != nil; v.Came {
		return v, nil
	}
	var l mail.Letter
	if err := json.Unmarshal(m.Letter, &l); err != nil {
		return nil, err
	}
	html, err := l.HTML()
	if err != nil {
		return nil, err
	}
	v.Received = &mail.Received{
		To:      m.To,
		From:    m.SiteName,
		ReplyTo: m.ReplyTo,
		Subject: l.Subject,
		Text:    l.Text(),
		HTML:    html,
	}
	return v, nil
}

func (s *Screen) mail(c *gin.Context) {
	v, err := s.look(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Screen(c, http.StatusOK, "mail", v)
}

// mailPage answers with a mail's HTML, in which nothing runs, loads or leads anywhere.
func (s *Screen) mailPage(c *gin.Context) {
	v, err := s.look(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	c.Header(
		"Content-Security-Policy",
		"default-src 'none'; style-src 'unsafe-inline'; base-uri 'none'; form-action 'none'; frame-ancestors 'self'; sandbox",
	)
	c.Data(http.StatusOK, "text/html; charset=utf-8", []byte(v.HTML))
}
