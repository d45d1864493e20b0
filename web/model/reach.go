package model

import (
	"openplot/core/doc"
	"openplot/core/number"
)

// Widths that the Reach covers, in px.
const (
	LeastWidth    = doc.MinViewport
	GreatestWidth = doc.MaxViewport
)

// Reach is the rule of widths.
type Reach struct {
	Width int
	Zone  doc.Zone
	Zones []ReachZone
	Ticks []ReachTick
	Least int
	Most  int
}

// ReachZone is a zone on the rule.
type ReachZone struct {
	doc.Zone
	X, W    float64 // of 1000 units
	Current bool
	Key     int
}

// ReachTick is a mark of the rule.
type ReachTick struct {
	X     float64
	Label int // px, or 0 for a small tick
}

// Reach gives the rule with the zones of the site on it.
func (v *View) Reach() Reach {
	r := Reach{Width: int(v.Width), Zone: v.Current(), Least: LeastWidth, Most: GreatestWidth}
	at := func(px int) float64 { return float64(px-LeastWidth) / (GreatestWidth - LeastWidth) * 1000 }
	zs := v.Site.Zones
	for i := len(zs) - 1; i >= 0; i-- {
		from, to := max(zs[i].Min, LeastWidth), GreatestWidth
		if i > 0 {
			to = zs[i-1].Min
		}
		r.Zones = append(r.Zones, ReachZone{zs[i], at(from), at(to) - at(from), i == v.Zone, i + 1})
	}
	for px := LeastWidth; px <= GreatestWidth; px += 40 {
		t := ReachTick{X: at(px)}
		if (px-LeastWidth)%160 == 0 {
			t.Label = px
		}
		r.Ticks = append(r.Ticks, t)
	}
	return r
}

// ReadWidth reads a width in px as a request has it; otherwise where it has none. Errors are
// *doc.Problem.
func ReadWidth(text string, otherwise float64) (float64, error) {
	if text == "" {
		return otherwise, nil
	}
	w, err := number.Between(text, LeastWidth, GreatestWidth)
	if err != nil {
		return 0, doc.Problemf("Width", "can't be %.20q: write px from %d to %d", text, LeastWidth, GreatestWidth)
	}
	return w, nil
}
