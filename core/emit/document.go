package emit

import (
	"html"
	"maps"
	"slices"
	"strings"

	"openplot/core/element"
	"openplot/core/style"
)

// reset comes first in every style sheet; style.Style's zero values and
// style.Properties' initial values assume it. Text is set so that package shape
// can know its widths to the 1/64 px.
const reset = `*,::before,::after{box-sizing:border-box;margin:0;padding:0;border:0 solid}
html{-webkit-text-size-adjust:100%;text-size-adjust:100%}
body{font-kerning:normal;text-rendering:geometricPrecision;font-synthesis:none;font-optical-sizing:auto}
h1,h2,h3,h4,h5,h6,strong{font-size:inherit;font-weight:inherit}
em{font-style:inherit}
a{color:inherit;text-decoration:none}
:focus-visible{outline:3px solid currentcolor;outline-offset:3px}
ol,ul{list-style:none}
img{display:block;height:auto}
`

// resets are those parts of the reset that only some elements need, in the order they
// are written.
var resets = []struct {
	tags []string
	css  string
}{
	{[]string{"svg", "iframe", "video"}, "svg,iframe,video{display:block;height:auto}\n"},
	{
		[]string{"input", "select", "textarea", "button"},
		"button,input,select,textarea{display:block;font:inherit;letter-spacing:inherit;text-transform:inherit;color:inherit;background:none;border-radius:0;appearance:none;text-align:inherit}\ntextarea{resize:vertical}\nbutton{cursor:pointer}\n",
	},
	// The img in it is laid out as if it stood there by itself.
	{[]string{"fieldset"}, "fieldset{min-width:0}\n"},
	{[]string{"picture"}, "picture{display:contents}\n"},
	{[]string{"button[hidden]"}, "button[hidden]{display:none}\n"},
	// A script leads through steps, and shows fields when they are wanted.
	{
		[]string{"[data-step]", "[data-when]"},
		":is([data-step],[data-stepping],[data-end],[data-when],[data-only])[hidden]{display:none!important}\n",
	},
	{[]string{"input[hidden]"}, "input[hidden]{display:none}\n"},
	{[]string{"summary"}, "summary{cursor:pointer}\nsummary::-webkit-details-marker{display:none}\n"},
	{[]string{"address", "cite"}, "address,cite{font-style:inherit}\n"},
	{[]string{"th"}, "th{font-weight:inherit;text-align:inherit}\n"},
	{[]string{"caption"}, "caption{text-align:inherit}\n"},
	{
		[]string{"[popover]"},
		"[popover]{position:static;inset:auto;width:auto;height:auto;overflow:visible;color:inherit;background:none}\n",
	},
	// Without a script all panels of tabs are shown.
	{[]string{"[role=tabpanel]"}, "@media (scripting:none){[role=tabpanel][hidden]{display:block}}\n"},
	// What only a script can do isn't there without one.
	{[]string{"[data-scripted]"}, "@media (scripting:none){[data-scripted]{display:none}}\n"},
	// What pointing shows is shown to keys, and always where nothing can be pointed at.
	{
		[]string{"[data-hover]"},
		":focus-visible>[data-hover][data-hover]{opacity:1}\n@media (hover:none){[data-hover][data-hover]{opacity:1}}\n",
	},
	// One view of a page is seen at a time, the first unless another is gone to.
	{
		[]string{"[data-view]"},
		`@media screen{[data-view]:not([data-view=first],:target,:has(:target)){display:none}
main:has(>[data-view=other]:target,>[data-view=other] :target)>[data-view=first]{display:none}}
`,
	},
	// What drifts is higher than its box, so that no edge of it comes into sight.
	{
		[]string{"[data-drift]"},
		`@media (prefers-reduced-motion:no-preference){@supports (animation-timeline:view()){img[data-drift]{top:calc(-100%*var(--drift));height:calc(100% + 200%*var(--drift))}}}
`,
	},
	// Where readers choose all colours (CSS Color Adjustment 1 §3), what fills say is said by lines.
	{
		[]string{"[data-button]", "button"},
		"@media (forced-colors:active){[data-button],button{outline:1px solid ButtonText}[role=tab][aria-selected=true]{outline:2px solid Highlight;outline-offset:-4px}}\n",
	},
	{
		[]string{"input", "[role=progressbar]"},
		"@media (forced-colors:active){input:checked,[role=progressbar],[role=progressbar]>*{forced-color-adjust:none}}\n",
	},
	{[]string{"audio"}, "audio{display:block}\n"},
	{[]string{"small"}, "small{font-size:inherit}\n"},
	{[]string{"sup"}, "sup{font-size:inherit;vertical-align:baseline}\n"},
	{[]string{"code"}, "code{font:inherit}\n"},
}

