package visitors

import (
	"fmt"
	"net/http"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"sync/atomic"
	"testing"
	"time"

	"openplot/core/element"
	"openplot/origin"
	"openplot/store"
)

// Entries as people send them, from networks of their own, to a hundred forms: read against their pages, kept, told
// by mail and counted. None is lost. BenchmarkEntries -benchtime 12000x is a minute of 200 a second.
func BenchmarkEntries(b *testing.B) {
	v := begin(b)
	ctx := b.Context()
	const forms = 100
	fields := []string{"Mail", "Words", element.FormTrap, element.FormTook, element.FormOnce}
	said, pages := store.Said{}, []string{}
	write := func(name, text string) {
		at := filepath.Join(v.SiteDir, name)
		if err := os.MkdirAll(filepath.Dir(at), 0o755); err != nil {
			b.Fatal(err)
		}
		if err := os.WriteFile(at, []byte(text), 0o600); err != nil {
			b.Fatal(err)
		}
	}
	for i := range forms {
		said.Forms = append(said.Forms, store.PublishedForm{Block: fmt.Sprint("b", i), Fields: fields})
		page := strings.ReplaceAll(fmt.Sprintf(limitsPage, ""), "/_forms/skerry/b1", fmt.Sprint("/_forms/skerry/b", i))
		write(fmt.Sprintf("w1/contents/%d.html", i), strings.ReplaceAll(page, " data-copy", ""))
		pages = append(pages, fmt.Sprintf(`"f%d":{"file":"%d.html","type":"text/html","page":"p1"}`, i, i))
	}
	v.publishes("w1", store.Edition{Page: "p1", Said: said})
	write("w1/release.json", `{"pages":{`+strings.Join(pages, ",")+`}}`)
	for _, err := range []error{
		v.Store.Mails.Set(ctx, "w1", store.MailSettings{To: "office@skerry.example"}), v.Store.Visits.SetCounting(ctx, "w1", true),
	} {
		if err != nil {
			b.Fatal(err)
		}
	}
	for _, of := range []**origin.Attempts{&v.limits.forms, &v.limits.visits} {
		*of = origin.NewAttempts(1e6, time.Microsecond)
	}
	var sent, refused atomic.Int64
	b.ResetTimer()
	b.RunParallel(func(pb *testing.PB) {
		for pb.Next() {
			n := sent.Add(1)
			form := url.Values{
				"Mail": {
					"ida@berg.example",
				}, "Words": {fmt.Sprint(n % 100_000)}, element.FormTrap: {""}, element.FormTook: {"9000"},
				element.FormOnce: {fmt.Sprint(n)},
			}
			for len(form["Words"][0]) < 3 {
				form["Words"][0] += "x"
			}
			r, err := http.NewRequest(
				http.MethodPost,
				fmt.Sprint(v.Hosts.Public("skerry"), "/_forms/skerry/b", n%forms),
				strings.NewReader(form.Encode()),
			)
			if err != nil {
				b.Error(err)
				return
			}
			r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
			r.Header.Set("X-Forwarded-For", fmt.Sprintf("10.%d.%d.%d", n>>16&255, n>>8&255, n&255))
			r.Header.Set("User-Agent", "Mozilla/5.0 Firefox/140.0")
			r.Header.Set("Referer", fmt.Sprint(v.Hosts.Public("skerry"), "/f", n%forms, "/"))
			res, err := v.client.Do(r)
			if err != nil {
				b.Error(err)
				return
			}
			res.Body.Close()
			if res.StatusCode != http.StatusOK {
				refused.Add(1)
			}
		}
	})
	b.StopTimer()
	b.ReportMetric(float64(b.N)/b.Elapsed().Seconds(), "entries/s")
	n, err := v.Store.Inbox.Counts(ctx, "w1", v.designer.ID)
	if err != nil || n[store.BoxAll]+int(refused.Load()) != b.N || refused.Load() > 0 {
		b.Errorf("of %d entries %d are kept and %d refused, %v", b.N, n[store.BoxAll], refused.Load(), err)
	}
}
