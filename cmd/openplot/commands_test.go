package main

import (
	"bytes"
	"errors"
	"fmt"
	"io"
	"net/http"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"sync"
	"testing"

	"openplot/demo"
	"openplot/site"
)

// built is the program, built once for all tests.
var built = sync.OnceValues(func() (string, error) {
	dir, err := os.MkdirTemp("/tmp", "openplot-built-")
	if err != nil {
		return "", err
	}
	name := filepath.Join(dir, "openplot")
	if out, err := exec.Command("go", "build", "-o", name, ".").CombinedOutput(); err != nil {
		return "", fmt.Errorf("building: %s", out)
	}
	return name, nil
})

func TestMain(m *testing.M) {
	code := m.Run()
	if name, err := built(); err == nil {
		os.RemoveAll(filepath.Dir(name))
	}
	os.Exit(code)
}

// folder is a data folder that the user postgres can reach.
func folder(t *testing.T) string {
	t.Helper()
	dir, err := os.MkdirTemp("/tmp", "openplot-data-")
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { os.RemoveAll(dir) })
	if err := os.Chmod(dir, 0o711); err != nil {
		t.Fatal(err)
	}
	return filepath.Join(dir, "data")
}

// made is a data folder with the demo, made once for all tests.
var made = sync.OnceValues(func() (string, error) {
	name, err := built()
	if err != nil {
		return "", err
	}
	dir := filepath.Join(filepath.Dir(name), "demo")
	return dir, errors.Join(os.Chmod(filepath.Dir(name), 0o711), begun(name, dir))
})

// begun has the program make the demo in a folder, and ends it.
func begun(name, data string) error {
	p, err := launch(name, data, "OPENPLOT_DEMO=quick")
	if err != nil {
		return err
	}
	p.stop()
	return nil
}

// withDemo is a data folder with the demo in it.
func withDemo(t *testing.T) string {
	t.Helper()
	data := folder(t)
	from, err := made()
	if err != nil {
		t.Fatal(err)
	}
	if out, err := exec.Command("cp", "-a", from, data).CombinedOutput(); err != nil {
		t.Fatalf("%v: %s", err, out)
	}
	return data
}

// command runs the program with arguments and something to read.
func command(t *testing.T, data, in string, args ...string) (string, error) {
	t.Helper()
	name, err := built()
	if err != nil {
		t.Fatal(err)
	}
	cmd := exec.Command(name, args...)
	cmd.Env = append(
		os.Environ(),
		"OPENPLOT_DATA="+data,
		"OPENPLOT_DATABASE_URL=",
		"OPENPLOT_THROWAWAY=1",
		"OPENPLOT_DEMO=",
		"OPENPLOT_AVIF=no",
	)
	cmd.Stdin = strings.NewReader(in)
	out, err := cmd.CombinedOutput()
	return string(out), err
}

// A site is set up from the command line alone, beside the server and without it; without
// being asked for, no demo and no known password is there.
func TestCommands(t *testing.T) {
	if testing.Short() {
		t.Skip("builds and starts the server")
	}
	data := folder(t)
	must := func(in string, args ...string) string {
		t.Helper()
		out, err := command(t, data, in, args...)
		if err != nil {
			t.Fatalf("%v: %v: %s", args, err, out)
		}
		return out
	}
	must("three islands\n", "user", "add", "ann@example.org", "Ann")
	must("", "site", "add", "skerry", "Skerry", "ann@example.org")
	name, err := built()
	if err != nil {
		t.Fatal(err)
	}
	p := start(t, name, data, "OPENPLOT_DEMO=")
	must("three islands\n", "user", "add", "wil@example.org", "Wil")
	must("", "member", "add", "skerry", "wil@example.org", "writer")
	if out := must("", "user", "list"); !strings.Contains(out, "ann@example.org") ||
		!strings.Contains(out, "skerry (writer)") ||
		strings.Contains(out, demo.DesignerEmail) {
		t.Errorf("the list: %s", out)
	}
	client := signInAs(t, p, "ann@example.org", "three islands")
	get := func(path string) (int, string) {
		t.Helper()
		r, err := client.Get(p.base + path)
		if err != nil {
			t.Fatal(err)
		}
		defer r.Body.Close()
		b, _ := io.ReadAll(r.Body)
		return r.StatusCode, string(b)
	}
	if status, body := get("/sites/skerry/pages/home/bench"); status != http.StatusOK ||
		!strings.Contains(body, "Skerry") {
		t.Errorf("the Bench: %d", status)
	}
	must("another password\n", "user", "password", "ann@example.org")
	if _, body := get("/"); !strings.Contains(body, `name="password"`) {
		t.Error("the session goes on after another password")
	}
	must("", "user", "disable", "wil@example.org")
	must("", "member", "remove", "skerry", "wil@example.org")
	client = signInAs(t, p, "ann@example.org", "another password")
	if _, body := get("/sites/skerry/audit"); !strings.Contains(body, "role given") ||
		!strings.Contains(body, "command line") {
		t.Error("what was done on the command line isn't in the log")
	}
	for _, bad := range [][]string{
		{"user", "add", "ann", "Ann"}, {"user", "password", "nobody@example.org"}, {"site", "add", "media", "Media", "ann@example.org"},
		{"site", "add", "skerry", "Again", "ann@example.org"}, {"site", "add", "other", "Other", "nobody@example.org"},
		{"member", "add", "skerry", "ann@example.org", "king"}, {"member", "add", "nowhere", "ann@example.org", "owner"}, {"dance"}, {"user"},
	} {
		if out, err := command(t, data, "a password of length\n", bad...); err == nil || out == "" {
			t.Errorf("%v is taken: %s", bad, out)
		}
	}
	if out, err := command(t, data, "short\n", "user", "add", "x@example.org", "X"); err == nil ||
		!strings.Contains(out, "characters") {
		t.Errorf("a short password: %s", out)
	}
	// Nobody else of this machine reads what is kept.
	err = filepath.WalkDir(data, func(name string, e os.DirEntry, err error) error {
		if err != nil {
			return err
		}
		fi, err := e.Info()
		if err == nil && fi.Mode().Perm()&0o007 != 0 && fi.Mode().Type() == 0 {
			t.Errorf("%s is anybody's: %v", name, fi.Mode())
		}
		return err
	})
	if err != nil {
		t.Error(err)
	}
}

