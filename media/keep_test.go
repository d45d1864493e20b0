package media

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"image"
	"os"
	"path/filepath"
	"runtime"
	"slices"
	"strings"
	"testing"
	"time"

	"openplot/core/doc"
	"openplot/media/mediatest"
	"openplot/postgres/postgrestest"
	"openplot/store"
)

func TestMain(m *testing.M) { postgrestest.Main(m, store.Migrate) }

// kept is a Keeper with a site and somebody who uploads.
type kept struct {
	*Keeper
	t  *testing.T
	by By
}

func begin(t *testing.T, quota int64) *kept {
	t.Helper()
	st, err := store.Open(t.Context(), postgrestest.Database(t))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { st.Close() })
	if err := st.Sites.Add(t.Context(), &doc.Site{ID: "w1", Slug: "skerry", Name: "Skerry"}); err != nil {
		t.Fatal(err)
	}
	u, err := st.People.AddUser(t.Context(), "dana@example.org", "Dana", "three islands")
	if err != nil {
		t.Fatal(err)
	}
	return &kept{NewKeeper(st, t.TempDir(), quota), t, By{"w1", u.ID}}
}

func (k *kept) upload(data []byte) (*store.Medium, error) {
	return k.Keep(k.t.Context(), k.by, "x", "", bytes.NewReader(data))
}

func (k *kept) files() (names []string) {
	entries, err := os.ReadDir(k.dir)
	if err != nil {
		k.t.Fatal(err)
	}
	for _, e := range entries {
		names = append(names, e.Name())
	}
	return names
}

// Files that are made to cost much are refused, or kept, within their limits; whatever is
// refused leaves no file. This process's own memory stays what it was.
func TestHostileFiles(t *testing.T) {
	k := begin(t, DefaultQuota)
	var before, after runtime.MemStats
	files := mediatest.HostileFiles(7)
	runtime.ReadMemStats(&before)
	for _, h := range files {
		was, start := len(k.files()), time.Now()
		m, err := k.upload(h.Data)
		var p *doc.Problem
		if err != nil && !errors.As(err, &p) {
			t.Errorf("%s: %v", h.Name, err)
		}
		if err != nil && len(k.files()) != was {
			t.Errorf("%s: refused, and %d files are left", h.Name, len(k.files())-was)
		}
		if took := time.Since(start); took > openWall+5*time.Second {
			t.Errorf("%s took %s", h.Name, took)
		}
		refused := map[string]string{
			"hundreds-of-scans.jpg": "passes", "very-tall.png": "narrow", "says-it-is-huge.png": "pixels", "cut-off.jpg": "damaged", "nested.svg": "",
		}
		want, is := refused[h.Name]
		if is != (err != nil) || err != nil && !strings.Contains(p.Message, want) {
			t.Errorf("%s: %v, want a problem with %q", h.Name, err, want)
		}
		if err == nil && (m.Width < 1 || len(m.Variants) != 1) {
			t.Errorf("%s: %+v", h.Name, m)
		}
	}
	runtime.GC()
	runtime.ReadMemStats(&after)
	if grown := int64(after.Sys) - int64(before.Sys); grown > 150<<20 {
		t.Errorf("this process grew by %d MB", grown>>20)
	}
}

// A picture that is higher than WebP can be has copies that are as high as they can be.
func TestTallPictures(t *testing.T) {
	k := begin(t, DefaultQuota)
	m, err := k.upload(mediatest.Tall())
	if err != nil {
		t.Fatal(err)
	}
	if m.Width != 100 || m.Height != 20000 || m.CopiesLeft != 1 || m.Variants[0].Width != 81 {
		t.Fatalf("%+v", m)
	}
	job := store.MakeCopies{Site: "w1", Medium: m.ID, Original: m.Original}
	for range 2 {
		if err := k.Finish(t.Context(), job); err != nil {
			t.Fatal(err)
		}
		job.Modern = true
	}
	if m, err = k.store.Media.ByID(t.Context(), "w1", m.ID); err != nil || m.CopiesLeft != 0 {
		t.Errorf("%d left, %v", m.CopiesLeft, err)
	}
}

