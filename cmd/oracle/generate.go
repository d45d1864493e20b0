package main

import (
	"fmt"
	"math/rand/v2"
	"strings"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/style"
)

// Generate makes a random valid page from everything that a page can hold:
// sections of any grid, blocks of every kind at any place with overrides per
// zone, words of many shapes in every family.
func Generate(r *rand.Rand, s *doc.Site) *doc.Page {
	g := generator{r: r, site: s}
	p := &doc.Page{ID: "p", Name: "Generated", Title: "Generated"}
	for i := range 1 + r.IntN(4) {
		p.Sections = append(p.Sections, g.section(i))
	}
	return p
}

type generator struct {
	r    *rand.Rand
	site *doc.Site
	n    int
}

func (g *generator) section(i int) *doc.Section {
	sec := &doc.Section{
		ID:          fmt.Sprintf("s%d", i),
		Name:        "Section",
		Arrangement: g.arrangement(),
		Style:       g.style(style.OnSection),
	}
	if i == 0 {
		delete(
			sec.Style,
			"pull",
		) // there is nothing to be pulled over; a bar that stays would be pushed back (docs/layout.md)
	}
	sec.Blocks = g.blocks(sec.Holder(), 9, 0)
	return sec
}

func (g *generator) arrangement() doc.Arrangement {
	return []doc.Arrangement{doc.Placed, doc.Placed, doc.Columns, doc.LineUp}[g.r.IntN(4)]
}

// blocks makes fewer than most blocks for a holder, itself within depth containers.
func (g *generator) blocks(h doc.Holder, most, depth int) []*doc.Block {
	var bs []*doc.Block
	for range g.r.IntN(most) {
		bs = append(bs, g.block(h, depth))
	}
	return bs
}

func (g *generator) block(h doc.Holder, depth int) *doc.Block {
	kind := doc.Kinds[g.r.IntN(len(doc.Kinds))]
	for depth > 2 && kind.Is(doc.Holding) {
		kind = doc.Kinds[g.r.IntN(len(doc.Kinds))]
	}
	b := element.Start(kind).Anew(func(prefix string) string {
		g.n++
		return fmt.Sprint(prefix, g.n)
	})
	b.Style = g.style(kind)
	b.Place = doc.Zoned[doc.Place]{}
	for z, zone := range g.site.Zones {
		if z > 0 && g.r.IntN(3) > 0 {
			continue
		}
		columns := h.Columns(g.site.Zones, z)
		c := 1 + g.r.IntN(columns)
		b.Place[zone.ID] = doc.Place{
			Column: c,
			Span:   1 + g.r.IntN(columns-c+1),
			Row:    1 + g.r.IntN(12),
			Rows:   1 + g.r.IntN(8),
			Layer:  g.r.IntN(3),
		}
	}
	if g.r.IntN(8) == 0 {
		b.Hidden = doc.Zoned[bool]{g.zone(): true}
	}
	if g.r.IntN(3) == 0 { // the others are as they begin
		g.fill(&b.Content, kind)
	}
	switch {
	case kind == doc.Picture:
		b.Content.Picture = "picture"
	case kind == doc.Heading:
		b.Content.Level = 1 + g.r.IntN(6)
		b.Content.Words = g.words(1)
	case kind == doc.Button:
		b.Content.Words = g.words(1)
	case kind.Is(doc.Worded):
		b.Content.Words = g.words(1 + g.r.IntN(4))
	case kind == doc.Form:
		b.Content.Entries = g.questions()
	case kind.Is(doc.Holding) && kind != doc.Series && g.r.IntN(2) == 0:
		b.Arrangement = g.arrangement()
		b.Blocks = g.blocks(b.Holder(), 5, depth+1)
	}
	if element.Varies(kind, b.Content) && g.r.IntN(4) == 0 {
		b.Content.Instead = doc.Zoned[doc.Words]{g.zone(): g.words(1 + g.r.IntN(2))}
	}
	return b
}

// fill makes some choices that a kind has, and gives it a picture and a line of words.
func (g *generator) fill(c *doc.Content, kind doc.Kind) {
	for _, f := range element.Of(kind).Fields {
		switch {
		case f.Type == element.PictureID:
			c.Picture = "picture"
		case f.Type == element.Choice:
			*c = element.With(*c, f.Name, f.Choices[g.r.IntN(len(f.Choices))].Value)
		case f.Name == "caption":
			*c = element.With(*c, f.Name, g.words(1).Plain())
		}
	}
}

// questions are the fields of a form, of any types.
func (g *generator) questions() []doc.Entry {
	all := make([]doc.Entry, 1+g.r.IntN(8))
	of := element.Of(doc.Form)
	for i := range all {
		values := map[string]string{"label": g.words(1).Plain()}
		for _, name := range []string{"type", "required", "width"} {
			choices := of.EntryField(name).Choices
			values[name] = choices[g.r.IntN(len(choices))].Value
		}
		if g.r.IntN(3) == 0 {
			values["hint"] = g.words(1).Plain()
		}
		if i > 0 && g.r.IntN(4) == 0 {
			values["when"] = all[0].Values["label"]
		}
		all[i] = doc.Entry{Values: values}
	}
	return all
}

func (g *generator) zone() string { return g.site.Zones[g.r.IntN(len(g.site.Zones))].ID }

