// Package jobs does in the background what takes long: copies of pictures, drawings of pages, checks
// of whole sites, sites made of files and of others, what is planned, mails, and once a day the forgetting of what is no longer to be kept; from
// queues in the same database.
//
// In come jobs that package store queued in the transactions that made them necessary.
// Several processes may run it on one database. No job goes on without end: each is tried a
// few times, and then waits for an operator. How far one has come is in the database, so that any
// process can tell. Start at Run.
package jobs

import (
	"context"
	"database/sql"
	"fmt"
	"log/slog"
	"time"

	"github.com/riverqueue/river"
	"github.com/riverqueue/river/riverdriver/riverdatabasesql"

	"openplot/bring"
	"openplot/domains"
	"openplot/media"
	"openplot/metrics"
	"openplot/site"
	"openplot/store"
	"openplot/web/model"
)

// Tasks is what the jobs need. Each of its methods is one job, done at once.
type Tasks struct {
	Store     *store.Store
	Pictures  *media.Keeper
	Publisher *site.Publisher
	Workshop  *model.Workshop
	Checker   *model.Checker
	Maker     *bring.Maker
	Domains   *domains.Watch
	Post      Post
	Log       *slog.Logger
}

// Run does jobs until stop is called. Copies are made one picture at a time, since a large
// one takes 400 MB.
func Run(ctx context.Context, w *Tasks) (stop func(context.Context) error, err error) {
	workers := river.NewWorkers()
	river.AddWorker(workers, &copier{Tasks: w})
	river.AddWorker(workers, &drawer{Tasks: w})
	river.AddWorker(workers, &keeper{Tasks: w})
	river.AddWorker(workers, &planner{Tasks: w})
	river.AddWorker(workers, &sweeper{Tasks: w})
	river.AddWorker(workers, &maker{Tasks: w})
	river.AddWorker(workers, &mailer{Tasks: w})
	one := river.QueueConfig{
		MaxWorkers:        1,
		FetchPollInterval: 300 * time.Millisecond,
		FetchCooldown:     100 * time.Millisecond,
	}
	several := one
	several.MaxWorkers = 4 // most of it is waiting for the mail server
	client, err := river.NewClient[*sql.Tx](riverdatabasesql.New(w.Store.DB()), &river.Config{
		ID: w.Store.Jobs.Process(), // by which it is known whether it runs (store.Sweep)
		Queues: map[string]river.QueueConfig{
			river.QueueDefault:  one,
			store.DrawingsQueue: one,
			store.UpkeepQueue:   one,
			store.PublishQueue:  one,
			store.ChecksQueue:   one,
			store.SitesQueue:    one,
			store.MailQueue:     several,
		},
		Workers: workers, Logger: slog.New(atLeast{w.Log.Handler(), slog.LevelWarn}),
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

// atLeast is a handler for what is as bad as a level.
type atLeast struct {
	slog.Handler
	level slog.Level
}

func (a atLeast) Enabled(_ context.Context, l slog.Level) bool { return l >= a.level }
