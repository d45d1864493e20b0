package shape

import (
	"math"
	"sync"

	"github.com/go-text/typesetting/font/opentype"
	"github.com/go-text/typesetting/harfbuzz"
	"github.com/go-text/typesetting/language"
	"github.com/go-text/typesetting/segmenter"
)

// glyphs is text shaped once for every size: lengths are in em, those of letter
// spacing not included.
type glyphs struct {
	text    []rune
	items   []item
	advance []float64 // by rune
	itemOf  []int     // by rune, and len(items) at the end
	runOf   []int
	runEnd  []int // by run, the rune after its last
	unsafe  []bool
	breaks  []opportunity
	letters []lettering // by run
	missing []rune      // characters that no face has

	// inWord has the corrections of breaks within a word that were asked for.
	mu     sync.Mutex
	inWord map[int]opportunity
	// clusters tells where a grapheme begins; nil when every rune is one.
	clusters []bool
	// inGlyph tells which runes are in the midst of a glyph, such as a ligature.
	inGlyph []bool
}

// item is a stretch of one run in one face.
type item struct {
	start, end int
	face       *Face
	run        int
}

// opportunity is a place where a line may end and the next begin.
type opportunity struct {
	at   int // rune the next line begins with
	trim int // at without the spaces before it, which hang
	// How much wider a line gets by beginning or ending here, where letters are
	// shaped differently at a line's edge, and for a hyphen shown.
	start, end float64
	// hung is like end for a line whose spaces hang out of its box; where they don't,
	// the last letter keeps its kerning with them.
	hung float64
	// hyphen is the part of end that a hyphen takes.
	hyphen float64
	// from is where shaping again begins for end or hung; at or more for nowhere.
	from int
}

// features are what HarfBuzz is told, by lettering.
var features = func() (by [4][]harfbuzz.Feature) {
	set := func(as lettering, tag string, value uint32) {
		for i := range by {
			if lettering(i)&as != 0 {
				by[i] = append(by[i], harfbuzz.Feature{
					Tag: opentype.MustNewTag(tag), Value: value, End: harfbuzz.FeatureGlobalEnd,
				})
			}
		}
	}
	for _, tag := range []string{"liga", "clig", "dlig", "hlig", "calt"} {
		set(plain, tag, 0)
	}
	set(tabular, "tnum", 1)
	return by
}()

// glyphs shapes runs of text, or finds them shaped already.
func (l *Library) glyphs(runs []Run) *glyphs {
	k := key(runs)
	l.mu.Lock() // faces, the buffer and the cache are shared
	defer l.mu.Unlock()
	if g := l.shaped.get(k); g != nil {
		return g
	}
	g := &glyphs{}
	for i, r := range runs {
		start := len(g.text)
		g.text = append(g.text, []rune(r.Text)...)
		for range len(g.text) - start {
			g.runOf = append(g.runOf, i)
		}
		g.runEnd = append(g.runEnd, len(g.text))
		g.letters = append(g.letters, r.lettering())
		g.itemise(start, i, r.Faces)
	}
	l.shapeItems(g, runs)
	g.findClusters()
	l.findBreaks(g, runs)
	l.shaped.put(k, g)
	return g
}

// itemise splits a run where the face that has the characters changes.
func (g *glyphs) itemise(start, run int, faces []*Face) {
	pick := func(c rune) *Face {
		for _, f := range faces {
			if f.has(c) {
				return f
			}
		}
		if c > ' ' && !invisible(c) {
			g.missing = append(g.missing, c)
		}
		return nil
	}
	for i := start; i < len(g.text); {
		face := pick(g.text[i])
		j := i + 1
		for ; j < len(g.text); j++ {
			next := pick(g.text[j])
			if face == nil {
				face = next
			} else if next != nil && next != face {
				break
			}
		}
		if face == nil {
			face = faces[0]
		}
		g.items = append(g.items, item{i, j, face, run})
		i = j
	}
}

func invisible(c rune) bool {
	return c == softHyphen || c == zeroWidthSpace || c == wordJoiner || c == '\u200c' || c == '\u200d' ||
		c >= '\ufe00' && c <= '\ufe0f'
}

// shapeItems finds the advance of each rune and where a break would change the
// shaping. Neighbours in the same face and size are shaped together, since kerning
// crosses element boundaries.
func (l *Library) shapeItems(g *glyphs, runs []Run) {
	n := len(g.text)
	g.advance, g.unsafe = make([]float64, n), make([]bool, n+1)
	g.itemOf = make([]int, n+1)
	g.itemOf[n] = len(g.items)
	g.inGlyph = make([]bool, n+1)
	for i := range n {
		g.inGlyph[i] = true
	}
	for k := 0; k < len(g.items); {
		it := g.items[k]
		m := k + 1
		for m < len(g.items) && g.items[m].face == it.face && runs[g.items[m].run].Size == runs[it.run].Size {
			m++
		}
		info, pos := l.shape(g.text, it.start, g.items[m-1].end, it.face, g.letters[it.run])
		for i := range info {
			c := info[i].Cluster
			g.inGlyph[c] = false
			g.advance[c] += float64(pos[i].XAdvance) / 64 / it.face.unitsPerEm
			if info[i].Mask&harfbuzz.GlyphUnsafeToBreak != 0 {
				g.unsafe[c] = true
			}
		}
		k = m
	}
	for k, it := range g.items {
		for i := it.start; i < it.end; i++ {
			g.itemOf[i] = k
			g.unsafe[i] = g.unsafe[i] || g.inGlyph[i]
		}
	}
}

