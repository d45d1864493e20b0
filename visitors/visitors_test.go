package visitors

import (
	"context"
	"fmt"
	"io"
	"net"
	"net/http"
	"net/http/httptest"
	"net/url"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/origin"
	"openplot/postgres/postgrestest"
	"openplot/site"
	"openplot/store"
)

func TestMain(m *testing.M) { postgrestest.Main(m, store.Migrate) }

// visited are the hosts with a site, that has a designer and two pages.
type visited struct {
	*Server
	t        testing.TB
	designer *store.User
	client   *http.Client
}

func begin(t testing.TB) *visited {
	t.Helper()
	ctx := t.Context()
	st, err := store.Open(ctx, postgrestest.Database(t))
	if err != nil {
		t.Fatal(err)
	}
	v := &visited{t: t}
	must := func(err error) {
		t.Helper()
		if err != nil {
			t.Fatal(err)
		}
	}
	must(
		st.Sites.Add(
			ctx,
			&doc.Site{ID: "w1", Slug: "skerry", Name: "Skerry", House: doc.StandardHouse(), Zones: doc.StandardZones()},
		),
	)
	v.designer, err = st.People.AddUser(ctx, "dana@example.org", "Dana", "three islands")
	must(err)
	must(st.People.AddMember(ctx, "w1", v.designer.ID, store.Designer))
	must(st.Pages.Add(ctx, "w1", "", 0, &doc.Page{ID: "p0", Name: "Home", Title: "Home"}))
	must(st.Pages.Add(ctx, "w1", "fares", 1, &doc.Page{ID: "p1", Name: "Fares", Title: "Fares"}))
	server := httptest.NewUnstartedServer(nil)
	_, port, err := net.SplitHostPort(server.Listener.Addr().String())
	must(err)
	v.Server = New(Config{
		Store: st, MediaDir: t.TempDir(), SiteDir: t.TempDir(), Hosts: site.Hosts{Scheme: "http", Base: "localhost:" + port},
		Proxies: []string{"127.0.0.1"},
	})
	server.Config.Handler, err = v.Handler()
	must(err)
	server.Start()
	v.client = &http.Client{
		Transport: &http.Transport{DialContext: func(ctx context.Context, network, _ string) (net.Conn, error) {
			return (&net.Dialer{}).DialContext(ctx, network, server.Listener.Addr().String())
		}},
		CheckRedirect: func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse },
	}
	t.Cleanup(func() { server.Close(); st.Close() })
	return v
}

// says has a page published with words and a form "b1".
func (v *visited) says(site, page, words string) {
	v.t.Helper()
	v.publishes(
		site,
		store.Edition{Page: page, Said: store.Said{Words: words, Forms: []store.PublishedForm{{Block: "b1"}}}},
	)
}

func (v *visited) publishes(site string, editions ...store.Edition) {
	v.t.Helper()
	if err := v.Store.Releases.Publish(v.t.Context(), store.Publication{
		Site: site, Editions: editions,
		Change: store.Change{Next: func([]byte, int64) ([]byte, error) { return []byte("{}"), nil }, Put: func([]byte) error { return nil }},
	}); err != nil {
		v.t.Fatal(err)
	}
}

