package check

import (
	"fmt"
	"slices"
	"strings"

	"openplot/core/doc"
	"openplot/core/element"
)

var deadLink = Rule{
	ID: "dead-link", Name: "A link leads nowhere", Family: Content, Severity: Broken,
	Why: "Visitors who follow it get an error, or stay where they are.",
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("“%s” leads nowhere", f.Words)
	},
	say: func(f *Finding, name func(string) string) string {
		switch {
		case strings.HasPrefix(f.Part, doc.FilePrefix):
			return fmt.Sprintf("The file that %s leads to isn’t in the library any more.", name(f.Node))
		case strings.Contains(f.Part, "#"):
			return fmt.Sprintf("No place is called %s there.", f.Part[strings.Index(f.Part, "#"):])
		}
		return fmt.Sprintf("The site has no page at %s.", f.Part)
	},
	whole: func(p *Page, r *report) {
		here := Anchors(p.Doc)
		for _, l := range links(p.Doc) {
			path, anchor, placed := strings.Cut(l.to, "#")
			ok := true
			switch {
			case strings.HasPrefix(l.to, doc.FilePrefix):
				ok = p.File != nil && p.File(doc.LinkedFile(l.to))
			case strings.HasPrefix(l.to, "#"):
				ok = anchor == "" || slices.Contains(here, anchor)
			case strings.HasPrefix(l.to, "/"):
				path, _, _ = strings.Cut(path, "?")
				address := strings.Trim(path, "/")
				i := slices.IndexFunc(p.Others, func(o Other) bool { return o.Address == address })
				if ok = i >= 0; ok && placed && anchor != "" {
					names := p.Others[i].Anchors
					if address == p.Here {
						names = here
					}
					ok = slices.Contains(names, anchor)
				}
			}
			if !ok {
				r.add(Finding{Node: l.block, Part: l.to, Words: l.name()})
			}
		}
	},
}

var noWordsLink = Rule{
	ID: "no-words-link", Name: "Something to press says nothing", Family: Content, Severity: Broken, Standard: "WCAG 2.2, 2.4.4",
	Why:   "Who hears the page is told “link”, and not where to.",
	short: func(f *Finding, name func(string) string) string { return "a link without words" },
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("A link of %s has no words", name(f.Node))
	},
	say: func(f *Finding, _ func(string) string) string {
		return "Give it words, or the picture in it alternative text."
	},
	whole: func(p *Page, r *report) {
		p.inZones(r, func(z int, note func(Finding)) {
			p.each(z, func(n *element.Node, node string, hidden bool) {
				pressed := n.Tag == "a" && has(n, "href") || n.Tag == "button"
				if pressed && !hidden && spoken(n) == "" && attr(n, "aria-labelledby") == "" &&
					!strings.Contains(n.Raw, "aria-label") {
					note(Finding{Node: node, Part: attr(n, "href")})
				}
			})
		})
	},
}

// vague are words that tell nothing of where a link leads, in small letters; common practice, in
// English.
var vague = []string{
	"here",
	"click here",
	"click",
	"link",
	"more",
	"read more",
	"learn more",
	"see more",
	"this",
	"this page",
	"go",
	"details",
	"continue",
}

var vagueLink = Rule{
	ID: "vague-link", Name: "A link doesn’t say where it leads", Family: Content, Severity: Hint, Standard: "WCAG 2.2, 2.4.9 (AAA)",
	Why: "Links are read by themselves, in lists and by eyes that skim.",
	short: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("“%s” says nothing of where to", f.Words)
	},
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("“%s” in %s doesn’t say where it leads", f.Words, name(f.Node))
	},
	whole: func(p *Page, r *report) {
		seen := map[string]bool{}
		p.each(0, func(n *element.Node, node string, hidden bool) {
			if n.Tag != "a" || !has(n, "href") || hidden || seen[node] {
				return
			}
			words := strings.Trim(strings.ToLower(spoken(n)), " .…→>»")
			if slices.Contains(vague, words) {
				seen[node] = true
				r.add(Finding{Node: node, Words: spoken(n)})
			}
		})
	},
}

var sameLink = Rule{
	ID: "same-link", Name: "Links with the same words lead to different places", Family: Content, Severity: Hint, Standard: "WCAG 2.2, 2.4.9 (AAA)",
	Why: "Nobody can tell which is which.",
	title: func(f *Finding, _ func(string) string) string {
		return fmt.Sprintf("“%s” leads to %.0f places", f.Words, f.By)
	},
	whole: func(p *Page, r *report) {
		leads := map[string][]string{} // places by words
		first := map[string]Finding{}
		var said []string
		p.each(0, func(n *element.Node, node string, hidden bool) {
			to := attr(n, "href")
			words := spoken(n)
			if n.Tag != "a" || to == "" || hidden || words == "" || slices.Contains(leads[words], to) {
				return
			}
			if leads[words] = append(leads[words], to); len(leads[words]) == 1 {
				said, first[words] = append(said, words), Finding{Node: node}
			} else if f := first[words]; f.Other == "" && node != f.Node {
				f.Other = node
				first[words] = f
			}
		})
		for _, words := range said {
			if n := len(leads[words]); n > 1 {
				f := first[words]
				f.By, f.Words, f.Part = float64(n), start(words), start(words)
				r.add(f)
			}
		}
	},
}

var twice = Rule{
	repair: mendTwice,
	ID:     "anchor-twice", Name: "Two places have one name", Family: Content, Severity: Broken, Standard: "HTML, the id attribute",
	Why: "Links to it lead to the first; the other can’t be reached.",
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
