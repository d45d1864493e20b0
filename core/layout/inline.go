package layout

import (
	"math"
	"strings"

	"openplot/core/element"
	"openplot/core/shape"
	"openplot/core/style"
)

// flow is the text of a block container: paragraphs of shaped text between
// forced breaks.
type flow struct {
	segments []*shape.Paragraph
	strut    shape.Run
}

// flow gives the shaped text of a block container in the context's zone.
func (c *context) flow(n *element.Node) *flow {
	k := textKey{n, c.zone}
	c.tree.mu.Lock()
	f := c.tree.texts[k]
	c.tree.mu.Unlock()
	if f != nil {
		return f
	}
	f = &flow{strut: c.run("", c.style(n))}
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
				runs = append(runs, c.run(text, c.style(n)))
				broken = false
			}
		default:
			for _, child := range n.Children {
				add(child)
			}
		}
	}
	for _, child := range n.Children {
		add(child)
	}
	if !broken { // a break at the very end begins no line
		end()
	}
	c.tree.mu.Lock()
	c.tree.texts[k] = f
	c.tree.mu.Unlock()
	return f
}

func (c *context) run(text string, s *style.Style) shape.Run {
	// A unitless line height multiplies the size in 1/64 px.
	return shape.Run{
		Text: text, Faces: c.tree.lib.Faces(s.FontFamily, s.FontWeight, s.FontItalic),
		Size: s.FontSize, LetterSpacing: s.LetterSpacing,
		LineHeight: s.LineHeight * math.Round(s.FontSize*64) / 64,
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

// inline lays out lines of text and gives their height.
func (c *context) inline(b *Box, inner float64, in edges) float64 {
	f := c.flow(b.Node)
	align := c.style(b.Node).TextAlign
	var lines []shape.Line
	for _, p := range f.segments {
		before := len(lines)
		lines = p.Wrap(inner, f.strut, lines)
		if len(lines) == before { // an empty line is as high as the strut
			above, below := f.strut.Faces[0].LineMetrics(f.strut.Size, f.strut.LineHeight)
			lines = append(lines, shape.Line{Above: above, Below: below})
		}
	}
	b.Lines = make([]Line, len(lines))
	y := 0.0
	for i, l := range lines {
		x := 0.0
		switch free := max(inner-l.Width, 0); align {
		case style.TextCenter:
			x = free / 2
		case style.TextEnd:
			x = free
		}
		b.Lines[i] = Line{in.left + x, in.top + y, l.Width, l.Above + l.Below}
		y += l.Above + l.Below
	}
	return y
}

func (f *flow) intrinsicWidths() (least, most float64) {
	for _, p := range f.segments {
		least, most = max(least, p.MinContent()), max(most, p.MaxContent())
	}
	return least, most
}
