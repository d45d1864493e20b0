package entries

import (
	"cmp"
	"encoding/json"
	"errors"
	"net/http"
	"slices"
	"strings"
	"unicode/utf8"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/inbox"
	"openplot/core/rights"
	"openplot/mail"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/paths"
	"openplot/web/shell"
)

// entryView is an entry as it is read.
type entryView struct {
	Site *store.Site
	User *store.User
	Look look
	*store.FormEntry
	inbox.Summary
	At              formAt
	When, Until     string
	Notes           []noted
	Told, Sent      []sent // mails to the people of the site, and to whoever sent it
	Members         []*store.Member
	MayDelete       bool
	MayAnswer       bool // by mail
	Subject, Letter string
	Problem         string // of what was to be sent or noted
	Note            string
	Boxes           *boxesView // that come with it, or nil
}

type noted struct {
	*store.Note
	When string
	Mine bool
}

type sent struct {
	*store.Mail
	When  string
	Words []string
}

// open reads an entry, which is read with that by whoever looks.
func (s *Screen) open(c *gin.Context, l look, forms map[string]formAt) (*entryView, error) {
	st, user := shell.SiteOf(c), shell.User(c)
	zone := desk.ZoneOf(st)
	const moment = "2 January 2006, 15:04"
	e, err := s.Store.Entries.ByID(c, st.ID, l.Entry)
	if err != nil {
		return nil, err
	}
	v := &entryView{
		Site: st, User: user, Look: l, FormEntry: e, Summary: inbox.Summarise(e.Answers), At: forms[e.Form],
		When: e.SentAt.In(zone).Format(moment), MayDelete: st.Role.May(rights.Keep),
	}
	v.Who = cmp.Or(v.Who, v.Address, "Without a name")
	v.MayAnswer = v.MayDelete && s.Mails && v.Address != "" && e.DeletedAt == nil
	v.Subject = "Re: " + cmp.Or(v.At.Page, st.Name)
	days := st.EntryDays
	of, err := s.Store.Inbox.Forms(c, st.ID)
	if err != nil {
		return nil, err
	}
	if i := slices.IndexFunc(of, func(f *store.OfForm) bool { return f.Form == e.Form }); i >= 0 && of[i].Days != nil {
		days = *of[i].Days
	}
	v.Until = keptUntil(e, days, zone)
	notes, err := s.Store.Inbox.Notes(c, st.ID, e.ID)
	if err != nil {
		return nil, err
	}
	for _, n := range notes {
		v.Notes = append(v.Notes, noted{n, n.MadeAt.In(zone).Format(moment), n.User == user.ID})
	}
	mails, err := s.Store.Mails.OfEntry(c, st.ID, e.ID)
	if err != nil {
		return nil, err
	}
	for _, m := range mails {
		one := sent{Mail: m}
		if m.SentAt != nil {
			one.When = m.SentAt.In(zone).Format(moment)
		}
		if m.Sort == store.MailOfEntry || m.Sort == store.MailOfCopy {
			v.Told = append(v.Told, one)
			continue
		}
		var letter mail.Letter
		if err := json.Unmarshal(m.Letter, &letter); err != nil {
			return nil, err
		}
		one.Words = letter.Lead[:max(len(letter.Lead)-1, 0)] // the last one leads to what they wrote
		v.Sent = append(v.Sent, one)
	}
	if v.Members, err = s.Store.Members.List(c, st.ID); err != nil {
		return nil, err
	}
	if e.DeletedAt != nil || e.Trial {
		return v, nil
	}
	return v, s.Store.Inbox.SetRead(c, st.ID, user.ID, []string{e.ID}, true)
}

// Assignable reports whether the entry can be made somebody's.
func (v entryView) Assignable() bool { return v.DeletedAt == nil && !v.Trial }

// entry answers with an entry to stand beside the list. That somebody has read it is noted with that, as
// when somebody was last seen is.
func (s *Screen) entry(c *gin.Context) {
	l := lookOf(c.Request.URL.Query())
	l.Entry = c.Param("entry")
	s.entryPart(c, http.StatusOK, l, func(*entryView) {})
}

func (s *Screen) entryPart(c *gin.Context, status int, l look, as func(*entryView)) {
	forms, err := formsOf(c, s.Desk, shell.SiteOf(c))
	if err != nil {
		s.Fail(c, err)
		return
	}
	v, err := s.open(c, l, forms)
	if err != nil {
		s.Fail(c, err)
		return
	}
	b, err := s.boxes(c, l, "")
	if err != nil {
		s.Fail(c, err)
		return
	}
	b.Beside, v.Boxes = true, &b
	as(v)
	s.Parted(c, status, "entry", v)
}

