package backup

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"sync/atomic"
	"testing"
	"time"

	"github.com/jmoiron/sqlx"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/ready"
	"openplot/media"
	"openplot/media/mediatest"
	"openplot/postgres"
	"openplot/postgres/postgrestest"
	"openplot/site"
	"openplot/store"
)

func TestMain(m *testing.M) { postgrestest.Main(m, store.Migrate) }

// empty is a place with nothing in it.
func empty(t *testing.T) Place {
	t.Helper()
	data := t.TempDir()
	return Place{
		DSN: postgrestest.Empty(
			t,
		), Data: data, Media: filepath.Join(data, "media"), Published: filepath.Join(data, "published"), Programs: postgres.Programs,
	}
}

// full is a place with a site, a picture, a log of edits and what was published.
func full(t *testing.T) (Place, *store.Store) {
	t.Helper()
	ctx, p := t.Context(), empty(t)
	st, err := store.Open(ctx, p.DSN)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { st.Close() })
	must := func(err error) {
		t.Helper()
		if err != nil {
			t.Fatal(err)
		}
	}
	s := &doc.Site{ID: "w1", Slug: "skerry", Name: "Skerry", House: doc.StandardHouse(), Zones: doc.StandardZones()}
	must(st.Sites.Add(ctx, s))
	u, err := st.People.AddUser(ctx, "dana@example.org", "Dana", "three islands")
	must(err)
	must(st.People.AddMember(ctx, s.ID, u.ID, store.Owner))
	home, err := ready.NewPage("contact", "Home", nil, store.NewID, nil)
	must(err)
	must(st.Pages.Add(ctx, s.ID, "", 0, home))
	pictures := media.NewKeeper(st, p.Media, media.DefaultQuota)
	m, err := pictures.Keep(
		ctx,
		media.By{Site: s.ID, User: u.ID},
		"tall.png",
		"A line",
		bytes.NewReader(mediatest.Tall()),
	)
	must(err)
	for i := range 5 {
		c := edit.Command{Op: "rename", Node: home.Sections[0].ID, Value: fmt.Sprint("Name ", i)}
		_, err := st.Pages.Edit(ctx, home.ID, u.ID, int64(i), c, func(d *doc.Page) (*edit.Result, error) {
			return edit.Apply(
				d,
				c,
				edit.Env{Site: s, NewID: store.NewID, Medium: func(string) doc.MediumSort { return doc.PictureMedium }},
			)
		})
		must(err)
	}
	c := edit.Command{Op: "section.picture", Node: home.Sections[1].ID, Value: m.ID}
	_, err = st.Pages.Edit(ctx, home.ID, u.ID, 5, c, func(d *doc.Page) (*edit.Result, error) {
		return edit.Apply(
			d,
			c,
			edit.Env{Site: s, NewID: store.NewID, Medium: func(string) doc.MediumSort { return doc.PictureMedium }},
		)
	})
	must(err)
	publisher := &site.Publisher{Dir: p.Published, MediaDir: p.Media}
	must(publisher.PublishAll(ctx, st, &store.Site{Site: *s}))
	return p, st
}

// contents are all rows of all tables but sessions, and all files.
func contents(t *testing.T, p Place) map[string]string {
	t.Helper()
	db, err := sqlx.Open("pgx", p.DSN)
	if err != nil {
		t.Fatal(err)
	}
	defer db.Close()
	var tables []string
	if err := db.Select(&tables, `SELECT relname FROM pg_class WHERE relnamespace = 'public'::regnamespace AND relkind = 'r' AND relname <> 'sessions'`); err != nil {
		t.Fatal(err)
	}
	all := map[string]string{}
	for _, name := range tables {
		var rows []string
		if err := db.Select(&rows, `SELECT to_json(t)::text FROM "`+name+`" t ORDER BY 1`); err != nil {
			t.Fatal(err)
		}
		all["table "+name] = strings.Join(rows, "\n")
	}
	for _, folder := range []string{p.Media, p.Published} {
		err := filepath.WalkDir(folder, func(name string, e os.DirEntry, err error) error {
			if err != nil || e.IsDir() {
				return err
			}
			rest, _ := filepath.Rel(p.Data, name)
			b, err := os.ReadFile(name)
			all[rest] = string(b)
			return err
		})
		if err != nil {
			t.Fatal(err)
		}
	}
	return all
}

