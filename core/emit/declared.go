package emit

import (
	"cmp"
	"slices"
	"strings"

	"openplot/core/element"
	"openplot/core/style"
)

// declaration is one that has to be written for an element: in a state, "" being none, from a
// zone on, for a property of style.Properties.
type declaration struct {
	state          string
	zone, property int
	value          string
}

// made is an element with what has to be declared for it.
type made struct {
	node *element.Node
	name string // what it is, as classes say it
	text string // the text style that its words are set in, or "" when it inherits them
	decl []declaration
}

// gather finds what has to be declared for a node that stands in parent, whose looks are above,
// and for all below it; in is what the block or section is called that it is a part of.
func (s *Sheet) gather(all *[]made, n, parent *element.Node, above looks, in string) {
	if n.Tag == "" || n.Tag == "br" {
		return
	}
	own := s.looks(n)
	name, in := called(n, in)
	m := made{node: n, name: name, decl: s.declared(n, parent, own, above)}
	if t := n.Styles[0].TextName; parent == nil || t != parent.Styles[0].TextName {
		m.text = t
	}
	for _, st := range n.States {
		m.decl = append(m.decl, s.inState(n, st, own)...)
	}
	*all = append(*all, m)
	for _, c := range n.Children {
		s.gather(all, c, n, own, in)
	}
}

// called gives what an element is called by classes, and what those in it are parts of: a block by
// its kind, what is within it by that and its tag.
func called(n *element.Node, in string) (name, within string) {
	switch {
	case n.Tag == "body":
		return "page", ""
	case n.Section != "" && n.Tag == "div":
		return "section", "section"
	case n.Section != "":
		return n.Tag, n.Tag
	case n.Kind != "":
		return n.Kind, n.Kind
	case n.Wraps:
		return "wrap", in
	case in == "":
		return n.Tag, in
	}
	return in + "-" + cmp.Or(parts[n.Tag], n.Tag), in
}

// parts is what elements are called within a block, where a word says it better than their tag.
var parts = map[string]string{
	"div": "box", "p": "text", "ul": "list", "ol": "list", "li": "item", "a": "link", "h2": "title", "h3": "title",
	"h4": "title", "dt": "term", "dd": "value", "tr": "row", "td": "cell", "th": "head",
}

// declared gives what has to be written so that the element ends up with its computed style in
// each zone, given what was written for wider zones, what it inherits and the reset.
func (s *Sheet) declared(n, parent *element.Node, own, above looks) (out []declaration) {
	written := make([]string, len(style.Properties))
	for z := range s.zones {
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
			if has != want {
				written[i] = want
				out = append(out, declaration{"", z, i, want})
			}
		}
	}
	return out
}

// inState gives what has to be written so that the element looks as it does in a state, given its
// usual look and what was written for wider zones.
func (s *Sheet) inState(n *element.Node, st element.State, own looks) (out []declaration) {
	written := make([]string, len(style.Properties))
	for z := range s.zones {
		then := n.Styles[z]
		st.Change(z, &then)
		look := s.steady(&then, z)
		for i := range style.Properties {
			want := style.Properties[i].Text(look)
			if cmp.Or(written[i], own.of(z, i)) != want {
				written[i] = want
				out = append(out, declaration{st.Pseudo, z, i, want})
			}
		}
	}
	return out
}

// classes gives what stands in each element's class attribute. On the canvas a look is one class.
// On a published page there are up to four: what all elements that are called alike declare; what
// one declares beside that; the type of its text style; and its place.
func (s *Sheet) classes(all []made) map[*element.Node]string {
	of := make(map[*element.Node]string, len(all))
	if s.marks {
		for _, m := range all {
			of[m.node] = s.rules.class(s.prefix, "", m.decl)
		}
		return of
	}
	looks, texts, places := make(
		[][]declaration,
		len(all),
	), make(
		[][]declaration,
		len(all),
	), make(
		[][]declaration,
		len(all),
	)
	shared := map[string]map[declaration]int{} // by name, how many declare the same
	number := map[string]int{}
	for i, m := range all {
		if shared[m.name] == nil {
			shared[m.name] = map[declaration]int{}
		}
		number[m.name]++
		for _, d := range m.decl {
			switch p := style.Properties[d.property].Name; {
			case d.state == "" && m.text != "" && slices.Contains(ofType, p):
				texts[i] = append(texts[i], d)
			case d.state == "" && slices.Contains(ofPlace, p):
				places[i] = append(places[i], d)
			default:
				looks[i] = append(looks[i], d)
				shared[m.name][d]++
			}
		}
	}
	for i, m := range all {
		var common, rest []declaration
		for _, d := range looks[i] {
			if shared[m.name][d] == number[m.name] {
				common = append(common, d)
			} else {
				rest = append(rest, d)
			}
		}
		var names []string
		for _, c := range []struct {
			name string
			decl []declaration
		}{{m.name, common}, {m.name, rest}, {"t-" + m.text, texts[i]}, {place, places[i]}} {
			if class := s.rules.class("", c.name, c.decl); class != "" {
				names = append(names, class)
			}
		}
		of[m.node] = strings.Join(names, " ")
	}
	return of
}

// place is what classes of places are called.
const place = "at"

// ofType are the properties of a text style, ofPlace those that say where in its holder an element
// stands.
var (
	ofType = []string{
		"font-family", "font-weight", "font-style", "font-size", "line-height", style.LetterSpacing, "text-transform",
		"text-wrap-style",
	}
	ofPlace = []string{"order", "grid-column", "grid-row", "justify-self", "align-self", "z-index"}
)
