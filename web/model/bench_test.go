package model

import (
	"encoding/json"
	"log/slog"
	"slices"
	"strings"
	"testing"

	"openplot/core/colour"
	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/element"
	"openplot/core/rights"
	"openplot/demo"
	"openplot/icons"
	"openplot/memory"
	"openplot/site"
	"openplot/store"
)

// on is a view of a page of the demo's site, on desktop.
func on(t testing.TB, p *doc.Page) *View {
	t.Helper()
	w, err := NewWorkshop(
		t.TempDir(),
		"/media/",
		func(string) (*colour.Pixels, error) { return nil, nil },
		memory.New(64<<20),
		slog.New(slog.DiscardHandler),
	)
	if err != nil {
		t.Fatal(err)
	}
	st := &store.Site{Site: *demo.Site(), Role: rights.Designer}
	return &View{Stage: w.Stage(st, site.Source{Site: &st.Site}, ""), Page: p, Width: 1280}
}

// apply carries out a command on a view's page.
func (v *View) apply(t testing.TB, c edit.Command) {
	t.Helper()
	env := edit.Env{
		Site:    &v.Site.Site,
		NewID:   store.NewID,
		HasIcon: func(name string) bool { _, ok := icons.Drawing(name); return ok },
	}
	r, err := edit.Apply(v.Page, c, env)
	if err != nil {
		t.Fatal(err)
	}
	v.Page = r.Page
	if r.Select != "" {
		v.Selected = r.Select
	}
}

// all gives a cluster's fields, wherever they stand.
func (c cluster) all() []field {
	out := slices.Concat(c.Fields, c.Box, c.Edges)
	for _, t := range c.Tabs {
		out = append(out, t.Fields...)
	}
	return out
}

// Every field of a Tray has a name of its own, whatever is selected and however it is
// arranged, and an id of its own for its label.
func TestFieldsHaveNamesOfTheirOwn(t *testing.T) {
	check := func(what string, tray *Tray) {
		t.Helper()
		labels, ids := map[string]bool{}, map[string]bool{}
		for _, c := range tray.Clusters {
			for _, f := range c.all() {
				if labels[f.Label] {
					t.Errorf("%s has two fields %q", what, f.Label)
				}
				if ids[f.ID] {
					t.Errorf("%s has two fields with the id %s", what, f.ID)
				}
				labels[f.Label], ids[f.ID] = true, true
			}
		}
		if len(labels) == 0 {
			t.Errorf("%s has no fields", what)
		}
	}
	v := on(t, &doc.Page{Name: "Page"})
	check("a page", v.Tray())
	for _, arrangement := range []string{"placed", "columns", "line-up"} {
		v.apply(t, edit.Command{Op: "section.add", Preset: "empty"})
		section := v.Selected
		v.apply(t, edit.Command{Op: "set", Node: section, Zone: "desktop", Setting: "edge-top", Value: "wave"})
		v.apply(t, edit.Command{Op: "set", Node: section, Zone: "desktop", Setting: "edge-bottom", Value: "wave"})
		if arrangement != "placed" {
			v.apply(t, edit.Command{Op: "arrange", Node: section, Value: arrangement})
		}
		v.Selected = section
		check("a section, "+arrangement, v.Tray())
		for _, k := range doc.Kinds {
			v.apply(t, edit.Command{Op: "block.add", Node: section, Kind: k, Zone: "desktop"})
			check(string(k)+", "+arrangement, v.Tray())
		}
	}
}

// What a field shows where nothing is set is what holds: the house style's and the kind's.
func TestFieldsSayWhatHolds(t *testing.T) {
	v := on(t, &doc.Page{})
	v.apply(t, edit.Command{Op: "section.add", Preset: "empty"})
	section := v.Selected
	field := func(setting string) field {
		t.Helper()
		for _, c := range v.Tray().Clusters {
			for _, f := range c.all() {
				if f.Setting == setting {
					return f
				}
			}
		}
		t.Fatalf("no field for %s", setting)
		return field{}
	}
	follows := func(what string, want map[string]string) {
		t.Helper()
		for setting, want := range want {
			if f := field(setting); f.Follows != want || f.Here {
				t.Errorf("%s: %s follows %q, want %q", what, setting, f.Follows, want)
			}
		}
	}
	follows(
		"a section",
		map[string]string{
			"padding-left": "0",
			"column-gap":   "default 24",
			"row-gap":      "default 8",
			"color":        "Words",
			"columns":      "12",
		},
	)
	v.apply(t, edit.Command{Op: "block.add", Node: section, Kind: doc.Heading, Zone: "desktop"})
	follows(
		"a heading",
		map[string]string{"text-style": "H2", "font-size": "default 34, fluid", "padding-top": "0", "width": "Auto"},
	)
	v.apply(t, edit.Command{Op: "block.add", Node: section, Kind: doc.Button, Zone: "desktop"})
	follows("a button", map[string]string{"padding-left": "22", "border-radius": "default 4", "background": "Accent"})
	v.apply(t, edit.Command{Op: "block.add", Node: section, Kind: doc.Icon, Zone: "desktop"})
	follows("an icon", map[string]string{"icon-size": "default 32"})
	v.apply(t, edit.Command{Op: "block.add", Node: section, Kind: doc.Figures, Zone: "desktop"})
	follows("figures", map[string]string{"per-row": "3"})
	// A value of a narrower zone's own is told of beside the wider one's.
	for zone, n := range map[string]string{"desktop": "30", "phone": "20"} {
		v.apply(t, edit.Command{Op: "set", Node: v.Selected, Zone: zone, Setting: "row-gap", Value: n})
	}
	f := field("row-gap")
	if f.Value != "30" || f.Others != "Phone" {
		t.Fatalf("%+v", f)
	}
	var c edit.Command
	if err := json.Unmarshal([]byte(f.ThereToo), &c); err != nil {
		t.Fatal(err)
	}
	v.apply(t, c)
	if f := field("row-gap"); f.Others != "" || f.Value != "30" {
		t.Errorf("afterwards: %+v", f)
	}
}

