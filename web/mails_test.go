package web

import (
	"encoding/json"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"openplot/mail"
	"openplot/store"
)

// Addresses that entries are sent on to are kept as what they are, each once, and none that is none; what
// was entered is there to be put right.
func TestEntriesGoToAddresses(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	set := func(to string) (int, string) {
		status, body, _ := d.post("/sites/skerry/entries/mails", url.Values{"to": {to}})
		return status, oneLine(body)
	}
	kept := func() string {
		st, err := p.store.Sites.BySlug(t.Context(), "skerry")
		if err != nil {
			t.Fatal(err)
		}
		return st.Mail.To
	}
	if status, _ := set(" office@skerry.example, crew@skerry.example;office@skerry.example "); status != http.StatusOK ||
		kept() != "office@skerry.example,crew@skerry.example" {
		t.Errorf("%d: %q", status, kept())
	}
	for _, wrong := range []string{
		"office", "Ann <ann@example.org>", "a@example.org\r\nBcc: b@example.org", "a@example.org,b@example.org,c@example.org,d@example.org,e@example.org,f@example.org",
	} {
		status, body := set(wrong)
		if status != http.StatusUnprocessableEntity || !strings.Contains(body, `role="alert">To `) ||
			kept() != "office@skerry.example,crew@skerry.example" {
			t.Errorf("%q: %d, %q", wrong, status, kept())
		}
	}
	if status, _ := set(""); status != http.StatusOK || kept() != "" {
		t.Errorf("none: %q", kept())
	}
}

// A mail is seen by those who may take entries away, of their own site; what somebody entered is text in
// it. Invitations are the owners'.
func TestMailsAreSeen(t *testing.T) {
	p := begin(t)
	ctx := t.Context()
	letter, err := json.Marshal(
		mail.Letter{
			Subject: "Skerry: <i>Ida</i>",
			Fields:  []mail.Field{{Label: "Words", Value: "<script>alert(1)</script>"}},
			Link:    &mail.Link{Words: "Join", URL: "/join/secret"},
		},
	)
	if err != nil {
		t.Fatal(err)
	}
	if err := p.store.Mails.Set(ctx, "w1", store.MailSettings{To: "office@skerry.example"}); err != nil {
		t.Fatal(err)
	}
	if err := p.store.Entries.Add(ctx, "w1", store.FormEntry{ID: "e1", Form: "b1", Answers: []store.Answer{{Field: "Words", Value: "hello"}}}, store.Telling{Letter: json.RawMessage(letter)}); err != nil {
		t.Fatal(err)
	}
	mails, err := p.store.Mails.OfEntry(ctx, "w1", "e1")
	if err != nil || len(mails) != 1 {
		t.Fatalf("%d mails: %v", len(mails), err)
	}
	entry := mails[0]
	invited := &store.Mail{Site: "w1", Sort: store.MailOfInvitation, To: "ann@example.org", Letter: letter}
	if err := p.store.Mails.Queue(ctx, invited); err != nil {
		t.Fatal(err)
	}
	d := p.as("designer@example.org")
	at := "/sites/skerry/entries/mails/"
	for _, path := range []string{at + entry.ID, at + entry.ID + "/page"} {
		status, body, h := d.get(path)
		if status != http.StatusOK || strings.Contains(body, "<script>alert") || strings.Contains(body, "<i>Ida") {
			t.Errorf("%s: %d %.400s", path, status, body)
		}
		if strings.HasSuffix(path, "/page") &&
			!strings.Contains(h.Get("Content-Security-Policy"), "default-src 'none'") {
			t.Errorf("%s: %v", path, h)
		}
		if status, _, _ := p.as("writer@example.org").get(path); status == http.StatusOK {
			t.Errorf("a writer sees %s", path)
		}
	}
	for _, path := range []string{at + invited.ID, at + invited.ID + "/page", at + "nothing"} {
		if status, body, _ := d.get(path); status != http.StatusNotFound || strings.Contains(body, "secret") {
			t.Errorf("a designer sees %s: %d", path, status)
		}
	}
	_, list, _ := d.get("/sites/skerry/entries/mails")
	if strings.Contains(list, "secret") || !strings.Contains(list, "ann@example.org") ||
		!strings.Contains(list, "hx-get") {
		t.Errorf("the list: %s", list)
	}
	if err := p.store.Mails.NotSent(ctx, entry.ID, "<b>refused</b>", true); err != nil {
		t.Fatal(err)
	}
	_, screen, _ := d.get("/sites/skerry/entries?entry=e1")
	if !strings.Contains(screen, "Couldn’t be sent on to office@skerry.example") ||
		strings.Contains(screen, "<b>refused") {
		t.Errorf("the screen: %.800s", screen)
	}
	if status, _, _ := d.post("/sites/skerry/entries/mails/again", url.Values{"id": {entry.ID}}); status != http.StatusSeeOther {
		t.Errorf("again: %d", status)
	}
	if m, err := p.store.Mails.ByID(ctx, entry.ID); err != nil || !m.Waiting() {
		t.Errorf("it is %+v, %v", m, err)
	}
}

// What was set apart goes on to the addresses once somebody says that it is from a person, and once.
func TestTrustedEntriesAreSentOn(t *testing.T) {
	p := begin(t)
	ctx := t.Context()
	if err := p.store.Mails.Set(ctx, "w1", store.MailSettings{To: "office@skerry.example"}); err != nil {
		t.Fatal(err)
	}
	e := store.FormEntry{
		ID:      "e1",
		Form:    "b1",
		Answers: []store.Answer{{Field: "Email", Value: "ida@berg.example"}},
		Suspect: "it was sent within two seconds",
	}
	if err := p.store.Entries.Add(ctx, "w1", e, store.Telling{}); err != nil {
		t.Fatal(err)
	}
	d := p.as("designer@example.org")
	for range 2 {
		if status, _, _ := d.post("/sites/skerry/entries/acts", url.Values{"id": {"e1"}, "act": {"person"}}); status != http.StatusSeeOther {
			t.Fatal(status)
		}
	}
	mails, err := p.store.Mails.List(ctx, "w1", 10)
	if err != nil || len(mails) != 1 || mails[0].Entry != "e1" || mails[0].ReplyTo != "ida@berg.example" {
		t.Errorf("mails: %+v, %v", mails, err)
	}
}
