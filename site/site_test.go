package site

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/store"
)

func TestRelative(t *testing.T) {
	for _, tt := range []struct{ href, up, want string }{
		{"/", "", "./"}, {"/", "../", "../"}, {"/fares", "", "fares/"}, {"/fares", "../", "../fares/"}, {"/fares/", "", "fares/"},
		{"/fares#prices", "../", "../fares/#prices"}, {"/#crew", "", "./#crew"}, {"/fares?x=1", "", "fares/?x=1"},
		{"#crew", "../", "#crew"}, {"https://example.org/a", "../", "https://example.org/a"}, {"mailto:a@example.org", "", "mailto:a@example.org"},
	} {
		if got := relative(tt.href, tt.up); got != tt.want {
			t.Errorf("%s from %q: %s, want %s", tt.href, tt.up, got, tt.want)
		}
	}
}

func TestPublish(t *testing.T) {
	dir, uploads := t.TempDir(), t.TempDir()
	for _, name := range []string{"m1-480.webp", "m1-900.webp", "m2-480.webp"} {
		if err := os.WriteFile(filepath.Join(uploads, name), []byte(name), 0o644); err != nil {
			t.Fatal(err)
		}
	}
	s := &doc.Site{ID: "w", Slug: "skerry", Name: "Skerry", House: doc.StandardHouse(), Zones: doc.StandardZones()}
	media := []*store.Medium{
		{
			ID: "m1", Width: 900, Height: 600, Alt: "A boat",
			Variants: []store.MediumCopy{{File: "m1-480.webp", Width: 480}, {File: "m1-900.webp", Width: 900}},
		},
		{ID: "m2", Width: 480, Height: 300, Variants: []store.MediumCopy{{File: "m2-480.webp", Width: 480}}},
	}
	at := doc.Zoned[doc.Place]{"desktop": {Column: 1, Span: 6, Row: 1, Rows: 4}}
	page := &doc.Page{ID: "p", Title: "Fares", Sections: []*doc.Section{{ID: "s", Picture: "m1", Blocks: []*doc.Block{
		{ID: "b1", Kind: doc.Picture, Place: at, Content: doc.Content{Picture: "m1"}},
		{ID: "b2", Kind: doc.Text, Place: at, Content: doc.Content{Words: doc.Words{{{Text: "Home", Link: "/"}}}}},
	}}}}
	p := &Publisher{Dir: dir, MediaDir: uploads}
	var ready *Prepared
	for range 2 { // the second time changes nothing
		var err error
		if ready, err = p.Prepare(t.Context(), Source{Site: s, Media: media}, "fares", page); err != nil ||
			ready.Entry.Page != "p" {
			t.Fatalf("%+v, %v", ready, err)
		}
	}
	html, err := os.ReadFile(filepath.Join(dir, "w", ready.Entry.Content()))
	if err != nil {
		t.Fatal(err)
	}
	for _, want := range []string{
		`src="../assets/media/m1-900.webp"`, `alt="A boat"`, `width="900" height="600"`, `href="../"`,
		"<style>", `url("../assets/media/m1-900.webp")`, `url("../assets/fonts/hanken-grotesk-latin-wght-normal-`,
	} {
		if !strings.Contains(string(html), want) {
			t.Errorf("the page has no %s:\n%s", want, html)
		}
	}
	found := map[string]bool{}
	err = filepath.Walk(dir, func(name string, fi os.FileInfo, err error) error {
		if err == nil && !fi.IsDir() {
			rel, _ := filepath.Rel(dir, name)
			found[rel] = true
		}
		return err
	})
	if err != nil {
		t.Fatal(err)
	}
	for name := range found {
		if strings.Contains(name, ".new-") || strings.Contains(name, "m2-") || strings.HasSuffix(name, ".css") {
			t.Errorf("%s was left behind or isn't needed", name)
		}
	}
	if strings.Contains(string(html), "bricolage-grotesque-latin-wght") {
		t.Error("a font that no words are set in is loaded")
	}
	if len(ready.Entry.Styles) != 1 || !strings.HasPrefix(ready.Entry.Styles[0], "'sha256-") {
		t.Errorf("the style sheet in it is known by %v", ready.Entry.Styles)
	}
	hanken := ""
	for name := range found {
		if rest, ok := strings.CutPrefix(name, "w/assets/fonts/"); ok &&
			strings.HasPrefix(rest, "hanken-grotesk-latin-wght-normal-") {
			hanken = rest
		}
	}
	if !found["w/assets/media/m1-480.webp"] || !found["w/assets/fonts/"+hanken] {
		t.Errorf("files are missing: %v", found)
	}
}
