package fonts

import (
	"fmt"
	"slices"
	"strings"
	"unicode"
)

// Scripts tells which characters a page needs whose words these are: those of every
// script in them (Unicode Standard Annex 24) and, always, of Latin as western languages
// write it, with the signs and digits that all share. The key is alike for the same
// scripts.
func Scripts(words string) (keep func(rune) bool, key string) {
	var tables []*unicode.RangeTable
	seen := map[string]bool{}
	for _, r := range words {
		if r < 0x250 {
			seen["extended"] = seen["extended"] || r > 0xff && unicode.IsLetter(r)
			continue
		}
		for name, table := range unicode.Scripts {
			if !seen[name] && unicode.Is(table, r) {
				seen[name] = true
				tables = append(tables, table)
			}
		}
	}
	latin := Face{}
	for _, f := range Faces { // the ranges of shipped files, of which the first is basic Latin
		if !f.Extended {
			latin = f
			break
		}
	}
	basic := ranges(latin.Range())
	keep = func(r rune) bool {
		if inRanges(basic, r) || seen["extended"] && r < 0x250 {
			return true
		}
		return unicode.IsOneOf(tables, r)
	}
	var names []string
	for name, is := range seen {
		if is {
			names = append(names, name)
		}
	}
	slices.Sort(names)
	return keep, strings.Join(names, " ")
}

// ranges reads a CSS unicode-range.
func ranges(css string) (out [][2]rune) {
	for _, part := range strings.Split(css, ",") {
		var lo, hi rune
		part = strings.TrimPrefix(strings.TrimSpace(part), "U+")
		if n, _ := fmt.Sscanf(part, "%x-%x", &lo, &hi); n == 1 {
			hi = lo
		}
		out = append(out, [2]rune{lo, hi})
	}
	return out
}

func inRanges(rs [][2]rune, r rune) bool {
	for _, x := range rs {
		if r >= x[0] && r <= x[1] {
			return true
		}
	}
	return false
}
