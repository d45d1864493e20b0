package web

import (
	"net/http"
	"net/url"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/site"
)

// visit asks the origin of published pages.
func (p *studio) visit(method, path string, form url.Values) (int, string, http.Header) {
	p.t.Helper()
	r, err := http.NewRequest(method, p.hosts.Public("skerry")+path, strings.NewReader(form.Encode()))
	if err != nil {
		p.t.Fatal(err)
	}
	r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	r.Header.Set("Referer", p.hosts.Public("skerry")+"/fares/")
	return (&person{p, &http.Client{Transport: anywhere}}).do(r)
}

func TestSearchLooksThroughPublishedPages(t *testing.T) {
	p := begin(t)
	find := func(q string) string {
		t.Helper()
		status, text, _ := p.visit("GET", "/_search/skerry?q="+url.QueryEscape(q), nil)
		if status != http.StatusOK {
			t.Errorf("%q: %d", q, status)
		}
		return text
	}
	if text := find("worth knowing"); strings.Contains(text, "<li>") {
		t.Errorf("a page that isn't published is found: %s", text)
	}
	if status, text, _ := p.as("designer@example.org").post(benchPath+"/publish", url.Values{}); status != http.StatusOK {
		t.Fatalf("publishing: %d %s", status, text)
	}
	if text := find("WORTH   knowing"); !strings.Contains(text, `<a href="/">Home</a>`) {
		t.Errorf("it isn't found: %s", text)
	}
	// What is written or hidden since isn't for visitors, until it is published.
	d := p.as("designer@example.org")
	if status, text := d.edit(edit.Command{Op: "page.set", Setting: "description", Value: "A secretive draft"}); status != http.StatusOK {
		t.Fatalf("%d %s", status, text)
	}
	for _, s := range p.page.Sections {
		if status, text := d.edit(edit.Command{Op: "section.hide", Node: s.ID, Hide: true, Base: 1}); status != http.StatusOK {
			t.Fatalf("%d %s", status, text)
		}
	}
	if text := find("secretive"); strings.Contains(text, "<li>") {
		t.Errorf("a draft is found: %s", text)
	}
	if text := find("worth knowing"); !strings.Contains(text, "<li>") {
		t.Errorf("what is published isn't found any more: %s", text)
	}
	if status, _, _ := d.post(benchPath+"/publish", url.Values{}); status != http.StatusOK {
		t.Fatal(status)
	}
	if text := find("worth knowing"); strings.Contains(text, "<li>") {
		t.Errorf("a hidden section is found: %s", text)
	}
	if text := find("secretive"); !strings.Contains(text, "<li>") {
		t.Errorf("the description isn't found: %s", text)
	}
	if text := find(`<script>alert(1)</script>`); strings.Contains(text, "<script>") || strings.Contains(text, "<li>") {
		t.Errorf("what was asked comes back as markup: %s", text)
	}
	if text := find("blocks"); strings.Contains(text, "<li>") {
		t.Errorf("it looks through more than words: %s", text)
	}
}

// blockOf is the id of a block of a kind on the page.
func (p *studio) blockOf(kind doc.Kind) (id string) {
	p.t.Helper()
	page, err := p.store.Pages.At(p.t.Context(), "w1", "")
	if err != nil {
		p.t.Fatal(err)
	}
	for _, s := range page.Doc.Sections {
		for _, b := range s.Blocks {
			if b.Kind == kind {
				return b.ID
			}
		}
	}
	p.t.Fatal("there is no such block")
	return ""
}

