package style

import "strconv"

// Family is a shipped font family.
type Family struct {
	Name    string
	Generic string // the CSS generic family that stands in for it
	Use     string // what it is good for, in a few words
}

// Families lists the shipped families. Package fonts has their files.
var Families = []Family{
	{"Hanken Grotesk", "sans-serif", "plain sans, good in small sizes"},
	{"Bricolage Grotesque", "sans-serif", "lively sans for headings"},
	{"Source Serif 4", "serif", "bookish serif"},
	{"Fraunces", "serif", "soft, old-style serif for headings"},
	{"Figtree", "sans-serif", "friendly geometric sans"},
	{"Lora", "serif", "brushed serif, warm in long texts"},
	{"Oswald", "sans-serif", "narrow sans for headings and labels"},
	{"Caveat", "cursive", "handwriting, for a word or two"},
	{"DM Serif Display", "serif", "high-contrast serif for large sizes"},
	{"Atkinson Hyperlegible", "sans-serif", "letters that are hard to confuse"},
	{"IBM Plex Mono", "monospace", "typewriter for figures and times"},
}

// FontStack gives the CSS font-family value for a family.
func FontStack(name string) string {
	for _, f := range Families {
		if f.Name == name {
			return `"` + name + `", ` + f.Generic
		}
	}
	return strconv.Quote(name) + ", sans-serif" // a site's own, or one that is gone
}
