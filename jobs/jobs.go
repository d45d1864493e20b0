// Package jobs does in the background what takes long: copies of pictures, and drawings of
// pages, from queues in the same database.
//
// In come jobs that package store queued in the transactions that made them necessary.
// Several processes may run it on one database. Start at Run.
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

	"openplot/media"
	"openplot/store"
)

// Config is what the jobs need.
type Config struct {
	Store    *store.Store
	MediaDir string // where uploads are kept
	Log      *slog.Logger
	// CopiesMade is called after copies of a picture were made.
	CopiesMade func(context.Context, store.MakeCopies) error
	// DrawPages draws the pages of a site whose drawings aren't fresh.
	DrawPages func(ctx context.Context, slug string) error
}

// Run does jobs until stop is called. Copies are made one picture at a time, since a large
// one takes 400 MB.
func Run(ctx context.Context, c Config) (stop func(context.Context) error, err error) {
	workers := river.NewWorkers()
	river.AddWorker(workers, &copier{Config: c})
	river.AddWorker(workers, &drawer{Config: c})
	client, err := river.NewClient[*sql.Tx](riverdatabasesql.New(c.Store.DB()), &river.Config{
		Queues: map[string]river.QueueConfig{
			river.QueueDefault:  {MaxWorkers: 1, FetchPollInterval: 300 * time.Millisecond, FetchCooldown: 100 * time.Millisecond},
			store.DrawingsQueue: {MaxWorkers: 1, FetchPollInterval: 300 * time.Millisecond, FetchCooldown: 100 * time.Millisecond},
		},
		Workers: workers, Logger: c.Log,
	})
	if err != nil {
		return nil, fmt.Errorf("opening the queues: %w", err)
	}
	if err := client.Start(ctx); err != nil {
		return nil, fmt.Errorf("starting the queues: %w", err)
	}
	return client.StopAndCancel, nil
}

// copier makes copies of pictures.
type copier struct {
	river.WorkerDefaults[store.MakeCopies]
	Config
}

func (c *copier) Work(ctx context.Context, job *river.Job[store.MakeCopies]) error {
	err := media.Finish(ctx, c.Store, c.MediaDir, job.Args)
	if errors.Is(err, media.ErrTooEarly) {
		return river.JobSnooze(time.Second)
	}
	if err != nil {
		return err
	}
	return c.CopiesMade(ctx, job.Args)
}

// Timeout is for the largest picture there can be, many times over.
func (c *copier) Timeout(*river.Job[store.MakeCopies]) time.Duration { return 10 * time.Minute }

// drawer draws pages.
type drawer struct {
	river.WorkerDefaults[store.DrawPages]
	Config
}

func (d *drawer) Work(ctx context.Context, job *river.Job[store.DrawPages]) error {
	return d.DrawPages(ctx, job.Args.Site)
}

// Timeout is for the largest site there can be, many times over.
func (d *drawer) Timeout(*river.Job[store.DrawPages]) time.Duration { return 10 * time.Minute }