// Own HTML is published as a page that no other page's origin is: it can run a script
// and reach nothing.
func TestOwnHTMLKeepsToItself(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	section := p.page.Sections[0].ID
	if status, text := d.edit(edit.Command{Op: "block.add", Node: section, Zone: "desktop", Kind: doc.OwnHTML}); status != http.StatusOK {
		t.Fatalf("%d %s", status, text)
	}
	if status, text, _ := d.post(benchPath+"/publish", url.Values{}); status != http.StatusOK {
		t.Fatalf("publishing: %d %s", status, text)
	}
	html, err := site.Read(os.DirFS(filepath.Join(p.siteDir, "w1")), "")
	if err != nil {
		t.Fatal(err)
	}
	_, after, ok := strings.Cut(string(html), `src="`+p.hosts.Own("skerry")+"/"+site.EmbedPrefix)
	if !ok || !strings.Contains(string(html), `sandbox="allow-scripts"`) {
		t.Fatalf("no frame in\n%s", html)
	}
	name, _, _ := strings.Cut(after, `"`)
	file := site.EmbedPrefix + name
	q := p.as("")
	sandbox := "sandbox allow-scripts; frame-ancestors " + p.hosts.Public("skerry") + " " + p.hosts.Draft("skerry")
	status, body, h := q.get(p.hosts.Own("skerry") + "/" + file)
	if csp := h.Get("Content-Security-Policy"); status != http.StatusOK || csp != sandbox ||
		!strings.Contains(body, "Your own markup goes here") {
		t.Errorf("%d %q %s", status, csp, body)
	}
	// The page's frames may show that and nothing else, also at a domain of the site's own.
	if _, _, h := p.visit("GET", "/", nil); !strings.Contains(
		h.Get("Content-Security-Policy"),
		"frame-src "+p.hosts.Own("skerry")+";",
	) {
		t.Errorf("frames on the page: %s", h.Get("Content-Security-Policy"))
	}
	if _, _, h := p.visit("GET", "/nowhere/", nil); !strings.Contains(
		h.Get("Content-Security-Policy"),
		"frame-src 'none';",
	) {
		t.Errorf("frames on a page without: %s", h.Get("Content-Security-Policy"))
	}
	if err := p.store.Hosts.AddDomain(t.Context(), "w1", "www.skerry.example"); err != nil {
		t.Fatal(err)
	}
	if _, err := p.store.Hosts.ProveDomain(t.Context(), "w1", "www.skerry.example", true); err != nil {
		t.Fatal(err)
	}
	if _, _, h := q.get(p.hosts.Own("skerry") + "/" + file); h.Get(
		"Content-Security-Policy",
	) != sandbox+" http://www.skerry.example" {
		t.Errorf("at the site's own domain: %s", h.Get("Content-Security-Policy"))
	}
	if err := p.store.Hosts.DropDomain(t.Context(), "w1", "www.skerry.example"); err != nil {
		t.Fatal(err)
	}
	// At the site's own host it only leads there, and nothing else is at that host.
	if status, _, h := q.get(p.hosts.Public("skerry") + "/assets/" + file); status != http.StatusMovedPermanently ||
		h.Get("Location") != p.hosts.Own("skerry")+"/"+file {
		t.Errorf("at the site's host: %d %s", status, h.Get("Location"))
	}
	for _, path := range []string{"/", "/assets/" + file, "/index.html", "/_search/skerry?q=x"} {
		if status, _, _ := q.get(p.hosts.Own("skerry") + path); status != http.StatusNotFound {
			t.Errorf("%s at the host of own HTML: %d", path, status)
		}
	}
	// A preview shows it in the same way.
	_, _, h = d.post(benchPath+"/try", nil)
	_, preview, _ := q.get(h.Get("Location"))
	address := regexp.MustCompile(`src="(http[^"]+/own-[^"]+)"`).FindStringSubmatch(preview)
	if address == nil {
		t.Fatalf("no frame in the preview: %s", preview)
	}
	status, body, h = q.get(address[1])
	if csp := h.Get("Content-Security-Policy"); status != http.StatusOK || csp != sandbox ||
		!strings.Contains(body, "Your own markup goes here") {
		t.Errorf("in the preview: %d %q", status, csp)
	}
	if status, _, _ := q.get(strings.Replace(address[1], "--own", "--try", 1)); status != http.StatusNotFound {
		t.Errorf("own HTML at the preview's host: %d", status)
	}
	// A writer can't change it, alone or among other things.
	block := p.blockOf(doc.OwnHTML)
	change := edit.Command{Op: "block.content", Node: block, Setting: "html", Value: "<script>1</script>"}
	w := p.as("writer@example.org")
	for _, c := range []edit.Command{change, {Op: edit.Many, Parts: []edit.Command{change}}} {
		if status, text := w.edit(c); status != http.StatusForbidden {
			t.Errorf("a writer sets own HTML: %d %.200s", status, text)
		}
	}
	if status, text := w.edit(edit.Command{Op: "block.content", Node: block, Setting: "title", Value: "Tides", Base: 1}); status != http.StatusOK {
		t.Errorf("a writer can't name it: %d %.200s", status, text)
	}
}

func TestUploadsAsTheyCameAreNotServed(t *testing.T) {
	p := begin(t)
	if status, _, _ := p.visit("GET", "/media/f123-original", nil); status != http.StatusNotFound {
		t.Errorf("an original answers %d", status)
	}
}
