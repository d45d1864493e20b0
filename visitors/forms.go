package visitors

import (
	"cmp"
	"errors"
	"html"
	"io"
	"net/http"
	"net/url"
	"slices"
	"strings"
	"time"
	"unicode/utf8"

	"github.com/gin-gonic/gin"

	"openplot/core/inbox"
	"openplot/core/phrase"
	"openplot/origin"
	"openplot/store"
)

// Limits of what a visitor can send with a form.
const (
	maxFormBytes  = 64 << 10
	maxFormFields = 80
	maxFormName   = 300
	maxFormValue  = 10_000
)

// forms is a Server that takes what visitors send.
type forms struct{ *Server }

// takeForm keeps what a visitor sent with a form that the site published.
func (s forms) takeForm(c *gin.Context) {
	form := c.Param("form")
	st, err := s.siteHere(c)
	if err == nil && c.Param("site") == st.Slug {
		var fields []string
		if fields, err = s.Store.Visible.FormFields(c, st.ID, form); err == nil {
			s.keepForm(c, st, form, fields, false)
			return
		}
	}
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		s.formFailed(c, err)
		return
	}
	s.tell(
		c,
		http.StatusNotFound,
		"There is no such form",
		"It may have been taken off the page. Load the page again and send it from there.",
		back(c),
	)
}

// siteHere is the site that the request's host shows, if it is the one whose address that is.
func (s *Server) siteHere(c *gin.Context) (*store.Site, error) {
	at := standingOf(c)
	if at == nil || at.Slug != c.GetString(keySlug) {
		return nil, store.ErrNotFound
	}
	return s.Store.Sites.ByID(c, at.Site)
}

func (s forms) formFailed(c *gin.Context, err error) {
	s.Log.Error("form", "id", origin.RequestID(c), "error", err)
	s.tell(
		c, http.StatusInternalServerError, "Your message wasn’t sent",
		"Something went wrong on our side. Go back and send it again in a moment.", back(c),
	)
}

// keepForm keeps what was sent with a form of a site: of the fields that it has, where those are
// known. What is read from its published page says what it is held to, and what comes after.
func (s forms) keepForm(c *gin.Context, st *store.Site, form string, fields []string, trial bool) {
	now := time.Now()
	says := phrase.In(st.Language)
	tooMany := func() {
		c.Header("Retry-After", "60")
		s.say(c, http.StatusTooManyRequests, says.Say(phrase.TooMany), says.Say(phrase.Wait), says)
	}
	network := origin.Network(c.ClientIP())
	if !s.allows(c, s.senders, "sender "+network, now) {
		tooMany()
		return
	}
	sent, err := io.ReadAll(c.Request.Body)
	if err != nil {
		s.tell(
			c, http.StatusUnprocessableEntity, "Your message couldn’t be read",
			"What you sent is longer than 64 kB. Go back, make it shorter and send it again.", back(c),
		)
		return
	}
	var asked *askedForm // nil on a preview, and where its page can't be found
	if !trial {
		asked = s.askedBy(c, form)
	}
	if asked != nil {
		defer asked.folder.root.Close()
		if entered, err := url.ParseQuery(string(sent)); err == nil && asked.again(c, entered) {
			return
		}
	}
	answers, ok := readAnswers(string(sent))
	if !ok {
		s.tell(
			c, http.StatusUnprocessableEntity, "Your message couldn’t be read",
			"One of the answers is too long. Go back, make it shorter and send it again.", back(c),
		)
		return
	}
	if asked != nil {
		asked.fromAddress(c, answers)
	}
	once := ""
	if i := slices.IndexFunc(answers, func(a store.Answer) bool { return a.Field == inbox.Once }); i >= 0 {
		once = answers[i].Value
	}
	answers, suspect := inbox.Sort(answers, fields)
	if suspect == "" && !s.allows(c, s.daily, "daily "+network+" "+form, now) {
		suspect = "many came from one network that day"
	}
	if trial {
		suspect = ""
	}
	// Programs use up what a form takes of programs, and nothing that people need.
	of, key := s.limits.forms, "form "
	if suspect != "" {
		of, key = s.programs, "program "
	}
	if !s.allows(c, of, key+st.ID+" "+form, now) {
		tooMany()
		return
	}
	if !slices.ContainsFunc(answers, func(a store.Answer) bool { return strings.TrimSpace(a.Value) != "" }) {
		s.tell(
			c,
			http.StatusUnprocessableEntity,
			"Nothing was filled in",
			"Go back and fill in at least one field.",
			back(c),
		)
		return
	}
	e := store.FormEntry{ID: store.NewID("e"), Form: form, Once: once, Answers: answers, Trial: trial, Suspect: suspect}
	e.From = c.Request.Host + back(c)
	told := telling(st, &e)
	if asked != nil && has(asked.form, "data-copy") {
		told.Copy, told.CopyTo = copied(st, &e, says)
	}
	err = s.Store.Entries.Add(c, st.ID, e, told)
	if errors.Is(err, store.ErrFull) {
		c.Header("Retry-After", "3600")
		s.tell(
			c,
			http.StatusServiceUnavailable,
			"This form takes no more messages today",
			"Try another way to reach us, or send it again tomorrow.",
			back(c),
		)
		return
	}
	if err != nil {
		s.formFailed(c, err)
		return
	}
	if !trial && suspect == "" {
		s.count(c, store.CountedEntry, form)
	}
	switch {
	case trial:
		s.tell(
			c,
			http.StatusOK,
			"Thank you",
			"This was a trial: it is kept apart from what visitors send, under Trials in the Inbox.",
			back(c),
		)
	case asked != nil && asked.then(c) != "":
		c.Redirect(http.StatusSeeOther, asked.then(c))
	default:
		thanks := says.Say(phrase.Arrived)
		if asked != nil {
			thanks = cmp.Or(attribute(asked.form, "data-thanks"), thanks)
		}
		s.say(c, http.StatusOK, says.Say(phrase.Thanks), thanks, says)
	}
}

