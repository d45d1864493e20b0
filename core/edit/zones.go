package edit

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"openplot/core/doc"
	"openplot/core/settings"
	"openplot/core/style"
)

// The widest zone's values are those that the others follow, so that its id stays, whatever
// becomes of the zones. A value that is set in a zone that isn't there any more stays in the
// document and means nothing: so zones can be had back.

// MoveZone has a zone begin at another width, in px; the next narrower one ends there. Errors are
// *doc.Problem.
func MoveZone(zs doc.Zones, id string, at int) (doc.Zones, error) {
	i := zs.Index(id)
	if i < 0 {
		return nil, noZone(id)
	}
	if i == len(zs)-1 {
		return nil, doc.Problemf("Zone", "%s is the narrowest: it begins where the page does", zs[i].Name)
	}
	zs = slices.Clone(zs)
	zs[i].Min = at
	return fitted(zs)
}

// SplitZone parts the zone that a width in px falls in: what is narrower than that is a zone of its
// own, with a new id, which follows the wider part in everything. Errors are *doc.Problem.
func SplitZone(zs doc.Zones, at int, wider, narrower string, newID func(string) string) (doc.Zones, error) {
	i := zs.At(float64(at))
	if at == zs[i].Min {
		return nil, doc.Problemf("Width", "is where %s begins already; choose another", zs[i].Name)
	}
	zs = slices.Clone(zs)
	low := zs[i]
	low.ID = newID("z")
	low.Name, zs[i].Name, zs[i].Min = narrower, wider, at
	return fitted(slices.Insert(zs, i+1, low))
}

// RemoveZone takes a zone away: what is in it belongs to the next wider one, whose values hold there
// then. Errors are *doc.Problem.
func RemoveZone(zs doc.Zones, id string) (doc.Zones, error) {
	i := zs.Index(id)
	switch {
	case i < 0:
		return nil, noZone(id)
	case i == 0:
		return nil, doc.Problemf(
			"Zone",
			"%s is the widest, whose values the others follow: it stays; remove the one below it",
			zs[0].Name,
		)
	}
	zs = slices.Clone(zs)
	zs[i-1].Min = zs[i].Min
	return fitted(slices.Delete(zs, i, i+1))
}

// NameZone gives a zone another name. Errors are *doc.Problem.
func NameZone(zs doc.Zones, id, name string) (doc.Zones, error) {
	i := zs.Index(id)
	if i < 0 {
		return nil, noZone(id)
	}
	name, err := doc.Line("Zone", name, 40)
	if err != nil {
		return nil, err
	}
	zs = slices.Clone(zs)
	zs[i].Name = name
	return fitted(zs)
}

func noZone(id string) error {
	return doc.Problemf("Zone", "%.40q isn't one of this site’s any more", id)
}

// fitted gives zones whose typical widths lie in them.
func fitted(zs doc.Zones) (doc.Zones, error) {
	for i := range zs {
		least, most := max(zs[i].Min, doc.MinViewport), doc.MaxViewport
		if i > 0 {
			most = zs[i-1].Min - 1
		}
		if zs[i].Typical < least || zs[i].Typical > most {
			zs[i].Typical = (least + min(most, least+400)) / 2
		}
	}
	return zs, settings.CheckZones(zs)
}

// SetIn counts the values that are set in a zone on a page.
func SetIn(p *doc.Page, zone string) (n int) {
	in := func(ok bool) {
		if ok {
			n++
		}
	}
	style := func(st doc.Style) {
		for _, v := range st {
			_, ok := v[zone]
			in(ok)
		}
	}
	_, ok := p.Guides[zone]
	in(ok)
	for _, s := range p.Sections {
		style(s.Style)
		s.Walk(func(b *doc.Block) {
			style(b.Style)
			_, placed := b.Place[zone]
			in(placed)
			_, hidden := b.Hidden[zone]
			in(hidden)
			_, said := b.Content.Instead[zone]
			in(said)
		})
	}
	return n
}

// Here is a value that is set in a zone, so that it doesn't follow the wider one.
type Here struct {
	Node  string // a section or block
	Label string // what is set, as the Tray calls it
	Value string
	// Setting is what the follow command takes, or "" for a place, for what is hidden, and for words.
	Setting string
}

