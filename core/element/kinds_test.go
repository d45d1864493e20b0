package element

import (
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/style"
	"openplot/core/value"
)

// Every kind has an anatomy that says what the Shelf and the Tray need, builds something
// from what it begins with, and gives each element a key of its own.
func TestEveryKindHasAnAnatomy(t *testing.T) {
	b := builder()
	b.DropEmpty = false
	for _, k := range doc.Kinds {
		a := Of(k)
		if a == nil {
			t.Errorf("%s has no anatomy", k)
			continue
		}
		if a.Name == "" || a.Hint == "" || a.Icon == "" || !slices.Contains(Shelves, a.Shelf) || a.Span < 1 ||
			a.Rows < 1 {
			t.Errorf("%s doesn't say enough of itself: %+v", k, a)
		}
		for _, name := range a.Settings {
			if style.Find(name, k) == nil {
				t.Errorf("%s has no setting %q", k, name)
			}
		}
		n := 0
		bl := Start(k).Anew(func(prefix string) string { n++; return prefix + string(rune('a'+n)) })
		bl.Place = doc.Zoned[doc.Place]{"desktop": {Column: 1, Span: 6, Row: 1, Rows: 1}}
		sec := b.Section(&doc.Section{ID: "s", Blocks: []*doc.Block{bl}})
		if len(sec.Children[0].Children) != 1 {
			t.Errorf("%s builds nothing", k)
		}
		keys := map[string]bool{}
		sec.Walk(func(n *Node) {
			if n.Tag != "" && n.Tag != "br" && n.Tag != "a" {
				if n.Key != "" && keys[n.Key] && !n.Inline() {
					t.Errorf("%s has two elements of the key %s", k, n.Key)
				}
				keys[n.Key] = true
			}
		})
	}
}

// What is entered can't leave its place: values with markup come out as text, in words,
// entries and attributes alike.
func TestEnteredMarkupStaysText(t *testing.T) {
	const evil = `"><script>alert(1)</script>`
	b := builder()
	for _, k := range doc.Kinds {
		bl := Start(k).Anew(func(prefix string) string { return prefix + "1" })
		a := Of(k)
		for _, f := range a.Fields {
			if f.Type != Markup && f.Type != Number && f.Type != Choice {
				bl.Content = With(bl.Content, f.Name, evil)
			}
		}
		for i := range bl.Content.Entries {
			bl.Content.Entries[i].Values = map[string]string{}
			for _, f := range a.Entry {
				bl.Content.Entries[i].Values[f.Name] = evil
			}
		}
		bl.Place = doc.Zoned[doc.Place]{"desktop": {Column: 1, Span: 6, Row: 1, Rows: 1}}
		b.Section(&doc.Section{ID: "s", Blocks: []*doc.Block{bl}}).Walk(func(n *Node) {
			if strings.Contains(n.Raw, "<script") {
				t.Errorf("%s: %s holds it as markup", k, n.Tag)
			}
		})
	}
}

// Rows of equal height, held against a computation of its own: in each row the pictures
// of its height and their gaps are as wide as the row, and no row could end one picture
// earlier or later and be nearer to the height wanted.
func TestEqualHeightRows(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 9))
	for range 500 {
		ratios := make([]float64, 1+r.IntN(14))
		for i := range ratios {
			ratios[i] = 0.4 + 2*r.Float64()
		}
		width, gap, want := 300+900*r.Float64(), 20*r.Float64(), 120+200*r.Float64()
		rows := EqualHeightRows(ratios, width, gap, want)
		next := 0
		for k, row := range rows {
			if row.From != next || row.To <= row.From {
				t.Fatalf("row %d goes from %d to %d, after %d", k, row.From, row.To, next)
			}
			next = row.To
			sum := -gap
			for _, ratio := range ratios[row.From:row.To] {
				sum += ratio*row.Height + gap
			}
			if math.Abs(sum-width) > 1e-6 {
				t.Errorf("row %d is %.3f px wide, not %.3f", k, sum, width)
			}
			of := func(to int) float64 { // the height that makes pictures from the row's first up to another fill it
				lo, hi := 0.0, 1e5
				for range 80 { // by halving, not by the formula
					h := (lo + hi) / 2
					w := gap * float64(to-row.From-1)
					for _, ratio := range ratios[row.From:to] {
						w += ratio * h
					}
					if w > width {
						hi = h
					} else {
						lo = h
					}
				}
				return lo
			}
			if row.To < len(ratios) && math.Abs(of(row.To+1)-want) < math.Abs(row.Height-want)-1e-6 {
				t.Errorf("row %d would be nearer to %.1f with one picture more", k, want)
			}
			if row.To-row.From > 1 && math.Abs(of(row.To-1)-want) < math.Abs(row.Height-want)-1e-6 {
				t.Errorf("row %d would be nearer to %.1f with one picture less", k, want)
			}
		}
		if next != len(ratios) {
			t.Errorf("%d of %d pictures are in rows", next, len(ratios))
		}
	}
}

