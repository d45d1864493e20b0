package ready

import (
	"testing"

	"openplot/core/doc"
)

// Values of a narrower zone's own keep a change on the widest one from arriving there, so
// that ready-made sections have next to none: rules and fluid steps do it.
func TestReadySectionsLeaveNarrowerZonesToRules(t *testing.T) {
	const most = 2
	widest := doc.StandardZones().Widest()
	for i := range Presets {
		sec := Presets[i].Look(nil)
		n := 0
		narrower := func(zone string) {
			if zone != widest {
				n++
			}
		}
		style := func(s doc.Style) {
			for _, values := range s {
				for zone := range values {
					narrower(zone)
				}
			}
		}
		style(sec.Style)
		sec.Walk(func(b *doc.Block) {
			style(b.Style)
			for zone := range b.Place {
				narrower(zone)
			}
			for zone := range b.Hidden {
				narrower(zone)
			}
		})
		if n > most {
			t.Errorf("%s has %d values of narrower zones, more than %d", Presets[i].ID, n, most)
		}
	}
}
