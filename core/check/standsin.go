package check

import (
	"fmt"
	"slices"
	"strings"

	"openplot/core/doc"
)

// standsForPicture reports whether a block shows a drawing where a picture can be chosen.
func standsForPicture(kind doc.Kind, c doc.Content) bool {
	without := func(e doc.Entry) bool { return e.Values["picture"] == "" }
	return kind == doc.Picture && c.Picture == "" || kind == doc.Gallery && slices.ContainsFunc(c.Entries, without)
}

// StandInPictures gives the blocks of a page, in items too, that show a drawing where a picture can
// be chosen.
func StandInPictures(p *doc.Page) (nodes []string) {
	for _, s := range p.Sections {
		if s.Hidden {
			continue
		}
		eachShown(s, func(node string, b *doc.Block, c doc.Content) {
			if standsForPicture(b.Kind, c) {
				nodes = append(nodes, node)
			}
		})
	}
	return nodes
}

var standsIn = Rule{
	ID: "stands-in", Name: "Stand-in words or pictures are left", Family: Content, Severity: Doubtful,
	What: "words of a ready-made section, from 14 characters on; a picture that isn't chosen; an address that isn't entered",
	Why:  "They came with a ready-made section and say nothing of this site.",
	title: func(f *Finding, name func(string) string) string {
		if f.Part == "picture" {
			return fmt.Sprintf("%s shows a stand-in picture", name(f.Node))
		}
		if f.Part == "facts" {
			return fmt.Sprintf("%s has nothing to say yet", name(f.Node))
		}
		return fmt.Sprintf("“%s” is still the stand-in", f.Words)
	},
	say: func(f *Finding, name func(string) string) string {
		if f.Part == "picture" {
			return "A drawing in the house style’s colours stands in for it, for visitors too."
		}
		if f.Part == "facts" {
			return "Address, hours, telephone and mail aren’t entered in the site’s settings: words stand in for them."
		}
		return fmt.Sprintf("In %s.", name(f.Node))
	},
	whole: func(p *Page, r *report) {
		for _, s := range p.Doc.Sections {
			if s.Hidden {
				continue
			}
			eachShown(s, func(node string, b *doc.Block, c doc.Content) {
				if standsForPicture(b.Kind, c) {
					r.add(Finding{Node: node, Part: "picture"})
				}
				if f := p.Site.Facts; b.Kind == doc.SiteFacts && f.Address+f.InWords()+f.Phone+f.Mail == "" {
					r.add(Finding{Node: node, Part: "facts"})
				}
				if words := strings.TrimSpace(c.Words.Plain()); words != "" && p.StandIn != nil && p.StandIn(b, words) {
					r.add(Finding{Node: node, Words: start(words)})
				}
			})
		}
	},
}
