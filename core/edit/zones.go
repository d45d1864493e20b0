package edit

import (
	"slices"

	"openplot/core/doc"
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
		return nil, doc.Problemf("Zone", "%s is the widest, whose values the others follow: it stays; remove the one below it", zs[0].Name)
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
	name, err := text("Zone", name, 40)
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
	return zs, CheckZones(zs)
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
		})
	}
	return n
}
