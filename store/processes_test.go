package store

import (
	"errors"
	"testing"

	"openplot/core/doc"
	"openplot/postgres/postgrestest"
)

// What a process was amid when it ended is gone, or done by another; what runs goes on.
func TestSweep(t *testing.T) {
	dsn := postgrestest.Database(t)
	open := func() *Store {
		st, err := Open(t.Context(), dsn)
		if err != nil {
			t.Fatal(err)
		}
		t.Cleanup(func() { st.Close() })
		return st
	}
	ctx := t.Context()
	here, gone := open(), open()
	must := func(err error) {
		t.Helper()
		if err != nil {
			t.Fatal(err)
		}
	}
	u, err := here.People.AddUser(ctx, "dana@example.org", "Dana", "three islands")
	must(err)
	begin := func(st *Store, id string) {
		t.Helper()
		must(st.Transaction(ctx, func(in *Store) error {
			if err := in.Sites.Add(ctx, &doc.Site{ID: id, Slug: id, Name: id, House: doc.StandardHouse(), Zones: doc.StandardZones()}); err != nil {
				return err
			}
			return errors.Join(in.Jobs.Making(ctx, id), in.People.AddMember(ctx, id, u.ID, Owner))
		}))
		must(st.Pages.Add(ctx, id, "", 0, &doc.Page{ID: "p" + id, Name: "Home", Title: "Home"}))
	}
	begin(here, "one")
	begin(gone, "two")
	must(here.Releases.AddPlan(ctx, Plan{Site: "one", Act: PlanPublish, By: u.ID}))
	must(here.Releases.AddPlan(ctx, Plan{Site: "one", Act: PlanPublish, By: u.ID}))
	for i, p := range []string{here.Jobs.Process(), gone.Jobs.Process()} {
		if _, err := here.DB().ExecContext(ctx, `UPDATE river_job SET state = 'running', attempt = 1, attempted_at = now(), attempted_by = ARRAY['x', $1]
			WHERE id = (SELECT id FROM river_job WHERE state <> 'running' ORDER BY id LIMIT 1)`, p); err != nil {
			t.Fatal(i, err)
		}
	}
	running := func() (n int) {
		t.Helper()
		must(here.db.GetContext(ctx, &n, `SELECT count(*) FROM river_job WHERE state = 'running'`))
		return n
	}
	// seen gives which sites somebody sees, and which there are.
	seen := func() (mine, all int) {
		t.Helper()
		sites, err := here.Sites.List(ctx, u.ID)
		must(err)
		list, n, err := here.Sites.Search(ctx, u.ID, SiteQuery{Limit: 9})
		must(err)
		if len(list) != len(sites) || n != len(sites) {
			t.Errorf("%d listed, %d sites", len(list), len(sites))
		}
		must(here.db.GetContext(ctx, &all, `SELECT count(*) FROM sites`))
		return len(sites), all
	}
	must(here.Jobs.Beat(ctx))
	must(here.Jobs.Sweep(ctx))
	if mine, all := seen(); mine != 0 || all != 2 || running() != 2 {
		t.Errorf("while both run: %d seen of %d, %d jobs", mine, all, running())
	}
	must(gone.Jobs.Leave(ctx, false)) // or it isn't heard of for a while
	must(here.Jobs.Sweep(ctx))
	if mine, all := seen(); mine != 0 || all != 1 || running() != 1 {
		t.Errorf("after one has ended: %d seen of %d, %d jobs", mine, all, running())
	}
	if err := gone.Jobs.Made(ctx, "two"); !errors.Is(err, ErrNotFound) {
		t.Errorf("a site that was given up is finished: %v", err)
	}
	must(here.Jobs.Made(ctx, "one"))
	if mine, _ := seen(); mine != 1 {
		t.Error("what was made isn't seen")
	}
	if _, err := here.Sites.BySlugFor(ctx, u.ID, "one"); err != nil {
		t.Error(err)
	}
	// A process that isn't heard of has ended.
	begin(gone, "three")
	if _, err := here.DB().ExecContext(ctx, `UPDATE processes SET seen_at = now() - interval '1 hour' WHERE id = $1`, gone.Jobs.Process()); err != nil {
		t.Fatal(err)
	}
	must(here.Jobs.Sweep(ctx))
	if _, all := seen(); all != 1 {
		t.Errorf("%d sites", all)
	}
	// On a database of one's own whoever ran before has.
	begin(gone, "four")
	must(here.Jobs.Leave(ctx, true))
	must(here.Jobs.Sweep(ctx))
	if _, all := seen(); all != 1 || running() != 1 {
		t.Errorf("%d sites, %d jobs", all, running())
	}
}
