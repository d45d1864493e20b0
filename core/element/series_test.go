package element

import (
	"strings"
	"testing"

	"openplot/core/doc"
)

// told is a section with a heading and a Series of two, with a style and a list of its own.
func told(list string, look ...string) *doc.Section {
	s := Start(doc.Series).Anew(func(prefix string) string { return prefix + "1" })
	s.Style, s.Content = Look(look...), With(s.Content, "list", list)
	return &doc.Section{ID: "s", Arrangement: doc.LineUp, Blocks: []*doc.Block{
		{ID: "h0", Kind: doc.Heading, Content: doc.Content{Level: 2, Words: doc.PlainWords("From the pier")}}, s,
	}}
}

// A Series is the list that its items make (HTML §4.4.5 to 4.4.8): steps come in an order, and news
// are articles.
func TestSeriesAreListsOfAKind(t *testing.T) {
	for as, want := range map[string][2]string{
		"": {"ul", "div"}, "ordered": {"ol", "div"}, "articles": {"ul", "article"},
	} {
		n := builder().Section(told(as)).find(want[0])
		if n == nil || n.value("role") != "list" {
			t.Errorf("%q is no list of the tag %s", as, want[0])
			continue
		}
		for _, li := range n.Children {
			if li.Tag != "li" || li.Children[0].Tag != want[1] {
				t.Errorf("%q has a %s in a %s, want %s", as, li.Children[0].Tag, li.Tag, want[1])
			}
		}
	}
}

// A slider is named by what stands above it, is reached by keys, goes to the window's edges, and is
// gone through by two buttons as well (WCAG 2.2, 2.1.1, 2.5.7, 4.1.2); elsewhere the buttons aren't
// there.
func TestSlidersHaveANameAndButtons(t *testing.T) {
	sec := told("", "run@phone", "slider")
	n := builder().Section(sec)
	list, zones := n.find("ul"), doc.StandardZones()
	if list.value("aria-label") != "From the pier" || list.value("tabindex") != "0" {
		t.Errorf("the slider is called %q", list.value("aria-label"))
	}
	var names []string
	for _, b := range n.all("button") {
		names = append(names, b.value("aria-label"))
	}
	if got := strings.Join(names, ", "); got != "Previous: From the pier, Next: From the pier" {
		t.Errorf("its buttons are %s", got)
	}
	steps := n.all("button")
	row := n.Children[0].Children[1].Children[1]
	for z := range zones {
		phone := zones[z].ID == "phone"
		if shown := row.Styles[z].Display != 5; shown != phone {
			t.Errorf("in %s the buttons are shown: %v", zones[z].ID, shown)
		}
		if bleeds := list.Styles[z].Margin.Left.N < 0; bleeds != phone {
			t.Errorf("in %s it goes beyond its place: %v", zones[z].ID, bleeds)
		}
		if s := steps[0].Styles[z]; s.Width.N < 24 || s.Height.N < 24 { // WCAG 2.2, 2.5.8
			t.Errorf("a button is %v by %v", s.Width, s.Height)
		}
	}
	sec.Blocks[1].Name = "Boats"
	if got := builder().Section(sec).find("ul").value("aria-label"); got != "Boats" {
		t.Errorf("with a name of its own it is called %q", got)
	}
	// What fills its ground, or doesn't take all of its section, stays in its place.
	for _, look := range [][2]string{{"background", "$quiet-ground"}, {"padding-left", "20px"}, {"width", "400px"}} {
		n := builder().Section(told("", "run", "slider", look[0], look[1]))
		if m := n.find("ul").Styles[0].Margin; m.Left.N != 0 {
			t.Errorf("with %s it goes beyond its place by %v", look[0], m.Left)
		}
	}
}

