package web

import (
	"net/http"
	"net/url"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/tree"
	"openplot/site"
)

// bar puts a top bar on the home page and publishes it.
func (p *studio) bar(d *person) {
	p.t.Helper()
	if status, body := d.edit(edit.Command{Op: "section.add", Preset: "bar"}); status != http.StatusOK {
		p.t.Fatalf("a bar: %d %.300s", status, body)
	}
	if status, body, _ := d.post(benchPath+"/publish", nil); status != http.StatusOK {
		p.t.Fatalf("publishing: %d %.300s", status, body)
	}
}

// What visitors are told beside pages stands between the site's bars, in its house style; what they
// sent comes back as text, and the marks of the frame aren't to be seen.
func TestToldInTheSitesLook(t *testing.T) {
	p := begin(t)
	p.bar(p.as("designer@example.org"))
	v := p.as("")
	live := p.hosts.Public("skerry")
	for _, q := range []string{"worth", "<script>alert(1)</script>", site.FrameWords, site.FrameTitle, "<p>" + site.FrameWords + "</p>"} {
		status, body, h := v.get(live + "/_search/skerry?q=" + url.QueryEscape(q))
		if status != http.StatusOK || !strings.Contains(body, "<header") || !strings.Contains(body, `class="said"`) {
			t.Errorf("%q isn't answered in the site's look: %d %.200s", q, status, body)
		}
		if strings.Contains(body, "<script>alert") || strings.Count(body, "<h1") != 1 ||
			strings.Count(body, "</main>") != 1 {
			t.Errorf("%q comes back as markup: %s", q, body)
		}
		if policy := h.Get("Content-Security-Policy"); !strings.Contains(policy, "'sha256-") ||
			strings.Contains(
				policy,
				"unsafe",
			) || h.Get("X-Robots-Tag") != "noindex" || h.Get("Cache-Control") != "no-store" {
			t.Errorf("%q is answered with %v", q, h)
		}
	}
	if _, body, _ := v.get(live + "/_search/skerry?q=worth"); strings.Contains(body, site.FrameTitle) ||
		strings.Contains(body, site.FrameWords) {
		t.Error("the marks of the frame are seen")
	}
	if _, body, _ := v.get(live + "/nowhere"); !strings.Contains(body, "<header") ||
		!strings.Contains(body, "This page isn’t here") {
		t.Errorf("what isn't there isn't told in the site's look: %.300s", body)
	}
	if status, css, h := v.get(live + "/_said.css"); status != http.StatusOK ||
		!strings.HasPrefix(h.Get("Content-Type"), "text/css") ||
		!strings.Contains(css, ".said form") {
		t.Errorf("its style sheet: %d %v", status, h)
	}
}

