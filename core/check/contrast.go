package check

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"openplot/core/colour"
	"openplot/core/edit"
	"openplot/core/element"
	"openplot/core/style"
)

// Sizes in px from which words count as large, and the ratio that those need (WCAG 2.2,
// 1.4.3: 18 point, or 14 point and bold).
const (
	largeWords = 24.0
	largeBold  = 18.66
	largeRatio = 3.0
)

// unseen is the opacity below which nothing is seen.
const unseen = 0.01

var contrast = Rule{
	repair: mendContrast,
	ID:     "contrast", Name: "Words are too faint on their ground", Family: Reading, Severity: Broken, Standard: "WCAG 2.2, 1.4.3",
	What:  "words on one colour under 4.5, large ones under 3 to 1; on pictures, gradients and other blocks, over 15 % of 24 places in a line",
	Why:   "People with weak eyes, and everybody in the sun, can’t read them.",
	Least: true,
	short: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("%.2f to 1", math.Floor(f.By*100)/100)
	},
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("%s is %.2f to 1 on its ground", name(f.Node), math.Floor(f.By*100)/100)
	},
	say: func(f *Finding, _ func(string) string) string {
		if f.Part == "picture" {
			return fmt.Sprintf(
				"At %d px, part of “%s” lies on what is nearly as light or as dark; at least %.1f to 1 is asked for.",
				f.Worst,
				f.Words,
				f.Of,
			)
		}
		return fmt.Sprintf("“%s” needs at least %.1f to 1.", f.Words, f.Of)
	},
	zone: func(s *zoned) {
		for _, f := range s.flat[s.zone] {
			if f.pointed {
				s.found = append(s.found, raw{rule: s.rule, node: f.node, by: f.by, of: f.of, words: f.words})
			}
		}
	},
	at: (*sight).onGrounds,
}

// faint are words that are too faint on the ground that their elements give them.
type faint struct {
	node    string
	by, of  float64
	words   string
	pointed bool // they are read when pointing shows them
}

// flats finds them in a zone, by the element whose lines they are in: the worst of each.
func (g *gathered) flats(z int) map[*element.Node]faint {
	out := map[*element.Node]faint{}
	g.contrasts(g.Root, nil, z, style.Viewport{Width: float64(zoneRange(g.Zones, z).From)}, 1, false, out)
	return out
}

// inactive reports whether an element is a control that can't be used, whose words needn't be
// easy to read (WCAG 2.2, 1.4.3).
func inactive(n *element.Node) bool { return attr(n, "aria-disabled") == "true" }

// leastRatio is the ratio that words of a style need.
func leastRatio(st *style.Style, view style.Viewport) float64 {
	if size := st.FontPx(view); size >= largeWords || size >= largeBold && st.FontWeight >= 700 {
		return largeRatio
	}
	return colour.AA
}

// contrasts finds words that are too faint on a ground of one colour, as that is known from the
// elements, in lines of in.
func (g *gathered) contrasts(
	n, in *element.Node,
	z int,
	view style.Viewport,
	opacity float64,
	pointed bool,
	out map[*element.Node]faint,
) {
	if n.Raw != "" || n.Folded || inactive(n) {
		return
	}
	if in == nil && n.Inline() {
		in = n
	}
	st := &n.Styles[z]
	if st.Display == style.None || st.ClipPath == unseenClip {
		return
	}
	if st.Opacity > 0 && st.Opacity < unseen && len(n.States) > 0 { // it is read when pointing shows it
		then := *st
		n.States[0].Change(z, &then)
		st, pointed = &then, true
	}
	if st.Opacity > 0 {
		opacity *= st.Opacity
	}
	said, err1 := colour.ParseHex(st.Color)
	behind, err2 := colour.ParseHex(style.Over(st.Background, st.Behind))
	if n.Text != "" && err1 == nil && err2 == nil && !st.Pictured {
		least := leastRatio(st, view)
		said.A = uint8(math.Round(float64(said.A) * opacity))
		was, known := out[in]
		if r := colour.Contrast(said.Over(behind), behind); r < least && (!known || r < was.by) {
			of := g.infos[n]
			out[in] = faint{cmp.Or(of.block, of.section), r, least, start(n.Text), pointed}
		}
	}
	for _, c := range n.Children {
		g.contrasts(c, in, z, view, opacity, pointed, out)
	}
}

// How words on a picture are looked at: at so many places of each line, of which so many in a
// hundred may be too faint, since letters aren't everywhere. Common practice.
const (
	placesAcross = 12
	placesDown   = 2
	faintPlaces  = 0.15
)