// allows reports whether one more attempt is let through: by this process, and by all of them together.
func (s forms) allows(c *gin.Context, of *origin.Attempts, key string, now time.Time) bool {
	if !of.Allow(key, now) {
		return false
	}
	burst, every := of.Rate()
	ok, err := s.Store.Limits.Allow(c, key, burst, every)
	if err != nil { // nobody is kept out by what doesn't work
		s.Log.Warn("limits", "id", origin.RequestID(c), "error", err)
	}
	return ok || err != nil
}

// say tells a visitor something in the language of the site, with a way back.
func (s forms) say(c *gin.Context, status int, title, text string, says *phrase.Book) {
	way := ""
	if page := back(c); page != "" {
		way = `<p><a href="` + html.EscapeString(
			page,
		) + `">` + html.EscapeString(
			says.Say(phrase.BackToPage),
		) + `</a></p>`
	}
	s.document(c, status, title, "<p>"+html.EscapeString(text)+"</p>"+way, "")
}

// readAnswers reads what a form sent (URL Standard §5.1), in the order of its fields;
// several values of one field become one. It is not ok when something is too long.
func readAnswers(sent string) (answers []store.Answer, ok bool) {
	for pair := range strings.SplitSeq(sent, "&") {
		name, value, _ := strings.Cut(pair, "=")
		name, err := url.QueryUnescape(name)
		value, err2 := url.QueryUnescape(value)
		if err != nil || err2 != nil || name == "" {
			continue
		}
		name, value = store.Clean(name), store.Clean(value)
		i := slices.IndexFunc(answers, func(a store.Answer) bool { return a.Field == name })
		if i >= 0 {
			answers[i].Value += ", " + value
		} else {
			i = len(answers)
			answers = append(answers, store.Answer{Field: name, Value: value})
		}
		if len(answers) > maxFormFields || len(name) > maxFormName ||
			utf8.RuneCountInString(answers[i].Value) > maxFormValue {
			return nil, false
		}
	}
	return answers, true
}

// back is the page a visitor came from, when it is one of this host's.
func back(c *gin.Context) string {
	u, err := url.Parse(c.Request.Referer())
	if err != nil || u.Host != c.Request.Host {
		return ""
	}
	return u.EscapedPath()
}
