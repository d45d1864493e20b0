package ready

import (
	"slices"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/stock"
)

// Every kind of business says something of its own in each place, shows scenes that there
// are, and what it says is known as a stand-in.
func TestBusinesses(t *testing.T) {
	if len(Businesses) < 8 {
		t.Errorf("there are %d kinds of business", len(Businesses))
	}
	for i := range Businesses {
		b := &Businesses[i]
		if len(b.says) != len(general) {
			t.Fatalf("%s says %d things, there are %d", b.ID, len(b.says), len(general))
		}
		for _, scene := range b.Scenes {
			if !slices.Contains(stock.Scenes, scene) {
				t.Errorf("%s: there is no scene %q", b.ID, scene)
			}
		}
		for k, said := range b.says {
			if said == "" || len(said) > 2*len(general[k])+60 {
				t.Errorf("%s says %q for %q, which is much longer", b.ID, said, general[k])
			}
		}
	}
	said := map[string]bool{}
	for i := range Presets {
		for k := range Businesses {
			sec := Presets[i].Drawn(&Businesses[k])
			standsIn := StandIns(sec)
			sec.Walk(func(b *doc.Block) {
				words := b.Content.Words.Plain()
				if slices.Contains(Businesses[k].says, words) {
					said[words] = true
					if !standsIn(b) {
						t.Errorf("%s, %s: %q isn't known as a stand-in", Presets[i].ID, Businesses[k].ID, words)
					}
				}
				if slices.Contains(general, words) && !slices.Contains(Businesses[k].says, words) {
					t.Errorf("%s, %s: still says %q", Presets[i].ID, Businesses[k].ID, words)
				}
			})
		}
	}
	if len(said) < 8*15 {
		t.Errorf("only %d of the businesses' words are seen", len(said))
	}
}

// All that can be said by business is said somewhere in a ready-made section.
func TestGeneralWordsAreSaid(t *testing.T) {
	var all strings.Builder
	for i := range Presets {
		p := &doc.Page{Sections: []*doc.Section{Presets[i].Drawn(nil)}}
		all.WriteString(p.Plain() + "\n")
	}
	for _, g := range general {
		if !strings.Contains(all.String(), g) {
			t.Errorf("no ready-made section says %q", g)
		}
	}
}
