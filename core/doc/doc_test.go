package doc

import (
	"encoding/json"
	"reflect"
	"testing"
)

func TestZonesAt(t *testing.T) {
	zs := StandardZones()
	for width, want := range map[float64]string{
		320: "phone", 639: "phone", 639.9: "phone", 640: "tablet", 1023: "tablet", 1024: "desktop", 1920: "desktop",
		1: "phone", 1e7: "desktop",
	} {
		if got := zs[zs.At(width)].ID; got != want {
			t.Errorf("%v px is in %s, want %s", width, got, want)
		}
	}
	if zs.Max(0) != 0 || zs.Max(1) != 1023 || zs.Max(2) != 639 {
		t.Errorf("upper ends %d %d %d", zs.Max(0), zs.Max(1), zs.Max(2))
	}
}

func TestZonedFollowsTheNextWiderZone(t *testing.T) {
	zs := StandardZones()
	tests := []struct {
		values Zoned[int]
		want   [3]int // desktop, tablet, phone
	}{
		{Zoned[int]{"desktop": 1}, [3]int{1, 1, 1}},
		{Zoned[int]{"desktop": 1, "phone": 3}, [3]int{1, 1, 3}},
		{Zoned[int]{"desktop": 1, "tablet": 2}, [3]int{1, 2, 2}},
		{Zoned[int]{"tablet": 2}, [3]int{-1, 2, 2}},
		{nil, [3]int{-1, -1, -1}},
	}
	for _, tt := range tests {
		for z := range zs {
			if got := tt.values.Or(zs, z, -1); got != tt.want[z] {
				t.Errorf("%v in %s: %d, want %d", tt.values, zs[z].ID, got, tt.want[z])
			}
		}
	}
}

func TestZonedChangesAreCopies(t *testing.T) {
	a := Zoned[int]{"desktop": 1}
	b := a.With("phone", 2)
	c := b.Without("phone").Without("desktop")
	if len(a) != 1 || len(b) != 2 || c != nil {
		t.Errorf("%v %v %v", a, b, c)
	}
	if d := Zoned[int](nil).With("phone", 4); d["phone"] != 4 {
		t.Errorf("set on nothing: %v", d)
	}
}

func TestColumnsBelongToTheirZoneAlone(t *testing.T) {
	zs := StandardZones()
	s := &Section{Style: Style{"columns": {"desktop": "16", "phone": "2"}}}
	for z, want := range []int{16, 8, 2} {
		if got := s.Holder().Columns(zs, z); got != want {
			t.Errorf("%s has %d columns, want %d", zs[z].ID, got, want)
		}
	}
}

func TestPageSurvivesJSON(t *testing.T) {
	p := &Page{ID: "p1", Name: "Home", Title: "T", Sections: []*Section{{
		ID: "s1", Name: "A", Role: RoleHeader, Hidden: true, Anchor: "a", Style: Style{"background": {"desktop": "#fff"}},
		Blocks: []*Block{
			{ID: "b1", Kind: Text, Place: Zoned[Place]{"desktop": {1, 2, 3, 4, 5}}, Hidden: Zoned[bool]{"phone": true},
				Content: Content{Words: Words{{{Text: "a\nb", Bold: true}, {Text: "c", Link: "/x", Italic: true}}}}},
		},
	}}}
	b, err := json.Marshal(p)
	if err != nil {
		t.Fatal(err)
	}
	var q Page
	if err := json.Unmarshal(b, &q); err != nil {
		t.Fatal(err)
	}
	if !reflect.DeepEqual(p, &q) {
		t.Errorf("got %s", b)
	}
}

func TestOverlaps(t *testing.T) {
	a := Place{Column: 3, Span: 2, Row: 3, Rows: 2}
	for b, want := range map[Place]bool{
		{Column: 3, Span: 2, Row: 3, Rows: 2}:   true,
		{Column: 5, Span: 2, Row: 3, Rows: 2}:   false,
		{Column: 1, Span: 2, Row: 3, Rows: 2}:   false,
		{Column: 4, Span: 1, Row: 4, Rows: 9}:   true,
		{Column: 1, Span: 12, Row: 5, Rows: 1}:  false,
		{Column: 1, Span: 12, Row: 1, Rows: 10}: true,
	} {
		if got := a.Overlaps(b); got != want || b.Overlaps(a) != want {
			t.Errorf("%v overlaps %v: %v", a, b, got)
		}
	}
}
