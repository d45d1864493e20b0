package site

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/postgres/postgrestest"
	"openplot/store"
)

func TestMain(m *testing.M) { postgrestest.Main(m, store.Migrate) }

// A page keeps what it was published from until its pictures have all their copies. Each
// copy that comes is on it then, nothing else changes, and it is let go in the end; copies
// made while it was being published are not missed.
func TestEditions(t *testing.T) {
	ctx := t.Context()
	st, err := store.Open(ctx, postgrestest.Database(t))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { st.Close() })
	s := &doc.Site{ID: "w", Slug: "skerry", Name: "Skerry", House: doc.StandardHouse(), Zones: doc.StandardZones()}
	place := doc.Zoned[doc.Place]{"desktop": {Column: 1, Span: 6, Row: 1, Rows: 4}}
	page := &doc.Page{ID: "p", Title: "Fares", Name: "Fares", Sections: []*doc.Section{{ID: "s", Blocks: []*doc.Block{
		{
			ID: "b1", Kind: doc.Picture, Place: place,
			Content: doc.Content{Picture: "m1"},
		}, {ID: "b2", Kind: doc.Picture, Place: place, Content: doc.Content{Picture: "m2"}},
	}}}}
	uploads, dir := t.TempDir(), t.TempDir()
	copyOf := func(m, name string, width int) store.MediumCopy {
		name = m + "-" + name
		if err := os.WriteFile(filepath.Join(uploads, name), []byte(name), 0o644); err != nil {
			t.Fatal(err)
		}
		return store.MediumCopy{File: name, Width: width}
	}
	must := func(errs ...error) {
		t.Helper()
		for _, err := range errs {
			if err != nil {
				t.Fatal(err)
			}
		}
	}
	must(st.Sites.Add(ctx, s), st.Pages.Add(ctx, "w", "fares", 0, page))
	for _, id := range []string{"m1", "m2", "unseen"} {
		must(
			st.Media.Add(
				ctx,
				&store.Medium{
					ID: id, SiteID: "w", Name: id, Type: "image/png", Width: 900, Height: 600, Alt: "As published",
					Original: id + "-original", CopiesLeft: 2,
					Variants: []store.MediumCopy{copyOf(id, "480.webp", 480)},
				},
			),
		)
	}
	p := &Publisher{Dir: dir, MediaDir: uploads}
	order := Order{Pages: []*store.Page{{PageInfo: store.PageInfo{ID: "p", Slug: "fares"}, Doc: page}}}
	publish := func() int {
		t.Helper()
		media, err := st.Media.List(ctx, "w")
		must(err)
		lacking, err := p.Publish(ctx, st, Source{Site: s, Media: media}, order)
		must(err)
		return lacking
	}
	shows := func(want ...string) {
		t.Helper()
		b, err := Read(os.DirFS(filepath.Join(dir, "w")), "fares")
		must(err)
		for _, name := range []string{"m1-480.webp", "m1-900.webp", "m1-900.avif", "m2-480.webp", "m2-900.webp"} {
			wanted := strings.Contains(" "+strings.Join(want, " ")+" ", " "+name+" ")
			if strings.Contains(string(b), name) != wanted {
				t.Errorf("%s is on the page: %v, want %v", name, !wanted, wanted)
			}
		}
		if !strings.Contains(string(b), `alt="As published"`) || strings.Contains(string(b), "Changed since") {
			t.Errorf("not as it was published: %s", b)
		}
	}
	made := func(id, name string, left int) store.MakeCopies {
		t.Helper()
		job := store.MakeCopies{Site: "w", Medium: id, Original: id + "-original"}
		c := copyOf(id, name, 900)
		_, err := st.Media.AddCopy(ctx, job, &c, 10, left)
		must(err)
		return job
	}

	if lacking := publish(); lacking != 2 { // what isn't on the page doesn't count
		t.Errorf("%d lack copies", lacking)
	}
	shows("m1-480.webp", "m2-480.webp")
	m, err := st.Media.ByID(ctx, "w", "m1")
	must(err)
	m.Alt = "Changed since"
	must(st.Media.Describe(ctx, m))
	must(p.CopiesMade(ctx, st, made("m1", "900.webp", 1)))
	shows("m1-480.webp", "m1-900.webp", "m2-480.webp")
	must(p.CopiesMade(ctx, st, made("m1", "900.avif", 0)))
	shows("m1-480.webp", "m1-900.webp", "m1-900.avif", "m2-480.webp")
	// A picture that is deleted meanwhile stays as the page has it.
	must(st.Media.Delete(ctx, "w", "m1"))
	must(st.Media.ForgetOne(ctx, "w", "m1"))
	must(p.CopiesMade(ctx, st, made("m2", "900.webp", 0)))
	shows("m1-480.webp", "m1-900.webp", "m1-900.avif", "m2-480.webp", "m2-900.webp")
	left := 0
	for _, original := range []string{"m1-original", "m2-original"} {
		must(
			st.Releases.Renew(
				ctx,
				"w",
				original,
				false,
				func(source []byte) ([]byte, error) { left++; return source, nil },
				store.Change{},
			),
		)
	}
	if left > 0 {
		t.Error("the edition is kept although nothing is to come")
	}

	// Copies that were made between looking and publishing.
	must(
		st.Media.Add(
			ctx,
			&store.Medium{
				ID: "m1", SiteID: "w", Name: "m1", Type: "image/png", Width: 900, Height: 600, Alt: "As published",
				Original: "m1-original", CopiesLeft: 1,
				Variants: []store.MediumCopy{{File: "m1-480.webp", Width: 480}},
			},
		),
	)
	media, err := st.Media.List(ctx, "w")
	must(err)
	src := Source{Site: s, Media: media}
	must(p.CopiesMade(ctx, st, made("m1", "900.webp", 0))) // finds no edition yet
	if n, err := p.Publish(ctx, st, src, order); err != nil || n != 0 {
		t.Errorf("%d pictures lack copies, %v", n, err)
	}
	shows("m1-480.webp", "m1-900.webp", "m2-480.webp", "m2-900.webp")
	// Where nothing lacks, nothing is kept.
	if n := publish(); n != 0 {
		t.Errorf("%d lack copies", n)
	}
	if media, err = st.Media.List(ctx, "w"); err != nil {
		t.Fatal(err)
	}
	if e, err := (Source{Site: s, Media: media}).Edition(0, "fares", page); err != nil || e.Source != nil ||
		len(e.Lacks) > 0 {
		t.Errorf("%+v, %v", e, err)
	}
	// A page that can't be written isn't published.
	q := &Publisher{Dir: filepath.Join(dir, "w", "release.json"), MediaDir: uploads}
	order.Pages[0].Seq = 9
	if _, err := q.Publish(ctx, st, src, order); err == nil {
		t.Error("a page was written into a file")
	}
	if infos, err := st.Pages.List(ctx, "w"); err != nil || infos[0].PublishedSeq == nil ||
		*infos[0].PublishedSeq != 0 {
		t.Errorf("published as of %v, %v", infos[0].PublishedSeq, err)
	}
}
