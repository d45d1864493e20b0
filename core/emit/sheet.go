package emit

import (
	"html"
	"strconv"
	"strings"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/style"
)

// Sheet writes elements and gathers their rules. Elements that look alike in
// every zone share a class.
type Sheet struct {
	zones  doc.Zones
	prefix string // of class names
	// marks adds data-section, data-block and data-part, by which the canvas finds elements.
	marks   bool
	classes map[string]string
	rules   [][]rule // by zone
}

// rule is a selector, ".a" or ".a:hover", and what is declared for it.
type rule struct{ selector, declarations string }

// NewSheet makes an empty sheet for publishing.
func NewSheet(zones doc.Zones) *Sheet {
	return &Sheet{zones: zones, classes: map[string]string{}, rules: make([][]rule, len(zones))}
}

// NewCanvasSheet makes a sheet for one section on the canvas; prefix keeps its
// class names apart from other sections'.
func NewCanvasSheet(zones doc.Zones, prefix string) *Sheet {
	s := NewSheet(zones)
	s.prefix, s.marks = prefix+"-", true
	return s
}

var void = map[string]bool{"img": true, "br": true, "hr": true, "input": true}

// root stands for what surrounds the tree: what an element inherits before
// anything is written.
var root style.Style

// Write writes a node and all below it.
func (s *Sheet) Write(b *strings.Builder, n *element.Node) { s.write(b, n, nil, nil) }

// looks are the CSS values of all style.Properties in each zone, one zone after another.
type looks []string

// of gives the value of property i in a zone.
func (l looks) of(zone, i int) string { return l[zone*len(style.Properties)+i] }

func (s *Sheet) looks(n *element.Node) looks {
	l := make(looks, 0, len(s.zones)*len(style.Properties))
	for z := range s.zones {
		st := s.steady(&n.Styles[z], z)
		for i := range style.Properties {
			l = append(l, style.Properties[i].Text(st))
		}
	}
	return l
}

// write writes a node that stands in parent, whose looks are above; both are nil at the root.
func (s *Sheet) write(b *strings.Builder, n, parent *element.Node, above looks) {
	if n.Tag == "" {
		b.WriteString(html.EscapeString(n.Text))
		return
	}
	if len(n.Sources) > 0 {
		b.WriteString("<picture>")
		for _, src := range n.Sources {
			b.WriteString("<source")
			attribute(b, "type", src.Type)
			attribute(b, "srcset", src.Srcset)
			attribute(b, "sizes", src.Sizes)
			b.WriteByte('>')
		}
	}
	b.WriteByte('<')
	b.WriteString(n.Tag)
	var own looks
	if n.Tag != "br" {
		own = s.looks(n)
		if class := s.class(n, parent, own, above); class != "" {
			attribute(b, "class", class)
		}
	}
	for _, a := range n.Attrs {
		if s.marks || a.Name != "data-colour" && a.Name != "data-words" { // these are for what is written in
			attribute(b, a.Name, address(a.Name, a.Value))
		}
	}
	if s.marks {
		if n.Section != "" {
			attribute(b, "data-section", n.Section)
		}
		if n.Block != "" {
			attribute(b, "data-block", n.Block)
			if own, item := doc.SplitItem(n.Block); item != "" { // as an item of a Series shows it
				attribute(b, "data-own", own)
			}
		}
		if n.Part != "" {
			attribute(b, "data-part", n.Part)
		}
		if n.Entry != "" {
			attribute(b, "data-entry", n.Entry)
		}
	}
	b.WriteByte('>')
	if void[n.Tag] {
		if len(n.Sources) > 0 {
			b.WriteString("</picture>")
		}
		return
	}
	b.WriteString(n.Raw)
	breaks := !s.marks && len(n.Children) > 0 && !n.Inline()
	for _, c := range n.Children {
		if breaks {
			b.WriteByte('\n')
		}
		s.write(b, c, n, own)
	}
	if breaks {
		b.WriteByte('\n')
	}
	b.WriteString("</")
	b.WriteString(n.Tag)
	b.WriteByte('>')
}

func attribute(b *strings.Builder, name, value string) {
	b.WriteByte(' ')
	b.WriteString(name)
	b.WriteString(`="`)
	b.WriteString(html.EscapeString(value))
	b.WriteByte('"')
}

// displays are what display is unless it is written, where that isn't block.
var displays = map[string]string{
	"a": "inline", "strong": "inline", "em": "inline", "span": "inline", "u": "inline", "s": "inline", "small": "inline", "time": "inline", "label": "inline", "cite": "inline",
	"li": "list-item", "summary": "list-item",
	"table": "table", "thead": "table-header-group", "tbody": "table-row-group", "tr": "table-row", "td": "table-cell", "th": "table-cell", "caption": "table-caption",
}

