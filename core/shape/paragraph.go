package shape

import (
	"math"
	"slices"
	"sort"
)

// Run is text with one look.
type Run struct {
	Text          string
	Faces         []*Face // in fallback order; at least one
	Size          float64 // px
	LetterSpacing float64 // px
	LineHeight    float64 // px; NaN is normal
	NoWrap        bool    // white-space: nowrap
	NoLigatures   bool    // font-variant-ligatures: none
	Tabular       bool    // font-variant-numeric: tabular-nums
}

// lettering is a set of how glyphs are chosen.
type lettering uint8

const (
	plain   lettering = 1 << iota // without ligatures
	tabular                       // figures of one width
)

// lettering tells how a run's glyphs are chosen: any letter spacing turns ligatures off, too (CSS
// Text 3 §9.2).
func (r *Run) lettering() (l lettering) {
	if r.NoLigatures || r.LetterSpacing != 0 {
		l |= plain
	}
	if r.Tabular {
		l |= tabular
	}
	return l
}

// Paragraph is shaped text without forced breaks, in its sizes. Once made it is not
// changed, so that lines can be broken at many widths at once.
type Paragraph struct {
	*glyphs
	lib  *Library
	runs []Run
	// prefix[i] is the advance in px of the text before rune i.
	prefix []float64
	// breaks are the glyphs' with lengths in px.
	breaks []opportunity
	// above and below are, by run, how far its line boxes reach from the baseline.
	above, below []float64
}

// Paragraph shapes runs of text. Whitespace is taken as it is; the caller
// collapses it.
func (l *Library) Paragraph(runs []Run) *Paragraph {
	g := l.glyphs(runs)
	p := &Paragraph{
		glyphs: g,
		lib:    l,
		runs:   runs,
		prefix: make([]float64, len(g.text)+1),
		breaks: make([]opportunity, len(g.breaks)),
	}
	for _, it := range g.items {
		size, spacing := glyphSize(runs[it.run].Size), runs[it.run].LetterSpacing
		for i := it.start; i < it.end; i++ {
			a := g.advance[i] * size
			if spacing != 0 && !unspaced(g.text[i]) {
				a += spacing
			}
			p.prefix[i+1] = p.prefix[i] + a
		}
	}
	for i, o := range g.breaks {
		p.breaks[i] = p.sized(o)
	}
	for i := range runs {
		a, b := runs[i].Faces[0].LineMetrics(runs[i].Size, runs[i].LineHeight)
		p.above, p.below = append(p.above, a), append(p.below, b)
	}
	return p
}

// effectiveSize is the size in px that Chromium asks a font for: rounded down to
// 1/100 px, twice over in single precision, so that 16.13 px becomes 16.12.
// Measured at 4,600 sizes.
func effectiveSize(px float64) float64 {
	size := float32(px)
	for range 2 {
		size = float32(math.Floor(float64(size*100))) / 100
	}
	return float64(size)
}

// glyphSize is the size in px that glyphs are scaled to: the effective one in whole
// 1/64 px, FreeType's unit.
func glyphSize(px float64) float64 { return math.Floor(effectiveSize(px)*64) / 64 }

// unspaced reports whether letter-spacing leaves a character alone.
func unspaced(r rune) bool { return r == softHyphen || r == zeroWidthSpace || r == wordJoiner }

