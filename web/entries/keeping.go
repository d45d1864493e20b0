package entries

import (
	"errors"
	"maps"
	"net/http"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/number"
	"openplot/core/policy"
	"openplot/core/rights"
	"openplot/mail"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/paths"
	"openplot/web/shell"
)

// Keeping is how entries go on from the Inbox: sent on by mail, kept for a while, erased.
type Keeping struct{ *desk.Desk }

// Routes lists its addresses.
func (s *Keeping) Routes() []shell.Route {
	const mails = inboxRoute + "/mails"
	return []shell.Route{
		shell.Get(inboxRoute+"/keeping", rights.Keep, s.keeping),
		shell.Post(inboxRoute+"/keeping", rights.Keep, s.setKeeping),
		shell.Post(inboxRoute+"/erase", rights.Keep, s.erase),
		shell.Get(mails, rights.Keep, s.mails),
		shell.Post(mails, rights.Keep, s.setMail),
		shell.Post(mails+"/trial", rights.Keep, s.sendTrial),
		shell.Post(mails+"/again", rights.Keep, s.sendAgain),
		shell.Get(mails+"/:mail", rights.Keep, s.mail),
		shell.Get(mails+"/:mail/page", rights.Keep, s.mailPage),
	}
}

// keepingView is how entries are sent on by mail, how long they are kept, and what erases them.
type keepingView struct {
	User             *store.User
	Site             *store.Site
	Said, Problem    string
	Mail             store.MailSettings // as entered
	Days             string             // as entered
	Forms            []formKept
	Mails            mailsView
	Mailing, StandIn bool // there is a server that mails go to, and that is the stand-in
}

// formKept is what of a form differs from its site, as entered, and what goes when.
type formKept struct {
	*store.OfForm
	At           formAt
	Days, MailTo string
	Goes         string // when the oldest entry does, in words
}

func (s *Keeping) keeping(c *gin.Context) { s.keepingScreen(c, http.StatusOK, keepingView{}) }

// keepingScreen shows it; what was entered and couldn't be kept is in the view.
func (s *Keeping) keepingScreen(c *gin.Context, status int, v keepingView) {
	st := shell.SiteOf(c)
	entered := v.Problem != ""
	v.User, v.Site, v.Mailing, v.StandIn = shell.User(c), st, s.Mails, s.StandIn != nil
	if v.Mail == (store.MailSettings{}) {
		v.Mail = st.Mail
		v.Mail.To = strings.ReplaceAll(st.Mail.To, ",", ", ")
	}
	if v.Days == "" {
		v.Days = strconv.Itoa(st.EntryDays)
	}
	of, forms, err := s.known(c, st)
	if err != nil {
		s.Fail(c, err)
		return
	}
	for _, f := range of {
		one := formKept{OfForm: f, At: forms[f.Form]}
		days := st.EntryDays
		if f.Days != nil {
			days, one.Days = *f.Days, strconv.Itoa(*f.Days)
		}
		if f.MailTo != nil {
			one.MailTo = strings.ReplaceAll(*f.MailTo, ",", ", ")
		}
		if f.Oldest != nil {
			one.Goes = keptUntil(&store.FormEntry{SentAt: *f.Oldest}, days, desk.ZoneOf(st))
		}
		if entered {
			if days, ok := c.GetPostForm("days " + f.Form); ok {
				one.Days, one.MailTo = days, c.PostForm("to "+f.Form)
			}
		}
		v.Forms = append(v.Forms, one)
	}
	v.Mails.Site = st
	if v.Mails.Mails, err = s.Store.Mails.List(c, st.ID, shownMails); err != nil {
		s.Fail(c, err)
		return
	}
	s.Screen(c, status, "keeping", v)
}

// known lists the forms of a site, those included that nobody has sent yet, and where they stand.
func (s *Keeping) known(c *gin.Context, st *store.Site) (of []*store.OfForm, at map[string]formAt, err error) {
	if at, err = formsOf(c, s.Desk, st); err != nil {
		return nil, nil, err
	}
	if of, err = s.Store.Inbox.Forms(c, st.ID); err != nil {
		return nil, nil, err
	}
	for _, form := range slices.Sorted(maps.Keys(at)) {
		if !slices.ContainsFunc(of, func(f *store.OfForm) bool { return f.Form == form }) {
			of = append(of, &store.OfForm{Form: form})
		}
	}
	return of, at, nil
}

