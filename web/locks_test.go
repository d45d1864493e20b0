package web

import (
	"fmt"
	"maps"
	"net/http"
	"net/url"
	"slices"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/tree"
)

// Nothing of a page with a password gets out: not by search, lists, the site map, an export or
// what is kept for them; from the moment the password is set, and not before it is the one that
// was entered.
func TestLockedPagesSayNothing(t *testing.T) {
	p := begin(t)
	ctx := t.Context()
	d := p.as("designer@example.org")
	const secret = "quillwort"
	page := &doc.Page{
		ID:          "p2",
		Name:        "Berths",
		Title:       "Berths",
		Description: secret + " of what is asked",
		Sections: []*doc.Section{{ID: "s2", Blocks: []*doc.Block{
			{ID: "b2", Kind: doc.Heading, Content: doc.Content{Words: doc.PlainWords("The " + secret + " list")}},
		}}},
	}
	p.put(page, tree.Page{ID: "p2", Name: "Berths"})
	if status, text := d.edit(edit.Command{Op: "block.add", Node: p.page.Sections[0].ID, Zone: "desktop", Kind: doc.PageList}); status != http.StatusOK {
		t.Fatalf("%d %s", status, text)
	}
	publish := func() {
		t.Helper()
		if status, text, _ := d.post("/sites/skerry/publish", url.Values{"id": {"p1", "p2"}}); status != http.StatusSeeOther {
			t.Fatalf("%d %s", status, text)
		}
	}
	lock := func(password string) {
		t.Helper()
		form := url.Values{
			"name":        {"Berths"},
			"title":       {"Berths"},
			"description": {page.Description},
			"segment":     {"berths"},
			"in-menu":     {"1"},
			"page":        {"p2"},
		}
		if password != "" {
			form.Set("locked", "1")
			form.Set("password", password)
		}
		if status, text, _ := d.post("/sites/skerry/pages/settings", form); status != http.StatusSeeOther {
			t.Fatalf("%d %s", status, text)
		}
	}
	// says gives where a visitor without the password reads of it.
	says := func() (at []string) {
		t.Helper()
		for _, path := range []string{"/", "/berths/", "/sitemap.xml", "/_search/skerry?q=" + secret, "/_search/skerry?q=berths", "/nowhere/", "/robots.txt"} {
			_, text, h := p.visit("GET", path, nil)
			said := strings.Contains(text, secret) || path == "/sitemap.xml" && strings.Contains(text, "berths")
			if strings.HasPrefix(path, "/_search") { // which says what was asked
				said = strings.Contains(text, "<li>")
			}
			if said {
				at = append(at, path)
			}
			if path == "/berths/" && !said && !strings.Contains(h.Get("Cache-Control"), "no-store") {
				t.Errorf("the question for the password may be kept: %s", h.Get("Cache-Control"))
			}
		}
		_, archive, _ := d.get("/sites/skerry/export")
		parts := unzipped(t, archive)
		for _, name := range slices.Sorted(maps.Keys(parts)) {
			if strings.Contains(parts[name], secret) || name == "berths/index.html" {
				at = append(at, "export "+name)
			}
		}
		var kept int
		if err := p.store.DB().QueryRowContext(ctx, `SELECT count(*) FROM published WHERE concat(name, description, words) ~ 'quillwort'`).Scan(&kept); err != nil {
			t.Fatal(err)
		}
		if kept > 0 {
			at = append(at, "the database")
		}
		return at
	}
	publish()
	if at := fmt.Sprint(says()); at != "[/ /berths/ /sitemap.xml /_search/skerry?q=quillwort /_search/skerry?q=berths export berths/index.html export index.html the database]" {
		t.Fatalf("open, it is said at %s", at)
	}
	lock("first password")
	if at := says(); at != nil {
		t.Errorf("right after it was locked it is said at %s", at)
	}
	publish()
	if at := says(); at != nil {
		t.Errorf("published with a password it is said at %s", at)
	}
	// Whoever has the password reads it, until there is another.
	v := p.as("")
	opens := func(password string) bool {
		t.Helper()
		r, err := http.NewRequest(
			"POST",
			p.hosts.Public("skerry")+"/berths/",
			strings.NewReader(url.Values{"password": {password}}.Encode()),
		)
		if err != nil {
			t.Fatal(err)
		}
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		v.do(r)
		_, text, _ := v.get(p.hosts.Public("skerry") + "/berths/")
		return strings.Contains(text, secret)
	}
	if opens("wrong password") || !opens("first password") {
		t.Error("the password doesn't open the page, or another does")
	}
	lock("second password")
	if _, text, _ := v.get(p.hosts.Public("skerry") + "/berths/"); strings.Contains(text, secret) {
		t.Error("the first password still opens it")
	}
	if opens("first password") || !opens("second password") {
		t.Error("the new password isn't the one that opens it")
	}
	// Going back to when it was open doesn't open it.
	if status, _, _ := d.post("/sites/skerry/publish/back", url.Values{"number": {"1"}}); status != http.StatusSeeOther {
		t.Fatal(status)
	}
	if at := says(); at != nil {
		t.Errorf("gone back, it is said at %s", at)
	}
	lock("")
	publish()
	if at := says(); len(at) != 8 {
		t.Errorf("open again, it is said at %s", at)
	}
}

// put adds a page to the site.
func (p *studio) put(page *doc.Page, at tree.Page) {
	p.t.Helper()
	if err := p.store.Tree.Put(p.t.Context(), "w1", page, func(t tree.Tree) (tree.Tree, error) { return t.Add(at, "") }); err != nil {
		p.t.Fatal(err)
	}
}
