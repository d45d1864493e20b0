package visitors

import (
	"net/http"
	"net/url"
	"testing"
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
