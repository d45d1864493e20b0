package web

import (
	"fmt"
	"net/http"
	"net/url"
	"path/filepath"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/policy"
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

// Nobody fills the disk with files that wait to become sites: five at a time, those that failed included;
// and what a site is to be called is looked at before anything is kept.
func TestFewSitesAreMadeAtOnce(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	_, file, _ := d.get("/sites/skerry/file")
	held := func() (n int) {
		files, err := filepath.Glob(filepath.Join(p.server.MediaDir, "*.site.zip"))
		if err != nil {
			t.Fatal(err)
		}
		return len(files)
	}
	for _, name := range []string{strings.Repeat("x", doc.MaxNameRunes+1), "a\nb"} {
		status, body := upload(t, d, "/new/file", "x.site.zip", []byte(file), map[string]string{"name": name})
		if status != http.StatusUnprocessableEntity || !tellsOf(body, "Name") || held() != 0 {
			t.Errorf("called %.20q: %d, %d files kept", name, status, held())
		}
	}
	var last http.Header
	for i := range policy.WorksAtOnce {
		last = uploaded(
			t,
			d,
			"/new/file",
			"x.site.zip",
			[]byte(file),
			map[string]string{"name": fmt.Sprint("Holm ", i)},
		)
	}
	status, body := upload(t, d, "/new/file", "x.site.zip", []byte(file), nil)
	if status != http.StatusUnprocessableEntity || !tellsOf(body, "Sites") || held() != policy.WorksAtOnce {
		t.Errorf("one more: %d, %d files kept", status, held())
	}
	if status, body, _ := d.post("/new", url.Values{"name": {"A copy"}, "from": {"copy:skerry"}}); status != http.StatusUnprocessableEntity ||
		!tellsOf(body, "Sites") {
		t.Errorf("a copy beside them: %d", status)
	}
	if status, _, _ := d.post(last.Get("Location")+"/stop", nil); status != http.StatusSeeOther ||
		held() != policy.WorksAtOnce-1 {
		t.Errorf("stopped: %d, %d files kept", status, held())
	}
	uploaded(t, d, "/new/file", "x.site.zip", []byte(file), nil)
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
