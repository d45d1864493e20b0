package web

import (
	"net/http"
	"net/url"
	"strings"
	"testing"

	"openplot/store"
)

// What is counted is drawn, listed and saved, for each time; a site that counts nothing says how it would, and a
// key that somebody made up is text.
func TestVisitsScreen(t *testing.T) {
	p := begin(t)
	ctx := t.Context()
	d := p.as("designer@example.org")
	if _, body, _ := d.get("/sites/skerry/visits"); !strings.Contains(body, "Nothing is counted") ||
		strings.Contains(body, "<svg viewBox=\"0 -6") {
		t.Errorf("before: %.400s", body)
	}
	if status, _, _ := d.post("/sites/skerry/settings/visits", url.Values{"count": {"yes"}}); status != http.StatusSeeOther {
		t.Fatal(status)
	}
	for range 3 {
		if err := p.store.Visits.Add(ctx, "w1", store.Count{What: store.CountedView}, store.Count{What: store.CountedPage, Key: "p1"},
			store.Count{What: store.CountedSearch, Key: "<b>=1+1"}, store.Count{What: store.CountedLanguage, Key: "de"}, store.Count{What: store.CountedFile, Key: "gone"}); err != nil {
			t.Fatal(err)
		}
	}
	if _, list, _ := d.get("/sites/skerry?as=list"); !strings.Contains(list, `<polyline points="1,13.0 `) ||
		!strings.Contains(list, `55,1.0 "/>`) {
		t.Error("the list of pages has no line of what was seen lately")
	}
	for _, by := range []string{"day", "week", "month", "", "<i>"} {
		status, body, _ := d.get("/sites/skerry/visits?by=" + url.QueryEscape(by))
		body = oneLine(body)
		for _, want := range []string{">3</span>", "none in the", ">Home</a>", "German", "&lt;b&gt;=", "One that isn’t there any more", "<title>"} {
			if status != http.StatusOK || !strings.Contains(body, want) {
				t.Errorf("by %q: %d without %q", by, status, want)
			}
		}
	}
	_, file, _ := d.get("/sites/skerry/visits/file")
	if !strings.Contains(file, ",view,,3\r\n") || !strings.Contains(file, ",search,<b>=1+1,3") {
		t.Errorf("the file: %s", file)
	}
}

// A change against a time before says what it is, where there was none too.
func TestAgainst(t *testing.T) {
	p := begin(t)
	ctx := t.Context()
	if err := p.store.Visits.SetCounting(ctx, "w1", true); err != nil {
		t.Fatal(err)
	}
	for range 10 {
		if err := p.store.Visits.Add(ctx, "w1", store.Count{What: store.CountedView}); err != nil {
			t.Fatal(err)
		}
	}
	if _, err := p.store.DB().ExecContext(ctx, `INSERT INTO counts SELECT site_id, day - 28, what, key, 20 FROM counts`); err != nil {
		t.Fatal(err)
	}
	_, body, _ := p.as("writer@example.org").get("/sites/skerry/visits")
	if body = oneLine(body); !strings.Contains(body, "−50 % on the 28 days before") ||
		strings.Contains(body, "visits/file") {
		t.Errorf("%.800s", body)
	}
}