const (
	softHyphen     = '\u00ad'
	zeroWidthSpace = '\u200b'
	wordJoiner     = '\u2060'
	hyphen         = '\u2010'
	enDash         = '\u2013'
)

// shape runs HarfBuzz over text[a:b]; what it gives is valid until the next call. The
// shaper isn't ours and files may be hostile: where it fails there are no glyphs.
func (l *Library) shape(
	text []rune,
	a, b int,
	f *Face,
	as lettering,
) (info []harfbuzz.GlyphInfo, pos []harfbuzz.GlyphPosition) {
	defer func() {
		if recover() != nil {
			info, pos, l.buf = nil, nil, harfbuzz.NewBuffer()
		}
	}()
	buf := l.buf
	buf.Clear()
	buf.AddRunes(text, a, b-a)
	buf.Props.Direction = harfbuzz.LeftToRight
	buf.Props.Language = language.NewLanguage("en")
	buf.Props.Script = language.Latin
	buf.Shape(f.hb, features[as])
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

// width shapes text[a:b] by itself and gives its advance in em.
func (l *Library) width(text []rune, a, b int, f *Face, as lettering) float64 {
	_, pos := l.shape(text[a:b], 0, b-a, f, as)
	w := 0.0
	for _, p := range pos {
		w += float64(p.XAdvance) / 64 / f.unitsPerEm
	}
	return w
}

func (g *glyphs) sum(a, b int) (w float64) {
	for _, v := range g.advance[a:b] {
		w += v
	}
	return w
}

func isSpace(r rune) bool { return r == ' ' || r == '\n' || r == '\t' }

func (l *Library) findBreaks(g *glyphs, runs []Run) {
	ok := breakOpportunities(g.text)
	for i := 1; i <= len(g.text); i++ {
		if !ok[i] || i < len(g.text) && runs[g.runOf[i-1]].NoWrap && runs[g.runOf[i]].NoWrap {
			continue
		}
		g.breaks = append(g.breaks, l.opportunity(g, i))
	}
}

// opportunity describes a break before rune i: at the edges, letters that
// HarfBuzz flags as unsafe to break are shaped again by themselves.
func (l *Library) opportunity(g *glyphs, i int) opportunity {
	n := len(g.text)
	o := opportunity{at: i, trim: i, from: i}
	for o.trim > 0 && isSpace(g.text[o.trim-1]) {
		o.trim--
	}
	if i < n && g.unsafe[i] {
		it := g.items[g.itemOf[i]]
		if it.start < i {
			e := i + 1
			for e < it.end && g.unsafe[e] {
				e++
			}
			o.start = l.width(g.text, i, e, it.face, g.letters[it.run]) - g.sum(i, e)
		}
	}
	if t := o.trim; t < n && t > 0 && g.unsafe[t] {
		it := g.items[g.itemOf[t-1]]
		if it.end > t {
			b := t - 1
			for b > it.start && g.unsafe[b] {
				b--
			}
			o.from = b
			edge := l.width(g.text, b, t, it.face, g.letters[it.run]) - g.sum(b, t)
			if t == i {
				o.end = edge
			} else {
				o.hung = edge
			}
		}
	}
	if g.text[i-1] == softHyphen {
		it := g.items[g.itemOf[i-1]]
		h := rune(hyphen)
		if !it.face.has(h) {
			h = '-'
		}
		o.hyphen = l.width([]rune{h}, 0, 1, it.face, 0)
		o.end += o.hyphen
	}
	return o
}

// findClusters notes where graphemes begin (UAX 29), since a word is never broken
// within one.
func (g *glyphs) findClusters() {
	latin := true
	for _, r := range g.text {
		latin = latin && r < 0x300
	}
	if latin {
		return
	}
	g.clusters = make([]bool, len(g.text)+1)
	var seg segmenter.Segmenter
	seg.Init(g.text)
	for it := seg.GraphemeIterator(); it.Next(); {
		g.clusters[it.Grapheme().Offset] = true
	}
	g.clusters[len(g.text)] = true
}

// whole reports whether neither a grapheme nor a glyph is in the way of breaking
// before rune i.
func (g *glyphs) whole(i int) bool {
	return !g.inGlyph[i] && (g.clusters == nil || g.clusters[i])
}

// breakInWord describes a break before rune i, which is no opportunity.
func (l *Library) breakInWord(g *glyphs, i int) opportunity {
	g.mu.Lock()
	o, ok := g.inWord[i]
	g.mu.Unlock()
	if ok {
		return o
	}
	l.mu.Lock()
	o = l.opportunity(g, i)
	l.mu.Unlock()
	g.mu.Lock()
	defer g.mu.Unlock()
	if g.inWord == nil {
		g.inWord = map[int]opportunity{}
	}
	g.inWord[i] = o
	return o
}
