package web

import (
	"net/http"
	"net/http/httptest"
	"net/url"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/site"
	"openplot/store"
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

func TestForms(t *testing.T) {
	p := begin(t)
	status, text, header := p.visit("POST", "/_forms/skerry/b1", url.Values{"Your name": {"<b>Somebody</b>"}, "Which": {"one", "two"}})
	if status != http.StatusOK || !strings.Contains(text, "Thank you") || !strings.Contains(text, `href="/skerry/fares/"`) || !strings.Contains(header.Get("Content-Security-Policy"), "default-src 'none'") {
		t.Errorf("%d %s", status, text)
	}
	es, err := p.store.FormEntries(t.Context(), "w1", 9)
	if err != nil || len(es) != 1 || es[0].Answers[0].Value != "one, two" || es[0].Answers[1].Value != "<b>Somebody</b>" {
		t.Errorf("%+v, %v", es, err)
	}
	for name, tt := range map[string]struct {
		path string
		form url.Values
		want int
	}{
		"another site":     {"/_forms/nowhere/b1", url.Values{"a": {"b"}}, http.StatusNotFound},
		"nothing":          {"/_forms/skerry/b1", url.Values{"a": {"  "}}, http.StatusUnprocessableEntity},
		"a novel":          {"/_forms/skerry/b1", url.Values{"a": {strings.Repeat("x", 20_000)}}, http.StatusUnprocessableEntity},
		"more than 64 kB":  {"/_forms/skerry/b1", url.Values{"a": {strings.Repeat("x", 70_000)}}, http.StatusUnprocessableEntity},
		"a name of length": {"/_forms/skerry/b1", url.Values{strings.Repeat("n", 400): {"b"}}, http.StatusUnprocessableEntity},
	} {
		if status, text, _ := p.visit("POST", tt.path, tt.form); status != tt.want {
			t.Errorf("%s: %d %s, want %d", name, status, text, tt.want)
		}
	}
	limited := false
	for range 20 {
		status, _, _ := p.visit("POST", "/_forms/skerry/b1", url.Values{"a": {"b"}})
		limited = limited || status == http.StatusTooManyRequests
	}
	if !limited {
		t.Error("twenty at once are all taken")
	}
}

func TestAnswersKeepTheFormsOrder(t *testing.T) {
	answers, ok := readAnswers("Your+name=A+%26+B&Which=one&Day=&Which=two&%zz=1&=x")
	if !ok || !slices.Equal(answers, []store.Answer{{Field: "Your name", Value: "A & B"}, {Field: "Which", Value: "one, two"}, {Field: "Day", Value: ""}}) {
		t.Errorf("%v, %v", answers, ok)
	}
	if _, ok := readAnswers(strings.Repeat("a=b&", 10) + strings.Repeat("x", maxFormName+1) + "=1"); ok {
		t.Error("a name of any length is taken")
	}
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
	if status, text, _ := p.as("designer@example.org").post(bench+"/publish", url.Values{}); status != http.StatusOK {
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
	if status, text, _ := d.post(bench+"/publish", url.Values{}); status != http.StatusOK {
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
	p.server.Pages().ServeHTTP(w, httptest.NewRequest("GET", "/skerry/assets/"+site.EmbedPrefix+name, nil))
	if csp := w.Header().Get("Content-Security-Policy"); w.Code != http.StatusOK || csp != "sandbox allow-scripts; frame-ancestors 'self'" || !strings.Contains(w.Body.String(), "Your own markup goes here") {
		t.Errorf("%d %q %s", w.Code, csp, w.Body)
	}
}

func TestUploadsAsTheyCameAreNotServed(t *testing.T) {
	p := begin(t)
	if status, _, _ := p.visit("GET", "/media/f123-original", nil); status != http.StatusNotFound {
		t.Errorf("an original answers %d", status)
	}
}
