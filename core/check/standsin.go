package check

import (
	"fmt"
	"strings"

	"openplot/core/doc"
)

var standsIn = Rule{
	ID: "stands-in", Name: "Stand-in words or pictures are left", Family: Content, Severity: Doubtful,
	What: "words of a ready-made section, from 14 characters on; a picture that isn't chosen",
	Why:  "They came with a ready-made section and say nothing of this site.",
	title: func(f *Finding, name func(string) string) string {
		if f.Part == "picture" {
			return fmt.Sprintf("%s has no picture yet", name(f.Node))
		}
		return fmt.Sprintf("“%s” is still the stand-in", f.Words)
	},
	say: func(f *Finding, name func(string) string) string {
		if f.Part == "picture" {
			return "A drawing stands in for it on the Bench; visitors see nothing there."
		}
		return fmt.Sprintf("In %s.", name(f.Node))
	},
	whole: func(p *Page, r *report) {
		for _, s := range p.Doc.Sections {
			if s.Hidden {
				continue
			}
			eachShown(s, func(node string, b *doc.Block, c doc.Content) {
				if b.Kind == doc.Picture && c.Picture == "" {
					r.add(Finding{Node: node, Part: "picture"})
				}
				if words := strings.TrimSpace(c.Words.Plain()); words != "" && p.StandIn != nil && p.StandIn(b, words) {
					r.add(Finding{Node: node, Words: start(words)})
				}
			})
		}
	},
}
