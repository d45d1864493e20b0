package edit

import (
	"errors"
	"testing"

	"openplot/core/doc"
	"openplot/core/style"
)

// Each measure can be set to both of its bounds and no further, changes nothing else,
// and leaves the house style it was given alone.
func TestMeasures(t *testing.T) {
	zones := doc.StandardZones()
	for i, m := range Measures(ptr(doc.StandardHouse()), zones) {
		for _, v := range []float64{m.Least, m.Most} {
			h := doc.StandardHouse()
			before := Measures(&h, zones)
			next, err := ApplyHouse(h, zones, HouseCommand{Op: "measure.set", Name: m.Name, Value: numberOf(v)})
			if err != nil {
				t.Errorf("%s to %v: %v", m.Name, v, err)
				continue
			}
			for k, now := range Measures(&next, zones) {
				want := before[k].Value
				if k == i ||
					now.Name == m.Name+".narrow" &&
						want == before[i].Value { // a step that isn't fluid is the same everywhere
					want = v
				}
				if now.Value != want {
					t.Errorf("setting %s to %v makes %s %v, want %v", m.Name, v, now.Name, now.Value, want)
				}
			}
			if Measures(&h, zones)[i].Value != before[i].Value {
				t.Errorf("%s changed in the house style given", m.Name)
			}
		}
		var problem *doc.Problem
		for _, v := range []string{numberOf(m.Most + 1), numberOf(m.Least - 1), "much", ""} {
			if _, err := ApplyHouse(
				doc.StandardHouse(), zones,
				HouseCommand{Op: "measure.set", Name: m.Name, Value: v},
			); !errors.As(err, &problem) || problem.Field != m.Label {
				t.Errorf("%s to %q: %v", m.Name, v, err)
			}
		}
	}
}

func ptr[T any](v T) *T { return &v }

func numberOf(v float64) string { return style.Number(v) }

// The notation is CSS's (CSS Backgrounds 3 §6.1).
func TestAShadowIsSet(t *testing.T) {
	h := doc.StandardHouse()
	next, err := ApplyHouse(
		h,
		doc.StandardZones(),
		HouseCommand{Op: "shadow.set", Token: "card", Value: "-4 8px 24 2 $accent/30% inset"},
	)
	if err != nil {
		t.Fatal(err)
	}
	want := doc.Shadow{
		Token:  "card",
		Name:   "Card",
		X:      -4,
		Y:      8,
		Blur:   24,
		Spread: 2,
		Colour: "$accent/30%",
		Inner:  true,
	}
	if next.Shadows[1] != want || h.Shadows[1].Colour != "" {
		t.Errorf("the shadow is %+v, and was %+v", next.Shadows[1], h.Shadows[1])
	}
	css := style.Sheet{House: &next, Zones: doc.StandardZones()}.ShadowOf(next.Shadows[1])
	if css != "-4px 8px 24px 2px #1d5f6b4d inset" {
		t.Errorf("as CSS it is %s", css)
	}
	for _, c := range []HouseCommand{
		{Token: "card", Value: "8 8"}, {Token: "card", Value: "0 0 -1 0 #000"}, {Token: "card", Value: "0 0 900 0 #000"},
		{Token: "card", Value: "0 0 4 0 $lost"}, {Token: "card", Value: ""}, {Token: "none", Value: "0 0 4 0 #000"},
	} {
		c.Op = "shadow.set"
		var problem *doc.Problem
		if _, err := ApplyHouse(h, doc.StandardZones(), c); !errors.As(err, &problem) {
			t.Errorf("%s to %q: %v", c.Token, c.Value, err)
		}
	}
}
