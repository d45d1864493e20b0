package fonts

import (
	"encoding/binary"
	"errors"
	"strings"
	"unicode"
	"unicode/utf8"

	sfntfont "github.com/tdewolff/font"

	"openplot/core/doc"
	"openplot/core/shape"
)

// MaxOwnBytes is the greatest size of an uploaded font file.
const MaxOwnBytes = 4 << 20

// Own is an uploaded font, checked.
type Own struct {
	Family  string // by the name it gives itself
	Italic  bool
	Weights [2]int // least and greatest; alike for a static font
	SFNT    []byte // as TrueType or OpenType
}

const ownField = "Font"

// readOwn checks a WOFF2, WOFF, TrueType or OpenType file. Errors are *doc.Problem.
func readOwn(file []byte) (o *Own, err error) {
	defer func() { // the parsers are not ours, and files may be hostile
		if r := recover(); r != nil {
			o, err = nil, doc.Problemf(ownField, "is damaged and can't be read; export it again and upload that")
		}
	}()
	if len(file) > MaxOwnBytes {
		return nil, doc.Problemf(
			ownField, "has %.1f MB; upload at most %d MB, one weight or one variable font a file",
			float64(len(file))/(1<<20),
			MaxOwnBytes>>20,
		)
	}
	if len(file) < 12 {
		return nil, doc.Problemf(ownField, "is empty or cut off")
	}
	switch string(file[:4]) {
	case "wOF2":
		if _, err := MetricsSFNT(file); err != nil { // bounds what it unpacks to
			return nil, doc.Problemf(ownField, "is damaged: %v", err)
		}
	case "wOFF":
		if n, err := woffSize(file); err != nil || n > maxFontSize {
			return nil, errors.Join(
				err,
				doc.Problemf(
					ownField,
					"unpacks to more than %d MB: upload it as WOFF2, with fewer scripts",
					maxFontSize>>20,
				),
			)
		}
	case "\x00\x01\x00\x00", "true", "OTTO":
	case "ttcf":
		return nil, doc.Problemf(ownField, "is a collection of several fonts: upload one of them")
	default:
		return nil, doc.Problemf(ownField, "isn't a font that browsers can read: upload WOFF2, WOFF, TTF or OTF")
	}
	raw, err := sfntfont.ToSFNT(file)
	if err != nil {
		return nil, doc.Problemf(ownField, "is damaged: %v", err)
	}
	if hasTable(raw, "CFF2") {
		return nil, doc.Problemf(
			ownField,
			"is variable and has outlines as CFF2, which can't be laid out here: upload the TrueType (TTF) one, or single weights",
		)
	}
	f, err := sfntfont.ParseSFNT(raw, 0)
	if err != nil {
		return nil, doc.Problemf(ownField, "is damaged: %v", err)
	}
	if f.OS2 == nil || f.Cmap == nil || !f.IsTrueType && !f.IsCFF {
		return nil, doc.Problemf(ownField, "has no outlines, or lacks tables that browsers need")
	}
	// OpenType 1.9.1, OS/2: bits 0 to 3 of fsType; 2 alone is a restricted licence.
	if f.OS2.FsType&0xf == 2 {
		return nil, doc.Problemf(
			ownField,
			"says that its licence forbids embedding: ask whoever makes it for a web licence",
		)
	}
	o = &Own{
		Family:  ownFamily(f),
		Italic:  f.OS2.FsSelection&1 != 0,
		Weights: [2]int{int(f.OS2.UsWeightClass), int(f.OS2.UsWeightClass)},
	}
	if lo, hi, ok := weightAxis(f.Tables["fvar"]); ok {
		o.Weights = [2]int{lo, hi}
	}
	if o.Weights[0] < 1 || o.Weights[1] > 1000 || o.Weights[0] > o.Weights[1] {
		o.Weights = [2]int{400, 400}
	}
	o.SFNT = raw
	// What layout will do with it.
	if err := shape.NewLibrary().Add("Own", o.Italic, o.Weights, raw); err != nil {
		return nil, doc.Problemf(ownField, "is damaged: %v", err)
	}
	return o, nil
}

// woffSize is what the tables of a WOFF file say that they unpack to in all, in bytes (WOFF File
// Format 1.0 §3 and §4).
func woffSize(file []byte) (n int64, err error) {
	const header, entry = 44, 20
	if len(file) < header {
		return 0, doc.Problemf(ownField, "is empty or cut off")
	}
	for i := range int(binary.BigEndian.Uint16(file[12:])) {
		at := header + i*entry
		if at+entry > len(file) {
			return 0, doc.Problemf(ownField, "is damaged: its list of tables is cut off")
		}
		n += int64(binary.BigEndian.Uint32(file[at+12:]))
	}
	return n, nil
}

// hasTable reports whether an SFNT's directory has a table.
func hasTable(sfnt []byte, tag string) bool {
	for i := range int(binary.BigEndian.Uint16(sfnt[4:])) {
		if at := 12 + 16*i; at+16 <= len(sfnt) && string(sfnt[at:at+4]) == tag {
			return true
		}
	}
	return false
}

// ownFamily is the typographic family name (OpenType 1.9.1, name ids 16 and 1).
func ownFamily(f *sfntfont.SFNT) string {
	if f.Name != nil {
		for _, id := range []sfntfont.NameID{sfntfont.NamePreferredFamily, sfntfont.NameFontFamily} {
			for _, r := range f.Name.Get(id) {
				if n := FamilyName(r.String()); n != "" {
					return n
				}
			}
		}
	}
	return "Own font"
}

// FamilyName makes a name that CSS takes as a family's, or "": letters, digits, spaces
// and hyphens, no longer than 40, and none that stands for a kind of font
// (CSS Fonts 4 §2.1).
func FamilyName(name string) string {
	name = strings.Map(func(r rune) rune {
		if r == utf8.RuneError || !unicode.IsLetter(r) && !unicode.IsDigit(r) && r != ' ' && r != '-' {
			return -1
		}
		return r
	}, name)
	name = strings.Join(strings.Fields(name), " ")
	if r := []rune(name); len(r) > 40 {
		name = strings.TrimSpace(string(r[:40]))
	}
	switch strings.ToLower(name) {
	case "serif",
		"sans-serif",
		"monospace",
		"cursive",
		"fantasy",
		"system-ui",
		"math",
		"emoji",
		"fangsong",
		"ui-serif",
		"ui-sans-serif",
		"ui-monospace",
		"ui-rounded",
		"inherit",
		"initial",
		"unset",
		"revert",
		"default":
		return ""
	}
	return name
}

// weightAxis reads the weights that a variable font has (OpenType 1.9.1, fvar).
func weightAxis(fvar []byte) (lo, hi int, ok bool) {
	if len(fvar) < 16 {
		return 0, 0, false
	}
	at, count, size := int(
		binary.BigEndian.Uint16(fvar[4:]),
	), int(
		binary.BigEndian.Uint16(fvar[8:]),
	), int(
		binary.BigEndian.Uint16(fvar[10:]),
	)
	for i := range count {
		axis := at + i*size
		if axis+20 > len(fvar) {
			return 0, 0, false
		}
		if string(fvar[axis:axis+4]) == "wght" {
			return int(
					binary.BigEndian.Uint32(fvar[axis+4:]) >> 16,
				), int(
					binary.BigEndian.Uint32(fvar[axis+12:]) >> 16,
				), true
		}
	}
	return 0, 0, false
}