// firstOf gives the first of words, for a list.
func firstOf(w doc.Words) string {
	r := []rune(strings.Join(strings.Fields(w.Plain()), " "))
	if len(r) > 60 {
		return string(r[:59]) + "…"
	}
	return string(r)
}

// SetHere lists the values that are set in a zone on a page, in the order of the document.
func SetHere(p *doc.Page, zone string) (out []Here) {
	look := func(node string, st doc.Style, kind doc.Kind) {
		for _, name := range slices.Sorted(maps.Keys(st)) {
			if v, ok := st[name][zone]; ok {
				label := name
				if s := style.Find(name, kind); s != nil {
					label = s.Label
				}
				out = append(out, Here{node, label, v, name})
			}
		}
	}
	for _, s := range p.Sections {
		look(s.ID, s.Style, style.OnSection)
		s.Walk(func(b *doc.Block) {
			if at, ok := b.Place[zone]; ok {
				out = append(
					out,
					Here{
						Node:  b.ID,
						Label: "Place",
						Value: fmt.Sprintf(
							"columns %d–%d, rows %d–%d",
							at.Column,
							at.Column+at.Span-1,
							at.Row,
							at.Row+at.Rows-1,
						),
					},
				)
			}
			if hidden, ok := b.Hidden[zone]; ok {
				out = append(
					out,
					Here{Node: b.ID, Label: "Visible", Value: map[bool]string{true: "hidden", false: "shown"}[hidden]},
				)
			}
			if w, ok := b.Content.Instead[zone]; ok {
				out = append(out, Here{Node: b.ID, Label: "Words", Value: firstOf(w)})
			}
			look(b.ID, b.Style, b.Kind)
		})
	}
	return out
}

// places are the settings that say where things stand in a zone and in what order.
var places = []string{"order", "shares", "below", "direction", "columns", "wrap"}

// followZone has all that is set in a zone follow the wider one, or only where things stand: on the
// page, in a section with all that stands in it, or of a block with all in it.
func (e sectionEdits) followZone() ([]Step, error) {
	if e.c.Zone == e.zones().Widest() {
		return nil, doc.Problemf(
			"Zone",
			"%s is the widest; there is none that it could follow",
			e.env.Site.Zones[0].Name,
		)
	}
	all := e.c.Setting != "places"
	cleared := func(st doc.Style) (doc.Style, bool) {
		next, changed := doc.Style{}, false
		for name, v := range st {
			w := v
			if all || slices.Contains(places, name) {
				w = v.Without(e.c.Zone)
			}
			changed = changed || len(w) != len(v)
			if len(w) > 0 {
				next[name] = w
			}
		}
		if len(next) == 0 {
			next = nil
		}
		return next, changed
	}
	id, _ := doc.SplitItem(e.c.Node)
	var steps []Step
	found := id == ""
	for _, s := range e.page.Sections {
		whole := id == "" || s.ID == id
		found = found || whole
		if next, changed := cleared(s.Style); whole && changed {
			head := s.Head()
			head.Style = next
			steps = append(steps, Step{Do: SetSection, ID: s.ID, Section: head})
		}
		s.Walk(func(b *doc.Block) {
			within := whole || b.ID == id ||
				slices.ContainsFunc(s.Path(b.ID), func(up *doc.Block) bool { return up.ID == id })
			found = found || within
			next, changed := cleared(b.Style)
			_, placed := b.Place[e.c.Zone]
			_, hidden := b.Hidden[e.c.Zone]
			_, says := b.Content.Instead[e.c.Zone]
			hidden, says = hidden && all, says && all
			if within && (changed || placed || hidden || says) {
				steps = append(steps, setBlock(b, func(c *doc.Block) {
					if c.Style, c.Place = next, b.Place.Without(e.c.Zone); hidden {
						c.Hidden = b.Hidden.Without(e.c.Zone)
					}
					if says {
						c.Content.Instead = b.Content.Instead.Without(e.c.Zone)
					}
				})...)
			}
		})
	}
	if !found {
		return nil, doc.Problemf("Selection", "isn't on this page any more")
	}
	return steps, nil
}
