package web

import (
	"fmt"
	"net/http"
	"net/url"
	"runtime"
	"slices"
	"strings"
	"testing"
	"time"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/ready"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/model"
)

// many adds pages to the site, each of a few ready-made sections.
func (p *studio) many(n int) {
	p.t.Helper()
	for i := range n {
		page, err := ready.NewPage("contact", fmt.Sprintf("Page %04d", i), nil, store.NewID, nil)
		if err != nil {
			p.t.Fatal(err)
		}
		page.Sections = slices.DeleteFunc(
			page.Sections,
			func(s *doc.Section) bool { return s.Role != doc.RoleMain },
		) // no menus of all pages
		if err := p.store.Pages.Add(p.t.Context(), "w1", fmt.Sprintf("page-%d", i), i+1, page); err != nil {
			p.t.Fatal(err)
		}
	}
}

// Pages are listed sixty at a time, drawn as they are; what was edited since is shown as it
// was, and drawn anew in the background.
func TestPagesAreDrawn(t *testing.T) {
	p := begin(t)
	p.many(70)
	d := p.as("designer@example.org")
	cards := func(path string) (n, drawn int, body string) {
		t.Helper()
		status, body, _ := d.get(path)
		if status != http.StatusOK {
			t.Fatalf("%s: %d", path, status)
		}
		return strings.Count(body, `class="page-card"`), strings.Count(body, `<svg class="drawing"`), body
	}
	if n, drawn, body := cards("/sites/skerry"); n != 60 || drawn != 0 || !strings.Contains(body, "from=60") ||
		!strings.Contains(body, `hx-trigger="every`) {
		t.Errorf("at first: %d pages, %d drawn", n, drawn)
	}
	if err := p.tasks().Draw(t.Context(), "skerry"); err != nil {
		t.Fatal(err)
	}
	if n, drawn, body := cards("/sites/skerry"); n != 60 || drawn != 60 || strings.Contains(body, `hx-trigger="every`) {
		t.Errorf("afterwards: %d pages, %d drawn", n, drawn)
	}
	if n, drawn, body := cards("/sites/skerry/pages?from=60"); n != 11 || drawn != 11 ||
		strings.Contains(body, "from=") {
		t.Errorf("the others: %d pages, %d drawn", n, drawn)
	}
	if _, drawn, _ := cards("/"); drawn != 1 {
		t.Errorf("%d sites are drawn", drawn)
	}
	fresh := func() (n int) {
		t.Helper()
		st, err := p.store.Sites.BySlug(t.Context(), "skerry")
		if err != nil {
			t.Fatal(err)
		}
		pages, err := p.store.Drawings.Undrawn(t.Context(), "w1", model.DrawingLook(st.Version, p.hosts), 100)
		if err != nil {
			t.Fatal(err)
		}
		return len(pages)
	}
	if status, _ := d.edit(edit.Command{Op: "rename", Node: p.page.Sections[0].ID, Value: "Renamed"}); status != http.StatusOK ||
		fresh() != 1 {
		t.Errorf("after an edit %d are to be drawn", fresh())
	}
	err := p.store.Houses.Edit(
		t.Context(),
		"w1",
		"",
		1,
		edit.HouseCommand{},
		func(h doc.House) (doc.House, error) { h.ContentWidth = 900; return h, nil },
	)
	if err == nil {
		t.Error("nobody edits the house style")
	}
	if status, _, _ := d.post(housePath+"/edits", map[string][]string{"op": {"width.set"}, "value": {"900"}, "base": {"1"}}); status != http.StatusOK ||
		fresh() != 71 {
		t.Errorf("after a change of the house style %d are to be drawn", fresh())
	}
	at := kept(t, d, "boat.png", halves(t, 600, 400))
	if err := p.tasks().Draw(t.Context(), "skerry"); err != nil || fresh() != 0 {
		t.Fatalf("%v: %d are to be drawn", err, fresh())
	}
	if status, _, _ := d.post(at+"/shape", map[string][]string{"turns": {"1"}}); status != http.StatusOK ||
		fresh() != 71 {
		t.Errorf("after a picture was turned, %d: %d are to be drawn", status, fresh())
	}
}

// The list of pages: its first sixty, of sites of several sizes, when all are drawn.
func BenchmarkPages(b *testing.B) {
	for _, n := range []int{20, 200, 2000} {
		b.Run(fmt.Sprintf("%d pages", n), func(b *testing.B) {
			p := begin(b)
			p.many(n)
			if err := p.tasks().Draw(b.Context(), "skerry"); err != nil {
				b.Fatal(err)
			}
			d := p.as("designer@example.org")
			var times []time.Duration
			for b.Loop() {
				from := time.Now()
				if status, _, _ := d.get("/sites/skerry"); status != http.StatusOK {
					b.Fatal(status)
				}
				times = append(times, time.Since(from))
			}
			var m runtime.MemStats
			runtime.GC()
			runtime.ReadMemStats(&m)
			b.ReportMetric(median(times), "ms-median")
			b.ReportMetric(float64(m.HeapAlloc)/(1<<20), "MB-live")
		})
	}
}

// The list of pages says what is planned of each, how much was found about it, and how often it was seen.
func TestPagesSayWhatIsKnownOfThem(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	list := func() string {
		t.Helper()
		_, body, _ := d.get("/sites/skerry")
		return oneLine(body)
	}
	if body := list(); strings.Contains(body, "Planned:") || strings.Contains(body, " findings</a>") ||
		strings.Contains(body, "Seen ") {
		t.Errorf("of a page of which nothing is known: %.3000s", body)
	}
	ctx := t.Context()
	at := time.Now().Add(48 * time.Hour)
	st, err := p.store.Sites.ByID(ctx, "w1")
	if err != nil {
		t.Fatal(err)
	}
	at = at.In(desk.ZoneOf(st))
	plan := url.Values{"at": {at.Format("2006-01-02T15:04")}, "id": {p.page.ID}}
	if status, body, _ := d.post("/sites/skerry/publish/plan", plan); status != http.StatusSeeOther {
		t.Fatalf("%d %.300s", status, body)
	}
	if err := p.store.Findings.KeepFound(ctx, p.page.ID, 0, "look", store.Counts{Broken: 2, Doubtful: 1, Hints: 4}); err != nil {
		t.Fatal(err)
	}
	if err := p.store.Visits.SetCounting(ctx, "w1", true); err != nil {
		t.Fatal(err)
	}
	if status, body, _ := d.post(benchPath+"/publish", nil); status != http.StatusOK {
		t.Fatalf("%d %.300s", status, body)
	}
	for range 3 {
		if _, err := p.store.Visits.Count(ctx, "w1", "", 800); err != nil {
			t.Fatal(err)
		}
	}
	body := list()
	for _, want := range []string{
		"Planned: " + at.Format("2 January, 15:04"), "3 findings</a>", "Seen 3 times",
	} {
		if !strings.Contains(body, want) {
			t.Errorf("the list doesn't say %q", want)
		}
	}
}
