package web

import (
	"net/http"
	"net/url"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/edit"
)

const shelfPath = "/sites/skerry/shelf"

// names gives the names of things on the Shelf, as an answer has them, in their order.
func names(body string) (out []string) {
	for _, item := range strings.Split(body, "<strong>")[1:] {
		name, _, _ := strings.Cut(item, "</strong>")
		out = append(out, name)
	}
	return out
}

// What was used last stands first on the Shelf, after what somebody likes; each person has
// a Shelf of their own.
func TestFavouritesStandFirst(t *testing.T) {
	p := begin(t)
	d, w := p.as("designer@example.org"), p.as("writer@example.org")
	sec := p.page.Sections[0].ID
	for _, c := range []edit.Command{{Op: "section.add", Preset: "prices"}, {Op: "block.add", Node: sec, Kind: doc.Quote, Zone: "desktop"}} {
		if status, body := d.edit(c); status != http.StatusOK {
			t.Fatal(status, body)
		}
	}
	status, body, _ := d.post(shelfPath+"/favourite", url.Values{"item": {"section:footer"}, "on": {"true"}})
	if status != http.StatusOK {
		t.Fatal(status)
	}
	if got := names(body); len(got) < 3 || got[0] != "Footer in columns" || got[1] != "Quote" || got[2] != "Price cards" {
		t.Errorf("first on the Shelf: %q", got[:min(4, len(got))])
	}
	if _, body, _ = d.post(shelfPath+"/favourite", url.Values{"item": {"section:footer"}, "on": {"false"}}); names(body)[0] == "Footer in columns" {
		t.Error("what is no favourite any more stands first")
	}
	if _, body, _ = w.post(
		shelfPath+"/favourite",
		url.Values{"item": {"block:table"}, "on": {"true"}},
	); len(names(body)) == 0 || names(body)[0] != "Table" || names(body)[1] == "Quote" {
		t.Errorf("the writer's Shelf: %q", names(body)[:2])
	}
	for _, bad := range []string{"", "table", "house:x", "block:" + strings.Repeat("x", 80)} {
		if status, _, _ := d.post(shelfPath+"/favourite", url.Values{"item": {bad}, "on": {"true"}}); status != http.StatusUnprocessableEntity {
			t.Errorf("%.20q: %d", bad, status)
		}
	}
}

// A section is kept as it is, comes from the Shelf to any page with new ids, and goes.
func TestKeptSections(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	sec := p.page.Sections[0]
	if status, _ := d.edit(edit.Command{Op: "rename", Node: sec.ID, Value: "Our timetable"}); status != http.StatusOK {
		t.Fatal(status)
	}
	if status, _, _ := d.post(benchPath+"/keep", url.Values{"section": {"none"}}); status != http.StatusUnprocessableEntity {
		t.Errorf("a section that isn't there: %d", status)
	}
	status, body, _ := d.post(benchPath+"/keep", url.Values{"section": {sec.ID}})
	if status != http.StatusOK || !strings.Contains(body, "“Our timetable” is on the Shelf now.") {
		t.Fatalf("%d %.300s", status, body)
	}
	_, rest, ok := strings.Cut(body, `"kept:`)
	if !ok {
		_, rest, ok = strings.Cut(body, `kept:`)
	}
	id, _, _ := strings.Cut(rest, `"`)
	if !ok || id == "" {
		t.Fatalf("it isn't on the Shelf: %.400s", body)
	}
	if status, body := d.edit(edit.Command{Op: "section.add", Preset: "kept:" + id}); status != http.StatusOK {
		t.Fatal(status, body)
	}
	page, err := p.store.Page(t.Context(), "w1", "")
	if err != nil {
		t.Fatal(err)
	}
	found, ids := 0, map[string]bool{}
	for _, s := range page.Doc.Sections {
		if s.Name == "Our timetable" {
			found++
		}
		s.Walk(func(b *doc.Block) {
			if ids[b.ID] {
				t.Errorf("two blocks are %s", b.ID)
			}
			ids[b.ID] = true
		})
	}
	if found != 2 {
		t.Errorf("the page has it %d times", found)
	}
	if status, body, _ := d.post(shelfPath+"/drop", url.Values{"id": {id}}); status != http.StatusOK || strings.Contains(body, "Our timetable") {
		t.Errorf("dropped: %d", status)
	}
	if status, _ := d.edit(edit.Command{Op: "section.add", Preset: "kept:" + id}); status != http.StatusUnprocessableEntity {
		t.Errorf("what isn't kept any more: %d", status)
	}
}
