package web

import (
	"net/http"
	"net/url"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/ready"
	"openplot/core/tree"
)

// A page is made of ready-made sections; what was entered stays when it is refused.
func TestNewPages(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	for _, bad := range []struct{ name, slug, ready, problem string }{
		{name: "", slug: "fares", ready: "prices", problem: "Name"},
		{name: "Fares", slug: "Fares & more", ready: "prices", problem: "Address"},
		{name: "Fares", slug: "-fares", ready: "prices", problem: "Address"},
		{name: "Fares", slug: strings.Repeat("x", 61), ready: "prices", problem: "Address"},
		{name: "Fares", slug: "home", ready: "prices", problem: "Address"},
		{name: "Fares", slug: "fares", ready: "castle", problem: "Page"},
		{name: strings.Repeat("x", 500), slug: "fares", ready: "prices", problem: "Name"},
	} {
		status, body, _ := d.post(
			"/sites/skerry/pages",
			url.Values{"name": {bad.name}, "slug": {bad.slug}, "ready": {bad.ready}},
		)
		if status != http.StatusUnprocessableEntity || !tellsOf(body, bad.problem) {
			t.Errorf("%.20q at %.20q from %s: %d", bad.name, bad.slug, bad.ready, status)
		}
		if bad.slug == "Fares & more" && !strings.Contains(body, `value="Fares &amp; more"`) {
			t.Error("what was entered is lost")
		}
	}
	if status, body, _ := d.get("/sites/skerry/slug?name=%C3%9Cber+uns&slug="); status != http.StatusOK ||
		!strings.Contains(
			body, `placeholder="uber-uns"`,
		) {
		t.Errorf("an address from a name: %d %s", status, body)
	}
	if status, body, _ := d.get("/sites/skerry/slug?name=Fares&slug=mine"); status != http.StatusOK ||
		!strings.Contains(body, `value="mine"`) {
		t.Errorf("what was written is lost: %d %s", status, body)
	}
	if status, _, h := d.post(
		"/sites/skerry/pages",
		url.Values{"name": {"Über uns"}, "ready": {"blank"}},
	); status != http.StatusSeeOther || h.Get("Location") != "/sites/skerry/pages/uber-uns/bench" {
		t.Errorf("a page without an address: %d to %s", status, h.Get("Location"))
	}
	for i, r := range ready.Pages {
		status, _, h := d.post(
			"/sites/skerry/pages",
			url.Values{"name": {r.Name}, "slug": {"page-" + r.ID}, "ready": {r.ID}},
		)
		if want := "/sites/skerry/pages/page-" + r.ID + "/bench"; status != http.StatusSeeOther ||
			h.Get("Location") != want {
			t.Fatalf("%s: %d to %s", r.ID, status, h.Get("Location"))
		}
		page, err := p.store.Pages.At(t.Context(), "w1", "page-"+r.ID)
		if err != nil || len(page.Doc.Sections) != len(r.Sections) || page.Name != r.Name {
			t.Errorf("%s: %v", r.ID, err)
		}
		if status, _, _ := d.get("/sites/skerry/pages/page-" + r.ID + "/bench"); status != http.StatusOK {
			t.Errorf("%s on the Bench: %d", r.ID, status)
		}
		if infos, _ := p.store.Pages.List(t.Context(), "w1"); len(infos) != i+3 {
			t.Errorf("%d pages", len(infos))
		}
	}
	if status, body, _ := d.post(
		"/sites/skerry/pages",
		url.Values{"name": {"Again"}, "slug": {"page-home"}, "ready": {"blank"}},
	); status != http.StatusUnprocessableEntity || !strings.Contains(body, "Home page") {
		t.Errorf("an address twice: %d", status)
	}
}

