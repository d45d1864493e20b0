package web

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"runtime"
	"strings"
	"testing"

	"openplot/core/carry"
	"openplot/core/compare"
	"openplot/core/doc"
	"openplot/core/tree"
	"openplot/store"
)

// A site that is saved as a file and begun from it has the same pages, at the same addresses,
// with the same pictures, menus and settings.
func TestASiteIsCarriedInAFile(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	if status, body := upload(t, d, libraryPath, "boat.png", noise(t, 120, 80), nil); status != http.StatusOK {
		t.Fatalf("%d %s", status, body)
	}
	media, err := p.store.Media.List(t.Context(), "w1")
	if err != nil || len(media) != 1 {
		t.Fatalf("%d media, %v", len(media), err)
	}
	m := media[0]
	m.Alt, m.Folder = "A boat", "Boats"
	if err := p.store.Media.Describe(t.Context(), m); err != nil {
		t.Fatal(err)
	}
	under := &doc.Page{ID: "p2", Name: "Fares", Title: "Fares", Picture: m.ID, Sections: []*doc.Section{{
		ID: "s9", Name: "Boat", Picture: m.ID, Blocks: []*doc.Block{{
			ID: "b9", Kind: doc.Picture, Locked: true, Content: doc.Content{Picture: m.ID, Alt: "A boat"}, Place: doc.Zoned[doc.Place]{"desktop": {Column: 1, Span: 4, Row: 1, Rows: 2}},
		}},
	}}}
	if err := p.store.Tree.Put(t.Context(), "w1", under, func(now tree.Tree) (tree.Tree, error) {
		return now.Add(tree.Page{ID: "p2", Name: "Fares"}, "fares")
	}); err != nil {
		t.Fatal(err)
	}
	if err := p.store.Sites.SetMenus(t.Context(), "w1", map[string][]doc.MenuItem{"legal": {{Label: "Imprint", Link: "/fares"}}}); err != nil {
		t.Fatal(err)
	}
	if err := p.store.Tree.SetPlacing(t.Context(), "w1", "p2", store.Placing{InFooter: true, MenuName: "Prices"}); err != nil {
		t.Fatal(err)
	}
	if err := p.store.Sites.SetSettings(t.Context(), "w1", store.Settings{Name: "Skerry", Language: "nb", TimeZone: "Europe/Oslo", SharePicture: m.ID, Icon: doc.SiteIcon{Medium: m.ID}}); err != nil {
		t.Fatal(err)
	}
	status, file, h := d.get("/sites/skerry/file")
	if status != http.StatusOK || !strings.Contains(h.Get("Content-Disposition"), "skerry.site.zip") {
		t.Fatalf("%d %v", status, h)
	}
	h = uploaded(t, d, "/new/file", "skerry.site.zip", []byte(file), map[string]string{"name": "Second"})
	if to, said := d.made(h); to != "/sites/second" {
		t.Fatalf("%s %.500s", to, said)
	}
	u, err := p.store.People.UserByEmail(t.Context(), "designer@example.org")
	if err != nil {
		t.Fatal(err)
	}
	st, err := p.store.Sites.BySlugFor(t.Context(), u.ID, "second")
	if err != nil {
		t.Fatal(err)
	}
	brought, err := p.store.Media.List(t.Context(), st.ID)
	if err != nil || len(brought) != 1 || brought[0].Alt != "A boat" || brought[0].Folder != "Boats" ||
		brought[0].ID == m.ID {
		t.Fatalf("%+v, %v", brought, err)
	}
	if st.Name != "Second" || st.Language != "nb" || st.TimeZone != "Europe/Oslo" || st.SharePicture != brought[0].ID ||
		st.Icon.Medium != brought[0].ID ||
		len(st.Menus["legal"]) != 1 {
		t.Errorf("%+v", st.Site)
	}
	for _, slug := range []string{"", "fares"} {
		was, err := p.store.Pages.At(t.Context(), "w1", slug)
		if err != nil {
			t.Fatal(err)
		}
		now, err := p.store.Pages.At(t.Context(), st.ID, slug)
		if err != nil {
			t.Fatal(err)
		}
		if now.Placing != was.Placing {
			t.Errorf("/%s is %+v in menus", slug, now.Placing)
		}
		text, err := json.Marshal(was.Doc)
		if err != nil {
			t.Fatal(err)
		}
		want := new(doc.Page)
		if err := json.Unmarshal(bytes.ReplaceAll(text, []byte(m.ID), []byte(brought[0].ID)), want); err != nil {
			t.Fatal(err)
		}
		want.ID = now.ID
		if lines := compare.Say(compare.Pages(want, now.Doc)); len(lines) > 0 {
			t.Errorf("/%s: %v", slug, lines)
		}
	}
	log, err := p.store.Audit.List(t.Context(), st.ID, 9)
	if err != nil || len(log) == 0 || strings.Contains(log[0].About, "not as in the file") {
		t.Errorf("something is told to be left out: %+v, %v", log, err)
	}
	// What is damaged makes nothing.
	before, all, err := p.store.Sites.Search(t.Context(), u.ID, store.SiteQuery{Limit: 9})
	if err != nil {
		t.Fatal(err)
	}
	for what, bad := range map[string][]byte{
		"no archive":      []byte("hello"),
		"cut off":         []byte(file)[:len(file)/2],
		"without a house": without(t, file, carry.HousePart),
		"without a page":  without(t, file, "pages/at/fares.json"),
		"without a file":  without(t, file, "media/"+m.ID+".png"),
	} {
		status, body := upload(t, d, "/new/file", "x.site.zip", bad, nil)
		if status != http.StatusUnprocessableEntity || !tellsOf(body, "File") {
			t.Errorf("%s: %d %s", what, status, body)
		}
	}
	if _, after, err := p.store.Sites.Search(t.Context(), u.ID, store.SiteQuery{Limit: 9}); err != nil || after != all {
		t.Errorf("%d sites, were %d %v, %v", after, all, before, err)
	}
}

