package emit

import (
	"flag"
	"os"
	"path/filepath"
	"reflect"
	"slices"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/style"
)

var update = flag.Bool("update", false, "write the golden files anew")

// Every property that can be emitted is either modelled by package layout or can't
// move a box. A new one has to be put into one of these lists by somebody who
// knows which.
func TestEveryPropertyIsModelledOrOnlyPaints(t *testing.T) {
	modelled := []string{
		"align-content", "align-items", "align-self", "aspect-ratio", "border-width", "column-gap", "display", "flex",
		"flex-direction", "flex-wrap", "float", "font-family", "font-size", "font-style", "font-variant-ligatures", "font-variant-numeric", "font-weight", "grid-auto-columns", "grid-auto-flow",
		"grid-auto-rows", "grid-column", "grid-row", "grid-template-columns", "grid-template-rows", "height", "inset",
		"justify-content", "justify-items", "justify-self", "letter-spacing", "line-height", "margin", "max-height", "max-width",
		"min-height", "min-width", "order", "overflow", "overflow-wrap", "padding", "position", "row-gap", "text-align",
		"text-transform", "text-wrap-style", "white-space", "width",
	}
	paints := []string{
		"--by", "--drift", "--glide", "--sway", "animation", "animation-range", "animation-timeline", "background", "border-color", "border-radius",
		"box-shadow", "clip-path", "color", "filter", "list-style-type", "object-fit", "object-position", "opacity", "rotate", "scale",
		"scroll-padding", "scroll-snap-align", "scroll-snap-type", "text-decoration", "text-decoration-thickness", "text-shadow",
		"text-underline-offset", "transition", "translate", "z-index",
	}
	if got := PaintOnly(); !slices.Equal(got, paints) {
		t.Errorf("properties that only paint: %v, want %v", got, paints)
	}
	var layout []string
	for _, p := range style.Properties {
		if p.Layout {
			layout = append(layout, p.Name)
		}
	}
	slices.Sort(layout)
	if !slices.Equal(layout, modelled) {
		t.Errorf("properties that layout models: %v, want %v", layout, modelled)
	}
}

func site() *doc.Site {
	return &doc.Site{House: doc.StandardHouse(), Zones: doc.StandardZones()}
}

func page() *doc.Page {
	at := func(p doc.Place) doc.Zoned[doc.Place] { return doc.Zoned[doc.Place]{"desktop": p} }
	return &doc.Page{Title: `Fares & <more>`, Sections: []*doc.Section{
		{
			ID: "s1", Role: doc.RoleHeader,
			Blocks: []*doc.Block{
				{
					ID: "b1", Kind: doc.Heading,
					Place:   at(doc.Place{Column: 1, Span: 6, Row: 1, Rows: 1}),
					Content: doc.Content{Level: 1, Words: doc.PlainWords(`<script>alert("x")</script>`)},
				},
			},
		},
		{
			ID:     "s2",
			Anchor: "fares",
			Style:  doc.Style{"background": {"desktop": "$quiet-ground", "phone": "#ffffff"}},
			Blocks: []*doc.Block{
				{ID: "b2", Kind: doc.Text, Place: at(doc.Place{Column: 1, Span: 6, Row: 2, Rows: 1}).With(
					"phone",
					doc.Place{Column: 2, Span: 3, Row: 1, Rows: 2},
				), Style: doc.Style{"font-size": {"phone": "15px"}},
					Content: doc.Content{
						Words: doc.Words{{{Text: "See "}, {Text: "the \"fares\"", Link: "/fares?a=1&b=2", Bold: true}}},
					}},
				{
					ID: "b3", Kind: doc.Picture,
					Place:   at(doc.Place{Column: 7, Span: 6, Row: 1, Rows: 4}),
					Content: doc.Content{Picture: "m1", Alt: `A "boat"`},
				},
				{ID: "b4", Kind: doc.Picture, Place: at(doc.Place{Column: 7, Span: 6, Row: 9, Rows: 4})},
				{
					ID: "b5", Kind: doc.Button,
					Place:   at(doc.Place{Column: 1, Span: 3, Row: 4, Rows: 1}),
					Hidden:  doc.Zoned[bool]{"tablet": true},
					Content: doc.Content{Link: "#fares", Words: doc.Words{{{Text: "Go", Link: "/x"}}}},
				},
			},
		},
		{
			ID: "s3", Hidden: true,
			Blocks: []*doc.Block{
				{
					ID: "b6", Kind: doc.Text,
					Place:   at(doc.Place{Column: 1, Span: 1, Row: 1, Rows: 1}),
					Content: doc.Content{Words: doc.PlainWords("hidden")},
				},
			},
		},
	}}
}

func builder() *element.Builder {
	return &element.Builder{Site: site(), DropEmpty: true, Media: func(id string) (element.Medium, bool) {
		return element.Medium{
			ID: id, Width: 1600, Height: 900,
			Variants: []element.Variant{{URL: "a-480.webp", Width: 480}, {URL: "a-1600.webp", Width: 1600}},
		}, id == "m1"
	}}
}

