package web

import (
	"encoding/json"
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/tree"
	"openplot/mail"
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
		e := store.FormEntry{ID: "of " + form, Form: form, Answers: []store.Answer{{Field: "Name", Value: value}}}
		if err := p.store.Entries.Add(ctx, "w1", e, store.Telling{}); err != nil {
			t.Fatal(err)
		}
	}
	_, text, _ := d.get("/sites/skerry/entries")
	if !strings.Contains(text, "Berths</span>") || !strings.Contains(text, "A form that isn’t there any more</span>") {
		t.Errorf("the forms aren't named: %.600s", text)
	}
	for id, form := range map[string]bool{"of b2": true, "of gone": false} {
		_, text, _ := d.get("/sites/skerry/entries/" + url.PathEscape(id))
		if strings.Contains(text, "“Ask for a berth” on") != form ||
			strings.Contains(text, "/sites/skerry/pages/berths/bench?select=b2") != form {
			t.Errorf("%s: %.900s", id, text)
		}
	}
	_, file, _ := d.get("/sites/skerry/entries/file")
	if !strings.Contains(file, ",b2,Ask for a berth,Berths,,Ada") || !strings.Contains(file, ",gone,,,,Tove") {
		t.Errorf("the file: %s", file)
	}
}

// What is open is read by whoever opened it; what was taken away is followed by the next, and comes back;
// what was seen stays in its list until it is asked for again.
func TestInbox(t *testing.T) {
	p := begin(t)
	ctx := t.Context()
	for _, id := range []string{"e1", "e2", "e3"} {
		e := store.FormEntry{
			ID:   id,
			Form: "b1",
			Answers: []store.Answer{
				{Field: "Name", Value: "Who of " + strings.Repeat("x", int(id[1]-'0'))},
				{Field: "Mail", Value: id + "@example.org"},
			},
		}
		if err := p.store.Entries.Add(ctx, "w1", e, store.Telling{}); err != nil {
			t.Fatal(err)
		}
	}
	d, w := p.as("designer@example.org"), p.as("writer@example.org")
	const at = "/sites/skerry/entries"
	rows := func(body string) string {
		var ids []string
		for _, id := range []string{"e3", "e2", "e1"} {
			if strings.Contains(body, `id="row-`+id+`"`) {
				ids = append(ids, id)
			}
		}
		return strings.Join(ids, " ")
	}
	asks := func(who *person, path string, form url.Values) string {
		t.Helper()
		status, body, _ := who.part(path, form)
		if status != http.StatusOK {
			t.Fatalf("%s %v: %d %.400s", path, form, status, body)
		}
		return body
	}
	for _, who := range []*person{d, w} {
		if _, body, _ := who.get(at); rows(body) != "e3 e2 e1" || strings.Count(body, "inbox-unread") != 3 {
			t.Errorf("new: %q", rows(body))
		}
	}
	_, body, _ := d.get(at + "/e2?box=new")
	if !strings.Contains(body, "e2@example.org") || strings.Contains(body, "inbox-rows") {
		t.Errorf("e2: %.500s", body)
	}
	if _, body, _ := d.get(at + "?box=new"); rows(body) != "e3 e1" {
		t.Errorf("what is left: %q", rows(body))
	}
	if _, body, _ := w.get(at + "?box=new"); rows(body) != "e3 e2 e1" {
		t.Errorf("another reads it: %q", rows(body))
	}
	seen := url.Values{"look": {"box=new&entry=e2"}, "seen": {"e3 e2 e1"}, "act": {"star e1"}}
	if body := asks(d, at+"/marks", seen); rows(body) != "e3 e2 e1" || !strings.Contains(body, `value="unstar e1"`) {
		t.Errorf("after a star: %q", rows(body))
	}
	gone := url.Values{"look": {"box=all&entry=e2"}, "id": {"e2"}, "act": {"delete"}}
	body = asks(d, at+"/acts", gone)
	if rows(body) != "e3 e1" || !strings.Contains(body, "1 entry deleted") ||
		!strings.Contains(body, `id="entry-who">Who of x<`) {
		t.Errorf("after deleting: %q %.600s", rows(body), body)
	}
	body = asks(d, at+"/acts", url.Values{"look": {"box=all"}, "id": {"e2"}, "act": {"restore"}})
	if rows(body) != "e3 e2 e1" {
		t.Errorf("undone: %q", rows(body))
	}
	if body := asks(d, at+"/acts", url.Values{"look": {"box=all"}, "id": {"e1", "e3"}, "act": {"spam"}}); rows(
		body,
	) != "e2" {
		t.Errorf("spam: %q", rows(body))
	}
	if body := asks(d, at+"/marks", url.Values{"look": {"box=all"}, "id": {"e2"}, "act": {"unread"}}); strings.Count(
		body,
		"inbox-unread",
	) != 1 {
		t.Error("it isn't unread")
	}
	for _, act := range []string{"delete", "spam", "person", "restore", "empty"} {
		if status, _, _ := w.post(at+"/acts", url.Values{"id": {"e2"}, "act": {act}}); status != http.StatusForbidden {
			t.Errorf("a writer's %s: %d", act, status)
		}
	}
	for path, form := range map[string]url.Values{
		"/marks": {"act": {"burn"}, "id": {"e2"}}, "/acts": {"act": {"burn"}, "id": {"e2"}}, "/notes": {"id": {"nothing"}, "note": {"x"}},
		"/answer": {"id": {"nothing"}, "words": {"x"}, "subject": {"x"}},
	} {
		if status, _, _ := d.post(at+path, form); status != http.StatusNotFound {
			t.Errorf("%s %v: %d", path, form, status)
		}
	}
	var list []map[string]any
	_, file, h := d.get(at + "/file?as=json")
	if err := json.Unmarshal([]byte(file), &list); err != nil || len(list) != 3 || list[0]["id"] != "e1" ||
		!strings.Contains(h.Get("Content-Disposition"), ".json") {
		t.Errorf("as JSON: %v %.200s", err, file)
	}
}

