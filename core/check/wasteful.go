package check

import "fmt"

var wasteful = Rule{
	ID: "wasteful", Name: "A picture is much smaller than its file", Family: Weight, Severity: Hint, least: 16, viewport: true,
	What: "the file that a browser chooses is 800 px wide or more, and three times what is shown",
	Why:  "Visitors load pixels that nobody sees.",
	short: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("loads %.0f px for %.0f", f.By, f.Of)
	},
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("%s loads %.0f px and shows %.0f", name(f.Node), f.By, f.Of)
	},
	at: func(s *sight) {
		for i := range s.boxes {
			b := &s.boxes[i]
			if b.Node.Tag != "img" || b.block == "" || b.W <= 0 || vector(attr(b.Node, "src")) {
				continue
			}
			if _, loads := Loads(b.Node, s.width); loads >= leastWaste && loads > b.W*mostWaste {
				s.noteWords(b.block, "", "", loads, b.W, "")
			}
		}
	},
}
