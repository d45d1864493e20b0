package visitors

import (
	"fmt"
	"net/http"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"golang.org/x/net/html"

	"openplot/store"
)

// asked is a published page whose form has a field of each kind.
const asked = `<!DOCTYPE html><html lang="en"><head><title>Fares</title><style>p{color:red}</style></head><body>
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
	t.Helper()
	v := begin(t)
	fields := []string{
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
	}
	v.publishes(
		"w1",
		store.Edition{Page: "p1", Said: store.Said{Forms: []store.PublishedForm{{Block: "b1", Fields: fields}}}},
	)
	for name, text := range map[string]string{
		"w1/contents/b.html": asked,
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
			} else if len(c.wrong(form[c.name])) == 0 {
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
