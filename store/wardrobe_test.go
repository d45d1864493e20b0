package store

import (
	"errors"
	"testing"

	"openplot/core/doc"
	"openplot/core/policy"
)

func TestKeptHouses(t *testing.T) {
	s, site := begin(t), "w1"
	winter := doc.StandardHouse()
	winter.ContentWidth = 900
	for range 2 { // the second replaces the first
		if err := s.Houses.Keep(t.Context(), site, "Winter", winter); err != nil {
			t.Fatal(err)
		}
	}
	kept, err := s.Houses.Kept(t.Context(), site)
	if err != nil || len(kept) != 1 || kept[0].Name != "Winter" || kept[0].House.ContentWidth != 900 {
		t.Fatalf("%v %+v", err, kept)
	}
	if err := s.Houses.Drop(t.Context(), "another", kept[0].ID); err != nil {
		t.Fatal(err)
	}
	if again, _ := s.Houses.Kept(t.Context(), site); len(again) != 1 {
		t.Error("another site could drop it")
	}
	for i := range policy.KeptHouses {
		if err = s.Houses.Keep(t.Context(), site, string(rune('a'+i%26))+string(rune('a'+i/26)), winter); err != nil {
			break
		}
	}
	var p *doc.Problem
	if !errors.As(err, &p) {
		t.Errorf("one too many: %v", err)
	}
	if err := s.Houses.Drop(t.Context(), site, kept[0].ID); err != nil {
		t.Fatal(err)
	}
	if again, _ := s.Houses.Kept(t.Context(), site); len(again) != policy.KeptHouses-1 {
		t.Errorf("%d left", len(again))
	}
}
