package shape

import (
	"math"
	"sort"

	"github.com/go-text/typesetting/font/opentype"
	"github.com/go-text/typesetting/harfbuzz"
	"github.com/go-text/typesetting/language"
)

// Run is text with one look.
type Run struct {
	Text          string
	Faces         []*Face // in fallback order; at least one
	Size          float64 // px
	LetterSpacing float64 // px
	LineHeight    float64 // px; NaN is normal
}

// Paragraph is shaped text without forced breaks. Once made it is not changed, so
// that lines can be broken at many widths at once.
type Paragraph struct {
	text  []rune
	runs  []Run
	items []item
	// prefix[i] is the advance in px of the text before rune i.
	prefix []float64
	itemOf []int // by rune, and len(items) at the end
	runOf  []int
	runEnd []int // by run, the rune after its last
	breaks []opportunity
}

// item is a stretch of one run in one face.
type item struct {
	start, end int
	face       *Face
	size       float64
	run        int
}

// opportunity is a place where a line may end and the next begin.
type opportunity struct {
	at   int // rune the next line begins with
	trim int // at without the spaces before it, which hang
	// How much wider a line gets by beginning or ending here, where letters are
	// shaped differently at a line's edge, and for a hyphen shown.
	start, end float64
}

var noLigatures = func() (fs []harfbuzz.Feature) {
	for _, tag := range []string{"liga", "clig", "dlig", "hlig", "calt"} {
		fs = append(fs, harfbuzz.Feature{Tag: opentype.MustNewTag(tag), Value: 0, End: harfbuzz.FeatureGlobalEnd})
	}
	return fs
}()

// Paragraph shapes runs of text. Whitespace is taken as it is; the caller
// collapses it.
func (l *Library) Paragraph(runs []Run) *Paragraph {
	k := key(runs)
	l.mu.Lock() // faces, the buffer and the cache are shared
	defer l.mu.Unlock()
	if p := l.shaped.get(k); p != nil {
		return p
	}
	p := &Paragraph{runs: runs}
	for i, r := range runs {
		start := len(p.text)
		p.text = append(p.text, []rune(r.Text)...)
		for range len(p.text) - start {
			p.runOf = append(p.runOf, i)
		}
		p.runEnd = append(p.runEnd, len(p.text))
		p.itemise(start, i)
	}
	advance, unsafe := l.shapeItems(p)
	p.prefix = make([]float64, len(p.text)+1)
	for i, a := range advance {
		p.prefix[i+1] = p.prefix[i] + a
	}
	l.findBreaks(p, unsafe)
	l.shaped.put(k, p)
	return p
}

// itemise splits a run where the face that has the characters changes.
func (p *Paragraph) itemise(start, run int) {
	r := &p.runs[run]
	pick := func(c rune) *Face {
		for _, f := range r.Faces {
			if f.has(c) {
				return f
			}
		}
		return nil
	}
	for i := start; i < len(p.text); {
		face := pick(p.text[i])
		j := i + 1
		for ; j < len(p.text); j++ {
			next := pick(p.text[j])
			if face == nil {
				face = next
			} else if next != nil && next != face {
				break
			}
		}
		if face == nil {
			face = r.Faces[0]
		}
		p.items = append(p.items, item{i, j, face, math.Floor(r.Size*64) / 64, run})
		i = j
	}
}

// shapeItems gives the advance of each rune in px and where a break would change
// the shaping. Neighbours in the same face and size are shaped together, since
// kerning crosses element boundaries.
func (l *Library) shapeItems(p *Paragraph) (advance []float64, unsafe []bool) {
	n := len(p.text)
	advance, unsafe = make([]float64, n), make([]bool, n+1)
	p.itemOf = make([]int, n+1)
	p.itemOf[n] = len(p.items)
	for k := 0; k < len(p.items); {
		it := p.items[k]
		m := k + 1
		for m < len(p.items) && p.items[m].face == it.face && p.items[m].size == it.size {
			m++
		}
		info, pos := l.shape(p.text, it.start, p.items[m-1].end, it.face, p.runs[it.run].LetterSpacing != 0)
		for i := range info {
			c := info[i].Cluster
			advance[c] += float64(pos[i].XAdvance) / 64 * it.size / it.face.unitsPerEm
			if info[i].Mask&harfbuzz.GlyphUnsafeToBreak != 0 {
				unsafe[c] = true
			}
		}
		k = m
	}
	for k, it := range p.items {
		for i := it.start; i < it.end; i++ {
			p.itemOf[i] = k
			if r := p.text[i]; r != softHyphen && r != zeroWidthSpace && r != wordJoiner {
				advance[i] += p.runs[it.run].LetterSpacing
			}
		}
	}
	return advance, unsafe
}

const (
	softHyphen     = '\u00ad'
	zeroWidthSpace = '\u200b'
	wordJoiner     = '\u2060'
	hyphen         = '\u2010'
	enDash         = '\u2013'
)

// shape runs HarfBuzz over text[a:b]; what it gives is valid until the next call.
func (l *Library) shape(text []rune, a, b int, f *Face, spaced bool) ([]harfbuzz.GlyphInfo, []harfbuzz.GlyphPosition) {
	buf := l.buf
	buf.Clear()
	buf.AddRunes(text, a, b-a)
	buf.Props.Direction = harfbuzz.LeftToRight
	buf.Props.Language = language.NewLanguage("en")
	buf.Props.Script = language.Latin
	var features []harfbuzz.Feature
	if spaced {
		features = noLigatures
	}
	buf.Shape(f.hb, features)
	if f.variable { // advances of variable fonts in whole font units; kerning stays fractional
		for i := range buf.Pos {
			if buf.Pos[i].XAdvance != 0 {
				exact := float64(f.font.HorizontalAdvance(buf.Info[i].Glyph))
				buf.Pos[i].XAdvance += int32(math.Round(exact)*64) - int32(math.Round(exact*64))
			}
		}
	}
	return buf.Info, buf.Pos
}