// style sets some of a kind's settings, in some zones.
func (g *generator) style(kind doc.Kind) doc.Style {
	out := doc.Style{}
	for _, s := range style.Settings {
		if !s.On(kind) || g.r.IntN(4) > 0 {
			continue
		}
		for range 1 + g.r.IntN(2) {
			if v, problem := s.Read(&g.site.House, g.value(s)); problem == nil {
				out[s.Name] = out[s.Name].With(g.zone(), v)
			}
		}
	}
	return out
}

func (g *generator) value(s *style.Setting) string {
	if offers := s.Offers(&g.site.House); len(offers) > 0 && g.r.IntN(2) == 0 {
		return offers[g.r.IntN(len(offers))].Value
	}
	switch s.Type {
	case style.TypeLength:
		if s.Name == "border-radius" {
			return "10px"
		}
		if g.r.IntN(8) == 0 && len(s.Units) > 0 { // a sum of several units
			return fmt.Sprintf(
				"%d%s + %d",
				1+g.r.IntN(3),
				style.Length{N: 1, Unit: s.Units[0]}.String()[1:],
				8+g.r.IntN(40),
			)
		}
		unit := append([]style.Unit{style.Px}, s.Units...)[g.r.IntN(1+len(s.Units))]
		least := max(s.Min, -24) // a margin may be negative
		n := least + g.r.Float64()*min(s.Max-least, 60)
		switch unit {
		case style.Percent:
			n = 5 + g.r.Float64()*90
		case style.Rem, style.Vw:
			n /= 16
		case style.Vh:
			return style.Number(n) + "vh"
		}
		return style.Length{N: n, Unit: unit}.String()
	case style.TypeShares:
		var shares []string
		for range 1 + g.r.IntN(5) {
			shares = append(shares, fmt.Sprint(1+g.r.IntN(12)))
		}
		return strings.Join(shares, " ")
	case style.TypeWhole:
		return fmt.Sprint(int(s.Min) + g.r.IntN(int(s.Max-s.Min)+1))
	case style.TypePercent:
		return fmt.Sprint(s.Min + float64(g.r.IntN(int(min(s.Max, 100)-s.Min)+1)))
	case style.TypeNumber, style.TypeEm:
		return style.Number(max(s.Min, -0.05) + g.r.Float64()*min(s.Max-s.Min, 1.2))
	case style.TypeAngle:
		return fmt.Sprint(g.r.IntN(90) - 45)
	case style.TypeSeconds:
		return fmt.Sprint(2 + g.r.IntN(20))
	case style.TypeGradient:
		return "linear 90deg $deep 0%, #ffffff80 60%"
	case style.TypeShadow:
		return "0 6 20 0 #00000024"
	case style.TypeRatio:
		return fmt.Sprintf("%d:%d", 1+g.r.IntN(5), 1+g.r.IntN(5))
	case style.TypeColour:
		return fmt.Sprintf("#%06x", g.r.IntN(1<<24))
	}
	if offers := s.Offers(&g.site.House); len(s.Choices) == 0 {
		return offers[g.r.IntN(len(offers))].Value
	}
	return s.Choices[g.r.IntN(len(s.Choices))].Value
}

var vocabulary = strings.Fields(
	`a the boat sails at 08:10 from Harbour Steps to Inner Holm; Wave AVATAR To You, fi fl office waffle
	well-known state-of-the-art half-hearted 50-50 24/7 and/or first.last@example.org https://example.org/sailings/winter?day=1&year=2
	“quoted” ‘single’ — dash – en… (parentheses) [brackets] naïve café Größe Übermut Łódź Żółw São Œuvre Rechtsschutzversicherung
	1,299.00 €50 100% § ©2026 x²+y³ L’Île don’t it’s ToMaTo I W iiiii WWW. Type, Yes. 3/4 a/b/c non breaking softSHYhyphenSHYation`,
)

// sometimes gives one of some values once in n times, and else 0.
func (g *generator) sometimes(n int, of ...int) int {
	if g.r.IntN(n) != 0 {
		return 0
	}
	return of[g.r.IntN(len(of))]
}

func (g *generator) words(paragraphs int) doc.Words {
	var w doc.Words
	for range paragraphs {
		var p doc.Paragraph
		for range 1 + g.r.IntN(3) {
			run := doc.Run{
				Bold: g.r.IntN(
					5,
				) == 0, Italic: g.r.IntN(6) == 0, Small: g.r.IntN(16) == 0, Super: g.r.IntN(16) == 0, Code: g.r.IntN(16) == 0,
				Size: g.sometimes(16, 70, 130, 220), Tracking: g.sometimes(16, -4, 8, 30),
				Underline: g.r.IntN(16) == 0,
			}
			if g.r.IntN(6) == 0 {
				run.Link = doc.JoinLink("/fares", g.r.IntN(4) == 0)
			}
			var ws []string
			for range 1 + g.r.IntN(14) {
				ws = append(ws, strings.ReplaceAll(vocabulary[g.r.IntN(len(vocabulary))], "SHY", "\u00ad"))
			}
			run.Text = strings.Join(ws, " ")
			if g.r.IntN(8) == 0 {
				run.Text += "\n" + ws[0]
			}
			if g.r.IntN(3) > 0 {
				run.Text += " "
			}
			p = append(p, run)
		}
		switch g.r.IntN(9) {
		case 0:
			p[0].As = []string{"h2", "h3", "h4", "quote"}[g.r.IntN(4)]
		case 1, 2:
			p[0].Item = []string{"disc", "decimal"}[g.r.IntN(2)]
			if len(w) > 0 && w[len(w)-1].Item() != "" {
				p[0].Depth = g.r.IntN(doc.MostDepth + 1)
			}
		}
		w = append(w, p)
	}
	return w
}
