package site

import (
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"openplot/core/doc"
	"openplot/postgres/postgrestest"
	"openplot/store"
)

// Assets that no published page names go when they are old enough; what is published stays
// whole.
func TestCollect(t *testing.T) {
	ctx := t.Context()
	st, err := store.Open(ctx, postgrestest.Database(t))
	if err != nil {
		t.Fatal(err)
	}
	defer st.Close()
	must := func(err error) {
		t.Helper()
		if err != nil {
			t.Fatal(err)
		}
	}
	s := &doc.Site{ID: "w1", Slug: "skerry", Name: "Skerry", House: doc.StandardHouse(), Zones: doc.StandardZones()}
	must(st.Sites.Add(ctx, s))
	words := func(text string) *doc.Page {
		return &doc.Page{ID: "p", Name: "Home", Title: text, Sections: []*doc.Section{{ID: "s", Blocks: []*doc.Block{{
			ID: "b", Kind: doc.Heading, Place: doc.Zoned[doc.Place]{"desktop": {Column: 1, Span: 6, Row: 1, Rows: 4}},
			Content: doc.Content{Words: doc.PlainWords(text)},
		}}}}}
	}
	must(st.Pages.Add(ctx, s.ID, "", 0, words("First")))
	p := &Publisher{Dir: t.TempDir(), MediaDir: t.TempDir(), Hosts: Hosts{"http", "localhost"}}
	must(p.PublishAll(ctx, st, &store.Site{Site: *s}))
	root := filepath.Join(p.Dir, s.ID)
	for _, name := range []string{"assets/style-000000000000.css", "assets/media/fold-480.webp", "assets/.new-1", ".new-2", "assets/own-000000000000.html", "contents/old.html", "contents/old.html.br"} {
		must(os.MkdirAll(filepath.Dir(filepath.Join(root, name)), 0o700))
		must(os.WriteFile(filepath.Join(root, name), []byte("x"), 0o600))
	}
	age := func() {
		long := time.Now().Add(-48 * time.Hour)
		must(filepath.WalkDir(root, func(name string, e os.DirEntry, err error) error {
			if err != nil || e.IsDir() {
				return err
			}
			return os.Chtimes(name, long, long)
		}))
	}
	before := func() time.Time { return time.Now().Add(-24 * time.Hour) }
	if n, _, err := p.Collect(ctx, st, before()); n != 0 || err != nil {
		t.Errorf("%d young ones collected, %v", n, err)
	}
	age()
	if n, _, err := p.Collect(ctx, st, before()); n != 7 || err != nil {
		t.Errorf("%d collected, %v", n, err)
	}
	sound := func() {
		t.Helper()
		must(p.Check(ctx, st, false, func(format string, args ...any) { t.Errorf(format, args...) }))
	}
	sound()
	// What was there already and is published anew is young again.
	age()
	must(p.PublishAll(ctx, st, &store.Site{Site: *s}))
	shown, err := filepath.Glob(filepath.Join(root, "contents", "*.html.br"))
	must(err)
	if len(shown) != 3 { // the page, the one for what isn't there, and the frame of what is told
		t.Fatal(shown)
	}
	for _, name := range shown {
		if fi, err := os.Stat(name); err != nil || fi.ModTime().Before(before()) {
			t.Errorf("%s: %v, %v", name, fi.ModTime(), err)
		}
	}
	sound()
}

// What visitors can read is read, and nothing else.
func TestSaid(t *testing.T) {
	got, err := said(
		`<!DOCTYPE html><html><head><title>T</title></head><body><header>Bar <nav>Menu</nav></header><main><h1>One &amp; two</h1>
		<img src="x" alt="A boat"><form action="/_forms/skerry/b1"><label>Your name</label><input name="Name"><input type="radio" name="Boat"><input type="radio" name="Boat"><input><input name="_took"><select><option>Choice</option></select><button>Send</button></form>
		<form action="/_forms/other/b2"></form><script>code()</script><svg><title>Drawing</title></svg></main><footer>Below</footer></body></html>`,
		"skerry",
	)
	if err != nil || got.Words != "One & two A boat Your name" || len(got.Forms) != 1 || got.Forms[0].Block != "b1" ||
		strings.Join(got.Forms[0].Fields, " ") != "Name Boat _took" {
		t.Errorf("%+v, %v", got, err)
	}
}

// Hosts are told apart, and nothing else is one.
func TestWhich(t *testing.T) {
	h := Hosts{"http", "localhost:8081"}
	for host, want := range map[string]struct {
		face Face
		slug string
	}{
		"skerry.localhost:8081": {Public, "skerry"}, "Skerry.LOCALHOST:8081": {Public, "skerry"}, "skerry.localhost": {Public, "skerry"},
		"skerry--own.localhost:8081": {Own, "skerry"}, "skerry-line--try.localhost:8081": {Draft, "skerry-line"}, "media.localhost:8081": {Uploads, ""},
		"localhost:8081": {}, "a.b.localhost:8081": {}, "skerry.localhost:9999": {}, "skerry.example.org": {}, "": {}, ".localhost:8081": {}, "127.0.0.1:8081": {},
	} {
		if face, slug := h.Which(host); face != want.face || slug != want.slug {
			t.Errorf("%q: %v %q, want %v %q", host, face, slug, want.face, want.slug)
		}
	}
}
