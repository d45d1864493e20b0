package web

import (
	"net/http"
	"net/url"
	"strconv"
	"strings"
	"testing"

	"openplot/core/edit"
	"openplot/core/ready"
)

func TestTryingAHouseStyleOn(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	before, version := p.house()
	status, body, _ := d.post(housePath+"/try", url.Values{"id": {"ready:meadow"}})
	if after, v := p.house(); status != http.StatusOK || v != version || after.Fonts != before.Fonts ||
		!strings.Contains(
			body, `data-trying="ready:meadow"`,
		) {
		t.Errorf("%d, version %d: trying on keeps nothing", status, v)
	}
	meadow := ready.FindHouse("ready:meadow").House()
	for _, path := range []string{"/sites/skerry/pages/home/canvas", housePath + "/specimen"} {
		_, plain, _ := d.get(path)
		_, dressed, _ := d.get(path + "?house=ready:meadow")
		words := meadow.Swatch("words").Value
		if strings.Contains(plain, words) || !strings.Contains(dressed, words) {
			t.Errorf("%s isn't shown in what is tried on", path)
		}
	}
	if _, body, _ := p.as("writer@example.org").get("/sites/skerry/pages/home/canvas?house=ready:meadow"); strings.Contains(
		body,
		meadow.Swatch("words").Value,
	) {
		t.Error("a writer tries on house styles")
	}
	// What was kept is there to be tried and taken, and undo takes it off again.
	if status, _, _ := d.post(housePath+"/keep", url.Values{"name": {"First"}}); status != http.StatusOK {
		t.Fatal(status)
	}
	take := func(id string) int {
		_, version := p.house()
		status, _, _ := d.post(housePath+"/take", url.Values{"id": {id}, "base": {strconv.FormatInt(version, 10)}})
		return status
	}
	if status := take("ready:meadow"); status != http.StatusOK {
		t.Fatal(status)
	}
	if h, _ := p.house(); h.Fonts != meadow.Fonts || h.Swatch("words").Value != meadow.Swatch("words").Value {
		t.Errorf("%+v", h.Fonts)
	}
	kept, err := p.store.Houses.Kept(t.Context(), "w1")
	if err != nil || len(kept) != 1 {
		t.Fatal(err, len(kept))
	}
	if status := take(kept[0].ID); status != http.StatusOK {
		t.Fatal(status)
	}
	if h, _ := p.house(); h.Fonts != before.Fonts {
		t.Errorf("%+v", h.Fonts)
	}
	d.post(housePath+"/undo", nil)
	if h, _ := p.house(); h.Fonts != meadow.Fonts {
		t.Errorf("undone: %+v", h.Fonts)
	}
	d.post(housePath+"/drop", url.Values{"id": {kept[0].ID}})
	for id, want := range map[string]int{kept[0].ID: http.StatusUnprocessableEntity, "ready:none": http.StatusUnprocessableEntity} {
		if status := take(id); status != want {
			t.Errorf("taking %s: %d", id, status)
		}
	}
	if status, body, _ := d.post(
		housePath+"/keep",
		url.Values{"name": {"  "}},
	); status != http.StatusUnprocessableEntity || !strings.Contains(body, "Name") {
		t.Errorf("a house style without a name: %d", status)
	}
}

func TestPromoting(t *testing.T) {
	p := begin(t)
	d, sec := p.as("designer@example.org"), p.page.Sections[0].ID
	if status, body := d.edit(edit.Command{Op: "set", Node: sec, Zone: "desktop", Setting: "background", Value: "#345678"}); status != http.StatusOK {
		t.Fatal(status, body)
	}
	promote := func(setting, name string) (int, string) {
		status, body, _ := d.post(
			"/sites/skerry/pages/home/promote",
			url.Values{"select": {sec}, "width": {"1280"}, "setting": {setting}, "name": {name}},
		)
		return status, body
	}
	if status, body := promote("background", ""); status != http.StatusUnprocessableEntity ||
		!strings.Contains(body, "Name is missing") {
		t.Errorf("without a name: %d %.200s", status, body)
	}
	if status, body := promote("color", "x"); status != http.StatusUnprocessableEntity {
		t.Errorf("what isn't set: %d %.200s", status, body)
	}
	status, body := promote("background", "Slate")
	h, _ := p.house()
	if w := h.Swatch("slate"); status != http.StatusOK || w == nil || w.Value != "#345678" {
		t.Fatalf("%d %+v", status, h.Palette)
	}
	page, err := p.store.Pages.At(t.Context(), "w1", "")
	if err != nil {
		t.Fatal(err)
	}
	if b, _ := page.Doc.Section(sec); b.Style["background"]["desktop"] != "$slate" ||
		!strings.Contains(oneLine(body), `<option value="Slate" data-token="slate">`) {
		t.Errorf("%v", b.Style)
	}
	if status, _, _ := p.as("writer@example.org").post(
		"/sites/skerry/pages/home/promote",
		url.Values{"select": {sec}, "setting": {"background"}},
	); status != http.StatusForbidden {
		t.Errorf("a writer: %d", status)
	}
}
