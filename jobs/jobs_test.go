package jobs

import (
	"bytes"
	"context"
	"errors"
	"image"
	"image/png"
	"log/slog"
	"os"
	"path/filepath"
	"slices"
	"testing"
	"time"

	"openplot/bring"
	"openplot/core/doc"
	"openplot/core/edit/edittest"
	"openplot/dns"
	"openplot/domains"
	"openplot/media"
	"openplot/memory"
	"openplot/postgres/postgrestest"
	"openplot/site"
	"openplot/store"
	"openplot/web/model"
)

func TestMain(m *testing.M) { postgrestest.Main(m, store.Migrate) }

// yard is a site with two pages and its owner, and what does the jobs.
type yard struct {
	*Tasks
	t     *testing.T
	owner string
}

func begin(t *testing.T) *yard {
	t.Helper()
	ctx := t.Context()
	st, err := store.Open(ctx, postgrestest.Database(t))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { st.Close() })
	y := &yard{t: t}
	files, hosts, log := t.TempDir(), site.Hosts{Scheme: "http", Base: "localhost:1"}, slog.New(slog.DiscardHandler)
	workshop, err := model.NewWorkshop(files, hosts.Uploads()+"/media/", media.ReadPixels, memory.New(64<<20), log)
	y.must(err)
	pictures := media.NewKeeper(st, files, media.DefaultQuota).Plain()
	y.Tasks = &Tasks{
		Store: st, Pictures: pictures, Maker: &bring.Maker{Store: st, Pictures: pictures, MediaDir: files}, Workshop: workshop, Checker: model.NewChecker(st, workshop), Log: log,
		Publisher: &site.Publisher{Dir: t.TempDir(), MediaDir: files, Hosts: hosts},
		Domains: &domains.Watch{
			Store: st,
			DNS:   &dns.StandIn{File: filepath.Join(files, "dns.json")},
			Hosts: hosts,
			Log:   log,
		},
	}
	y.must(
		st.Sites.Add(
			ctx,
			&doc.Site{ID: "w1", Slug: "skerry", Name: "Skerry", House: doc.StandardHouse(), Zones: doc.StandardZones()},
		),
	)
	owner, err := st.People.AddUser(ctx, "owner@example.org", "Owner", "three islands")
	y.must(err)
	y.owner = owner.ID
	y.must(st.People.AddMember(ctx, "w1", owner.ID, store.Owner))
	for i, slug := range []string{"", "fares"} {
		page := &doc.Page{
			ID:       "p" + slug,
			Name:     "Page " + slug,
			Title:    "Page " + slug,
			Sections: edittest.Sections(store.NewID),
		}
		y.must(st.Pages.Add(ctx, "w1", slug, i, page))
	}
	return y
}

func (y *yard) must(err error) {
	y.t.Helper()
	if err != nil {
		y.t.Fatal(err)
	}
}

// run does what is queued until the test ends.
func (y *yard) run() {
	y.t.Helper()
	stop, err := Run(y.t.Context(), y.Tasks)
	y.must(err)
	y.t.Cleanup(func() { _ = stop(context.Background()) })
}

// until waits for what comes about in the background.
func (y *yard) until(what string, is func() bool) {
	y.t.Helper()
	for range 600 {
		if is() {
			return
		}
		time.Sleep(50 * time.Millisecond)
	}
	y.t.Fatalf("%s: it doesn't come about", what)
}

// Pages are drawn once somebody wants them, and then again only when they change.
func TestDrawing(t *testing.T) {
	y := begin(t)
	undrawn := func() int {
		st, err := y.Store.Sites.ByID(t.Context(), "w1")
		y.must(err)
		pages, err := y.Store.Drawings.Undrawn(t.Context(), "w1", model.DrawingLook(st.Version, y.Publisher.Hosts), 10)
		y.must(err)
		return len(pages)
	}
	if undrawn() != 2 {
		t.Errorf("%d to draw at first", undrawn())
	}
	y.must(y.Store.Drawings.Want(t.Context(), "skerry"))
	y.run()
	y.until("drawn", func() bool { return undrawn() == 0 })
	if err := y.Draw(t.Context(), "nowhere"); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("no such site: %v", err)
	}
}

// Copies of a picture are made, all of them; a picture that can't be read waits with a reason.
func TestCopying(t *testing.T) {
	y := begin(t)
	keep := func() *store.Medium {
		var b bytes.Buffer
		y.must(png.Encode(&b, image.NewGray(image.Rect(0, 0, 1000, 600))))
		m, err := y.Pictures.Keep(t.Context(), media.By{Site: "w1", User: y.owner}, "grey.png", "", &b)
		y.must(err)
		return m
	}
	sound, broken := keep(), keep()
	name := filepath.Join(y.Publisher.MediaDir, broken.Original)
	whole, err := os.ReadFile(name)
	y.must(err)
	y.must(os.WriteFile(name, whole[:100], 0o600)) // as on a disk that fails
	y.run()
	of := func(id string) *store.Medium {
		m, err := y.Store.Media.ByID(t.Context(), "w1", id)
		y.must(err)
		return m
	}
	y.until("copied", func() bool { return of(sound.ID).CopiesLeft == 0 })
	y.until("told why not", func() bool { return of(broken.ID).Problem != "" })
	if sound.CopiesLeft == 0 || len(of(sound.ID).Variants) != 1+sound.CopiesLeft {
		t.Errorf("%d were left to make, now there are %+v", sound.CopiesLeft, of(sound.ID).Variants)
	}
}