// An answer goes to whoever sent the entry, with what they wrote below it, from the site; a writer sends
// none, and what is wrong loses nothing.
func TestAnswers(t *testing.T) {
	p := begin(t)
	p.server.Mails = true
	ctx := t.Context()
	e := store.FormEntry{
		ID:   "e1",
		Form: "b1",
		Answers: []store.Answer{
			{Field: "Mail", Value: " ida@berg.example "},
			{Field: "Words", Value: "Is it running?\nIda"},
		},
	}
	for id, answers := range map[string][]store.Answer{"e1": e.Answers, "none": e.Answers[1:]} {
		e.ID, e.Answers = id, answers
		if err := p.store.Entries.Add(ctx, "w1", e, store.Telling{}); err != nil {
			t.Fatal(err)
		}
	}
	d := p.as("designer@example.org")
	if status, _, _ := d.post("/sites/skerry/entries/mails", url.Values{"name": {"The Skerry Line"}, "reply": {"office@skerry.example"}}); status != http.StatusOK {
		t.Fatal(status)
	}
	send := func(who *person, id, subject, words string) (int, string) {
		status, body, _ := who.post(
			"/sites/skerry/entries/answer",
			url.Values{"id": {id}, "subject": {subject}, "words": {words}},
		)
		return status, body
	}
	for _, wrong := range [][2]string{{"Re", " \n"}, {"", "Yes"}, {strings.Repeat("x", 201), "Yes"}, {"Re", strings.Repeat("y", 20_001)}} {
		if status, body := send(d, "e1", wrong[0], wrong[1]); status != http.StatusUnprocessableEntity ||
			!strings.Contains(body, `role="alert"`) ||
			!strings.Contains(body, wrong[1]) ||
			!strings.Contains(body, `value="`+wrong[0]) {
			t.Errorf("%.10q: %d", wrong, status)
		}
	}
	if status, _ := send(p.as("writer@example.org"), "e1", "Re", "Yes"); status != http.StatusForbidden {
		t.Errorf("a writer: %d", status)
	}
	if status, _ := send(d, "none", "Re", "Yes"); status != http.StatusNotFound {
		t.Errorf("to nobody: %d", status)
	}
	for range 2 {
		if status, body := send(d, "e1", "Re: Berth\r\nBcc: a@example.org", "Yes.\r\n\r\nCome early."); status != http.StatusSeeOther {
			t.Fatalf("%d %.300s", status, body)
		}
	}
	mails, err := p.store.Mails.OfEntry(ctx, "w1", "e1")
	if err != nil || len(mails) != 2 {
		t.Fatalf("%d mails: %v", len(mails), err)
	}
	var l mail.Letter
	if err := json.Unmarshal(mails[0].Letter, &l); err != nil {
		t.Fatal(err)
	}
	m := mails[0]
	if m.To != "ida@berg.example" || m.ReplyTo != "office@skerry.example" || m.SiteName != "The Skerry Line" ||
		m.ByName != "Some One" ||
		len(l.Lead) != 3 ||
		l.Lead[1] != "Come early." ||
		len(l.Fields) != 2 ||
		l.Fields[1].Value != "Is it running?\nIda" {
		t.Errorf("%+v %+v", m, l)
	}
	if _, body, _ := d.get("/sites/skerry/entries?entry=e1"); !strings.Contains(body, "Come early.") ||
		!strings.Contains(body, "Some One answered") {
		t.Error("the answer isn't shown")
	}
}