// width shapes text[a:b] by itself and gives its advance in px.
func (l *Library) width(text []rune, a, b int, it item, spacing float64) float64 {
	_, pos := l.shape(text[a:b], 0, b-a, it.face, spacing != 0)
	w := spacing * float64(b-a)
	for _, p := range pos {
		w += float64(p.XAdvance) / 64 * it.size / it.face.unitsPerEm
	}
	return w
}

func isSpace(r rune) bool { return r == ' ' || r == '\n' || r == '\t' }

func (l *Library) findBreaks(p *Paragraph, unsafe []bool) {
	n := len(p.text)
	ok := breakOpportunities(p.text)
	for i := 1; i <= n; i++ {
		if !ok[i] {
			continue
		}
		o := opportunity{at: i, trim: i}
		for o.trim > 0 && isSpace(p.text[o.trim-1]) {
			o.trim--
		}
		if i < n && unsafe[i] {
			it := p.items[p.itemOf[i]]
			if it.start < i {
				e := i + 1
				for e < it.end && unsafe[e] {
					e++
				}
				o.start = l.width(p.text, i, e, it, p.runs[it.run].LetterSpacing) - (p.prefix[e] - p.prefix[i])
			}
		}
		if t := o.trim; t < n && t > 0 && unsafe[t] {
			it := p.items[p.itemOf[t-1]]
			if it.end > t {
				b := t - 1
				for b > it.start && unsafe[b] {
					b--
				}
				o.end = l.width(p.text, b, t, it, p.runs[it.run].LetterSpacing) - (p.prefix[t] - p.prefix[b])
			}
		}
		if p.text[i-1] == softHyphen {
			it := p.items[p.itemOf[i-1]]
			h := rune(hyphen)
			if !it.face.has(h) {
				h = '-'
			}
			o.end += l.width([]rune{h}, 0, 1, it, 0)
		}
		p.breaks = append(p.breaks, o)
	}
}

// width gives the width in px of the line from rune s to e; each run's part is
// rounded up to 1/64 px, and the edges' corrections are start and end.
func (p *Paragraph) width(s, e int, start, end float64) float64 {
	if e <= s {
		return 0
	}
	a, b := p.runOf[s], p.runOf[e-1]
	if a == b {
		return ceil64(p.prefix[e] - p.prefix[s] + start + end)
	}
	w := ceil64(p.prefix[p.runEnd[a]] - p.prefix[s] + start)
	for k := a + 1; k < b; k++ {
		w += ceil64(p.prefix[p.runEnd[k]] - p.prefix[p.runEnd[k-1]])
	}
	return w + ceil64(p.prefix[e]-p.prefix[p.runEnd[b-1]]+end)
}

// Line is one line of a paragraph.
type Line struct {
	Start, End   int     // runes, trailing spaces included
	Width        float64 // px, trailing spaces not included
	Above, Below float64 // px from the baseline to the line box's edges
}

// Wrap breaks the paragraph into lines no wider than width (px) where it can and
// appends them to lines. The strut is the block's own font, of which every line
// is at least as high. A paragraph without text has no lines.
func (p *Paragraph) Wrap(width float64, strut Run, lines []Line) []Line {
	available := Floor64(width) + 1.0/64
	strutAbove, strutBelow := strut.Faces[0].LineMetrics(strut.Size, strut.LineHeight)
	s, start, first := 0, 0.0, 0
	for s < len(p.text) {
		// The last opportunity that could fit, by the advances alone with 4 px to
		// spare for what the corrections take; then back by the exact width.
		limit := p.prefix[s] + available + 4
		k := first + sort.Search(len(p.breaks)-first, func(k int) bool { return p.prefix[p.breaks[first+k].trim] > limit })
		k = min(k, len(p.breaks)-1)
		w := p.width(s, p.breaks[k].trim, start, p.breaks[k].end)
		for k > first && w > available {
			k--
			w = p.width(s, p.breaks[k].trim, start, p.breaks[k].end)
		}
		o := p.breaks[k]
		line := Line{Start: s, End: o.at, Width: w, Above: strutAbove, Below: strutBelow}
		for i, last := s, -1; i < o.at; {
			it := p.items[p.itemOf[i]]
			if it.run != last {
				last = it.run
				r := &p.runs[last]
				a, b := r.Faces[0].LineMetrics(r.Size, r.LineHeight)
				line.Above, line.Below = max(line.Above, a), max(line.Below, b)
			}
			i = it.end
		}
		lines = append(lines, line)
		s, start, first = o.at, o.start, k+1
	}
	return lines
}

// MaxContent is the width in px of the paragraph on one line.
func (p *Paragraph) MaxContent() float64 {
	if len(p.breaks) == 0 {
		return 0
	}
	return p.width(0, p.breaks[len(p.breaks)-1].trim, 0, 0)
}

// MinContent is the width in px of its widest part that can't be broken.
func (p *Paragraph) MinContent() float64 {
	s, start, widest := 0, 0.0, 0.0
	for _, o := range p.breaks {
		widest = max(widest, p.width(s, o.trim, start, o.end))
		s, start = o.at, o.start
	}
	return widest
}

// Text gives runes from s to e.
func (p *Paragraph) Text(s, e int) string { return string(p.text[s:e]) }
