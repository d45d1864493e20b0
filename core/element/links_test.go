package element

import (
	"testing"

	"openplot/core/doc"
	"openplot/core/style"
)

// A link takes the house style's colour where that can be read (WCAG 2.2, 1.4.3), and
// that of the words around elsewhere.
func TestLinksCanBeRead(t *testing.T) {
	site := &doc.Site{House: doc.StandardHouse(), Zones: doc.StandardZones()}
	accent, words, onDeep := site.House.Swatch("accent").Value, site.House.Swatch("words").Value, site.House.Swatch("on-deep").Value
	for _, c := range []struct {
		name           string
		look           doc.Style
		colour, hovers string
	}{
		{"on the ground", nil, accent, words},
		{"on a dark fill", Look("background", "$deep"), onDeep, onDeep},
		{"in chosen words", Look("color", "#aa0000"), "#aa0000", "#aa0000"},
		{"in quiet words", Look("color", "$quiet-words"), accent, words},
		{"on a gradient", Look("gradient", "linear 90deg $ground 0%, $quiet-ground 100%"), words, words},
		{"over the next section", Look("over", "yes"), words, words},
	} {
		b := &Builder{Site: site}
		sec := &doc.Section{
			ID: "s", Arrangement: doc.LineUp, Style: c.look,
			Blocks: []*doc.Block{{ID: "b", Kind: doc.Text, Content: doc.Content{Words: doc.Words{{{Text: "there", Link: "/fares"}}}}}},
		}
		found := false
		b.Section(sec).Walk(func(n *Node) {
			if n.Tag != "a" {
				return
			}
			found = true
			if got := n.Styles[0].Color; got != c.colour {
				t.Errorf("%s: %s, want %s", c.name, got, c.colour)
			}
			then := n.Styles[0]
			for _, st := range n.States {
				st.Change(0, &then)
			}
			if then.Color != c.hovers || !then.Underline {
				t.Errorf("%s under the pointer: %s, want %s", c.name, then.Color, c.hovers)
			}
		})
		if !found {
			t.Errorf("%s: no link", c.name)
		}
	}
}

func TestHouseGivesGroundAndGaps(t *testing.T) {
	site := &doc.Site{House: doc.StandardHouse(), Zones: doc.StandardZones()}
	site.House.PageGround, site.House.ColumnGap = "quiet-ground", doc.Zoned[float64]{"desktop": 30, "phone": 10}
	page := (&Builder{Site: site}).Page(&doc.Page{Sections: []*doc.Section{{ID: "s", Arrangement: doc.Columns}}})
	if got := page.Styles[0].Background; got != site.House.Swatch("quiet-ground").Value {
		t.Errorf("the page lies on %s", got)
	}
	page.Walk(func(n *Node) {
		if n.Key == "s-g" && (n.Styles[0].ColumnGap != style.Pixels(30) || n.Styles[2].ColumnGap != style.Pixels(10)) {
			t.Errorf("gaps %v, %v", n.Styles[0].ColumnGap, n.Styles[2].ColumnGap)
		}
	})
}
