package edit

import (
	"encoding/json"
	"errors"
	"fmt"
	"reflect"
	"strings"
	"testing"

	"openplot/core/carry"
	"openplot/core/doc"
	"openplot/core/ready"
)

// carriedSite is a site of three pages, one under another, and the parts of its file.
func carriedSite(t testing.TB) (carry.Site, map[string][]byte) {
	t.Helper()
	n := 0
	newID := func(p string) string { n++; return fmt.Sprint(p, n) }
	st, err := ready.NewSite("skerry", "Skerry Line", newID)
	if err != nil {
		t.Fatal(err)
	}
	st.Language, st.TimeZone = "en", "Europe/Oslo"
	st.Facts = doc.Facts{Phone: "+47 555", Opening: []doc.Opening{{Day: "Monday", From: "09:00", To: "17:00"}}}
	st.Menus = map[string][]doc.MenuItem{"legal": {{Label: "Imprint", Link: "/imprint"}}}
	c := carry.Site{Site: *st, Media: []carry.Medium{{ID: "m1", File: "media/m1.png", Name: "boat.png", Alt: "A boat"}}}
	for _, at := range []carry.Page{{InMenu: true}, {Address: "islands", InMenu: true}, {Address: "islands/skarva", Under: "islands", MenuName: "Skarva"}} {
		if at.Page, err = ready.NewPage(ready.Pages[1].ID, "Page "+at.Address, nil, newID, nil); err != nil {
			t.Fatal(err)
		}
		c.Pages = append(c.Pages, at)
	}
	parts := map[string][]byte{}
	if err := carry.WriteSite(c, func(name string, b []byte) error { parts[name] = b; return nil }); err != nil {
		t.Fatal(err)
	}
	return c, parts
}

func readParts(parts map[string][]byte) (carry.Site, error) {
	n := 0
	c, _, err := carry.ReadSite(func(name string) ([]byte, error) {
		b, ok := parts[name]
		if !ok {
			return nil, doc.Problemf("File", "lacks %q", name)
		}
		return b, nil
	}, func(p string) string { n++; return fmt.Sprint(p, "new", n) })
	return c, err
}

func TestSiteFileThereAndBack(t *testing.T) {
	was, parts := carriedSite(t)
	got, err := readParts(parts)
	if err != nil {
		t.Fatal(err)
	}
	was.Site.ID, was.Site.Slug = "", ""
	asText := func(v any) string {
		b, err := json.Marshal(v)
		if err != nil {
			t.Fatal(err)
		}
		return string(b)
	}
	if a, b := asText(was.Site), asText(got.Site); a != b {
		t.Errorf("the site became\n%s\nfrom\n%s", b, a)
	}
	for i, p := range got.Pages {
		p.File = ""
		if !reflect.DeepEqual(asText(p), asText(was.Pages[i])) || asText(p.Page) != asText(was.Pages[i].Page) {
			t.Errorf("page %d became %s", i, asText(p))
		}
	}
	if !reflect.DeepEqual(was.Media, got.Media) {
		t.Errorf("media %+v", got.Media)
	}
}

