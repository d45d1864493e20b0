package check

import (
	"openplot/core/chart"
	"openplot/core/doc"
	"openplot/core/number"
)

var offChart = Rule{
	ID: "off-chart", Name: "A map shows a place that isn't on the chart", Family: Content, Severity: Doubtful,
	What: "a map of a place outside the shipped chart",
	Why:  "The chart has nothing there, so visitors read the place's name where they expect a map.",
	title: func(f *Finding, name func(string) string) string {
		return name(f.Node) + " is of a place that isn’t on the chart"
	},
	say: func(*Finding, func(string) string) string {
		return "Put a picture of a map or an own drawing in its place, or the address as text."
	},
	whole: func(p *Page, r *report) {
		for _, s := range p.Doc.Sections {
			s.Walk(func(b *doc.Block) {
				if b.Kind != doc.Map {
					return
				}
				lat, err := number.Real(b.Content.Values["latitude"])
				lon, err2 := number.Real(b.Content.Values["longitude"])
				if err == nil && err2 == nil && !chart.Covers(lat, lon) {
					r.add(Finding{Node: b.ID, Words: b.Content.Values["label"]})
				}
			})
		}
	},
}