// The trail says on what a block lies as it is seen.
func TestTrailSaysWhatIsSeen(t *testing.T) {
	p := doc.Place{Column: 1, Span: 4, Row: 1, Rows: 4}
	block := func(id string, place doc.Place) *doc.Block {
		return &doc.Block{ID: id, Name: id, Kind: doc.Text, Place: doc.Zoned[doc.Place]{"desktop": place}}
	}
	lower := p
	lower.Row = 2
	v := on(
		t,
		&doc.Page{
			Sections: []*doc.Section{
				{ID: "s", Name: "S", Blocks: []*doc.Block{block("later", lower), block("first", p)}},
			},
		},
	)
	for selected, want := range map[string]string{"first": "under later", "later": "on top of first"} { // one layer: the later one in reading order is on top
		v.Selected = selected
		if got := v.Tray().Note; got != want {
			t.Errorf("%s is said to be %q, want %q", selected, got, want)
		}
	}
}

// A divider has the ground of the section beyond it, and changes with that.
func TestDividersFollowTheirNeighbour(t *testing.T) {
	page := func(background string) *doc.Page {
		return &doc.Page{Sections: []*doc.Section{
			{ID: "a", Name: "A", Style: element.Look("edge-bottom", "wave", "background", "$deep")},
			{ID: "b", Name: "B", Style: element.Look("background", background)},
		}}
	}
	p := page("#abcdef")
	v := on(t, p)
	if css := v.scene(p, p.Sections[0]).CSS; !strings.Contains(css, "#abcdef") {
		t.Errorf("the divider isn't in the colour below it: %s", css)
	}
	next := *p
	next.Sections = []*doc.Section{p.Sections[0], page("#fedcba").Sections[1]}
	v.Page = &next
	if css := v.scene(&next, next.Sections[0]).CSS; !strings.Contains(css, "#fedcba") {
		t.Errorf("the divider doesn't follow: %s", css)
	}
	if got := v.Alongside([]string{"b"}, false); len(got) != 2 || got[1] != "a" {
		t.Errorf("with b changes %v", got)
	}
	// In a zone where another section comes next it passes into that one.
	third := &doc.Section{ID: "c", Role: doc.RoleMain, Style: element.Look("background", "#0a0b0c")}
	third.Style["order"] = doc.Zoned[string]{v.Site.Zones[2].ID: "1"}
	v.Page.Sections[1].Style["order"] = doc.Zoned[string]{v.Site.Zones[2].ID: "2"}
	v.Page.Sections = append(v.Page.Sections, third)
	css := v.scene(v.Page, v.Page.Sections[0]).CSS
	if at := strings.Index(css, "#0a0b0c"); at < 0 || !strings.Contains(css, "#fedcba") ||
		at < strings.Index(css, "#fedcba") {
		t.Errorf("on phones the divider doesn't follow: %s", css)
	}
	if got := v.Alongside([]string{"c"}, false); len(got) != 2 || got[1] != "a" {
		t.Errorf("with c changes %v", got)
	}
}

// Drawings show the gradients that lie over a section.
func TestDrawingsShowOverlays(t *testing.T) {
	sec := &doc.Section{
		ID:    "s",
		Style: element.Look("gradient", "linear 90deg $deep 0%, #ff0000 40%, $accent 100%", "min-height", "300px"),
	}
	v := on(t, &doc.Page{Sections: []*doc.Section{sec}})
	got := string(v.DrawPage(v.Page, 200, 200))
	for _, want := range []string{`<linearGradient`, `x1="0" y1="150" x2="1280" y2="150"`, `<stop offset="40%" stop-color="#ff0000"/>`, `fill="url(#g`} {
		if !strings.Contains(got, want) {
			t.Errorf("no %s in %s", want, got)
		}
	}
}