// note notes something beside an entry, or takes a note away.
func (s *Screen) note(c *gin.Context) {
	st, l := shell.SiteOf(c), asked(c)
	l.Entry = c.PostForm("id")
	var err error
	if gone := c.PostForm("gone"); gone != "" {
		err = s.Store.Inbox.DeleteNote(c, st.ID, gone, shell.User(c).ID)
	} else {
		err = s.Store.Inbox.AddNote(c, st.ID, l.Entry, shell.User(c).ID, c.PostForm("note"))
	}
	var problem *doc.Problem
	switch {
	case errors.As(err, &problem):
		s.entryPart(
			c,
			http.StatusUnprocessableEntity,
			l,
			func(v *entryView) { v.Problem, v.Note = problem.Sentence(), c.PostForm("note") },
		)
	case err != nil:
		s.Fail(c, err)
	default:
		s.after(c, l, foundView{})
	}
}

// What an answer may be.
const (
	longestAnswer  = 20_000
	longestSubject = 200
)

// answer sends a mail to whoever sent an entry.
func (s *Screen) answer(c *gin.Context) {
	st, user, l := shell.SiteOf(c), shell.User(c), asked(c)
	l.Entry = c.PostForm("id")
	words, subject := strings.TrimSpace(
		store.Clean(c.PostForm("words")),
	), strings.TrimSpace(
		store.Clean(c.PostForm("subject")),
	)
	refuse := func(problem string) {
		s.entryPart(c, http.StatusUnprocessableEntity, l, func(v *entryView) {
			v.Problem, v.Letter, v.Subject = problem, c.PostForm("words"), c.PostForm("subject")
		})
	}
	e, err := s.Store.Entries.ByID(c, st.ID, l.Entry)
	if err != nil {
		s.Fail(c, err)
		return
	}
	to := inbox.Summarise(e.Answers).Address
	switch {
	case to == "" || !s.Mails || e.DeletedAt != nil:
		s.ProblemPage(c, http.StatusNotFound)
		return
	case words == "":
		refuse("The answer is empty: write what they are to read.")
		return
	case utf8.RuneCountInString(words) > longestAnswer:
		refuse("The answer is longer than 20,000 characters: make it shorter.")
		return
	case subject == "" || utf8.RuneCountInString(subject) > longestSubject:
		refuse("The subject is empty or longer than 200 characters.")
		return
	}
	letter := mail.Letter{Subject: subject, Foot: user.Name + ", " + cmp.Or(st.Mail.Name, st.Name)}
	for p := range strings.SplitSeq(strings.ReplaceAll(words, "\r\n", "\n"), "\n\n") {
		if p = strings.TrimSpace(p); p != "" {
			letter.Lead = append(letter.Lead, p)
		}
	}
	letter.Lead = append(letter.Lead, "What you sent on "+e.SentAt.In(desk.ZoneOf(st)).Format("2 January 2006")+":")
	for _, a := range e.Answers {
		if strings.TrimSpace(a.Value) != "" {
			letter.Fields = append(letter.Fields, mail.Field{Label: a.Field, Value: a.Value})
		}
	}
	written, err := json.Marshal(letter)
	if err != nil {
		s.Fail(c, err)
		return
	}
	err = s.Store.Mails.Answer(c, &store.Mail{
		Site: st.ID, Entry: e.ID, To: to, ReplyTo: cmp.Or(st.Mail.Reply, user.Email), Letter: written, By: user.ID,
	})
	if errors.Is(err, store.ErrMails) {
		refuse("As many mails went out today as a site sends. What you wrote is here; send it tomorrow.")
		return
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Note(c, "form entry answered", st.ID, e.ID)
	s.after(c, l, foundView{Said: "Your answer to " + to + " is on its way."})
}

// trust takes entries for people's, which then go where others went at once.
func (s *Screen) trust(c *gin.Context, st *store.Site, ids []string) error {
	for _, id := range ids {
		e, err := s.Store.Entries.ByID(c, st.ID, id)
		if errors.Is(err, store.ErrNotFound) {
			continue
		}
		if err != nil {
			return err
		}
		letter, reply := mail.OfEntry(
			st.Name,
			paths.To(st.Slug).At("entries")+"?entry="+e.ID,
			cmp.Or(e.From, "a page"),
			e.Answers,
		)
		if err := s.Store.Entries.Trust(c, st.ID, id, store.Telling{Letter: letter, ReplyTo: reply}); err != nil {
			return err
		}
	}
	return nil
}
