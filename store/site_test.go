package store

import (
	"errors"
	"reflect"
	"slices"
	"testing"

	"openplot/core/doc"
	"openplot/core/edit"
)

func TestSettings(t *testing.T) {
	f := begin(t)
	want := doc.Facts{
		Address: "1 North Steps\nHarbour",
		Phone:   "555 0142",
		Opening: []doc.Opening{{Day: "Monday", From: "09:00", To: "17:00"}},
	}
	if err := f.Sites.SetSettings(t.Context(), "w1", Settings{
		Name: "Skerry", Language: "de", TimeZone: "Europe/Vienna", SharePicture: "m1", Icon: doc.SiteIcon{Letter: "S", Colour: "deep"}, Facts: want,
	}); err != nil {
		t.Fatal(err)
	}
	s, err := f.Sites.BySlug(t.Context(), "skerry")
	if err != nil || !reflect.DeepEqual(s.Facts, want) || s.Icon.Colour != "deep" || s.Language != "de" ||
		s.TimeZone != "Europe/Vienna" ||
		s.SharePicture != "m1" ||
		s.Version != 2 {
		t.Errorf("%+v of version %d, %v", s.Facts, s.Version, err)
	}
}

func TestShelf(t *testing.T) {
	f := begin(t)
	ctx := t.Context()
	sec := f.must(0, edit.Command{Op: "section.add", Preset: "features"}).Page.Sections[0]
	if err := f.Shelf.KeepSection(ctx, &KeptSection{Site: "w1", Name: "Ours", Purpose: "Features", Section: sec}); err != nil {
		t.Fatal(err)
	}
	kept, err := f.Shelf.KeptSections(ctx, "w1", f.user)
	if err != nil || len(kept) != 1 || kept[0].Name != "Ours" || kept[0].Purpose != "Features" ||
		len(kept[0].Section.Blocks) != len(sec.Blocks) {
		t.Fatalf("%+v, %v", kept, err)
	}
	if other, err := f.Shelf.KeptSections(ctx, "another", f.user); err != nil || len(other) != 0 {
		t.Errorf("another site has %d of them, %v", len(other), err)
	}
	if err := f.Shelf.DropSection(ctx, "another", f.user, kept[0].ID); err != nil {
		t.Fatal(err)
	}
	if kept, _ = f.Shelf.KeptSections(ctx, "w1", f.user); len(kept) != 1 {
		t.Error("another site dropped it")
	}
	// One that somebody keeps for all their sites is on theirs, and on nobody else's.
	if err := f.Shelf.KeepSection(ctx, &KeptSection{Site: "w1", Name: "Mine", Owner: f.user, Section: sec}); err != nil {
		t.Fatal(err)
	}
	for _, c := range []struct {
		site, user string
		names      int
	}{{"w1", f.user, 2}, {"another", f.user, 1}, {"w1", "somebody", 1}, {"another", "somebody", 0}} {
		if kept, err := f.Shelf.KeptSections(ctx, c.site, c.user); err != nil || len(kept) != c.names {
			t.Errorf("%s sees %d on %s, %v", c.user, len(kept), c.site, err)
		}
	}
	mine, _ := f.Shelf.KeptSections(ctx, "another", f.user)
	if err := f.Shelf.DropSection(ctx, "w1", "somebody", mine[0].ID); err != nil {
		t.Fatal(err)
	}
	if mine, _ = f.Shelf.KeptSections(ctx, "another", f.user); len(mine) != 1 {
		t.Error("somebody else dropped it")
	}
	for _, item := range []string{"block:text", "block:map", "block:text"} {
		if err := f.Shelf.UseShelf(ctx, f.user, item); err != nil {
			t.Fatal(err)
		}
	}
	if err := f.Shelf.FavourShelf(ctx, f.user, "block:map", true); err != nil {
		t.Fatal(err)
	}
	uses, err := f.Shelf.ShelfUses(ctx, f.user)
	if err != nil || !slices.Equal(uses, []ShelfUse{{"block:text", false, true}, {"block:map", true, true}}) {
		t.Errorf("%v, %v: the last used comes first", uses, err)
	}
}

func TestFormEntries(t *testing.T) {
	f := begin(t)
	for _, value := range []string{"first", "second"} {
		if err := f.Entries.Add(t.Context(), "w1", FormEntry{Form: "b1", Answers: []Answer{{Field: "Your name", Value: value}}}, Telling{}); err != nil {
			t.Fatal(err)
		}
	}
	es, _, err := f.Inbox.List(t.Context(), Look{Site: "w1", User: f.user, Box: BoxAll, Limit: 10})
	if err != nil || len(es) != 2 || es[0].Answers[0] != (Answer{Field: "Your name", Value: "second"}) {
		t.Errorf("%+v, %v", es, err)
	}
}

func TestMediaUses(t *testing.T) {
	f := begin(t)
	ctx := t.Context()
	for _, id := range []string{"m1", "m2"} {
		if err := f.Media.Add(
			ctx,
			&Medium{ID: id, SiteID: "w1", Name: id, Type: "image/png", Width: 4, Height: 3, Variants: []MediumCopy{{"x.webp", 4}}},
		); err != nil {
			t.Fatal(err)
		}
	}
	m, err := f.Media.ByID(ctx, "w1", "m1")
	if err != nil || m.Focal != "50% 50%" || m.Variants[0].File != "x.webp" {
		t.Fatalf("%+v, %v", m, err)
	}
	if _, err := f.Media.ByID(ctx, "another", "m1"); !errors.Is(err, ErrNotFound) {
		t.Errorf("another site sees it: %v", err)
	}
	m.Alt, m.Focal = "A boat", "0% 50%"
	if err := f.Media.Describe(ctx, m); err != nil {
		t.Fatal(err)
	}
	env := f.env()
	env.Medium = func(string) doc.MediumSort { return doc.PictureMedium }
	sec := f.must(0, edit.Command{Op: "section.add", Preset: "bar"}).Page.Sections[0]
	c := edit.Command{Op: "section.picture", Node: sec.ID, Value: "m1"}
	if _, err := f.Pages.Edit(ctx, f.page, f.user, 1, c, func(p *doc.Page) (*edit.Result, error) { return edit.Apply(p, c, env) }); err != nil {
		t.Fatal(err)
	}
	ms, err := f.Media.List(ctx, "w1")
	if err != nil {
		t.Fatal(err)
	}
	uses, err := f.Media.Uses(ctx, "w1", ms)
	if err != nil || len(uses["m1"]) != 1 || len(uses["m2"]) != 0 {
		t.Errorf("%v, %v", uses, err)
	}
	if err := f.Media.Delete(ctx, "w1", "m2"); err != nil {
		t.Fatal(err)
	}
	if ms, _ = f.Media.List(ctx, "w1"); len(ms) != 1 || ms[0].Alt != "A boat" {
		t.Errorf("%d left", len(ms))
	}
}
