package emit

import (
	"html"
	"strings"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/style"
)

// Sheet writes elements and gathers their rules.
type Sheet struct {
	zones doc.Zones
	// marks adds data-section, data-block and data-part, by which the canvas finds elements, and
	// gives each look one short class, prefix being before it; published pages have classes that
	// say what they are of.
	marks  bool
	prefix string
	rules  *rules
	of     map[*element.Node]string // what stands in an element's class attribute
}

// NewSheet makes an empty sheet for publishing.
func NewSheet(zones doc.Zones) *Sheet {
	return &Sheet{zones: zones, rules: newRules(zones)}
}

// NewCanvasSheet makes a sheet for one section on the canvas; prefix keeps its
// class names apart from other sections'.
func NewCanvasSheet(zones doc.Zones, prefix string) *Sheet {
	s := NewSheet(zones)
	s.prefix, s.marks = prefix+"-", true
	s.rules.shows = true
	return s
}

var void = map[string]bool{"img": true, "br": true, "hr": true, "input": true}

// root stands for what surrounds the tree: what an element inherits before
// anything is written.
var root style.Style

// Write writes a node and all below it.
func (s *Sheet) Write(b *strings.Builder, n *element.Node) {
	var all []made
	s.gather(&all, n, nil, nil, "")
	s.of = s.classes(all)
	s.write(b, n, 0)
}

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

// forWriting are the attributes that the words on the canvas are read by again; visitors' pages have
// none of them.
var forWriting = map[string]bool{"data-colour": true, "data-size": true, "data-tracking": true, "data-words": true}

// write writes a node that stands as deep in the tree.
func (s *Sheet) write(b *strings.Builder, n *element.Node, depth int) {
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
	if class := s.of[n]; class != "" {
		attribute(b, "class", class)
	}
	for _, a := range n.Attrs {
		if s.marks || !forWriting[a.Name] {
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
	line := func(depth int) {
		if breaks {
			b.WriteString("\n" + strings.Repeat("\t", depth))
		}
	}
	for _, c := range n.Children {
		line(depth + 1)
		s.write(b, c, depth+1)
	}
	line(depth)
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
