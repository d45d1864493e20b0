package emit

import (
	"slices"
	"strconv"
	"strings"

	"openplot/core/doc"
	"openplot/core/style"
)

// rules are the classes of a sheet. Within a zone no two classes of one element declare the same
// property in the same state, so that the order of rules there says nothing.
type rules struct {
	zones   doc.Zones
	shows   bool              // elements are in a state also when they say so, to be looked at
	classes map[string]string // by name and what is declared
	of      map[string]int    // how many have a name
	zoned   [][]rule
}

// rule is what is declared for classes in a state.
type rule struct {
	state        string
	classes      []string
	declarations string
}

func newRules(zones doc.Zones) *rules {
	return &rules{zones: zones, classes: map[string]string{}, of: map[string]int{}, zoned: make([][]rule, len(zones))}
}

// class gives the class of a name for what is declared, or "" when that is nothing, and adds its
// rules when they are new. Classes without a name have short ones, behind a prefix.
func (r *rules) class(prefix, name string, decl []declaration) string {
	if len(decl) == 0 {
		return ""
	}
	var key strings.Builder
	key.WriteString(name)
	for _, d := range decl {
		key.WriteString(
			"\x00" + d.state + "\x00" + strconv.Itoa(d.zone) + " " + strconv.Itoa(d.property) + " " + d.value,
		)
	}
	if c, ok := r.classes[key.String()]; ok {
		return c
	}
	c := prefix + className(r.of[name])
	if name != "" {
		if c = name; r.of[name] > 0 {
			c += "-" + strconv.Itoa(r.of[name]+1)
		}
	}
	r.of[name]++
	r.classes[key.String()] = c
	if name == place {
		for i := range decl {
			r.add(c, decl[i:i+1])
		}
	} else {
		r.add(c, decl)
	}
	return c
}

// add adds the rules of a class: what is declared for one zone in one state stands in one. Places
// have a rule for each property, since many stand in the same columns and few in the same rows.
func (r *rules) add(class string, decl []declaration) {
	for from := 0; from < len(decl); {
		first := decl[from]
		var text strings.Builder
		to := from
		for ; to < len(decl) && decl[to].zone == first.zone && decl[to].state == first.state; to++ {
			if to > from {
				text.WriteByte(';')
			}
			text.WriteString(style.Properties[decl[to].property].Name + ":" + decl[to].value)
		}
		from = to
		zone := &r.zoned[first.zone]
		same := func(o rule) bool { return o.state == first.state && o.declarations == text.String() }
		if i := slices.IndexFunc(*zone, same); i >= 0 {
			(*zone)[i].classes = append((*zone)[i].classes, class)
			continue
		}
		*zone = append(*zone, rule{first.state, []string{class}, text.String()})
	}
}

// className gives short names: a … z, a0 … z0, a1 …
func className(i int) string {
	c := string(rune('a' + i%26))
	if i >= 26 {
		c += strconv.Itoa(i/26 - 1)
	}
	return c
}

var states = map[string]string{
	":hover":         "hover",
	":focus-visible": "focus",
	":focus-within":  "focus",
	":active":        "active",
}

// selector gives that of a rule.
func (r *rules) selector(of rule) string {
	var s []string
	for _, c := range of.classes {
		s = append(s, "."+c+of.state)
		if name, ok := states[of.state]; ok && r.shows {
			s = append(s, "."+c+"[data-state="+name+"]")
		}
	}
	return strings.Join(s, ",")
}

// css writes them, one zone's after the other's. What is pointed at looks otherwise only where
// there is something to point with, since a finger leaves it so (Media Queries 4 §5.2); it comes
// first, so that what is pressed looks pressed.
func (r *rules) css() string {
	var b strings.Builder
	for z, zone := range r.zoned {
		if len(zone) == 0 {
			continue
		}
		if z > 0 {
			b.WriteString("@media (max-width:" + strconv.Itoa(r.zones.Max(z)) + ".98px){\n")
		}
		var hovered, others strings.Builder
		for _, rule := range zone {
			to := &others
			if rule.state == ":hover" && !r.shows {
				to = &hovered
			}
			to.WriteString(r.selector(rule) + "{" + rule.declarations + "}\n")
		}
		if hovered.Len() > 0 {
			b.WriteString("@media (hover:hover){\n" + hovered.String() + "}\n")
		}
		b.WriteString(others.String())
		if z > 0 {
			b.WriteString("}\n")
		}
	}
	return b.String()
}

// CSS gives the rules gathered so far.
func (s *Sheet) CSS() string { return s.rules.css() }
