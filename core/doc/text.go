package doc

import (
	"strings"
	"unicode"
	"unicode/utf8"
)

// Lines checks text of several lines. Errors are *Problem.
func Lines(field, v string, limit int) (string, error) {
	lines := strings.Split(strings.ReplaceAll(strings.TrimSpace(v), "\r\n", "\n"), "\n")
	for i, l := range lines {
		var err error
		if lines[i], err = Line(field, l, 300); err != nil {
			return "", err
		}
	}
	if len(lines) > limit {
		return "", Problemf(field, "has %d lines; write at most %d", len(lines), limit)
	}
	return strings.Join(lines, "\n"), nil
}

// Line checks a line of text: valid, of a bounded length in characters, without control
// characters. Errors are *Problem.
func Line(field, v string, limit int) (string, error) {
	v = strings.TrimSpace(v)
	if !utf8.ValidString(v) {
		return "", Problemf(field, "isn't valid UTF-8 text; enter it again")
	}
	if n := utf8.RuneCountInString(v); n > limit {
		return "", Problemf(field, "has %d characters; write at most %d", n, limit)
	}
	if strings.ContainsFunc(v, unicode.IsControl) {
		return "", Problemf(field, "holds control characters; write it on one line")
	}
	return v, nil
}

// maxID is how many characters an id has at most.
const maxID = 40

// IsID reports whether text can be the id of a node, a zone or a medium: a small letter, then
// small letters, digits, underscores and hyphens.
func IsID(text string) bool {
	for i := range len(text) {
		c := text[i]
		if letter := 'a' <= c && c <= 'z'; !letter && (i == 0 || !('0' <= c && c <= '9' || c == '_' || c == '-')) {
			return false
		}
	}
	return text != "" && len(text) <= maxID
}
