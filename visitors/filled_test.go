package visitors

import (
	"fmt"
	"io"
	"net/http"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"golang.org/x/net/html"

	"openplot/core/phrase"
	"openplot/store"
)

// askedPage is a published page whose form has a field of each kind.
const askedPage = `<!DOCTYPE html><html lang="en"><head><title>Fares</title><style>p{color:red}</style></head><body>
<a href="#main">Skip</a><main id="main"><form class="form" method="post" action="/_forms/skerry/b1">
<div><label for="f1">Your name (required)</label><input id="f1" name="Your name" type="text" required></div>
<div><label for="f2">Email (required)</label><p id="f2-hint">so that we can answer</p><input id="f2" name="Email" type="email" required aria-describedby="f2-hint"></div>
<div><label for="f3">Length</label><input id="f3" name="Length" type="number" step="any"></div>
<div><label for="f4">Day</label><input id="f4" name="Day" type="date"></div>
<div><label for="f5">Time</label><input id="f5" name="Time" type="time"></div>
<div><label for="f6">Words</label><textarea id="f6" name="Words" required></textarea></div>
<div><label for="f7">Boat (required)</label><select id="f7" name="Boat" required><option value="">Choose</option><option>Skarva</option><option>Langey &amp; back</option></select></div>
<fieldset><legend>Berth (required)</legend><label><input type="radio" name="Berth" value="Car" required><span>Car</span></label><label><input type="radio" name="Berth" value="Sheep" required><span>Sheep</span></label></fieldset>
<fieldset><legend>With</legend><label><input type="checkbox" name="With" value="Dog"><span>Dog</span></label><label><input type="checkbox" name="With" value="Cat"><span>Cat</span></label></fieldset>
<div><label><input type="checkbox" name="consent" value="yes" required><span>Keep this (required)</span></label></div>
<input type="text" name="_homepage" hidden><input type="text" name="_took" hidden><button>Send</button></form></main></body></html>`

// asking has a site of which one page asks; the other one too, with a password.
func asking(t *testing.T) *visited {
	return askingBy(
		t,
		askedPage,
		"Your name",
		"Email",
		"Length",
		"Day",
		"Time",
		"Words",
		"Boat",
		"Berth",
		"With",
		"consent",
		"_homepage",
		"_took",
	)
}

// askingBy is a site with a published page that has a form with fields.
func askingBy(t *testing.T, page string, fields ...string) *visited {
	t.Helper()
	v := begin(t)
	v.publishes(
		"w1",
		store.Edition{Page: "p1", Said: store.Said{Forms: []store.PublishedForm{{Block: "b1", Fields: fields}}}},
	)
	for name, text := range map[string]string{
		"w1/contents/b.html": page,
		"w1/release.json":    `{"pages":{"fares":{"file":"b.html","type":"text/html","page":"p1"}}}`,
	} {
		at := filepath.Join(v.SiteDir, name)
		if err := os.MkdirAll(filepath.Dir(at), 0o755); err != nil {
			t.Fatal(err)
		}
		if err := os.WriteFile(at, []byte(text), 0o600); err != nil {
			t.Fatal(err)
		}
	}
	return v
}

// right is what fills that form in.
func right() url.Values {
	return url.Values{
		"Your name": {
			"Ida",
		}, "Email": {"ida@berg.example"}, "Length": {"4.5"}, "Day": {"2026-12-05"}, "Time": {"09:12"}, "Words": {"Two bicycles"},
		"Boat": {
			"Langey & back",
		}, "Berth": {"Sheep"}, "With": {"Dog", "Cat"}, "consent": {"yes"}, "_homepage": {""}, "_took": {"9000"},
	}
}

