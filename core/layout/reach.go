package layout

import "openplot/core/doc"

// reachStep is how far apart in px the widths are at which Reach lays a tree out.
const reachStep = 80

// Reach gives how far down from its top what stands in a tree reaches in a zone at most, px:
// at the zone's ends and at steps between, from doc.MinViewport to doc.MaxViewport.
func (t *Tree) Reach(zone int) (down float64) {
	from, to := max(t.zones[zone].Min, doc.MinViewport), doc.MaxViewport
	if zone > 0 {
		to = t.zones.Max(zone)
	}
	c := t.context()
	for w := from; ; w = min(w+reachStep, to) {
		_, h := c.at(float64(w)).Overflow(zone)
		if down = max(down, h); w >= to {
			return down
		}
	}
}