// ask asks a host as a visitor from an address does.
func (v *visited) ask(from, method, address string, form url.Values) (int, string, http.Header) {
	v.t.Helper()
	r, err := http.NewRequest(method, address, strings.NewReader(form.Encode()))
	if err != nil {
		v.t.Fatal(err)
	}
	if method == http.MethodPost {
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	}
	r.Header.Set("X-Forwarded-For", from)
	r.Header.Set("User-Agent", "Mozilla/5.0 Firefox/140.0")
	r.Header.Set("Referer", v.Hosts.Public("skerry")+"/fares/")
	res, err := v.client.Do(r)
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

// visit asks the site's host.
func (v *visited) visit(method, path string, form url.Values) (int, string, http.Header) {
	v.t.Helper()
	return v.ask("192.0.2.1", method, v.Hosts.Public("skerry")+path, form)
}

// draft makes a preview and gives its address.
func (v *visited) draft(page string, ends time.Duration) string {
	v.t.Helper()
	token, err := v.Store.Previews.Add(v.t.Context(), "w1", page, v.designer.ID, time.Now().Add(ends))
	if err != nil {
		v.t.Fatal(err)
	}
	return v.Hosts.Draft("skerry") + "/try/" + token
}

// No session is begun or read here, whatever is asked.
func TestNoCookies(t *testing.T) {
	v := begin(t)
	for _, path := range []string{"/", "/media/x.webp", "/try/x/", "/_search/skerry?q=boat", "/sign-in"} {
		for _, host := range []string{v.Hosts.Public("skerry"), v.Hosts.Own("skerry"), v.Hosts.Draft("skerry"), v.Hosts.Uploads(), "http://" + v.Hosts.Base} {
			if _, _, h := v.ask("192.0.2.1", "GET", host+path, nil); h.Get("Set-Cookie") != "" {
				t.Errorf("%s%s sets a cookie", host, path)
			}
		}
	}
}

// Each host shows its own and nothing else; addresses of before lead there.
func TestHosts(t *testing.T) {
	v := begin(t)
	for name, text := range map[string]string{
		"w1/contents/a.html": "<h1>Skerry</h1>", "w1/contents/b.html": "<h1>Fares</h1>", "w1/contents/c.html": "<h1>Nothing here</h1>",
		"w1/contents/d.txt": "Sitemap: x", "w1/assets/style-0123456789ab.css": "h1{}", "w1/assets/plain.css": "h1{}",
		"w1/assets/media/f0123456789abc-480.webp": "RIFF",
		"w1/release.json": `{"pages":{"":{"file":"a.html","type":"text/html"},"fares":{"file":"b.html","type":"text/html"}},
			"moved":{"prices":"fares","old":"https://example.org/"},"files":{"robots.txt":{"file":"d.txt","type":"text/plain"}},
			"missing":{"file":"c.html","type":"text/html"}}`,
		"w2/contents/a.html": "<h1>Other</h1>", "w2/release.json": `{"pages":{"":{"file":"a.html","type":"text/html"}}}`,
	} {
		at := filepath.Join(v.SiteDir, name)
		if err := os.MkdirAll(filepath.Dir(at), 0o700); err != nil {
			t.Fatal(err)
		}
		if err := os.WriteFile(at, []byte(text), 0o600); err != nil {
			t.Fatal(err)
		}
	}
	if err := v.Store.Sites.Add(t.Context(), &doc.Site{ID: "w2", Slug: "other", Name: "Other", House: doc.StandardHouse(), Zones: doc.StandardZones()}); err != nil {
		t.Fatal(err)
	}
	v.publishes("w1")
	v.publishes("w2")
	public, base := v.Hosts.Public("skerry"), "http://"+v.Hosts.Base
	for _, tt := range []struct {
		address string
		status  int
		want    string // in the text, or where it leads
	}{
		{public + "/", 200, "<h1>Skerry"},
		{public + "/fares/", 200, "<h1>Fares"},
		{public + "/fares", 301, "/fares/"},
		{public + "/other/", 404, "<h1>Nothing here"},
		{public + "/prices/", 301, "/fares/"},
		{public + "/prices", 301, "/fares/"},
		{public + "/index.html", 301, "/"},
		{public + "/fares/index.html?x=1", 301, "/fares/?x=1"},
		{public + "//evil.example/index.html", 301, "/evil.example/"},
		{public + "/old/", 301, "https://example.org/"},
		{public + "/robots.txt", 200, "Sitemap: x"},
		{public + "/robots.txt/", 404, ""},
		{public + "/release.json", 404, ""},
		{public + "/contents/a.html", 404, ""},
		{public + "/../other/contents/a.html", 404, ""},
		{public + "/%2e%2e/other/release.json", 404, ""},
		{public + "/a%00b", 404, ""},
		{public + "/a%ffb", 404, ""},
		{v.Hosts.Public("other") + "/", 200, "<h1>Other"},
		{v.Hosts.Draft("skerry") + "/", 404, ""},
		{v.Hosts.Own("skerry") + "/", 404, ""},
		{v.Hosts.Uploads() + "/", 404, ""},
		{v.Hosts.Public("nowhere") + "/", 404, ""},
		{"http://a.skerry." + v.Hosts.Base + "/", 404, ""},
		{base + "/", 404, ""},
		{base + "/nowhere/", 404, ""},
		{base + "/skerry/", 301, public + "/"},
		{base + "/skerry/fares/?x=1", 301, public + "/fares/?x=1"},
		{"http://127.0.0.1/skerry/fares/", 301, public + "/fares/"},
		{base + "/media/f-480.webp", 301, v.Hosts.Uploads() + "/media/f-480.webp"},
		{base + "/_search/skerry?q=a", 301, public + "/_search/skerry?q=a"},
	} {
		status, text, h := v.ask("192.0.2.1", "GET", tt.address, nil)
		if status != tt.status || !strings.Contains(text+h.Get("Location"), tt.want) ||
			status/100 == 3 && h.Get("Location") != tt.want {
			t.Errorf("%s: %d %q %.60q, want %d %q", tt.address, status, h.Get("Location"), text, tt.status, tt.want)
		}
		head, _, _ := v.ask("192.0.2.1", "HEAD", tt.address, nil)
		if head != status {
			t.Errorf("HEAD %s: %d, GET %d", tt.address, head, status)
		}
	}
	if status, _, h := v.ask("192.0.2.1", "POST", base+"/_forms/skerry/b1", url.Values{"a": {"b"}}); status != http.StatusPermanentRedirect ||
		h.Get(
			"Location",
		) != public+"/_forms/skerry/b1" {
		t.Errorf("a form of before: %d %s", status, h.Get("Location"))
	}
	// Only what is named after its content is kept for good.
	for path, good := range map[string]bool{
		"/": false, "/robots.txt": false, "/assets/plain.css": false, "/assets/style-0123456789ab.css": true, "/assets/media/f0123456789abc-480.webp": true,
	} {
		if _, _, h := v.visit("GET", path, nil); (h.Get("Cache-Control") == forGood) != good {
			t.Errorf("%s: %s", path, h.Get("Cache-Control"))
		}
	}
}

// Where visitors come by HTTPS, browsers are told to come by nothing else.
func TestHTTPS(t *testing.T) {
	v := begin(t)
	for scheme, want := range map[string]bool{"http": false, "https": true} {
		s := New(
			Config{Hosts: site.Hosts{Scheme: scheme, Base: "pages.example.org"}, SiteDir: t.TempDir(), Store: v.Store},
		)
		h, err := s.Handler()
		if err != nil {
			t.Fatal(err)
		}
		w := httptest.NewRecorder()
		h.ServeHTTP(w, httptest.NewRequest("GET", "http://skerry.pages.example.org/", nil))
		if got := w.Header().Get("Strict-Transport-Security"); (got != "") != want ||
			want && !strings.Contains(got, "includeSubDomains") {
			t.Errorf("%s: %q", scheme, got)
		}
		// What is below a domain of a site's own is none of the program's.
		w = httptest.NewRecorder()
		h.ServeHTTP(w, httptest.NewRequest("GET", "http://www.skerry.example/", nil))
		if got := w.Header().Get("Strict-Transport-Security"); (got != "") != want ||
			strings.Contains(got, "includeSubDomains") {
			t.Errorf("%s at another's host: %q", scheme, got)
		}
	}
}

func TestForms(t *testing.T) {
	v := begin(t)
	if status, _, _ := v.visit("POST", "/_forms/skerry/b1", url.Values{"a": {"b"}}); status != http.StatusNotFound {
		t.Errorf("a form that isn't published: %d", status)
	}
	v.says("w1", "p1", "")
	status, text, header := v.visit(
		"POST",
		"/_forms/skerry/b1",
		url.Values{"Your name": {"<b>Somebody</b>"}, "Which": {"one", "two"}},
	)
	if status != http.StatusOK || !strings.Contains(text, "Thank you") || !strings.Contains(text, `href="/fares/"`) ||
		!strings.Contains(
			header.Get("Content-Security-Policy"),
			"default-src 'none'",
		) {
		t.Errorf("%d %s", status, text)
	}
	es, err := v.list(store.BoxAll, 9)
	if err != nil || len(es) != 1 || es[0].Answers[0].Value != "one, two" ||
		es[0].Answers[1].Value != "<b>Somebody</b>" {
		t.Errorf("%+v, %v", es, err)
	}
	for name, tt := range map[string]struct {
		path string
		form url.Values
		want int
	}{
		"another form":       {"/_forms/skerry/b2", url.Values{"a": {"b"}}, http.StatusNotFound},
		"no text for a form": {"/_forms/skerry/b%00%ff", url.Values{"a": {"b"}}, http.StatusNotFound},
		"another site":       {"/_forms/nowhere/b1", url.Values{"a": {"b"}}, http.StatusNotFound},
		"nothing":            {"/_forms/skerry/b1", url.Values{"a": {"  "}}, http.StatusUnprocessableEntity},
		"a novel":            {"/_forms/skerry/b1", url.Values{"a": {strings.Repeat("x", 20_000)}}, http.StatusUnprocessableEntity},
		"more than 64 kB":    {"/_forms/skerry/b1", url.Values{"a": {strings.Repeat("x", 70_000)}}, http.StatusUnprocessableEntity},
		"a name of length":   {"/_forms/skerry/b1", url.Values{strings.Repeat("n", 400): {"b"}}, http.StatusUnprocessableEntity},
		"NUL":                {"/_forms/skerry/b1", url.Values{"a\x00": {"b\x00\xff"}}, http.StatusOK},
		"a cut character":    {"/_forms/skerry/b1", url.Values{"a": {strings.Repeat("ä", 9_999) + "\xc3"}}, http.StatusOK},
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

// What looks like a program's is taken, and set apart.
func TestSuspectEntries(t *testing.T) {
	v := begin(t)
	v.says("w1", "p1", "")
	for i, tt := range []struct {
		form    url.Values
		suspect string
	}{
		{url.Values{"a": {"b"}}, ""}, // a page of before
		{url.Values{"a": {"b"}, element.FormTrap: {""}, element.FormTook: {"9000"}}, ""},
		{url.Values{"a": {"b"}, element.FormTrap: {"http://x"}, element.FormTook: {"9000"}}, "nobody sees"},
		{url.Values{"a": {"b"}, element.FormTrap: {""}, element.FormTook: {"300"}}, "two seconds"},
		{url.Values{"a": {"b"}, element.FormTrap: {""}, element.FormTook: {""}}, "script"},
	} {
		if status, text, _ := v.ask(fmt.Sprint("192.0.2.", i), "POST", v.Hosts.Public("skerry")+"/_forms/skerry/b1", tt.form); status != http.StatusOK {
			t.Fatalf("%d %s", status, text)
		}
		es, err := v.list(map[bool]store.Box{false: store.BoxAll, true: store.BoxSpam}[tt.suspect != ""], 1)
		if err != nil || len(es) != 1 || !strings.Contains(es[0].Suspect, tt.suspect) || len(es[0].Answers) != 1 {
			t.Errorf("%v: %+v, %v", tt.form, es, err)
		}
	}
}

// post sends a form as somebody from a network does.
func (v *visited) post(from string, form url.Values) int {
	v.t.Helper()
	status, _, _ := v.ask(from, "POST", v.Hosts.Public("skerry")+"/_forms/skerry/b1", form)
	return status
}

// list gives what the site's designer sees of the Inbox.
func (v *visited) list(box store.Box, limit int) ([]*store.Listed, error) {
	es, _, err := v.Store.Inbox.List(v.t.Context(), store.Look{Site: "w1", User: v.designer.ID, Box: box, Limit: limit})
	return es, err
}

// entries gives those of people, or of programs.
func (v *visited) entries(suspect bool) []*store.Listed {
	v.t.Helper()
	es, err := v.list(map[bool]store.Box{false: store.BoxAll, true: store.BoxSpam}[suspect], 5000)
	if err != nil {
		v.t.Fatal(err)
	}
	return es
}

// As fast as programs from everywhere are, a person's entry is taken between theirs.
func TestProgramsAreSlowedByThemselves(t *testing.T) {
	v := begin(t)
	v.publishes(
		"w1",
		store.Edition{
			Page: "p1",
			Said: store.Said{
				Forms: []store.PublishedForm{{Block: "b1", Fields: []string{"a", element.FormTrap, element.FormTook}}},
			},
		},
	)
	refused := 0
	for i := range 200 {
		if status := v.post(fmt.Sprintf("2001:db8:%x::1", i), url.Values{"a": {"flood"}}); status == http.StatusTooManyRequests {
			refused++
		}
		if i%10 == 0 {
			if status := v.post(fmt.Sprint("192.0.2.", i), url.Values{"a": {"a person"}, element.FormTrap: {""}, element.FormTook: {"9000"}}); status != http.StatusOK {
				t.Errorf("a person after %d: %d", i, status)
			}
		}
	}
	if refused < 70 {
		t.Errorf("%d are refused", refused)
	}
}

// Only the fields that a form has are taken, and what lacks those that it sends by itself isn't a
// person's.
func TestOnlyTheFormsFields(t *testing.T) {
	v := begin(t)
	v.publishes(
		"w1",
		store.Edition{
			Page: "p1",
			Said: store.Said{
				Forms: []store.PublishedForm{
					{Block: "b1", Fields: []string{"Name", "Boat", element.FormTrap, element.FormTook}},
				},
			},
		},
	)
	own := func(more url.Values) url.Values {
		f := url.Values{element.FormTrap: {""}, element.FormTook: {"9000"}}
		for name, values := range more {
			f[name] = values
		}
		return f
	}
	for i, tt := range []struct {
		form    url.Values
		suspect string
		want    string
	}{
		{own(url.Values{"Boat": {"a", "b"}, "Name": {"Ada"}}), "", "Name=Ada Boat=a, b"},
		{url.Values{"Name": {"Ada"}}, "lacks fields", "Name=Ada"},
		{url.Values{"Name": {"Ada"}, element.FormTrap: {""}}, "lacks fields", "Name=Ada"},
		{own(url.Values{"Name": {"Ada"}, "Invented": {"x"}}), "hasn’t", "Name=Ada"},
	} {
		if status := v.post(fmt.Sprint("192.0.2.", i), tt.form); status != http.StatusOK {
			t.Errorf("%v: %d", tt.form, status)
		}
		var got []string
		e := v.entries(tt.suspect != "")[0]
		for _, a := range e.Answers {
			got = append(got, a.Field+"="+a.Value)
		}
		if strings.Join(got, " ") != tt.want || !strings.Contains(e.Suspect, tt.suspect) {
			t.Errorf("%v: %v, %q", tt.form, got, e.Suspect)
		}
	}
	if status := v.post("192.0.2.9", own(url.Values{"Invented": {"x"}})); status != http.StatusUnprocessableEntity {
		t.Errorf("nothing of the form's: %d", status)
	}
}

// Neither one network nor programs everywhere keep people from writing, and a flood that looks like
// people is set apart: it pushes out nothing.
func TestFloods(t *testing.T) {
	v := begin(t)
	v.publishes(
		"w1",
		store.Edition{
			Page: "p1",
			Said: store.Said{
				Forms: []store.PublishedForm{{Block: "b1", Fields: []string{"a", element.FormTrap, element.FormTook}}},
			},
		},
	)
	person := func(words string) url.Values {
		return url.Values{"a": {words}, element.FormTrap: {""}, element.FormTook: {"9000"}}
	}
	if status := v.post("192.0.2.1", person("the first")); status != http.StatusOK {
		t.Fatal(status)
	}
	for _, of := range []**origin.Attempts{&v.limits.forms, &v.limits.programs, &v.limits.senders} {
		*of = origin.NewAttempts(1e6, time.Microsecond)
	}
	for range 200 { // one network, over a day
		if status := v.post("192.0.2.7", person("flood")); status != http.StatusOK {
			t.Fatal(status)
		}
	}
	if people, programs := len(v.entries(false)), len(v.entries(true)); people != 31 || programs != 170 {
		t.Errorf("of one network %d are taken for people's, %d for programs'", people, programs)
	}
	refused := 0
	for i := range 1000 { // programs everywhere
		if status := v.post(fmt.Sprintf("2001:db8:%x::1", i), url.Values{"a": {"flood"}}); status == http.StatusServiceUnavailable {
			refused++
		}
	}
	if refused != 170 {
		t.Errorf("%d of the programs' are refused", refused)
	}
	if status := v.post("192.0.2.2", person("the second")); status != http.StatusOK ||
		v.entries(false)[0].Answers[0].Value != "the second" {
		t.Errorf("a person beside programs: %d", status)
	}
	// Like people, from everywhere: more than a form takes is set apart, as far as there is room.
	if _, err := v.Store.DB().ExecContext(t.Context(), `DELETE FROM form_entries WHERE suspect <> ''`); err != nil {
		t.Fatal(err)
	}
	for i := range 2100 {
		if status := v.post(fmt.Sprintf("2001:db8:1:%x::1", i), person("flood")); status != http.StatusOK {
			t.Fatal(i, status)
		}
	}
	people := v.entries(false)
	if len(people) != 2000 || people[len(people)-1].Answers[0].Value != "the first" {
		t.Errorf("%d are taken for people's", len(people))
	}
	if apart := v.entries(true); len(apart) != 132 || apart[0].Suspect != store.TooMany {
		t.Errorf("%d are set apart", len(apart))
	}
}

// Search finds what was published, in any form of the word, and says where.
func TestSearch(t *testing.T) {
	v := begin(t)
	if err := v.Store.Sites.Add(t.Context(), &doc.Site{ID: "w2", Slug: "inseln", Name: "Inseln", Language: "de"}); err != nil {
		t.Fatal(err)
	}
	if err := v.Store.Pages.Add(t.Context(), "w2", "", 0, &doc.Page{ID: "q0", Name: "Start", Title: "Start"}); err != nil {
		t.Fatal(err)
	}
	v.says("w2", "q0", "Alle Häuser auf den Inseln stehen am Wasser.")
	v.says("w1", "p0", "The ferries cross the sound twice a day & never on Sundays. <b>Boats</b> are red.")
	for _, tt := range []struct {
		site, query string
		want        []string
		not         string
	}{
		{"skerry", "ferry crossing", []string{"<mark>ferries</mark>", `<a href="/">Home</a>`, "a day &amp; never"}, ""},
		{"skerry", "boat", []string{"<mark>Boats</mark>"}, "<b>"},
		{"skerry", `"twice a day" -monday`, []string{"<mark>twice</mark>"}, ""},
		{"skerry", "fares", nil, "<li>"}, // that page isn't published
		{"skerry", "Häuser", nil, "<li>"},
		{"skerry", "<script>alert(1)</script>", nil, "<script>"},
		{"skerry", "a\x00b\xff", nil, "<li>"},
		{"skerry", strings.Repeat("boat ", 500), []string{"<mark>Boats"}, ""},
		{"inseln", "Haus", []string{"<mark>Häuser</mark>"}, ""},
	} {
		status, text, _ := v.ask(
			tt.query[:1], "GET", v.Hosts.Public(tt.site)+"/_search/"+tt.site+"?q="+url.QueryEscape(tt.query), nil,
		)
		if status != http.StatusOK || tt.not != "" && strings.Contains(text, tt.not) {
			t.Errorf("%q: %d %s", tt.query, status, text)
		}
		for _, w := range tt.want {
			if !strings.Contains(text, w) {
				t.Errorf("%q: no %q in %s", tt.query, w, text)
			}
		}
	}
	limited := false
	for range 60 {
		status, _, _ := v.visit("GET", "/_search/skerry?q=a", nil)
		limited = limited || status == http.StatusTooManyRequests
	}
	if !limited {
		t.Error("sixty at once are all answered")
	}
}

// A link opens its page, or its site, until it ends, and what is sent from it is kept apart.
func TestPreviews(t *testing.T) {
	v := begin(t)
	whole, one := v.draft("", time.Hour), v.draft("p1", time.Hour)
	for _, tt := range []struct {
		address string
		status  int
	}{
		{whole + "/", 200}, {whole + "/fares/", 200}, {whole + "/fares/style.css", 200}, {whole + "/nowhere/", 404},
		{one + "/fares/", 200}, {one + "/fares/style.css", 200}, {one + "/", 404},
		{whole + "x/", 404},
		{v.draft("", -time.Second) + "/", 404},
		{strings.Replace(whole, "skerry--try", "other--try", 1) + "/", 404},
		{strings.Replace(whole, "skerry--try", "skerry", 1) + "/", 404},
	} {
		status, _, h := v.ask("192.0.2.1", "GET", tt.address, nil)
		if status != tt.status ||
			status == 200 && (h.Get("Cache-Control") != "no-store" || h.Get("X-Robots-Tag") != "noindex") {
			t.Errorf("%s: %d, want %d", tt.address, status, tt.status)
		}
	}
	if status, text, _ := v.ask("192.0.2.1", "POST", whole+"/_forms/b1", url.Values{"a": {"a trial"}}); status != http.StatusOK ||
		!strings.Contains(text, "trial") {
		t.Errorf("%d %s", status, text)
	}
	for _, address := range []string{whole + "x/_forms/b1", whole + "/fares/"} {
		if status, _, _ := v.ask("192.0.2.1", "POST", address, url.Values{"a": {"b"}}); status != http.StatusNotFound {
			t.Errorf("%s: %d", address, status)
		}
	}
	es, err := v.list(store.BoxTrials, 9)
	if err != nil || len(es) != 1 || !es[0].Trial || es[0].Answers[0].Value != "a trial" {
		t.Fatalf("%+v, %v", es, err)
	}
	if err := v.Store.Inbox.DeleteAll(t.Context(), "w1", store.BoxTrials); err != nil {
		t.Fatal(err)
	}
	links, err := v.Store.Previews.List(t.Context(), "w1")
	if err != nil || len(links) != 2 || links[1].PageID != "" || links[0].Page != "Fares" || links[0].By != "Dana" {
		t.Fatalf("%+v, %v", links, err)
	}
	if err := v.Store.Previews.End(t.Context(), "w1", links[0].ID); err != nil {
		t.Fatal(err)
	}
	if status, _, _ := v.ask("192.0.2.1", "GET", one+"/fares/", nil); status != http.StatusNotFound {
		t.Errorf("a link that was ended: %d", status)
	}
	if err := v.Store.Members.Set(t.Context(), "w1", v.designer.ID, ""); err != nil {
		t.Fatal(err)
	}
	if status, _, _ := v.ask("192.0.2.1", "GET", whole+"/", nil); status != http.StatusNotFound {
		t.Errorf("a link of somebody who left: %d", status)
	}
}

func TestAnswersKeepTheFormsOrder(t *testing.T) {
	answers, ok := readAnswers("Your+name=A+%26+B&Which=one&Day=&Which=two&%zz=1&=x")
	if !ok || !slices.Equal(
		answers,
		[]store.Answer{
			{Field: "Your name", Value: "A & B"},
			{Field: "Which", Value: "one, two"},
			{Field: "Day", Value: ""},
		},
	) {
		t.Errorf("%v, %v", answers, ok)
	}
	if _, ok := readAnswers(strings.Repeat("a=b&", 10) + strings.Repeat("x", maxFormName+1) + "=1"); ok {
		t.Error("a name of any length is taken")
	}
}
