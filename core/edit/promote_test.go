package edit

import (
	"errors"
	"testing"

	"openplot/core/carry"
	"openplot/core/colour"
	"openplot/core/doc"
	"openplot/core/ready"
	"openplot/core/style"
)

func TestPromote(t *testing.T) {
	zones := doc.StandardZones()
	for _, c := range []struct {
		setting, value, name string
		token                string
		holds                func(h *doc.House) bool
	}{
		{"background", "#123456", "Buoy red", "buoy-red", func(h *doc.House) bool { return h.Swatch("buoy-red").Value == "#123456" }},
		{"background", "#1d5f6b", "Again", "accent", func(h *doc.House) bool { return len(h.Palette) == len(doc.StandardHouse().Palette) }},
		{"padding-top", "31px", "Card’s padding", "card-s-padding", func(h *doc.House) bool {
			return h.Space[5] == doc.Step{Token: "card-s-padding", Name: "Card’s padding", Px: 31}
		}},
		{"padding-top", "2rem", "Soft", "soft-2", func(h *doc.House) bool { return h.Space[5].Px == 32 }}, // soft is a step of the corners
		{"padding-top", "24px", "Twice", "room", func(h *doc.House) bool { return len(h.Space) == 8 }},
		{"border-radius", "12px", "Ticket", "ticket", func(h *doc.House) bool { return h.Corners[3].Px == 12 }},
		{"border-width", "3px", "Strong", "strong", func(h *doc.House) bool { return h.Lines[2].Px == 3 }},
		{"font-size", "21px", "Opening", "opening", func(h *doc.House) bool {
			s := h.Text["opening"]
			return s.Weight == h.Text["lead"].Weight && s.Size.Or(zones, 2, 0) == 21
		}},
	} {
		was := doc.StandardHouse()
		h, token, err := Promote(was, zones, style.Find(c.setting, doc.Text), c.value, c.name, "lead")
		if err != nil || token != c.token || !c.holds(&h) {
			t.Errorf("%s %s: %q, %v", c.setting, c.value, token, err)
		}
		if got, want := len(was.Space)+len(was.Corners)+len(was.Palette)+len(was.Text), 8+5+9+14; got != want {
			t.Errorf("%s changed the house style it was given", c.setting)
		}
	}
	for _, c := range [][3]string{
		{
			"background", "$accent", "x",
		}, {"background", "none", "x"}, {
			"background", "#123456", "",
		}, {"padding-top", "5vw", "x"}, {"width", "300px", "x"}, {"opacity", "50%", "x"}, {"padding-top", "31px", "  "}, {"font-size", "21px", ""},
	} {
		_, _, err := Promote(doc.StandardHouse(), zones, style.Find(c[0], doc.Text), c[1], c[2], "body")
		var p *doc.Problem
		if !errors.As(err, &p) {
			t.Errorf("%v: %v", c, err)
		}
	}
}

func TestStepsAreBounded(t *testing.T) {
	h := doc.StandardHouse()
	var err error
	for i := 0; err == nil && i < doc.MaxSteps+1; i++ {
		h, err = ApplyHouse(
			h,
			doc.StandardZones(),
			HouseCommand{Op: "step.add", Token: "space", Name: "Step", Value: numberOf(float64(i))},
		)
	}
	var p *doc.Problem
	if !errors.As(err, &p) || len(h.Space) != 0 && len(h.Space) != doc.MaxSteps {
		t.Errorf("%v, %d steps", err, len(h.Space))
	}
	for _, c := range []HouseCommand{
		{Op: "step.add", Token: "hats", Name: "x", Value: "1"},
		{Op: "step.add", Token: "lines", Name: "x", Value: "wide"},
		{Op: "step.add", Token: "corners", Name: "x", Value: "1001"},
	} {
		if _, err := ApplyHouse(doc.StandardHouse(), doc.StandardZones(), c); !errors.As(err, &p) {
			t.Errorf("%v: %v", c, err)
		}
	}
}

func TestPicks(t *testing.T) {
	h := doc.StandardHouse()
	for i, p := range style.Picks(&h) {
		for _, o := range p.Offers {
			next, err := ApplyHouse(h, doc.StandardZones(), HouseCommand{Op: "pick", Name: p.Name, Value: o.Value})
			if err != nil || style.Picks(&next)[i].Value != o.Value {
				t.Errorf("%s to %s: %v", p.Name, o.Value, err)
			}
		}
		var problem *doc.Problem
		if _, err := ApplyHouse(
			h, doc.StandardZones(),
			HouseCommand{Op: "pick", Name: p.Name, Value: "nothing-like-it"},
		); !errors.As(err, &problem) || problem.Field != p.Label {
			t.Errorf("%s: %v", p.Name, err)
		}
		_, err := ApplyHouse(h, doc.StandardZones(), HouseCommand{Op: "pick", Name: p.Name})
		if (err == nil) != (p.Usual != "") {
			t.Errorf("%s to nothing: %v", p.Name, err)
		}
	}
}

// The house styles that ship can be taken, and their words read: WCAG 2.2, 1.4.3.
func TestReadyHouses(t *testing.T) {
	ratio := func(h *doc.House, words, ground string) float64 {
		a, err1 := colour.ParseHex(h.Swatch(words).Value)
		b, err2 := colour.ParseHex(h.Swatch(ground).Value)
		if err1 != nil || err2 != nil {
			t.Fatal(err1, err2)
		}
		return colour.Contrast(a, b)
	}
	for i := range ready.Houses {
		r := &ready.Houses[i]
		h := r.House()
		b, err := carry.WriteHouse(carry.House{Name: r.Name, House: h})
		if err != nil {
			t.Fatal(err)
		}
		if _, err := carry.ReadHouse(b, doc.StandardZones()); err != nil {
			t.Errorf("%s: %v", r.Name, err)
		}
		if ready.FindHouse(r.ID) != r {
			t.Errorf("%s isn't found", r.ID)
		}
		for _, words := range []string{"words", "quiet-words", "accent", "second-accent"} {
			for _, ground := range []string{"ground", "quiet-ground"} {
				if c := ratio(&h, words, ground); c < colour.AA {
					t.Errorf("%s: %s on %s is %.2f", r.Name, words, ground, c)
				}
			}
		}
		if c := ratio(&h, "on-deep", "deep"); c < colour.AA {
			t.Errorf("%s: on-deep on deep is %.2f", r.Name, c)
		}
	}
}