// reveal are the steps of style.Style's Reveal, over the first screenful of scrolling.
const reveal = "@media (prefers-reduced-motion:no-preference){@keyframes reveal{0%{transform:none}10%,90%{transform:translateY(-110%)}100%{transform:none}}}\n"

// drift are the steps of style.Style's Drift, while the section goes by; there are none
// for those who mind motion.
const drift = "@media (prefers-reduced-motion:no-preference){@keyframes drift{from{transform:translateY(calc(-100%*var(--drift)/(1 + 2*var(--drift))))}to{transform:translateY(calc(100%*var(--drift)/(1 + 2*var(--drift))))}}}\n"

// glide are the steps of style.Style's Glide, while the picture goes by; there are none for
// those who mind motion.
const glide = "@media (prefers-reduced-motion:no-preference){@keyframes glide{from{object-position:50% calc(50% - var(--glide))}to{object-position:50% calc(50% + var(--glide))}}}\n"

// enter are the steps of style.Style's Entrance by its kind, and sway those of its Sway;
// there are none for those who mind motion. They say transform, so that a box that is turned
// or lifted stays so.
var (
	enter = map[string]string{
		"fade":       "{from{opacity:0}}",
		"rise":       "{from{opacity:0;transform:translateY(var(--by))}}",
		"from-left":  "{from{opacity:0;transform:translateX(calc(-1*var(--by)))}}",
		"from-right": "{from{opacity:0;transform:translateX(var(--by))}}",
		"grow":       "{from{opacity:0;transform:scale(.85)}}",
	}
	sway = map[string]string{
		"horizontal": "{from{translate:calc(-1*var(--sway))}to{translate:var(--sway)}}",
		"vertical":   "{from{translate:0 calc(-1*var(--sway))}to{translate:0 var(--sway)}}",
	}
)

// still lets nothing glide from one state to another for those who mind motion.
const still = "@media (prefers-reduced-motion:reduce){*{transition:none!important}}\n"

// smooth lets links to places on the page scroll there, for those who don't mind motion
// (WCAG 2.2, 2.3.3).
const smooth = "@media (prefers-reduced-motion:no-preference){html{scroll-behavior:smooth}}\n"

// print is what paper shows: all that opens, opened, where links lead, and nothing that moves, plays
// or is pressed.
const print = "@media print{*,::before,::after{animation:none!important;transition:none!important}" +
	"body>header{position:static!important}nav,button,iframe,video,audio,[popover]{display:none!important}" +
	"[role=tabpanel][hidden]{display:block!important}::details-content{display:block!important;content-visibility:visible!important}" +
	"main a[href^=http]::after{content:\" (\" attr(href) \")\";overflow-wrap:anywhere}img,tr,figure{break-inside:avoid}h1,h2,h3,h4{break-after:avoid}}\n"

