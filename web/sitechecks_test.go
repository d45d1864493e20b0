package web

import (
	"encoding/json"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"testing"
	"time"

	"openplot/core/doc"
	"openplot/demo"
	"openplot/site"
)

// swept asks for the checks of a site until all its pages were looked at.
func swept(t testing.TB, d *person) string {
	t.Helper()
	_, body, _ := d.get("/sites/skerry/checks")
	for range 600 {
		if !strings.Contains(body, `<progress`) {
			return body
		}
		time.Sleep(100 * time.Millisecond)
		_, body, _ = d.get("/sites/skerry/checks?part=1")
	}
	t.Fatalf("not at its end: %.300s", body)
	return ""
}

// TestSiteChecks has all pages of a site checked in the background, and only those again that
// changed.
func TestSiteChecks(t *testing.T) {
	p := begin(t)
	p.many(12)
	faint := &doc.Page{ID: "p5", Name: "Faint", Title: "Faint", Sections: []*doc.Section{{
		ID: "s", Name: "S", Arrangement: doc.LineUp, Style: doc.Style{"background": {"desktop": "#ffffff"}},
		Blocks: []*doc.Block{{ID: "b", Kind: doc.Text, Style: doc.Style{"color": {"desktop": "#dddddd"}}, Content: doc.Content{Words: doc.PlainWords("Hardly to be seen")}}},
	}}}
	text, err := json.Marshal(faint)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := p.store.DB().ExecContext(t.Context(), `UPDATE pages SET doc = $1, name = 'Faint', seq = seq + 1 WHERE id = (SELECT id FROM pages WHERE site_id = 'w1' ORDER BY position DESC LIMIT 1)`, text); err != nil {
		t.Fatal(err)
	}
	d := p.as("designer@example.org")
	body := swept(t, d)
	if !strings.Contains(body, "1 broken") || strings.Index(body, "Faint") > strings.Index(body, "Sound at every width") && strings.Contains(body, "Sound at every width") {
		t.Errorf("the worst page isn't the first: %.900s", body)
	}
	if strings.Contains(body, "not checked yet") {
		t.Errorf("a page was left out: %.900s", body)
	}
	if _, again, _ := d.get("/sites/skerry/checks"); strings.Contains(again, "<progress") {
		t.Error("all are checked again though nothing changed")
	}
	if status, _, _ := p.as("").get("/sites/skerry/checks"); status == http.StatusOK {
		t.Error("whoever isn't signed in sees it")
	}
}

// BenchmarkSweepSite checks a hundred pages, made of the demo's, as the background does; eight are in
// the menus.
func BenchmarkSweepSite(b *testing.B) {
	p := begin(b)
	p.many(100)
	all := demo.Pages(nil)
	infos, err := p.store.Pages(b.Context(), "w1")
	if err != nil {
		b.Fatal(err)
	}
	for i, r := range infos {
		page := all[i%len(all)].Page.Clone()
		page.ID, page.Name = r.ID, fmt.Sprintf("%s %d", page.Name, i)
		for k, sec := range page.Sections { // no list of all hundred in the footer
			c := sec.Clone()
			c.Blocks = slices.DeleteFunc(c.Blocks, func(b *doc.Block) bool { return b.Kind == doc.PageList })
			page.Sections[k] = c
		}
		text, err := json.Marshal(page)
		if err != nil {
			b.Fatal(err)
		}
		if _, err := p.store.DB().ExecContext(b.Context(), `UPDATE pages SET doc = $1, in_menu = $3, in_footer = $3 WHERE id = $2`, text, r.ID, i < 8); err != nil {
			b.Fatal(err)
		}
	}
	st, err := p.store.SiteBySlug(b.Context(), "skerry")
	if err != nil {
		b.Fatal(err)
	}
	src, err := site.ReadSource(b.Context(), p.store, st)
	if err != nil {
		b.Fatal(err)
	}
	for b.Loop() {
		p.server.sweepPages(b.Context(), st, src, src.Pages, func() {})
	}
	b.ReportMetric(float64(len(src.Pages)), "pages")
}
