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
		{Op: "type.set", Token: "h1", Name: "size phone", Value: "30+2"},
		{Op: "type.set", Token: "h1", Name: "weight", Value: "600"},
		{Op: "type.set", Token: "label", Name: "case", Value: "upper"},
		{Op: "type.set", Token: "display", Name: "fluid", Value: "on"},
	} {
		next, err := ApplyHouse(h, doc.StandardZones(), c)
		if err != nil {
			t.Errorf("%s: %v", c.Op, err)
		}
		h = next
	}
	if h1 := h.Text["h1"]; h1.Size["phone"] != 32 || h1.Weight != 600 || h.Text["label"].Case != "upper" ||
		!h.Text["display"].Fluid {
		t.Errorf("%+v", h.Text)
	}
	if h.Swatch("accent").Value != "#1e606c" || h.Swatch("buoy-red").Value != "#cc2222" ||
		h.Swatch("deep").Name != "Night" ||
		h.Swatch("on-deep") != nil ||
		h.ContentWidth != 1160 {
		t.Errorf("%+v", h)
	}
	if !reflect.DeepEqual(was, doc.StandardHouse()) {
		t.Error("the house style given was changed")
	}
	again, err := ApplyHouse(h, doc.StandardZones(), HouseCommand{Op: "colour.add", Name: "Buoy red", Value: "#d33"})
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
		{Op: "type.set", Token: "h9", Name: "weight", Value: "400"},
		{Op: "type.set", Token: "h1", Name: "colour", Value: "400"},
		{Op: "type.set", Token: "h1", Name: "size watch", Value: "40"},
		{Op: "type.set", Token: "h1", Name: "size phone", Value: "1e9"},
		{Op: "type.set", Token: "h1", Name: "size phone", Value: "NaN"},
		{Op: "type.set", Token: "h1", Name: "line-height", Value: "-1"},
		{Op: "type.set", Token: "h1", Name: "case", Value: "title"},
		{Op: "type.scale", Value: "16"},
		{Op: "type.scale", Value: "16 9"},
		{Op: "explode"},
	} {
		h := doc.StandardHouse()
		_, err := ApplyHouse(h, doc.StandardZones(), c)
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
	if h.Swatch("accent").Value != r.Accent.String() || h.Swatch("deep").Value != was.Swatch("deep").Value ||
		was.Swatch("accent").Value == r.Accent.String() ||
		len(h.Palette) != len(was.Palette) {
		t.Errorf("%+v", h.Palette)
	}
}

// A scale is base × ratio^step, each step larger than the one below it in every zone.
func TestTypeScale(t *testing.T) {
	h, err := ApplyHouse(doc.StandardHouse(), doc.StandardZones(), HouseCommand{Op: "type.scale", Value: " 18  1.25 "})
	if err != nil {
		t.Fatal(err)
	}
	for name, want := range map[string]float64{"body": 18, "lead": 22.5, "h2": 35.25, "h1": 44, "display": 55, "small": 14.5} {
		if got := h.Text[name].Size["desktop"]; got != want {
			t.Errorf("%s is %v px, want %v", name, got, want)
		}
	}
	for _, zone := range []string{"desktop", "tablet", "phone"} {
		for _, pair := range [][2]string{{"small", "body"}, {"body", "lead"}, {"lead", "h3"}, {"h3", "h2"}, {"h2", "h1"}, {"h1", "display"}} {
			if a, b := h.Text[pair[0]].Size[zone], h.Text[pair[1]].Size[zone]; a >= b {
				t.Errorf("on %s %s is %v px and %s %v", zone, pair[0], a, pair[1], b)
			}
		}
	}
	if h.Text["h1"].Size["phone"] >= h.Text["h1"].Size["desktop"] {
		t.Error("headings aren't smaller on phones")
	}
}

// A size set by hand in a zone between ends what grows evenly; turned off, it leaves the sizes that it had there.
func TestFluidSizesBecomeSteps(t *testing.T) {
	zones := doc.StandardZones()
	set := func(h doc.House, name, to string) doc.TextStyle {
		t.Helper()
		next, err := ApplyHouse(h, zones, HouseCommand{Op: "type.set", Token: "h1", Name: name, Value: to})
		if err != nil {
			t.Fatal(err)
		}
		return next.Text["h1"]
	}
	h := doc.StandardHouse() // 34 px at 375, 46 at 1280
	if got := set(h, "fluid", "off"); got.Fluid || got.Size["tablet"] != 40 || got.Size["desktop"] != 46 {
		t.Errorf("turned off: %+v", got)
	}
	if got := set(h, "size tablet", "42"); got.Fluid || got.Size["tablet"] != 42 {
		t.Errorf("a size between: %+v", got)
	}
	for _, zone := range []string{"desktop", "phone"} {
		if got := set(h, "size "+zone, "42"); !got.Fluid || got.Size[zone] != 42 {
			t.Errorf("a size at an end, %s: %+v", zone, got)
		}
	}
}