// setKeeping says how long entries are kept, and what of a form differs.
func (s *Keeping) setKeeping(c *gin.Context) {
	st := shell.SiteOf(c)
	refuse := func(problem string) {
		s.keepingScreen(c, http.StatusUnprocessableEntity, keepingView{Problem: problem, Days: c.PostForm("days")})
	}
	days, problem := readDays("Days", c.PostForm("days"))
	if problem != nil {
		refuse(problem.Sentence())
		return
	}
	type own struct {
		form   string
		days   *int
		mailTo *string
	}
	var all []own
	for name := range c.Request.PostForm {
		form, ok := strings.CutPrefix(name, "days ")
		if !ok {
			continue
		}
		one := own{form: form}
		if entered := strings.TrimSpace(c.PostForm(name)); entered != "" {
			n, problem := readDays("Days of a form", entered)
			if problem != nil {
				refuse(problem.Sentence())
				return
			}
			one.days = &n
		}
		if entered := strings.TrimSpace(c.PostForm("to " + form)); entered != "" {
			to, err := addresses("Addresses of a form", entered)
			var problem *doc.Problem
			if errors.As(err, &problem) {
				refuse(problem.Sentence())
				return
			}
			one.mailTo = &to
		}
		all = append(all, one)
	}
	if len(all) > mostAtOnce {
		s.ProblemPage(c, http.StatusRequestEntityTooLarge)
		return
	}
	if err := s.Store.Entries.SetDays(c, st.ID, days); err != nil {
		s.Fail(c, err)
		return
	}
	of, _, err := s.known(c, st)
	if err != nil {
		s.Fail(c, err)
		return
	}
	for _, one := range all {
		if !slices.ContainsFunc(of, func(f *store.OfForm) bool { return f.Form == one.form }) {
			continue
		}
		if err := s.Store.Inbox.SetForm(c, st.ID, one.form, one.days, one.mailTo); err != nil {
			s.Fail(c, err)
			return
		}
	}
	st.EntryDays = days
	s.Note(c, "form entries' life set", st.ID, strconv.Itoa(days)+" days")
	s.keepingScreen(c, http.StatusOK, keepingView{Said: "Kept. What is older goes within a day."})
}

// readDays reads how many days entries are kept.
func readDays(field, entered string) (int, *doc.Problem) {
	days, err := number.Whole(strings.TrimSpace(entered))
	if err != nil || days < policy.Days(policy.LeastEntries) || days > policy.Days(policy.LongestEntries) {
		return 0, doc.Problemf(field, "can't be %.20q: write a number from 1 to 3650", entered)
	}
	return days, nil
}

// setMail says which addresses entries go to, and how mails of the site look to those who get them.
func (s *Keeping) setMail(c *gin.Context) {
	st := shell.SiteOf(c)
	v := store.MailSettings{
		To:    c.PostForm("to"),
		Name:  strings.TrimSpace(c.PostForm("name")),
		Reply: strings.TrimSpace(c.PostForm("reply")),
	}
	to, err := addresses("To", v.To)
	if err == nil && len([]rune(v.Name)) > longestFrom {
		err = doc.Problemf("Name", "has %d characters: write %d at most", len([]rune(v.Name)), longestFrom)
	}
	if _, wrong := mail.Address(v.Reply); err == nil && v.Reply != "" && wrong != nil {
		err = doc.Problemf(
			"Answers go to",
			"can't be %.60q: write one address such as office@example.org, or nothing",
			v.Reply,
		)
	}
	var problem *doc.Problem
	if errors.As(err, &problem) {
		s.keepingScreen(c, http.StatusUnprocessableEntity, keepingView{Problem: problem.Sentence(), Mail: v})
		return
	}
	v.To = to
	if err := s.Store.Mails.Set(c, st.ID, v); err != nil {
		s.Fail(c, err)
		return
	}
	st.Mail = v
	s.Note(c, "form entries sent on", st.ID, to)
	said := "Kept. New entries go to " + strings.ReplaceAll(to, ",", ", ") + "."
	if to == "" {
		said = "Kept. Entries stay here alone."
	}
	s.keepingScreen(c, http.StatusOK, keepingView{Said: said})
}

// longestFrom is how many characters the name has at most that mails come from.
const longestFrom = 80

// addresses reads addresses with commas between, each once.
func addresses(field, entered string) (string, error) {
	var all []string
	for a := range strings.FieldsFuncSeq(entered, func(r rune) bool { return r == ',' || r == ';' || r == ' ' || r == '\n' || r == '\r' }) {
		address, err := mail.Address(a)
		if err != nil {
			return "", doc.Problemf(
				field,
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
			field,
			"has %d addresses: write %d at most, or one that goes on to all",
			len(all),
			policy.MailAddresses,
		)
	}
	return strings.Join(all, ","), nil
}

// erase forgets all that somebody sent, as they may ask for; that it was done is noted.
func (s *Keeping) erase(c *gin.Context) {
	st := shell.SiteOf(c)
	written := strings.TrimSpace(c.PostForm("written"))
	if written == "" {
		s.keepingScreen(
			c,
			http.StatusUnprocessableEntity,
			keepingView{Problem: "Write what the person entered, such as their email."},
		)
		return
	}
	n, err := s.Store.Entries.EraseAnswers(c, st.ID, written)
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Note(c, "form entries erased", st.ID, strconv.FormatInt(n, 10))
	said := "Nobody entered exactly that."
	if n > 0 {
		said = strconv.FormatInt(
			n,
			10,
		) + " erased on " + time.Now().
			In(desk.ZoneOf(st)).
			Format("2 January 2006, 15:04") +
			", with the notes and mails about them. The audit log has that it was done."
	}
	s.keepingScreen(c, http.StatusOK, keepingView{Said: said})
}

// toKeeping leads to the mails on that screen.
func toKeeping(st *store.Site) string { return paths.To(st.Slug).At("entries", "keeping") + "#mails" }
