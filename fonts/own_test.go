package fonts

import (
	"errors"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/shape"
)

// A font that doesn't ship with Open Plot: TrueType, with hints and kerning, from
// Debian's fonts-liberation.
func liberation(t testing.TB) []byte {
	t.Helper()
	b, err := os.ReadFile("/usr/share/fonts/truetype/liberation/LiberationSerif-Regular.ttf")
	if err != nil {
		t.Skip("fonts-liberation isn't installed (bin/test does that)")
	}
	return b
}

// A font with CFF outlines, from the tests of the package that reads fonts.
func garamond(t testing.TB) []byte {
	t.Helper()
	dir, err := exec.Command("go", "list", "-m", "-f", "{{.Dir}}", "github.com/tdewolff/font").Output()
	if err != nil {
		t.Fatal(err)
	}
	b, err := os.ReadFile(filepath.Join(strings.TrimSpace(string(dir)), "resources", "EBGaramond12-Regular.otf"))
	if err != nil {
		t.Fatal(err)
	}
	return b
}

func shipped(t testing.TB, name string) []byte {
	t.Helper()
	b, err := Files.ReadFile("files/" + name)
	if err != nil {
		t.Fatal(err)
	}
	return b
}

func TestReadOwn(t *testing.T) {
	for _, c := range []struct {
		name    string
		file    []byte
		family  string
		italic  bool
		weights [2]int
	}{
		{"TTF", liberation(t), "Liberation Serif", false, [2]int{400, 400}},
		{"OTF", garamond(t), "EB Garamond", false, [2]int{400, 400}},
		{"variable WOFF2", shipped(t, "hanken-grotesk-latin-wght-normal.woff2"), "Hanken Grotesk", false, [2]int{100, 900}},
		{"italic WOFF2", shipped(t, "dm-serif-display-latin-400-italic.woff2"), "DM Serif Display", true, [2]int{400, 400}},
	} {
		o, err := readOwn(c.file)
		if err != nil {
			t.Errorf("%s: %v", c.name, err)
			continue
		}
		if o.Family != c.family || o.Italic != c.italic || o.Weights != c.weights {
			t.Errorf("%s: %q, italic %v, weights %v", c.name, o.Family, o.Italic, o.Weights)
		}
	}
}

// measured gives the widths of lines of text set in a font.
func measured(t *testing.T, sfnt []byte, weights [2]int, weight int, texts ...string) (out []float64) {
	t.Helper()
	woff2, err := Pack(sfnt, Quick)
	if err != nil {
		t.Fatal(err)
	}
	metrics, err := MetricsSFNT(woff2)
	if err != nil {
		t.Fatal(err)
	}
	lib := shape.NewLibrary()
	if err := lib.Add("Own", false, weights, metrics); err != nil {
		t.Fatal(err)
	}
	for _, text := range texts {
		p := lib.Paragraph(
			[]shape.Run{{Text: text, Faces: lib.Faces("Own", weight, false), Size: 40, LineHeight: math.NaN()}},
		)
		out = append(out, p.MaxContent())
	}
	return out
}

func TestBadFonts(t *testing.T) {
	good := liberation(t)
	restricted := append([]byte(nil), good...)
	for i := range 20 { // OS/2's entry in the table of tables
		at := 12 + 16*i
		if string(restricted[at:at+4]) == "OS/2" {
			off := int(
				restricted[at+8],
			)<<24 | int(
				restricted[at+9],
			)<<16 | int(
				restricted[at+10],
			)<<8 | int(
				restricted[at+11],
			)
			restricted[off+9] = 2 // fsType
		}
	}
	for name, b := range map[string][]byte{
		"empty": nil, "text": []byte("not a font at all, just some words"), "a collection": append(
			[]byte("ttcf"), good[4:]...,
		), "cut off": good[:len(good)/3], "restricted": restricted,
		"WOFF2 cut off": shipped(t, "caveat-latin-wght-normal.woff2")[:900], "too large": append(
			append([]byte(nil), good...),
			make([]byte, MaxOwnBytes)...,
		), "head alone": good[:12],
	} {
		o, err := readOwn(b)
		var p *doc.Problem
		if !errors.As(err, &p) || p.Field != "Font" {
			t.Errorf("%s: %+v, %v", name, o, err)
		}
	}
}

func TestFamilyName(t *testing.T) {
	for name, want := range map[string]string{
		"Marlin Text": "Marlin Text", "Serif": "", "sans-serif": "", `x";}</style>`: "xstyle", "  A\tB ": "AB", "": "",
	} {
		if got := FamilyName(name); got != want {
			t.Errorf("%q gives %q, want %q", name, got, want)
		}
	}
}

func FuzzOwn(f *testing.F) {
	b := shipped(f, "caveat-latin-wght-normal.woff2")
	f.Add(b)
	f.Add(b[:len(b)/2])
	f.Fuzz(func(t *testing.T, b []byte) {
		o, err := readOwn(b)
		if err != nil {
			var p *doc.Problem
			if !errors.As(err, &p) {
				t.Fatal(err)
			}
			return
		}
		_, _ = Cut(t.Context(), o.SFNT, Want{}) // an error, or a font; no panic
	})
}
