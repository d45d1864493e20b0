package web

import (
	"fmt"
	"io"
	"math/rand/v2"
	"net/http"
	"net/http/httptest"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/rights"
	"openplot/store"
)

// What was tried on the running program from outside and held: it is tried again here, so that it
// goes on holding.

const foreignWord = "quillwort" // is all over what is somebody else's

// foreign makes a site of somebody else's with one of everything, and gives the ids of it all.
func (p *studio) foreign(t *testing.T) (ids []string) {
	t.Helper()
	ctx := t.Context()
	must := func(err error) {
		p.t.Helper()
		if err != nil {
			p.t.Fatal(err)
		}
	}
	of, err := p.store.People.AddUser(ctx, "other@example.org", foreignWord, "three islands")
	must(err)
	w := &doc.Site{ID: "w2", Slug: "other", Name: foreignWord, House: doc.StandardHouse(), Zones: doc.StandardZones()}
	must(p.store.Sites.Add(ctx, w))
	must(p.store.People.AddMember(ctx, "w2", of.ID, store.Owner))
	words := &doc.Section{
		ID:     "s99",
		Name:   foreignWord,
		Shared: true,
		Blocks: []*doc.Block{{ID: "b99", Kind: doc.Heading, Content: doc.Content{Words: doc.PlainWords(foreignWord)}}},
	}
	must(
		p.store.Pages.Add(
			ctx,
			"w2",
			"",
			0,
			&doc.Page{ID: "p99", Name: foreignWord, Title: foreignWord, Sections: []*doc.Section{words}},
		),
	)
	q := p.as("other@example.org")
	if status, body := upload(t, q, "/sites/other/library", foreignWord+".png", noise(t, 40, 30), nil); status != http.StatusOK {
		p.t.Fatalf("%d %s", status, body)
	}
	media, err := p.store.Media.List(ctx, "w2")
	must(err)
	for _, path := range []string{"/sites/other/pages/home/publish", "/sites/other/pages/home/versions", "/sites/other/previews"} {
		if status, text, _ := q.post(path, url.Values{"name": {foreignWord}, "note": {foreignWord}, "days": {"7"}}); status >= 400 {
			p.t.Fatalf("%s: %d %.300s", path, status, text)
		}
	}
	must(
		p.store.Releases.AddPlan(
			ctx,
			store.Plan{
				Site:  "w2",
				Act:   store.PlanPublish,
				Pages: []string{"p99"},
				At:    time.Now().Add(time.Hour),
				By:    of.ID,
			},
		),
	)
	must(
		p.store.Entries.Add(
			ctx,
			"w2",
			store.FormEntry{
				Form:    "b99",
				Answers: []store.Answer{{Field: "Name", Value: foreignWord}},
			},
			store.Telling{},
		),
	)
	must(p.store.Shelf.KeepSection(ctx, &store.KeptSection{Site: "w2", Name: foreignWord, Section: words}))
	must(p.store.Hosts.AddDomain(ctx, "w2", "www.other.example"))
	must(p.store.Tree.AddRedirect(ctx, "w2", "/old", "/"))
	ids = []string{"w2", "other", "p99", "s99", "b99", media[0].ID, of.ID, "www.other.example", "/old"}
	for _, query := range []string{
		`SELECT id FROM plans WHERE site_id = 'w2'`, `SELECT id FROM previews WHERE site_id = 'w2'`, `SELECT id FROM form_entries WHERE site_id = 'w2'`,
		`SELECT id FROM versions WHERE site_id = 'w2'`, `SELECT id FROM kept_sections WHERE site_id = 'w2'`,
	} {
		var id string
		must(p.store.DB().QueryRowContext(ctx, query+" LIMIT 1").Scan(&id))
		ids = append(ids, id)
	}
	return ids
}