// What a site says of itself is entered once and stands on every page that shows it.
func TestSiteFacts(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	if status, body := d.edit(edit.Command{Op: "section.add", Preset: "contact-map"}); status != http.StatusOK {
		t.Fatal(status, body)
	}
	entered := url.Values{
		"name":    {"Skerry"},
		"address": {"1 North Steps\nSkerry Harbour"},
		"hours":   {"Every day"},
		"phone":   {"555 0142"},
		"mail":    {"office at skerry"},
	}
	status, body, _ := d.post("/sites/skerry/settings", entered)
	if status != http.StatusUnprocessableEntity || !strings.Contains(body, "office at skerry") ||
		!strings.Contains(body, "1 North Steps") {
		t.Errorf("a mail address without an @: %d", status)
	}
	entered.Set("mail", "office@skerry.example")
	if status, _, _ := d.post("/sites/skerry/settings", entered); status != http.StatusSeeOther {
		t.Fatal(status)
	}
	_, canvas, _ := d.get(benchPath + "/canvas")
	for _, want := range []string{"1 North Steps", "Skerry Harbour", "Every day", `href="tel:5550142"`, `href="mailto:office@skerry.example"`} {
		if !strings.Contains(canvas, want) {
			t.Errorf("the page lacks %s", want)
		}
	}
	for field, long := range map[string]string{
		"address": strings.Repeat("x\n", 300),
		"hours":   strings.Repeat("x", 5000),
		"phone":   strings.Repeat("5", 201),
		"mail":    "a@" + strings.Repeat("b", 300) + ".example",
	} {
		bad := url.Values{"name": {"Skerry"}, "address": {"1"}, "hours": {"2"}, "phone": {"3"}, "mail": {"a@b.example"}}
		bad.Set(field, long)
		if status, _, _ := d.post("/sites/skerry/settings", bad); status != http.StatusUnprocessableEntity {
			t.Errorf("a long %s: %d", field, status)
		}
	}
	st, err := p.store.Sites.BySlug(t.Context(), "skerry")
	if err != nil || st.Facts.Phone != "555 0142" {
		t.Errorf("%+v, %v", st.Facts, err)
	}
}

// What ships for the browser is served, cached, and nothing else is.
func TestStaticFiles(t *testing.T) {
	p := begin(t)
	q := p.as("")
	_, body, _ := q.get("/sign-in")
	_, address, ok := strings.Cut(body, `rel="stylesheet" href="`)
	address, _, _ = strings.Cut(address, `"`)
	if !ok || !strings.HasPrefix(address, "/static/") {
		t.Fatalf("no style sheet in %.300s", body)
	}
	for path, kind := range map[string]string{
		address: "text/css", "/static/bench/bench.js": "javascript", "/static/img/mark-light.svg": "image/svg+xml",
		"/fonts/hanken-grotesk-latin-wght-normal.woff2": "font/woff2",
	} {
		status, _, h := q.get(path)
		if status != http.StatusOK || !strings.Contains(
			h.Get("Content-Type"), kind,
		) || h.Get("Cache-Control") == "" || h.Get("X-Content-Type-Options") != "nosniff" {
			t.Errorf("%s: %d %s, %q", path, status, h.Get("Content-Type"), h.Get("Cache-Control"))
		}
	}
	if _, _, h := q.get(address); !strings.Contains(h.Get("Cache-Control"), "immutable") {
		t.Errorf("%s may change: %q", address, h.Get("Cache-Control"))
	}
	if _, _, h := q.get("/static/bench/bench.js"); h.Get("Cache-Control") != "no-cache" {
		t.Errorf("without a hash: %q", h.Get("Cache-Control"))
	}
	for _, path := range []string{
		"/static/", "/static/bench", "/static/bench/none.js", "/static/../server.go", "/static/%2e%2e/server.go",
		"/fonts/none.woff2", "/fonts/..%2fgo.mod",
	} {
		if status, body, _ := q.get(path); status == http.StatusOK {
			t.Errorf("%s is served: %.80s", path, body)
		}
	}
	if status, css, h := p.as("").get(p.hosts.Public("skerry") + "/_visitors.css"); status != http.StatusOK ||
		!strings.HasPrefix(
			h.Get("Content-Type"), "text/css",
		) ||
		!strings.Contains(css, "main{") {
		t.Errorf("visitors' style sheet: %d", status)
	}
	for name, want := range map[string]int{"tabs.js": http.StatusOK, "none.js": http.StatusNotFound, "..%2fsite.go": http.StatusNotFound} {
		if status, _, _ := q.get(p.hosts.Draft("skerry") + "/scripts/" + name); status != want {
			t.Errorf("%s: %d", name, status)
		}
	}
}

