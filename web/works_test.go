package web

import (
	"net/http"
	"net/url"
	"strings"
	"testing"
)

// Whoever has a site made sees how far it has come, on a screen of its own, among their sites and in the
// rail; nobody else sees or ends it.
func TestASiteThatIsBeingMade(t *testing.T) {
	p := begin(t)
	d, other := p.as("designer@example.org"), p.as("writer@example.org")
	status, _, h := d.post("/new", url.Values{"name": {"Holm"}, "from": {"copy:skerry"}})
	at := h.Get("Location")
	if status != http.StatusSeeOther || !strings.HasPrefix(at, "/works/") {
		t.Fatal(status, at)
	}
	id := strings.TrimPrefix(at, "/works/")
	for path, want := range map[string]string{at: "Holm, a copy of Skerry", "/": "Holm, a copy of Skerry", "/sites/skerry": "Making Holm"} {
		if status, text, _ := d.get(path); status != http.StatusOK || !strings.Contains(oneLine(text), want) {
			t.Errorf("%s: %d, no %q", path, status, want)
		}
		if _, text, _ := other.get(path); strings.Contains(text, "Holm") {
			t.Errorf("%s tells somebody else", path)
		}
	}
	for _, path := range []string{at + "/stop", at + "/again"} {
		if status, _, _ := other.post(path, nil); status != http.StatusNotFound {
			t.Errorf("somebody else's %s: %d", path, status)
		}
	}
	// Its address was free when it was asked for; who has taken it meanwhile is told with the problem.
	if status, _, _ := other.post("/new", url.Values{"name": {"Taken"}, "slug": {"holm"}, "from": {"blank"}}); status != http.StatusSeeOther {
		t.Fatal(status)
	}
	if _, said := d.made(h); !strings.HasPrefix(said, "Address") {
		t.Errorf("said %q", said)
	}
	if err := p.store.Works.Fail(t.Context(), id, "Address “holm” is another site’s already; choose another."); err != nil {
		t.Fatal(err)
	}
	_, text, _ := d.get("/")
	for _, want := range []string{"couldn’t be made", "another site’s already", "Try again"} {
		if !strings.Contains(text, want) {
			t.Errorf("the sites don't say %q", want)
		}
	}
	if status, _, h := d.post(at+"/stop", nil); status != http.StatusSeeOther || h.Get("Location") != "/" {
		t.Errorf("forgetting it: %d, %v", status, h)
	}
	if status, _, _ := d.get(at); status != http.StatusNotFound {
		t.Errorf("it is still there: %d", status)
	}
}

// Several sites are archived and brought back at once by who owns them; another's stay as they are.
func TestSeveralSitesAtOnce(t *testing.T) {
	p := begin(t)
	d := p.owned()
	for _, name := range []string{"Holm", "Langey"} {
		if status, _, _ := d.post("/new", url.Values{"name": {name}, "from": {"blank"}}); status != http.StatusSeeOther {
			t.Fatal(status)
		}
	}
	listed := func(q *person, path string) (out []string) {
		_, text, _ := q.get(path)
		for _, slug := range []string{"skerry", "holm", "langey"} {
			if strings.Contains(text, `id="site-`+slug+`"`) {
				out = append(out, slug)
			}
		}
		return out
	}
	w := p.as("writer@example.org")
	if _, _, h := w.post("/several", url.Values{"site": {"skerry", "holm"}}); h.Get("Location") != "/?done=notall" {
		t.Errorf("a writer: %v", h)
	}
	if got := listed(d, "/"); len(got) != 3 {
		t.Fatalf("after a writer asked: %v", got)
	}
	if _, _, h := d.post("/several", url.Values{"site": {"skerry", "holm"}}); h.Get("Location") != "/?done=several" {
		t.Errorf("%v", h)
	}
	if got := strings.Join(listed(d, "/"), " ") + "; " + strings.Join(listed(d, "/?archived=1"), " "); got != "langey; skerry holm" {
		t.Errorf("archived: %s", got)
	}
	d.post("/several", url.Values{"site": {"skerry", "holm"}, "back": {"yes"}})
	if got := listed(d, "/"); len(got) != 3 {
		t.Errorf("brought back: %v", got)
	}
}
