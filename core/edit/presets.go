package edit

import (
	"strconv"
	"strings"

	"openplot/core/doc"
	"openplot/core/element"
)

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

// look makes a style from names and values by turns; a name may end in "@" and the
// zone from which the value holds.
func look(pairs ...string) doc.Style {
	s := doc.Style{}
	for i := 0; i+1 < len(pairs); i += 2 {
		name, zone := pairs[i], "desktop"
		for k := range len(name) {
			if name[k] == '@' {
				name, zone = name[:k], name[k+1:]
				break
			}
		}
		s[name] = s[name].With(zone, pairs[i+1])
	}
	return s
}

// with adds to a block's look.
func with(b *doc.Block, pairs ...string) *doc.Block {
	if b.Style == nil {
		b.Style = doc.Style{}
	}
	for name, v := range look(pairs...) {
		b.Style[name] = v
	}
	return b
}

// ready makes a section in an arrangement, with a look and blocks.
func ready(arrangement doc.Arrangement, style doc.Style, blocks ...*doc.Block) *doc.Section {
	return &doc.Section{Arrangement: arrangement, Style: style, Blocks: blocks}
}

// room is the look of an ordinary section: a quiet distance above and below, less on
// phones.
func room(pairs ...string) doc.Style {
	return look(append([]string{"padding-top", "$vast", "padding-bottom", "$vast", "padding-top@phone", "$broad", "padding-bottom@phone", "$broad"}, pairs...)...)
}

// centred is a line down the middle.
func centred(pairs ...string) doc.Style {
	return room(append([]string{"align-items", "middle", "text-align", "middle", "row-gap", "$room"}, pairs...)...)
}

func hold(kind doc.Kind, arrangement doc.Arrangement, style doc.Style, blocks ...*doc.Block) *doc.Block {
	return &doc.Block{Kind: kind, Arrangement: arrangement, Style: style, Blocks: blocks}
}

// stack holds blocks below one another, row side by side, columns in twelfths.
func stack(gap string, blocks ...*doc.Block) *doc.Block {
	return hold(doc.Container, doc.LineUp, look("row-gap", gap), blocks...)
}

func row(gap string, blocks ...*doc.Block) *doc.Block {
	return hold(doc.Container, doc.LineUp, look("direction", "across", "column-gap", gap, "row-gap", "12px", "align-items", "middle"), blocks...)
}

func columns(shares string, blocks ...*doc.Block) *doc.Block {
	return hold(doc.Container, doc.Columns, look("shares", shares, "column-gap", "$wide", "row-gap", "$wide"), blocks...)
}

func heading(level int, words string, pairs ...string) *doc.Block {
	return &doc.Block{Kind: doc.Heading, Content: doc.Content{Level: level, Words: doc.PlainWords(words)}, Style: look(pairs...)}
}

func words(style string, lines ...string) *doc.Block {
	b := &doc.Block{Kind: doc.Text, Content: doc.Content{Words: doc.PlainWords(lines...)}, Style: doc.Style{}}
	if style != "" {
		b.Style = look("text-style", "$"+style)
	}
	return b
}

// kicker is a short line above a heading.
func kicker(line string) *doc.Block { return with(words("label", line), "color", "$accent") }

func button(words, link string, pairs ...string) *doc.Block {
	return &doc.Block{Kind: doc.Button, Content: doc.Content{Words: doc.PlainWords(words), Link: link}, Style: look(pairs...)}
}

func picture(ratio string, pairs ...string) *doc.Block {
	return &doc.Block{Kind: doc.Picture, Style: look(append([]string{"aspect-ratio", ratio, "border-radius", "$card"}, pairs...)...)}
}

func icon(name string, pairs ...string) *doc.Block {
	return &doc.Block{Kind: doc.Icon, Content: doc.Content{Values: map[string]string{"icon": name}}, Style: look(append([]string{"color", "$accent", "icon-size", "36px"}, pairs...)...)}
}

// listing is a block that lists entries: the names of the fields, then their values
// row by row; "words" are the entry's words.
func listing(kind doc.Kind, fields []string, rows [][]string, pairs ...string) *doc.Block {
	b := &doc.Block{Kind: kind, Style: look(pairs...)}
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

// repeated is a Series of a design. Each row says, for the design's blocks in order,
// their words; an icon's is its name, and "" leaves what the design says.
func repeated(style doc.Style, design *doc.Block, rows ...[]string) *doc.Block {
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
				it.Contents[b.ID] = doc.Content{}
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