// Ready-made pages are drawn from the layout core, in the words of the site's business.
func TestReadyPagesAreDrawn(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	status, body, _ := d.get("/sites/skerry/ready?ready=contact")
	if status != http.StatusOK || strings.Count(body, `<svg class="drawing"`) != len(ready.Pages) {
		t.Errorf(
			"%d: %d are drawn, there are %d",
			status,
			strings.Count(body, `<svg class="drawing"`),
			len(ready.Pages),
		)
	}
	if !strings.Contains(body, `value="contact" checked`) || !strings.Contains(body, "/scenes/") {
		t.Error("the chosen one isn't chosen, or no scene stands in")
	}
}

// The first steps of a site tick when they were truly done, and none of them by anything else; they
// can be hidden, and go when all are.
func TestFirstStepsTick(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	ticked := func() (done int) {
		t.Helper()
		status, body, _ := d.get("/sites/skerry")
		if status != http.StatusOK {
			t.Fatalf("pages: %d", status)
		}
		if strings.Count(body, `class="first-step`) < 4 { // the list and its three
			return -1
		}
		return strings.Count(body, `class="first-step done"`)
	}
	heading := ""
	for _, sec := range p.page.Sections {
		for _, b := range sec.Blocks {
			if b.Kind == doc.Heading && heading == "" {
				heading = b.ID
			}
		}
	}
	d.get(benchPath + "/bench")
	d.get(benchPath + "/parts?width=800")
	d.edit(edit.Command{Op: "set", Node: heading, Setting: "text-align", Value: "center"})
	if n := ticked(); n != 0 {
		t.Errorf("%d steps are done by looking and aligning", n)
	}
	if status, body := d.edit(edit.Command{Op: "block.write", Node: heading, Value: "Boats"}); status != http.StatusOK {
		t.Fatalf("writing: %d %s", status, body)
	}
	if n := ticked(); n != 1 {
		t.Errorf("%d steps are done after writing", n)
	}
	d.get(benchPath + "/parts?width=375")
	if n := ticked(); n != 2 {
		t.Errorf("%d steps are done after looking at 375 px", n)
	}
	d.post(benchPath+"/publish", nil)
	if n := ticked(); n != -1 {
		t.Errorf("%d steps are shown once all are done", n)
	}
}

// A new page can begin as one of the site's: with a name, a title and an address of its own, where it
// is put, and without what is said of the other one. Pages of other sites aren't to be had.
func TestNewPagesLikeAnother(t *testing.T) {
	p := begin(t)
	p.put(&doc.Page{
		ID: "pN", Name: "May", Title: "May on the sound", Description: "What was in May",
		Sections: []*doc.Section{{ID: "s1", Name: "News", Blocks: []*doc.Block{}}},
	}, tree.Page{ID: "pN", Name: "May"})
	if err := p.store.Sites.Add(t.Context(), &doc.Site{ID: "w2", Slug: "other", Name: "Other", House: doc.StandardHouse(), Zones: doc.StandardZones()}); err != nil {
		t.Fatal(err)
	}
	if err := p.store.Pages.Add(t.Context(), "w2", "", 0, &doc.Page{ID: "pO", Name: "Secret", Title: "Secret"}); err != nil {
		t.Fatal(err)
	}
	d := p.as("designer@example.org")
	if _, body, _ := d.get("/sites/skerry/ready"); !strings.Contains(body, `value="page:pN"`) ||
		strings.Contains(body, "Secret") {
		t.Errorf("the pages to begin as are others: %.200s", body)
	}
	status, _, h := d.post("/sites/skerry/pages", url.Values{"name": {"June"}, "ready": {"page:pN"}, "parent": {"pN"}})
	if status != http.StatusSeeOther || h.Get("Location") != "/sites/skerry/pages/may.june/bench" {
		t.Fatalf("a page like another: %d to %s", status, h.Get("Location"))
	}
	made, err := p.store.Pages.At(t.Context(), "w1", "may/june")
	if err != nil {
		t.Fatal(err)
	}
	if made.Doc.Name != "June" || made.Doc.Title != "June on the sound" || made.Doc.Description != "" ||
		len(made.Doc.Sections) != 1 {
		t.Errorf("the page like another is %+v", made.Doc)
	}
	for _, bad := range []url.Values{
		{"name": {"June"}, "ready": {"page:pO"}}, {"name": {"June"}, "ready": {"page:"}},
		{"name": {" "}, "ready": {"page:pN"}},
	} {
		if status, body, _ := d.post("/sites/skerry/pages", bad); status != http.StatusUnprocessableEntity ||
			strings.Contains(body, "Secret") {
			t.Errorf("%v: %d", bad, status)
		}
	}
}

