package place

import (
	"reflect"
	"testing"
)

func TestGuides(t *testing.T) {
	area := Rect{0, 0, 800, 400}
	for _, tt := range []struct {
		name   string
		r      Rect
		others []Rect
		want   []Guide
	}{
		{"left edges", Rect{100, 100, 60, 50}, []Rect{{100, 300, 90, 40}}, []Guide{{true, 100, 100, 340}}},
		{"an edge with the other side's", Rect{100, 100, 60, 50}, []Rect{{160, 300, 90, 40}}, []Guide{{true, 160, 100, 340}}},
		{"middles", Rect{100, 100, 60, 50}, []Rect{{300, 115, 90, 20}}, []Guide{{false, 125, 100, 390}}},
		{"an edge and a middle are no guide", Rect{100, 100, 60, 50}, []Rect{{130, 300, 90, 40}}, nil},
		{"the middle of the area", Rect{370, 100, 60, 50}, nil, []Guide{{true, 400, 0, 400}}},
		{"two on one line", Rect{100, 100, 60, 50}, []Rect{{100, 300, 90, 40}, {100, 10, 90, 40}}, []Guide{{true, 100, 10, 340}}},
		{"near is not the same", Rect{100, 100, 60, 50}, []Rect{{101, 300, 90, 41}}, nil},
	} {
		if got := Guides(tt.r, tt.others, area); !reflect.DeepEqual(got, tt.want) {
			t.Errorf("%s: %+v, want %+v", tt.name, got, tt.want)
		}
	}
}

func TestGaps(t *testing.T) {
	area := Rect{0, 0, 800, 400}
	for _, tt := range []struct {
		name   string
		r      Rect
		others []Rect
		want   []GapMark
	}{
		{"alone: to the sides", Rect{100, 50, 200, 40}, nil, []GapMark{{true, 70, 0, 100, false}, {true, 70, 300, 800, false}}},
		{
			"between two, equal", Rect{200, 50, 100, 40},
			[]Rect{{50, 60, 120, 100}, {330, 0, 100, 80}},
			[]GapMark{{true, 75, 170, 200, true}, {true, 65, 300, 330, true}},
		},
		{
			"as far as the next two are apart", Rect{300, 50, 100, 40},
			[]Rect{{20, 50, 100, 40}, {160, 50, 100, 40}},
			[]GapMark{{true, 70, 260, 300, true}, {true, 70, 120, 160, true}, {true, 70, 400, 800, false}},
		},
		{
			"what isn't faced doesn't count", Rect{0, 100, 800, 40},
			[]Rect{{0, 20, 800, 40}, {0, 300, 800, 40}},
			[]GapMark{{false, 400, 60, 100, false}, {false, 400, 140, 300, false}},
		},
	} {
		if got := Gaps(tt.r, tt.others, area); !reflect.DeepEqual(got, tt.want) {
			t.Errorf("%s:\n%+v, want\n%+v", tt.name, got, tt.want)
		}
	}
}
