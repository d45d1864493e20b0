package shape

import (
	"encoding/base64"
	"strings"
	"unicode"

	"github.com/go-text/typesetting/segmenter"
)

// asciiPairs has a bit for each pair of the 94 printable ASCII characters: 1
// where Chromium allows a line break between them. Measured in Chromium 156 by
// setting every pair in a box of no width; it differs from plain UAX 14 on 405
// pairs (no break after "/" in addresses, nor after "!", "|" or "}" before
// letters and digits; a break before an opening bracket after some signs).
var asciiPairs = func() []byte {
	b, err := base64.StdEncoding.DecodeString(strings.Join([]string{
		"gAAACAAAAAQAAAAEIAAAAgAAAAEAAAABCACAAAAAQAAAAEAAAAAAAAAAAAAAAACAAAAIAAAABAAAAAQgAAACAAAAAQAAAAEAAAAAAAAAAAAAAAAAAAAAAAAA",
		"AAAAAIAAAAgAAAAEAAAABCAAAAIAAAABAAAAAQgAgAAAAEAAAABAAAIAIAAAABAAAAAQ9pb/uf///+////8vIAAAAgAAAAEAAAABAAAAAAAAAAAAAAAAAAAA",
		"AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA",
		"AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAIAAAAgAAAAEAAAABCACAAAAAQAAAAEAAAAAAAAAAAAAAAACAAAAIAAAABAAAAAQgAAACAAAAAQAAAMFr+Z/7////",
		"/v///wIAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA",
		"AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA",
		"AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA",
		"AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAIAIAAAABAAAAAQgAAACAAAAAQAAAAEAAAA",
		"AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA",
		"AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA",
		"AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA",
		"AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAACACAAAAAQAAAA",
		"EIAAAAgAAAAEAAAABCAAAAIAAAABAAAAAQ==",
	}, ""))
	if err != nil {
		panic(err) // the table above is constant
	}
	return b
}()

// breakOpportunities tells for each index of the text, and its end, whether a
// line may begin there: UAX 14 as the segmenter has it, but between two
// printable ASCII characters as measured.
func breakOpportunities(text []rune) []bool {
	ok := make([]bool, len(text)+1)
	var seg segmenter.Segmenter
	seg.Init(text)
	for it := seg.LineIterator(); it.Next(); {
		l := it.Line()
		ok[l.Offset+len(l.Text)] = true
	}
	for i := 1; i < len(text); i++ {
		a, b := text[i-1], text[i]
		if a == ' ' && b != ' ' {
			ok[i] = true
			continue
		}
		if (a == hyphen || a == enDash) && (unicode.IsLetter(b) || unicode.Is(unicode.So, b) || b == '§') &&
			(i == 1 || text[i-2] == ' ') {
			ok[i] = false // a word's first hyphen stays with it (UAX 14 LB20a; the dash as measured)
			continue
		}
		if a <= ' ' || a > '~' || b <= ' ' || b > '~' {
			continue
		}
		k := int(a-'!')*94 + int(b-'!')
		ok[i] = asciiPairs[k>>3]>>(k&7)&1 == 1
		if a == '-' && b >= '0' && b <= '9' {
			ok[i] = i > 1 && asciiAlphanumeric(text[i-2])
		}
	}
	ok[len(text)] = true
	return ok
}

func asciiAlphanumeric(r rune) bool {
	return r >= '0' && r <= '9' || r >= 'a' && r <= 'z' || r >= 'A' && r <= 'Z'
}