// without gives an archive that lacks a part.
func without(t *testing.T, file, part string) []byte {
	t.Helper()
	r, err := zip.NewReader(strings.NewReader(file), int64(len(file)))
	if err != nil {
		t.Fatal(err)
	}
	var b bytes.Buffer
	w := zip.NewWriter(&b)
	found := false
	for _, f := range r.File {
		if f.Name == part {
			found = true
			continue
		}
		from, err := f.Open()
		if err != nil {
			t.Fatal(err)
		}
		to, err := w.Create(f.Name)
		if err != nil {
			t.Fatal(err)
		}
		if _, err := io.Copy(to, from); err != nil {
			t.Fatal(err)
		}
	}
	if err := w.Close(); err != nil || !found {
		t.Fatalf("%s: found %v, %v", part, found, err)
	}
	return b.Bytes()
}

// A small file that would unpack to gigabytes makes no site, and costs the program little.
func TestSiteFilesThatUnpackToMuch(t *testing.T) {
	p := beginAlone(t)
	d := p.as("designer@example.org")
	_, file, _ := d.get("/sites/skerry/file")
	empty := `{"id":"p","name":"N","title":"T","sections":[` + strings.TrimSuffix(
		strings.Repeat("{},", 5_000_000),
		",",
	) + `]}`
	for name, change := range map[string]func(parts map[string]string){
		"empty sections": func(parts map[string]string) { parts["pages/home.json"] = empty },
		"pages that name one part": func(parts map[string]string) {
			many := `"address":"","inMenu":true,"file":"pages/home.json"}`
			for i := range 500 {
				many += fmt.Sprintf(`,{"address":"a%d","inMenu":true,"file":"pages/home.json"}`, i)
			}
			parts["pages/home.json"] = `{"id":"p","name":"N","title":"T","sections":[{"id":"s","name":"` + strings.Repeat("x", 15<<20) + `"}]}`
			at := strings.Index(parts["site.json"], `"pages"`)
			end := strings.Index(parts["site.json"][at:], "]") + at
			parts["site.json"] = parts["site.json"][:at] + `"pages":[{` + many + parts["site.json"][end:]
		},
		"large parts": func(parts map[string]string) {
			at := strings.Index(parts["site.json"], `"pages"`)
			end := strings.Index(parts["site.json"][at:], "]") + at
			many := `{"address":"","inMenu":true,"file":"pages/home.json"}`
			for i := range 20 {
				parts[fmt.Sprint("x", i)] = strings.Repeat(" ", 15<<20) + `{}`
				many += fmt.Sprintf(`,{"address":"a%d","inMenu":true,"file":"x%d"}`, i, i)
			}
			parts["site.json"] = parts["site.json"][:at] + `"pages":[` + many + parts["site.json"][end:]
		},
		"one picture many times": func(parts map[string]string) {
			media := `"media":[{"id":"m0","file":"house.json","name":"a.png"},{"id":"m1","file":"house.json","name":"b.png"}]`
			parts["site.json"] = strings.TrimSuffix(strings.TrimSpace(parts["site.json"]), "}") + "," + media + "}"
		},
	} {
		parts := unzipped(t, file)
		change(parts)
		var b bytes.Buffer
		w := zip.NewWriter(&b)
		for name, text := range parts {
			f, err := w.Create(name)
			if err == nil {
				_, err = io.WriteString(f, text)
			}
			if err != nil {
				t.Fatal(err)
			}
		}
		if err := w.Close(); err != nil {
			t.Fatal(err)
		}
		parts = nil
		var before, after runtime.MemStats
		runtime.ReadMemStats(&before)
		status, body, h := d.do(formWith(t, d, "/new/file", "x.site.zip", b.Bytes(), nil))
		if status == http.StatusSeeOther { // it shows only when its pictures are kept
			if _, said := d.made(h); !strings.HasPrefix(said, "Media in the file have") {
				t.Errorf("%s: %.300s", name, said)
			}
		} else if status != http.StatusUnprocessableEntity || !strings.Contains(body, `role="alert"`) {
			t.Errorf("%s: %d %.300s", name, status, body)
		}
		runtime.ReadMemStats(&after)
		if took := (after.TotalAlloc - before.TotalAlloc) >> 20; took > 80 {
			t.Errorf("%s: a file of %d kB took %d MB", name, b.Len()>>10, took)
		}
	}
	all, err := p.store.Sites.List(t.Context(), p.userID("designer@example.org"))
	if err != nil || len(all) != 1 {
		t.Errorf("%d sites, %v", len(all), err)
	}
}

// unzipped is what an archive has, by name.
func unzipped(t *testing.T, archive string) map[string]string {
	t.Helper()
	z, err := zip.NewReader(strings.NewReader(archive), int64(len(archive)))
	if err != nil {
		t.Fatal(err)
	}
	parts := map[string]string{}
	for _, f := range z.File {
		r, err := f.Open()
		if err != nil {
			t.Fatal(err)
		}
		b, err := io.ReadAll(r)
		if err != nil {
			t.Fatal(err)
		}
		parts[f.Name] = string(b)
	}
	return parts
}
