package jobs

import (
	"context"
	"errors"
	"slices"
	"sync"
	"time"

	"github.com/riverqueue/river"

	"openplot/core/rights"
	"openplot/site"
	"openplot/store"
)

// CarryOut does what a plan says, if whoever made it may still do so: its pages are published as
// they stand now.
func (w *Tasks) CarryOut(ctx context.Context, id string) error {
	p, err := w.Store.Releases.Plan(ctx, id)
	if errors.Is(err, store.ErrNotFound) {
		return nil // somebody ended it
	}
	if err != nil {
		return err
	}
	st, err := w.Store.Sites.ByIDFor(ctx, p.By, p.Site)
	if err == nil && !st.Role.May(rights.Publish) {
		err = store.ErrNotFound
	}
	if errors.Is(err, store.ErrNotFound) {
		return w.Store.Releases.FailPlan(ctx, id, "whoever made it may not publish any more; plan it again")
	}
	if err != nil {
		return err
	}
	src, err := site.ReadSource(ctx, w.Store, st)
	if err != nil {
		return err
	}
	o := site.Order{By: p.By}
	var names []string
	for _, info := range src.Pages {
		if !slices.Contains(p.Pages, info.ID) {
			continue
		}
		if p.Act == store.PlanWithdraw {
			if info.PublishedSeq != nil {
				o.Withdraw, names = append(o.Withdraw, info.ID), append(names, info.Name)
			}
			continue
		}
		page, err := w.Store.Pages.ByID(ctx, st.ID, info.ID)
		if err != nil {
			return err
		}
		o.Pages, names = append(o.Pages, page), append(names, info.Name)
	}
	if len(names) > 0 {
		o.Note = "As planned: " + site.Brief(names)
		if p.AtOnce {
			o.Note = site.Brief(names)
		}
		if p.Act == store.PlanWithdraw {
			o.Note = "Withdrawn as planned: " + site.Brief(names)
		}
		o.Ready = w.counting(ctx, id, len(o.Pages))
		_, err := w.Publisher.Publish(ctx, w.Store, src, o)
		if errors.Is(err, errStopped) {
			return nil
		}
		if err != nil {
			return errors.Join(
				err,
				w.Store.Releases.FailPlan(
					context.WithoutCancel(ctx),
					id,
					"it didn’t work; it is tried again a few times",
				),
			)
		}
	}
	return w.Store.Releases.DropPlan(ctx, st.ID, id)
}

// counting gives what counts the pages of a plan as they are ready, until somebody ends it.
func (w *Tasks) counting(ctx context.Context, id string, parts int) func() error {
	var mu sync.Mutex
	var done int
	var told time.Time
	return func() error {
		mu.Lock()
		defer mu.Unlock()
		done++
		if time.Since(told) < toldEvery {
			return ctx.Err()
		}
		told = time.Now()
		if err := w.Store.Releases.PlanDone(ctx, id, done, parts); !errors.Is(err, store.ErrNotFound) {
			return err
		}
		return errStopped
	}
}

// planner publishes at a time.
type planner struct {
	river.WorkerDefaults[store.PublishPlan]
	*Tasks
}

func (p *planner) Work(ctx context.Context, job *river.Job[store.PublishPlan]) error {
	return counted(job.Kind, p.CarryOut(ctx, job.Args.Plan))
}

// Timeout is for the largest site there can be, many times over.
func (p *planner) Timeout(*river.Job[store.PublishPlan]) time.Duration { return 10 * time.Minute }