// The demo is made once; when its site is deleted, the program starts all the same, and
// doesn't make it again.
func TestDemoIsMadeOnce(t *testing.T) {
	if testing.Short() {
		t.Skip("builds and starts the server")
	}
	data := withDemo(t)
	name, err := built()
	if err != nil {
		t.Fatal(err)
	}
	// Nothing of it is broken, and that is what the exit code says; a page that isn't there is told.
	if out, err := command(t, data, "", "check", "skerry-line"); err != nil ||
		!strings.Contains(out, "Home: 0 broken") ||
		!strings.Contains(out, "Winter weekend: 0 broken") {
		t.Errorf("check: %v: %s", err, out)
	}
	if out, err := command(t, data, "", "check", "skerry-line", "fares", "-sarif"); err != nil ||
		!strings.Contains(out, `"version": "2.1.0"`) {
		t.Errorf("check: %v: %s", err, out)
	}
	if out, err := command(t, data, "", "check", "skerry-line", "nowhere"); err == nil ||
		!strings.Contains(out, "no page") {
		t.Errorf("check of no page: %v: %s", err, out)
	}
	archive := filepath.Join(t.TempDir(), "plot.backup")
	if out, err := command(t, data, "", "backup", archive); err != nil {
		t.Fatalf("%v: %s", err, out)
	}
	if out, err := command(t, data, "", "doctor"); err != nil || !strings.Contains(out, "All is as it should be") {
		t.Errorf("doctor: %v: %s", err, out)
	}
	// A published page, a font and a copy of a picture are lost.
	folders, err := filepath.Glob(filepath.Join(data, "published", "*")) // one site's
	if err != nil || len(folders) != 1 {
		t.Fatal(folders, err)
	}
	published := os.DirFS(folders[0])
	shown, err := site.ReadRelease(published)
	if err != nil {
		t.Fatal(err)
	}
	lost := []string{filepath.Join(folders[0], shown.Pages["fares"].Content())}
	for _, pattern := range []string{"published/*/assets/fonts/*.woff2", "media/f*-480.webp"} {
		found, err := filepath.Glob(filepath.Join(data, pattern))
		if err != nil || len(found) == 0 {
			t.Fatal(pattern, err)
		}
		lost = append(lost, found[0])
	}
	for _, n := range lost {
		if err := os.Remove(n); err != nil {
			t.Fatal(err)
		}
	}
	out, err := command(t, data, "", "doctor")
	if err == nil {
		t.Errorf("doctor finds nothing: %s", out)
	}
	for _, n := range lost[1:] {
		if !strings.Contains(out, filepath.Base(n)) {
			t.Errorf("doctor doesn't tell of %s: %s", filepath.Base(n), out)
		}
	}
	if out, err := command(t, data, "", "doctor", "-repair"); err != nil {
		t.Errorf("%v: %s", err, out)
	}
	if _, err := site.Read(published, "fares"); err != nil {
		t.Errorf("not repaired: %v", err)
	}
	if _, err := os.Stat(lost[1]); err != nil {
		t.Errorf("not repaired: %v", err)
	}
	if out, err := command(t, data, "", "doctor"); err != nil {
		t.Errorf("after the repair: %s", out)
	}
	sql(t, data, `DELETE FROM sites`)
	p := start(t, name, data, "OPENPLOT_DEMO=quick")
	client := signIn(t, p)
	r, err := client.Get(p.base + "/")
	if err != nil {
		t.Fatal(err)
	}
	b, _ := io.ReadAll(r.Body)
	r.Body.Close()
	if !bytes.Contains(b, []byte("You have no site yet")) {
		t.Errorf("the demo is back: %.300s", b)
	}
	p.stop()
	// One that can't be brought back leaves nothing.
	b, err = os.ReadFile(archive)
	if err != nil {
		t.Fatal(err)
	}
	damaged := filepath.Join(t.TempDir(), "damaged.backup")
	if err := os.WriteFile(damaged, b[:len(b)*2/3], 0o600); err != nil {
		t.Fatal(err)
	}
	other := folder(t)
	for _, name := range []string{damaged, filepath.Join(other, "nowhere")} {
		out, err := command(t, other, "", "restore", name)
		if left, rerr := os.ReadDir(other); err == nil || len(left) > 0 ||
			rerr != nil && !errors.Is(rerr, os.ErrNotExist) {
			t.Errorf("restoring %s: %v %s, and %v is left, %v", filepath.Base(name), err, out, left, rerr)
		}
	}
	// And the archive brings it back, elsewhere.
	if out, err := command(t, other, "", "restore", archive); err != nil {
		t.Fatalf("%v: %s", err, out)
	}
	if out, err := command(t, other, "", "doctor"); err != nil {
		t.Errorf("after restoring: %v: %s", err, out)
	}
	p = start(t, name, other, "OPENPLOT_DEMO=")
	client = signIn(t, p)
	if r, err := client.Get(p.base + "/sites/" + demo.SiteSlug + "/pages/home/bench"); err != nil ||
		r.StatusCode != http.StatusOK {
		t.Errorf("the Bench: %v", err)
	}
}

