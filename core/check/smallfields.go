package check

import (
	"fmt"

	"openplot/core/edit"
)

var smallFields = Rule{
	repair: mendFields,
	ID:     "small-fields", Name: "Words in fields are under 16 px on phones", Family: Reading, Severity: Hint, Least: true,
	What:  "words in fields under 16 px in the narrowest zone",
	Why:   "Some phones zoom in when such a field is touched, and visitors have to find their way back.",
	short: func(f *Finding, name func(string) string) string { return fmt.Sprintf("fields of %.4g px", f.By) },
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("Fields of %s are set in %.4g px", name(f.Node), f.By)
	},
	at: func(s *sight) {
		if s.zone != len(s.Zones)-1 {
			return
		}
		for i := range s.boxes {
			b := &s.boxes[i]
			if b.Node.Tag != "input" && b.Node.Tag != "select" && b.Node.Tag != "textarea" {
				continue
			}
			switch attr(b.Node, "type") {
			case "checkbox", "radio", "submit":
				continue
			}
			if size := b.st.FontPx(s.view); size < leastFieldSize-0.01 {
				s.noteWords(b.node(), "", "", size, leastFieldSize, "")
			}
		}
	},
}

func mendFields(p *Page, f *Finding) *Repair {
	return &Repair{
		"Fields in 16 px in " + p.where(f),
		edit.Command{Op: "set", Node: f.Node, Zone: p.at(f), Setting: "font-size", Value: "16px"},
	}
}

// leastFieldSize is in px: browsers on phones zoom into fields whose words are smaller (as they are
// known to; no standard says so).
const leastFieldSize = 16.0
