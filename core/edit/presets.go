package edit

import (
	"openplot/core/doc"
)

// Preset is a ready-made section.
type Preset struct {
	ID, Name, Hint string
	section        doc.Section
}

// make gives a new section of the preset with new ids.
func (p *Preset) make(newID func(string) string) *doc.Section {
	s := p.section.Clone()
	s.ID = newID("s")
	for i, b := range s.Blocks {
		s.Blocks[i] = b.Anew(newID)
	}
	return s
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

func everywhere(v string) doc.Zoned[string] { return doc.Zoned[string]{"desktop": v} }

func at(column, span, row, rows int) doc.Zoned[doc.Place] {
	return doc.Zoned[doc.Place]{"desktop": {Column: column, Span: span, Row: row, Rows: rows}}
}

// andTablet adds a placement for the tablet, whose order the phone then follows.
func andTablet(z doc.Zoned[doc.Place], column, span, row, rows int) doc.Zoned[doc.Place] {
	return z.With("tablet", doc.Place{Column: column, Span: span, Row: row, Rows: rows})
}

func plot(background string) doc.Style {
	s := doc.Style{"padding-top": everywhere("$broad"), "padding-bottom": everywhere("$broad")}
	if background != "" {
		s["background"] = everywhere(background)
	}
	return s
}

func heading(level int, words string, p doc.Zoned[doc.Place]) *doc.Block {
	return &doc.Block{Kind: doc.Heading, Place: p, Content: doc.Content{Level: level, Words: doc.PlainWords(words)}}
}

func textBlock(words string, p doc.Zoned[doc.Place], style doc.Style) *doc.Block {
	return &doc.Block{Kind: doc.Text, Place: p, Style: style, Content: doc.Content{Words: doc.PlainWords(words)}}
}

func button(words string, p doc.Zoned[doc.Place]) *doc.Block {
	return &doc.Block{Kind: doc.Button, Place: p, Content: doc.Content{Words: doc.PlainWords(words)}}
}

func picture(p doc.Zoned[doc.Place]) *doc.Block {
	return &doc.Block{Kind: doc.Picture, Place: p, Style: doc.Style{"border-radius": everywhere("$card"), "aspect-ratio": everywhere("rows")}}
}

// Presets are the sections of the Shelf. They use tokens of the house style only,
// so that they fit any site.
var Presets = []Preset{
	{"empty", "Empty section", "a bare grid to place blocks on", doc.Section{Name: "New section", Style: plot("")}},
	{"opening", "Opening", "a large heading, a lead, a button and a picture beside them", doc.Section{
		Name: "Opening", Style: plot("$quiet-ground"),
		Blocks: []*doc.Block{
			heading(1, "Say in one line what you offer", at(1, 6, 1, 4)),
			textBlock("Then add a sentence on whom it is for and why it is good. Keep it short enough to read standing.", at(1, 5, 6, 3), doc.Style{"text-style": everywhere("$lead")}),
			button("Ask us", at(1, 3, 10, 2)),
			picture(at(8, 5, 1, 12)),
		}}},
	{"side-by-side", "Picture and words", "a picture with a text that overlaps its edge", doc.Section{
		Name: "Picture and words", Style: plot(""),
		Blocks: []*doc.Block{
			picture(at(1, 8, 1, 12)),
			textBlock("Tell the story behind it here. Two or three sentences are plenty; the picture does the rest.",
				doc.Zoned[doc.Place]{"desktop": {Column: 7, Span: 6, Row: 8, Rows: 6, Layer: 1}},
				doc.Style{"background": everywhere("$ground"), "padding-top": everywhere("$wide"), "padding-right": everywhere("$wide"), "padding-bottom": everywhere("$wide"), "padding-left": everywhere("$wide"), "border-radius": everywhere("$card"), "box-shadow": everywhere("$card")}),
		}}},
	{"three", "Three points", "a heading and three short texts in a row", doc.Section{
		Name: "Three points", Style: plot(""),
		Blocks: []*doc.Block{
			heading(2, "Three things worth knowing", at(1, 8, 1, 2)),
			heading(3, "The first", andTablet(at(1, 4, 4, 2), 1, 3, 4, 2)),
			textBlock("What it is, in the words your visitors use themselves.", andTablet(at(1, 4, 6, 4), 4, 5, 4, 3), nil),
			heading(3, "The second", andTablet(at(5, 4, 4, 2), 1, 3, 8, 2)),
			textBlock("What they get from it, and how soon they will notice.", andTablet(at(5, 4, 6, 4), 4, 5, 8, 3), nil),
			heading(3, "The third", andTablet(at(9, 4, 4, 2), 1, 3, 12, 2)),
			textBlock("What to do next, and what happens after they do.", andTablet(at(9, 4, 6, 4), 4, 5, 12, 3), nil),
		}}},
}
