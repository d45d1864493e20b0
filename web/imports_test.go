package web

import (
	"os/exec"
	"slices"
	"strings"
	"testing"
)

// imports says of every package outside core which of the project's others it may import:
// the picture in docs/architecture.md. The two origins know nothing of each other, and
// the model of the Bench nothing of HTTP.
var imports = map[string]string{
	"postgres": "", "memory": "", "sandbox": "core", "durable": "", "metrics": "", "fonts": "core sandbox", "icons": "", "stock": "core", "gestures": "core",
	"dns": "core durable", "store": "core memory", "media": "core durable metrics sandbox store", "site": "core durable fonts icons sandbox stock store", "backup": "durable store",
	"origin":    "fonts metrics stock",
	"jobs":      "core media metrics store",
	"visitors":  "core media memory origin site store",
	"web/sheet": "", "web/bench": "core fonts memory metrics site store web/sheet",
	"web":  "core dns durable fonts icons media memory metrics origin site stock store web/bench web/sheet",
	"demo": "core icons media stock store",
}

func TestWhoImportsWhom(t *testing.T) {
	for name, allowed := range imports {
		cmd := exec.Command("go", "list", "-f", "{{join .Imports \"\\n\"}}", "openplot/"+name)
		if name == "gestures" {
			cmd.Env = append(cmd.Environ(), "GOOS=js", "GOARCH=wasm")
		}
		out, err := cmd.Output()
		if err != nil {
			t.Fatalf("%s: %v", name, err)
		}
		for _, path := range strings.Fields(string(out)) {
			of, ours := strings.CutPrefix(path, "openplot/")
			if strings.HasPrefix(of, "core/") {
				of = "core"
			}
			if ours && !slices.Contains(strings.Fields(allowed), of) {
				t.Errorf("%s imports %s", name, of)
			}
			if name == "web/bench" && (path == "net/http" || strings.Contains(path, "gin-gonic")) {
				t.Errorf("the model of the Bench imports %s", path)
			}
			if name != "web" && strings.Contains(path, "alexedwards/scs") {
				t.Errorf("%s reads sessions", name)
			}
		}
	}
}

// What keeps things and what reads pictures knows nothing of how pages are laid out.
func TestStoresKnowNoLayout(t *testing.T) {
	for _, name := range []string{"store", "media"} {
		out, err := exec.Command("go", "list", "-deps", "openplot/"+name).Output()
		if err != nil {
			t.Fatal(err)
		}
		deps := strings.Fields(string(out))
		for _, heavy := range []string{"openplot/core/layout", "openplot/core/check"} {
			if slices.Contains(deps, heavy) {
				t.Errorf("%s needs %s", name, heavy)
			}
		}
	}
}