// A picture is brought to another site while its copies are being made, and both get all of them.
func TestBringing(t *testing.T) {
	k := begin(t, DefaultQuota)
	m, err := k.upload(pngOf(t, quarters(900, 600)))
	if err != nil {
		t.Fatal(err)
	}
	brought, err := k.Bring(t.Context(), By{Site: "w1", User: k.by.User}, m)
	if err != nil {
		t.Fatal(err)
	}
	var made [2]*store.Medium
	for i, id := range []string{m.ID, brought.ID} {
		job := store.MakeCopies{Site: "w1", Medium: id, Original: m.Original}
		for _, job.Modern = range []bool{false, true} {
			if err := k.Finish(t.Context(), job); err != nil {
				t.Fatal(err)
			}
		}
		if made[i], err = k.store.Media.ByID(t.Context(), "w1", id); err != nil {
			t.Fatal(err)
		}
		for _, c := range made[i].Variants {
			if _, err := os.Stat(k.file(c.File)); err != nil {
				t.Error(err)
			}
		}
	}
	if a, b := made[0], made[1]; m.CopiesLeft == 0 || a.CopiesLeft+b.CopiesLeft != 0 || len(a.Variants) < 2 ||
		!slices.Equal(a.Variants, b.Variants) ||
		a.Bytes != b.Bytes {
		t.Errorf("%d copies left at first, then %+v and %+v", m.CopiesLeft, a, b)
	}
}

// A process that takes more than its share ends, and tells of the file.
func TestLimits(t *testing.T) {
	name := filepath.Join(t.TempDir(), "x.png")
	if err := os.WriteFile(name, pngOf(t, image.NewNRGBA(image.Rect(0, 0, 6000, 6000))), 0o600); err != nil {
		t.Fatal(err)
	}
	for what, tt := range map[string]struct {
		task task
		wall time.Duration
	}{
		"memory": {task{Do: doOpen, Memory: 260 << 20, CPU: openCPU}, time.Minute},
		"time":   {task{Do: doOpen, Memory: openMemory, CPU: openCPU}, 20 * time.Millisecond},
	} {
		_, _, err := run(t.Context(), tt.task, tt.wall, name, nil)
		if !errors.Is(err, errTooMuch) {
			t.Errorf("%s: %v", what, err)
		}
	}
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	if _, _, err := run(ctx, task{Do: doOpen, Memory: openMemory, CPU: openCPU}, time.Minute, name, nil); !errors.Is(
		err,
		context.Canceled,
	) {
		t.Errorf("called off: %v", err)
	}
}

// Nobody uses up a site's room, or the machine's time.
func TestQuotas(t *testing.T) {
	k := begin(t, 20_000)
	data := pngOf(t, quarters(600, 400))
	var p *doc.Problem
	n := 0
	for ; n < 100; n++ {
		if _, err := k.upload(data); errors.As(err, &p) {
			break
		} else if err != nil {
			t.Fatal(err)
		}
	}
	if p == nil || !strings.Contains(p.Message, "as much as they may") || n == 0 {
		t.Fatalf("after %d: %v", n, p)
	}
	if _, err := k.Keep(t.Context(), By{Site: "w1"}, "x", "", bytes.NewReader(data)); err != nil {
		t.Errorf("the program itself: %v", err)
	}
	k = begin(t, DefaultQuota)
	if err := k.store.Jobs.NotePictureWork(t.Context(), "w1", k.by.User, store.Opening, personHour); err != nil {
		t.Fatal(err)
	}
	if _, err := k.upload(data); !errors.As(err, &p) || !strings.Contains(p.Message, "within this hour") {
		t.Errorf("somebody who took much work: %v", err)
	}
	other, err := k.store.People.AddUser(t.Context(), "other@example.org", "Other", "three islands")
	if err != nil {
		t.Fatal(err)
	}
	k.by.User = other.ID
	if _, err := k.upload(data); err != nil {
		t.Errorf("somebody else: %v", err)
	}
	if err := k.store.Jobs.NotePictureWork(t.Context(), "w1", "", store.Copying, siteDay); err != nil {
		t.Fatal(err)
	}
	if _, err := k.upload(data); !errors.As(err, &p) {
		t.Errorf("a site whose copies took half a day: %v", err)
	}
}

