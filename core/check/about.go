package check

import (
	"fmt"
	"strings"

	"openplot/core/found"
)

var about = Rule{
	ID: "about", Name: "What results and shared links show", Family: Content, Severity: Hint,
	What: "title or description too long in px for results, missing, or another page's",
	Why:  "Search engines and messengers show the title and the description, cut to what they have room for.",
	title: func(f *Finding, _ func(string) string) string {
		switch f.Part {
		case "no-description":
			return "The page has no description"
		case "title", "description":
			return fmt.Sprintf("The %s is %.0f px too long for results", f.Part, f.By-f.Of)
		}
		return fmt.Sprintf("“%s” has the same %s", f.Words, strings.TrimPrefix(f.Part, "same-"))
	},
	say: func(f *Finding, _ func(string) string) string {
		switch f.Part {
		case "no-description":
			return "Results then show words from anywhere on it."
		case "title", "description":
			return fmt.Sprintf("It is %.0f px wide where about %.0f are shown.", f.By, f.Of)
		}
		return "Results show two pages that can’t be told apart."
	},
	whole: func(p *Page, r *report) {
		d := p.Doc
		if d.Unlisted {
			return
		}
		if f := found.Title(d.Title); f.Over() {
			r.add(Finding{Part: "title", By: float64(f.Px), Of: float64(f.Room), Words: start(d.Title)})
		}
		switch f := found.Description(d.Description); {
		case strings.TrimSpace(d.Description) == "":
			r.add(Finding{Part: "no-description"})
		case f.Over():
			r.add(Finding{Part: "description", By: float64(f.Px), Of: float64(f.Room)})
		}
		for _, o := range p.Others {
			if o.Address == p.Here {
				continue
			}
			if o.Title == d.Title && d.Title != "" {
				r.add(Finding{Part: "same-title", Words: o.Name})
				break
			}
			if o.Description == d.Description && d.Description != "" {
				r.add(Finding{Part: "same-description", Words: o.Name})
				break
			}
		}
	},
}
