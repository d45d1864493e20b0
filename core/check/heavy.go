package check

import (
	"fmt"
	"strconv"
)

var heavy = Rule{
	ID: "heavy", Name: "The page is heavy", Family: Weight, Severity: Doubtful,
	What: "over 1 MB in a zone (common practice): HTML, CSS and scripts packed, fonts, and the picture files that the zone's typical width chooses",
	Why:  "On a slow line visitors wait, and pay for it.",
	title: func(f *Finding, _ func(string) string) string {
		return fmt.Sprintf("The page loads %s kB", thousands(f.By/1000))
	},
	say: func(f *Finding, _ func(string) string) string {
		return fmt.Sprintf(
			"%s; up to %s kB is what loads in some five seconds on a slow line.",
			f.Words,
			thousands(f.Of/1000),
		)
	},
	whole: func(p *Page, r *report) {
		if len(p.Weights) != len(p.Site.Zones) {
			return
		}
		for z, w := range p.Weights {
			if w.Sum() > mostBytes {
				r.add(Finding{
					Part: p.Site.Zones[z].ID, By: float64(w.Sum()), Of: mostBytes, Ranges: []Range{zoneRange(p.Site.Zones, z)},
					Words: fmt.Sprintf(
						"Pictures %s kB, fonts %s kB, the rest %s kB",
						thousands(
							float64(w.Pictures)/1000,
						),
						thousands(float64(w.Fonts)/1000),
						thousands(float64(w.HTML+w.CSS+w.Scripts)/1000),
					),
				})
			}
		}
	},
}

// mostBytes is how much a page may weigh; common practice, about five seconds on a slow line of
// 1.6 Mbit/s.
const mostBytes = 1_000_000

func thousands(n float64) string {
	s := strconv.Itoa(int(n + 0.5))
	if len(s) > 3 {
		return s[:len(s)-3] + "," + s[len(s)-3:]
	}
	return s
}