func TestColumnsOfAGallery(t *testing.T) {
	var shots []shot
	for _, size := range [][2]int{{100, 200}, {100, 50}, {100, 50}, {100, 100}} {
		shots = append(shots, shot{medium: Medium{Width: size[0], Height: size[1]}, index: len(shots)})
	}
	var got [][]int
	for _, c := range columnsOf(shots, 2) {
		var ids []int
		for _, s := range c {
			ids = append(ids, s.index)
		}
		got = append(got, ids)
	}
	if len(got) != 2 || !slices.Equal(got[0], []int{0}) || !slices.Equal(got[1], []int{1, 2, 3}) {
		t.Errorf("columns %v: each picture goes where least height is", got)
	}
}

func TestTableCells(t *testing.T) {
	rows := Rows("a\tb\tc\nd\n\te")
	if len(rows) != 3 || !slices.Equal(rows[1], []string{"d", "", ""}) ||
		!slices.Equal(rows[2], []string{"", "e", ""}) {
		t.Errorf("%q", rows)
	}
	tracks := columnShares([][]string{{"a", strings.Repeat("x", 64)}, {"bb", ""}})
	if tracks[0].Fr != 2 || tracks[1].Fr != 8 {
		t.Errorf("shares %v and %v, want the square roots of 4 and 64", tracks[0].Fr, tracks[1].Fr)
	}
}

func TestMenuFoldsAndKnowsWhereItIs(t *testing.T) {
	b := builder()
	b.Pages, b.Here = []PageLink{{Name: "Home"}, {Slug: "fares", Name: "Fares"}}, "fares"
	bl := &doc.Block{
		ID:    "b1",
		Kind:  doc.Menu,
		Place: doc.Zoned[doc.Place]{"desktop": {Column: 1, Span: 6, Row: 1, Rows: 1}},
	}
	nav := b.Section(&doc.Section{ID: "s", Blocks: []*doc.Block{bl}}).Children[0].Children[0]
	button, list := nav.find("button"), nav.find("ul")
	if button.Styles[0].Display != style.None || button.Styles[2].Display == style.None ||
		list.Styles[0].Display == style.None ||
		list.Styles[2].Display != style.None {
		t.Error("it isn't folded on the phone alone")
	}
	own := &doc.Block{
		ID:   "b1",
		Kind: doc.Menu,
		Content: doc.Content{
			Values:  map[string]string{"from": "own"},
			Entries: []doc.Entry{{Values: map[string]string{"link": "/fares _blank"}}},
		},
	}
	if got := b.Section(&doc.Section{ID: "s", Blocks: []*doc.Block{own}}).find("a").Children[0].Text; got != "Fares" {
		t.Errorf("a link without a label is called %q", got)
	}
	for word, want := range map[string][3]bool{
		value.Never:     {},
		value.Narrowest: {false, false, true},
		value.Narrower:  {false, true, true},
		value.Always:    {true, true, true},
	} {
		bl := &doc.Block{ID: "b1", Kind: doc.Menu, Place: bl.Place, Style: Look("menu-folds", word)}
		list := b.Section(&doc.Section{ID: "s", Blocks: []*doc.Block{bl}}).find("ul")
		for z := range want {
			if got := list.Styles[z].Display == style.None; got != want[z] {
				t.Errorf("%s: folded in zone %d: %v", word, z, got)
			}
		}
	}
	if button.value("popovertarget") != list.value("id") {
		t.Error("the button opens something else")
	}
	here := 0
	nav.Walk(func(n *Node) {
		if n.value("aria-current") == "page" {
			here++
			if n.value("href") != "/fares" {
				t.Errorf("%s is said to be the page", n.value("href"))
			}
		}
	})
	if here != 1 {
		t.Errorf("%d links are said to be the page", here)
	}
}

