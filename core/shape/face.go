package shape

import (
	"bytes"
	"errors"
	"fmt"
	"math"
	"slices"
	"sync"
	"sync/atomic"

	"github.com/go-text/typesetting/font"
	"github.com/go-text/typesetting/font/opentype"
	"github.com/go-text/typesetting/harfbuzz"
)

// Face is a font at one weight, ready to shape. Lengths are in font units.
type Face struct {
	id                       uint32 // tells faces apart within the process
	hb                       *harfbuzz.Font
	font                     *font.Face
	unitsPerEm               float64
	ascent, descent, lineGap float64
	variable                 bool
}

var faceIDs atomic.Uint32

func newFace(f *font.Face, weight int, variable bool) *Face {
	if variable {
		f.SetVariations([]font.Variation{{Tag: opentype.MustNewTag("wght"), Value: float32(weight)}})
	}
	h := harfbuzz.NewFont(f)
	h.XScale = int32(f.Upem()) << 6 // 1/64 font units
	h.YScale = h.XScale
	e, _ := f.FontHExtents()
	return &Face{
		id: faceIDs.Add(1),
		hb: h, font: f, unitsPerEm: float64(f.Upem()), variable: variable,
		ascent: float64(e.Ascender), descent: -float64(e.Descender), lineGap: float64(e.LineGap),
	}
}

func (f *Face) has(r rune) (ok bool) {
	defer func() { _ = recover() != nil }() // a hostile file's table may lead astray
	_, ok = f.font.NominalGlyph(r)
	return ok
}

// Library finds faces by family, weight and style. It is safe for concurrent use.
type Library struct {
	mu    sync.Mutex
	files map[string][]*file
	cache map[faceKey][]*Face
	first string // the family that stands in for an unknown one
	buf   *harfbuzz.Buffer
	// shaped keeps glyphs already made.
	shaped recent
}

type file struct {
	font    *font.Font
	italic  bool
	weights [2]int
}

type faceKey struct {
	family string
	weight int
	italic bool
}

// NewLibrary makes an empty library.
func NewLibrary() *Library {
	return &Library{files: map[string][]*file{}, cache: map[faceKey][]*Face{}, buf: harfbuzz.NewBuffer()}
}

// With gives a library that has this one's files and can be given more, which this one
// doesn't see. Faces and glyphs are kept apart.
func (l *Library) With() *Library {
	l.mu.Lock()
	defer l.mu.Unlock()
	n := NewLibrary()
	n.first = l.first
	for family, files := range l.files {
		n.files[family] = slices.Clone(files)
	}
	return n
}

// Add reads a font file, TrueType or OpenType, into a family. Files of a
// family with the same style and weights complete each other's characters, the
// first added coming first.
func (l *Library) Add(family string, italic bool, weights [2]int, b []byte) (err error) {
	defer func() { // the parser is not ours, and files may be hostile
		if r := recover(); r != nil {
			err = fmt.Errorf("reading the font: %v", r)
		}
	}()
	f, err := font.ParseTTF(bytes.NewReader(b))
	if err != nil {
		return fmt.Errorf("reading the font: %w", err)
	}
	l.mu.Lock()
	defer l.mu.Unlock()
	if !l.shapes(newFace(font.NewFace(f.Font), weights[0], weights[0] != weights[1])) {
		return errors.New("reading the font: its tables don't fit together")
	}
	if l.first == "" {
		l.first = family
	}
	l.files[family] = append(l.files[family], &file{f.Font, italic, weights})
	clear(l.cache)
	l.shaped = recent{}
	return nil
}

// shapes tries a face on some text.
func (l *Library) shapes(f *Face) bool {
	text := []rune("AVATAR fi 08:10")
	info, pos := l.shape(text, 0, len(text), f, 0)
	if len(info) == 0 || f.unitsPerEm <= 0 {
		return false
	}
	for i := range info {
		if info[i].Cluster < 0 || info[i].Cluster >= len(text) ||
			math.Abs(float64(pos[i].XAdvance))/64 > 100*f.unitsPerEm {
			return false
		}
	}
	return true
}

// Faces gives the faces of a family nearest to a weight and style, in the order
// in which they are asked for a character. An unknown family gets the first one
// added to the library.
func (l *Library) Faces(family string, weight int, italic bool) []*Face {
	l.mu.Lock()
	defer l.mu.Unlock()
	k := faceKey{family, weight, italic}
	if fs, ok := l.cache[k]; ok {
		return fs
	}
	files := l.files[family]
	if files == nil {
		files = l.files[l.first]
	}
	var best *file
	for _, f := range files {
		if best == nil || distance(f, weight, italic) < distance(best, weight, italic) {
			best = f
		}
	}
	var fs []*Face
	for _, f := range files {
		if f.italic == best.italic && f.weights == best.weights {
			w := min(max(weight, f.weights[0]), f.weights[1])
			fs = append(fs, newFace(font.NewFace(f.font), w, f.weights[0] != f.weights[1]))
		}
	}
	l.cache[k] = fs
	return fs
}

// distance orders files as CSS Fonts 4 §5.2 does: style first, then weight.
func distance(f *file, weight int, italic bool) int {
	d := WeightDistance(f.weights[0], f.weights[1], weight)
	if f.italic != italic {
		d += 100000
	}
	return d
}

// WeightDistance orders files by the weights that they have, from lo to hi, as CSS Fonts 4 §5.2 does
// for a wanted one: from 400 to 500 up to 500 first, for lighter ones down first, for heavier ones
// up first.
func WeightDistance(lo, hi, weight int) (d int) {
	switch {
	case weight >= lo && weight <= hi:
	case weight < lo: // heavier than wanted
		d += lo - weight
		if weight < 400 || weight <= 500 && lo > 500 {
			d += 10000
		}
	default: // lighter than wanted
		d += weight - hi
		if weight > 500 {
			d += 10000
		} else if weight >= 400 {
			d += 5000
		}
	}
	return d
}

// LineMetrics gives how far a line box reaches above and below the baseline for
// text of a size (px) and a line height (px; NaN is normal), as CSS Inline 3
// §5 has it with Chromium's rounding: ascent and descent in whole px, half the
// leading rounded down.
func (f *Face) LineMetrics(size, lineHeight float64) (above, below float64) {
	size = effectiveSize(size)
	a := math.Round(f.ascent * size / f.unitsPerEm)
	d := math.Round(f.descent * size / f.unitsPerEm)
	if d < f.descent*size/f.unitsPerEm && a >= 1 { // geometricPrecision on Linux keeps descenders whole
		d++
		a--
	}
	if math.IsNaN(lineHeight) {
		lineHeight = a + d + math.Round(f.lineGap*size/f.unitsPerEm)
	}
	lineHeight = Floor64(lineHeight)
	above = a + math.Floor((lineHeight-(a+d))/2)
	return above, lineHeight - above
}

// Floor64 rounds down to a multiple of 1/64 px, the unit Chromium lays out in.
func Floor64(px float64) float64 { return math.Floor(px*64) / 64 }

// ceil64 rounds up to a multiple of 1/64 px; the tolerance absorbs what adding
// floating-point advances leaves.
func ceil64(px float64) float64 { return math.Ceil(px*64-1e-4) / 64 }
