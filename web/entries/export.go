package entries

import (
	"encoding/csv"
	"encoding/json"
	"slices"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/core/inbox"
	"openplot/origin"
	"openplot/store"
	"openplot/web/sheet"
	"openplot/web/shell"
)

// file sends all entries: as CSV (RFC 4180), with a column for every field that somebody filled in, or as
// JSON (RFC 8259).
func (s *Screen) file(c *gin.Context) {
	st := shell.SiteOf(c)
	if c.Query("as") == "json" {
		s.jsonFile(c)
		return
	}
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
	forms, err := formsOf(c, s.Desk, st)
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

// exported is an entry in a file.
type exported struct {
	ID      string         `json:"id"`
	Form    string         `json:"form"`
	Section string         `json:"section,omitempty"`
	Page    string         `json:"page,omitempty"`
	From    string         `json:"from,omitempty"` // the address of the page
	SentAt  time.Time      `json:"sentAt"`
	Suspect string         `json:"suspect,omitempty"` // why it looks like a program's
	Starred bool           `json:"starred"`
	Answers []inbox.Answer `json:"answers"`
}

func (s *Screen) jsonFile(c *gin.Context) {
	st := shell.SiteOf(c)
	forms, err := formsOf(c, s.Desk, st)
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Note(c, "form entries exported", st.ID, "JSON")
	c.Header("Content-Type", "application/json")
	c.Header("Content-Disposition", `attachment; filename="`+st.Slug+`-entries.json"`)
	between := "["
	err = s.Store.Entries.Each(c, st.ID, func(e *store.FormEntry) error {
		at := forms[e.Form]
		b, err := json.Marshal(exported{
			ID: e.ID, Form: e.Form, Section: at.Section, Page: at.Page, From: e.From, SentAt: e.SentAt.UTC(), Suspect: e.Suspect,
			Starred: e.Starred, Answers: e.Answers,
		})
		if err == nil {
			_, err = c.Writer.WriteString(between + "\n" + string(b))
		}
		between = ","
		return err
	})
	if err != nil { // the file has begun; it ends short
		s.Log.Error("export", "id", origin.RequestID(c), "error", err)
		return
	}
	if between == "[" {
		_, _ = c.Writer.WriteString("[")
	}
	_, _ = c.Writer.WriteString("\n]\n")
}
