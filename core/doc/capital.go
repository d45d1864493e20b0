package doc

import (
	"unicode"
	"unicode/utf8"
)

// Capital gives words with a capital at their beginning.
func Capital(words string) string {
	first, size := utf8.DecodeRuneInString(words)
	if size == 0 {
		return words
	}
	return string(unicode.ToTitle(first)) + words[size:]
}
