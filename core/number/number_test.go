package number

import (
	"math"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
)

func TestReal(t *testing.T) {
	for text, want := range map[string]float64{"0": 0, "-0": 0, "+1.5": 1.5, ".5": .5, "1e3": 1000, "-2.": -2, "1000000000": 1e9, "1e-400": 0} {
		if got, err := Real(text); err != nil || got != want || math.Signbit(got) != (want < 0) {
			t.Errorf("%q: %v, %v", text, got, err)
		}
	}
	for _, text := range []string{"", "NaN", "nan", "Inf", "-Inf", "+infinity", "1e308", "1e309", "-1e10", "0x10", "1_000", "0x1p-2", " 1", "1 ", "1,5", "1e", "--1", "٣", "1\x00"} {
		if got, err := Real(text); err == nil {
			t.Errorf("%q is %v", text, got)
		}
	}
	if _, err := Between("4", 5, 9); err == nil || err.Error() != "write a number from 5 to 9" {
		t.Error(err)
	}
}

func TestWhole(t *testing.T) {
	for text, want := range map[string]int{"0": 0, "-0": 0, "+7": 7, "-1000000000": -1e9} {
		if got, err := Whole(text); err != nil || got != want {
			t.Errorf("%q: %v, %v", text, got, err)
		}
	}
	for _, text := range []string{"", "1.5", "1e3", "99999999999", "99999999999999999999999", "NaN", "0x1", "1_0", " 1"} {
		if got, err := Whole(text); err == nil {
			t.Errorf("%q is %v", text, got)
		}
	}
	for _, text := range []string{"-1", "9007199254740992", "9223372036854775808", "1e3", ""} {
		if got, err := Sequence(text); err == nil {
			t.Errorf("%q is %v", text, got)
		}
	}
	if n, err := Sequence("9007199254740991"); err != nil || n != MaxSequence {
		t.Error(n, err)
	}
}

func FuzzReal(f *testing.F) {
	for _, s := range []string{"1", "NaN", "1e9", "-0", "1e308"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, text string) {
		if v, err := Real(text); err == nil && !(math.Abs(v) <= Greatest) {
			t.Errorf("%q is %v", text, v)
		}
	})
}

// Numbers are parsed here and nowhere else, but for what operators set and what the tools of the
// project read.
func TestNumbersAreParsedHere(t *testing.T) {
	parses := regexp.MustCompile(`strconv\.(ParseFloat|ParseInt|ParseUint|Atoi)|fmt\.Sscan`)
	root := "../.."
	elsewhere := map[string]string{
		"cmd":                   "settings and tools",
		"core/number":           "here",
		"site/weigh.go":         "ranges of shipped fonts, in base 16",
		"core/colour/colour.go": "digits of colours, in base 16",
		"fonts/scripts.go":      "ranges of shipped fonts",
		"postgres":              "ids of processes",
		"e2e/node_modules":      "",
	}
	err := filepath.WalkDir(root, func(name string, e os.DirEntry, err error) error {
		if err != nil {
			return err
		}
		rel, _ := filepath.Rel(root, name)
		if _, ok := elsewhere[filepath.ToSlash(rel)]; ok && e.IsDir() || e.Name() == ".git" || e.Name() == ".data" {
			return filepath.SkipDir
		}
		if _, ok := elsewhere[filepath.ToSlash(rel)]; ok || e.IsDir() || filepath.Ext(name) != ".go" ||
			strings.HasSuffix(name, "_test.go") {
			return nil
		}
		b, err := os.ReadFile(name)
		if found := parses.Find(b); found != nil {
			t.Errorf("%s has %s: read numbers with this package", rel, found)
		}
		return err
	})
	if err != nil {
		t.Fatal(err)
	}
}
