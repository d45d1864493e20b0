package web

import (
	"net/http"
	"net/url"
	"strconv"
	"strings"
	"testing"

	"openplot/core/edit"
	"openplot/store"
)

// One's last edits are listed with what each did, and several are taken back at once.
func TestGoingBackFurther(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	sec := p.page.Sections[0].ID
	for i := range 4 {
		if status, body := d.edit(edit.Command{Op: "rename", Node: sec, Value: "Name " + strconv.Itoa(i), Base: int64(i)}); status != http.StatusOK {
			t.Fatal(status, body)
		}
	}
	_, list, _ := d.get(benchPath + "/recent")
	if n := strings.Count(list, "<li "); n != 4 || !strings.Contains(list, "<span>rename</span>") {
		t.Errorf("%d are listed: %s", n, list)
	}
	if _, others, _ := p.as("writer@example.org").get(benchPath + "/recent"); strings.Contains(others, "rename") {
		t.Error("others' edits are listed")
	}
	if status, body, _ := d.post(benchPath+"/undo", url.Values{"steps": {"3"}}); status != http.StatusOK ||
		!strings.Contains(body, "3 edits undone.") {
		t.Fatalf("%d %.300s", status, body)
	}
	if s, _ := p.home().Section(sec); s.Name != "Name 0" {
		t.Errorf("it is called %s", s.Name)
	}
	for range 2 {
		if status, _, _ := d.post(benchPath+"/redo", nil); status != http.StatusOK {
			t.Fatal(status)
		}
	}
	if s, _ := p.home().Section(sec); s.Name != "Name 2" {
		t.Errorf("done again it is called %s", s.Name)
	}
	for _, steps := range []string{"-1", "0", "x", strconv.Itoa(store.MostBack + 1)} { // one, then
		if status, _, _ := d.post(benchPath+"/undo", url.Values{"steps": {steps}}); status != http.StatusOK {
			t.Errorf("%s: %d", steps, status)
		}
	}
	if _, list, _ := d.get(benchPath + "/recent"); !strings.Contains(list, "Nothing of yours") {
		t.Errorf("%s", list)
	}
}

// What several edits changed is all in the answer that takes them back, sections that come
// and go among it.
func TestGoingBackOverSections(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	sec := p.page.Sections[0]
	for i, c := range []edit.Command{{Op: "section.add", Preset: "empty"}, {Op: "rename", Node: sec.ID, Value: "Another name"}} {
		c.Base = int64(i)
		if status, body := d.edit(c); status != http.StatusOK {
			t.Fatal(status, body)
		}
	}
	added := p.home().Sections[0].ID
	_, body, _ := d.post(benchPath+"/undo", url.Values{"steps": {"2"}})
	if !strings.Contains(body, `id="overview"`) || strings.Contains(body, `data-section="`+added) ||
		len(p.home().Sections) != len(p.page.Sections) {
		t.Errorf("the Overview isn't drawn anew: %.300s", body)
	}
}
