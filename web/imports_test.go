package web

import (
	"cmp"
	"fmt"
	"maps"
	"os"
	"os/exec"
	"slices"
	"strings"
	"sync"
	"testing"
)

// imports says of every package outside core which of the project's others it may import:
// the picture in docs/architecture.md. The two origins know nothing of each other, and
// the model of the Bench nothing of HTTP.
var imports = map[string]string{
	"postgres": "", "memory": "", "sandbox": "core", "durable": "", "metrics": "", "fonts": "core fonts/hb sandbox", "fonts/hb": "", "icons": "", "stock": "core", "gestures": "core",
	"dns": "core durable", "mail": "core", "store": "core memory", "media": "core durable metrics sandbox store", "site": "core durable fonts icons sandbox stock store", "backup": "durable store",
	"domains":  "core dns site store",
	"origin":   "fonts metrics stock",
	"bring":    "core durable fonts icons media site store",
	"jobs":     "bring core domains mail media metrics site store web/model",
	"visitors": "core mail media memory origin site store",
	"demo":     "core icons media stock store",

	"web/sheet": "", "web/paths": "",
	"web/model": "core fonts memory metrics site store web/paths web/sheet",
	"web/shell": "bring core dns domains fonts icons mail media memory origin site store web/model web/paths",
	"web/desk":  "bring core icons media origin site stock store web/model web/paths web/shell",
}

// room is what screens stand on. They know nothing of each other.
const room = "bring core dns docs fonts icons mail media metrics origin site stock store web/desk web/model web/paths web/shell web/sheet"

// listed is what every package imports, by its path.
var listed = sync.OnceValues(func() (map[string][]string, error) {
	all := map[string][]string{}
	for _, of := range []struct {
		path string
		env  []string
	}{{"openplot/...", nil}, {"openplot/gestures", []string{"GOOS=js", "GOARCH=wasm"}}} {
		cmd := exec.Command("go", "list", "-f", "{{.ImportPath}} {{join .Imports \" \"}}", of.path)
		cmd.Env = append(cmd.Environ(), of.env...)
		out, err := cmd.Output()
		if err != nil {
			return nil, err
		}
		for line := range strings.Lines(string(out)) {
			fields := strings.Fields(line)
			all[fields[0]] = fields[1:]
		}
	}
	return all, nil
})

// ours lists what a package of the project imports of it, as the table above names it, and of all.
func ours(t *testing.T, name string) (of, all []string) {
	t.Helper()
	packages, err := listed()
	if err != nil {
		t.Fatal(err)
	}
	all, there := packages["openplot/"+name]
	if !there {
		t.Fatalf("there is no %s", name)
	}
	for _, path := range all {
		if path, is := strings.CutPrefix(path, "openplot/"); is {
			if strings.HasPrefix(path, "core/") {
				path = "core"
			}
			of = append(of, path)
		}
	}
	slices.Sort(of)
	return slices.Compact(of), all
}

// screens lists the packages of the screens: those that package web puts together.
func screens(t *testing.T) (out []string) {
	t.Helper()
	of, _ := ours(t, "web")
	for _, name := range of {
		if strings.HasPrefix(name, "web/") && name != "web/desk" && name != "web/shell" {
			out = append(out, name)
		}
	}
	return out
}

func TestWhoImportsWhom(t *testing.T) {
	allowed := maps.Clone(imports)
	for _, name := range screens(t) {
		allowed[name] = room
	}
	for name, may := range allowed {
		of, all := ours(t, name)
		for _, path := range of {
			if !slices.Contains(strings.Fields(may), path) {
				t.Errorf("%s imports %s", name, path)
			}
		}
		for _, path := range all {
			if name == "web/model" && (path == "net/http" || strings.Contains(path, "gin-gonic")) {
				t.Errorf("the model of the Bench imports %s", path)
			}
			if name != "web/shell" && strings.Contains(path, "alexedwards/scs") {
				t.Errorf("%s reads sessions", name)
			}
		}
	}
}

// The picture of the rooms of the web in docs/architecture.md is drawn from what imports what;
// with UPDATE=1 it is drawn anew.
func TestPictureOfTheWeb(t *testing.T) {
	rows := screens(t)
	width := 0
	for _, name := range rows {
		width = max(width, len(name))
	}
	var b strings.Builder
	b.WriteString("    web  ─>  each of these, in one list\n\n")
	for _, name := range append(rows, "web/desk", "web/shell", "web/model", "web/sheet", "web/paths") {
		of, _ := ours(t, name)
		of = slices.DeleteFunc(of, func(path string) bool { return !strings.HasPrefix(path, "web/") })
		for i := range of {
			of[i] = strings.TrimPrefix(of[i], "web/")
		}
		fmt.Fprintf(&b, "    %-*s  ─>  %s\n", width, name, cmp.Or(strings.Join(of, ", "), "none of them"))
	}
	const file, begin, end = "../docs/architecture.md", "<!-- drawn by TestPictureOfTheWeb -->\n", "<!-- to here -->"
	text, err := os.ReadFile(file)
	if err != nil {
		t.Fatal(err)
	}
	before, rest, there := strings.Cut(string(text), begin)
	was, after, ends := strings.Cut(rest, end)
	if !there || !ends {
		t.Fatal("there is no place for it")
	}
	now := "\n" + b.String() + "\n"
	if was == now {
		return
	}
	if os.Getenv("UPDATE") == "" {
		t.Fatalf("it is another one now; UPDATE=1 go test ./web -run TestPictureOfTheWeb draws it:\n%s", now)
	}
	if err := os.WriteFile(file, []byte(before+begin+now+end+after), 0o644); err != nil {
		t.Fatal(err)
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
