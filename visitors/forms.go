package visitors

import (
	"io"
	"net/http"
	"net/url"
	"slices"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/origin"
	"openplot/store"
)

// Limits of what a visitor can send with a form.
const (
	maxFormBytes  = 64 << 10
	maxFormFields = 80
	maxFormID     = 60 // characters
	maxFormName   = 300
	maxFormValue  = 10_000
)

// takeForm keeps what a visitor sent.
func (s *Server) takeForm(c *gin.Context) { s.keepForm(c, c.Param("site"), c.Param("form"), false) }

// keepForm keeps what was sent with a form of a site. It stands in for the mail or the
// service that a site would really send to.
func (s *Server) keepForm(c *gin.Context, site, form string, trial bool) {
	st, err := s.Store.SiteBySlug(c, site)
	if err != nil {
		visitorPage(c, http.StatusNotFound, "There is no such form", "", "")
		return
	}
	if !s.forms.Allow(origin.Address(c.Request), time.Now()) {
		visitorPage(
			c, http.StatusTooManyRequests, "Too many messages at once",
			"Wait a minute and send it again; nothing you wrote is lost if you go back.", back(c),
		)
		return
	}
	c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, maxFormBytes)
	sent, err := io.ReadAll(c.Request.Body)
	if err != nil {
		visitorPage(
			c, http.StatusUnprocessableEntity, "Your message couldn’t be read",
			"What you sent is longer than 64 kB. Go back, make it shorter and send it again.", back(c),
		)
		return
	}
	answers, ok := readAnswers(string(sent))
	if !ok {
		visitorPage(
			c, http.StatusUnprocessableEntity, "Your message couldn’t be read",
			"One of the answers is too long. Go back, make it shorter and send it again.", back(c),
		)
		return
	}
	if !slices.ContainsFunc(answers, func(a store.Answer) bool { return strings.TrimSpace(a.Value) != "" }) {
		visitorPage(c, http.StatusUnprocessableEntity, "Nothing was filled in", "Go back and fill in at least one field.", back(c))
		return
	}
	if r := []rune(form); len(r) > maxFormID {
		form = string(r[:maxFormID])
	}
	if err := s.Store.AddFormEntry(c, st.ID, form, answers, trial); err != nil {
		s.Log.Error("form", "id", origin.RequestID(c), "error", err)
		visitorPage(
			c, http.StatusInternalServerError, "Your message wasn’t sent",
			"Something went wrong on our side. Go back and send it again in a moment.", back(c),
		)
		return
	}
	thanks := "What you wrote has arrived."
	if trial {
		thanks = "This was a trial: it is kept apart from what visitors send, under Form entries."
	}
	visitorPage(c, http.StatusOK, "Thank you", thanks, back(c))
}

// readAnswers reads what a form sent (URL Standard §5.1), in the order of its fields;
// several values of one field become one. It is not ok when something is too long.
func readAnswers(sent string) (answers []store.Answer, ok bool) {
	for _, pair := range strings.Split(sent, "&") {
		name, value, _ := strings.Cut(pair, "=")
		name, err := url.QueryUnescape(name)
		value, err2 := url.QueryUnescape(value)
		if err != nil || err2 != nil || name == "" {
			continue
		}
		i := slices.IndexFunc(answers, func(a store.Answer) bool { return a.Field == name })
		if i >= 0 {
			answers[i].Value += ", " + value
		} else {
			i = len(answers)
			answers = append(answers, store.Answer{Field: name, Value: value})
		}
		if len(answers) > maxFormFields || len(name) > maxFormName || len(answers[i].Value) > maxFormValue {
			return nil, false
		}
	}
	return answers, true
}

// back is the page a visitor came from, when it is one of this origin's.
func back(c *gin.Context) string {
	u, err := url.Parse(c.Request.Referer())
	if err != nil || u.Host != c.Request.Host {
		return ""
	}
	return u.EscapedPath()
}