// onGrounds finds words that are too faint on what they lie on as it is painted at the width: on
// pictures, gradients and other blocks by what is sampled behind them, on the ground that their
// elements give them by its colour.
func (s *sight) onGrounds() {
	var grounds []int
	for i := range s.boxes {
		if b := &s.boxes[i]; b.shown || b.st.Background != "" || b.st.BackgroundURL != "" || b.st.BackgroundTop != "" {
			grounds = append(grounds, i)
		}
	}
	var behind []int
	for i := range s.lines {
		l := &s.lines[i]
		b := &s.boxes[l.box]
		if l.w < 1 || b.see < unseen || inactive(b.Node) {
			continue
		}
		behind = behind[:0]
		pictured, plain, foreign := false, true, false
		for _, g := range grounds {
			o := &s.boxes[g]
			if g > l.box || o.px >= l.x+l.w || o.py >= l.y+l.h || o.px+o.pw <= l.x || o.py+o.ph <= l.y {
				continue
			}
			if o.opaque() && o.px <= l.x && o.py <= l.y && o.px+o.pw >= l.x+l.w && o.py+o.ph >= l.y+l.h {
				behind, pictured, plain, foreign = behind[:0], false, true, false
			}
			behind = append(behind, g)
			plain = plain && !o.shown && o.st.BackgroundURL == "" && o.st.BackgroundTop == ""
			foreign = foreign || s.foreign(o.info, b.info)
			pictured = pictured || !plain || apart(o.info, b.info)
		}
		if s.pair {
			pictured = foreign
		}
		if f, is := s.flat[s.zone][b.Node]; is && !pictured && !s.pair && !f.pointed {
			s.noteWords(f.node, "", "", f.by, f.of, f.words)
		}
		if b.hidden || b.free && b.st.Rotate != 0 {
			continue
		}
		if pictured && plain {
			s.onPicture(l, b, behind, 4, 1) // a few colours, side by side or one below the other
		} else if pictured {
			s.onPicture(l, b, behind, placesAcross, placesDown)
		}
	}
}

func (s *sight) onPicture(l *line, b *box, behind []int, across, down int) {
	said, ok := s.hex(b.st.Color)
	if !ok {
		return
	}
	said.A = uint8(math.Round(float64(said.A) * b.see))
	least := leastRatio(b.st, s.view)
	var ratios [placesAcross * placesDown]float64
	n := 0
	for row := range down {
		for col := range across {
			x, y := l.x+l.w*(float64(col)+0.5)/float64(across), l.y+l.h*(float64(row)+1)/float64(down+1)
			g, known := s.sample(behind, x, y)
			if !known {
				return
			}
			ratios[n] = colour.Contrast(said.Over(g), g)
			n++
		}
	}
	slices.Sort(ratios[:n])
	if r := ratios[int(faintPlaces*float64(n))]; r < least {
		s.noteWords(b.node(), "", "picture", r, least, start(b.text))
	}
}

func mendContrast(p *Page, f *Finding) *Repair {
	b := p.block(f.Node)
	if b == nil || style.Find("color", b.Kind) == nil {
		return nil
	}
	if f.Part == "picture" { // a veil over the section's picture, until it is enough
		s := p.sectionOf(f.Node)
		if s == nil || s.Picture == "" {
			return nil
		}
		id := s.ID
		return &Repair{
			fmt.Sprintf("Overlay at 80 %% in %s", p.where(f)),
			edit.Command{Op: "set", Node: id, Zone: p.at(f), Setting: "filter-opacity", Value: "80%"},
		}
	}
	said, behind, ok := p.colours(f)
	if !ok {
		return nil
	}
	mended := colour.Readable(said, behind, f.Of+0.02)
	return &Repair{"Words in " + mended.String(), p.set(f, "color", mended.String())}
}

// colours gives the colours of the words of a block and of what is behind them, in the zone of the
// finding's worst width.
func (p *Page) colours(f *Finding) (said, behind colour.Colour, ok bool) {
	z := p.Site.Zones.At(float64(f.Worst))
	p.each(z, func(n *element.Node, node string, _ bool) {
		if ok || node != f.Node || n.Text == "" {
			return
		}
		st := &n.Styles[z]
		a, err1 := colour.ParseHex(st.Color)
		b, err2 := colour.ParseHex(style.Over(st.Background, st.Behind))
		if err1 == nil && err2 == nil && colour.Contrast(a.Over(b), b) < f.Of {
			said, behind, ok = a, b, true
		}
	})
	return said, behind, ok
}
