package jobs

import (
	"context"
	"errors"
	"strings"
	"sync"
	"time"

	"github.com/riverqueue/river"

	"openplot/core/doc"
	"openplot/core/rights"
	"openplot/store"
)

// toldEvery is how often it is noted how far what takes long has come.
const toldEvery = 200 * time.Millisecond

// errStopped is that somebody doesn't want any more what was being done.
var errStopped = errors.New("somebody stopped it")

// Make makes a site that somebody wants of a file or of another one, and notes how far that has come
// and what became of it. Stopped, it leaves nothing. Errors that are *doc.Problem aren't tried again.
func (w *Tasks) Make(ctx context.Context, id string) error {
	work, err := w.Store.Works.ByID(ctx, id)
	if errors.Is(err, store.ErrNotFound) || err == nil && !work.Going() {
		return nil // it was stopped, or is done
	}
	if err != nil {
		return err
	}
	if work.Stopping { // before it was begun again
		w.Maker.Release(work.File)
		return w.Store.Works.Drop(ctx, id)
	}
	making, stop := context.WithCancelCause(ctx)
	var watching sync.WaitGroup
	watching.Go(func() { w.watchWork(making, id, func() { stop(errStopped) }) })
	made, lost, err := w.make(making, work)
	stopped := errors.Is(context.Cause(making), errStopped)
	stop(nil)
	watching.Wait()
	switch {
	case err == nil:
		about := made.Slug
		if work.File != "" {
			about += " from a file"
		}
		if len(lost) > 0 {
			about += "; not as in the file: " + strings.Join(lost, "; ")
		}
		err = errors.Join(
			w.Store.Works.End(ctx, id, made.ID, strings.Join(lost, "; ")),
			w.Store.Audit.Note(ctx, store.Noted{
				Site: made.ID, User: work.User, Who: work.Email, Act: "site added", About: about, Address: work.Address,
			}),
		)
	case stopped:
		err = w.Store.Works.Drop(ctx, id)
	default:
		return err // the file is still needed
	}
	w.Maker.Release(work.File)
	return err
}

func (w *Tasks) make(ctx context.Context, work *store.SiteWork) (*store.Site, []string, error) {
	var last time.Time
	tell := func(done, of int) {
		if time.Since(last) < toldEvery {
			return
		}
		last = time.Now()
		if err := w.Store.Works.At(ctx, work.ID, done, of); err != nil && ctx.Err() == nil {
			w.Log.Warn("noting a work", "id", work.ID, "error", err)
		}
	}
	tell(0, 1)
	if work.File != "" {
		f, err := w.Maker.Held(work.File)
		if err != nil {
			return nil, nil, err
		}
		defer f.Close()
		return w.Maker.FromFile(ctx, work.User, work.Name, f, tell)
	}
	from, err := w.Store.Sites.ByIDFor(ctx, work.User, work.Source)
	if errors.Is(err, store.ErrNotFound) || err == nil && !from.Role.May(rights.Publish) {
		return nil, nil, doc.Problemf("Copy", "can't be of a site that isn't yours any more")
	}
	if err != nil {
		return nil, nil, err
	}
	made, err := w.Maker.Copy(ctx, work.User, from, work.Slug, work.Name, tell)
	return made, nil, err
}

// watchWork calls stop when somebody doesn't want a work any more.
func (w *Tasks) watchWork(ctx context.Context, id string, stop func()) {
	for {
		work, err := w.Store.Works.ByID(ctx, id)
		if errors.Is(err, store.ErrNotFound) || err == nil && work.Stopping {
			stop()
			return
		}
		select {
		case <-ctx.Done():
			return
		case <-time.After(stopPoll):
		}
	}
}

// maker makes sites.
type maker struct {
	river.WorkerDefaults[store.MakeSite]
	*Tasks
}

func (m *maker) Work(ctx context.Context, job *river.Job[store.MakeSite]) error {
	err := m.Make(ctx, job.Args.Work)
	var problem *doc.Problem
	hopeless := errors.As(err, &problem) // trying again won't help
	if err != nil && (hopeless || job.Attempt >= job.MaxAttempts) {
		why := "Something went wrong on our side."
		if hopeless {
			why = problem.Sentence()
		}
		err = errors.Join(err, m.Store.Works.Fail(context.WithoutCancel(ctx), job.Args.Work, why))
	}
	if counted(job.Kind, err); hopeless {
		return river.JobCancel(err)
	}
	return err
}

// Timeout is for the largest site there can be, many times over.
func (m *maker) Timeout(*river.Job[store.MakeSite]) time.Duration { return 30 * time.Minute }
