package visitors

import (
	"fmt"
	"maps"
	"net/http"
	"net/url"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	"openplot/store"
)

// TestVisits counts how wide the windows are in which published pages are seen, where the site counts
// that, and nothing else.
func TestVisits(t *testing.T) {
	p := begin(t)
	p.says("w1", "p1", "What it costs")
	send := func(width, page string) int {
		t.Helper()
		status, _, _ := p.ask(
			"198.51.100.7",
			http.MethodPost,
			p.Hosts.Public("skerry")+"/_visits",
			url.Values{"width": {width}, "page": {page}},
		)
		return status
	}
	if got := send("375", "/fares/"); got != http.StatusNotFound {
		t.Errorf("a site that counts none: %d", got)
	}
	if err := p.Store.Visits.SetCounting(t.Context(), "w1", true); err != nil {
		t.Fatal(err)
	}
	for _, width := range []string{"375", "390", "1280", "99999"} {
		if got := send(width, "/fares/"); got != http.StatusNoContent {
			t.Errorf("%s px: %d", width, got)
		}
	}
	for what, got := range map[string]int{"no width": send("", "/fares/"), "words": send("wide", "/fares/"), "one that isn’t published": send("375", "/")} {
		if got != http.StatusUnprocessableEntity && got != http.StatusNotFound {
			t.Errorf("%s: %d", what, got)
		}
	}
	vs, err := p.Store.Visits.List(t.Context(), "p1")
	if err != nil || len(vs) != 3 || vs[0].Width != 360 || vs[0].N != 2 || vs[1].Width != 1280 || vs[2].Width != 8000 {
		t.Errorf("%v, %v", vs, err)
	}
	if err := p.Store.Visits.SetCounting(t.Context(), "w1", false); err != nil {
		t.Fatal(err)
	}
	if vs, err := p.Store.Visits.List(t.Context(), "p1"); err != nil || len(vs) != 0 {
		t.Errorf("what was counted is still there: %v, %v", vs, err)
	}
}

// What is counted is views, somebody's first of a day, from which other site, by which campaign, in which language,
// searches and addresses in vain: nothing of robots, of who asks not to be, of other sites' pages, and nothing that
// tells who it was. Endless made-up keys count together.
func TestWhatIsCounted(t *testing.T) {
	v := begin(t)
	ctx := t.Context()
	v.says("w1", "p1", "What it costs")
	if err := v.Store.Visits.SetCounting(ctx, "w1", true); err != nil {
		t.Fatal(err)
	}
	const browser = "Mozilla/5.0 (X11; Linux x86_64) Firefox/140.0"
	send := func(from, agent string, header map[string]string, form url.Values) {
		t.Helper()
		r, err := http.NewRequest(
			http.MethodPost,
			v.Hosts.Public("skerry")+"/_visits",
			strings.NewReader(form.Encode()),
		)
		if err != nil {
			t.Fatal(err)
		}
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		r.Header.Set("X-Forwarded-For", from)
		r.Header.Set("User-Agent", agent)
		for name, value := range header {
			r.Header.Set(name, value)
		}
		res, err := v.client.Do(r)
		if err != nil {
			t.Fatal(err)
		}
		res.Body.Close()
	}
	seen := url.Values{
		"width":    {"390"},
		"page":     {"/fares/?utm_source=letter&utm_medium=mail"},
		"from":     {"https://www.news.example/a?b"},
		"language": {"de-AT"},
	}
	for range 3 {
		send("192.0.2.1", browser, nil, seen)
	}
	send("192.0.2.2", browser, nil, seen)
	send(
		"192.0.2.1",
		browser+" other",
		nil,
		url.Values{"width": {"390"}, "page": {"/fares/"}, "from": {v.Hosts.Public("skerry")}},
	)
	for _, header := range []map[string]string{{"DNT": "1"}, {"Sec-GPC": "1"}} {
		send("192.0.2.3", browser, header, seen)
	}
	send("192.0.2.4", "Examplebot/1.0", nil, seen)
	send("192.0.2.5", browser, nil, url.Values{"width": {"390"}, "page": {"/nowhere/"}})
	counted := func() map[string]int {
		t.Helper()
		all := map[string]int{}
		if err := v.Store.Visits.EachCount(ctx, "w1", func(_ time.Time, what, key string, n int) error {
			all[what+" "+key] = n
			return nil
		}); err != nil {
			t.Fatal(err)
		}
		return all
	}
	want := map[string]int{
		"view ":                  5,
		"visit ":                 3,
		"page p1":                5,
		"from news.example":      4,
		"campaign letter / mail": 4,
		"language de":            4,
	}
	if got := counted(); !maps.Equal(got, want) {
		t.Errorf("%v, want %v", got, want)
	}
	marks := 0
	rows, err := v.Store.DB().QueryContext(ctx, `SELECT encode(mark, 'escape') FROM visit_marks`)
	if err != nil {
		t.Fatal(err)
	}
	defer rows.Close()
	for rows.Next() {
		var mark string
		if err := rows.Scan(&mark); err != nil || strings.Contains(mark, "192.0.2") ||
			strings.Contains(mark, "Firefox") {
			t.Errorf("%q, %v", mark, err)
		}
		marks++
	}
	if marks != 3 {
		t.Errorf("%d marks", marks)
	}
	// A day that is over takes with it who was here.
	if _, err := v.Store.DB().ExecContext(ctx, `UPDATE visit_marks SET day = day - 1`); err != nil {
		t.Fatal(err)
	}
	if err := v.Store.Visits.Forget(ctx); err != nil {
		t.Fatal(err)
	}
	if err := v.Store.DB().QueryRowContext(ctx, `SELECT count(*) FROM visit_marks`).Scan(&marks); err != nil ||
		marks != 0 {
		t.Errorf("%d marks are left, %v", marks, err)
	}
	if err := v.Store.Visits.Add(ctx, "w1", store.Count{What: store.CountedSearch, Key: "seal"}, store.Count{What: store.CountedMissing, Key: "/old"}); err != nil {
		t.Fatal(err)
	}
	for i := range 600 {
		if err := v.Store.Visits.Add(ctx, "w1", store.Count{What: store.CountedSearch, Key: fmt.Sprint("made up ", i)}); err != nil {
			t.Fatal(err)
		}
	}
	got := counted()
	if len(got) != len(want)+1+501 || got["search "] != 101 || got["search seal"] != 1 {
		t.Errorf("%d keys, %d together", len(got), got["search "])
	}
	if err := v.Store.Visits.SetCounting(ctx, "w1", false); err != nil {
		t.Fatal(err)
	}
	if err := v.Store.Visits.Add(ctx, "w1", store.Count{What: store.CountedSearch, Key: "seal"}); err != nil ||
		len(counted()) != 0 {
		t.Errorf("a site that counts none: %v, %v", counted(), err)
	}
}

