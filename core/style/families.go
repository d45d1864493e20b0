package style

import (
	"slices"
	"strconv"

	"openplot/core/doc"
)

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

// Pairing is a family for headings with one for reading.
type Pairing struct{ ID, Name, Heading, Body string }

// Pairings lists font pairings of the shipped families.
var Pairings = []Pairing{
	{"harbour", "Harbour", "Bricolage Grotesque", "Hanken Grotesk"},
	{"ledger", "Ledger", "Source Serif 4", "Source Serif 4"},
	{"lantern", "Lantern", "Fraunces", "Hanken Grotesk"},
	{"signal", "Signal", "Oswald", "Source Serif 4"},
	{"brochure", "Brochure", "DM Serif Display", "Figtree"},
	{"clinic", "Clinic", "Figtree", "Figtree"},
	{"reader", "Reader", "Lora", "Atkinson Hyperlegible"},
	{"plain", "Plain speech", "Atkinson Hyperlegible", "Atkinson Hyperlegible"},
	{"letter", "Letter", "Caveat", "Lora"},
	{"workshop", "Workshop", "IBM Plex Mono", "Hanken Grotesk"},
	{"almanac", "Almanac", "Fraunces", "Lora"},
	{"poster", "Poster", "Oswald", "Figtree"},
}

// FindPairing gives a pairing by id, or nil.
func FindPairing(id string) *Pairing {
	for i := range Pairings {
		if Pairings[i].ID == id {
			return &Pairings[i]
		}
	}
	return nil
}

// Generics are the CSS generic families that can stand in for a family of one's own.
var Generics = []string{"sans-serif", "serif", "monospace", "cursive"}

// HasFamily reports whether a house style can be set in a family.
func HasFamily(h *doc.House, name string) bool {
	return slices.ContainsFunc(Families, func(f Family) bool { return f.Name == name }) || h.OwnFamily(name) != nil
}

// FontStack gives the CSS font-family value for a family; generic is that of a family of
// the site's own.
func FontStack(name, generic string) string {
	for _, f := range Families {
		if f.Name == name {
			return `"` + name + `", ` + f.Generic
		}
	}
	if generic == "" { // one that is gone
		generic = "sans-serif"
	}
	return strconv.Quote(name) + ", " + generic
}
