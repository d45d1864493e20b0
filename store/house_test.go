package store

import (
	"encoding/json"
	"errors"
	"testing"

	"openplot/core/doc"
	"openplot/core/edit"
)

func TestHouseIsKeptAndTakenBack(t *testing.T) {
	f := begin(t)
	site := func() *Site {
		t.Helper()
		s, err := f.Site(t.Context(), f.user, "skerry")
		if err != nil {
			t.Fatal(err)
		}
		return s
	}
	change := func(c edit.HouseCommand) error {
		return f.EditHouse(t.Context(), "w1", f.user, site().Version, c, func(h doc.House) (doc.House, error) { return edit.ApplyHouse(h, doc.StandardZones(), c) })
	}
	text := func() string {
		b, err := json.Marshal(site().House)
		if err != nil {
			t.Fatal(err)
		}
		return string(b)
	}
	states := []string{text()}
	for _, c := range []edit.HouseCommand{{Op: "colour.set", Token: "accent", Value: "#123456"}, {Op: "fonts.pair", Value: "ledger"}, {Op: "colour.add", Name: "Buoy", Value: "#c22"}} {
		if err := change(c); err != nil {
			t.Fatal(err)
		}
		states = append(states, text())
	}
	if site().Version != 4 {
		t.Errorf("version %d after three edits", site().Version)
	}
	for i := 2; i >= 0; i-- {
		if err := f.UndoHouse(t.Context(), "w1", f.user); err != nil {
			t.Fatal(err)
		}
		if text() != states[i] {
			t.Errorf("undo to %d gives %s", i, text())
		}
	}
	if err := f.UndoHouse(t.Context(), "w1", f.user); !errors.Is(err, ErrNothing) {
		t.Errorf("undo of nothing: %v", err)
	}
	// Against an old version nothing changes.
	c := edit.HouseCommand{Op: "colour.set", Token: "accent", Value: "#654321"}
	err := f.EditHouse(t.Context(), "w1", f.user, 1, c, func(h doc.House) (doc.House, error) { return edit.ApplyHouse(h, doc.StandardZones(), c) })
	if !errors.Is(err, ErrStale) || text() != states[0] {
		t.Errorf("stale: %v", err)
	}
	// A refused edit leaves nothing behind.
	var problem *doc.Problem
	if err := change(edit.HouseCommand{Op: "colour.set", Token: "accent", Value: "reddish"}); !errors.As(err, &problem) || text() != states[0] {
		t.Errorf("refused: %v", err)
	}
}

func TestTokenUses(t *testing.T) {
	f := begin(t)
	f.must(0, edit.Command{Op: "section.add", Preset: "about-figures"})
	f.must(1, edit.Command{Op: "section.add", Preset: "bar"})
	f.must(2, edit.Command{Op: "set", Node: f.stored().Doc.Sections[0].ID, Zone: "desktop", Setting: "gradient", Value: "Deep, Line"})
	for token, want := range map[string]int{"quiet-ground": 1, "quiet": 0, "second-accent": 0, "line": 1} {
		if n, err := f.TokenUses(t.Context(), "w1", token); err != nil || n != want {
			t.Errorf("%s is used on %d pages, %v; want %d", token, n, err, want)
		}
	}
}
