package element

import (
	"testing"

	"openplot/core/doc"
	"openplot/core/style"
)

// A picture that goes more slowly looks the same where it is worked on as on the page, and nothing
// of it is beyond its section: what it is moved by would make the page longer.
func TestSlowPicturesAreAlike(t *testing.T) {
	made := func(still bool) *Node {
		b := builder()
		b.Still = still
		sec := section(&doc.Block{Kind: doc.Text, Content: doc.Content{Words: doc.PlainWords("Over it")}})
		sec.Picture = "m1"
		sec.Style = doc.Style{"picture-scroll": {"desktop": "parallax"}, "parallax": {"desktop": "40%"}}
		return b.Section(sec)
	}
	page, canvas := made(false), made(true)
	back, img := page.Children[0], page.find("img")
	for z := range page.Styles {
		if back.Styles[z].Overflow != style.Clip || img.Styles[z].Drift != mostDrift*0.4 ||
			img.Styles[z].Height != style.Percentage(100) {
			t.Errorf(
				"in zone %d: overflow %v, drift %v, height %v",
				z,
				back.Styles[z].Overflow,
				img.Styles[z].Drift,
				img.Styles[z].Height,
			)
		}
		if got, want := canvas.find("img").Styles[z], img.Styles[z]; got.Drift != want.Drift ||
			got.Height != want.Height ||
			got.Inset != want.Inset {
			t.Errorf("in zone %d on the canvas: %v of %v, %v", z, got.Drift, got.Height, got.Inset)
		}
	}
}

// What comes first isn't pulled over the top of the page, and what comes after is.
func TestTheFirstSectionIsntPulled(t *testing.T) {
	b := builder()
	p := &doc.Page{}
	for _, id := range []string{"a", "b"} {
		p.Sections = append(p.Sections, &doc.Section{ID: id, Style: doc.Style{"pull": {"desktop": "40px"}}})
	}
	b.On(p)
	for i, want := range []float64{0, -40} {
		for z, st := range b.Section(p.Sections[i]).Styles {
			if st.Margin.Top.N != want {
				t.Errorf("section %d in zone %d has a margin of %v above, want %v", i, z, st.Margin.Top, want)
			}
		}
	}
}

// Words over a picture can be read before it comes: what has light words gets the palette's dark colour
// behind, unless it was given one or its words can be read on what is there.
func TestWordsOverAPictureCanBeReadWithoutIt(t *testing.T) {
	house := doc.StandardHouse()
	onDeep, deep := house.Swatch("on-deep").Value, house.Swatch("deep").Value
	for _, c := range []struct {
		colour, background, picture, want string
	}{
		{"$on-deep", "", "m1", deep}, {"$on-deep", "$accent", "m1", house.Swatch("accent").Value},
		{"", "", "m1", ""}, {"$on-deep", "", "", ""},
	} {
		sec := section(&doc.Block{Kind: doc.Text, Content: doc.Content{Words: doc.PlainWords("Over it")}})
		sec.Picture, sec.Style = c.picture, doc.Style{}
		if c.colour != "" {
			sec.Style["color"] = doc.Zoned[string]{"desktop": c.colour}
		}
		if c.background != "" {
			sec.Style["background"] = doc.Zoned[string]{"desktop": c.background}
		}
		for z, st := range builder().Section(sec).Styles {
			if st.Background != c.want {
				t.Errorf("%+v in zone %d has %q behind", c, z, st.Background)
			}
			if c.want == deep && st.Color != onDeep {
				t.Errorf("its words are %s", st.Color)
			}
		}
	}
}