// Each field is held to what its page says of it, as browsers do; what was entered is still there, and each
// problem stands beside its field and leads to it.
func TestFieldsAreCheckedAgain(t *testing.T) {
	v := asking(t)
	if status, body, _ := v.ask("192.0.2.9", "POST", v.Hosts.Public("skerry")+"/_forms/skerry/b1", right()); status != http.StatusOK {
		t.Fatalf("what is right: %d %.300s", status, body)
	}
	for i, tt := range []struct {
		field string
		value []string
		says  string // "" is right
	}{
		{"Your name", nil, "Fill this in."},
		{"Your name", []string{"  "}, "Fill this in."},
		{"Email", []string{"ida"}, "Write an address"},
		{"Email", []string{"Ida <ida@berg.example>"}, "Write an address"},
		{"Length", []string{"long"}, "Write a number."},
		{"Length", []string{""}, ""},
		{"Day", []string{"5 December"}, "Write a date"},
		{"Day", []string{"2026-02-30"}, "Write a date"},
		{"Time", []string{"25:00"}, "Write a time"},
		{"Words", []string{""}, "Fill this in."},
		{"Boat", []string{""}, "Choose one."},
		{"Boat", []string{"Another boat"}, "Choose one of those"},
		{"Boat", []string{"Skarva"}, ""},
		{"Berth", nil, "Choose one."},
		{"Berth", []string{"Horse"}, "Choose one of those"},
		{"With", nil, ""},
		{"With", []string{"Dog", "Horse"}, "Choose one of those"},
		{"consent", nil, "Tick this"},
	} {
		form := right()
		form[tt.field] = tt.value
		status, body, h := v.ask(
			fmt.Sprintf("198.51.100.%d", i+1),
			"POST",
			v.Hosts.Public("skerry")+"/_forms/skerry/b1",
			form,
		)
		if tt.says == "" {
			if status != http.StatusOK {
				t.Errorf("%s of %q: %d", tt.field, tt.value, status)
			}
			continue
		}
		if status != http.StatusUnprocessableEntity || h.Get("Cache-Control") != "no-store" ||
			!strings.Contains(h.Get("Content-Security-Policy"), "base-uri 'self'") {
			t.Errorf("%s of %q: %d, %v", tt.field, tt.value, status, h)
			continue
		}
		page, err := html.Parse(strings.NewReader(body))
		if err != nil {
			t.Fatal(err)
		}
		invalid, kept := 0, 0
		for _, c := range controls(formOn(page, "/_forms/skerry/b1")) {
			n := c.nodes[0]
			if attribute(n, "aria-invalid") == "true" {
				invalid++
				id := attribute(n, "id")
				if c.name != tt.field || !strings.Contains(body, `id="`+id+`-problem"`) ||
					!strings.Contains(attribute(n, "aria-describedby"), id+"-problem") ||
					!strings.Contains(body, `<a href="/_forms/skerry/b1#`+id+`">`) {
					t.Errorf(
						"%s of %q: %s is said to be wrong, %q",
						tt.field,
						tt.value,
						c.name,
						attribute(n, "aria-describedby"),
					)
				}
			} else if len(c.wrong(form[c.name], phrase.In("en"))) == 0 {
				kept++
			}
		}
		if invalid != 1 || kept != 9 || strings.Count(body, tt.says) != 2 {
			t.Errorf(
				"%s of %q: %d are wrong, %d right, said %d times",
				tt.field,
				tt.value,
				invalid,
				kept,
				strings.Count(body, tt.says),
			)
		}
		for _, there := range []string{
			`value="ida@berg.example"`, ">Two bicycles</textarea>", `<base href="/fares/"/>`, "<title>Another look: Fares</title>", "<style>p{color:red}</style>",
			`<a href="/_forms/skerry/b1#main">`,
		} {
			if tt.field == "Email" && strings.Contains(there, "ida@") ||
				tt.field == "Words" && strings.Contains(there, "bicycles") {
				continue
			}
			if !strings.Contains(body, there) {
				t.Errorf("%s of %q: %s isn't there", tt.field, tt.value, there)
			}
		}
		if len(v.entries(false))+len(v.entries(true)) > 4 {
			t.Fatalf("%s of %q is kept", tt.field, tt.value)
		}
	}
}

// What was entered is text on the page that asks again, and a page that has a password isn't shown by its form.
func TestAskingAgainIsSafe(t *testing.T) {
	v := asking(t)
	form := right()
	form.Del("consent")
	for _, field := range []string{"Your name", "Email", "Words", "Boat", "Berth"} {
		form[field] = []string{`"></textarea><script>alert(1)</script>`}
	}
	status, body, _ := v.ask("198.51.100.1", "POST", v.Hosts.Public("skerry")+"/_forms/skerry/b1", form)
	if status != http.StatusUnprocessableEntity || strings.Contains(body, "<script>") {
		t.Errorf("%d %.900s", status, body)
	}
	for _, n := range []string{"b2", "b1/x", "%00"} {
		if status, body, _ := v.ask("198.51.100.2", "POST", v.Hosts.Public("skerry")+"/_forms/skerry/"+n, form); status < 400 ||
			status == http.StatusUnprocessableEntity {
			t.Errorf("%s: %d %.200s", n, status, body)
		}
	}
	// The words of a page that one needs a password for aren't had by sending its form.
	if err := v.Store.Tree.LockPage(t.Context(), "w1", "p1", "three islands"); err != nil {
		t.Fatal(err)
	}
	if _, body, _ := v.ask("198.51.100.3", "POST", v.Hosts.Public("skerry")+"/_forms/skerry/b1", form); strings.Contains(
		body,
		"so that we can answer",
	) {
		t.Errorf("a page with a password is shown: %.300s", body)
	}
}