// Whatever is wrong with a file, a problem names the part.
func TestBadSiteFiles(t *testing.T) {
	_, good := carriedSite(t)
	for _, c := range []struct{ part, was, now, field string }{
		{carry.SitePart, `"open-plot-site"`, `"album"`, "File"},
		{carry.SitePart, `"version": 1`, `"version": 7`, "File"},
		{carry.SitePart, `{`, `[`, "File"},
		{carry.SitePart, `"Skerry Line"`, `""`, "Name"},
		{carry.SitePart, `"Europe/Oslo"`, `"../../etc"`, "Time zone"},
		{carry.SitePart, `"language": "en"`, `"language": "klingon please"`, "Language"},
		{carry.SitePart, `"from": "09:00"`, `"from": "25:00"`, "Monday"},
		{carry.SitePart, `"address": ""`, `"address": "start"`, "Pages"},
		{carry.SitePart, `"address": "islands"`, `"address": "Is lands"`, "Address"},
		{carry.SitePart, `"under": "islands"`, `"under": "fares"`, "Pages"},
		{carry.SitePart, `"address": "islands/skarva"`, `"address": "islands"`, "Pages"},
		{carry.SitePart, `"id": "m1"`, `"id": "../m1"`, "Media"},
		{carry.SitePart, `"alt": "A boat"`, `"alt": "` + strings.Repeat("x", 1001) + `"`, "Media"},
		{carry.SitePart, `"file": "pages/home.json"`, `"file": "pages/none.json"`, "File"},
		{carry.SitePart, `"min": 1024`, `"min": 1900`, "Zone"},
		{carry.SitePart, `"min": 1024`, `"min": 600`, "Zone"},
		{carry.SitePart, `"columns": 8`, `"columns": 0`, "Zone"},
		{carry.SitePart, `"id": "tablet"`, `"id": "phone"`, "Zone"},
		{carry.SitePart, `"typical": 375`, `"typical": 900`, "Zone"},
		{carry.HousePart, `"open-plot-house-style"`, `"none"`, "File"},
		{"pages/home.json", `{`, `"`, "File"},
	} {
		parts := map[string][]byte{}
		for name, b := range good {
			parts[name] = b
		}
		next := strings.Replace(string(parts[c.part]), c.was, c.now, 1)
		if next == string(parts[c.part]) {
			t.Fatalf("%s has no %s", c.part, c.was)
		}
		parts[c.part] = []byte(next)
		_, err := readParts(parts)
		var problem *doc.Problem
		if !errors.As(err, &problem) || problem.Field != c.field {
			t.Errorf("%s for %s: %v, want a problem of %s", c.now, c.was, err, c.field)
		}
	}
}

// A page keeps nothing that couldn't have been entered, and two of its nodes have one id never.
func TestTakeHostilePages(t *testing.T) {
	env := Env{
		Site:  &doc.Site{House: doc.StandardHouse(), Zones: doc.StandardZones()},
		NewID: func(p string) string { return p },
	}
	page := func(change func(p *doc.Page)) *doc.Page {
		p := &doc.Page{
			Name:     "Fares",
			Title:    "Fares",
			Sections: []*doc.Section{{ID: "s1", Name: "One", Blocks: []*doc.Block{{ID: "b1", Kind: doc.Text}}}},
		}
		change(p)
		return p
	}
	for what, change := range map[string]func(p *doc.Page){
		"no name":        func(p *doc.Page) { p.Name = " " },
		"no title":       func(p *doc.Page) { p.Title = "" },
		"one id twice":   func(p *doc.Page) { p.Sections[0].Blocks[0].ID = "s1" },
		"a strange id":   func(p *doc.Page) { p.Sections[0].ID = `s"><script>` },
		"a strange kind": func(p *doc.Page) { p.Sections[0].Blocks[0].Kind = "castle" },
		"too many":       func(p *doc.Page) { p.Sections = make([]*doc.Section, doc.MaxSections+1) },
	} {
		var problem *doc.Problem
		if _, err := TakePage(page(change), "p", env); !errors.As(err, &problem) {
			t.Errorf("%s: %v", what, err)
		}
	}
	got, err := TakePage(page(func(p *doc.Page) {
		p.Ground, p.Language, p.Picture = "none", "!", "m9"
		p.Sections = append(
			p.Sections,
			nil,
			&doc.Section{
				ID:     "s2",
				Anchor: `"x`,
				Role:   "emperor",
				Style:  doc.Style{"color": {"desktop": "url(x)", "moon": "$accent"}},
			},
		)
		p.Sections[0].Blocks[0].Content.Link = "javascript:alert(1)"
	}), "p", env)
	if err != nil {
		t.Fatal(err)
	}
	b, err := json.Marshal(got)
	if err != nil {
		t.Fatal(err)
	}
	for _, bad := range []string{"javascript", "emperor", "url(", "moon", "m9", `\"x`, `"none"`} {
		if strings.Contains(string(b), bad) {
			t.Errorf("%s is kept: %s", bad, b)
		}
	}
	if p, ok := got.Sections[0].Blocks[0].Place["desktop"]; !ok || p.Row != 1 {
		t.Errorf("a block without a place stands at %+v", p)
	}
	// What is shared is the same everywhere.
	one, two := got, &doc.Page{Sections: []*doc.Section{{ID: "s1", Shared: true, Name: "Other"}}}
	one.Sections[0].Shared = true
	EvenShared([]*doc.Page{one, two})
	if two.Sections[0] != one.Sections[0] {
		t.Error("a shared section differs")
	}
}
