// Package compose makes sections and blocks from a few words, for the ready-made
// sections and the demo.
//
// In come looks and words; out come blocks without ids (doc.Block.Anew gives them).
// Start at Section.
package compose

import (
	"strconv"
	"strings"

	"openplot/core/doc"
	"openplot/core/element"
)

// Look makes a style from names and values by turns; a name may end in "@" and the
// zone from which the value holds.
func Look(pairs ...string) doc.Style { return element.Look(pairs...) }

// With adds to a block's look.
func With(b *doc.Block, pairs ...string) *doc.Block {
	if b.Style == nil {
		b.Style = doc.Style{}
	}
	for name, v := range Look(pairs...) {
		b.Style[name] = v
	}
	return b
}

// Section makes a section in an arrangement, with a look and blocks.
func Section(arrangement doc.Arrangement, style doc.Style, blocks ...*doc.Block) *doc.Section {
	return &doc.Section{Arrangement: arrangement, Style: style, Blocks: blocks}
}

// Room is the look of an ordinary section: a quiet distance above and below, which the
// house style makes less on phones.
func Room(pairs ...string) doc.Style {
	return Look(append([]string{"padding-top", "$vast", "padding-bottom", "$vast"}, pairs...)...)
}

// Centred is a line down the middle.
func Centred(pairs ...string) doc.Style {
	return Room(append([]string{"align-items", "center", "text-align", "center", "row-gap", "$room"}, pairs...)...)
}

// Hold is a container of a kind.
func Hold(kind doc.Kind, arrangement doc.Arrangement, style doc.Style, blocks ...*doc.Block) *doc.Block {
	return &doc.Block{Kind: kind, Arrangement: arrangement, Style: style, Blocks: blocks}
}

// Stack holds blocks below one another.
func Stack(gap string, blocks ...*doc.Block) *doc.Block {
	return Hold(doc.Container, doc.LineUp, Look("row-gap", gap), blocks...)
}

// Row holds blocks side by side, in a line that wraps.
func Row(gap string, blocks ...*doc.Block) *doc.Block {
	return Hold(
		doc.Container,
		doc.LineUp,
		Look("direction", "row", "column-gap", gap, "row-gap", "12px", "align-items", "center"),
		blocks...)
}

// Columns holds blocks in columns, their shares in twelfths.
func Columns(shares string, blocks ...*doc.Block) *doc.Block {
	return Hold(
		doc.Container,
		doc.Columns,
		Look("shares", shares, "column-gap", "$wide", "row-gap", "$wide"),
		blocks...)
}

// Heading is a heading of a level.
func Heading(level int, words string, pairs ...string) *doc.Block {
	return &doc.Block{
		Kind:    doc.Heading,
		Content: doc.Content{Level: level, Words: doc.PlainWords(words)},
		Style:   Look(pairs...),
	}
}

// Words is a text in a text style, "" for the usual one, a paragraph a line.
func Words(style string, lines ...string) *doc.Block {
	b := &doc.Block{Kind: doc.Text, Content: doc.Content{Words: doc.PlainWords(lines...)}, Style: doc.Style{}}
	if style != "" {
		b.Style = Look("text-style", "$"+style)
	}
	return b
}

// Kicker is a short line above a heading.
func Kicker(line string) *doc.Block { return With(Words("label", line), "color", "$accent") }

// Button is a button that leads somewhere.
func Button(words, link string, pairs ...string) *doc.Block {
	return &doc.Block{
		Kind:    doc.Button,
		Content: doc.Content{Words: doc.PlainWords(words), Link: link},
		Style:   Look(pairs...),
	}
}

// Picture is a picture not chosen yet, in a ratio.
func Picture(ratio string, pairs ...string) *doc.Block {
	return &doc.Block{
		Kind:  doc.Picture,
		Style: Look(append([]string{"aspect-ratio", ratio, "border-radius", "$card"}, pairs...)...),
	}
}

// Icon is an icon of the shipped set.
func Icon(name string, pairs ...string) *doc.Block {
	return &doc.Block{
		Kind:    doc.Icon,
		Content: doc.Content{Values: map[string]string{"icon": name}},
		Style:   Look(append([]string{"color", "$accent", "icon-size", "36px"}, pairs...)...),
	}
}

// Listing is a block that lists entries: the names of the fields, then their values
// row by row; "words" are the entry's words.
func Listing(kind doc.Kind, fields []string, rows [][]string, pairs ...string) *doc.Block {
	b := &doc.Block{Kind: kind, Style: Look(pairs...)}
	for _, r := range rows {
		e := doc.Entry{Values: map[string]string{}}
		for i, f := range fields {
			switch {
			case i >= len(r) || r[i] == "":
			case f == "words":
				e.Words = doc.PlainWords(r[i])
			default:
				e.Values[f] = r[i]
			}
		}
		if len(e.Values) == 0 {
			e.Values = nil
		}
		b.Content.Entries = append(b.Content.Entries, e)
	}
	return b
}

// Repeated is a Series of a design. Each row says, for the design's blocks in order,
// their words; an icon's is its name, a picture's its id, and "" leaves what the design says.
func Repeated(style doc.Style, design *doc.Block, rows ...[]string) *doc.Block {
	n := 0
	design.Walk(func(b *doc.Block) {
		n++
		b.ID = "d" + strconv.Itoa(n) // till the section is made
	})
	s := &doc.Block{Kind: doc.Series, Style: style, Blocks: []*doc.Block{design}}
	for _, r := range rows {
		it := doc.Item{Contents: map[string]doc.Content{}}
		k := 0
		design.Walk(func(b *doc.Block) {
			if b.Kind.Is(doc.Holding) || k >= len(r) {
				return
			}
			said := r[k]
			k++
			switch {
			case b.Kind == doc.Picture:
				it.Contents[b.ID] = doc.Content{Picture: said}
			case said == "":
			case b.Kind == doc.Icon:
				it.Contents[b.ID] = element.With(b.Content, "icon", said)
			default:
				c := b.Content
				if c.Words = doc.PlainWords(said); b.Kind == doc.List {
					c.Words = doc.PlainWords(strings.Split(said, "\n")...)
				}
				it.Contents[b.ID] = c
			}
		})
		s.Items = append(s.Items, it)
	}
	return s
}
