// Package found says how a page's title and description fit where search engines show them.
//
// In comes text; out come widths in px and what is seen of it. Widths are those of Arial, in
// which most of them set it, from the advance widths of Helvetica (Adobe Core 14 AFM files;
// from memory; the test has what Chromium measures in a font of the same metrics).
// Start at Title.
package found

import (
	"strings"
	"unicode"
	"unicode/utf8"

	"golang.org/x/text/unicode/norm"
)

// Sizes and rooms in px: common practice, measured on results as they are, not promised by
// anybody.
const (
	titleSize       = 20.0
	titleRoom       = 580
	descriptionSize = 14.0
	descriptionRoom = 920 // two lines
)

// advances are the widths of the characters from space to ~ in thousandths of the font size.
var advances = [...]int{
	278, 278, 355, 556, 556, 889, 667, 191, 333, 333, 389, 584, 278, 333, 278, 278,
	556, 556, 556, 556, 556, 556, 556, 556, 556, 556, 278, 278, 584, 584, 584, 556,
	1015, 667, 667, 722, 722, 667, 611, 778, 722, 278, 500, 667, 556, 833, 722, 778,
	667, 778, 722, 667, 611, 722, 667, 944, 667, 667, 611, 278, 278, 278, 469, 556,
	333, 556, 556, 500, 556, 556, 278, 556, 556, 222, 222, 500, 222, 833, 556, 556,
	556, 556, 333, 500, 278, 556, 500, 722, 500, 500, 500, 334, 260, 334, 584,
}

// further are those of other characters that titles have.
var further = map[rune]int{
	'–': 556, '—': 1000, '‘': 222, '’': 222, '“': 333, '”': 333, '…': 1000, '·': 333, '•': 350, '«': 556, '»': 556, 'ß': 611, 'æ': 889, 'œ': 944, 'ø': 611, 'Ø': 778,
	'Æ': 1000, 'Œ': 1000, 'ı': 278, '€': 556, '£': 556, '°': 400, '\u00a0': 278,
}

// wide are the scripts whose characters are as wide as the font is high.
var wide = []*unicode.RangeTable{unicode.Han, unicode.Hiragana, unicode.Katakana, unicode.Hangul}

// width gives the width of text in px at a size.
func width(text string, size float64) float64 {
	sum := 0
	for _, r := range norm.NFD.String(text) {
		switch w, known := further[r]; {
		case known:
			sum += w
		case r >= ' ' && int(r-' ') < len(advances):
			sum += advances[r-' ']
		case unicode.Is(unicode.Mn, r): // a mark above the letter before
		case unicode.IsOneOf(wide, r):
			sum += 1000
		default:
			sum += 556
		}
	}
	return float64(sum) * size / 1000
}

// Fit is how text fits where it is shown.
type Fit struct {
	Px, Room int    // how wide it is, and how wide it may be
	Seen     string // what is seen of it
}

// Over reports whether not all of it is seen.
func (f Fit) Over() bool { return f.Px > f.Room }

// Share is how much of the room it takes, in per cent, 100 at most.
func (f Fit) Share() int { return min(100, f.Px*100/f.Room) }

// Title tells how the title of a page fits.
func Title(text string) Fit { return fit(text, titleSize, titleRoom) }

// Description tells how the description of a page fits.
func Description(text string) Fit { return fit(text, descriptionSize, descriptionRoom) }

func fit(text string, size float64, room int) Fit {
	text = strings.Join(strings.Fields(text), " ")
	f := Fit{Px: int(width(text, size) + 0.5), Room: room, Seen: text}
	if !f.Over() {
		return f
	}
	for f.Seen != "" && width(f.Seen+" …", size) > float64(room) { // whole words, as long as there are any
		at := strings.LastIndexByte(f.Seen, ' ')
		if at < 0 {
			_, n := utf8.DecodeLastRuneInString(f.Seen)
			at = len(f.Seen) - n
		}
		f.Seen = f.Seen[:at]
	}
	f.Seen += " …"
	return f
}