func TestDocument(t *testing.T) {
	html, css := NewSheet(
		site().Zones,
	).Document(Page{Title: page().Title, Language: "en", Stylesheet: "style.css"}, builder().Page(page()))
	for name, got := range map[string]string{"page.html": html, "page.css": css} {
		file := filepath.Join("testdata", name)
		if *update {
			if err := os.WriteFile(file, []byte(got), 0o644); err != nil {
				t.Fatal(err)
			}
		}
		want, err := os.ReadFile(file)
		if err != nil {
			t.Fatal(err)
		}
		if got != string(want) {
			t.Errorf("%s is\n%s\nwant\n%s\n(-update writes it anew)", name, got, want)
		}
	}
	for _, never := range []string{"<script", "data-block", "data-section", "style=", `hidden</p>`, "b4", "no-picture"} {
		if strings.Contains(html, never) {
			t.Errorf("the page holds %q", never)
		}
	}
	if strings.Count(html, "<main") != 1 || strings.Count(html, "<h1") != 1 || strings.Count(html, "<a ") != 2 {
		t.Error("the page hasn't one main, one h1 and two links")
	}
}

// What a browser would compute from the sheet, zone by zone, must be the style of
// the tree: rules are played in order and compared property by property.
func TestRulesGiveTheComputedStyle(t *testing.T) {
	for name, sheet := range map[string]*Sheet{
		"published": NewSheet(site().Zones), "on the canvas": NewCanvasSheet(site().Zones, "s"),
	} {
		t.Run(name, func(t *testing.T) { computedAsStyled(t, sheet) })
	}
}

func computedAsStyled(t *testing.T, sheet *Sheet) {
	s := site()
	body := builder().Page(page())
	sheet.Write(&strings.Builder{}, body)
	for z := range s.Zones {
		var check func(n *element.Node, inherited map[string]string)
		check = func(n *element.Node, inherited map[string]string) {
			if n.Tag == "" || n.Tag == "br" {
				return
			}
			got := map[string]string{}
			for _, p := range style.Properties {
				got[p.Name] = p.Initial
				if p.Inherited {
					got[p.Name] = inherited[p.Name]
				}
			}
			if d := displays[n.Tag]; d != "" {
				got["display"] = d
			}
			for zone := 0; zone <= z; zone++ {
				set := map[string]bool{} // in this zone, in which the order of rules says nothing
				for _, r := range sheet.rules.zoned[zone] {
					for _, class := range strings.Fields(sheet.of[n]) {
						if r.state != "" || !slices.Contains(r.classes, class) {
							continue
						}
						for _, d := range strings.Split(r.declarations, ";") {
							name, value, _ := strings.Cut(d, ":")
							if set[name] {
								t.Errorf("%s %s: %s is declared twice", n.Key, sheet.of[n], name)
							}
							got[name], set[name] = value, true
						}
					}
				}
			}
			want := map[string]string{}
			for _, p := range style.Properties {
				want[p.Name] = p.Text(sheet.steady(&n.Styles[z], z))
			}
			if !reflect.DeepEqual(got, want) {
				for name := range want {
					if got[name] != want[name] {
						t.Errorf(
							"%s in %s: %s %s is %q, want %q",
							n.Key,
							s.Zones[z].ID,
							n.Tag,
							name,
							got[name],
							want[name],
						)
					}
				}
			}
			for _, c := range n.Children {
				check(c, got)
			}
		}
		initial := map[string]string{}
		for _, p := range style.Properties {
			initial[p.Name] = p.Text(&root)
		}
		check(body, initial)
	}
}

func TestUsedFonts(t *testing.T) {
	used := Used(builder().Page(page()))
	if !used("Hanken Grotesk", false) || !used("Bricolage Grotesque", false) || used("Hanken Grotesk", true) ||
		used("Fraunces", false) {
		t.Error("the fonts used are not those of the words")
	}
}

// Words of another language say so to whoever hears them (WCAG 2.2, 3.1.2 Language of parts), and
// what only the editor reads isn't published.
func TestLanguageOfParts(t *testing.T) {
	s := site()
	p := &doc.Page{Sections: []*doc.Section{{ID: "s", Blocks: []*doc.Block{{
		ID: "b", Kind: doc.Text,
		Content: doc.Content{Words: doc.Words{{
			{Text: "It is called "}, {Text: "Gemütlichkeit", Language: "de", Size: 120, Tracking: 4},
			{Text: " here", Language: `x" onclick="y`},
		}}},
	}}}}}
	var b strings.Builder
	NewSheet(s.Zones).Write(&b, (&element.Builder{Site: s}).Page(p))
	if html := b.String(); !strings.Contains(html, `<span lang="de">Gemütlichkeit</span>`) ||
		strings.Count(html, "lang=") != 1 || strings.Contains(html, "data-") {
		t.Error(html)
	}
}