// belongings are all rows that are a site's, and what its host shows.
func (p *studio) belongings(site string) string {
	p.t.Helper()
	var b strings.Builder
	for _, query := range []string{
		`SELECT coalesce(json_agg(t ORDER BY t.id)::text, '') FROM sites t WHERE id = $1`,
		`SELECT coalesce(json_agg(t ORDER BY t.id)::text, '') FROM pages t WHERE site_id = $1`,
		`SELECT coalesce(json_agg(t ORDER BY t.page_id, t.seq)::text, '') FROM page_log t JOIN pages p ON p.id = t.page_id WHERE p.site_id = $1`,
		`SELECT coalesce(json_agg(t ORDER BY t.id)::text, '') FROM media t WHERE site_id = $1`,
		`SELECT coalesce(json_agg(t ORDER BY t.user_id)::text, '') FROM members t WHERE site_id = $1`,
		`SELECT coalesce(json_agg(t ORDER BY t.id)::text, '') FROM plans t WHERE site_id = $1`,
		`SELECT coalesce(json_agg(t ORDER BY t.id)::text, '') FROM previews t WHERE site_id = $1`,
		`SELECT coalesce(json_agg(t ORDER BY t.id)::text, '') FROM form_entries t WHERE site_id = $1`,
		`SELECT coalesce(json_agg(t ORDER BY t.id)::text, '') FROM versions t WHERE site_id = $1`,
		`SELECT coalesce(json_agg(t ORDER BY t.id)::text, '') FROM kept_sections t WHERE site_id = $1`,
		`SELECT coalesce(json_agg(t ORDER BY t.host)::text, '') FROM domains t WHERE site_id = $1`,
		`SELECT coalesce(json_agg(t ORDER BY t.address)::text, '') FROM redirects t WHERE site_id = $1`,
		`SELECT coalesce(json_agg(t ORDER BY t.number)::text, '') FROM releases t WHERE site_id = $1`,
	} {
		var rows string
		if err := p.store.DB().QueryRowContext(p.t.Context(), query, site).Scan(&rows); err != nil {
			p.t.Fatal(err)
		}
		b.WriteString(rows + "\n")
	}
	return b.String()
}

// With ids of somebody else's in every field and address of every route, nobody reads anything of
// theirs and nothing of it changes.
func TestForeignIDs(t *testing.T) {
	p := begin(t)
	ids := p.foreign(t)
	was := p.belongings("w2")
	if strings.Count(was, foreignWord) < 12 {
		t.Fatalf("there is too little to find: %d", strings.Count(was, foreignWord))
	}
	h := asking(t, p)
	random := rand.New(rand.NewPCG(23, 9))
	asked := 0
	rounds := 4
	if os.Getenv("OPENPLOT_MEASURE") != "" {
		rounds = 22
	}
	for range rounds {
		for _, r := range h.routes {
			if r.Right == rights.None || r.Right == rights.Operate {
				continue
			}
			form := h.mixed(random, 2, ids)
			if random.IntN(3) == 0 {
				form.Set("command", fmt.Sprintf(
					`{"op":%q,"node":%q,"after":%q,"value":%q,"zone":"desktop"}`,
					edit.Operations()[random.IntN(len(edit.Operations()))],
					ids[random.IntN(len(ids))],
					ids[random.IntN(len(ids))],
					ids[random.IntN(len(ids))],
				))
			}
			path := h.path(r)
			for _, name := range []string{"/home", "/m1", "/v1", "/" + h.page.Sections[0].ID} {
				if random.IntN(2) == 0 {
					path = strings.Replace(
						path,
						name,
						"/"+url.PathEscape(strings.Trim(ids[random.IntN(len(ids))], "/")),
						1,
					)
				}
			}
			req := httptest.NewRequest(r.Method, "http://app.localhost"+path, nil)
			if req.URL.RawQuery = form.Encode(); r.Method == http.MethodPost {
				req = httptest.NewRequest(r.Method, "http://app.localhost"+path, strings.NewReader(form.Encode()))
				req.Header.Set("Content-Type", "application/x-www-form-urlencoded")
			}
			req.Header.Set("Cookie", h.cookie)
			w := httptest.NewRecorder()
			h.handler.ServeHTTP(w, req)
			asked++
			if w.Code >= 500 || strings.Contains(w.Body.String(), foreignWord) {
				t.Errorf(
					"%s %s with %s: %d, tells of it: %v",
					r.Method,
					path,
					form.Encode(),
					w.Code,
					strings.Contains(w.Body.String(), foreignWord),
				)
			}
		}
	}
	if now := p.belongings("w2"); now != was {
		t.Errorf("what is theirs was\n%s\nand is\n%s", was, now)
	}
	if asked < 100*rounds {
		t.Errorf("only %d were asked", asked)
	}
}

