package entries

import (
	"encoding/csv"
	"errors"
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
	"openplot/origin"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/paths"
	"openplot/web/sheet"
	"openplot/web/shell"
)

// Screen is what visitors sent by forms.
type Screen struct{ *desk.Desk }

// Routes lists its addresses.
func (s *Screen) Routes() []shell.Route {
	return append(
		s.mailRoutes(),
		shell.Get(paths.SiteRoute+"/entries", rights.See, s.formEntries),
		shell.Within(shell.Writing, shell.Get(paths.SiteRoute+"/entries/file", rights.Keep, s.entriesFile)),
		shell.Post(paths.SiteRoute+"/entries/delete", rights.Keep, s.deleteEntry),
		shell.Post(paths.SiteRoute+"/entries/trust", rights.Keep, s.trustEntry),
		shell.Post(paths.SiteRoute+"/entries/erase", rights.Keep, s.eraseEntries),
		shell.Post(paths.SiteRoute+"/entries/days", rights.Keep, s.setEntryDays),
	)
}

// shownEntries is how many entries the screen shows of each sort, the newest.
const shownEntries = 200

// entriesView is the screen of what visitors sent.
type entriesView struct {
	User                  *store.User
	Site                  *store.Site
	Sent, Trials, Suspect []*store.FormEntry
	MayDelete             bool
	Forms                 map[string]formAt // by the forms' ids
	Said, Problem         string
	To                    string                   // addresses that were entered and can't be kept, or those that are
	SentOn                map[string][]*store.Mail // by the entries' ids
	Mails                 mailsView
	Mailing, StandIn      bool // there is a server that mails go to, and that is the stand-in
}

// formEntries shows what visitors sent, and apart from it what looks like programs' and what
// was sent to try forms.
func (s *Screen) formEntries(c *gin.Context) { s.entriesScreen(c, http.StatusOK, entriesView{}) }

