package edit

import (
	"reflect"
	"strings"
	"testing"

	"openplot/core/colour"
	"openplot/core/doc"
)

func TestApplyHouse(t *testing.T) {
	h := doc.StandardHouse()
	was := doc.StandardHouse()
	for _, c := range []HouseCommand{
		{Op: "colour.set", Token: "accent", Value: "hsl(189 57% 27%)"},
		{Op: "colour.add", Name: "Buoy red", Value: "#c22"},
		{Op: "colour.rename", Token: "deep", Name: "Night"},
		{Op: "colour.remove", Token: "on-deep"},
		{Op: "fonts.pair", Value: "harbour"},
		{Op: "fonts.set", Token: "mono", Value: "IBM Plex Mono"},
		{Op: "width.set", Value: "(1200-40)"},
	} {
		next, err := ApplyHouse(h, c)
		if err != nil {
			t.Errorf("%s: %v", c.Op, err)
		}
		h = next
	}
	if h.Swatch("accent").Value != "#1e606c" || h.Swatch("buoy-red").Value != "#cc2222" || h.Swatch("deep").Name != "Night" || h.Swatch("on-deep") != nil || h.ContentWidth != 1160 {
		t.Errorf("%+v", h)
	}
	if !reflect.DeepEqual(was, doc.StandardHouse()) {
		t.Error("the house style given was changed")
	}
	again, err := ApplyHouse(h, HouseCommand{Op: "colour.add", Name: "Buoy red", Value: "#d33"})
	if err != nil || again.Swatch("buoy-red-2") == nil {
		t.Errorf("a second colour of a name: %v", err)
	}
}

func TestBadHouseCommands(t *testing.T) {
	for _, c := range []HouseCommand{
		{Op: "colour.set", Token: "nowhere", Value: "#fff"},
		{Op: "colour.set", Token: "accent", Value: "reddish"},
		{Op: "colour.set", Token: "accent", Value: strings.Repeat("9", 10<<20)},
		{Op: "colour.add", Name: "", Value: "#fff"},
		{Op: "colour.add", Name: "X\x00", Value: "#fff"},
		{Op: "colour.rename", Token: "accent", Name: "Mine"},
		{Op: "colour.remove", Token: "ground"},
		{Op: "fonts.pair", Value: "none"},
		{Op: "fonts.set", Token: "body", Value: "Comic"},
		{Op: "fonts.set", Token: "foot", Value: "Lora"},
		{Op: "width.set", Value: "NaN"},
		{Op: "width.set", Value: "99999"},
		{Op: "explode"},
	} {
		h := doc.StandardHouse()
		_, err := ApplyHouse(h, c)
		problem, ok := err.(*doc.Problem)
		if !ok || problem.Field == "" || problem.Message == "" {
			t.Errorf("%s %.20s: %v", c.Op, c.Value, err)
		}
		if !reflect.DeepEqual(h, doc.StandardHouse()) {
			t.Errorf("%s changed the house style", c.Op)
		}
	}
}

// A new site's words can be read on both of its grounds (WCAG 2.2, 1.4.3).
func TestStandardHouseIsReadable(t *testing.T) {
	h := doc.StandardHouse()
	for _, words := range []string{"words", "quiet-words", "accent", "second-accent"} {
		for _, ground := range []string{"ground", "quiet-ground"} {
			a, errA := colour.ParseHex(h.Swatch(words).Value)
			b, errB := colour.ParseHex(h.Swatch(ground).Value)
			if errA != nil || errB != nil || colour.Contrast(a, b) < colour.AA {
				t.Errorf("%s on %s: %.2f", words, ground, colour.Contrast(a, b))
			}
		}
	}
}

func TestTakePalette(t *testing.T) {
	r := colour.SuggestRoles([]colour.Cluster{{Colour: colour.Colour{R: 200, G: 30, B: 60, A: 255}, Share: 1}})
	was := doc.StandardHouse()
	h := TakePalette(was, r)
	if h.Swatch("accent").Value != r.Accent.String() || h.Swatch("deep").Value != was.Swatch("deep").Value || was.Swatch("accent").Value == r.Accent.String() || len(h.Palette) != len(was.Palette) {
		t.Errorf("%+v", h.Palette)
	}
}
