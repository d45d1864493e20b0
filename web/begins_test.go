package web

import (
	"net/http"
	"net/url"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/tree"
	"openplot/store"
)

// A page is kept to begin from: on its site for everybody who composes there, and on all sites of whoever
// keeps it so, with its pictures brought along; nobody else gets it.
func TestPagesAreKeptToBeginFrom(t *testing.T) {
	p := begin(t)
	d := p.owned()
	ctx := t.Context()
	kept(t, d, "boat.png", halves(t, 600, 400))
	boat := p.media()[0].ID
	if status, body := d.edit(edit.Command{Op: "section.picture", Node: p.page.Sections[0].ID, Value: boat}); status != http.StatusOK {
		t.Fatal(status, body)
	}
	if status, _, _ := d.post("/new", url.Values{"name": {"Holm"}, "from": {"blank"}}); status != http.StatusSeeOther {
		t.Fatal(status)
	}
	offered := func(q *person, site string) bool {
		_, text, _ := q.get("/sites/" + site + "/ready")
		return strings.Contains(text, "Kept to begin from")
	}
	if offered(d, "skerry") || offered(d, "holm") {
		t.Error("a page is offered that nobody keeps so")
	}
	set := func(how string, want int) {
		t.Helper()
		if status, _, _ := d.post("/sites/skerry/pages/home/begins", url.Values{"begins": {how}}); status != want {
			t.Errorf("%q: %d", how, status)
		}
	}
	set("everywhere", http.StatusUnprocessableEntity)
	set("site", http.StatusSeeOther)
	if !offered(d, "skerry") || offered(d, "holm") {
		t.Error("what is kept for a site isn't offered there alone")
	}
	home := "page:" + p.page.ID
	if status, body, _ := d.post("/sites/holm/pages", url.Values{"name": {"Taken"}, "ready": {home}}); status != http.StatusUnprocessableEntity ||
		!tellsOf(body, "Page") {
		t.Errorf("another site's page that isn't offered: %d", status)
	}
	set("all", http.StatusSeeOther)
	if !offered(d, "holm") {
		t.Error("what is kept for all sites isn't offered on another")
	}
	if status, body, _ := d.post("/sites/holm/pages", url.Values{"name": {"Landing"}, "ready": {home}}); status != http.StatusSeeOther {
		t.Fatalf("%d %.300s", status, body)
	}
	holm, err := p.store.Sites.BySlug(ctx, "holm")
	if err != nil {
		t.Fatal(err)
	}
	made, err := p.store.Pages.At(ctx, holm.ID, "landing")
	if err != nil {
		t.Fatal(err)
	}
	brought, err := p.store.Media.List(ctx, holm.ID)
	if err != nil || len(brought) != 1 || brought[0].ID == boat || made.Doc.Sections[0].Picture != brought[0].ID ||
		len(made.Doc.Sections) != len(p.page.Sections) {
		t.Errorf("%d pictures brought, the page has %q; %v", len(brought), made.Doc.Sections[0].Picture, err)
	}
	// It is who keeps it that is offered it, and only as long as they may copy the site.
	w := p.as("writer@example.org")
	if status, _, _ := w.post("/new", url.Values{"name": {"Langey"}, "from": {"blank"}}); status != http.StatusSeeOther {
		t.Fatal(status)
	}
	if offered(w, "langey") {
		t.Error("somebody else is offered it")
	}
	if status, body, _ := w.post("/sites/langey/pages", url.Values{"name": {"Taken"}, "ready": {home}}); status != http.StatusUnprocessableEntity ||
		!tellsOf(body, "Page") {
		t.Errorf("somebody else takes it: %d", status)
	}
	if err := p.store.People.AddMember(ctx, "w1", p.userID("designer@example.org"), store.Writer); err != nil {
		t.Fatal(err)
	}
	if offered(d, "holm") {
		t.Error("it is offered by who only writes there")
	}
}

// A page that begins as another is of its own day.
func TestAPageLikeAnotherIsOfItsOwnDay(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	p.put(&doc.Page{ID: "p2", Name: "Fog", Title: "Fog", Date: "2026-01-02"}, tree.Page{ID: "p2", Name: "Fog"})
	if status, body, _ := d.post("/sites/skerry/pages", url.Values{"name": {"Ice"}, "ready": {"page:p2"}}); status != http.StatusSeeOther {
		t.Fatalf("%d %.300s", status, body)
	}
	if made, err := p.store.Pages.At(t.Context(), "w1", "ice"); err != nil || made.Doc.Date != "" || made.Dated != "" {
		t.Errorf("%+v, %v", made.Doc, err)
	}
}
