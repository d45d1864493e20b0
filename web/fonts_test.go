package web

import (
	"encoding/base64"
	"encoding/json"
	"net/http"
	"net/url"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/shape"
	"openplot/fonts"
	"openplot/site"
	"openplot/store"
)

func TestOwnFonts(t *testing.T) {
	// From Debian's fonts-liberation, which bin/test installs with Chromium.
	file, err := os.ReadFile("/usr/share/fonts/truetype/liberation/LiberationSerif-Regular.ttf")
	if err != nil {
		t.Skip(err)
	}
	p := begin(t)
	d := p.as("designer@example.org")
	add := func(name string, b []byte, fields map[string]string) (int, string) {
		_, version := p.house()
		fields["base"] = strconv.FormatInt(version, 10)
		return upload(t, d, housePath+"/fonts", name, b, fields)
	}
	for name, b := range map[string][]byte{
		"words.ttf": []byte("these are words and no font at all"),
		"cut.ttf":   file[:4000],
		"large.ttf": make([]byte, fonts.MaxOwnBytes+10),
	} {
		if status, body := add(name, b, map[string]string{}); status != http.StatusUnprocessableEntity ||
			!strings.Contains(body, "Font ") {
			t.Errorf("%s: %d", name, status)
		}
	}
	if status, body := add(
		"x.ttf", file,
		map[string]string{"name": "Lora"},
	); status != http.StatusUnprocessableEntity || !strings.Contains(body, "ships with Open Plot") {
		t.Errorf("a shipped family's name: %d", status)
	}
	if status, body := add(
		"x.ttf", file,
		map[string]string{"generic": "serif"},
	); status != http.StatusOK || !strings.Contains(body, "Liberation Serif") {
		t.Fatalf("%d %.300s", status, body)
	}
	set := func(op, token, name, value string) int {
		status, _ := d.change(p, url.Values{"op": {op}, "token": {token}, "name": {name}, "value": {value}})
		return status
	}
	if status := set("fonts.set", "heading", "", "Liberation Serif"); status != http.StatusOK {
		t.Fatal(status)
	}
	own, err := p.store.Houses.Fonts(t.Context(), "w1")
	if err != nil || len(own) != 1 || own[0].Least != 400 || own[0].Italic {
		t.Fatalf("%+v, %v", own, err)
	}
	// The canvas has it, and so has layout.
	_, canvas, _ := d.get("/sites/skerry/pages/home/canvas")
	if !strings.Contains(canvas, `url("/fonts/own/`+own[0].File+`")`) ||
		!strings.Contains(canvas, `font-family:"Liberation Serif", serif`) {
		t.Error("the canvas lacks it")
	}
	for _, base := range []string{p.app.URL, p.hosts.Draft("skerry")} {
		r, err := (&http.Client{Transport: anywhere}).Get(base + "/fonts/own/" + own[0].File)
		if err != nil {
			t.Fatal(err)
		}
		r.Body.Close()
		if r.StatusCode != http.StatusOK || r.Header.Get("Content-Type") != "font/woff2" {
			t.Errorf("%s: %d", base, r.StatusCode)
		}
	}
	if r, err := (&http.Client{Transport: anywhere}).Get(p.hosts.Draft("skerry") + "/fonts/own/" + own[0].Original); err != nil ||
		r.StatusCode == http.StatusOK {
		t.Error("what was uploaded is served")
	}
	library := func(own []*store.Font) *shape.Library {
		return p.server.Workshop.Stage(&store.Site{}, site.Source{Site: &doc.Site{}, Fonts: own}, "").Library()
	}
	lib := library(own)
	width := func(l *shape.Library) float64 {
		return l.Paragraph([]shape.Run{{Text: "AVATAR Wave", Faces: l.Faces("Liberation Serif", 400, false), Size: 40}}).
			MaxContent()
	}
	if width(lib) == width(library(nil)) {
		t.Error("layout sets it in a shipped font")
	}
	// What is published is a part of it, and none of a font that no words are set in.
	if status, body := add("y.ttf", file, map[string]string{"name": "Unused"}); status != http.StatusOK {
		t.Fatalf("%d %.300s", status, body)
	}
	if status, _, _ := d.post("/sites/skerry/pages/home/publish", nil); status != http.StatusOK {
		t.Fatal(status)
	}
	_, html, _ := p.visit(http.MethodGet, "/", nil)
	_, after, ok := strings.Cut(html, `src:url("assets/fonts/own-`)
	name, _, _ := strings.Cut(after, `"`)
	if !ok {
		t.Fatal("the heading's font isn't there")
	}
	status, part, _ := p.visit(http.MethodGet, "/assets/fonts/own-"+name, nil)
	whole, err := os.ReadFile(p.server.MediaDir + "/" + own[0].File)
	if err != nil || status != http.StatusOK || len(part) == 0 || len(part) >= len(whole) {
		t.Errorf("%d, %d bytes of %d, %v", status, len(part), len(whole), err)
	}
	if files, err := filepath.Glob(filepath.Join(p.siteDir, "w1", "assets", "fonts", "own-*")); err != nil ||
		len(files) != 1 { // for all pages
		t.Errorf("published: %v, %v", files, err)
	}
	_, version := p.house()
	if status, _, _ := d.post(
		housePath+"/fonts/drop",
		url.Values{"name": {"Unused"}, "base": {strconv.FormatInt(version, 10)}},
	); status != http.StatusOK {
		t.Fatal(status)
	}
	// A house style's file carries it.
	_, carried, _ := d.get(housePath + "/file")
	// It can't be removed while it is used.
	drop := func() int {
		_, version := p.house()
		status, _, _ := d.post(
			housePath+"/fonts/drop",
			url.Values{"name": {"Liberation Serif"}, "base": {strconv.FormatInt(version, 10)}},
		)
		return status
	}
	if status := drop(); status != http.StatusUnprocessableEntity {
		t.Errorf("removed although headings are set in it: %d", status)
	}
	set("fonts.set", "heading", "", "Lora")
	if status := drop(); status != http.StatusOK {
		t.Errorf("%d", status)
	}
	if own, _ := p.store.Houses.Fonts(t.Context(), "w1"); len(own) != 0 {
		t.Errorf("%d files left", len(own))
	}
	if status := set("fonts.set", "heading", "", "Liberation Serif"); status != http.StatusUnprocessableEntity {
		t.Errorf("what is gone can still be chosen: %d", status)
	}
	take := func(text string) (int, string) {
		_, version := p.house()
		return upload(
			t,
			d,
			housePath+"/file",
			"a.house.json",
			[]byte(text),
			map[string]string{"base": strconv.FormatInt(version, 10)},
		)
	}
	var f map[string]any
	if err := json.Unmarshal([]byte(carried), &f); err != nil || len(f["fonts"].([]any)) != 1 {
		t.Fatalf("%v, fonts in the file: %.80v", err, f["fonts"])
	}
	change := func(to, field string) string {
		var f map[string]any
		if err := json.Unmarshal([]byte(carried), &f); err != nil {
			t.Fatal(err)
		}
		in := f["fonts"].([]any)[0].(map[string]any)
		in[field] = to
		b, err := json.Marshal(f)
		if err != nil {
			t.Fatal(err)
		}
		return string(b)
	}
	for name, text := range map[string]string{
		"damaged":        change(base64.StdEncoding.EncodeToString(whole[:len(whole)/2]), "woff2"),
		"no font":        change(base64.StdEncoding.EncodeToString([]byte("#!/bin/sh")), "woff2"),
		"another family": change("Open Water", "family"),
	} {
		if status, body := take(text); status != http.StatusUnprocessableEntity || !strings.Contains(body, "Fonts ") {
			t.Errorf("%s: %d", name, status)
		}
	}
	if own, _ := p.store.Houses.Fonts(t.Context(), "w1"); len(own) != 0 {
		t.Errorf("%d files of refused house styles", len(own))
	}
	if status, body := take(carried); status != http.StatusOK {
		t.Fatalf("%d %.300s", status, body)
	}
	h, _ := p.house()
	again, err := p.store.Houses.Fonts(t.Context(), "w1")
	if err != nil || len(again) != 1 || h.Fonts.Heading != "Liberation Serif" || h.Own[0].Generic != "serif" {
		t.Fatalf("%+v, %+v, %v", h.Fonts, again, err)
	}
	was := width(lib)
	if lib = library(again); width(lib) != was {
		t.Errorf("words are %v wide, %v before", width(lib), was)
	}
	// Where the family is already, its files stay.
	if status, _ := take(carried); status != http.StatusOK {
		t.Error(status)
	}
	if same, _ := p.store.Houses.Fonts(t.Context(), "w1"); len(same) != 1 || same[0].File != again[0].File {
		t.Errorf("%+v", same)
	}
}
