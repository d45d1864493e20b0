package inbox

import (
	"strings"
	"testing"
)

// What is taken for a name, an address and what it is about, in any language and order of fields.
func TestSummarise(t *testing.T) {
	fields := func(values ...string) (as []Answer) {
		for _, v := range values {
			as = append(as, Answer{Field: "x", Value: v})
		}
		return as
	}
	for _, tt := range []struct {
		answers []Answer
		want    Summary
	}{
		{nil, Summary{}},
		{fields("", " ", "\n"), Summary{}},
		{fields("Ida Berg", "ida@berg.example", "2026-12-05", "Two bicycles\r\nto Langey"), Summary{"Ida Berg", "Two bicycles to Langey", "ida@berg.example"}},
		{fields(" mo@lind.example "), Summary{"", "", "mo@lind.example"}},
		{fields("Где лодка?", "Ольга Петрова", "olga@lodka.example"), Summary{"Ольга Петрова", "Где лодка?", "olga@lodka.example"}},
		{fields("555 0100", "a@b@c", "https://x.example/"), Summary{"", "https://x.example/", ""}},
		{fields("Ida", "ida@berg.example", "office@berg.example"), Summary{"Ida", "office@berg.example", "ida@berg.example"}},
		{fields("A", strings.Repeat("ö", 200)), Summary{"A", strings.Repeat("ö", 159) + "…", ""}},
	} {
		if got := Summarise(tt.answers); got != tt.want {
			t.Errorf("%v: %+v, want %+v", tt.answers, got, tt.want)
		}
	}
}

// Words are what entries are found by, whatever stands between them: nothing else reaches a query.
func TestWords(t *testing.T) {
	for find, want := range map[string]string{
		"":                              "",
		"  Ida  Berg ":                  "ida berg",
		"ida@berg.example":              "ida berg example",
		"O'Neil & (Søn) | !x:* \\ '' -": "o neil søn x",
		strings.Repeat("w ", 40):        strings.TrimSpace(strings.Repeat("w ", 12)),
		"日本 12:30":                      "日本 12 30",
	} {
		if got := strings.Join(Words(find), " "); got != want {
			t.Errorf("%q: %q, want %q", find, got, want)
		}
	}
}