// A new page of whatever kind gets the bars that the home page shares, where it isn't asked to be bare.
func TestNewPagesGetTheSitesBars(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	shared := map[string]string{} // by preset
	last := ""
	for _, sec := range p.page.Sections {
		last = sec.ID
	}
	for preset, after := range map[string]string{"bar": "", "footer": last} {
		status, body := d.edit(edit.Command{Op: "section.add", Preset: preset, After: after})
		if status != http.StatusOK {
			t.Fatalf("%s: %d %s", preset, status, body)
		}
		shared[preset] = stateOf(t, body).Select
		if status, body := d.edit(edit.Command{Op: "section.share", Node: shared[preset], Base: stateOf(t, body).Seq}); status != http.StatusOK {
			t.Fatalf("sharing: %d %s", status, body)
		}
	}
	for _, c := range []struct {
		name, bars string
		want       bool
	}{{"With", "1", true}, {"Without", "", false}} {
		d.post("/sites/skerry/pages", url.Values{"name": {c.name}, "ready": {"blank"}, "bars": {c.bars}})
		made, err := p.store.Pages.At(t.Context(), "w1", strings.ToLower(c.name))
		if err != nil {
			t.Fatal(err)
		}
		n := len(made.Doc.Sections)
		if got := n == 3 && made.Doc.Sections[0].ID == shared["bar"] && made.Doc.Sections[2].ID == shared["footer"]; got != c.want {
			t.Errorf("%s has %d sections, with the bars: %v", c.name, n, got)
		}
	}
}

// Settings are kept as they are changed, and the answer has how the site looks elsewhere with them; what
// can't be kept is told, and nothing of it is.
func TestSettingsAreKeptInPlace(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	ask := func(form url.Values) (int, string) {
		t.Helper()
		status, body, _ := d.part("/sites/skerry/settings", form)
		return status, body
	}
	status, body := ask(
		url.Values{"name": {"Skerry & Sound"}, "open-Monday": {"9–17"}, "icon-from": {"letter"}, "icon-letter": {"Q"}},
	)
	for _, want := range []string{"Kept.", `role="status"`, "Skerry &amp; Sound", `data-day="Monday"`, `<rect x="540" y="5" width="480"`} {
		if status != http.StatusOK || !strings.Contains(oneLine(body), want) {
			t.Errorf("what was kept is answered with %d, without %s: %.300s", status, want, body)
		}
	}
	status, body = ask(url.Values{"name": {"Another"}, "open-Monday": {"noonish"}})
	if status != http.StatusOK || !strings.Contains(body, `role="alert"`) || !strings.Contains(body, "Monday") {
		t.Errorf("hours that can't be: %d %.300s", status, body)
	}
	st, err := p.store.Sites.ByID(t.Context(), "w1")
	if err != nil || st.Name != "Skerry & Sound" || st.Icon.Letter != "Q" || st.Facts.HoursOf("Monday") == "" {
		t.Errorf("%+v, %v", st, err)
	}
}
