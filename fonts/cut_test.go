package fonts

import (
	"math"
	"testing"

	sfntfont "github.com/tdewolff/font"
)

// Text is as wide in a cut font as in the whole one, kerning included, at every weight that is
// wanted, and the file is smaller. A font whose weights are limited has its widths rounded to
// its own units, at most half of one a letter (OpenType 1.9.1, HVAR).
func TestCutsKeepWhatIsSeen(t *testing.T) {
	texts := []string{"AVATAR Wave To You", "Office fluffy 08:10", "Größe, façade — “quoted” €5", "fi fl ffi"}
	for _, c := range []struct {
		name    string
		file    []byte
		has     [2]int
		at      []int
		words   string
		weights [2]int
	}{
		{"Liberation Serif", liberation(t), [2]int{400, 400}, []int{400}, "Boats", [2]int{}},
		{"Liberation Serif with Greek", liberation(t), [2]int{400, 400}, []int{400}, "Boats, πλοία", [2]int{}},
		{"EB Garamond", garamond(t), [2]int{400, 400}, []int{400}, "Boats", [2]int{}},
		{"Hanken Grotesk", shipped(t, "hanken-grotesk-latin-wght-normal.woff2"), [2]int{100, 900}, []int{400, 550, 700}, "Boats", [2]int{400, 700}},
		{"Hanken Grotesk, extended", shipped(t, "hanken-grotesk-latin-ext-wght-normal.woff2"), [2]int{100, 900}, []int{100, 400, 900}, "Łódź", [2]int{}},
		{"Source Serif 4", shipped(t, "source-serif-4-latin-wght-normal.woff2"), [2]int{200, 900}, []int{400, 600}, "Boats", [2]int{400, 600}},
	} {
		sfnt, err := sfntfont.ToSFNT(c.file)
		if err != nil {
			t.Fatal(err)
		}
		said := append([]string{c.words}, texts...)
		all := ""
		for _, s := range said {
			all += s
		}
		small, err := Cut(t.Context(), sfnt, Want{Letters: Letters(all), Weights: c.weights})
		if err != nil {
			t.Fatalf("%s: %v", c.name, err)
		}
		part, err := sfntfont.ToSFNT(small)
		if err != nil {
			t.Fatal(err)
		}
		for _, w := range c.at {
			span := c.has
			if c.weights[1] > 0 {
				span = c.weights
			}
			want, got := measured(t, sfnt, c.has, w, said...), measured(t, part, span, w, said...)
			for i := range want {
				if off := math.Abs(want[i] - got[i]); off > 0.02*float64(len(said[i])) || c.weights[1] == 0 && off > 0 {
					t.Errorf("%s at %d: %q is %v px wide, cut %v", c.name, w, said[i], want[i], got[i])
				}
			}
		}
		t.Logf("%s: %d bytes, cut %d", c.name, len(c.file), len(small))
		if len(small)*4 > len(c.file)*3 {
			t.Errorf("%s: %d bytes, cut %d", c.name, len(c.file), len(small))
		}
	}
}

// Characters beside the usual ones are kept once, with their other case.
func TestLetters(t *testing.T) {
	for words, want := range map[string]string{
		"Boats sail at 08:10 – “all” of them": "", "Größe": "Ößö", "Cafe\u0301": "Éé\u0301", "Łódź łódź": "ÓóŁłŹź", "": "", "a\nb": "",
	} {
		if got := Letters(words); got != want {
			t.Errorf("%q: %q, want %q", words, got, want)
		}
	}
}

// Two files are of one name only when they are alike.
func TestCutsAreNamedByWhatIsInThem(t *testing.T) {
	face := Faces[0]
	seen := map[string]Want{}
	for _, w := range []Want{{}, {Weights: [2]int{400, 700}}, {Weights: [2]int{400, 400}}, {Letters: "é"}, {Letters: "é", Weights: [2]int{400, 700}}, {Letters: "é", Bare: true}} {
		name := face.CutName(w)
		file, err := face.Cut(t.Context(), w)
		if err != nil || len(file) == 0 {
			t.Fatal(err)
		}
		if other, is := seen[name]; is {
			t.Errorf("%v and %v are both %s", w, other, name)
		}
		seen[name] = w
	}
	if face.CutName(Want{Weights: [2]int{1, 1000}}) != face.CutName(Want{Weights: [2]int{50, 900}}) {
		t.Error("weights that it hasn't make another file")
	}
}

// As the examples of CSS Fonts 4 §4.5 have it.
func TestRanges(t *testing.T) {
	for characters, want := range map[string]string{"A": "U+0041", "abc": "U+0061-0063", "acbé": "U+0061-0063,U+00E9", "": ""} {
		if got := Ranges(characters); got != want {
			t.Errorf("%q: %s, want %s", characters, got, want)
		}
	}
}