// What is looked for and asked for in vain is counted where it happens, and files that are taken; a file that isn't
// there is taken by nobody, a part of one is no more of it, and who only asks about one takes none.
func TestInVain(t *testing.T) {
	v := askingBy(t, askedPage)
	ctx := t.Context()
	if err := v.Store.Visits.SetCounting(ctx, "w1", true); err != nil {
		t.Fatal(err)
	}
	at := filepath.Join(v.SiteDir, "w1", "assets", "media", "f0123456789abc-0.pdf")
	if err := os.MkdirAll(filepath.Dir(at), 0o755); err != nil {
		t.Fatal(err)
	}
	if err := os.WriteFile(at, []byte("%PDF-1.7"), 0o600); err != nil {
		t.Fatal(err)
	}
	for _, asked := range []struct{ method, path, part string }{
		{"GET", "/_search/skerry?q=Walrus", ""}, {"GET", "/nowhere/", ""}, {"GET", "/fares/", ""},
		{"GET", "/assets/media/f0123456789abc-0.pdf", ""}, {"GET", "/assets/media/f0123456789abc-0.pdf", "bytes=2-3"},
		{"HEAD", "/assets/media/f0123456789abc-0.pdf", ""}, {"GET", "/assets/media/made-up.pdf", ""},
	} {
		r, err := http.NewRequest(asked.method, v.Hosts.Public("skerry")+asked.path, nil)
		if err != nil {
			t.Fatal(err)
		}
		r.Header.Set("User-Agent", "Mozilla/5.0 Firefox/140.0")
		if asked.part != "" {
			r.Header.Set("Range", asked.part)
		}
		res, err := v.client.Do(r)
		if err != nil {
			t.Fatal(err)
		}
		res.Body.Close()
	}
	var all []string
	if err := v.Store.Visits.EachCount(ctx, "w1", func(_ time.Time, what, key string, n int) error {
		all = append(all, fmt.Sprint(what, " ", key, " ", n))
		return nil
	}); err != nil {
		t.Fatal(err)
	}
	if want := []string{"file f0123456789abc 1", "missing /nowhere 1", "search walrus 1"}; !slices.Equal(all, want) {
		t.Errorf("%q, want %q", all, want)
	}
}
