package web

import (
	"net/http"
	"net/url"
	"slices"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/ready"
)

const shelfPath = "/sites/skerry/shelf"

// marked gives the names of things on the Shelf that have a mark, as an answer has them.
func marked(body, mark string) (out []string) {
	for _, item := range strings.Split(body, "<li ")[1:] {
		head, _, _ := strings.Cut(item, ">")
		_, name, _ := strings.Cut(item, "<strong>")
		name, _, _ = strings.Cut(name, "</strong>")
		if strings.Contains(head, mark) {
			out = append(out, name)
		}
	}
	return out
}

// What was used last, and what somebody likes, stands apart; each person has a Shelf of
// their own.
func TestFavouritesAndRecent(t *testing.T) {
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
	if got := marked(body, "data-favourite"); !slices.Equal(got, []string{"Footer in columns"}) {
		t.Errorf("favourites: %q", got)
	}
	if got := marked(body, `data-recent="1"`); !slices.Equal(got, []string{"Price cards", "Quote"}) {
		t.Errorf("used last of each sort: %q", got)
	}
	if _, body, _ = d.post(shelfPath+"/favourite", url.Values{"item": {"section:footer"}, "on": {"false"}}); len(
		marked(body, "data-favourite"),
	) > 0 {
		t.Error("what is no favourite any more is one")
	}
	if _, body, _ = w.post(shelfPath+"/favourite", url.Values{"item": {"block:table"}, "on": {"true"}}); !slices.Equal(
		marked(body, "data-favourite"),
		[]string{"Table"},
	) ||
		len(marked(body, "data-recent")) > 0 {
		t.Errorf("the writer's Shelf: %q, %q", marked(body, "data-favourite"), marked(body, "data-recent"))
	}
	for _, bad := range []string{"", "table", "house:x", "block:" + strings.Repeat("x", 80)} {
		if status, _, _ := d.post(shelfPath+"/favourite", url.Values{"item": {bad}, "on": {"true"}}); status != http.StatusUnprocessableEntity {
			t.Errorf("%.20q: %d", bad, status)
		}
	}
}

// Each ready-made section is drawn from the layout core, in the words and with the pictures
// of the site's business; what comes from the Shelf then says the same.
func TestShelfIsDrawnForTheBusiness(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	_, plain, _ := d.get(shelfPath)
	if n := strings.Count(plain, `<svg class="drawing"`); n != len(ready.Presets) {
		t.Errorf("%d sections are drawn, there are %d", n, len(ready.Presets))
	}
	if status, body, _ := d.post(shelfPath+"/business", url.Values{"value": {"food"}}); status != http.StatusOK ||
		!strings.Contains(body, "/scenes/table-") {
		t.Errorf("%d: no table is drawn", status)
	}
	if status, body := d.edit(edit.Command{Op: "section.add", Preset: "welcome-beside"}); status != http.StatusOK {
		t.Fatal(status, body)
	}
	page, err := p.store.Pages.At(t.Context(), "w1", "")
	if err != nil {
		t.Fatal(err)
	}
	if !strings.Contains(page.Doc.Plain(), "Food from around here, cooked every day") {
		t.Error("the section doesn't say what a kitchen would")
	}
	if status, _, _ := d.post(shelfPath+"/business", url.Values{"value": {"mining"}}); status != http.StatusUnprocessableEntity {
		t.Errorf("a kind that isn't there: %d", status)
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
	for field, v := range map[string]url.Values{
		"Name":    {"section": {sec.ID}, "name": {strings.Repeat("x", 200)}},
		"Purpose": {"section": {sec.ID}, "purpose": {"Decoration"}},
	} {
		if status, body, _ := d.post(benchPath+"/keep", v); status != http.StatusUnprocessableEntity ||
			!strings.Contains(body, field) {
			t.Errorf("%s: %d", field, status)
		}
	}
	status, body, _ := d.post(
		benchPath+"/keep",
		url.Values{"section": {sec.ID}, "purpose": {"Timetable"}, "all": {"yes"}},
	)
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
	page, err := p.store.Pages.At(t.Context(), "w1", "")
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
	if status, body, _ := d.post(shelfPath+"/drop", url.Values{"id": {id}}); status != http.StatusOK ||
		strings.Contains(body, "Our timetable") {
		t.Errorf("dropped: %d", status)
	}
	if status, _ := d.edit(edit.Command{Op: "section.add", Preset: "kept:" + id}); status != http.StatusUnprocessableEntity {
		t.Errorf("what isn't kept any more: %d", status)
	}
}
