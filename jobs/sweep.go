package jobs

import (
	"context"
	"errors"
	"slices"
	"sync"
	"sync/atomic"
	"time"

	"github.com/riverqueue/river"

	"openplot/site"
	"openplot/store"
)

// pagesAtOnce is how many pages are checked at a time, so that no processor waits while what can't be
// shared out is done.
const pagesAtOnce = 2

// stopPoll is how often it is looked whether somebody wants a sweep to end.
const stopPoll = 100 * time.Millisecond

// Sweep checks the pages of a site whose findings aren't known as they are now, and keeps how much
// was found on each. How far it has come is in the store, where it can be stopped too.
func (w *Tasks) Sweep(ctx context.Context, id string) (err error) {
	defer func() { err = errors.Join(err, w.Store.Findings.EndSweep(context.WithoutCancel(ctx), id)) }()
	st, err := w.Store.Sites.ByID(ctx, id)
	if errors.Is(err, store.ErrNotFound) {
		return nil // it was deleted
	}
	if err != nil {
		return err
	}
	src, err := site.ReadSource(ctx, w.Store, st)
	if err != nil {
		return err
	}
	known, err := w.Store.Findings.FoundOn(ctx, st.ID, w.Workshop.Stage(st, src, "").Look())
	if err != nil {
		return err
	}
	pages := slices.Clone(src.Pages)
	pages = slices.DeleteFunc(pages, func(p *store.PageInfo) bool { _, is := known[p.ID]; return is })
	if err := w.Store.Findings.SweepAt(ctx, id, 0, len(pages)); err != nil { // also when it is tried again
		return err
	}
	ctx, stop := context.WithCancel(ctx)
	defer stop()
	var watching sync.WaitGroup
	watching.Go(func() { w.watchStop(ctx, id, stop) })
	w.SweepPages(ctx, st, src, pages)
	stop()
	watching.Wait()
	return nil
}

// watchStop calls stop when somebody wants a sweep to end.
func (w *Tasks) watchStop(ctx context.Context, id string, stop func()) {
	for {
		select {
		case <-ctx.Done():
			return
		case <-time.After(stopPoll):
		}
		if under, err := w.Store.Findings.Sweep(ctx, id); err == nil && (under == nil || under.Stopping) {
			stop()
		}
	}
}

// SweepPages checks pages, and keeps how much was found on each. A page that can't be checked is told
// in the log.
func (w *Tasks) SweepPages(ctx context.Context, st *store.Site, src site.Source, pages []*store.PageInfo) {
	var next, done atomic.Int64
	var workers sync.WaitGroup
	for range pagesAtOnce {
		workers.Go(func() {
			for i := next.Add(1) - 1; int(i) < len(pages) && ctx.Err() == nil; i = next.Add(1) - 1 {
				err := w.sweepPage(ctx, st, src, pages[i])
				if err = errors.Join(err, w.Store.Findings.SweepAt(ctx, st.ID, int(done.Add(1)), len(pages))); err != nil &&
					ctx.Err() == nil {
					w.Log.Warn("checking a page", "site", st.Slug, "page", pages[i].Slug, "error", err)
				}
			}
		})
	}
	workers.Wait()
}

func (w *Tasks) sweepPage(ctx context.Context, st *store.Site, src site.Source, info *store.PageInfo) error {
	p, err := w.Store.Pages.ByID(ctx, st.ID, info.ID)
	if err != nil {
		return err
	}
	k, err := w.Checker.Page(ctx, st, src, p)
	if err != nil {
		return err
	}
	return w.Store.Findings.KeepFound(ctx, p.ID, p.Seq, k.Stage.Look(), k.Counts())
}

// sweeper checks sites.
type sweeper struct {
	river.WorkerDefaults[store.CheckSite]
	*Tasks
}

func (s *sweeper) Work(ctx context.Context, job *river.Job[store.CheckSite]) error {
	return counted(job.Kind, s.Sweep(ctx, job.Args.Site))
}

// Timeout is how long a sweep of a site may take; what is left is checked when somebody looks again.
func (s *sweeper) Timeout(*river.Job[store.CheckSite]) time.Duration { return 10 * time.Minute }
