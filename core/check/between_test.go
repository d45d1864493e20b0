package check_test

import (
	"testing"

	"openplot/core/check"
	"openplot/core/doc"
	"openplot/core/element"
	"openplot/demo"
)

// TestBetween holds sections against the next one: what is pulled up, lies over it, or hangs out.
func TestBetween(t *testing.T) {
	lib, s := library(t), demo.Site()
	sec := func(id string, blocks []*doc.Block, look ...string) *doc.Section {
		c := section(doc.LineUp, element.Look(look...), blocks...)
		c.ID = id
		return c
	}
	said := func(id, color string) []*doc.Block {
		return []*doc.Block{words(id, "Boats for hire by the hour", "color", color)}
	}
	for what, tt := range map[string]struct {
		above, below   *doc.Section
		rule, on, from string
	}{
		"pulled over words": {
			sec("s1", said("a", "#000000"), "padding-bottom", "10px"), sec("s2", said("b", "#000000"), "pull", "60px", "background", "#dddddd", "padding-top", "80px"), "covered", "s2", "a",
		},
		"pulled over room": {
			sec("s1", said("a", "#000000"), "padding-bottom", "90px"), sec("s2", said("b", "#000000"), "pull", "60px", "background", "#dddddd", "padding-top", "80px"), "", "", "",
		},
		"words over words": {
			sec("s1", said("a", "#000000"), "padding-bottom", "0px"), sec("s2", said("b", "#000000"), "pull", "20px", "padding-top", "0px"), "words-over", "b", "a",
		},
		"a pale bar over a pale section": {
			sec("s1", said("a", "#ffffff"), "over", "yes"), sec("s2", said("b", "#000000"), "background", "#eeeeee", "padding-top", "120px"), "contrast", "a", "",
		},
		"a pale bar over a dark section": {
			sec("s1", said("a", "#ffffff"), "over", "yes"), sec("s2", said("b", "#ffffff"), "background", "#202020", "padding-top", "120px"), "", "", "",
		},
		"a picture that hangs out over words": {
			sec("s1", []*doc.Block{picture("a", "boat", "overhang", "80px", "height", "200px")}), sec("s2", said("b", "#000000"), "padding-top", "10px"), "covered", "a", "b",
		},
		"apart": {sec("s1", said("a", "#000000")), sec("s2", said("b", "#000000")), "", "", ""},
	} {
		p := prepared(t, lib, s, &doc.Page{ID: "p", Sections: []*doc.Section{tt.above, tt.below}}, 320, 640, 1280)
		got, err := check.Between(t.Context(), p.Parts[0], p.Parts[1])
		if err != nil {
			t.Fatal(err)
		}
		switch {
		case tt.rule == "" && len(got) == 0:
		case tt.rule == "" || len(got) != 1 || got[0].ID != tt.rule || got[0].Node != tt.on || got[0].Other != tt.from:
			t.Errorf("%s: %s", what, told(got))
		case !got[0].Holds(320) || !got[0].Holds(1280):
			t.Errorf("%s: %v", what, got[0].Ranges)
		}
	}
}