// Reset gives the part of the style sheet that comes before the rules: all of it, or,
// for a tree, what its elements need.
func Reset(tree *element.Node) string {
	used, further := map[string]bool{}, map[string]bool{}
	if tree != nil {
		tree.Walk(func(n *element.Node) {
			used[n.Tag] = true
			used["picture"] = used["picture"] || len(n.Sources) > 0
			for _, a := range n.Attrs {
				used["[role=tabpanel]"] = used["[role=tabpanel]"] || a.Value == "tabpanel"
				used["[role=progressbar]"] = used["[role=progressbar]"] || a.Value == "progressbar"
				used["[data-button]"] = used["[data-button]"] || a.Name == "data-button"
				if a.Name == "hidden" {
					used[n.Tag+"[hidden]"] = true
				}
				used["[data-when]"] = used["[data-when]"] || a.Name == "data-when"
				used["[data-step]"] = used["[data-step]"] || a.Name == "data-step"
				used["[data-scripted]"] = used["[data-scripted]"] || a.Name == "data-scripted"
				if a.Name == "data-of" {
					further[a.Value] = true
				}
				used["[data-drift]"] = used["[data-drift]"] || a.Name == "data-drift"
				used["[data-hover]"] = used["[data-hover]"] || a.Name == "data-hover"
				used["[data-view]"] = used["[data-view]"] || a.Name == "data-view"
				used["[popover]"] = used["[popover]"] || a.Name == "popover"
				used["#"] = used["#"] || a.Name == "href" && strings.HasPrefix(a.Value, "#")
			}
			for z := range n.Styles {
				used["reveal"] = used["reveal"] || n.Styles[z].Reveal
				used["drift"] = used["drift"] || n.Styles[z].Drift > 0
				used["glide"] = used["glide"] || n.Styles[z].Glide > 0
				used["quick"] = used["quick"] || n.Styles[z].Quick
				if e := n.Styles[z].Entrance.Kind; e != "" {
					used["enter-"+e] = true
				}
				if w := n.Styles[z].Sway.Kind; w != "" {
					used["sway-"+w] = true
				}
				used["sticky"] = used["sticky"] || n.Styles[z].Position == style.Sticky
			}
		})
	}
	var b strings.Builder
	b.WriteString(reset)
	for _, r := range resets {
		if tree == nil || slices.ContainsFunc(r.tags, func(t string) bool { return used[t] }) {
			b.WriteString(r.css)
		}
	}
	for _, anchor := range slices.Sorted(maps.Keys(further)) { // of views that go on elsewhere
		b.WriteString(
			`@media screen{main:not(:has([id="` + anchor + `"]:target,[id="` + anchor + `"] :target))>[data-of="` + anchor + "\"]{display:none}}\n",
		)
	}
	if used["#"] {
		b.WriteString(smooth)
	}
	if used["sticky"] { // a place that is gone to isn't hidden below the bar (WCAG 2.2, 2.4.11)
		b.WriteString("html{scroll-padding-top:5rem}\n")
	}
	if used["reveal"] || tree == nil {
		b.WriteString(reveal)
	}
	if used["drift"] {
		b.WriteString(drift)
	}
	if used["glide"] {
		b.WriteString(glide)
	}
	for _, steps := range []struct {
		prefix string
		of     map[string]string
	}{{"enter-", enter}, {"sway-", sway}} {
		for _, kind := range slices.Sorted(maps.Keys(steps.of)) {
			if used[steps.prefix+kind] {
				b.WriteString(
					"@media (prefers-reduced-motion:no-preference){@keyframes " + steps.prefix + kind + steps.of[kind] + "}\n",
				)
			}
		}
	}
	if used["quick"] {
		b.WriteString(still)
	}
	if tree != nil {
		b.WriteString(print)
	}
	return b.String()
}

// FontFace is one @font-face rule.
type FontFace struct {
	Family  string
	URL     string
	Italic  bool
	Weights string // as CSS has it, "400" or "100 900"
	Range   string // unicode-range, or "" for all
	// Preload is the file's address from the page, for browsers to fetch it early, or "".
	Preload string
}

// CSS gives the rule.
func (f FontFace) CSS(display string) string {
	italic := "normal"
	if f.Italic {
		italic = "italic"
	}
	css := `@font-face{font-family:"` + f.Family + `";font-style:` + italic + ";font-weight:" + f.Weights +
		";font-display:" + display + `;src:url("` + f.URL + `") format("woff2")`
	if f.Range != "" {
		css += ";unicode-range:" + f.Range
	}
	return css + "}\n"
}

// Used tells which families and styles the words of a tree are set in.
func Used(n *element.Node) func(family string, italic bool) bool {
	type face struct {
		family string
		italic bool
	}
	seen := map[face]bool{}
	n.Walk(func(n *element.Node) {
		if n.Tag == "" {
			for z := range n.Styles {
				seen[face{n.Styles[z].FontFamily, n.Styles[z].FontItalic}] = true
			}
		}
	})
	return func(family string, italic bool) bool { return seen[face{family, italic}] }
}

// Page is what a document needs beside its tree.
type Page struct {
	Title       string
	Description string
	Language    string // BCP 47
	Stylesheet  string // address of the style sheet; "" has it stand in the document
	Fonts       []FontFace
	Scripts     []string // addresses
	// Canonical is the page's one address (RFC 6596), or "".
	Canonical string
	// Hidden asks search engines to leave it out.
	Hidden bool
	// Properties are what a link to it is shown with elsewhere (Open Graph).
	Properties []Property
	Icons      []Icon
	Preloads   []Preload
	// Data is what the page is about, as JSON-LD, or "".
	Data string
}

