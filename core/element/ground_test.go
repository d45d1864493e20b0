package element

import (
	"strings"
	"testing"

	"openplot/core/doc"
)

// What a block's colours go by is what lies below it: the block that it stands on, where that has one colour and is as
// large as its cells; else it isn't known. The zones are looked at one by one.
func TestColoursGoByWhatLiesBelow(t *testing.T) {
	at := func(column, span, row, rows, layer int) doc.Zoned[doc.Place] {
		return doc.Zoned[doc.Place]{"desktop": {Column: column, Span: span, Row: row, Rows: rows, Layer: layer}}
	}
	words := doc.Content{Words: doc.PlainWords("Words")}
	card := func(style doc.Style) *doc.Block {
		return &doc.Block{Kind: doc.Heading, Place: at(1, 6, 1, 6, 0), Style: style, Content: words}
	}
	deep := Look("background", "$deep")
	for name, c := range map[string]struct {
		below    *doc.Block
		over     doc.Zoned[doc.Place]
		behind   string
		pictured bool
	}{
		"on a card":              {card(deep), at(2, 4, 2, 2, 1), "#123a44", false},
		"beside it":              {card(deep), at(7, 4, 2, 2, 1), "#ffffff", false},
		"below it":               {card(deep), at(2, 4, 7, 2, 1), "#ffffff", false},
		"half on it":             {card(deep), at(4, 6, 2, 2, 1), "#ffffff", true},
		"on one without a fill":  {card(nil), at(2, 4, 2, 2, 1), "#ffffff", false},
		"on one that isn’t full": {card(Look("background", "$deep", "align-self", "start")), at(2, 4, 4, 2, 1), "#ffffff", true},
		"on a gradient":          {&doc.Block{Kind: doc.Container, Place: at(1, 6, 1, 6, 0), Style: Look("gradient", "linear 135deg $deep 0%, $accent 100%")}, at(2, 4, 2, 2, 1), "#ffffff", true},
		"on a picture":           {&doc.Block{Kind: doc.Picture, Place: at(1, 6, 1, 6, 0), Content: doc.Content{Picture: "m1"}}, at(2, 4, 2, 2, 1), "#ffffff", true},
		"below a card":           {&doc.Block{Kind: doc.Heading, Place: at(1, 6, 1, 6, 2), Style: deep, Content: words}, at(2, 4, 2, 2, 1), "#ffffff", false},
	} {
		s := section(c.below, &doc.Block{Kind: doc.Text, Place: c.over, Content: words})
		var seen *Node
		builder().Section(s).Walk(func(n *Node) {
			if n.Block == "b2" {
				seen = n
			}
		})
		if st := seen.Styles[0]; st.Pictured != c.pictured || !c.pictured && st.Behind != c.behind {
			t.Errorf("%s: on %s, pictured %v; want %s, %v", name, st.Behind, st.Pictured, c.behind, c.pictured)
		}
	}
	// Where the card is hidden, its ground isn't there.
	hidden := card(deep)
	hidden.Hidden = doc.Zoned[bool]{"phone": true}
	s := section(hidden, &doc.Block{Kind: doc.Text, Place: at(2, 4, 2, 2, 1), Content: words})
	builder().Section(s).Walk(func(n *Node) {
		if n.Block == "b2" && (n.Styles[0].Behind != "#123a44" || n.Styles[2].Behind != "#ffffff") {
			t.Errorf("hidden on phones: on %s, on phones on %s", n.Styles[0].Behind, n.Styles[2].Behind)
		}
	})
}

// A table that lies on a card is shaded at its sides in the card's colour.
func TestATableOnACardIsShadedAsTheCard(t *testing.T) {
	place := func(rows, layer int) doc.Zoned[doc.Place] {
		return doc.Zoned[doc.Place]{"desktop": {Column: 1, Span: 6, Row: 1, Rows: rows, Layer: layer}}
	}
	s := section(
		&doc.Block{
			Kind:    doc.Text,
			Place:   place(8, 0),
			Style:   Look("background", "$quiet-ground"),
			Content: doc.Content{Words: doc.PlainWords("Card")},
		},
		&doc.Block{
			Kind:    doc.Table,
			Place:   place(4, 1),
			Content: doc.Content{Values: map[string]string{"cells": "a\tb\nc\td"}},
		},
	)
	builder().Section(s).Walk(func(n *Node) {
		if n.Block == "b2" && !strings.Contains(n.Styles[0].BackgroundTop, "rgba(246, 241, 232,") {
			t.Errorf("shaded %s", n.Styles[0].BackgroundTop)
		}
	})
}