// A site is taken offline and brought back in one act each, by who may publish; its drafts, and what
// the message needs, are there all the while.
func TestOfflineAndBack(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	p.bar(d)
	v := p.as("")
	live := p.hosts.Public("skerry")
	const offline = "/sites/skerry/publish/offline"
	if status, _, _ := p.as("writer@example.org").post(offline, url.Values{"offline": {"yes"}}); status != http.StatusForbidden {
		t.Errorf("a writer takes the site offline: %d", status)
	}
	if status, body, _ := d.post(offline, url.Values{"offline": {"yes"}, "words": {strings.Repeat("x", 401)}}); status != http.StatusUnprocessableEntity ||
		!tellsOf(body, "What visitors read meanwhile") {
		t.Errorf("a novel: %d", status)
	}
	if status, _, _ := v.get(live + "/"); status != http.StatusOK {
		t.Fatalf("it is offline by itself: %d", status)
	}
	if status, _, _ := d.post(offline, url.Values{"offline": {"yes"}, "words": {"Back on <b>Monday</b>"}}); status != http.StatusSeeOther {
		t.Fatalf("taking it offline: %d", status)
	}
	for _, path := range []string{"/", "/nowhere", "/robots.txt", "/sitemap.xml", "/_search/skerry?q=worth"} {
		status, body, h := v.get(live + path)
		if status != http.StatusServiceUnavailable || h.Get("Retry-After") == "" ||
			!strings.Contains(body, "Back on &lt;b&gt;Monday&lt;/b&gt;") || !strings.Contains(body, "<header") ||
			strings.Contains(body, "worth knowing") {
			t.Errorf("%s of a site that is offline: %d %.200s", path, status, body)
		}
	}
	form, err := http.NewRequest(http.MethodPost, live+"/_forms/skerry/b1", strings.NewReader("a=b"))
	if err != nil {
		t.Fatal(err)
	}
	if status, _, _ := v.do(form); status != http.StatusServiceUnavailable {
		t.Errorf("a form of it: %d", status)
	}
	if status, _, _ := v.get(live + "/_said.css"); status != http.StatusOK {
		t.Errorf("its style sheet: %d", status)
	}
	if _, _, h := d.post(benchPath+"/try", nil); h.Get("Location") == "" {
		t.Error("its draft isn't shown")
	} else if status, _, _ := v.get(h.Get("Location")); status != http.StatusOK {
		t.Errorf("its draft: %d", status)
	}
	if _, body, _ := d.get("/sites/skerry"); !strings.Contains(body, "site-offline") {
		t.Error("its screens don't say that it is offline")
	}
	if status, body, _ := d.post(benchPath+"/publish", nil); status != http.StatusOK {
		t.Errorf("publishing meanwhile: %d %.200s", status, body)
	}
	if status, _, _ := d.post(offline, nil); status != http.StatusSeeOther {
		t.Fatalf("bringing it back: %d", status)
	}
	if status, body, _ := v.get(live + "/"); status != http.StatusOK || !strings.Contains(body, "worth knowing") {
		t.Errorf("it is back: %d", status)
	}
}

// What visitors are told says nothing that isn't published: neither what was written into the bar since,
// when another page is published, nor anything of a home page that nobody has published.
func TestToldOfWhatIsPublishedAlone(t *testing.T) {
	p := begin(t)
	p.put(&doc.Page{ID: "pF", Name: "Fares", Title: "Fares"}, tree.Page{ID: "pF", Name: "Fares"})
	d, v := p.as("designer@example.org"), p.as("")
	live := p.hosts.Public("skerry")
	told := func() string {
		t.Helper()
		if status, body, _ := d.post("/sites/skerry/pages/fares/publish", nil); status != http.StatusOK {
			t.Fatalf("publishing another page: %d %.200s", status, body)
		}
		_, missing, _ := v.get(live + "/nowhere")
		_, search, _ := v.get(live + "/_search/skerry?q=worth")
		if !strings.Contains(missing, "This page isn’t here") || !strings.Contains(search, `class="said"`) {
			t.Fatalf("nothing is told: %.200s %.200s", missing, search)
		}
		return missing + search
	}
	_, body := d.edit(edit.Command{Op: "section.add", Preset: "bar"})
	if strings.Contains(told(), "<header") {
		t.Error("the bar of a home page that isn't published is shown")
	}
	d.post(benchPath+"/publish", nil)
	if !strings.Contains(told(), "<header") {
		t.Error("the bar of the published home page isn't shown")
	}
	state := stateOf(t, body)
	logo := state.Places[state.Select][0].ID
	if status, body := d.edit(edit.Command{Op: "block.write", Node: logo, Value: "Secretly renamed", Base: state.Seq}); status != http.StatusOK {
		t.Fatalf("writing into the bar: %d %.200s", status, body)
	}
	if strings.Contains(told(), "Secretly renamed") {
		t.Error("what was written into the bar since is shown")
	}
	d.post(benchPath+"/publish", nil)
	if !strings.Contains(told(), "Secretly renamed") {
		t.Error("what was published of the bar isn't shown")
	}
}