// What of a form differs from its site is kept for it alone, and what is wrong is said and kept for nobody.
func TestKeepingOfForms(t *testing.T) {
	p := begin(t)
	ctx := t.Context()
	for _, form := range []string{"b1", "b2"} {
		if err := p.store.Entries.Add(ctx, "w1", store.FormEntry{Form: form, Answers: []store.Answer{{Field: "Name", Value: "A"}}}, store.Telling{}); err != nil {
			t.Fatal(err)
		}
	}
	d := p.as("designer@example.org")
	set := func(v url.Values) int {
		status, _, _ := d.post("/sites/skerry/entries/keeping", v)
		return status
	}
	kept := func() string {
		of, err := p.store.Inbox.Forms(ctx, "w1")
		if err != nil {
			t.Fatal(err)
		}
		var all []string
		for _, f := range of {
			one := f.Form
			if f.Days != nil {
				one += fmt.Sprint(" ", *f.Days)
			}
			if f.MailTo != nil {
				one += " " + *f.MailTo
			}
			all = append(all, one)
		}
		return strings.Join(all, ", ")
	}
	if status := set(url.Values{"days": {"90"}, "days b1": {"7"}, "to b1": {"crew@skerry.example"}, "days b2": {""}, "to b2": {""}, "days made-up": {"5"}}); status != http.StatusOK ||
		kept() != "b1 7 crew@skerry.example, b2" {
		t.Errorf("%d: %s", status, kept())
	}
	for _, wrong := range []url.Values{{"days": {"0"}}, {"days": {"90"}, "days b1": {"x"}}, {"days": {"90"}, "days b2": {"1"}, "to b2": {"nobody"}}} {
		if status := set(wrong); status != http.StatusUnprocessableEntity || kept() != "b1 7 crew@skerry.example, b2" {
			t.Errorf("%v: %d, %s", wrong, status, kept())
		}
	}
	letter := store.Telling{Letter: mail.Letter{Subject: "x"}}
	if err := p.store.Mails.Set(ctx, "w1", store.MailSettings{To: "office@skerry.example"}); err != nil {
		t.Fatal(err)
	}
	for form, to := range map[string]string{"b1": "crew@skerry.example", "b2": "office@skerry.example"} {
		e := store.FormEntry{ID: "to " + form, Form: form, Answers: []store.Answer{{Field: "Name", Value: "B"}}}
		if err := p.store.Entries.Add(ctx, "w1", e, letter); err != nil {
			t.Fatal(err)
		}
		if ms, err := p.store.Mails.OfEntry(ctx, "w1", e.ID); err != nil || len(ms) != 1 || ms[0].To != to {
			t.Errorf("of %s: %+v, %v", form, ms, err)
		}
	}
	if status := set(url.Values{"days": {"90"}, "days b1": {""}, "to b1": {""}}); status != http.StatusOK ||
		kept() != "b1, b2" {
		t.Errorf("taken back: %d: %s", status, kept())
	}
}
