package web

import (
	"net/http"
	"testing"
	"time"
)

// BenchmarkScreens asks for the screens of a site of 2,000 pages below twenty others, drawn, checked and
// half of them published, with 1,000 files and 5,000 entries, as its owner.
func BenchmarkScreens(b *testing.B) {
	p := begin(b)
	ctx := b.Context()
	for _, query := range []string{
		`INSERT INTO pages (id, site_id, slug, position, doc, name, description, parent, seq, published_seq, published_look, published_at)
			SELECT 'q' || n, 'w1', CASE WHEN n > 20 THEN 'page-' || n % 20 + 1 || '/' ELSE '' END || 'page-' || n, n, d.doc, 'Page ' || n, 'What page ' || n || ' is about',
				CASE WHEN n > 20 THEN 'q' || n % 20 + 1 END, 3, CASE WHEN n % 2 = 0 THEN 3 END, CASE WHEN n % 2 = 0 THEN 1 END, CASE WHEN n % 2 = 0 THEN now() END
			FROM generate_series(1, 2000) n, (SELECT doc FROM pages WHERE id = 'p1') d`,
		`INSERT INTO page_drawings (page_id, seq, look, svg) SELECT id, seq, '1 ' || '` + p.hosts.Uploads() + `', '<svg class="drawing">' || repeat('<rect x="1" y="2" width="30" height="4"/>', 200) || '</svg>'
			FROM pages WHERE site_id = 'w1' ON CONFLICT (page_id) DO UPDATE SET seq = excluded.seq, look = excluded.look`,
		`INSERT INTO page_findings (page_id, seq, look, broken, doubtful, hints) SELECT id, seq, 'x', 1, 2, 3 FROM pages WHERE site_id = 'w1' ON CONFLICT DO NOTHING`,
		`INSERT INTO media (id, site_id, name, type, width, height, original, variants, bytes)
			SELECT 'm' || n, 'w1', 'Picture ' || n, 'image/png', 800, 600, 'm' || n || '.png', jsonb_build_array(jsonb_build_object('file', 'm' || n || '.webp', 'width', 800)), 1000
			FROM generate_series(1, 1000) n`,
		`INSERT INTO form_entries (id, site_id, form, answers, sent_at) SELECT 'e' || n, 'w1', 'Ask', '[{"field":"Name","value":"A"}]', now() - n * interval '1 minute'
			FROM generate_series(1, 5000) n`,
		`ANALYZE`,
	} {
		if _, err := p.store.DB().ExecContext(ctx, query); err != nil {
			b.Fatal(err)
		}
	}
	d := p.owned()
	for _, path := range []string{
		"", "?as=list", "?as=wall", "/rail", "/library", "/entries", "/checks", "/house", "/menus", "/people", "/settings", "/versions", "/previews", "/audit", "/publish",
		"/pages/home/bench", "/pages/home/settings",
	} {
		b.Run("pages"+path, func(b *testing.B) {
			var times []time.Duration
			var size int
			for b.Loop() {
				from := time.Now()
				status, text, _ := d.get("/sites/skerry" + path)
				if status != http.StatusOK {
					b.Fatal(status)
				}
				times, size = append(times, time.Since(from)), len(text)
			}
			b.ReportMetric(median(times), "ms-median")
			b.ReportMetric(float64(size)/1000, "kB")
		})
	}
}
