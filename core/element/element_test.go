package element

import (
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/style"
)

func builder() *Builder {
	return &Builder{
		Site: &doc.Site{House: doc.StandardHouse(), Zones: doc.StandardZones()},
		Media: func(id string) (Medium, bool) {
			return Medium{
				ID: id, Width: 1920, Height: 1080, Alt: "From the library",
				Variants: []Variant{{"a-480", "s-480", 480}, {"a-960", "s-960", 960}, {"a-1920", "s-1920", 1920}},
			}, id == "m1"
		},
		DropEmpty: true,
	}
}

func section(blocks ...*doc.Block) *doc.Section {
	for i, b := range blocks {
		b.ID = "b" + string(rune('1'+i))
		if b.Place == nil {
			b.Place = doc.Zoned[doc.Place]{"desktop": {Column: 1, Span: 6, Row: 1 + i, Rows: 1}}
		}
	}
	return &doc.Section{ID: "s1", Blocks: blocks}
}

func (n *Node) find(tag string) (found *Node) {
	n.Walk(func(n *Node) {
		if n.Tag == tag && found == nil {
			found = n
		}
	})
	return found
}

func (n *Node) value(name string) string {
	for _, a := range n.Attrs {
		if a.Name == name {
			return a.Value
		}
	}
	return ""
}

func TestDocumentOrderIsReadingOrder(t *testing.T) {
	at := func(row int) doc.Zoned[doc.Place] {
		return doc.Zoned[doc.Place]{"desktop": {Column: 1, Span: 12, Row: row, Rows: 1}}
	}
	s := section(
		&doc.Block{Kind: doc.Text, Place: at(5), Content: doc.Content{Words: doc.PlainWords("last")}},
		&doc.Block{Kind: doc.Heading, Place: at(1), Content: doc.Content{Words: doc.PlainWords("first")}})
	grid := builder().Section(s).Children[0]
	if grid.Children[0].Block != "b2" || grid.Children[1].Block != "b1" {
		t.Errorf("%s before %s", grid.Children[0].Block, grid.Children[1].Block)
	}
}

func TestPicture(t *testing.T) {
	b := builder()
	n := b.Section(section(&doc.Block{Kind: doc.Picture, Content: doc.Content{Picture: "m1", Link: "/fares"}}))
	img := n.find("img")
	if n.find("a").value("href") != "/fares" || img.value("alt") != "From the library" ||
		img.value("width") != "1920" ||
		img.value("srcset") != "a-480 480w, a-960 960w, a-1920 1920w" {
		t.Errorf("%+v", img.Attrs)
	}
	if !strings.Contains(img.value("sizes"), "min(50vw, 540px)") {
		t.Errorf("sizes %q: half of the columns on the desktop", img.value("sizes"))
	}
	if n = b.Section(section(&doc.Block{Kind: doc.Picture})); n.find("img") != nil {
		t.Error("a picture that isn't chosen is published")
	}
	b.DropEmpty = false
	if n = b.Section(section(&doc.Block{Kind: doc.Picture})); n.find("img").value("src") != EmptyPicture {
		t.Error("the canvas has no stand-in")
	}
}

func TestBackdropSuitsTheZone(t *testing.T) {
	s := section()
	s.Picture = "m1"
	n := builder().Section(s)
	for z, want := range []string{"s-1920", "s-1920", "s-960"} { // up to 1023 and 639 px wide
		if got := n.Styles[z].BackgroundURL; got != want {
			t.Errorf("zone %d has %s, want %s", z, got, want)
		}
	}
}

func TestButtonsHoldNoLinks(t *testing.T) {
	n := builder().Section(section(&doc.Block{Kind: doc.Button, Content: doc.Content{Link: "/a", Words: doc.Words{{{Text: "x", Link: "/b"}}}}}))
	links := 0
	n.Walk(func(n *Node) {
		if n.Tag == "a" {
			links++
		}
	})
	if links != 1 {
		t.Errorf("%d links in a button", links)
	}
}