// Property is a <meta> with a property (Open Graph).
type Property struct{ Name, Content string }

// Icon is a <link> to an icon of the site, or to its manifest.
type Icon struct{ Rel, Type, Sizes, Href string }

// Preload is a picture for browsers to fetch before they need it (HTML §4.6.7.14).
type Preload struct {
	Href  string
	Type  string // "" is any
	Media string // a media query, or ""
}

// Scripts names the scripts that a tree's elements need, each once.
func Scripts(n *element.Node) (names []string) {
	n.Walk(func(n *element.Node) {
		if n.Script != "" && !slices.Contains(names, n.Script) {
			names = append(names, n.Script)
		}
	})
	return names
}

// Document gives a whole page and its style sheet.
func (s *Sheet) Document(p Page, body *element.Node) (document, css string) {
	var b strings.Builder
	s.Write(&b, body)
	var c strings.Builder
	for _, f := range p.Fonts {
		c.WriteString(f.CSS("swap"))
	}
	c.WriteString(Reset(body))
	c.WriteString(s.CSS())
	css = strings.ReplaceAll(c.String(), "</", `<\/`) // which no name or address has, and is the same in a string

	var d strings.Builder
	d.WriteString(
		"<!DOCTYPE html>\n<html lang=\"" + html.EscapeString(p.Language) + "\">\n<head>\n<meta charset=\"utf-8\">\n",
	)
	d.WriteString("<title>" + html.EscapeString(p.Title) + "</title>\n")
	tag := func(name string, attributes ...string) {
		d.WriteString("<" + name)
		for i := 0; i < len(attributes); i += 2 {
			if attributes[i+1] != "" {
				d.WriteString(" " + attributes[i] + "=\"" + html.EscapeString(attributes[i+1]) + "\"")
			}
		}
		d.WriteString(">\n")
	}
	tag("meta", "name", "viewport", "content", "width=device-width, initial-scale=1")
	if p.Description != "" {
		tag("meta", "name", "description", "content", p.Description)
	}
	if p.Hidden {
		tag("meta", "name", "robots", "content", "noindex")
	}
	for _, l := range p.Preloads {
		tag(
			"link",
			"rel",
			"preload",
			"as",
			"image",
			"href",
			l.Href,
			"type",
			l.Type,
			"media",
			l.Media,
			"fetchpriority",
			"high",
		)
	}
	for _, f := range p.Fonts {
		if f.Preload != "" {
			d.WriteString(
				"<link rel=\"preload\" as=\"font\" type=\"font/woff2\" href=\"" + html.EscapeString(
					f.Preload,
				) + "\" crossorigin>\n",
			)
		}
	}
	if p.Stylesheet == "" {
		d.WriteString(styleOpen + css + styleClose)
	} else {
		tag("link", "rel", "stylesheet", "href", p.Stylesheet)
	}
	for _, s := range p.Scripts {
		d.WriteString("<script src=\"" + html.EscapeString(s) + "\" defer></script>\n")
	}
	if p.Canonical != "" {
		tag("link", "rel", "canonical", "href", p.Canonical)
	}
	for _, i := range p.Icons {
		tag("link", "rel", i.Rel, "type", i.Type, "sizes", i.Sizes, "href", i.Href)
	}
	for _, m := range p.Properties {
		if m.Content != "" {
			by := "property"
			if strings.HasPrefix(m.Name, "twitter:") { // which is HTML's own
				by = "name"
			}
			tag("meta", by, m.Name, "content", m.Content)
		}
	}
	if p.Data != "" {
		d.WriteString("<script type=\"application/ld+json\">" + strings.ReplaceAll(p.Data, "</", `<\/`) + "</script>\n")
	}
	d.WriteString("</head>\n")
	d.WriteString(b.String())
	d.WriteString("\n</html>\n")
	return d.String(), css
}

// What the style sheet stands between in a document that has it.
const (
	styleOpen  = "<style>"
	styleClose = "</style>\n"
)

// Inline gives a whole page with its style sheet in it.
func (s *Sheet) Inline(p Page, body *element.Node) string {
	p.Stylesheet = ""
	document, _ := s.Document(p, body)
	return document
}

// PaintOnly lists the emitted properties that cannot move a box; the others are
// modelled by package layout.
func PaintOnly() []string {
	var names []string
	for _, p := range style.Properties {
		if !p.Layout {
			names = append(names, p.Name)
		}
	}
	slices.Sort(names)
	return names
}