// Two processes on one database: edits through both are all kept and seen by both, and the
// schema is made once.
func TestTwoProcesses(t *testing.T) {
	if testing.Short() {
		t.Skip("builds and starts the server")
	}
	data := withDemo(t)
	name, err := built()
	if err != nil {
		t.Fatal(err)
	}
	first := start(t, name, data, "OPENPLOT_DEMO=quick")
	dsn := clusterDSN(t, data)
	second := start(t, name, data+"-2", "OPENPLOT_DEMO=quick", "OPENPLOT_DATABASE_URL="+dsn)
	t.Cleanup(func() { os.RemoveAll(data + "-2") })
	const page = "/sites/" + demo.SiteSlug + "/pages/home"
	clients := []*http.Client{signIn(t, first), signIn(t, second)}
	bases := []string{first.base, second.base}
	state := func(i int) state {
		t.Helper()
		r, err := clients[i].Get(bases[i] + page + "/bench")
		if err != nil {
			t.Fatal(err)
		}
		defer r.Body.Close()
		s, err := read(r.Body)
		if err != nil {
			t.Fatal(err)
		}
		return s
	}
	begun := state(0)
	const each = 25
	var wg sync.WaitGroup
	for i := range 2 {
		wg.Go(func() {
			base := begun.Seq
			for n := range each {
				c := fmt.Sprintf(
					`{"op":"rename","node":%q,"value":"Name %d of %d","base":%d}`,
					begun.Order[i],
					n,
					i,
					base,
				)
				r, err := clients[i].PostForm(bases[i]+page+"/edits", url.Values{"command": {c}})
				if err != nil {
					t.Error(err)
					return
				}
				s, err := read(r.Body)
				r.Body.Close()
				if err != nil || r.StatusCode != http.StatusOK {
					t.Errorf("process %d, edit %d: %d, %v", i, n, r.StatusCode, err)
					return
				}
				base = s.Seq
			}
		})
	}
	wg.Wait()
	for i := range 2 {
		now := state(i)
		if now.Seq != begun.Seq+2*each {
			t.Errorf("process %d is at %d, want %d", i, now.Seq, begun.Seq+2*each)
		}
		for j := range 2 {
			if got, want := now.Names[begun.Order[j]], fmt.Sprintf("Name %d of %d", each-1, j); got != want {
				t.Errorf("process %d sees %q, want %q", i, got, want)
			}
		}
	}
	// The demo is one, and each job was done once.
	var sites, doubled int
	db := open(t, dsn)
	if err := db.QueryRow(`SELECT (SELECT count(*) FROM sites), (SELECT count(*) FROM (SELECT 1 FROM river_job GROUP BY kind, args, created_at HAVING count(*) > 1) d)`).Scan(
		&sites, &doubled,
	); err != nil ||
		sites != 1 ||
		doubled != 0 {
		t.Errorf("%d sites, %d jobs twice, %v", sites, doubled, err)
	}
}
