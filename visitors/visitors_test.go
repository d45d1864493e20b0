package visitors

import (
	"io"
	"net/http"
	"net/http/httptest"
	"net/url"
	"slices"
	"strings"
	"testing"
	"time"

	"openplot/core/doc"
	"openplot/postgres/postgrestest"
	"openplot/store"
)

func TestMain(m *testing.M) { postgrestest.Main(m) }

// visited is the origin with a site.
type visited struct {
	*Server
	t      testing.TB
	origin *httptest.Server
}

func begin(t testing.TB) *visited {
	t.Helper()
	st, err := store.Open(t.Context(), postgrestest.Database(t))
	if err != nil {
		t.Fatal(err)
	}
	if err := st.AddSite(
		t.Context(),
		&doc.Site{ID: "w1", Slug: "skerry", Name: "Skerry", House: doc.StandardHouse(), Zones: doc.StandardZones()},
	); err != nil {
		t.Fatal(err)
	}
	v := &visited{t: t, Server: New(Config{Store: st, MediaDir: t.TempDir(), SiteDir: t.TempDir()})}
	v.origin = httptest.NewServer(v.Handler())
	t.Cleanup(func() { v.origin.Close(); st.Close() })
	return v
}

// visit asks as a visitor of a page of the site does.
func (v *visited) visit(method, path string, form url.Values) (int, string, http.Header) {
	v.t.Helper()
	r, err := http.NewRequest(method, v.origin.URL+path, strings.NewReader(form.Encode()))
	if err != nil {
		v.t.Fatal(err)
	}
	r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	r.Header.Set("Referer", v.origin.URL+"/skerry/fares/")
	res, err := v.origin.Client().Do(r)
	if err != nil {
		v.t.Fatal(err)
	}
	defer res.Body.Close()
	b, err := io.ReadAll(res.Body)
	if err != nil {
		v.t.Fatal(err)
	}
	return res.StatusCode, string(b), res.Header
}

// No session is begun or read here, whatever is asked.
func TestNoCookies(t *testing.T) {
	v := begin(t)
	for _, path := range []string{"/", "/skerry/", "/media/x.webp", "/try/x/", "/_search/skerry?q=boat", "/sign-in"} {
		if _, _, h := v.visit("GET", path, nil); h.Get("Set-Cookie") != "" {
			t.Errorf("%s sets a cookie", path)
		}
	}
}

func TestForms(t *testing.T) {
	v := begin(t)
	status, text, header := v.visit("POST", "/_forms/skerry/b1", url.Values{"Your name": {"<b>Somebody</b>"}, "Which": {"one", "two"}})
	if status != http.StatusOK || !strings.Contains(text, "Thank you") || !strings.Contains(text, `href="/skerry/fares/"`) || !strings.Contains(
		header.Get("Content-Security-Policy"),
		"default-src 'none'",
	) {
		t.Errorf("%d %s", status, text)
	}
	es, err := v.Store.FormEntries(t.Context(), "w1", 9)
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
		if status, text, _ := v.visit("POST", tt.path, tt.form); status != tt.want {
			t.Errorf("%s: %d %s, want %d", name, status, text, tt.want)
		}
	}
	limited := false
	for range 20 {
		status, _, _ := v.visit("POST", "/_forms/skerry/b1", url.Values{"a": {"b"}})
		limited = limited || status == http.StatusTooManyRequests
	}
	if !limited {
		t.Error("twenty at once are all taken")
	}
}

// What is sent from a preview is kept apart from what visitors send, and can be forgotten.
func TestTrials(t *testing.T) {
	v := begin(t)
	token := v.Previews.Token("skerry", time.Now().Add(time.Hour))
	if status, text, _ := v.visit(
		"POST", "/try/"+token+"/_forms/b1",
		url.Values{"a": {"a trial"}},
	); status != http.StatusOK || !strings.Contains(text, "trial") {
		t.Errorf("%d %s", status, text)
	}
	if status, _, _ := v.visit("POST", "/_forms/skerry/b1", url.Values{"a": {"in earnest"}}); status != http.StatusOK {
		t.Error(status)
	}
	for _, path := range []string{
		"/try/" + token + "x/_forms/b1", "/try/" + token + "/fares/",
		"/try/" + v.Previews.Token("skerry", time.Now().Add(-time.Hour)) + "/_forms/b1",
	} {
		if status, _, _ := v.visit("POST", path, url.Values{"a": {"b"}}); status != http.StatusNotFound {
			t.Errorf("%s: %d", path, status)
		}
	}
	es, err := v.Store.FormEntries(t.Context(), "w1", 9)
	if err != nil || len(es) != 2 || es[0].Trial || !es[1].Trial || es[1].Answers[0].Value != "a trial" {
		t.Fatalf("%+v, %v", es, err)
	}
	if err := v.Store.DeleteTrials(t.Context(), "w1"); err != nil {
		t.Fatal(err)
	}
	if es, err = v.Store.FormEntries(t.Context(), "w1", 9); err != nil || len(es) != 1 || es[0].Trial {
		t.Errorf("%+v, %v", es, err)
	}
}

func TestAnswersKeepTheFormsOrder(t *testing.T) {
	answers, ok := readAnswers("Your+name=A+%26+B&Which=one&Day=&Which=two&%zz=1&=x")
	if !ok || !slices.Equal(
		answers,
		[]store.Answer{{Field: "Your name", Value: "A & B"}, {Field: "Which", Value: "one, two"}, {Field: "Day", Value: ""}},
	) {
		t.Errorf("%v, %v", answers, ok)
	}
	if _, ok := readAnswers(strings.Repeat("a=b&", 10) + strings.Repeat("x", maxFormName+1) + "=1"); ok {
		t.Error("a name of any length is taken")
	}
}
