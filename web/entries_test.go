package web

import (
	"net/http"
	"net/url"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/tree"
	"openplot/store"
)

// An entry says with which form it was sent, by the section and the page that it stands on, in the Inbox
// and in the file; of a form that visitors don't have any more nothing is made up.
func TestEntriesNameTheirForm(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	ctx := t.Context()
	p.put(&doc.Page{ID: "p2", Name: "Berths", Title: "Berths", Sections: []*doc.Section{{
		ID: "s2", Name: "Ask for a berth", Blocks: []*doc.Block{{
			ID: "b2", Kind: doc.Form, Place: doc.Zoned[doc.Place]{"desktop": {Column: 1, Span: 6, Row: 1, Rows: 2}},
			Content: doc.Content{
				Entries: []doc.Entry{{Words: doc.PlainWords("Name"), Values: map[string]string{"type": "text"}}},
			},
		}},
	}}}, tree.Page{ID: "p2", Name: "Berths"})
	if status, body, _ := d.post("/sites/skerry/publish", url.Values{"id": {"p2"}}); status != http.StatusSeeOther {
		t.Fatalf("%d %.300s", status, body)
	}
	for form, value := range map[string]string{"b2": "Ada", "gone": "Tove"} {
		e := store.FormEntry{Form: form, Answers: []store.Answer{{Field: "Name", Value: value}}}
		if err := p.store.Entries.Add(ctx, "w1", e); err != nil {
			t.Fatal(err)
		}
	}
	_, text, _ := d.get("/sites/skerry/entries")
	if n := strings.Count(text, "With the form"); n != 1 || !strings.Contains(text, "“Ask for a berth”") ||
		!strings.Contains(text, "/sites/skerry/pages/berths/bench?select=b2") {
		t.Errorf("%d forms are named: %.600s", n, text)
	}
	_, file, _ := d.get("/sites/skerry/entries/file")
	if !strings.Contains(file, ",b2,Ask for a berth,Berths,,Ada") || !strings.Contains(file, ",gone,,,,Tove") {
		t.Errorf("the file: %s", file)
	}
}
