package check_test

import (
	"testing"

	"openplot/core/check"
	"openplot/core/colour"
	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/place"
	"openplot/demo"
)

// lying puts a block on a layer above what it lies on.
func lying(b *doc.Block, column, span, row, rows, layer int) *doc.Block {
	put(b, column, span, row, rows)
	p := b.Place["desktop"]
	p.Layer = layer
	b.Place["desktop"] = p
	return b
}

// dusk is a picture that is dark above and darker below, dawn one that is pale.
func dusk(id string) *doc.Block { return picture(id, "dusk", "aspect-ratio", "rows") }
func dawn(id string) *doc.Block { return picture(id, "dawn", "aspect-ratio", "rows") }

// tones are the colours of these pictures.
func tones(address string) *colour.Pixels {
	p := &colour.Pixels{W: 8, H: 8}
	for i := range 64 {
		c := colour.Colour{R: uint8(20 + i/2), G: uint8(36 + i/2), B: uint8(48 + i/2), A: 255}
		if address == "dawn" {
			c = colour.Colour{R: uint8(250 - i/4), G: uint8(240 - i/4), B: uint8(226 - i/4), A: 255}
		}
		p.RGBA = append(p.RGBA, c)
	}
	return p
}

func pale(b *doc.Block) *doc.Block {
	b.Style["color"] = doc.Zoned[string]{"desktop": "#ffffff"}
	return b
}

func card(id string, in ...*doc.Block) *doc.Block {
	return hold(
		block(
			id,
			doc.Card,
			"background",
			"#ffffff",
			"padding-top",
			"24px",
			"padding-bottom",
			"24px",
			"padding-left",
			"24px",
			"padding-right",
			"24px",
		),
		doc.LineUp,
		in...)
}

