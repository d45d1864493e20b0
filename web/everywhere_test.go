package web

import (
	"net/http"
	"net/url"
	"slices"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/edit/edittest"
	"openplot/core/tree"
	"openplot/store"
)

// A section becomes the site's footer on the pages that are ticked, in the place of what they have, and one
// undo on any of them takes all of it back; a copy is told with what differs.
func TestASectionBecomesTheSitesFooter(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	ctx := t.Context()
	footer := edittest.Sections(store.NewID)[0]
	footer.Name, footer.Role = "Foot", doc.RoleFooter
	copied := edittest.Sections(store.NewID)[0]
	copied.Name, copied.Role = "Foot 2", doc.RoleFooter
	copied.Walk(func(b *doc.Block) {
		if len(b.Content.Words) > 0 {
			b.Content.Words = doc.PlainWords("Something else")
		}
	})
	p.put(
		&doc.Page{ID: "p2", Name: "Fares", Title: "Fares", Sections: []*doc.Section{{ID: "s20", Name: "A"}, footer}},
		tree.Page{ID: "p2", Name: "Fares"},
	)
	p.put(
		&doc.Page{ID: "p3", Name: "Berths", Title: "Berths", Sections: []*doc.Section{{ID: "s30", Name: "B"}, copied}},
		tree.Page{ID: "p3", Name: "Berths"},
	)
	of := func(id string) []string {
		t.Helper()
		pg, err := p.store.Pages.ByID(ctx, "w1", id)
		if err != nil {
			t.Fatal(err)
		}
		var ids []string
		for _, s := range pg.Doc.Sections {
			ids = append(ids, s.ID)
		}
		return ids
	}
	home := of("p1")
	at := "/sites/skerry/pages/fares/everywhere/" + footer.ID
	status, text, _ := d.get(at + "?role=footer")
	for _, want := range []string{"No footer yet", "A copy of it that differs", "words", "Home", "Berths"} {
		if status != http.StatusOK || !strings.Contains(text, want) {
			t.Errorf("%d, doesn't say %q", status, want)
		}
	}
	if status, text, _ := d.post(at, url.Values{"role": {"footer"}}); status != http.StatusUnprocessableEntity ||
		!tellsOf(text, "Pages") {
		t.Errorf("no page: %d", status)
	}
	if status, _, _ := d.get(at + "?role=nothing"); status != http.StatusUnprocessableEntity {
		t.Errorf("no such part: %d", status)
	}
	if status, _, _ := d.get("/sites/skerry/pages/fares/everywhere/nothing?role=footer"); status != http.StatusNotFound {
		t.Errorf("no such section: %d", status)
	}
	status, _, h := d.post(at, url.Values{"role": {"footer"}, "page": {"p1", "p3"}})
	if status != http.StatusSeeOther || !strings.HasPrefix(h.Get("Location"), "/sites/skerry/pages/fares/bench") {
		t.Fatal(status, h)
	}
	for id, want := range map[string][]string{"p1": append(slices.Clone(home), footer.ID), "p2": {"s20", footer.ID}, "p3": {"s30", footer.ID}} {
		if got := of(id); !slices.Equal(got, want) {
			t.Errorf("%s has %v, want %v", id, got, want)
		}
	}
	if _, text, _ := d.get(at + "?role=footer"); !strings.Contains(text, "Every page has it") {
		t.Error("it isn't told that every page has it")
	}
	if status, _, _ := d.post("/sites/skerry/pages/fares/undo", nil); status != http.StatusOK {
		t.Fatal(status)
	}
	for id, want := range map[string][]string{"p1": home, "p2": {"s20", footer.ID}, "p3": {"s30", copied.ID}} {
		if got := of(id); !slices.Equal(got, want) {
			t.Errorf("taken back %s has %v, want %v", id, got, want)
		}
	}
}
