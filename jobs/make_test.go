package jobs

import (
	"bytes"
	"errors"
	"image"
	"image/png"
	"os"
	"path/filepath"
	"testing"
	"time"

	"openplot/core/doc"
	"openplot/media"
	"openplot/store"
)

// copied adds the wish for a copy of the site.
func (y *yard) copied(slug string) *store.SiteWork {
	y.t.Helper()
	w := &store.SiteWork{ID: store.NewID("k"), User: y.owner, Name: "A copy", Slug: slug, Source: "w1"}
	y.must(y.Store.Works.Add(y.t.Context(), w))
	return w
}

// A copy of a site is made from the queue, and told as done; what it has is the other's.
func TestSitesAreMadeFromTheQueue(t *testing.T) {
	y := begin(t)
	ctx := t.Context()
	stop, err := Run(ctx, y.Tasks)
	y.must(err)
	defer func() { _ = stop(t.Context()) }()
	w := y.copied("copy")
	for end := time.Now().Add(20 * time.Second); w.Going() || w.State == ""; time.Sleep(20 * time.Millisecond) {
		if w, err = y.Store.Works.ByID(ctx, w.ID); err != nil || time.Now().After(end) {
			t.Fatalf("%+v, %v", w, err)
		}
	}
	st, err := y.Store.Sites.BySlugFor(ctx, y.owner, "copy")
	if err != nil || w.State != store.WorkDone || w.Made != "copy" || w.Done != w.Parts {
		t.Fatalf("%+v, %v", w, err)
	}
	pages, err := y.Store.Pages.List(ctx, st.ID)
	log, lerr := y.Store.Audit.List(ctx, st.ID, 9)
	if err != nil || lerr != nil || len(pages) != 2 || len(log) != 1 || log[0].Who != "owner@example.org" {
		t.Errorf("%d pages, log %+v, %v %v", len(pages), log, err, lerr)
	}
}

// A site that somebody doesn't want any more while it is made leaves nothing, neither of itself nor of
// its file; one that was only waiting is forgotten at once.
func TestAMakingThatIsStoppedLeavesNothing(t *testing.T) {
	y := begin(t)
	ctx := t.Context()
	by := media.By{Site: "w1", User: y.owner}
	for i := range 40 { // so that it takes longer than it takes to look whether it is to stop
		var b bytes.Buffer
		y.must(png.Encode(&b, image.NewGray(image.Rect(0, 0, 300+i, 400))))
		_, err := y.Pictures.Keep(ctx, by, "a.png", "A", &b)
		y.must(err)
	}
	waiting := y.copied("waiting")
	y.must(y.Store.Works.Stop(ctx, y.owner, waiting.ID))
	if _, err := y.Store.Works.ByID(ctx, waiting.ID); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("what waited: %v", err)
	}
	w := y.copied("copy")
	y.must(y.Store.Works.At(ctx, w.ID, 0, 1)) // as if it had begun
	y.must(y.Store.Works.Stop(ctx, y.owner, w.ID))
	y.must(y.Make(ctx, w.ID))
	gone := func(slug, id string) (bool, bool) {
		_, err := y.Store.Works.ByID(ctx, id)
		taken, err2 := y.Store.Sites.Taken(ctx, slug)
		if err2 != nil || err != nil && !errors.Is(err, store.ErrNotFound) {
			t.Fatal(err, err2)
		}
		return err != nil, !taken
	}
	if told, site := gone("copy", w.ID); !told || !site {
		t.Errorf("stopped before: it isn't told any more %v, there is no site %v", told, site)
	}
	// Stopped meanwhile, it leaves nothing, or is there in whole where it was ready before that was seen.
	w = y.copied("other")
	made := make(chan error)
	go func() { made <- y.Make(ctx, w.ID) }()
	for begun := false; !begun; time.Sleep(time.Millisecond) {
		now, err := y.Store.Works.ByID(ctx, w.ID)
		y.must(err)
		begun = now.State != store.WorkWaiting
	}
	y.must(y.Store.Works.Stop(ctx, y.owner, w.ID))
	y.must(<-made)
	if _, none := gone("other", w.ID); !none {
		site, err := y.Store.Sites.BySlug(ctx, "other")
		y.must(err)
		if pictures, err := y.Store.Media.List(ctx, site.ID); err != nil || len(pictures) != 40 {
			t.Errorf("stopped meanwhile, it is there with %d of 40 pictures: %v", len(pictures), err)
		}
	}
}

// What can't be made says why, keeps its file, and can be tried again; nobody else's is touched.
func TestAMakingThatFails(t *testing.T) {
	y := begin(t)
	ctx := t.Context()
	w := &store.SiteWork{ID: "k1", User: y.owner, Name: "Bad", File: "k1.site.zip"}
	file := filepath.Join(y.Maker.MediaDir, w.File)
	y.must(os.WriteFile(file, []byte("no archive"), 0o600))
	y.must(y.Store.Works.Add(ctx, w))
	var problem *doc.Problem
	if err := y.Make(ctx, w.ID); !errors.As(err, &problem) || problem.Field != "File" {
		t.Fatal(err)
	}
	if use, err := y.Store.Media.FilesInUse(ctx); err != nil || !use[w.File] {
		t.Errorf("its file isn't in use: %v", err)
	}
	y.must(y.Store.Works.Fail(ctx, w.ID, problem.Sentence()))
	other, err := y.Store.People.AddUser(ctx, "other@example.org", "Other", "three islands")
	y.must(err)
	y.must(y.Store.Works.Stop(ctx, other.ID, w.ID))
	y.must(y.Store.Works.Retry(ctx, other.ID, w.ID))
	if now, err := y.Store.Works.ByID(ctx, w.ID); err != nil || now.State != store.WorkFailed || now.Problem == "" {
		t.Fatalf("%+v, %v", now, err)
	}
	y.must(y.Store.Works.Retry(ctx, y.owner, w.ID))
	if now, err := y.Store.Works.ByID(ctx, w.ID); err != nil || now.State != store.WorkWaiting || now.Problem != "" {
		t.Errorf("%+v, %v", now, err)
	}
	// A copy of a site that isn't one's own any more is none.
	copied := &store.SiteWork{ID: "k2", User: other.ID, Name: "Theirs", Slug: "theirs", Source: "w1"}
	y.must(y.Store.Works.Add(ctx, copied))
	if err := y.Make(ctx, copied.ID); !errors.As(err, &problem) || problem.Field != "Copy" {
		t.Error(err)
	}
}