func (s *Screen) entriesScreen(c *gin.Context, status int, v entriesView) {
	st := shell.SiteOf(c)
	v.User, v.Site, v.MayDelete, v.Mailing, v.StandIn = shell.User(
		c,
	), st, st.Role.May(
		rights.Keep,
	), s.Mails, s.StandIn != nil
	if v.To == "" {
		v.To = strings.ReplaceAll(st.MailTo, ",", ", ")
	}
	all, err := s.Store.Entries.List(c, st.ID, false, shownEntries)
	if err == nil {
		v.Suspect, err = s.Store.Entries.List(c, st.ID, true, shownEntries)
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	for _, e := range all {
		if e.Trial {
			v.Trials = append(v.Trials, e)
		} else {
			v.Sent = append(v.Sent, e)
		}
	}
	if v.Forms, err = s.formsOf(c, st); err == nil && v.MayDelete {
		v.Mails.Site = st
		v.Mails.Mails, err = s.Store.Mails.List(c, st.ID, shownMails)
	}
	if err == nil && v.MayDelete {
		v.SentOn, err = s.Store.Mails.OfEntries(c, st.ID, shownEntries)
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Screen(c, status, "entries", v)
}

// formAt is where a form stands, in words, and on the Bench.
type formAt struct{ Section, Page, Path string }

// formsOf tells where the forms stand that visitors can send.
func (s *Screen) formsOf(c *gin.Context, st *store.Site) (map[string]formAt, error) {
	pages, err := s.Store.Visible.FormPages(c, st.ID)
	if err != nil {
		return nil, err
	}
	forms := map[string]formAt{}
	for form, id := range pages {
		p, err := s.Store.Pages.ByID(c, st.ID, id)
		if errors.Is(err, store.ErrNotFound) {
			continue
		}
		if err != nil {
			return nil, err
		}
		at := formAt{Page: p.Name, Path: paths.To(st.Slug).Page(p.Slug).At("bench")}
		if sec, b := p.Doc.Block(form); b != nil { // on the page as it is now
			at.Section, at.Path = sec.Name, at.Path+"?select="+form
		}
		forms[form] = at
	}
	return forms, nil
}

// deleteEntry forgets an entry; with "trials" all trials, with "suspects" all that look like
// programs'.
func (s *Screen) deleteEntry(c *gin.Context) {
	st := shell.SiteOf(c)
	id, err := c.PostForm("id"), error(nil)
	switch id {
	case "trials":
		err = s.Store.Entries.DeleteTrials(c, st.ID)
	case "suspects":
		err = s.Store.Entries.DeleteSuspects(c, st.ID)
	default:
		err = s.Store.Entries.Delete(c, st.ID, id)
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Note(c, "form entry deleted", st.ID, id)
	c.Redirect(http.StatusSeeOther, paths.To(st.Slug).At("entries"))
}

// trustEntry takes an entry for a person's.
func (s *Screen) trustEntry(c *gin.Context) {
	st := shell.SiteOf(c)
	e, err := s.Store.Entries.ByID(c, st.ID, c.PostForm("id"))
	if err == nil {
		err = s.trust(c, st, e)
	}
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		s.Fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, paths.To(st.Slug).At("entries"))
}

// eraseEntries forgets all that somebody sent, as they may ask for.
func (s *Screen) eraseEntries(c *gin.Context) {
	st := shell.SiteOf(c)
	written := strings.TrimSpace(c.PostForm("written"))
	if written == "" {
		s.entriesScreen(
			c,
			http.StatusUnprocessableEntity,
			entriesView{Problem: "Write what the person entered, such as their email."},
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
		said = strconv.FormatInt(n, 10) + " erased."
	}
	s.entriesScreen(c, http.StatusOK, entriesView{Said: said})
}

// setEntryDays says how long entries are kept.
func (s *Screen) setEntryDays(c *gin.Context) {
	st := shell.SiteOf(c)
	days, err := number.Whole(strings.TrimSpace(c.PostForm("days")))
	if err != nil || days < policy.Days(policy.LeastEntries) || days > policy.Days(policy.LongestEntries) {
		problem := doc.Problemf("Days", "can't be %.20q: write a number from 1 to 3650", c.PostForm("days"))
		s.entriesScreen(c, http.StatusUnprocessableEntity, entriesView{Problem: problem.Sentence()})
		return
	}
	if err := s.Store.Entries.SetDays(c, st.ID, days); err != nil {
		s.Fail(c, err)
		return
	}
	st.EntryDays = days
	s.Note(c, "form entries' life set", st.ID, strconv.Itoa(days)+" days")
	s.entriesScreen(c, http.StatusOK, entriesView{Said: "Kept. Older entries go within a day."})
}

// entriesFile sends all entries as CSV (RFC 4180), with a column for every field that
// somebody filled in.
func (s *Screen) entriesFile(c *gin.Context) {
	st := shell.SiteOf(c)
	var fields []string
	filled := map[string]int{} // by how many that look like people
	err := s.Store.Entries.Each(c, st.ID, func(e *store.FormEntry) error {
		for _, a := range e.Answers {
			if _, known := filled[a.Field]; !known && len(fields) < mostFields {
				fields = append(fields, a.Field)
			}
			n := 1
			if e.Suspect != "" {
				n = 0
			}
			filled[a.Field] += n
		}
		return nil
	})
	if err != nil {
		s.Fail(c, err)
		return
	}
	if len(fields) > maxColumns { // those that people fill in most
		order := slices.Clone(fields)
		slices.SortStableFunc(order, func(a, b string) int { return filled[b] - filled[a] })
		fields = slices.DeleteFunc(fields, func(f string) bool { return !slices.Contains(order[:maxColumns], f) })
	}
	forms, err := s.formsOf(c, st)
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Note(c, "form entries exported", st.ID, "")
	c.Header("Content-Type", "text/csv; charset=utf-8")
	c.Header("Content-Disposition", `attachment; filename="`+st.Slug+`-entries.csv"`)
	w := csv.NewWriter(c.Writer)
	w.UseCRLF = true
	header := append([]string{"Sent", "Form", "Section", "Page", "Looks like a program’s"}, fields...)
	for i := range header {
		header[i] = sheet.Cell(header[i])
	}
	_ = w.Write(header) // a failed write is told by the last one
	err = s.Store.Entries.Each(c, st.ID, func(e *store.FormEntry) error {
		at := forms[e.Form]
		row := append(
			make([]string, 0, len(header)),
			e.SentAt.UTC().Format(time.RFC3339),
			e.Form,
			sheet.Cell(at.Section),
			sheet.Cell(at.Page),
			e.Suspect,
		)
		for _, f := range fields {
			value := ""
			if i := slices.IndexFunc(e.Answers, func(a store.Answer) bool { return a.Field == f }); i >= 0 {
				value = sheet.Cell(e.Answers[i].Value)
			}
			row = append(row, value)
		}
		return w.Write(row)
	})
	if w.Flush(); err != nil || w.Error() != nil { // the file has begun; it ends short
		s.Log.Error("export", "id", origin.RequestID(c), "error", err)
	}
}

// maxColumns bounds the fields of an exported file, and mostFields those that are looked at: what
// was kept before only the form's own were may have more.
const (
	maxColumns = 200
	mostFields = 20_000
)
