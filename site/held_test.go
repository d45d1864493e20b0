package site

import (
	"encoding/json"
	"slices"
	"strings"
	"testing"

	"golang.org/x/net/html"

	"openplot/core/doc"
	"openplot/demo"
	"openplot/store"
)

// hostileTexts are words that are commands to browsers: tags, attributes, addresses, ends of
// elements, style rules.
var hostileTexts = []string{
	`"><script>zq()</script>`, `' onload='zq()`, `</style><script>zq()</script>`, `</title></head><script>zq()</script>`, `<svg onload=zq()>`, `<iframe srcdoc="<script>zq()</script>">`,
	`javascript:zq()`, "java\tscript:zq()", `data:text/html,<script>zq()</script>`, `red;}*{background:url(https://zq.example/)}`, `url(https://zq.example/)`, `</script><script>zq()</script>`,
	`--><script>zq()</script>`, "zq\u2028zq\x7f", `\";zq();//`, `expression(zq())`,
}

// hostile makes every text of a page one of those, but for what says what things are.
func hostile(t *testing.T, p *doc.Page, payload string) *doc.Page {
	t.Helper()
	b, err := json.Marshal(p)
	if err != nil {
		t.Fatal(err)
	}
	var tree any
	if err := json.Unmarshal(b, &tree); err != nil {
		t.Fatal(err)
	}
	keep := []string{"id", "kind", "arrangement", "item", "as", "role"}
	var change func(v any, name string) any
	change = func(v any, name string) any {
		switch v := v.(type) {
		case map[string]any:
			for k, in := range v {
				v[k] = change(in, k)
			}
		case []any:
			for i := range v {
				v[i] = change(v[i], name)
			}
		case string:
			if !slices.Contains(keep, name) {
				return payload
			}
		}
		return v
	}
	if b, err = json.Marshal(change(tree, "")); err != nil {
		t.Fatal(err)
	}
	out := new(doc.Page)
	if err := json.Unmarshal(b, out); err != nil {
		t.Fatal(err)
	}
	return out
}

// Whatever a page's texts and values are, also such as nobody could enter, what is published and
// shown is words and no commands.
func TestHostileTextsArePublishedAsWords(t *testing.T) {
	s := demo.Site()
	specimens, err := demo.Specimens(s, []string{"m1", "m2", "m3", "m4"})
	if err != nil {
		t.Fatal(err)
	}
	pages := specimens
	for _, p := range demo.Pages(nil) {
		pages = append(pages, p.Page)
	}
	kinds := map[doc.Kind]bool{}
	for i, p := range pages {
		for _, sec := range p.Sections {
			sec.Walk(func(b *doc.Block) { kinds[b.Kind] = true })
		}
		for k := range 4 { // each page with some, all with all
			payload := hostileTexts[(i*5+k*3)%len(hostileTexts)]
			bad := hostile(t, p, payload)
			of := *s
			of.Name, of.Facts.Phone, of.Facts.Mail, of.Facts.Address = payload, payload, payload, payload
			src := Source{
				Site: &of,
				Pages: []*store.PageInfo{
					{
						ID:          "x",
						Slug:        "fares",
						Name:        payload,
						Description: payload,
						Placing:     store.Placing{InMenu: true, MenuName: payload},
					},
				},
			}
			a := Addresses{
				Media:      "m/",
				StyleMedia: "m/",
				Fonts:      "f/",
				Self:       "https://skerry.example/fares/",
				Origin:     "https://skerry.example",
				Script:     func(n string) string { return n + ".js" },
				Embed:      func(f string) string { return "https://own.example/" + f },
			}
			r := src.Render("fares", bad, a)
			if found := commands(r.HTML); found != "" {
				t.Errorf("%s with %q: %s", p.Name, payload, found)
			}
			if strings.Contains(r.CSS, "zq.example") || strings.Contains(r.CSS, "</") ||
				strings.Contains(strings.ToLower(r.CSS), "zq()") {
				t.Errorf("%s with %q: a style sheet with it", p.Name, payload)
			}
			for _, o := range r.Frames() {
				if o != "https://own.example" {
					t.Errorf("%s with %q: a frame of %s", p.Name, payload, o)
				}
			}
		}
	}
	if len(kinds) < len(doc.Kinds) {
		for _, k := range doc.Kinds {
			if !kinds[k] {
				t.Errorf("no page has a %s", k)
			}
		}
	}
}

// Frames gives what Frames does of a page.
func (r Rendered) Frames() []string { return Frames(r.Body) }

// commands gives what of a page's text a browser would take for a command, or "".
func commands(text string) string {
	root, err := html.Parse(strings.NewReader(text))
	if err != nil {
		return err.Error()
	}
	for n := range root.Descendants() {
		if n.Type == html.TextNode && n.Parent.Data == "script" && strings.Contains(n.Data, "zq") &&
			!slices.Contains(n.Parent.Attr, html.Attribute{Key: "type", Val: "application/ld+json"}) {
			return "a script: " + n.Data
		}
		if n.Type == html.TextNode && n.Parent.Data == "style" && strings.Contains(n.Data, "zq") {
			return "a style sheet: " + n.Data
		}
		if n.Type != html.ElementNode {
			continue
		}
		for _, a := range n.Attr {
			value := strings.ToLower(strings.Map(func(r rune) rune { // as browsers read addresses (URL Standard §4.4)
				if r == '\t' || r == '\n' || r == '\r' {
					return -1
				}
				return r
			}, strings.TrimSpace(a.Val)))
			address := slices.Contains(
				[]string{"href", "src", "action", "formaction", "data", "poster", "xlink:href"},
				a.Key,
			)
			if strings.HasPrefix(a.Key, "on") || a.Key == "srcdoc" ||
				a.Key == "style" && strings.Contains(value, "zq") ||
				address &&
					(strings.HasPrefix(value, "javascript:") || strings.HasPrefix(value, "data:text") || strings.HasPrefix(value, "vbscript:")) {
				return "<" + n.Data + " " + a.Key + "=" + a.Val + ">"
			}
		}
	}
	return ""
}
