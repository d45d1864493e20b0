package settings

import "openplot/core/doc"

// Limits of zones.
const (
	maxZones   = 8
	leastZone  = 40                          // px that a zone is wide
	widestZone = doc.MaxViewport - leastZone // px at which the widest begins at most
)

// CheckZones checks a site's zones: from the widest to the narrowest, which begins at 0. Errors
// are *doc.Problem.
func CheckZones(zs doc.Zones) error {
	if len(zs) == 0 || len(zs) > maxZones {
		return doc.Problemf("Zones", "are %d; a site has 1 to %d", len(zs), maxZones)
	}
	seen := map[string]bool{}
	for i, z := range zs {
		name, err := doc.Line("Zone", z.Name, 40)
		above := doc.MaxViewport + 1
		if i > 0 {
			above = zs[i-1].Min
		}
		switch {
		case err != nil:
			return err
		case name == "" || name != z.Name:
			return doc.Problemf("Zone", "can't be called %.40q: write a name", z.Name)
		case !doc.IsID(z.ID) || seen[z.ID]:
			return doc.Problemf(
				"Zone",
				"%s has an id that another has, or that isn't small letters and digits: %.40q",
				z.Name,
				z.ID,
			)
		case i == len(zs)-1 && z.Min != 0:
			return doc.Problemf(
				"Zone",
				"%s is the narrowest and begins at %d px; the narrowest begins at 0",
				z.Name,
				z.Min,
			)
		case i == 0 && z.Min > widestZone, i > 0 && z.Min > above-leastZone, i < len(zs)-1 && z.Min < doc.MinViewport:
			return doc.Problemf(
				"Zone",
				"%s can't begin at %d px: a zone is %d px wide at least, and all but the narrowest begin between %d and %d px",
				z.Name,
				z.Min,
				leastZone,
				doc.MinViewport,
				widestZone,
			)
		case z.Typical < z.Min || z.Typical >= above || z.Typical < doc.MinViewport:
			return doc.Problemf("Zone", "%s is shown at %d px, which isn't in it", z.Name, z.Typical)
		case z.Columns < 1 || z.Columns > doc.MaxColumns:
			return doc.Problemf(
				"Zone",
				"%s has a grid of %d columns; 1 to %d is what there can be",
				z.Name,
				z.Columns,
				doc.MaxColumns,
			)
		}
		seen[z.ID] = true
	}
	return nil
}
