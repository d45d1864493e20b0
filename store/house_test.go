package store

import (
	"encoding/json"
	"errors"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/edit"
)

func TestHouseIsKeptAndTakenBack(t *testing.T) {
	f := begin(t)
	site := func() *Site {
		t.Helper()
		s, err := f.Sites.BySlugFor(t.Context(), f.user, "skerry")
		if err != nil {
			t.Fatal(err)
		}
		return s
	}
	change := func(c edit.HouseCommand) error {
		return f.Houses.Edit(t.Context(), "w1", f.user, site().Version, c, func(h doc.House) (doc.House, error) {
			return edit.ApplyHouse(
				h, doc.StandardZones(), c,
			)
		})
	}
	text := func() string {
		b, err := json.Marshal(site().House)
		if err != nil {
			t.Fatal(err)
		}
		return string(b)
	}
	states := []string{text()}
	for _, c := range []edit.HouseCommand{
		{Op: "colour.set", Token: "accent", Value: "#123456"},
		{Op: "fonts.pair", Value: "ledger"},
		{Op: "colour.add", Name: "Buoy", Value: "#c22"},
	} {
		if err := change(c); err != nil {
			t.Fatal(err)
		}
		states = append(states, text())
	}
	if site().Version != 4 {
		t.Errorf("version %d after three edits", site().Version)
	}
	for i := 2; i >= 0; i-- {
		if err := f.Houses.Undo(t.Context(), "w1", f.user); err != nil {
			t.Fatal(err)
		}
		if text() != states[i] {
			t.Errorf("undo to %d gives %s", i, text())
		}
	}
	if err := f.Houses.Undo(t.Context(), "w1", f.user); !errors.Is(err, ErrNothing) {
		t.Errorf("undo of nothing: %v", err)
	}
	// Against an old version nothing changes.
	c := edit.HouseCommand{Op: "colour.set", Token: "accent", Value: "#654321"}
	err := f.Houses.Edit(
		t.Context(),
		"w1",
		f.user,
		1,
		c,
		func(h doc.House) (doc.House, error) { return edit.ApplyHouse(h, doc.StandardZones(), c) },
	)
	if !errors.Is(err, ErrStale) || text() != states[0] {
		t.Errorf("stale: %v", err)
	}
	// A refused edit leaves nothing behind.
	var problem *doc.Problem
	if err := change(edit.HouseCommand{Op: "colour.set", Token: "accent", Value: "reddish"}); !errors.As(
		err,
		&problem,
	) ||
		text() != states[0] {
		t.Errorf("refused: %v", err)
	}
}

func TestTokenUses(t *testing.T) {
	f := begin(t)
	f.must(0, edit.Command{Op: "section.add", Preset: "about-figures"})
	f.must(1, edit.Command{Op: "section.add", Preset: "bar"})
	f.must(
		2,
		edit.Command{
			Op:      "set",
			Node:    f.stored().Doc.Sections[0].ID,
			Zone:    "desktop",
			Setting: "gradient",
			Value:   "Deep, Line",
		},
	)
	for token, want := range map[string]int{"quiet-ground": 1, "quiet": 0, "second-accent": 0, "line": 1} {
		if n, err := tokenUses(t.Context(), f.db, "w1", token); err != nil || n != want {
			t.Errorf("%s is used on %d pages, %v; want %d", token, n, err, want)
		}
	}
}

// What a page uses neither a removal nor an undo takes away; when the page lets it go,
// both do.
func TestWhatPagesUseStays(t *testing.T) {
	for _, take := range []struct {
		name string
		add  edit.HouseCommand
		set  edit.Command
		gone string // its name in the message
	}{
		{"colour", edit.HouseCommand{Op: "colour.add", Name: "Buoy", Value: "#c22"}, edit.Command{Setting: "background", Value: "$buoy"}, "Buoy"},
		{
			"step",
			edit.HouseCommand{Op: "step.add", Token: "space", Name: "Landing", Value: "52"},
			edit.Command{Setting: "padding-top", Value: "$landing"},
			"Landing",
		},
	} {
		t.Run(take.name, func(t *testing.T) {
			f := begin(t)
			change := func(c edit.HouseCommand) error {
				s, err := f.Sites.BySlugFor(t.Context(), f.user, "skerry")
				if err != nil {
					t.Fatal(err)
				}
				f.site = &s.Site
				return f.Houses.Edit(t.Context(), "w1", f.user, s.Version, c, func(h doc.House) (doc.House, error) {
					return edit.ApplyHouse(
						h, doc.StandardZones(), c,
					)
				})
			}
			if err := errors.Join(change(take.add), change(edit.HouseCommand{Op: "width.set", Value: "960"})); err != nil {
				t.Fatal(err)
			}
			f.must(0, edit.Command{Op: "section.add", Preset: "bar"})
			s, err := f.Sites.BySlugFor(t.Context(), f.user, "skerry")
			if err != nil {
				t.Fatal(err)
			}
			f.site = &s.Site
			take.set.Op, take.set.Node, take.set.Zone = "set", f.stored().Doc.Sections[0].ID, "desktop"
			f.must(1, take.set)
			refused := func(what string, err error) {
				t.Helper()
				var problem *doc.Problem
				if !errors.As(err, &problem) || problem.Field != take.gone ||
					!strings.Contains(problem.Message, "one page") {
					t.Errorf("%s: %v", what, err)
				}
			}
			if err := f.Houses.Undo(t.Context(), "w1", f.user); err != nil { // the width: nothing that a page names
				t.Fatal(err)
			}
			refused("undo", f.Houses.Undo(t.Context(), "w1", f.user))
			if take.name == "colour" {
				refused("removal", change(edit.HouseCommand{Op: "colour.remove", Token: "buoy"}))
			}
			if can, err := f.Houses.CanUndo(t.Context(), "w1", f.user); err != nil || !can {
				t.Errorf("a refused undo was used up: %v, %v", can, err)
			}
			if _, err := f.Log.Undo(t.Context(), f.page, f.user); err != nil {
				t.Fatal(err)
			}
			if err := f.Houses.Undo(t.Context(), "w1", f.user); err != nil {
				t.Errorf("undo of what no page uses: %v", err)
			}
		})
	}
}
