package core

import (
	"os/exec"
	"strings"
	"testing"
)

// The job is kept free of interface code, so that it can run anywhere.
func TestCoreImportsNothingOfTheOutside(t *testing.T) {
	out, err := exec.Command("go", "list", "-deps", "./...").Output()
	if err != nil {
		t.Fatal(err)
	}
	deps := strings.Fields(string(out))
	if len(deps) < 20 {
		t.Fatalf("only %d dependencies listed", len(deps))
	}
	for _, d := range deps {
		switch d {
		case "net/http", "database/sql", "html/template", "github.com/gin-gonic/gin":
			t.Errorf("core depends on %s", d)
		}
		if strings.HasPrefix(d, "openplot/") && !strings.HasPrefix(d, "openplot/core") {
			t.Errorf("core depends on %s", d)
		}
	}
	direct, err := exec.Command("go", "list", "-f", "{{.ImportPath}}: {{.Imports}}", "./...").Output()
	if err != nil {
		t.Fatal(err)
	}
	for _, line := range strings.Split(string(direct), "\n") {
		if strings.Contains(line, " os ") || strings.Contains(line, "[os ") || strings.Contains(line, " time ") {
			t.Errorf("core uses files or the clock: %s", line)
		}
	}
}

// What runs in the browser must not carry the fonts' machinery with it.
func TestPlacingBuildsForTheBrowserWithoutFonts(t *testing.T) {
	cmd := exec.Command("go", "list", "-deps", "../gestures")
	cmd.Env = append(cmd.Environ(), "GOOS=js", "GOARCH=wasm")
	out, err := cmd.Output()
	if err != nil {
		t.Fatal(err)
	}
	if !strings.Contains(string(out), "openplot/core/place") {
		t.Error("gestures doesn't use core/place")
	}
	for _, heavy := range []string{"typesetting", "brotli", "encoding/json", "net/url"} {
		if strings.Contains(string(out), heavy) {
			t.Errorf("gestures carries %s", heavy)
		}
	}
	build := exec.Command("go", "build", "./...")
	build.Env = append(build.Environ(), "GOOS=js", "GOARCH=wasm")
	if out, err := build.CombinedOutput(); err != nil {
		t.Errorf("core doesn't build for WebAssembly: %s", out)
	}
}
