// Package jobs does in the background what takes long: copies of pictures, drawings of pages,
// and once a day the forgetting of what is no longer to be kept, from queues in the same
// database.
//
// In come jobs that package store queued in the transactions that made them necessary.
// Several processes may run it on one database. No job goes on without end: each is tried a
// few times, and then waits for an operator. Start at Run.
package jobs

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"log/slog"
	"time"

	"github.com/riverqueue/river"
	"github.com/riverqueue/river/riverdriver/riverdatabasesql"

	"openplot/core/doc"
	"openplot/media"
	"openplot/metrics"
	"openplot/store"
)

// Config is what the jobs need.
type Config struct {
	Store    *store.Store
	Pictures *media.Keeper
	Log      *slog.Logger
	// CopiesMade is called after copies of a picture were made.
	CopiesMade func(context.Context, store.MakeCopies) error
	// DrawPages draws the pages of a site whose drawings aren't fresh.
	DrawPages func(ctx context.Context, slug string) error
	// CarryOut does what a plan says.
	CarryOut func(ctx context.Context, plan string) error
	// Forget ends what is no longer to be kept.
	Forget func(context.Context) error
}

// Run does jobs until stop is called. Copies are made one picture at a time, since a large
// one takes 400 MB.
func Run(ctx context.Context, c Config) (stop func(context.Context) error, err error) {
	workers := river.NewWorkers()
	river.AddWorker(workers, &copier{Config: c})
	river.AddWorker(workers, &drawer{Config: c})
	river.AddWorker(workers, &keeper{Config: c})
	river.AddWorker(workers, &planner{Config: c})
	one := river.QueueConfig{MaxWorkers: 1, FetchPollInterval: 300 * time.Millisecond, FetchCooldown: 100 * time.Millisecond}
	client, err := river.NewClient[*sql.Tx](riverdatabasesql.New(c.Store.DB()), &river.Config{
		ID:      c.Store.Jobs.Process(), // by which it is known whether it runs (store.Sweep)
		Queues:  map[string]river.QueueConfig{river.QueueDefault: one, store.DrawingsQueue: one, store.UpkeepQueue: one, store.PublishQueue: one},
		Workers: workers, Logger: c.Log,
		PeriodicJobs: []*river.PeriodicJob{river.NewPeriodicJob(
			river.PeriodicInterval(24*time.Hour),
			func() (river.JobArgs, *river.InsertOpts) { return store.Upkeep{}, store.UpkeepOptions() },
			&river.PeriodicJobOpts{RunOnStart: true},
		)},
	})
	if err != nil {
		return nil, fmt.Errorf("opening the queues: %w", err)
	}
	if err := client.Start(ctx); err != nil {
		return nil, fmt.Errorf("starting the queues: %w", err)
	}
	return client.StopAndCancel, nil
}

// counted notes how a job ended.
func counted(kind string, err error) error {
	end := "done"
	if err != nil {
		end = "failed"
	}
	metrics.Jobs.WithLabelValues(kind, end).Inc()
	return err
}

// copier makes copies of pictures.
type copier struct {
	river.WorkerDefaults[store.MakeCopies]
	Config
}

func (c *copier) Work(ctx context.Context, job *river.Job[store.MakeCopies]) error {
	err := c.Pictures.Finish(ctx, job.Args)
	var problem *doc.Problem
	hopeless := errors.As(err, &problem) // trying again won't help
	if err != nil && (hopeless || job.Attempt >= job.MaxAttempts) {
		why := "something went wrong on our side"
		if hopeless {
			why = problem.Message
		}
		err = errors.Join(err, c.Store.Media.FailCopies(context.WithoutCancel(ctx), job.Args, why))
	}
	if err == nil {
		err = c.CopiesMade(ctx, job.Args)
	}
	if counted(job.Kind, err); hopeless {
		return river.JobCancel(err)
	}
	return err
}

// Timeout is for the largest picture there can be, many times over.
func (c *copier) Timeout(*river.Job[store.MakeCopies]) time.Duration { return 10 * time.Minute }

// drawer draws pages.
type drawer struct {
	river.WorkerDefaults[store.DrawPages]
	Config
}

func (d *drawer) Work(ctx context.Context, job *river.Job[store.DrawPages]) error {
	return counted(job.Kind, d.DrawPages(ctx, job.Args.Site))
}

// Timeout is for the largest site there can be, many times over.
func (d *drawer) Timeout(*river.Job[store.DrawPages]) time.Duration { return 10 * time.Minute }

// planner publishes at a time.
type planner struct {
	river.WorkerDefaults[store.PublishPlan]
	Config
}

func (p *planner) Work(ctx context.Context, job *river.Job[store.PublishPlan]) error {
	return counted(job.Kind, p.CarryOut(ctx, job.Args.Plan))
}

// Timeout is for the largest site there can be, many times over.
func (p *planner) Timeout(*river.Job[store.PublishPlan]) time.Duration { return 10 * time.Minute }

// keeper forgets what is no longer to be kept.
type keeper struct {
	river.WorkerDefaults[store.Upkeep]
	Config
}

func (k *keeper) Work(ctx context.Context, job *river.Job[store.Upkeep]) error {
	return counted(job.Kind, k.Forget(ctx))
}

// Timeout is for many large sites.
func (k *keeper) Timeout(*river.Job[store.Upkeep]) time.Duration { return time.Hour }
