// Package fonts holds the font files that ship with Open Plot.
//
// The files come from the npm registry's font packages (bin/vendor); each
// family's licence lies beside them. Faces lists what there is; Library loads
// all of it for shaping.
package fonts

import (
	"embed"
	"fmt"
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

// Range gives the CSS unicode-range of the file.
func (f Face) Range() string {
	if f.Extended {
		return "U+0100-0130,U+0132-0151,U+0154-02BA,U+02BD-02C5,U+02C7-02CC,U+02CE-02D7,U+02DD-02FF,U+1D00-1DBF,U+1E00-1E9F,U+1EF2-1EFF,U+20A0-20AB,U+20AD-20C0,U+2113,U+2C60-2C7F,U+A720-A7FF"
	}
	return "U+0000-00FF,U+0131,U+0152-0153,U+02BB-02BC,U+02C6,U+02DA,U+02DC,U+0304,U+0308,U+0329,U+2000-206F,U+20AC,U+2122,U+2191,U+2193,U+2212,U+2215,U+FEFF,U+FFFD"
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