// A large picture has the name, the picture's words and the caption, is closed by a button, and leads
// to those beside it (ARIA Authoring Practices, dialog); the first has none before it, the last none
// behind.
func TestLargePicturesLeadOn(t *testing.T) {
	g := &doc.Block{ID: "g", Kind: doc.Gallery}
	for _, caption := range []string{"At the pier", "", "At sea"} {
		g.Content.Entries = append(g.Content.Entries, doc.Entry{
			Values: map[string]string{"picture": "m1", "caption": caption, "alt": "A boat"},
		})
	}
	b := builder()
	n := b.Section(section(g))
	var leads []string
	for _, over := range n.all("div") {
		if over.value("role") != "dialog" {
			continue
		}
		if over.value("aria-label") != "A boat" || over.find("img").value("alt") != "A boat" {
			t.Errorf(
				"the large picture is called %q and says %q",
				over.value("aria-label"),
				over.find("img").value("alt"),
			)
		}
		from := ""
		for _, button := range over.all("button") {
			if to := button.value("data-shows"); to != "" {
				from += button.value("data-way") + to[len(to)-1:]
			} else if button.value("popovertarget") != over.value("id") || button.value("aria-label") != "Close" {
				t.Errorf("what closes it is %v", button.Attrs)
			}
		}
		if said := over.find("figcaption"); (said == nil) != (from == "back1on3") {
			t.Errorf("the caption of %s is %v", from, said)
		}
		leads = append(leads, from)
	}
	if got := strings.Join(leads, " "); got != "on2 back1on3 back2" {
		t.Errorf("large pictures lead %s", got)
	}
	if n.find("ul").find("figure").find("figcaption") == nil {
		t.Error("a caption in the gallery is none of a figure")
	}
}

// Where nobody writes, a paragraph has nothing around it, and what says nothing isn't there.
func TestNothingIsWrappedForNothing(t *testing.T) {
	words := doc.PlainWords("Boats go daily.")
	for _, c := range []struct {
		drop bool
		bl   *doc.Block
		want string
	}{
		{true, &doc.Block{Kind: doc.Text, Content: doc.Content{Words: words}}, "p"},
		{false, &doc.Block{Kind: doc.Text, Content: doc.Content{Words: words}}, "div"},
		{true, &doc.Block{Kind: doc.Text, Content: doc.Content{Words: append(words, words...)}}, "div"},
		{true, &doc.Block{Kind: doc.SiteFacts, Content: doc.Content{Values: map[string]string{
			"address": "hidden", "hours": "hidden", "phone": "hidden", "mail": "hidden",
		}}}, ""},
	} {
		b := builder()
		b.DropEmpty = c.drop
		got := ""
		b.Section(section(c.bl)).Walk(func(n *Node) {
			if n.Block == "b1" {
				got = n.Tag
			}
		})
		if got != c.want {
			t.Errorf("a %s is a %q, want %q", c.bl.Kind, got, c.want)
		}
	}
}

// A list of pages is a slider as a Series is one, with the same name, keys and buttons; where no page is
// to be listed who composes is told so, and visitors see nothing.
func TestPageListsSlide(t *testing.T) {
	listed := func(drop bool, values ...string) *Node {
		b := builder()
		b.DropEmpty = drop
		b.Pages = []PageLink{
			{Slug: "", Name: "Home"},
			{Slug: "may", Name: "May"},
			{Slug: "june", Name: "June", Categories: []string{"News"}},
		}
		c := doc.Content{}
		for i := 0; i+1 < len(values); i += 2 {
			c = With(c, values[i], values[i+1])
		}
		return b.Section(&doc.Section{ID: "s", Arrangement: doc.LineUp, Blocks: []*doc.Block{
			{ID: "h0", Kind: doc.Heading, Content: doc.Content{Level: 2, Words: doc.PlainWords("From the pier")}},
			{ID: "l", Kind: doc.PageList, Style: Look("run", "slider", "per-row", "3"), Content: c},
		}})
	}
	n := listed(true)
	list := n.find("ul")
	if list == nil || list.value("aria-label") != "From the pier" || list.value("tabindex") != "0" ||
		len(n.all("button")) != 2 {
		t.Fatalf("a list of pages is no slider: %+v", list)
	}
	if len(list.Children) != 2 || list.Styles[0].ScrollSnapType == "" ||
		list.Children[0].Styles[0].ScrollSnapAlign != "start" {
		t.Errorf("%d slides, which snap %q", len(list.Children), list.Styles[0].ScrollSnapType)
	}
	if n := listed(true, "category", "Boats"); n.find("ul") != nil || n.find("p") != nil {
		t.Error("visitors see a list of nothing")
	}
	if n := listed(false, "category", "Boats"); n.find("p") == nil ||
		!strings.Contains(n.find("p").Children[0].Text, "No page has this category yet") {
		t.Error("who composes isn't told that there is nothing to list")
	}
}
