package doc

import "testing"

func TestCapital(t *testing.T) {
	for words, want := range map[string]string{
		"": "", "boats": "Boats", "“What they do” is still": "“What they do” is still", "über": "Über", "Ĳ": "Ĳ", "2 boats": "2 boats",
	} {
		if got := Capital(words); got != want {
			t.Errorf("%q: %q", words, got)
		}
	}
}
