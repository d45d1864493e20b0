package dns

import (
	"errors"
	"path/filepath"
	"strings"
	"testing"

	"openplot/core/doc"
)

func TestCheck(t *testing.T) {
	s := &StandIn{File: filepath.Join(t.TempDir(), "dns.json")}
	ok := func() (out []bool) {
		t.Helper()
		records, err := Check(t.Context(), s, "www.skerry.example", "openplot-1", "skerry.pages.example")
		if err != nil || len(records) != 2 || records[0].Type != "CNAME" ||
			records[1].Name != "_openplot.www.skerry.example" {
			t.Fatalf("%+v, %v", records, err)
		}
		return []bool{records[0].OK, records[1].OK}
	}
	set := func(kind, name, value string) {
		t.Helper()
		if err := s.Set(kind, name, value); err != nil {
			t.Fatal(err)
		}
	}
	if got := ok(); got[0] || got[1] {
		t.Error("found without records")
	}
	set("CNAME", "www.skerry.example", "elsewhere.example.")
	set("TXT", "_openplot.www.skerry.example", "openplot-1")
	if got := ok(); got[0] || !got[1] {
		t.Errorf("%v", got)
	}
	set("CNAME", "WWW.skerry.example", "Skerry.pages.example.")
	again := &StandIn{File: s.File} // as after a restart
	if records, err := Check(t.Context(), again, "www.skerry.example", "openplot-1", "skerry.pages.example"); err != nil ||
		!records[0].OK ||
		!records[1].OK {
		t.Errorf("%+v, %v", records, err)
	}
	set("TXT", "_openplot.www.skerry.example", "")
	if got := ok(); !got[0] || got[1] {
		t.Errorf("%v", got)
	}
}

func TestReadHost(t *testing.T) {
	for in, want := range map[string]string{
		"www.skerry.example": "www.skerry.example", " HTTPS://Skerry.Example/ ": "skerry.example", "fähre.example": "xn--fhre-loa.example", "skerry.example.": "skerry.example",
	} {
		if got, err := ReadHost(in); err != nil || got != want {
			t.Errorf("%q: %q, %v", in, got, err)
		}
	}
	for _, bad := range []string{"", "skerry", "a b.example", "skerry.example/prices", "-a.example", "skerry.example:8080", "127.0.0.1", "a..example", strings.Repeat("a.", 120) + "example", "*.example"} {
		var p *doc.Problem
		if got, err := ReadHost(bad); !errors.As(err, &p) || p.Field != "Domain" {
			t.Errorf("%q: %q, %v", bad, got, err)
		}
	}
}