// Every row and every file is as it was.
func TestRestoreBringsEverythingBack(t *testing.T) {
	p, st := full(t)
	archive := filepath.Join(t.TempDir(), "plot.backup")
	if err := Write(t.Context(), st, p, archive); err != nil {
		t.Fatal(err)
	}
	if fi, err := os.Stat(archive); err != nil || fi.Mode().Perm() != 0o600 {
		t.Errorf("the archive is anybody's to read: %v, %v", fi.Mode(), err)
	}
	if left, err := filepath.Glob(filepath.Join(p.Data, ".*")); err != nil || len(left) > 0 {
		t.Errorf("left behind: %v", left)
	}
	q := empty(t)
	if err := Restore(t.Context(), q, archive); err != nil {
		t.Fatal(err)
	}
	want, got := contents(t, p), contents(t, q)
	if len(want) < 25 || want["table page_log"] == "" || want["published/w1/release.json"] == "" {
		t.Fatalf("too little to compare: %d", len(want))
	}
	for name, was := range want {
		if got[name] != was {
			t.Errorf("%s differs: %d bytes, %d before", name, len(got[name]), len(was))
		}
	}
	for name := range got {
		if _, ok := want[name]; !ok {
			t.Errorf("%s is new", name)
		}
	}
	again, err := store.Open(t.Context(), q.DSN)
	if err != nil {
		t.Fatal(err)
	}
	defer again.Close()
	if _, err := again.People.SignIn(t.Context(), "dana@example.org", "three islands"); err != nil {
		t.Error(err)
	}
	if err := Restore(t.Context(), q, archive); err == nil || !strings.Contains(err.Error(), "isn't empty") {
		t.Errorf("onto what is there: %v", err)
	}
}

// While it is written, edits and publications go on, and what is in it agrees: what is
// published is of the edit that the database says.
func TestBackupWhileItRuns(t *testing.T) {
	p, st := full(t)
	ctx, stop := context.WithCancel(t.Context())
	s, err := st.Sites.BySlug(ctx, "skerry")
	if err != nil {
		t.Fatal(err)
	}
	u, err := st.People.UserByEmail(ctx, "dana@example.org")
	if err != nil {
		t.Fatal(err)
	}
	publisher := &site.Publisher{Dir: p.Published, MediaDir: p.Media}
	var edits atomic.Int64
	done := make(chan error, 1)
	go func() {
		for ctx.Err() == nil {
			page, err := st.Pages.At(t.Context(), s.ID, "")
			if err == nil {
				c := edit.Command{Op: "page.set", Setting: "title", Value: fmt.Sprint("As of ", page.Seq+1)}
				_, err = st.Pages.Edit(
					t.Context(),
					page.ID,
					u.ID,
					page.Seq,
					c,
					func(d *doc.Page) (*edit.Result, error) {
						return edit.Apply(d, c, edit.Env{Site: &s.Site, NewID: store.NewID})
					},
				)
			}
			if err == nil {
				err = publisher.PublishAll(t.Context(), st, s)
			}
			if err != nil {
				done <- err
				return
			}
			edits.Add(1)
		}
		done <- nil
	}()
	for i := range 3 {
		for was := edits.Load(); edits.Load() < was+2; {
			time.Sleep(5 * time.Millisecond)
		}
		archive := filepath.Join(t.TempDir(), fmt.Sprint(i))
		if err := Write(t.Context(), st, p, archive); err != nil {
			t.Fatal(err)
		}
		q := empty(t)
		if err := Restore(t.Context(), q, archive); err != nil {
			t.Fatal(err)
		}
		db, err := sqlx.Open("pgx", q.DSN)
		if err != nil {
			t.Fatal(err)
		}
		var seq int64
		err = db.Get(&seq, `SELECT published_seq FROM pages`)
		db.Close()
		if err != nil {
			t.Fatal(err)
		}
		html, err := site.Read(os.DirFS(filepath.Join(q.Published, s.ID)), "")
		if want := fmt.Sprintf("<title>As of %d – ", seq); err != nil || !bytes.Contains(html, []byte(want)) {
			t.Errorf("the page isn't %s: %.200s, %v", want, html, err)
		}
	}
	stop()
	if err := <-done; err != nil {
		t.Error(err)
	}
}

// What isn't a whole archive is refused before anything is written.
func TestDamagedArchives(t *testing.T) {
	p, st := full(t)
	archive := filepath.Join(t.TempDir(), "plot.backup")
	if err := Write(t.Context(), st, p, archive); err != nil {
		t.Fatal(err)
	}
	sound, err := os.ReadFile(archive)
	if err != nil {
		t.Fatal(err)
	}
	flipped := bytes.Clone(sound)
	flipped[len(flipped)/2] ^= 0x10
	for name, b := range map[string][]byte{"cut": sound[:len(sound)*9/10], "flipped": flipped, "nothing": nil, "words": []byte("these are words")} {
		bad := filepath.Join(t.TempDir(), name)
		if err := os.WriteFile(bad, b, 0o600); err != nil {
			t.Fatal(err)
		}
		q := empty(t)
		if err := Restore(t.Context(), q, bad); err == nil {
			t.Errorf("%s: restored", name)
		} else if !errors.Is(err, errArchive) {
			t.Errorf("%s: %v", name, err)
		}
		if entries, err := os.ReadDir(q.Data); err != nil || len(entries) > 0 {
			t.Errorf("%s: something was written: %v", name, entries)
		}
		if err := q.empty(t.Context()); err != nil {
			t.Errorf("%s: %v", name, err)
		}
	}
}