func TestDarkGroundsGetReadableButtons(t *testing.T) {
	b := builder()
	b.Media = func(id string) (Medium, bool) {
		return Medium{
			ID:       id,
			Width:    1600,
			Height:   900,
			Variants: []Variant{{URL: "p", StyleURL: "p", Width: 1600}},
		}, id != ""
	}
	for _, c := range []struct{ picture, name, value, want string }{
		{"", "background", "$ground", "#1d5f6b"}, {"", "background", "$deep", "#f3f7f6"}, {"", "over", "yes", "#f3f7f6"},
		{"p", "background-size", "cover", "#f3f7f6"}, {"p", "picture-scroll", "parallax", "#f3f7f6"},
	} {
		bl := &doc.Block{
			ID: "b1", Kind: doc.Button,
			Style:   Look("button-look", "outlined"),
			Place:   doc.Zoned[doc.Place]{"desktop": {Column: 1, Span: 6, Row: 1, Rows: 1}},
			Content: doc.Content{Words: doc.PlainWords("x")},
		}
		sec := &doc.Section{
			ID:      "s",
			Picture: c.picture,
			Style:   Look(c.name, c.value, "color", "$on-deep"),
			Blocks:  []*doc.Block{bl},
		}
		if got := b.Section(sec).find("a").Styles[0].Color; got != c.want {
			t.Errorf(
				"on a section with %s %s and the picture %q an outlined button is %s, want %s",
				c.name,
				c.value,
				c.picture,
				got,
				c.want,
			)
		}
	}
}

// In a line that doesn't wrap a button keeps its words on one line as long as what stands
// beside it can give way.
func TestButtonsGiveWayLast(t *testing.T) {
	b := builder()
	for wrap, want := range map[string]float64{value.NoWrap: 0.05, value.Wrap: 1} {
		sec := &doc.Section{
			ID:          "s",
			Arrangement: doc.LineUp,
			Style:       Look("direction", "row", "wrap", wrap),
			Blocks: []*doc.Block{
				{ID: "b1", Kind: doc.Text, Content: doc.Content{Words: doc.PlainWords("words")}}, {
					ID: "b2", Kind: doc.Button,
					Content: doc.Content{Words: doc.PlainWords("Ask us")},
				},
			},
		}
		b.Section(sec).Walk(func(n *Node) {
			if got := n.Styles[0].FlexShrink.Value(); n.Block == "b2" && got != want || n.Block == "b1" && got != 1 {
				t.Errorf("%s: %s shrinks by %v", wrap, n.Block, got)
			}
		})
	}
}

// TestWordsByZone has a heading say something shorter on phones: one element with both, of which
// one is displayed in each zone.
func TestWordsByZone(t *testing.T) {
	zs := doc.StandardZones()
	s := &doc.Site{Zones: zs}
	h := &doc.Block{ID: "h", Kind: doc.Heading, Content: doc.Content{
		Level: 2, Words: doc.PlainWords("Boats to all islands, every day"),
		Instead: doc.Zoned[doc.Words]{"phone": doc.PlainWords("Daily boats"), "watch": doc.PlainWords("of no zone")},
	}}
	b := &Builder{Site: s}
	n := b.Section(&doc.Section{ID: "s", Arrangement: doc.LineUp, Blocks: []*doc.Block{h}})
	var at *Node
	n.Walk(func(c *Node) {
		if c.Block == "h" {
			at = c
		}
	})
	if at.Tag != "h2" || len(at.Children) != 2 || !at.Inline() {
		t.Fatalf("%s with %d children", at.Tag, len(at.Children))
	}
	for z, want := range []int{0, 0, 1} {
		for i, c := range at.Children {
			if shown := c.Styles[z].Display != style.None; shown != (i == want) {
				t.Errorf("%s: %q is shown: %v", zs[z].ID, c.Children[0].Text, shown)
			}
		}
	}
	h.Content.Instead = nil
	if n = b.Section(&doc.Section{ID: "s", Arrangement: doc.LineUp, Blocks: []*doc.Block{h}}); n.Children[0].Children[0].Children[0].Tag != "" {
		t.Error("words that are the same everywhere stand in an element of their own")
	}
	if Varies(doc.Table, doc.Content{}) || Varies(doc.Text, doc.Content{Picture: "m"}) {
		t.Error("what can't differ does")
	}
}
