// Package edittest has sections of placed blocks for the tests of edits, in which
// positions count.
package edittest

import "openplot/core/doc"

func everywhere(v string) doc.Zoned[string] { return doc.Zoned[string]{"desktop": v} }

func at(column, span, row, rows int) doc.Zoned[doc.Place] {
	return doc.Zoned[doc.Place]{"desktop": {Column: column, Span: span, Row: row, Rows: rows}}
}

func worded(kind doc.Kind, level int, words string, p doc.Zoned[doc.Place]) *doc.Block {
	return &doc.Block{Kind: kind, Place: p, Content: doc.Content{Level: level, Words: doc.PlainWords(words)}}
}

func picture(p doc.Zoned[doc.Place]) *doc.Block {
	return &doc.Block{
		Kind:  doc.Picture,
		Place: p,
		Style: doc.Style{"border-radius": everywhere("$card"), "aspect-ratio": everywhere("rows")},
	}
}

// Sections gives three sections with new ids: a heading, a text and a button beside a
// picture; three headings with texts in a row, placed on the tablet too; and a text
// that overlaps a picture.
func Sections(newID func(prefix string) string) []*doc.Section {
	tablet := func(z doc.Zoned[doc.Place], column, span, row, rows int) doc.Zoned[doc.Place] {
		return z.With("tablet", doc.Place{Column: column, Span: span, Row: row, Rows: rows})
	}
	room := func(background string) doc.Style {
		s := doc.Style{"padding-top": everywhere("$broad"), "padding-bottom": everywhere("$broad")}
		if background != "" {
			s["background"] = everywhere(background)
		}
		return s
	}
	lead := worded(
		doc.Text,
		0,
		"Then add a sentence on whom it is for and why it is good. Keep it short enough to read standing.",
		at(1, 5, 6, 3),
	)
	lead.Style = doc.Style{"text-style": everywhere("$lead")}
	over := worded(
		doc.Text, 0, "Tell the story behind it here. Two or three sentences are plenty; the picture does the rest.",
		doc.Zoned[doc.Place]{"desktop": {Column: 7, Span: 6, Row: 8, Rows: 6, Layer: 1}},
	)
	over.Style = doc.Style{
		"background":    everywhere("$ground"),
		"padding-top":   everywhere("$wide"),
		"padding-left":  everywhere("$wide"),
		"border-radius": everywhere("$card"),
	}
	sections := []*doc.Section{
		{Name: "Opening", Style: room("$quiet-ground"), Blocks: []*doc.Block{
			worded(doc.Heading, 1, "Say in one line what you offer", at(1, 6, 1, 4)), lead,
			worded(doc.Button, 0, "Ask us", at(1, 3, 10, 2)), picture(at(8, 5, 1, 12)),
		}},
		{Name: "Three points", Style: room(""), Blocks: []*doc.Block{
			worded(doc.Heading, 2, "Three things worth knowing", at(1, 8, 1, 2)),
			worded(doc.Heading, 3, "The first", tablet(at(1, 4, 4, 2), 1, 3, 4, 2)),
			worded(
				doc.Text,
				0,
				"What it is, in the words your visitors use themselves.",
				tablet(at(1, 4, 6, 4), 4, 5, 4, 3),
			),
			worded(doc.Heading, 3, "The second", tablet(at(5, 4, 4, 2), 1, 3, 8, 2)),
			worded(
				doc.Text,
				0,
				"What they get from it, and how soon they will notice.",
				tablet(at(5, 4, 6, 4), 4, 5, 8, 3),
			),
			worded(doc.Heading, 3, "The third", tablet(at(9, 4, 4, 2), 1, 3, 12, 2)),
			worded(
				doc.Text,
				0,
				"What to do next, and what happens after they do.",
				tablet(at(9, 4, 6, 4), 4, 5, 12, 3),
			),
		}},
		{Name: "Picture and words", Style: room(""), Blocks: []*doc.Block{picture(at(1, 8, 1, 12)), over}},
	}
	for _, s := range sections {
		s.ID = newID("s")
		for _, b := range s.Blocks {
			b.ID = newID("b")
		}
	}
	return sections
}