// No route that changes anything answers a request that another site had a browser send.
func TestNoRequestsOfOtherSites(t *testing.T) {
	h := asking(t, begin(t))
	posts := 0
	for _, r := range h.routes {
		if r.Method != http.MethodPost {
			continue
		}
		posts++
		for _, headers := range []map[string]string{
			{"Origin": "https://elsewhere.example"}, {"Origin": "null"}, {"Sec-Fetch-Site": "cross-site"}, {"Sec-Fetch-Site": "same-site", "Origin": h.hosts.Public("skerry")},
			{"Origin": "http://app.localhost.elsewhere.example", "Referer": "http://app.localhost/"},
		} {
			req := httptest.NewRequest(r.Method, "http://app.localhost"+h.path(r), strings.NewReader("a=b"))
			req.Header.Set("Content-Type", "application/x-www-form-urlencoded")
			req.Header.Set("Cookie", h.cookie)
			for name, v := range headers {
				req.Header.Set(name, v)
			}
			w := httptest.NewRecorder()
			h.handler.ServeHTTP(w, req)
			if w.Code != http.StatusForbidden {
				t.Errorf("%s with %v: %d", r.Path, headers, w.Code)
			}
		}
	}
	if posts < 75 {
		t.Errorf("only %d routes", posts)
	}
}

// Whatever the host and the path are called, no file comes but what is published.
func TestHostsAndPaths(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	if status, _, _ := d.post(benchPath+"/publish", url.Values{}); status != http.StatusOK {
		t.Fatal(status)
	}
	secret := "root:x:0:0"
	if err := os.WriteFile(filepath.Join(p.siteDir, "secret.txt"), []byte(secret), 0o600); err != nil {
		t.Fatal(err)
	}
	handlers := map[string]http.Handler{"app": p.app.Config.Handler, "pages": p.pages.Config.Handler}
	base := p.hosts.Base
	hosts := []string{
		"skerry." + base, "SKERRY." + base, "skerry." + base + ".", ".skerry." + base, "skerry.." + base, "skerry--own." + base, "skerry--try." + base, "media." + base, "w1." + base,
		"../w1." + base, "skerry%00." + base, base, "localhost", "127.0.0.1", "[::1]:80", "", "skerry." + base + "@elsewhere.example", strings.Repeat("a", 300) + "." + base,
	}
	paths := []string{
		"/../secret.txt", "/..%2fsecret.txt", "/%2e%2e/secret.txt", "/%2e%2e%2fsecret.txt", "/..%5csecret.txt", "/....//secret.txt", "/assets/../../secret.txt",
		"/assets/%2e%2e/%2e%2e/secret.txt", "/assets/..%2f..%2fsecret.txt", "/contents/../release.json", "/release.json", "/assets/../release.json", "/media/../../../../etc/passwd",
		"/media/%2e%2e%2f%2e%2e%2fetc%2fpasswd", "/fonts/own/..%2f..%2f..%2fetc%2fpasswd", "/fonts/..%2f..%2fetc%2fpasswd", "/scripts/..%2f..%2fetc%2fpasswd",
		"/static/../../../etc/passwd", "/static/%2e%2e/%2e%2e/etc/passwd", "//etc/passwd", "/assets//etc/passwd",
	}
	for side, handler := range handlers {
		for _, host := range hosts {
			for _, path := range paths {
				u, err := url.Parse("http://x" + path)
				if err != nil {
					t.Fatal(err)
				}
				req := &http.Request{
					Method:     http.MethodGet,
					URL:        u,
					Host:       host,
					Header:     http.Header{},
					Body:       http.NoBody,
					RequestURI: path,
					RemoteAddr: "192.0.2.1:1",
					ProtoMajor: 1,
					ProtoMinor: 1,
				}
				w := httptest.NewRecorder()
				handler.ServeHTTP(w, req.WithContext(t.Context()))
				b, err := io.ReadAll(w.Result().Body)
				if err != nil {
					t.Fatal(err)
				}
				text := string(b)
				if w.Code >= 500 || strings.Contains(text, secret) || strings.Contains(text, `"pages":{`) ||
					strings.HasPrefix(w.Header().Get("Location"), "//") {
					t.Errorf(
						"%s at %q, %s: %d to %q, %.100s",
						side,
						host,
						path,
						w.Code,
						w.Header().Get("Location"),
						text,
					)
				}
				if side == "pages" && w.Header().Get("Set-Cookie") != "" {
					t.Errorf("%q, %s: a cookie", host, path)
				}
			}
		}
	}
}

