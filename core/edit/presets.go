package edit

import "openplot/core/doc"

// Preset is a ready-made section: a design for a purpose. It uses what every house
// style has, so that it fits any site at once.
type Preset struct {
	ID, Purpose, Name, Hint string
	section                 func() *doc.Section
}

// Purposes lists what ready-made sections are for, in the order of the Shelf.
var Purposes = []string{
	"Blank", "Top bar", "Welcome", "About", "Features", "Figures", "Steps", "Gallery", "People", "Testimonials", "Prices",
	"Timetable", "Questions", "Notices", "Form", "Map and contact", "Call to action", "Footer",
}

// make gives a new section of the preset with new ids.
func (p *Preset) make(newID func(string) string) *doc.Section {
	s := p.section()
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
func (p *Preset) Look() *doc.Section { return p.section() }

// FindPreset gives a preset by id, or nil.
func FindPreset(id string) *Preset {
	for i := range Presets {
		if Presets[i].ID == id {
			return &Presets[i]
		}
	}
	return nil
}
