package check

import (
	"context"
	"slices"
	"strings"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/style"
)

// Page is a page to be checked as a whole, with what the site around it holds.
type Page struct {
	Site *doc.Site
	Doc  *doc.Page
	Here string // its address, without slashes at its ends
	// Parts are its sections as visitors see them, in their order.
	Parts []Part
	// Others are all pages of the site, this one too.
	Others []Other
	// File tells whether the site has a file, StandIn whether words are those that a ready-made
	// section came with; nil functions know of none.
	File    func(id string) bool
	StandIn func(b *doc.Block, words string) bool
	// Weights are what a visitor's browser loads, by zone; nil when it isn't known. Families are the
	// fonts that are loaded.
	Weights  []Bytes
	Families []string
}

// Whole gives what is wrong with a page as a whole.
func Whole(p *Page) (out []Finding) {
	for _, r := range Rules {
		if r.whole != nil {
			r.whole(p, &report{r, &out})
		}
	}
	return out
}

// Findings puts those of the sections of a page with those of all of it, in order. What is about
// links on the page is left out where nothing on it leads anywhere on it.
func Findings(p *Page, sections [][]Finding) []Finding {
	out := slices.Concat(append(slices.Clone(sections), Whole(p))...)
	if len(Anchors(p.Doc)) == 0 {
		out = slices.DeleteFunc(out, func(f Finding) bool { return f.Rule == &underBar })
	}
	Sort(out)
	seen := map[Key]bool{}
	return slices.DeleteFunc(out, func(f Finding) bool { // one section by itself, and held against the next
		k := f.Key()
		was := seen[k]
		seen[k] = true
		return was
	})
}

// All gives what is wrong with a page: in each of its sections, and in all of it.
func All(p *Page) []Finding {
	sections := make([][]Finding, len(p.Parts))
	for i, part := range p.Parts {
		sections[i], _ = Section(context.Background(), part) // which doesn't end before
		if i > 0 {
			pair, _ := Between(context.Background(), p.Parts[i-1], part)
			sections[i] = append(sections[i], pair...)
		}
	}
	return Findings(p, sections)
}

// inZones adds findings that hold for zones: f gives them for one, and those of neighbouring zones
// are one.
func (p *Page) inZones(r *report, f func(z int, note func(Finding))) {
	from := len(*r.out)
	for z := len(p.Site.Zones) - 1; z >= 0; z-- {
		widths := zoneRange(p.Site.Zones, z)
		f(z, func(found Finding) {
			found.Rule = r.rule
			for i := from; i < len(*r.out); i++ {
				o := &(*r.out)[i]
				if o.Key() != found.Key() {
					continue
				}
				if last := &o.Ranges[len(o.Ranges)-1]; last.To == widths.From-1 {
					last.To = widths.To
				} else if last.To < widths.From {
					o.Ranges = append(o.Ranges, widths)
				}
				return
			}
			found.Ranges, found.Worst = []Range{widths}, widths.From
			r.add(found)
		})
	}
}

// each calls f for the elements of the page that are there in a zone, with the block or section
// that they are part of.
func (p *Page) each(z int, f func(n *element.Node, node string, hidden bool)) {
	for _, part := range p.Parts {
		var walk func(n *element.Node, node string, hidden bool)
		walk = func(n *element.Node, node string, hidden bool) {
			if n.Styles != nil && n.Styles[z].Display == style.None || n.Folded {
				return
			}
			if n.Section != "" {
				node = n.Section
			}
			if n.Block != "" {
				node = n.Block
			}
			hidden = hidden || attr(n, "aria-hidden") == "true"
			f(n, node, hidden)
			for _, c := range n.Children {
				walk(c, node, hidden)
			}
		}
		walk(part.Root, "", false)
	}
}

// Anchors are the names of the places on a page that links lead to.
func Anchors(p *doc.Page) (out []string) {
	for _, v := range p.Views() {
		out = append(out, v.Anchor)
	}
	for _, s := range p.Sections {
		if s.Anchor != "" {
			out = append(out, s.Anchor)
		}
		s.Walk(func(b *doc.Block) {
			if name := b.Content.Values["name"]; b.Kind == doc.Anchor && name != "" {
				out = append(out, name)
			}
		})
	}
	return out
}

// link is a link of a page, as it was entered.
type link struct {
	block, to, words string
}

// links gives the links of a page.
func links(p *doc.Page) (out []link) {
	for _, s := range p.Sections {
		if s.Hidden {
			continue
		}
		s.Walk(func(b *doc.Block) {
			add := func(node string, kind doc.Kind, c doc.Content) {
				note := func(to, words string) {
					if to, _ = doc.SplitLink(to); to != "" {
						out = append(out, link{node, to, words})
					}
				}
				words := func(ws doc.Words) {
					for _, para := range ws {
						for _, r := range para {
							note(r.Link, r.Text)
						}
					}
				}
				note(c.Link, start(c.Words.Plain()))
				for _, w := range c.Said() {
					words(w)
				}
				a := element.Of(kind)
				if a == nil {
					return
				}
				for _, f := range a.Fields {
					if f.Type == element.Address && f.Name != "link" {
						note(c.Values[f.Name], "")
					}
				}
				for _, e := range c.Entries {
					words(e.Words)
					for _, f := range a.Entry {
						if f.Type == element.Address {
							note(e.Values[f.Name], e.Values["label"])
						}
					}
				}
			}
			add(b.ID, b.Kind, b.Content)
			for _, it := range b.Items {
				b.Walk(func(in *doc.Block) {
					if c, own := it.Contents[in.ID]; own {
						add(doc.ItemID(in.ID, it.ID), in.Kind, c)
					}
				})
			}
		})
	}
	return out
}

// LeadsTo gives the addresses of the site's pages that a page has links to, each once, in their order.
func LeadsTo(p *doc.Page) (addresses []string) {
	for _, l := range links(p) {
		if path, own := strings.CutPrefix(l.to, "/"); own {
			if at := strings.IndexAny(path, "?#"); at >= 0 {
				path = path[:at]
			}
			if path = strings.Trim(path, "/"); !slices.Contains(addresses, path) {
				addresses = append(addresses, path)
			}
		}
	}
	return addresses
}

// name is how findings about a link call it.
func (l link) name() string {
	if w := strings.TrimSpace(l.words); w != "" {
		return w
	}
	return l.to
}