// A plan is carried out at its minute, and by nobody who may not publish any more.
func TestPlans(t *testing.T) {
	y := begin(t)
	ctx := t.Context()
	plan := func(act string, pages ...string) string {
		y.must(y.Store.Releases.AddPlan(ctx, store.Plan{
			ID: store.NewID("l"), Site: "w1", Act: act, Pages: pages, At: time.Now().Add(time.Hour), By: y.owner,
		}))
		plans, err := y.Store.Releases.Plans(ctx, "w1")
		y.must(err)
		return plans[len(plans)-1].ID
	}
	live := func(page string) bool {
		infos, err := y.Store.Pages.List(ctx, "w1")
		y.must(err)
		i := slices.IndexFunc(infos, func(p *store.PageInfo) bool { return p.ID == page })
		return infos[i].PublishedAt != nil
	}
	id := plan(store.PlanPublish, "pfares")
	y.must(y.CarryOut(ctx, id))
	if !live("pfares") || live("p") {
		t.Errorf("published: %v, and the other: %v", live("pfares"), live("p"))
	}
	if _, err := y.Store.Releases.Plan(ctx, id); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("the plan is still there: %v", err)
	}
	y.must(y.CarryOut(ctx, id)) // a job that is done again does nothing
	y.must(y.CarryOut(ctx, plan(store.PlanWithdraw, "pfares")))
	if live("pfares") {
		t.Error("it isn't withdrawn")
	}
	ended := plan(store.PlanPublish, "p")
	ready := y.counting(ctx, ended, 2)
	y.must(ready())
	if p, err := y.Store.Releases.Plan(ctx, ended); err != nil || p.Done != 1 || p.Parts != 2 {
		t.Errorf("how far it has come: %+v, %v", p, err)
	}
	y.must(y.Store.Releases.DropPlan(ctx, "w1", ended))
	time.Sleep(toldEvery)
	if err := ready(); !errors.Is(err, errStopped) {
		t.Errorf("it goes on though it was ended: %v", err)
	}
	late := plan(store.PlanPublish, "p")
	other, err := y.Store.People.AddUser(ctx, "other@example.org", "Other", "three islands")
	y.must(err)
	y.must(y.Store.People.AddMember(ctx, "w1", other.ID, store.Owner))
	y.must(y.Store.Members.Set(ctx, "w1", y.owner, ""))
	y.must(y.CarryOut(ctx, late))
	if p, err := y.Store.Releases.Plan(ctx, late); err != nil || p.Problem == "" || live("p") {
		t.Errorf("by somebody who may not: %+v, %v", p, err)
	}
}

// A site's pages are checked in the background: how far that has come is in the store, where it is
// stopped too, and what was found stays.
func TestSweeping(t *testing.T) {
	y := begin(t)
	ctx := t.Context()
	known := func() int {
		st, err := y.Store.Sites.ByID(ctx, "w1")
		y.must(err)
		src, err := site.ReadSource(ctx, y.Store, st)
		y.must(err)
		found, err := y.Store.Findings.FoundOn(ctx, "w1", y.Workshop.Stage(st, src, "").Look())
		y.must(err)
		return len(found)
	}
	y.must(y.Store.Findings.BeginSweep(ctx, "w1", 2))
	y.must(y.Store.Findings.BeginSweep(ctx, "w1", 2)) // it is under way
	if w, err := y.Store.Findings.Sweep(ctx, "w1"); err != nil || w == nil || w.Done != 0 || w.Of != 2 {
		t.Errorf("at first: %+v, %v", w, err)
	}
	// Nobody works yet: who stops it waits no longer than they said.
	y.must(y.Store.Findings.StopSweep(ctx, "w1", 10*time.Millisecond))
	if w, err := y.Store.Findings.Sweep(ctx, "w1"); err != nil || !w.Stopping {
		t.Errorf("stopped: %+v, %v", w, err)
	}
	stopped, cancel := context.WithCancel(ctx)
	cancel()
	y.SweepPages(stopped, &store.Site{Site: doc.Site{ID: "w1"}}, site.Source{}, []*store.PageInfo{{ID: "p"}})
	if known() != 0 {
		t.Error("pages are checked though it was stopped")
	}
	y.must(y.Store.Findings.EndSweep(ctx, "w1"))
	y.must(y.Sweep(ctx, "w1"))
	if w, err := y.Store.Findings.Sweep(ctx, "w1"); err != nil || w != nil || known() != 2 {
		t.Errorf("at its end: %+v, %v, %d pages", w, err, known())
	}
	y.must(y.Sweep(ctx, "another")) // one that was deleted
}

// What is no longer to be kept is forgotten, and what is to be is kept.
func TestUpkeep(t *testing.T) {
	y := begin(t)
	old, fresh := filepath.Join(y.Publisher.MediaDir, "old.webp"), filepath.Join(y.Publisher.MediaDir, "fresh.webp")
	for _, name := range []string{old, fresh} {
		y.must(os.WriteFile(name, []byte("x"), 0o600))
	}
	y.must(os.Chtimes(old, time.Time{}, time.Now().Add(-2*FileGrace)))
	y.must(y.Forget(t.Context()))
	if _, err := os.Stat(old); !errors.Is(err, os.ErrNotExist) {
		t.Errorf("a file that nothing refers to: %v", err)
	}
	if _, err := os.Stat(fresh); err != nil {
		t.Errorf("one that is being uploaded, perhaps: %v", err)
	}
	if pages, err := y.Store.Pages.List(t.Context(), "w1"); err != nil || len(pages) != 2 {
		t.Errorf("%d pages are left, %v", len(pages), err)
	}
}
