package phrase

import (
	"strings"
	"testing"
)

// Every language says everything, with as much to be filled in as English has, and no two languages are one.
func TestEveryLanguageSaysEverything(t *testing.T) {
	if len(books) != len(languages) {
		t.Fatalf("%d books of %d languages", len(books), len(languages))
	}
	for i, tag := range languages {
		same := 0
		for k := range count {
			said, english := books[i][k], books[0][k]
			if said == "" || strings.Count(said, "%") != strings.Count(english, "%s") ||
				strings.Count(said, "%s") != strings.Count(english, "%s") ||
				strings.HasPrefix(said, " ") != strings.HasPrefix(english, " ") ||
				strings.HasSuffix(said, ".") != strings.HasSuffix(english, ".") {
				t.Errorf("%s of %d: %q", tag, k, said)
			}
			if i > 0 && said == english {
				same++
			}
		}
		if same > 2 {
			t.Errorf("%s says %d phrases in English", tag, same)
		}
	}
}

// A language is found by its tag and its region's, and English stands for those that aren't here.
func TestIn(t *testing.T) {
	for tag, want := range map[string]string{
		"en": "Thank you", "": "Thank you", "de": "Danke", "de-AT": "Danke", "fr-CA": "Merci", "no": "Takk", "nn": "Takk", "xx": "Thank you", "ja": "Thank you",
	} {
		if got := In(tag).Say(Thanks); got != want {
			t.Errorf("%q: %q, want %q", tag, got, want)
		}
	}
	if got := In("de").Say(Short, "5"); got != "Bitte mindestens 5 Zeichen schreiben." {
		t.Error(got)
	}
}