// limitsPage has fields with limits, one that another wants, and says what comes after sending; in German.
const limitsPage = `<!DOCTYPE html><html lang="de"><head><title>Fares</title></head><body>
<form method="post" action="/_forms/skerry/b1" data-then="%s" data-thanks="Bis bald &amp; ahoi" data-copy>
<div><label for="f1">Wo</label><input id="f1" name="Mail" type="email"></div>
<div><label for="f2">Worte</label><textarea id="f2" name="Words" minlength="3" maxlength="5"></textarea></div>
<div><label for="f3">Länge</label><input id="f3" name="Length" type="number" min="1.5" max="9"></div>
<div><label for="f4">Tag</label><input id="f4" name="Day" type="date" min="2026-12-05" max="2026-12-31"></div>
<div><label for="f5">Zeit</label><input id="f5" name="Time" type="time" min="09:00" max="17:30"></div>
<div><label for="f6">Zahl</label><input id="f6" name="Code" type="text" pattern="[0-9]+" title="Bitte nur Ziffern schreiben."></div>
<div><label for="f7">Name</label><input id="f7" name="Name" type="text" pattern="[\p{L}\p{M} '’\-]+" title="Bitte nur Buchstaben schreiben."></div>
<fieldset><legend>Boot</legend><label><input type="radio" name="Boat" value="Langey"><span>Langey</span></label><label><input type="radio" name="Boat" value="Skarva"><span>Skarva</span></label></fieldset>
<div data-when="Boat" data-is="Skarva"><p data-only>Nur wenn</p><label for="f8">Schafe (erforderlich)</label><input id="f8" name="Sheep" type="number" data-required></div>
<input type="hidden" name="Offer" value="none" data-parameter="offer">
<div><input type="text" name="_homepage" hidden><input type="text" name="_took" hidden><button type="submit">Senden</button></div></form></body></html>`

func askingWithin(t *testing.T, then string) *visited {
	return askingBy(
		t,
		fmt.Sprintf(limitsPage, then),
		"Mail",
		"Words",
		"Length",
		"Day",
		"Time",
		"Code",
		"Name",
		"Boat",
		"Sheep",
		"Offer",
		"_homepage",
		"_took",
	)
}

// What isn't within a field's limits is refused in the page's language, on both sides of each limit; a field that
// another wants is required when it is wanted and not before.
func TestLimitsOfFields(t *testing.T) {
	v := askingWithin(t, "")
	for i, tt := range []struct{ field, value, says string }{
		{"Words", "ab", "mindestens 3 Zeichen"}, {"Words", "abc", ""}, {"Words", "äöüß🛥", "höchstens 5"}, {"Words", "äöü🛥", ""}, {"Words", "a\r\nbcd", ""},
		{"Length", "1.4", "nicht kleiner als 1.5"}, {"Length", "1.5", ""}, {"Length", "9", ""}, {"Length", "9.01", "nicht größer als 9"},
		{"Day", "2026-12-04", "nicht vor 2026-12-05"}, {"Day", "2026-12-05", ""}, {"Day", "2027-01-01", "nicht nach 2026-12-31"},
		{"Time", "08:59", "nicht vor 09:00"}, {"Time", "17:30", ""}, {"Time", "17:31", "nicht nach 17:30"},
		{"Code", "12a", "nur Ziffern"}, {"Code", "12", ""}, {"Name", "Søren O’Neil-Ó", ""}, {"Name", "R2", "nur Buchstaben"},
		{"Boat", "Langey", ""}, {"Boat", "Skarva", "Bitte ausfüllen"}, {"Boat", "Jura", "vorhandenen"},
	} {
		form := url.Values{"Mail": {"ida@berg.example"}, "_homepage": {""}, "_took": {"9000"}, tt.field: {tt.value}}
		status, body, _ := v.ask(fmt.Sprint("192.0.2.", i), "POST", v.Hosts.Public("skerry")+"/_forms/skerry/b1", form)
		if wrong := status == http.StatusUnprocessableEntity; wrong != (tt.says != "") ||
			wrong && strings.Count(body, tt.says) < 2 {
			t.Errorf(
				"%s %q: %d, %q is said %d times",
				tt.field,
				tt.value,
				status,
				tt.says,
				strings.Count(body, tt.says),
			)
		}
		if tt.says != "" &&
			(!strings.Contains(body, "Ein Feld braucht noch einen Blick.") || strings.Contains(body, "(erforderlich)</a>")) {
			t.Errorf("%s: %.600s", tt.field, body)
		}
	}
}

