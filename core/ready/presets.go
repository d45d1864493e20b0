// Package ready is what ships ready-made: sections, pages, house styles, the words of kinds of
// business, and how words that only stand in are known.
//
// It makes sections and pages under ids of the caller's. Nothing here changes a page: that is
// core/edit's. Start at Presets and NewPage.
package ready

import (
	"strconv"
	"strings"

	"openplot/core/doc"
)

// Preset is a ready-made section: a design for a purpose. It uses what every house
// style has, so that it fits any site at once.
type Preset struct {
	ID, Purpose, Name, Hint string
	// Stock is the picture that ships which lies behind it to begin with, or "".
	Stock   string
	section func() *doc.Section
}

// Purposes lists what ready-made sections are for, in the order of the Shelf.
var Purposes = []string{
	"Blank", "Top bar", "Welcome", "About", "Features", "Figures", "Steps", "Gallery", "People", "Testimonials", "Prices",
	"Timetable", "Questions", "Notices", "Form", "Map and contact", "Call to action", "Footer",
}

// synonyms are further words that the ready-made sections of a purpose are found by.
var synonyms = map[string]string{
	"Blank": "new empty", "Top bar": "header navigation nav menu", "Welcome": "hero cover banner header intro masthead", "About": "story intro text",
	"Features": "benefits services reasons", "Figures": "counter numbers stats statistics", "Steps": "process how it works", "Gallery": "photos portfolio images album",
	"People": "team staff crew about us", "Testimonials": "reviews quotes voices", "Prices": "pricing plans fares tickets", "Timetable": "programme program schedule agenda hours",
	"Questions": "faq answers help", "Notices": "news blog announcement banner", "Form": "contact sign-up signup newsletter enquiry booking",
	"Map and contact": "location address directions", "Call to action": "cta banner sign-up signup", "Footer": "bottom imprint links",
}

// Find gives the words that searching the Shelf looks in.
func (p *Preset) Find() string {
	return strings.Join([]string{p.Name, p.Hint, p.Purpose, "section", synonyms[p.Purpose]}, " ")
}

// Make gives a new section of the preset with new ids, in the words of a business or, where
// it is nil, of any.
func (p *Preset) Make(newID func(string) string, b *Business) *doc.Section {
	s := p.Look(b)
	s.ID, s.Name, s.Made = newID("s"), p.Purpose, p.ID
	if p.Purpose == Purposes[0] {
		s.Name = "New section"
	}
	for i, b := range s.Blocks {
		s.Blocks[i] = b.Anew(newID)
	}
	return s
}

// Look gives the section as it begins, without ids, to be looked at.
func (p *Preset) Look(b *Business) *doc.Section {
	s := p.section()
	b.Say(s.Blocks)
	return s
}

// Drawn gives the section as it begins, with ids that are the same each time, to be drawn.
func (p *Preset) Drawn(b *Business) *doc.Section {
	n := 0
	return p.Make(func(prefix string) string { n++; return prefix + "-" + p.ID + "-" + strconv.Itoa(n) }, b)
}

// FindPreset gives a preset by id, or nil.
func FindPreset(id string) *Preset {
	for i := range Presets {
		if Presets[i].ID == id {
			return &Presets[i]
		}
	}
	return nil
}
