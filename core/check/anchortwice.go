package check

import (
	"fmt"

	"openplot/core/doc"
	"openplot/core/edit"
)

var twice = Rule{
	repair: mendTwice,
	ID:     "anchor-twice", Name: "Two places have one name", Family: Content, Severity: Broken, Standard: "HTML, the id attribute",
	What: "two places have one name",
	Why:  "Links to it lead to the first; the other can’t be reached.",
	title: func(f *Finding, _ func(string) string) string {
		return fmt.Sprintf("Two places are called #%s", f.Words)
	},
	say: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("%s and %s.", name(f.Other), name(f.Node))
	},
	whole: func(p *Page, r *report) {
		first := map[string]string{}
		add := func(name, node string) {
			if name == "" {
				return
			}
			if was, there := first[name]; there && was != node {
				r.add(Finding{Node: node, Other: was, Words: name, Part: name})
				return
			}
			first[name] = node
		}
		for _, v := range p.Doc.Views() {
			add(v.Anchor, "view "+v.Anchor)
		}
		for _, s := range p.Doc.Sections {
			if s.Hidden {
				continue
			}
			add(s.Anchor, s.ID)
			s.Walk(func(b *doc.Block) {
				if b.Kind == doc.Anchor {
					add(b.Content.Values["name"], b.ID)
				}
			})
		}
	},
}

func mendTwice(p *Page, f *Finding) *Repair {
	have := Anchors(p.Doc)
	for n := 2; n < 100; n++ {
		name := fmt.Sprintf("%s-%d", f.Words, n)
		taken := false
		for _, a := range have {
			taken = taken || a == name
		}
		if taken {
			continue
		}
		if s, _ := p.Doc.Section(f.Node); s != nil {
			return &Repair{"Call it #" + name, edit.Command{Op: "section.anchor", Node: s.ID, Value: name}}
		}
		return &Repair{
			"Call it #" + name,
			edit.Command{Op: "block.content", Node: f.Node, Setting: "name", Value: name},
		}
	}
	return nil
}
