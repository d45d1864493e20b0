package style

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
	{"IBM Plex Mono", "monospace", "typewriter for figures and times"},
}

// FontStack gives the CSS font-family value for a family.
func FontStack(name string) string {
	for _, f := range Families {
		if f.Name == name {
			return `"` + name + `", ` + f.Generic
		}
	}
	return "sans-serif"
}
