package web

import (
	"net/http"
	"net/http/httptest"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/site"
)

// visit asks the origin of published pages.
func (p *studio) visit(method, path string, form url.Values) (int, string, http.Header) {
	p.t.Helper()
	r, err := http.NewRequest(method, p.pages.URL+path, strings.NewReader(form.Encode()))
	if err != nil {
		p.t.Fatal(err)
	}
	r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	r.Header.Set("Referer", p.pages.URL+"/skerry/fares/")
	return (&person{p, p.pages.Client()}).do(r)
}

func TestSearchLooksThroughPublishedPages(t *testing.T) {
	p := begin(t)
	find := func(q string) string {
		t.Helper()
		status, text, _ := p.visit("GET", "/_search/skerry?q="+url.QueryEscape(q), nil)
		if status != http.StatusOK {
			t.Errorf("%q: %d", q, status)
		}
		return text
	}
	if text := find("worth knowing"); strings.Contains(text, "<li>") {
		t.Errorf("a page that isn't published is found: %s", text)
	}
	if status, text, _ := p.as("designer@example.org").post(benchPath+"/publish", url.Values{}); status != http.StatusOK {
		t.Fatalf("publishing: %d %s", status, text)
	}
	if text := find("WORTH   knowing"); !strings.Contains(text, `<a href="/skerry/">Home</a>`) {
		t.Errorf("it isn't found: %s", text)
	}
	if text := find(`<script>alert(1)</script>`); strings.Contains(text, "<script>") || strings.Contains(text, "<li>") {
		t.Errorf("what was asked comes back as markup: %s", text)
	}
	if text := find("blocks"); strings.Contains(text, "<li>") {
		t.Errorf("it looks through more than words: %s", text)
	}
}

// Own HTML is published as a page that no other page's origin is: it can run a script
// and reach nothing.
func TestOwnHTMLKeepsToItself(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	section := p.page.Sections[0].ID
	if status, text := d.edit(edit.Command{Op: "block.add", Node: section, Zone: "desktop", Kind: doc.OwnHTML}); status != http.StatusOK {
		t.Fatalf("%d %s", status, text)
	}
	if status, text, _ := d.post(benchPath+"/publish", url.Values{}); status != http.StatusOK {
		t.Fatalf("publishing: %d %s", status, text)
	}
	html, err := os.ReadFile(filepath.Join(p.siteDir, "skerry", "index.html"))
	if err != nil {
		t.Fatal(err)
	}
	_, after, ok := strings.Cut(string(html), `src="assets/`+site.EmbedPrefix)
	if !ok || !strings.Contains(string(html), `sandbox="allow-scripts"`) {
		t.Fatalf("no frame in\n%s", html)
	}
	name, _, _ := strings.Cut(after, `"`)
	w := httptest.NewRecorder()
	p.pages.Config.Handler.ServeHTTP(w, httptest.NewRequest("GET", "/skerry/assets/"+site.EmbedPrefix+name, nil))
	if csp := w.Header().Get("Content-Security-Policy"); w.Code != http.StatusOK || csp != "sandbox allow-scripts; frame-ancestors 'self'" || !strings.Contains(
		w.Body.String(), "Your own markup goes here",
	) {
		t.Errorf("%d %q %s", w.Code, csp, w.Body)
	}
}

func TestUploadsAsTheyCameAreNotServed(t *testing.T) {
	p := begin(t)
	if status, _, _ := p.visit("GET", "/media/f123-original", nil); status != http.StatusNotFound {
		t.Errorf("an original answers %d", status)
	}
}