func TestLandmarks(t *testing.T) {
	with := func(id string, r doc.Role, hidden bool) *doc.Section {
		return &doc.Section{ID: id, Role: r, Hidden: hidden}
	}
	body := builder().Page(&doc.Page{Sections: []*doc.Section{
		with(
			"a", doc.RoleHeader, false,
		), with("h", doc.RoleMain, true), with("b", doc.RoleMain, false), with(
			"c", doc.RoleFooter, false,
		), with("d", doc.RoleMain, false), with("e", doc.RoleFooter, false),
	}})
	// Only what a heading names is a section (HTML §4.3.3).
	named := with("n", doc.RoleMain, false)
	named.Blocks = []*doc.Block{
		{ID: "t", Kind: doc.Heading, Content: doc.Content{Level: 2, Words: doc.PlainWords("Fares")}},
	}
	if n := builder().Page(&doc.Page{Sections: []*doc.Section{named}}); n.find("section") == nil {
		t.Error("a section with a heading isn't one")
	}
	var got []string
	for _, c := range body.Children {
		got = append(got, c.Tag)
		for _, k := range c.Children {
			if c.Tag == "main" {
				got = append(got, "-"+k.Tag)
			}
		}
	}
	if s := strings.Join(got, " "); s != "header main -div -div -div footer" {
		t.Errorf("%s", s)
	}
}

// Whatever a setting holds that a house style no longer has reads as unset.
func TestLostTokensReadAsUnset(t *testing.T) {
	blk := &doc.Block{
		Kind: doc.Text,
		Style: doc.Style{
			"padding-top": {"desktop": "$gone"},
			"background":  {"desktop": "$gone"},
			"text-style":  {"desktop": "$gone"},
		},
		Content: doc.Content{Words: doc.PlainWords("x")},
	}
	st := builder().Section(section(blk)).Children[0].Children[0].Styles[0]
	if st.Padding.Top != style.Pixels(0) || st.Background != "" || st.FontSize != style.Pixels(17) {
		t.Errorf("%+v", st)
	}
}

func TestHiddenInAZone(t *testing.T) {
	blk := &doc.Block{
		Kind:    doc.Text,
		Hidden:  doc.Zoned[bool]{"tablet": true, "phone": false},
		Content: doc.Content{Words: doc.PlainWords("x")},
	}
	ss := builder().Section(section(blk)).Children[0].Children[0].Styles
	if ss[0].Display == style.None || ss[1].Display != style.None || ss[2].Display == style.None {
		t.Error("hidden on the tablet alone is something else")
	}
	blk.Hidden = doc.Zoned[bool]{"desktop": true}
	if n := builder().Section(section(blk)).Children[0]; len(n.Children) != 0 {
		t.Error("what is hidden everywhere is published")
	}
}

// Each kind is made of the element that says what it is (HTML, the elements of §4.4
// and §4.3.6 to 4.3.8).
func TestSemanticElements(t *testing.T) {
	for _, tt := range []struct {
		kind  doc.Kind
		style doc.Style
		want  string
	}{
		{doc.List, nil, "ul li li"},
		{doc.List, doc.Style{"list-marks": {"desktop": "decimal"}}, "ol li li"},
		{doc.List, doc.Style{"list-marks": {"desktop": "none"}}, "ul[list] li li"},
		{doc.Quote, nil, "blockquote p p"},
		{doc.Divider, nil, "hr"},
		{doc.Text, nil, "div p p"},
	} {
		n := builder().Section(
			section(&doc.Block{Kind: tt.kind, Style: tt.style, Content: doc.Content{Words: doc.PlainWords("one", "two")}}),
		).Children[0].Children[0]
		got := n.Tag
		for _, a := range n.Attrs {
			if a.Name == "role" {
				got += "[" + a.Value + "]"
			}
		}
		for _, c := range n.Children {
			got += " " + c.Tag
		}
		if got != tt.want {
			t.Errorf("a %s with %v is %q, want %q", tt.kind, tt.style, got, tt.want)
		}
	}
	// An empty list keeps an item, since one without any is invalid.
	if n := builder().Section(section(&doc.Block{Kind: doc.List})).Children[0].Children[0]; len(n.Children) != 1 {
		t.Errorf("an empty list has %d items", len(n.Children))
	}
}