// sized gives an opportunity with its corrections in px.
func (p *Paragraph) sized(o opportunity) opportunity {
	if o.start != 0 {
		o.start *= glyphSize(p.runs[p.runOf[o.at]].Size)
	}
	if o.end != 0 || o.hung != 0 {
		size := glyphSize(p.runs[p.runOf[max(o.trim, 1)-1]].Size)
		o.end *= size
		o.hung *= size
		o.hyphen *= size
	}
	return o
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

// lineWidth is the width in px of the line from rune s to an opportunity, and
// whether it fits. What is shaped again for the line's end is rounded up by itself
// before it is asked to fit.
func (p *Paragraph) lineWidth(s int, o opportunity, start, available float64) (w float64, fits bool) {
	end := o.end
	hangs := o.trim < o.at && p.prefix[o.at]-p.prefix[s]+start > available
	if hangs {
		end = o.hung
	}
	w = p.width(s, o.trim, start, end)
	fits = w <= available
	if fits && o.from < o.trim && o.from > s && (hangs || o.trim == o.at) {
		before := p.prefix[o.from] - p.prefix[s] + start
		if run := p.runOf[o.from]; run > 0 && p.runEnd[run-1] > s {
			before = p.width(s, p.runEnd[run-1], start, 0) + p.prefix[o.from] - p.prefix[p.runEnd[run-1]]
		}
		fits = before+ceil64(p.prefix[o.trim]-p.prefix[o.from]+end) <= available+1e-6
	}
	if !fits && hangs { // then the last letter keeps its kerning with the space
		w = p.width(s, o.trim, start, o.end)
		fits = w <= available
	}
	return w, fits
}

// Line is one line of a paragraph.
type Line struct {
	Start, End   int     // runes, trailing spaces included
	Width        float64 // px, trailing spaces not included
	Above, Below float64 // px from the baseline to the line box's edges
}

// Words tells how many characters a line has, spaces at its end not counted, and whether they
// are one word.
func (p *Paragraph) Words(l Line) (runes int, alone bool) {
	end := min(l.End, len(p.text))
	for end > l.Start && p.text[end-1] == ' ' {
		end--
	}
	return end - l.Start, end > l.Start && !slices.Contains(p.text[l.Start:end], ' ')
}

// Wrapping is how lines are broken.
type Wrapping struct {
	Width float64 // px
	// Above and Below are the strut's: no line is less high (CSS Inline 3 §5).
	Above, Below float64
	// BreakWords breaks a word that is wider than a line (CSS Text 3 §5.5).
	BreakWords bool
}

// Range is the widths in px, from the first to below the second, at which lines
// break in the same way and are as wide.
type Range struct{ From, Below float64 }

// Holds reports whether a width is in the range.
func (r Range) Holds(width float64) bool {
	available := Floor64(width) + 1.0/64
	return r.From <= available && available < r.Below
}

// Wrap breaks the paragraph into lines no wider than the width where it can and
// appends them to lines. A paragraph without text has no lines. The range is narrowed
// to the widths that give the same.
func (p *Paragraph) Wrap(w Wrapping, lines []Line, same *Range) []Line {
	available := Floor64(w.Width) + 1.0/64
	s, start, first := 0, 0.0, 0
	for s < len(p.text) {
		var o opportunity
		var width float64
		o, width, first = p.lineEnd(s, start, first, available, w.BreakWords, same)
		lines = append(lines, p.line(s, o, width, w))
		s, start = o.at, o.start
	}
	return lines
}

// Cursor is where the next line of a paragraph begins; the zero Cursor is its beginning.
type Cursor struct {
	at    int
	start float64
	first int
}

// Next breaks off the line that begins at a cursor, and gives the cursor behind it. fits
// is false when not even the first word, or part of one where words may be broken, is
// narrow enough; ok is false at the end.
func (p *Paragraph) Next(c Cursor, w Wrapping) (l Line, next Cursor, fits, ok bool) {
	if c.at >= len(p.text) {
		return Line{}, c, true, false
	}
	available := Floor64(w.Width) + 1.0/64
	o, width, first := p.lineEnd(c.at, c.start, c.first, available, false, nil)
	if fits = width <= available; !fits && w.BreakWords {
		o, width, first = p.lineEnd(c.at, c.start, c.first, available, true, nil)
	}
	return p.line(c.at, o, width, w), Cursor{o.at, o.start, first}, fits, true
}

// lineEnd finds where the line that begins at rune s ends, its width, and the
// index of the first opportunity after it.
func (p *Paragraph) lineEnd(
	s int,
	start float64,
	first int,
	available float64,
	breakWords bool,
	same *Range,
) (opportunity, float64, int) {
	// The last opportunity that could fit, by the advances alone with 4 px to
	// spare for what the corrections take; then back by the exact width.
	if k := first; p.breaks[k].at == s+1 && p.text[s] == '-' && k+1 < len(p.breaks) && p.text[s+1] >= '0' &&
		p.text[s+1] <= '9' {
		first++ // a hyphen at the beginning of a line is a minus
	}
	const spare = 4
	limit := p.prefix[s] + available + spare
	k := first
	for step := 8; k+step < len(p.breaks) && p.prefix[p.breaks[k+step].trim] <= limit; {
		k += step
	}
	for k < len(p.breaks)-1 && p.prefix[p.breaks[k].trim] <= limit {
		k++
	}
	next := math.Inf(1) // the width at which the line would reach further
	if p.prefix[p.breaks[k].trim] > limit {
		next = p.prefix[p.breaks[k].trim] - p.prefix[s] - spare
	}
	w, fits := p.lineWidth(s, p.breaks[k], start, available)
	for k > first && !fits {
		if next = min(w, next); p.breaks[k].from < p.breaks[k].trim {
			next -= spare
		}
		k--
		w, fits = p.lineWidth(s, p.breaks[k], start, available)
	}
	if same != nil {
		switch o := &p.breaks[k]; {
		case o.from < o.trim || !fits && breakWords: // what is shaped again depends on the width
			same.From, same.Below = max(same.From, available), min(same.Below, math.Nextafter(available, math.Inf(1)))
		case fits:
			same.From, same.Below = max(
				same.From,
				w,
			), min(
				same.Below,
				max(next, math.Nextafter(available, math.Inf(1))),
			)
		default: // a word too wide stays so at less
			same.Below = min(same.Below, w)
		}
	}
	if fits || !breakWords {
		return p.breaks[k], w, k + 1
	}
	o := p.breakInWord(s, start, p.breaks[k].trim, available)
	if o.at == 0 {
		return p.breaks[k], w, k + 1
	}
	return o, p.width(s, o.at, start, o.end), k
}

// breakInWord finds where to break the word that the line from rune s to end, by
// which it is too wide, consists of: the steps of Chromium's line breaker. What has
// to be shaped again for a break has to fit, too, except where there is no rune
// from which on the shaping stays. It gives the zero opportunity for a single
// grapheme.
func (p *Paragraph) breakInWord(s int, start float64, end int, available float64) opportunity {
	candidate := s + sort.Search(end-s-1, func(i int) bool { return p.width(s, s+i+1, start, 0) > available })
	at := p.previousWhole(candidate, s)
	if at > s {
		firstSafe := s
		for firstSafe < end && p.unsafe[firstSafe] {
			firstSafe++
		}
		for ; at > s; at = p.previousWhole(at-1, s) {
			o := p.sized(p.lib.breakInWord(p.glyphs, at))
			fits := p.width(s, at, start, o.end) <= available
			if fits || o.hyphen == 0 && (firstSafe > s && firstSafe >= at || !p.unsafe[at]) {
				return o
			}
		}
	}
	for at = s + 1; at < end; at++ { // nothing fits
		if p.whole(at) {
			return p.sized(p.lib.breakInWord(p.glyphs, at))
		}
	}
	return opportunity{}
}

// previousWhole is the last place to break a word at, at or before rune i, or s.
// A soft hyphen stays with what is before it.
func (p *Paragraph) previousWhole(i, s int) int {
	for i > s && (!p.whole(i) || p.text[i] == softHyphen) {
		i--
	}
	return i
}

// MaxContent is the width in px of the paragraph on one line.
func (p *Paragraph) MaxContent() float64 {
	if len(p.breaks) == 0 {
		return 0
	}
	return p.width(0, p.breaks[len(p.breaks)-1].trim, 0, 0)
}

// MinContent is the width in px of its widest part that can't be broken; with
// anywhere, words can be.
func (p *Paragraph) MinContent(anywhere bool) float64 {
	s, widest := 0, 0.0
	if anywhere {
		for i := range p.text {
			if !p.whole(i + 1) {
				continue
			}
			if !isSpace(p.text[i]) {
				widest = max(widest, p.width(s, i+1, 0, 0))
			}
			s = i + 1
		}
		return widest
	}
	for _, o := range p.breaks {
		widest = max(widest, p.width(s, o.trim, 0, o.hyphen)) // as shaped in its surroundings, as browsers do
		s = o.at
	}
	return widest
}

// mostBalanced is how many lines are balanced at most.
const mostBalanced = 6

// WrapBalanced is Wrap with lines about as long as each other: of all ways to break
// the paragraph into as few lines as it takes, the one with the least sum of
// squares of what the lines leave free (CSS Text 4 §6.4 leaves the method open;
// this one is what Chromium's lines agree with).
func (p *Paragraph) WrapBalanced(w Wrapping, lines []Line, same *Range) []Line {
	before := len(lines)
	lines = p.Wrap(w, lines, same)
	n := len(lines) - before
	if n < 2 || n > mostBalanced {
		return lines
	}
	available := Floor64(w.Width) + 1.0/64
	// All lines together are as long however they are broken, so which way is the best doesn't
	// depend on the width as long as its lines fit.
	ends, widest := p.balance(n, w.Width, math.Inf(1))
	if widest > available {
		ends, _ = p.balance(n, w.Width, available)
		widest = available
		if same != nil {
			same.Below = math.Nextafter(available, math.Inf(1))
		}
	}
	if same != nil {
		same.From = max(same.From, widest)
	}
	if ends == nil { // a word had to be broken
		return lines
	}
	lines = lines[:before]
	s, start := 0, 0.0
	for _, i := range ends {
		o := p.breaks[i]
		lines = append(lines, p.line(s, o, p.width(s, o.trim, start, o.end), w))
		s, start = o.at, o.start
	}
	return lines
}

// balance breaks the paragraph into n lines none of which is wider than available, and gives
// the opportunities at which they end, and how wide the widest is; nil where there is no way.
func (p *Paragraph) balance(n int, width, available float64) (ends []int, widest float64) {
	// cost[k][i] is the least for k lines that end at opportunity i-1; from[k][i] is
	// the opportunity that the last of them begins after, wide[k][i] how wide the widest of them is.
	count := len(p.breaks)
	cost, wide, from := make([][]float64, n+1), make([][]float64, n+1), make([][]int, n+1)
	for k := range cost {
		cost[k], wide[k], from[k] = make([]float64, count+1), make([]float64, count+1), make([]int, count+1)
		for i := range cost[k] {
			cost[k][i] = math.Inf(1)
		}
	}
	cost[0][0] = 0
	for b := range count { // a line from opportunity b-1 to opportunity i
		s, start := 0, 0.0
		if b > 0 {
			s, start = p.breaks[b-1].at, p.breaks[b-1].start
		}
		for i := b; i < count; i++ {
			line := p.width(s, p.breaks[i].trim, start, p.breaks[i].end)
			if line > available {
				if p.prefix[p.breaks[i].trim]-p.prefix[s] > available+4 {
					break
				}
				continue
			}
			free := width - (p.prefix[p.breaks[i].at] - p.prefix[s]) // spaces at its end count here
			for k := 1; k <= n; k++ {
				if c := cost[k-1][b] + free*free; c < cost[k][i+1] {
					cost[k][i+1], wide[k][i+1], from[k][i+1] = c, max(wide[k-1][b], line), b
				}
			}
		}
	}
	if math.IsInf(cost[n][count], 1) {
		return nil, 0
	}
	ends = make([]int, n)
	for k, i := n, count; k > 0; k-- {
		ends[k-1] = i - 1
		i = from[k][i]
	}
	return ends, wide[n][count]
}

// line makes the line from rune s to an opportunity.
func (p *Paragraph) line(s int, o opportunity, width float64, w Wrapping) Line {
	l := Line{Start: s, End: o.at, Width: width, Above: w.Above, Below: w.Below}
	for k := p.runOf[s]; k <= p.runOf[o.at-1]; k++ {
		l.Above, l.Below = max(l.Above, p.above[k]), max(l.Below, p.below[k])
	}
	return l
}

// Missing lists the characters that no face of their runs has; a browser takes
// them from a font of the system, whose widths aren't known here.
func (p *Paragraph) Missing() []rune { return p.missing }

// Text gives runes from s to e.
func (p *Paragraph) Text(s, e int) string { return string(p.text[s:e]) }
