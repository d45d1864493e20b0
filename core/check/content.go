package check

import (
	"fmt"
	"strings"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/found"
)

var noAlternative = Rule{
	ID: "no-alternative", Name: "A picture has no alternative text", Family: Content, Severity: Doubtful, Standard: "WCAG 2.2, 1.1.1",
	Why:   "Who can’t see it isn’t told what it shows. One that is only decoration may have none.",
	short: func(f *Finding, name func(string) string) string { return "no alternative text" },
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("%s has no alternative text", name(f.Node))
	},
	whole: func(p *Page, r *report) {
		p.inZones(r, func(z int, note func(Finding)) {
			p.each(z, func(n *element.Node, node string, hidden bool) {
				if n.Tag == "img" && !hidden && strings.TrimSpace(attr(n, "alt")) == "" &&
					attr(n, "data-stands-in") == "" &&
					isBlock(p, node) {
					note(Finding{Node: node, Part: attr(n, "src")})
				}
			})
		})
	},
}

// isBlock reports whether a node is a block; what lies behind a section is decoration.
func isBlock(p *Page, node string) bool {
	s, _ := p.Doc.Section(node)
	return s == nil
}

var noLabel = Rule{
	ID: "no-label", Name: "A field has no label", Family: Content, Severity: Broken, Standard: "WCAG 2.2, 3.3.2",
	Why:   "Nobody knows what to write in it.",
	short: func(f *Finding, name func(string) string) string { return "field " + f.Part + " has no label" },
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("Field %s of %s has no label", f.Part, name(f.Node))
	},
	whole: func(p *Page, r *report) {
		for _, s := range p.Doc.Sections {
			if s.Hidden {
				continue
			}
			s.Walk(func(b *doc.Block) {
				if b.Kind != doc.Form {
					return
				}
				for i, e := range b.Content.Entries {
					if strings.TrimSpace(e.Values["label"]) == "" {
						r.add(Finding{Node: b.ID, Part: fmt.Sprint(i + 1)})
					}
				}
			})
		}
	},
}

var standsIn = Rule{
	ID: "stands-in", Name: "Stand-in words or pictures are left", Family: Content, Severity: Doubtful,
	Why: "They came with a ready-made section and say nothing of this site.",
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

var about = Rule{
	ID: "about", Name: "What results and shared links show", Family: Content, Severity: Hint,
	Why: "Search engines and messengers show the title and the description, cut to what they have room for.",
	title: func(f *Finding, _ func(string) string) string {
		switch f.Part {
		case "no-description":
			return "The page has no description"
		case "title", "description":
			return fmt.Sprintf("The %s is %.0f px too long for results", f.Part, f.By-f.Of)
		}
		return fmt.Sprintf("“%s” has the same %s", f.Words, strings.TrimPrefix(f.Part, "same-"))
	},
	say: func(f *Finding, _ func(string) string) string {
		switch f.Part {
		case "no-description":
			return "Results then show words from anywhere on it."
		case "title", "description":
			return fmt.Sprintf("It is %.0f px wide where about %.0f are shown.", f.By, f.Of)
		}
		return "Results show two pages that can’t be told apart."
	},
	whole: func(p *Page, r *report) {
		d := p.Doc
		if d.Unlisted {
			return
		}
		if f := found.Title(d.Title); f.Over() {
			r.add(Finding{Part: "title", By: float64(f.Px), Of: float64(f.Room), Words: start(d.Title)})
		}
		switch f := found.Description(d.Description); {
		case strings.TrimSpace(d.Description) == "":
			r.add(Finding{Part: "no-description"})
		case f.Over():
			r.add(Finding{Part: "description", By: float64(f.Px), Of: float64(f.Room)})
		}
		for _, o := range p.Others {
			if o.Address == p.Here {
				continue
			}
			if o.Title == d.Title && d.Title != "" {
				r.add(Finding{Part: "same-title", Words: o.Name})
				break
			}
			if o.Description == d.Description && d.Description != "" {
				r.add(Finding{Part: "same-description", Words: o.Name})
				break
			}
		}
	},
}

// eachShown calls f for the blocks of a section with what they show: those of a Series with what
// its items show.
func eachShown(s *doc.Section, f func(node string, b *doc.Block, c doc.Content)) {
	var walk func(blocks []*doc.Block, series *doc.Block)
	walk = func(blocks []*doc.Block, series *doc.Block) {
		for _, b := range blocks {
			if series == nil {
				f(b.ID, b, b.Content)
			} else {
				for _, it := range series.Items {
					c, own := it.Contents[b.ID]
					if !own {
						c = b.Content
					}
					f(doc.ItemID(b.ID, it.ID), b, c)
				}
			}
			in := series
			if b.Kind == doc.Series {
				in = b
			}
			walk(b.Blocks, in)
		}
	}
	walk(s.Blocks, nil)
}
