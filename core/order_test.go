package core

import (
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"testing"
)

// order says of every package of core which of the others it may import, those above in this list
// first: nothing imports what comes after it.
var order = []struct{ name, imports string }{
	{"number", ""},
	{"policy", ""},
	{"value", ""},
	{"rights", ""},
	{"chart", ""},
	{"found", ""},
	{"inbox", "number"},
	{"visit", ""},
	{"phrase", ""},
	{"shape", ""},
	{"doc", "number"},
	{"colour", "number"},
	{"tree", "doc"},
	{"finding", "doc"},
	{"migrate", "doc"},
	{"place", "doc number value"},
	{"style", "colour doc number place value"},
	{"element", "chart colour doc inbox number phrase place style value"},
	{"compose", "doc element"},
	{"compare", "doc element"},
	{"emit", "doc element style"},
	{"layout", "doc element number shape style"},
	{"handle", "doc element layout place style value"},
	{"settings", "doc value"},
	{"ready", "compose doc element style tree value"},
	{"carry", "colour doc ready settings style tree"},
	{"edit", "carry colour doc element number place ready rights settings style tree value"},
	{"check", "chart colour doc edit element finding found layout number place ready style value"},
}

func TestOrderInside(t *testing.T) {
	// go list reads what this test doesn't: looked at here, a change isn't answered from the cache of tests.
	if files, err := filepath.Glob("*/*.go"); err != nil || len(files) == 0 {
		t.Fatal(files, err)
	} else {
		for _, f := range files {
			if _, err := os.ReadFile(f); err != nil {
				t.Fatal(err)
			}
		}
	}
	out, err := exec.Command("go", "list", "-f", "{{.ImportPath}} {{join .Imports \" \"}}", "./...").Output()
	if err != nil {
		t.Fatal(err)
	}
	above := map[string]bool{}
	allowed := map[string][]string{}
	for _, p := range order {
		allowed[p.name] = strings.Fields(p.imports)
		for _, of := range allowed[p.name] {
			if !above[of] {
				t.Errorf("%s may import %s, which comes after it", p.name, of)
			}
		}
		above[p.name] = true
	}
	for line := range strings.Lines(string(out)) {
		fields := strings.Fields(line)
		name, ours := strings.CutPrefix(fields[0], "openplot/core/")
		if !ours || strings.Contains(name, "/") { // what tests use
			continue
		}
		if _, known := allowed[name]; !known {
			t.Errorf("%s has no place in the order", name)
		}
		for _, path := range fields[1:] {
			if of, ours := strings.CutPrefix(path, "openplot/core/"); ours && !slices.Contains(allowed[name], of) {
				t.Errorf("%s imports %s", name, of)
			}
		}
	}
}
