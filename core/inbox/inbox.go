// Package inbox says what is known of what visitors send with forms: who it is from and what about, in
// one line each, and whether a program may have sent it.
package inbox

import (
	"net/mail"
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"
)

// Answer is what was entered into one field of a form.
type Answer struct {
	Field string `json:"field"`
	Value string `json:"value"`
}

// Summary is an entry in a list.
type Summary struct {
	Who     string // a name as a rule; "" where nothing was entered that could be one
	Words   string // on one line, or ""
	Address string // where to answer, or ""
}

// longestName is as many characters as a name has at most, to be taken for one.
const longestName = 60

// longestWords is as many characters as are shown of what was entered.
const longestWords = 160

// Summarise takes for the name what was entered first of what may be one, for where to answer the first
// address, and for what it is about the longest of the rest. Labels tell nothing: they are in any language.
func Summarise(answers []Answer) (s Summary) {
	name, address, about := -1, -1, -1
	for i, a := range answers {
		switch value := strings.TrimSpace(a.Value); {
		case value == "":
		case address < 0 && Address(value) != "":
			address, s.Address = i, Address(value)
		case name < 0 && mayBeName(value):
			name, s.Who = i, value
		}
	}
	for i, a := range answers {
		if i != name && i != address && (about < 0 || len(a.Value) > len(answers[about].Value)) {
			about = i
		}
	}
	if about >= 0 {
		s.Words = shortened(strings.Join(strings.Fields(answers[about].Value), " "))
	}
	return s
}

// mayBeName reports whether something is a few words, of letters but for a sign or two.
func mayBeName(value string) bool {
	return utf8.RuneCountInString(value) <= longestName && !strings.ContainsAny(value, "\r\n@/:?!") &&
		strings.IndexFunc(value, unicode.IsLetter) >= 0 && strings.IndexFunc(value, unicode.IsDigit) < 0
}

func shortened(s string) string {
	if r := []rune(s); len(r) > longestWords {
		return strings.TrimSpace(string(r[:longestWords-1])) + "…"
	}
	return s
}

// Address reads an address on its own, such as somebody@example.org (RFC 5321 §4.1.2), or gives "".
func Address(s string) string {
	s = strings.TrimSpace(s)
	a, err := mail.ParseAddress(s)
	if err != nil || a.Address != s || len(s) > 254 || strings.ContainsFunc(s, unicode.IsControl) {
		return ""
	}
	return s
}

// Words parts what is looked for into words as entries are found by: of letters and digits, as many as
// are looked for at once.
func Words(find string) []string {
	words := split(find)
	return slices.Clip(words[:min(len(words), mostWords)])
}

// split parts text into words of letters and digits, small.
func split(s string) []string {
	return strings.FieldsFunc(
		strings.ToLower(s),
		func(r rune) bool { return !unicode.IsLetter(r) && !unicode.IsDigit(r) },
	)
}

const mostWords = 12