// After sending one is led where the form says, on the same site and nowhere else, or told what it says; a copy
// goes to whoever sent it, so many a day, without links; what the page's address says is taken where no script did.
func TestAfterSending(t *testing.T) {
	send := func(v *visited, from string, form url.Values) (int, string, http.Header) {
		r, err := http.NewRequest(
			"POST",
			v.Hosts.Public("skerry")+"/_forms/skerry/b1",
			strings.NewReader(form.Encode()),
		)
		if err != nil {
			t.Fatal(err)
		}
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		r.Header.Set("X-Forwarded-For", from)
		r.Header.Set("Referer", v.Hosts.Public("skerry")+"/fares/?offer=winter&x=1")
		res, err := v.client.Do(r)
		if err != nil {
			t.Fatal(err)
		}
		defer res.Body.Close()
		b, err := io.ReadAll(res.Body)
		if err != nil {
			t.Fatal(err)
		}
		return res.StatusCode, string(b), res.Header
	}
	filled := url.Values{
		"Mail": {
			"ida@berg.example",
		}, "Words": {"Hallo"}, "Name": {"Ida"}, "Offer": {"none"}, "_homepage": {""}, "_took": {"9000"},
	}
	for then, want := range map[string]string{
		"../thanks/": "/thanks/", "/thanks/?a=b": "/thanks/?a=b", "": "", "https://elsewhere.example/": "", "//elsewhere.example/": "", "javascript:alert(1)": "",
	} {
		v := askingWithin(t, then)
		status, body, header := send(v, "192.0.2.1", filled)
		if header.Get("Location") != want || (status == http.StatusSeeOther) != (want != "") {
			t.Errorf("%q leads to %q with %d", then, header.Get("Location"), status)
		}
		if want == "" &&
			(!strings.Contains(body, "Bis bald &amp; ahoi") || !strings.Contains(body, "Danke") || !strings.Contains(body, "Zurück zur Seite")) &&
			!strings.Contains(body, "Thank you") { // the site itself is in English
			t.Errorf("%q says %.500s", then, body)
		}
		es := v.entries(false)
		if len(es) != 1 || es[0].Answers[len(es[0].Answers)-1] != (store.Answer{Field: "Offer", Value: "winter"}) ||
			!strings.HasSuffix(es[0].From, "/fares/") {
			t.Fatalf("%+v", es)
		}
	}
	v := askingWithin(t, "")
	filled.Set("Mail", "Ida@berg.example")
	for i, name := range []string{"Ida", "visit www.example.org now", "https://x.example/a?b Ida", "example.org/path", "Ida"} {
		delete(filled, "Name")
		filled.Set("Words", "abc")
		filled["Offer"] = []string{name}
		if status, body, _ := send(v, fmt.Sprint("192.0.2.", i), filled); status != http.StatusOK {
			t.Fatalf("%d %.300s", status, body)
		}
	}
	mails, err := v.Store.Mails.List(t.Context(), "w1", 100)
	if err != nil || len(mails) != 3 {
		t.Fatalf("%d copies go out, %v", len(mails), err)
	}
	for _, m := range mails {
		if text := string(m.Letter); m.Sort != store.MailOfCopy || m.To != "Ida@berg.example" ||
			strings.Contains(text, "www.") ||
			strings.Contains(text, "://") {
			t.Errorf("a copy to %s: %s", m.To, text)
		}
	}
}

// No text that a mail program would make a link of is left in a copy, whatever it stands among.
func TestCopiesHaveNoLinks(t *testing.T) {
	for _, text := range []string{
		"https://x.example", "see HTTP://X.example/a b", "www.x.example", "(www.x.example/)", "x.example/a", "ftp://x.example", "a.b.c.example/d?e=f", "mailto://x",
	} {
		got := linked.ReplaceAllString(text, "…")
		if strings.Contains(got, "//") || strings.Contains(strings.ToLower(got), "www.") ||
			strings.Contains(got, ".example/") {
			t.Errorf("%q: %q", text, got)
		}
	}
	for _, text := range []string{"3.5 m / 2 t", "and/or", "ida@berg.example", "05.12.2026", "Is it 1/2?"} {
		if got := linked.ReplaceAllString(text, "…"); got != text {
			t.Errorf("%q: %q", text, got)
		}
	}
}
