package layout

import (
	"math"
	"strings"

	"golang.org/x/text/cases"
	"golang.org/x/text/language"

	"openplot/core/element"
	"openplot/core/shape"
	"openplot/core/style"
)

// flow is the text of a block container: paragraphs of shaped text between
// forced breaks.
type flow struct {
	segments     []*shape.Paragraph
	above, below float64 // of the strut, px
}

// flow gives the shaped text of a block container in the context's zone.
func (c inlines) flow(o *object) *flow {
	fluid := c.facts(o).viewport
	if !fluid {
		if f := o.flows[c.zone].Load(); f != nil {
			return f
		}
	}
	f := c.shape(o)
	if !fluid {
		o.flows[c.zone].Store(f)
	}
	return f
}

func (c inlines) shape(o *object) *flow {
	f := &flow{}
	strut := c.run("", c.style(o))
	f.above, f.below = strut.Faces[0].LineMetrics(strut.Size, strut.LineHeight)
	var runs []shape.Run
	collapsed := true // white space at the beginning of a line goes
	end := func() {
		if k := len(runs) - 1; k >= 0 {
			runs[k].Text = strings.TrimSuffix(runs[k].Text, " ")
		}
		f.segments = append(f.segments, c.tree.lib.Paragraph(runs))
		runs, collapsed = nil, true
	}
	broken := false
	var add func(*element.Node)
	add = func(n *element.Node) {
		switch {
		case n.Tag == "br":
			end()
			broken = true
		case n.Tag == "":
			var text string
			if text, collapsed = collapse(n.Text, collapsed); text != "" {
				runs = append(runs, c.run(text, &n.Styles[c.zone]))
				broken = false
			}
		case n.Styles[c.zone].Display == style.None:
		default:
			for _, child := range n.Children {
				add(child)
			}
		}
	}
	for _, child := range o.node.Children {
		add(child)
	}
	if !broken { // a break at the very end begins no line
		end()
	}
	return f
}

func (c inlines) run(text string, s *style.Style) shape.Run {
	size := s.FontPx(c.viewport)
	switch s.TextTransform {
	case style.Uppercase:
		text = cases.Upper(language.Und).String(text)
	case style.Lowercase:
		text = cases.Lower(language.Und).String(text)
	}
	return shape.Run{
		Text: text, Faces: c.tree.lib.Faces(s.FontFamily, s.FontWeight, s.FontItalic),
		Size: size, LetterSpacing: s.LetterSpacing * size, LineHeight: s.LinePx(c.viewport), NoWrap: s.NoWrap, NoLigatures: s.OverflowWrap != style.WrapNormal, Tabular: s.Tabular,
	}
}

// collapse makes runs of white space one space and drops it after another one
// (CSS Text 3 §4.1.1).
func collapse(s string, after bool) (string, bool) {
	var b strings.Builder
	for _, r := range s {
		if r == ' ' || r == '\n' || r == '\t' || r == '\r' {
			if !after {
				b.WriteByte(' ')
			}
			after = true
			continue
		}
		b.WriteRune(r)
		after = false
	}
	return b.String(), after
}

// wrapped is a block container's lines as laid out last, and the widths at which
// they stay the same.
type wrapped struct {
	same   shape.Range
	in     edges
	when   when
	lines  []Line
	height float64
	known  bool
}

// inline lays out lines of text and gives their height.
func (c inlines) inline(b *Box, o *object, inner float64, in edges) float64 {
	last := &c.slots[o.index].wrapped
	if last.known && last.when == c.when(o) && last.in == in && last.same.Holds(inner) {
		b.Lines = last.lines
	} else {
		*last = wrapped{same: shape.Range{Below: math.Inf(1)}, in: in, when: c.when(o)}
		last.height = c.wrap(b, o, inner, in, &last.same)
		// Lines that aren't aligned to the start move with the width.
		last.lines, last.known = b.Lines, c.style(o).TextAlign == style.TextStart
	}
	if len(b.Lines) > 0 {
		b.Baseline = b.Lines[0].Y + b.Lines[0].Above
	}
	return last.height
}

// count is how many characters a line has, and whether they are one word.
type count struct {
	runes int
	alone bool
}

func (c inlines) wrap(b *Box, o *object, inner float64, in edges, same *shape.Range) float64 {
	f := c.flow(o)
	s := c.style(o)
	lines, counts := c.lines[:0], c.counts[:0]
	for _, p := range f.segments {
		w := shape.Wrapping{
			Width:      inner,
			Above:      f.above,
			Below:      f.below,
			BreakWords: s.OverflowWrap != style.WrapNormal && !s.NoWrap,
		}
		before := len(lines)
		if s.Balance {
			lines = p.WrapBalanced(w, lines, same)
		} else {
			lines = p.Wrap(w, lines, same)
		}
		if len(lines) == before {
			lines = append(lines, shape.Line{Above: f.above, Below: f.below}) // an empty line is as high as the strut
		}
		for _, l := range lines[before:] {
			runes, alone := p.Words(l)
			counts = append(counts, count{runes, alone})
		}
	}
	c.lines, c.counts = lines, counts
	b.Lines = make([]Line, len(lines))
	y := 0.0
	for i, l := range lines {
		x := 0.0
		switch free := max(inner-l.Width, 0); s.TextAlign {
		case style.TextCenter:
			x = free / 2
		case style.TextEnd:
			x = free
		}
		b.Lines[i] = Line{
			in.left + x,
			in.top + y,
			l.Width,
			l.Above + l.Below,
			l.Above,
			counts[i].runes,
			counts[i].alone,
		}
		y += l.Above + l.Below
	}
	return y
}

func (f *flow) intrinsicWidths(anywhere bool) (v intrinsicWidths) {
	for _, p := range f.segments {
		v.least, v.most = max(v.least, p.MinContent(anywhere)), max(v.most, p.MaxContent())
	}
	return v
}

// Missing lists the characters of the tree that no shipped face has, by the block
// container they stand in.
func (t *Tree) Missing() map[*element.Node][]rune {
	out := map[*element.Node][]rune{}
	c := t.context()
	c.at(math.MaxInt16)
	var walk func(*object)
	walk = func(o *object) {
		if o.inline {
			for _, p := range (inlines{c}).flow(o).segments {
				if m := p.Missing(); len(m) > 0 {
					out[o.node] = append(out[o.node], m...)
				}
			}
		}
		for _, k := range o.children {
			walk(k)
		}
	}
	walk(t.root)
	return out
}