// A word that is a command to a browser, a template, a spreadsheet or a database is a word on every
// screen of the application.
func TestHostileNamesOnScreens(t *testing.T) {
	p := begin(t)
	ctx := t.Context()
	d := p.as("designer@example.org")
	payloads := []string{
		`"><script>zq()</script>`, `'><img src=x onerror=zq()>`, `</title><script>zq()</script>`, `</script><script>zq()</script>`, `<svg onload=zq()>`, `{{zq}}`, `${zq()}`,
		`<!--zq`, `]]>zq`, "zq\u2028zq", `javascript:zq()`, `&lt;script&gt;zq`, `<iframe srcdoc="<script>zq()</script>">`, `'; DROP TABLE sites; --zq`,
	}
	env := edit.Env{Site: &doc.Site{House: doc.StandardHouse(), Zones: doc.StandardZones()}, NewID: store.NewID}
	for _, payload := range payloads {
		page, err := p.store.Pages.ByID(ctx, "w1", "p1")
		if err != nil {
			t.Fatal(err)
		}
		many := edit.Command{Op: edit.Many}
		for _, setting := range []string{"name", "title", "description"} {
			many.Parts = append(many.Parts, edit.Command{Op: "page.set", Setting: setting, Value: payload})
		}
		for _, s := range page.Doc.Sections {
			many.Parts = append(many.Parts, edit.Command{Op: "rename", Node: s.ID, Value: payload})
			for _, b := range s.Blocks {
				many.Parts = append(many.Parts, edit.Command{Op: "rename", Node: b.ID, Value: payload})
			}
		}
		if _, err := p.store.Pages.Edit(ctx, "p1", p.userID("designer@example.org"), page.Seq, many, func(d *doc.Page) (*edit.Result, error) { return edit.Apply(d, many, env) }); err != nil {
			t.Fatal(err)
		}
		if err := p.store.Sites.SetSettings(ctx, "w1", store.Settings{Name: payload, Language: "en"}); err != nil {
			t.Fatal(err)
		}
		for _, r := range p.server.Table() {
			if r.Method != http.MethodGet || r.Right == rights.None || r.Right == rights.Operate ||
				r.Right == rights.Account {
				continue
			}
			path := (&hostileAsker{studio: p}).path(
				r,
			) + "?" + url.Values{
				"q":      {payload},
				"name":   {payload},
				"title":  {payload},
				"select": {page.Doc.Sections[0].ID},
			}.Encode()
			status, text, head := d.get(path)
			if status >= 500 {
				t.Errorf("%s: %d", path, status)
			}
			if !strings.HasPrefix(head.Get("Content-Type"), "text/html") {
				continue
			}
			if bad := commands(text); bad != "" {
				t.Errorf("%q on %s: %s", payload, r.Path, bad)
			}
		}
	}
}
