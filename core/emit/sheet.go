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
	// marks adds data-section and data-block, by which the canvas finds elements.
	marks   bool
	classes map[string]string
	rules   [][]rule // by zone
}

type rule struct{ class, declarations string }

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

var void = map[string]bool{"img": true, "br": true, "hr": true}

// root stands for what surrounds the tree: what an element inherits before
// anything is written.
var root style.Style

// Write writes a node and all below it.
func (s *Sheet) Write(b *strings.Builder, n *element.Node) { s.write(b, n, nil) }

func (s *Sheet) write(b *strings.Builder, n, parent *element.Node) {
	if n.Tag == "" {
		b.WriteString(html.EscapeString(n.Text))
		return
	}
	b.WriteByte('<')
	b.WriteString(n.Tag)
	if n.Tag != "br" {
		if class := s.class(n, parent); class != "" {
			attribute(b, "class", class)
		}
	}
	for _, a := range n.Attrs {
		attribute(b, a.Name, a.Value)
	}
	if s.marks {
		if n.Section != "" {
			attribute(b, "data-section", n.Section)
		}
		if n.Block != "" {
			attribute(b, "data-block", n.Block)
		}
	}
	b.WriteByte('>')
	if void[n.Tag] {
		return
	}
	breaks := !s.marks && len(n.Children) > 0 && !n.Inline()
	for _, c := range n.Children {
		if breaks {
			b.WriteByte('\n')
		}
		s.write(b, c, n)
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
var displays = map[string]string{"a": "inline", "strong": "inline", "em": "inline", "span": "inline", "li": "list-item"}

// class gives the class for an element's look, or "" when it needs none, and
// adds its rules when they are new.
func (s *Sheet) class(n, parent *element.Node) string {
	declarations := s.declarations(n, parent)
	k := strings.Join(declarations, "\x00")
	if strings.Trim(k, "\x00") == "" {
		return ""
	}
	if c, ok := s.classes[k]; ok {
		return c
	}
	c := s.prefix + className(len(s.classes))
	s.classes[k] = c
	for z, d := range declarations {
		if d != "" {
			s.rules[z] = append(s.rules[z], rule{c, d})
		}
	}
	return c
}

// className gives short names: a … z, a0 … z0, a1 …
func className(i int) string {
	c := string(rune('a' + i%26))
	if i >= 26 {
		c += strconv.Itoa(i/26 - 1)
	}
	return c
}

// declarations gives, per zone, what has to be written so that the element ends
// up with its computed style there, given what was written for wider zones, what
// it inherits and the reset.
func (s *Sheet) declarations(n, parent *element.Node) []string {
	out := make([]string, len(s.zones))
	written := make([]string, len(style.Properties))
	for z := range s.zones {
		var d strings.Builder
		for i := range style.Properties {
			p := &style.Properties[i]
			want := p.Text(&n.Styles[z])
			has := written[i]
			if has == "" {
				switch {
				case p.Name == style.LetterSpacing && parent != nil && n.Styles[z].FontSize != parent.Styles[z].FontSize && n.Styles[z].LetterSpacing != 0:
				case p.Inherited && parent != nil:
					has = p.Text(&parent.Styles[z])
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
			if d.Len() > 0 {
				d.WriteByte(';')
			}
			d.WriteString(p.Name)
			d.WriteByte(':')
			d.WriteString(want)
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
			b.WriteString("." + r.class + "{" + r.declarations + "}\n")
		}
		if z > 0 {
			b.WriteString("}\n")
		}
	}
	return b.String()
}
