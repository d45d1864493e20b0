package entries

import (
	"encoding/json"
	"errors"
	"net/http"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/rights"
	"openplot/mail"
	"openplot/store"
	"openplot/web/paths"
	"openplot/web/shell"
)

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
func (s *Keeping) mails(c *gin.Context) {
	st := shell.SiteOf(c)
	all, err := s.Store.Mails.List(c, st.ID, shownMails)
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Parted(c, http.StatusOK, "mails", mailsView{st, all})
}

// sendTrial sends a mail to the addresses, to see whether it arrives.
func (s *Keeping) sendTrial(c *gin.Context) {
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
	for to := range strings.SplitSeq(st.Mail.To, ",") {
		if to == "" {
			continue
		}
		err := s.Store.Mails.Queue(c, &store.Mail{Site: st.ID, Sort: store.MailOfTrial, To: to, Letter: letter})
		if errors.Is(err, store.ErrMails) {
			s.keepingScreen(
				c,
				http.StatusTooManyRequests,
				keepingView{Problem: "As many mails went out today as a site sends. Try it tomorrow."},
			)
			return
		}
		if err != nil {
			s.Fail(c, err)
			return
		}
	}
	s.Note(c, "trial mail sent", st.ID, st.Mail.To)
	c.Redirect(http.StatusSeeOther, toKeeping(st))
}

// sendAgain has a mail tried once more that couldn't be sent.
func (s *Keeping) sendAgain(c *gin.Context) {
	st := shell.SiteOf(c)
	if err := s.Store.Mails.Again(c, st.ID, c.PostForm("id")); err != nil && !errors.Is(err, store.ErrNotFound) {
		s.Fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, toKeeping(st))
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
func (s *Keeping) look(c *gin.Context) (*mailView, error) {
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

func (s *Keeping) mail(c *gin.Context) {
	v, err := s.look(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Screen(c, http.StatusOK, "mail", v)
}

// mailPage answers with a mail's HTML, in which nothing runs, loads or leads anywhere.
func (s *Keeping) mailPage(c *gin.Context) {
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