// Files that nothing refers to go when they are old enough, and no others.
func TestCollect(t *testing.T) {
	k := begin(t, DefaultQuota)
	m, err := k.upload(pngOf(t, quarters(600, 400)))
	if err != nil {
		t.Fatal(err)
	}
	film, err := k.Keep(t.Context(), k.by, "x.gif", "", bytes.NewReader(mediatest.Moving()))
	if err != nil {
		t.Fatal(err)
	}
	for _, name := range []string{"fold-480.webp", ".new-123", "fyoung-480.webp"} {
		if err := os.WriteFile(k.file(name), []byte("x"), 0o600); err != nil {
			t.Fatal(err)
		}
	}
	long := time.Now().Add(-48 * time.Hour)
	for _, name := range k.files() {
		if !strings.HasPrefix(name, "fyoung") {
			if err := os.Chtimes(k.file(name), long, long); err != nil {
				t.Fatal(err)
			}
		}
	}
	if n, _, err := k.Collect(t.Context(), time.Now().Add(-24*time.Hour)); n != 2 || err != nil {
		t.Errorf("%d collected, %v: %v", n, err, k.files())
	}
	if err := k.store.Media.Delete(t.Context(), "w1", film.ID); err != nil {
		t.Fatal(err)
	}
	if n, _, err := k.Collect(t.Context(), time.Now().Add(-24*time.Hour)); n != 0 || err != nil {
		t.Errorf("one that can be had back: %d collected, %v", n, err)
	}
	if err := k.store.Media.Forget(t.Context(), time.Now().Add(time.Hour)); err != nil {
		t.Fatal(err)
	}
	if n, _, err := k.Collect(t.Context(), time.Now().Add(-24*time.Hour)); n != 2 || err != nil {
		t.Errorf("a deleted one: %d collected, %v", n, err)
	}
	for _, name := range []string{m.Original, m.Variants[0].File} {
		if _, err := os.Stat(k.file(name)); err != nil {
			t.Error(err)
		}
	}
}

// What is missing is found, and made again where it can be.
func TestCheck(t *testing.T) {
	k := begin(t, DefaultQuota)
	whole, err := k.upload(pngOf(t, quarters(600, 400)))
	if err != nil {
		t.Fatal(err)
	}
	job := store.MakeCopies{Site: "w1", Medium: whole.ID, Original: whole.Original}
	if err := k.Finish(t.Context(), job); err != nil {
		t.Fatal(err)
	}
	job.Modern = true
	if err := k.Finish(t.Context(), job); err != nil {
		t.Fatal(err)
	}
	check := func(repair bool) (told string) {
		if err := k.Check(t.Context(), repair, func(format string, args ...any) { told += fmt.Sprintf(format, args...) + "\n" }); err != nil {
			t.Fatal(err)
		}
		return told
	}
	if told := check(true); told != "" {
		t.Errorf("a sound one: %s", told)
	}
	m, err := k.store.Media.ByID(t.Context(), "w1", whole.ID)
	if err != nil {
		t.Fatal(err)
	}
	sum := int64(0)
	for _, name := range k.files() {
		fi, err := os.Stat(k.file(name))
		if err != nil {
			t.Fatal(err)
		}
		sum += fi.Size()
	}
	if m.Bytes != sum {
		t.Errorf("it says %d bytes, its files have %d", m.Bytes, sum)
	}
	lost := m.Variants[1].File
	if err := os.Remove(k.file(lost)); err != nil {
		t.Fatal(err)
	}
	if told := check(false); !strings.Contains(told, lost) {
		t.Errorf("%q", told)
	}
	check(true)
	job.Modern = false
	if err := k.Finish(t.Context(), job); err != nil {
		t.Fatal(err)
	}
	job.Modern = true
	if err := k.Finish(t.Context(), job); err != nil {
		t.Fatal(err)
	}
	if told := check(false); told != "" {
		t.Errorf("after the repair: %s", told)
	}
}
