package settings

import (
	"errors"
	"slices"
	"strings"
	"testing"

	"openplot/core/doc"
)

func TestOpeningHours(t *testing.T) {
	f, err := ReadFacts(doc.Facts{}, map[string]string{
		"Monday": "9:00–17:00", "Tuesday": "9–17", "Wednesday": " 09.00 - 12.30 , 13:30 to 17:00", "Thursday": "closed", "Saturday": "10–24", "Sunday": "",
	}, "https://social.example/skerry\n  https://photos.example/@skerry ")
	if err != nil || len(f.Social) != 2 || len(f.Opening) != 5 {
		t.Fatalf("%+v, %v", f, err)
	}
	want := "Monday to Tuesday 9:00–17:00\nWednesday 9:00–12:30, 13:30–17:00\nSaturday 10:00–23:59"
	if got := f.InWords(); got != want {
		t.Errorf("%s, want %s", got, want)
	}
	if f.Hours = "When the flag is up"; f.InWords() != f.Hours {
		t.Error("what was written isn't what is said")
	}
	// What is written is read as the same.
	again := map[string]string{}
	for _, day := range doc.Days {
		again[day] = f.HoursOf(day)
	}
	if g, err := ReadFacts(doc.Facts{}, again, ""); err != nil || len(g.Opening) != 5 || g.Opening[3] != f.Opening[3] {
		t.Errorf("%+v, %v", g.Opening, err)
	}
	for _, bad := range []string{"9", "9–", "17–9", "9–9", "25–26", "9:60–10", "9–12, 11–13", "morning", "9–17 and later", strings.Repeat("1–2,", 50)} {
		var p *doc.Problem
		if _, err := ReadFacts(doc.Facts{}, map[string]string{"Friday": bad}, ""); !errors.As(err, &p) ||
			p.Field != "Friday" {
			t.Errorf("%q: %v", bad, err)
		}
	}
	for _, bad := range []string{"http://a.example", "javascript:1", "https://", "skerry", strings.Repeat("https://a.example/x ", 13)} {
		var p *doc.Problem
		if _, err := ReadFacts(doc.Facts{}, nil, bad); !errors.As(err, &p) || p.Field != "Profiles" {
			t.Errorf("%q: %v", bad, err)
		}
	}
}

func TestReadSite(t *testing.T) {
	for _, tt := range []struct{ name, tag, zone, field string }{
		{"Skerry", "de-AT", "Europe/Vienna", ""}, {"Skerry", "", "", ""}, {"", "", "", "Name"}, {"S", "nonsense", "", "Language"}, {"S", "", "a b", "Time zone"},
		{"S", "en", "../../etc/passwd", "Time zone"}, {strings.Repeat("x", 130), "", "", "Name"},
	} {
		_, _, _, err := ReadSite(tt.name, tt.tag, tt.zone)
		var p *doc.Problem
		if tt.field == "" && err != nil || tt.field != "" && (!errors.As(err, &p) || p.Field != tt.field) {
			t.Errorf("%v: %v", tt, err)
		}
	}
}

func TestReadIcon(t *testing.T) {
	house := doc.StandardHouse()
	is := func(name string) func(string) bool { return func(s string) bool { return s == name } }
	for _, tt := range []struct {
		icon  doc.SiteIcon
		field string
	}{
		{doc.SiteIcon{}, ""}, {doc.SiteIcon{Letter: "Æ", Colour: "deep"}, ""}, {doc.SiteIcon{Icon: "tsunami"}, ""}, {doc.SiteIcon{Medium: "m1"}, ""},
		{doc.SiteIcon{Letter: "ABC"}, "Letter"}, {doc.SiteIcon{Icon: "nope"}, "Icon"}, {doc.SiteIcon{Medium: "m2"}, "Icon"}, {doc.SiteIcon{Colour: "nope"}, "Icon’s colour"},
	} {
		_, err := ReadIcon(tt.icon, &house, is("tsunami"), is("m1"))
		var p *doc.Problem
		if tt.field == "" && err != nil || tt.field != "" && (!errors.As(err, &p) || p.Field != tt.field) {
			t.Errorf("%+v: %v", tt.icon, err)
		}
	}
}

func TestCheckMenu(t *testing.T) {
	items, err := CheckMenu([]doc.MenuItem{
		{}, {Label: "Elsewhere", Link: "https://example.org/", Button: true}, {Label: "About us"},
		{Label: "Crew", Link: "/crew#ann", Under: true}, {Under: true},
	})
	if err != nil || len(items) != 3 || items[1] != (doc.MenuItem{Label: "About us"}) || !items[0].Button ||
		items[2] != (doc.MenuItem{Label: "Crew", Link: "/crew#ann", Under: true}) {
		t.Errorf("%+v, %v", items, err)
	}
	if first, err := CheckMenu([]doc.MenuItem{{Label: "A", Link: "/a", Under: true}}); err != nil || first[0].Under {
		t.Errorf("the first is under another: %+v, %v", first, err)
	}
	// By hand a page is called what it is called, the first is at the top, and nothing is a menu too.
	hand := doc.MenuItem{Hand: true}
	for _, c := range [][2][]doc.MenuItem{
		{{hand, {Link: "/a", Under: true}, {Link: "/b", Under: true, Hand: true}}, {hand, {Link: "/a"}, {Link: "/b", Under: true}}},
		{{hand}, {hand}},
	} {
		if got, err := CheckMenu(c[0]); err != nil || !slices.Equal(got, c[1]) {
			t.Errorf("%+v is read as %+v, %v", c[0], got, err)
		}
	}
	for field, bad := range map[string][]doc.MenuItem{
		"Label": {{Link: "/x"}}, "Link": {{Label: "x", Link: "javascript:1"}},
		"Menu": slices.Repeat([]doc.MenuItem{{Label: "x", Link: "/x"}}, mostMenuItems+1),
	} {
		var p *doc.Problem
		if _, err := CheckMenu(bad); !errors.As(err, &p) || p.Field != field {
			t.Errorf("%s: %v", field, err)
		}
	}
	var p *doc.Problem
	if _, err := CheckMenu([]doc.MenuItem{hand, {Link: "https://example.org/"}}); !errors.As(err, &p) ||
		p.Field != "Label" {
		t.Errorf("what leads elsewhere and says nothing: %v", err)
	}
}
