package doc

import (
	"maps"
	"slices"
)

// Zone is a range of viewport widths with its own values. A zone reaches from
// Min to one below the Min of the next wider zone; the widest has no upper end.
type Zone struct {
	ID      string `json:"id"`
	Name    string `json:"name"`
	Min     int    `json:"min"`     // px; the narrowest zone begins at 0
	Typical int    `json:"typical"` // px; the width shown when the zone is chosen
	Columns int    `json:"columns"` // columns of a placed grid, unless the section says otherwise
	// Height is the viewport height in px that is taken for it where a page is drawn or
	// measured, since a page has no height of its own; 0 is ViewHeight.
	Height int `json:"height,omitempty"`
}

// ViewHeight is the viewport height in px of a zone that says none.
const ViewHeight = 800

// ViewHeight is the viewport height in px that is taken for the zone.
func (z Zone) ViewHeight() float64 {
	if z.Height > 0 {
		return float64(z.Height)
	}
	return ViewHeight
}

// WithHeights gives zones with the viewport heights in px that a house style says.
func (zs Zones) WithHeights(heights Zoned[float64]) Zones {
	if len(heights) == 0 {
		return zs
	}
	zs = slices.Clone(zs)
	for i := range zs {
		zs[i].Height = int(heights.Or(zs, i, ViewHeight))
	}
	return zs
}

// Zones are ordered from the widest to the narrowest, the order in which values
// are handed down.
type Zones []Zone

// StandardZones are what a new site begins with.
func StandardZones() Zones {
	return Zones{
		{ID: "desktop", Name: "Desktop", Min: 1024, Typical: 1280, Columns: 12},
		{ID: "tablet", Name: "Tablet", Min: 640, Typical: 800, Columns: 8},
		{ID: "phone", Name: "Phone", Min: 0, Typical: 375, Columns: 4},
	}
}

// Index gives the position of the zone with an id, or -1.
func (zs Zones) Index(id string) int {
	for i, z := range zs {
		if z.ID == id {
			return i
		}
	}
	return -1
}

// At gives the index of the zone that a viewport width in px falls in.
func (zs Zones) At(width float64) int {
	for i, z := range zs {
		if width >= float64(z.Min) {
			return i
		}
	}
	return len(zs) - 1
}

// Widest is the id of the zone that base values belong to.
func (zs Zones) Widest() string { return zs[0].ID }

// Max is the greatest whole px of zone i, or 0 when it has no upper end.
func (zs Zones) Max(i int) int {
	if i == 0 {
		return 0
	}
	return zs[i-1].Min - 1
}

// Zoned holds a value per zone id. A zone without one follows the next wider
// zone that has; the widest zone's is the base.
type Zoned[T any] map[string]T

// Resolve gives the value that holds in zone i and the id of the zone it was set
// in; ok is false when neither that zone nor a wider one has a value.
func (z Zoned[T]) Resolve(zs Zones, i int) (v T, from string, ok bool) {
	for ; i >= 0; i-- {
		if v, ok = z[zs[i].ID]; ok {
			return v, zs[i].ID, true
		}
	}
	return v, "", false
}

// Or is Resolve with a fallback.
func (z Zoned[T]) Or(zs Zones, i int, fallback T) T {
	if v, _, ok := z.Resolve(zs, i); ok {
		return v
	}
	return fallback
}

// With gives a copy in which a zone has a value.
func (z Zoned[T]) With(zone string, v T) Zoned[T] {
	c := maps.Clone(z)
	if c == nil {
		c = Zoned[T]{}
	}
	c[zone] = v
	return c
}

// Without gives a copy in which a zone follows; nil when nothing is left.
func (z Zoned[T]) Without(zone string) Zoned[T] {
	if _, ok := z[zone]; !ok {
		return z
	}
	if len(z) == 1 {
		return nil
	}
	c := maps.Clone(z)
	delete(c, zone)
	return c
}