// overlapping are designs in which blocks lie on one another on purpose: sections by what they are.
func overlapping() map[string]*doc.Section {
	title := func(id string) *doc.Block { return heading(id, 2, "Three islands, one timetable") }
	lead := func(id string) *doc.Block {
		return words(id, "Boats leave from the north steps, in any weather a boat should be out in.")
	}
	small := func(id string) *doc.Block { return words(id, "Skarva at dusk") }
	dark := func(s *doc.Section) *doc.Section {
		s.Style = element.Look("background", "#142a30", "color", "#ffffff")
		return s
	}
	return map[string]*doc.Section{
		"a title on a picture": grid(put(dusk("p"), 1, 12, 1, 16), lying(pale(title("t")), 2, 7, 6, 3, 1)),
		"a title and words on a picture": grid(
			put(dusk("p"), 1, 12, 1, 16),
			lying(pale(title("t")), 2, 7, 4, 3, 1),
			lying(pale(lead("w")), 2, 6, 8, 4, 1),
		),
		"words low on a picture": grid(
			put(dusk("p"), 1, 12, 1, 14),
			lying(pale(small("w")), 2, 5, 12, 2, 1),
		),
		"a card over a picture's edge": grid(
			put(dusk("p"), 1, 8, 1, 14),
			lying(card("c", title("t"), lead("w")), 6, 7, 5, 8, 1),
		),
		"a card over its lower edge": grid(
			put(dusk("p"), 1, 12, 1, 12),
			lying(card("c", title("t")), 3, 8, 10, 5, 1),
		),
		"a card over its upper edge": grid(
			put(dusk("p"), 1, 12, 4, 12),
			lying(card("c", title("t")), 2, 6, 1, 5, 1),
		),
		"two pictures": grid(put(dusk("p"), 1, 7, 1, 12), lying(dawn("q"), 6, 6, 6, 12, 1)),
		"two pictures and words": grid(
			put(dusk("p"), 1, 6, 1, 12),
			lying(dawn("q"), 5, 4, 7, 10, 1),
			put(lead("w"), 9, 4, 1, 6),
		),
		"three pictures, like a fan": grid(
			put(dusk("p"), 1, 6, 1, 10),
			lying(dawn("q"), 4, 6, 3, 10, 1),
			lying(dusk("r"), 7, 6, 5, 10, 2),
		),
		"dark words on a pale picture": grid(put(dawn("p"), 1, 12, 1, 14), lying(title("t"), 7, 5, 4, 3, 1)),
		"a caption on its corner": grid(
			put(dawn("p"), 3, 8, 1, 14),
			lying(card("c", small("w")), 2, 4, 12, 3, 1),
		),
		"a badge on a picture": grid(
			put(dusk("p"), 1, 6, 1, 12),
			lying(card("c", small("w")), 5, 2, 2, 3, 1),
			put(title("t"), 8, 5, 1, 3),
			put(lead("w2"), 8, 5, 5, 6),
		),
		"a quote over two pictures": grid(
			put(dusk("p"), 1, 6, 1, 12),
			put(dusk("q"), 7, 6, 1, 12),
			lying(card("c", lead("w")), 4, 6, 8, 6, 1),
		),
		"a panel behind words": grid(
			put(block("c", doc.Shape, "background", "#e9e2d2"), 1, 7, 1, 14),
			lying(title("t"), 2, 5, 3, 3, 1),
			lying(lead("w"), 2, 5, 7, 5, 1),
		),
		"a button on a picture": grid(
			put(dusk("p"), 1, 12, 1, 12),
			lying(button("b", "See sailings", "/fares"), 2, 3, 8, 2, 1),
		),
		"pale words on dark, a picture too": dark(
			grid(put(dusk("p"), 6, 7, 1, 14), lying(title("t"), 1, 7, 4, 3, 1), put(lead("w"), 1, 4, 9, 4)),
		),
		"a picture between two bands": grid(
			put(title("t"), 1, 12, 1, 2),
			put(dusk("p"), 1, 12, 4, 12),
			lying(pale(lead("w")), 6, 6, 10, 4, 1),
			put(lead("x"), 1, 6, 18, 3),
		),
		"cards in a row on a picture": grid(
			put(dusk("p"), 1, 12, 1, 18),
			lying(card("c", small("a")), 2, 3, 10, 5, 1),
			lying(card("d", small("b")), 5, 3, 10, 5, 1),
			lying(card("e", small("x")), 8, 3, 10, 5, 1),
		),
		"a tall picture with a title": grid(
			put(dusk("p"), 8, 5, 1, 24),
			lying(pale(title("t")), 8, 4, 18, 3, 1),
			put(lead("w"), 1, 6, 1, 6),
		),
		"a card on a card": grid(
			put(card("c", lead("w")), 1, 8, 1, 12),
			lying(
				hold(block("d", doc.Card, "background", "#142a30", "color", "#ffffff"), doc.LineUp, pale(small("x"))),
				6,
				5,
				9,
				5,
				1,
			),
		),
	}
}

// TestOverlappingDesigns holds the arrangement of narrow zones against designs in which blocks lie on
// one another on purpose: no pair is parted in any zone, and no words end on a ground on which they
// are too faint, at any width.
func TestOverlappingDesigns(t *testing.T) {
	lib, s := library(t), demo.Site()
	designs := overlapping()
	if len(designs) != 20 {
		t.Fatalf("%d designs", len(designs))
	}
	pairs, parted := 0, 0
	for name, sec := range designs {
		all := place.Resolve(sec.Holder(), s.Zones)
		for z := 1; z < len(all); z++ {
			for i := range sec.Blocks {
				for k := range i {
					if all[0][i].Overlaps(all[0][k].Place) {
						pairs++
						if !all[z][i].Overlaps(all[z][k].Place) {
							parted++
							t.Errorf(
								"%s: %s and %s are parted in %s",
								name,
								sec.Blocks[k].ID,
								sec.Blocks[i].ID,
								s.Zones[z].Name,
							)
						}
					}
				}
			}
		}
		p := prepared(t, lib, s, &doc.Page{ID: "p", Title: "Test", Sections: []*doc.Section{sec}})
		p.Parts[0].Pixels = tones
		found, err := check.Section(t.Context(), p.Parts[0])
		if err != nil {
			t.Fatal(err)
		}
		for _, f := range found {
			if f.Severity == check.Broken {
				t.Errorf("%s: %s", name, told([]check.Finding{f}))
			}
		}
	}
	t.Logf("%d pairs that overlap, %d parted", pairs, parted)
}
