package fonts

import (
	"testing"

	"openplot/core/shape"
)

func file(t testing.TB, name string) []byte {
	t.Helper()
	b, err := Files.ReadFile("files/" + name)
	if err != nil {
		t.Fatal(err)
	}
	return b
}

func TestEveryShippedFaceLoads(t *testing.T) {
	lib, err := Library()
	if err != nil {
		t.Fatal(err)
	}
	for _, f := range Faces {
		if n := len(lib.Faces(f.Family, f.Weights[0], f.Italic)); n != 2 {
			t.Errorf("%s has %d files, want 2 (basic Latin and the rest)", f.File, n)
		}
	}
}

func TestTruncatedFontsAreRefused(t *testing.T) {
	b := file(t, "hanken-grotesk-latin-wght-normal.woff2")
	for n := 0; n < len(b); n += 97 {
		sfnt, err := MetricsSFNT(b[:n])
		if err != nil {
			continue
		}
		if err := shape.NewLibrary().Add("X", false, [2]int{400, 400}, sfnt); err == nil {
			t.Errorf("the first %d of %d bytes made a font", n, len(b))
		}
	}
}

func FuzzMetricsSFNT(f *testing.F) {
	b := file(f, "ibm-plex-mono-latin-400-normal.woff2")
	f.Add(b)
	f.Add(b[:200])
	f.Fuzz(func(t *testing.T, b []byte) {
		if sfnt, err := MetricsSFNT(b); err == nil {
			_ = shape.NewLibrary().Add("X", false, [2]int{400, 400}, sfnt) // must come back, well or not
		}
	})
}
