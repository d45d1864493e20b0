package visitors

import (
	"openplot/core/inbox"
	"strings"
	"testing"
	"unicode/utf8"

	"openplot/core/element"
)

// Whatever a form sends is read to text that a database takes, within the limits.
func FuzzReadAnswers(f *testing.F) {
	f.Add("Your+name=A+%26+B&Which=one&Day=&Which=two&%zz=1&=x")
	f.Add("a%00=%ff&_took=1&_homepage=x")
	f.Fuzz(func(t *testing.T, sent string) {
		answers, ok := readAnswers(sent)
		if !ok {
			return
		}
		rest, _ := inbox.Sort(answers, []string{"a", element.FormTrap})
		if len(rest) > len(answers) || len(answers) > maxFormFields {
			t.Errorf("%d answers of %d", len(rest), len(answers))
		}
		for _, a := range answers {
			for _, text := range []string{a.Field, a.Value} {
				if !utf8.ValidString(text) || strings.ContainsRune(text, 0) {
					t.Errorf("%q", text)
				}
			}
		}
	})
}
