package fonts

import (
	"fmt"
	"strings"

	sfntfont "github.com/tdewolff/font"
)

// Outline is a character as an SVG path (SVG 2 §9.3), and the box around its points, y growing
// downwards, in units of which a thousand are the font's size.
type Outline struct {
	Path                     string
	Left, Top, Width, Height float64
}

// Letter gives a character in a shipped family, in the weight that its font has by itself; ok is
// false where the family isn't shipped or has no such character.
func Letter(family string, r rune) (o Outline, ok bool) {
	for _, f := range Faces {
		if f.Family != family || f.Italic || f.Extended {
			continue
		}
		packed, err := Files.ReadFile("files/" + f.File)
		if err != nil {
			continue
		}
		whole, err := sfntfont.ToSFNT(packed)
		if err != nil {
			continue
		}
		font, err := sfntfont.ParseSFNT(whole, 0)
		if err != nil {
			continue
		}
		gid := font.GlyphIndex(r)
		if gid == 0 {
			continue
		}
		p := pen{left: 1e9, top: 1e9, right: -1e9, bottom: -1e9}
		if err := font.GlyphPath(&p, gid, 0, 0, 0, 1000/float64(font.Head.UnitsPerEm), sfntfont.NoHinting); err != nil ||
			p.path.Len() == 0 {
			continue
		}
		return Outline{p.path.String(), p.left, p.top, p.right - p.left, p.bottom - p.top}, true
	}
	return o, false
}

// pen writes an outline as a path.
type pen struct {
	path                     strings.Builder
	left, top, right, bottom float64
}

func (p *pen) draw(command string, coordinates ...float64) {
	p.path.WriteString(command)
	for i := 0; i < len(coordinates); i += 2 {
		x, y := coordinates[i], -coordinates[i+1]
		p.left, p.top, p.right, p.bottom = min(p.left, x), min(p.top, y), max(p.right, x), max(p.bottom, y)
		if i > 0 {
			p.path.WriteByte(' ')
		}
		fmt.Fprintf(&p.path, "%.1f %.1f", x, y)
	}
}

// MoveTo and the others are what outlines are made of.
func (p *pen) MoveTo(x, y float64)             { p.draw("M", x, y) }
func (p *pen) LineTo(x, y float64)             { p.draw("L", x, y) }
func (p *pen) QuadTo(a, b, x, y float64)       { p.draw("Q", a, b, x, y) }
func (p *pen) CubeTo(a, b, c, d, x, y float64) { p.draw("C", a, b, c, d, x, y) }
func (p *pen) Close()                          { p.path.WriteByte('Z') }
