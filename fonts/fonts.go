// Package fonts holds the font files that ship with Open Plot.
//
// The files come from the npm registry's font packages (bin/vendor); each
// family's licence lies beside them. Faces lists what there is; Library loads
// all of it for shaping.
package fonts

import (
	"embed"
	"fmt"
	"slices"
	"strings"
	"sync"

	"openplot/core/shape"
)

// Files holds the WOFF2 files under files/.
//
//go:embed files
var Files embed.FS

// Face is one font file.
type Face struct {
	Family string
	File   string // name under files/
	Italic bool
	// Weights are the least and greatest weight; alike for a static file.
	Weights [2]int
	// Extended is true for the file with the characters beyond the basic Latin ones.
	Extended bool
}

// The characters of the two files of a family, as their packages have them.
var (
	extended = [][2]rune{
		{0x0100, 0x0130}, {0x0132, 0x0151}, {0x0154, 0x02ba}, {0x02bd, 0x02c5}, {0x02c7, 0x02cc},
		{0x02ce, 0x02d7}, {0x02dd, 0x02ff}, {0x1d00, 0x1dbf}, {0x1e00, 0x1e9f}, {0x1ef2, 0x1eff},
		{0x20a0, 0x20ab}, {0x20ad, 0x20c0}, {0x2113, 0x2113}, {0x2c60, 0x2c7f}, {0xa720, 0xa7ff},
	}
	basic = [][2]rune{
		{0x0000, 0x00ff}, {0x0131, 0x0131}, {0x0152, 0x0153}, {0x02bb, 0x02bc}, {0x02c6, 0x02c6},
		{0x02da, 0x02da}, {0x02dc, 0x02dc}, {0x0304, 0x0304}, {0x0308, 0x0308}, {0x0329, 0x0329},
		{0x2000, 0x206f}, {0x20ac, 0x20ac}, {0x2122, 0x2122}, {0x2191, 0x2191}, {0x2193, 0x2193},
		{0x2212, 0x2212}, {0x2215, 0x2215}, {0xfeff, 0xfeff}, {0xfffd, 0xfffd},
	}
)

func (f Face) ranges() [][2]rune {
	if f.Extended {
		return extended
	}
	return basic
}

// Range gives the CSS unicode-range of the file.
func (f Face) Range() string { return unicodeRange(f.ranges()) }

// Holds reports whether the file may have a character.
func (f Face) Holds(r rune) bool {
	return slices.ContainsFunc(f.ranges(), func(x [2]rune) bool { return r >= x[0] && r <= x[1] })
}

// unicodeRange gives ranges as CSS has them (CSS Fonts 4 §4.5).
func unicodeRange(rs [][2]rune) string {
	out := make([]string, len(rs))
	for i, r := range rs {
		if out[i] = fmt.Sprintf("U+%04X", r[0]); r[1] > r[0] {
			out[i] += fmt.Sprintf("-%04X", r[1])
		}
	}
	return strings.Join(out, ",")
}

// Faces lists every file.
var Faces = func() []Face {
	var fs []Face
	add := func(family, slug string, lo, hi int, italic bool) {
		style := "normal"
		if italic {
			style = "italic"
		}
		weight := "wght"
		if lo == hi {
			weight = fmt.Sprint(lo)
		}
		for _, subset := range []string{"latin", "latin-ext"} {
			fs = append(
				fs,
				Face{
					family,
					fmt.Sprintf("%s-%s-%s-%s.woff2", slug, subset, weight, style),
					italic,
					[2]int{lo, hi},
					subset == "latin-ext",
				},
			)
		}
	}
	add("Hanken Grotesk", "hanken-grotesk", 100, 900, false)
	add("Hanken Grotesk", "hanken-grotesk", 100, 900, true)
	add("Bricolage Grotesque", "bricolage-grotesque", 200, 800, false)
	add("Source Serif 4", "source-serif-4", 200, 900, false)
	add("Source Serif 4", "source-serif-4", 200, 900, true)
	add("Fraunces", "fraunces", 100, 900, false)
	add("Fraunces", "fraunces", 100, 900, true)
	add("Figtree", "figtree", 300, 900, false)
	add("Figtree", "figtree", 300, 900, true)
	add("Lora", "lora", 400, 700, false)
	add("Lora", "lora", 400, 700, true)
	add("Oswald", "oswald", 200, 700, false)
	add("Caveat", "caveat", 400, 700, false)
	add("DM Serif Display", "dm-serif-display", 400, 400, false)
	add("DM Serif Display", "dm-serif-display", 400, 400, true)
	for _, w := range []int{400, 700} {
		add("Atkinson Hyperlegible", "atkinson-hyperlegible", w, w, false)
		add("Atkinson Hyperlegible", "atkinson-hyperlegible", w, w, true)
	}
	add("IBM Plex Mono", "ibm-plex-mono", 400, 400, false)
	add("IBM Plex Mono", "ibm-plex-mono", 600, 600, false)
	return fs
}()

// Needed gives the files that words need which are set in families and styles as
// used tells. Where a family has no italic, its upright files stand in.
func Needed(used func(family string, italic bool) bool) []Face {
	italics := map[string]bool{}
	for _, f := range Faces {
		italics[f.Family] = italics[f.Family] || f.Italic
	}
	var out []Face
	for _, f := range Faces {
		if used(f.Family, f.Italic) || !italics[f.Family] && used(f.Family, true) {
			out = append(out, f)
		}
	}
	return out
}

// Library gives every shipped face, loaded once.
var Library = sync.OnceValues(Load)

// Load loads every shipped face into a new library.
func Load() (*shape.Library, error) {
	lib := shape.NewLibrary()
	for _, f := range Faces {
		b, err := sfnt(f.File)
		if err != nil {
			return nil, err
		}
		if err := lib.Add(f.Family, f.Italic, f.Weights, b); err != nil {
			return nil, fmt.Errorf("loading font %s: %w", f.File, err)
		}
	}
	return lib, nil
}

var unpacked sync.Map // file name to SFNT

func sfnt(file string) ([]byte, error) {
	if b, ok := unpacked.Load(file); ok {
		return b.([]byte), nil
	}
	b, err := Files.ReadFile("files/" + file)
	if err == nil {
		b, err = MetricsSFNT(b)
	}
	if err != nil {
		return nil, fmt.Errorf("loading font %s: %w", file, err)
	}
	unpacked.Store(file, b)
	return b, nil
}
