package web

import (
	"net/http"
	"net/url"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/tree"
)

// Of a page's settings, those are set which a form says were changed; the others stay as they are now, whatever the
// form, which may be old, holds.
func TestOfAPageOnlyWhatWasChangedIsSet(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	p.put(
		&doc.Page{ID: "p2", Name: "Berths", Title: "Berths", Sections: []*doc.Section{{ID: "s2"}}},
		tree.Page{ID: "p2", Name: "Berths"},
	)
	old := url.Values{
		"page": {
			"p2",
		}, "name": {"Old"}, "title": {"Old"}, "description": {"Old"}, "segment": {"old"}, "menu-name": {"Old"},
		"in-menu": {"1"}, "in-footer": {"1"}, "unlisted": {"1"}, "language": {"sv"},
	}
	now := func() string {
		page, err := p.store.Pages.ByID(t.Context(), "w1", "p2")
		if err != nil {
			t.Fatal(err)
		}
		in := func(on bool, word string) string {
			if on {
				return " " + word
			}
			return ""
		}
		return strings.Join(
			[]string{page.Doc.Name, page.Doc.Title, page.Doc.Description, page.Slug, page.MenuName, page.Doc.Language},
			"|",
		) +
			in(
				page.InMenu,
				"menu",
			) + in(
			page.InFooter,
			"footer",
		) + in(
			page.Doc.Unlisted,
			"unlisted",
		) + in(
			page.Lock != "",
			"locked",
		)
	}
	for _, step := range []struct {
		set  string // the field that is changed
		to   string
		want string
	}{
		{"title", "Berths to let", "Berths|Berths to let||berths|| menu"},
		{"description", "Where boats lie", "Berths|Berths to let|Where boats lie|berths|| menu"},
		{"name", "Moorings", "Moorings|Berths to let|Where boats lie|berths|| menu"},
		{"segment", "moorings", "Moorings|Berths to let|Where boats lie|moorings|| menu"},
		{"in-footer", "1", "Moorings|Berths to let|Where boats lie|moorings|| menu footer"},
		{"in-footer", "", "Moorings|Berths to let|Where boats lie|moorings|| menu"},
		{"locked", "1", "Moorings|Berths to let|Where boats lie|moorings|| menu"}, // not without a password
		{"in-menu", "", "Moorings|Berths to let|Where boats lie|moorings||"},
		{"unlisted", "1", "Moorings|Berths to let|Where boats lie|moorings|| unlisted"},
	} {
		form := url.Values{"set": {step.set}}
		for k, v := range old {
			form[k] = v
		}
		form.Set(step.set, step.to)
		if status, text, _ := d.post("/sites/skerry/pages/settings", form); status != http.StatusSeeOther {
			t.Fatalf("%s: %d %s", step.set, status, text)
		}
		if got := now(); got != step.want {
			t.Errorf("%s set to %q:\n%s\nwant\n%s", step.set, step.to, got, step.want)
		}
	}
	form := url.Values{"page": {"p2"}, "set": {"password"}, "locked": {"1"}, "password": {"oyster"}}
	if status, text, _ := d.post("/sites/skerry/pages/settings", form); status != http.StatusSeeOther ||
		!strings.HasSuffix(now(), "locked") {
		t.Errorf("with a password: %d %s\n%s", status, now(), text)
	}
	// A page of another site isn't one of this one's.
	if status, _, _ := d.post("/sites/skerry/pages/settings", url.Values{"page": {"nowhere"}, "set": {"title"}, "title": {"x"}}); status != http.StatusNotFound {
		t.Errorf("a page that isn't there: %d", status)
	}
}

// A deletion is asked about where it takes along more than was named, or what visitors have.
func TestWhatADeletionTakesAlongIsDrawn(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	for _, page := range []tree.Page{{ID: "p2", Name: "Islands"}, {ID: "p3", Name: "Holm", Parent: "p2"}, {ID: "p4", Name: "Fares"}} {
		p.put(
			&doc.Page{ID: page.ID, Name: page.Name, Title: page.Name, Sections: []*doc.Section{{ID: "s" + page.ID}}},
			page,
		)
	}
	const going = "/sites/skerry/going?"
	if status, text, _ := d.get(going + "id=p3&id=p4"); status != http.StatusNoContent {
		t.Errorf("nothing goes along, and it is asked about: %d %s", status, text)
	}
	if status, text, _ := d.get(going + "id=p2"); status != http.StatusOK || strings.Count(text, "<li>") != 2 ||
		!strings.Contains(text, "Holm") {
		t.Errorf("what stands under it: %d %s", status, text)
	}
	if status, text, _ := d.post("/sites/skerry/publish", url.Values{"id": {"p4"}}); status != http.StatusSeeOther {
		t.Fatalf("%d %s", status, text)
	}
	if status, text, _ := d.get(going + "id=p4&id=nowhere"); status != http.StatusOK ||
		!strings.Contains(oneLine(text), "Visitors see it") {
		t.Errorf("what visitors have: %d %s", status, text)
	}
	for _, who := range []string{"stranger@example.org"} {
		if status, _, _ := p.as(who).get(going + "id=p2"); status != http.StatusNotFound {
			t.Errorf("%s: %d", who, status)
		}
	}
}
