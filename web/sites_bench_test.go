package web

import (
	"fmt"
	"net/http"
	"net/url"
	"testing"
	"time"

	"openplot/core/ready"
	"openplot/store"
)

// BenchmarkSites asks for the list of 1,000 sites of 20 pages each, whose home pages are drawn, for
// one that is searched for, and for the pages of one.
func BenchmarkSites(b *testing.B) {
	p := begin(b)
	if _, err := p.store.DB().ExecContext(b.Context(), `WITH s AS (INSERT INTO sites (id, slug, name, house, zones, begun) SELECT 'x' || n, 'site-' || n, 'Site ' || n, house, zones, true
			FROM sites, generate_series(1, 1000) n WHERE id = 'w1' RETURNING id),
		m AS (INSERT INTO members (site_id, user_id, role) SELECT s.id, u.id, 'owner' FROM s, users u WHERE u.email = 'designer@example.org'),
		p AS (INSERT INTO pages (id, site_id, slug, position, doc, name, seq, published_seq, published_look, published_at)
			SELECT s.id || 'p' || k, s.id, CASE WHEN k = 0 THEN '' ELSE 'page-' || k END, k, d.doc, 'Page ' || k, 3, 2 + k % 2, 1, now()
			FROM s, generate_series(0, 19) k, (SELECT doc FROM pages WHERE site_id = 'w1' LIMIT 1) d RETURNING id, slug)
		INSERT INTO page_drawings (page_id, seq, look, svg) SELECT id, 3, '1 ' || $1, '<svg class="drawing">' || repeat('<rect x="1" y="2" width="30" height="4"/>', 200) || '</svg>' FROM p`,
		p.hosts.Uploads()); err != nil {
		b.Fatal(err)
	}
	if _, err := p.store.DB().ExecContext(b.Context(), `ANALYZE`); err != nil {
		b.Fatal(err)
	}
	d := p.as("designer@example.org")
	for name, path := range map[string]string{"list": "/", "search": "/?q=site+77", "pages": "/sites/site-500"} {
		b.Run(name, func(b *testing.B) {
			var times []time.Duration
			for b.Loop() {
				from := time.Now()
				if status, _, _ := d.get(path); status != http.StatusOK {
					b.Fatal(status)
				}
				times = append(times, time.Since(from))
			}
			b.ReportMetric(median(times), "ms-median")
		})
	}
}

// BenchmarkPublish publishes one page and a hundred, made of ready-made ones, each time after an
// edit of theirs.
func BenchmarkPublish(b *testing.B) {
	p := begin(b)
	ids := []string{}
	for i := range 100 {
		of := ready.Pages[1+i%(len(ready.Pages)-1)]
		page, err := ready.NewPage(of.ID, fmt.Sprintf("Page %03d", i), nil, store.NewID, nil)
		if err != nil {
			b.Fatal(err)
		}
		if err := p.store.Pages.Add(b.Context(), "w1", fmt.Sprintf("page-%03d", i), i+1, page); err != nil {
			b.Fatal(err)
		}
		ids = append(ids, page.ID)
	}
	d := p.as("designer@example.org")
	round := 0
	for _, n := range []int{1, 100} {
		b.Run(fmt.Sprintf("%d pages", n), func(b *testing.B) {
			var times []time.Duration
			for b.Loop() {
				round++
				b.StopTimer()
				if _, err := p.store.DB().ExecContext(b.Context(), `UPDATE pages SET seq = seq + 1, doc = jsonb_set(doc::jsonb, '{title}', to_jsonb('Round ' || $1::text))::json WHERE id = ANY ($2)`,
					fmt.Sprint(round), ids[:n]); err != nil {
					b.Fatal(err)
				}
				b.StartTimer()
				from := time.Now()
				if status, body, _ := d.post("/sites/skerry/publish", url.Values{"id": ids[:n]}); status != http.StatusSeeOther {
					b.Fatal(status, body)
				}
				times = append(times, time.Since(from))
			}
			b.ReportMetric(median(times), "ms-median")
		})
	}
}
