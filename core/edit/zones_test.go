package edit

import (
	"errors"
	"fmt"
	"testing"

	"openplot/core/doc"
)

func TestZones(t *testing.T) {
	zs := doc.StandardZones()
	n := 0
	newID := func(p string) string { n++; return fmt.Sprint(p, n) }
	must := func(zs doc.Zones, err error) doc.Zones {
		t.Helper()
		if err != nil {
			t.Fatal(err)
		}
		return zs
	}
	moved := must(MoveZone(zs, "tablet", 700))
	if moved[1].Min != 700 || moved.At(699) != 2 || zs[1].Min != 640 {
		t.Errorf("%+v", moved)
	}
	// A boundary that passes a typical width takes it along.
	if moved = must(MoveZone(zs, "tablet", 900)); moved[1].Typical < 900 || moved[1].Typical >= 1024 {
		t.Errorf("%+v", moved)
	}
	split := must(SplitZone(zs, 1500, "Wide", "Desktop", newID))
	if len(split) != 4 || split[0].ID != "desktop" || split[0].Name != "Wide" || split[1].ID != "z1" ||
		split[1].Min != 1024 ||
		split.At(1499) != 1 ||
		split[0].Typical < 1500 {
		t.Errorf("%+v", split)
	}
	small := must(SplitZone(split, 400, "Phone", "Small phone", newID))
	if len(small) != 5 || small[4].Min != 0 || small[3].Min != 400 || small[3].ID != "phone" ||
		small[4].Typical >= 400 {
		t.Errorf("%+v", small)
	}
	back := must(RemoveZone(must(RemoveZone(small, "z2")), "z1"))
	for i := range zs {
		if back[i].Min != zs[i].Min || back[i].ID != zs[i].ID {
			t.Errorf("%+v, want %+v", back[i], zs[i])
		}
	}
	if named := must(NameZone(zs, "phone", "Handset")); named[2].Name != "Handset" {
		t.Errorf("%+v", named)
	}
	for what, f := range map[string]func() (doc.Zones, error){
		"no such zone":         func() (doc.Zones, error) { return MoveZone(zs, "watch", 700) },
		"the narrowest":        func() (doc.Zones, error) { return MoveZone(zs, "phone", 400) },
		"over the next":        func() (doc.Zones, error) { return MoveZone(zs, "tablet", 1010) },
		"below the page":       func() (doc.Zones, error) { return MoveZone(zs, "tablet", 100) },
		"past the end":         func() (doc.Zones, error) { return MoveZone(zs, "desktop", 1919) },
		"where one begins":     func() (doc.Zones, error) { return SplitZone(zs, 640, "a", "b", newID) },
		"too near":             func() (doc.Zones, error) { return SplitZone(zs, 650, "a", "b", newID) },
		"no name":              func() (doc.Zones, error) { return SplitZone(zs, 500, "a", " ", newID) },
		"the widest away":      func() (doc.Zones, error) { return RemoveZone(zs, "desktop") },
		"a name of ten lines":  func() (doc.Zones, error) { return NameZone(zs, "phone", "a\nb") },
		"the name of no zone":  func() (doc.Zones, error) { return NameZone(zs, "watch", "a") },
		"away, what isn't one": func() (doc.Zones, error) { return RemoveZone(zs, "watch") },
	} {
		var problem *doc.Problem
		if got, err := f(); !errors.As(err, &problem) {
			t.Errorf("%s: %+v, %v", what, got, err)
		}
	}
}

func TestSetIn(t *testing.T) {
	p := &doc.Page{Guides: doc.Zoned[doc.Guides]{"phone": {X: []int{1}}}, Sections: []*doc.Section{{
		Style: doc.Style{"color": {"desktop": "$words", "phone": "$accent"}},
		Blocks: []*doc.Block{{
			Place: doc.Zoned[doc.Place]{
				"desktop": {},
				"phone":   {},
			}, Hidden: doc.Zoned[bool]{"phone": false}, Style: doc.Style{"opacity": {"tablet": "50%"}},
		}},
	}}}
	if SetIn(p, "phone") != 4 || SetIn(p, "tablet") != 1 || SetIn(p, "watch") != 0 {
		t.Errorf("%d, %d, %d", SetIn(p, "phone"), SetIn(p, "tablet"), SetIn(p, "watch"))
	}
}

// All that is set for phones goes back to what the wider zone has: on the page, in a section, of a
// block; and the undo of it brings all of it back.
func TestAZoneFollowsAgain(t *testing.T) {
	e := env()
	p := page(e)
	s := p.Sections[1]
	b := s.Blocks[0]
	do := func(c Command) {
		t.Helper()
		r, err := Apply(p, c, e)
		if err != nil {
			t.Fatal(err)
		}
		p = r.Page
	}
	do(Command{Op: "set", Node: b.ID, Zone: "phone", Setting: "padding-top", Value: "12"})
	do(Command{Op: "set", Node: s.ID, Zone: "phone", Setting: "padding-top", Value: "24"})
	do(Command{Op: "block.hide", Node: b.ID, Zone: "phone", Hide: true})
	do(Command{Op: "set", Node: p.Sections[0].ID, Zone: "phone", Setting: "padding-top", Value: "8"})
	n := SetIn(p, "phone")
	if here := SetHere(p, "phone"); len(here) != n || n < 4 {
		t.Fatalf("%d are listed of %d: %+v", len(here), n, here)
	}
	before := p
	r, err := Apply(p, Command{Op: "zone.follow", Zone: "phone", Node: b.ID}, e)
	if err != nil || SetIn(r.Page, "phone") != n-2 {
		t.Errorf("a block: %d left, %v", SetIn(r.Page, "phone"), err)
	}
	if r, err = Apply(p, Command{Op: "zone.follow", Zone: "phone", Node: s.ID}, e); err != nil ||
		SetIn(r.Page, "phone") >= n-2 {
		t.Errorf("a section: %d left, %v", SetIn(r.Page, "phone"), err)
	}
	if r, err = Apply(p, Command{Op: "zone.follow", Zone: "phone"}, e); err != nil || SetIn(r.Page, "phone") != 0 {
		t.Errorf("the page: %d left, %v", SetIn(r.Page, "phone"), err)
	}
	back, _, err := Run(r.Page, r.Inverse)
	if err != nil || SetIn(back, "phone") != SetIn(before, "phone") {
		t.Errorf("the undo gives %d back, %v", SetIn(back, "phone"), err)
	}
	for _, c := range []Command{{Op: "zone.follow", Zone: "desktop"}, {Op: "zone.follow", Zone: "phone", Node: "none"}} {
		if _, err := Apply(p, c, e); err == nil {
			t.Errorf("%+v is taken", c)
		}
	}
}