// class gives the class for an element's look, or "" when it needs none, and
// adds its rules when they are new.
func (s *Sheet) class(n, parent *element.Node, own, above looks) string {
	sets := []ruleSet{{"", s.declarations(n, parent, own, above)}}
	for _, st := range n.States {
		sets = append(sets, ruleSet{st.Pseudo, s.inState(n, st, own)})
	}
	var k strings.Builder
	empty := true
	for _, set := range sets {
		k.WriteString(set.pseudo)
		for _, d := range set.declarations {
			empty = empty && d == ""
			k.WriteString("\x00" + d)
		}
	}
	if empty {
		return ""
	}
	if c, ok := s.classes[k.String()]; ok {
		return c
	}
	c := s.prefix + className(len(s.classes))
	s.classes[k.String()] = c
	for _, set := range sets {
		for z, d := range set.declarations {
			if d != "" {
				s.rules[z] = append(s.rules[z], rule{s.selector(c, set.pseudo), d})
			}
		}
	}
	return c
}

// selector gives that of a class in a state. On the canvas an element is in one also when it
// says so, to be looked at.
func (s *Sheet) selector(class, pseudo string) string {
	if name, ok := states[pseudo]; ok && s.marks {
		return "." + class + pseudo + ",." + class + "[data-state=" + name + "]"
	}
	return "." + class + pseudo
}

var states = map[string]string{
	":hover":         "hover",
	":focus-visible": "focus",
	":focus-within":  "focus",
	":active":        "active",
}

// ruleSet is what is declared for an element, by zone, in one state.
type ruleSet struct {
	pseudo       string
	declarations []string
}

// inState gives, per zone, what has to be written so that the element looks as it does
// in a state, given its usual look and what was written for wider zones.
func (s *Sheet) inState(n *element.Node, st element.State, own looks) []string {
	out := make([]string, len(s.zones))
	written := make([]string, len(style.Properties))
	for z := range s.zones {
		var d strings.Builder
		then := n.Styles[z]
		st.Change(z, &then)
		look := s.steady(&then, z)
		for i := range style.Properties {
			p := &style.Properties[i]
			want := p.Text(look)
			has := written[i]
			if has == "" {
				has = own.of(z, i)
			}
			if has != want {
				written[i] = want
				declare(&d, p.Name, want)
			}
		}
		out[z] = d.String()
	}
	return out
}

func declare(d *strings.Builder, name, value string) {
	if d.Len() > 0 {
		d.WriteByte(';')
	}
	d.WriteString(name)
	d.WriteByte(':')
	d.WriteString(value)
}

// className gives short names: a … z, a0 … z0, a1 …
func className(i int) string {
	c := string(rune('a' + i%26))
	if i >= 26 {
		c += strconv.Itoa(i/26 - 1)
	}
	return c
}

// steady gives a look in which heights of the viewport are those that are taken for the
// zone, on the canvas: its frame is as high as there is room for.
func (s *Sheet) steady(st *style.Style, zone int) *style.Style {
	if !s.marks || !st.Height.Is(style.Vh) && !st.MinHeight.Is(style.Vh) {
		return st
	}
	c := *st
	for _, l := range []*style.Length{&c.Height, &c.MinHeight} {
		*l = l.With(style.Vh, s.zones[zone].ViewHeight()/100)
	}
	return &c
}

// declarations gives, per zone, what has to be written so that the element ends
// up with its computed style there, given what was written for wider zones, what
// it inherits and the reset.
func (s *Sheet) declarations(n, parent *element.Node, own, above looks) []string {
	out := make([]string, len(s.zones))
	written := make([]string, len(style.Properties))
	for z := range s.zones {
		var d strings.Builder
		for i := range style.Properties {
			p := &style.Properties[i]
			want := own.of(z, i)
			has := written[i]
			if has == "" {
				switch {
				case p.Name == style.LetterSpacing && parent != nil && n.Styles[z].FontSize != parent.Styles[z].FontSize && n.Styles[z].LetterSpacing != 0:
				case p.Inherited && above != nil:
					has = above.of(z, i)
				case p.Inherited:
					has = p.Text(&root)
				case p.Name == "display" && displays[n.Tag] != "":
					has = displays[n.Tag]
				default:
					has = p.Initial
				}
			}
			if has == want {
				continue
			}
			written[i] = want
			declare(&d, p.Name, want)
		}
		out[z] = d.String()
	}
	return out
}

// CSS gives the rules gathered so far.
func (s *Sheet) CSS() string {
	var b strings.Builder
	for z, rules := range s.rules {
		if len(rules) == 0 {
			continue
		}
		if z > 0 {
			b.WriteString("@media (max-width:" + strconv.Itoa(s.zones.Max(z)) + ".98px){\n")
		}
		for _, r := range rules {
			b.WriteString(r.selector + "{" + r.declarations + "}\n")
		}
		if z > 0 {
			b.WriteString("}\n")
		}
	}
	return b.String()
}
