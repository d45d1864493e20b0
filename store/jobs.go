package store

import (
	"context"
	"database/sql"
	"database/sql/driver"
	"errors"
	"fmt"
	"io"
	"net"
	"time"

	"github.com/jackc/pgx/v5/pgconn"
	"github.com/riverqueue/river"
	"github.com/riverqueue/river/rivertype"
)

// Upkeep is the job that ends, once a day, what is no longer to be kept.
type Upkeep struct{}

// Kind is the job's name in the queue.
func (Upkeep) Kind() string { return "upkeep" }

// UpkeepQueue is the queue of upkeep.
const UpkeepQueue = "upkeep"

// UpkeepOptions let one such job be there a day, however many processes ask for it.
func UpkeepOptions() *river.InsertOpts {
	return &river.InsertOpts{Queue: UpkeepQueue, MaxAttempts: 3, UniqueOpts: river.UniqueOpts{ByPeriod: 20 * time.Hour}}
}

// FailedJob is a job that failed, as operators see it.
type FailedJob struct {
	ID       int64     `db:"id"`
	Kind     string    `db:"kind"`
	State    string    `db:"state"` // River's
	Args     string    `db:"args"`
	Attempt  int       `db:"attempt"`
	Most     int       `db:"max_attempts"`
	Error    string    `db:"error"` // of the last attempt
	LastTime time.Time `db:"last_time"`
}

// Waiting reports whether the job is tried again by itself.
func (j FailedJob) Waiting() bool { return j.State == string(rivertype.JobStateRetryable) }

// Failed gives jobs that failed, those that nobody tries again first.
func (s *Jobs) Failed(ctx context.Context, limit int) (js []FailedJob, err error) {
	if err := s.db.SelectContext(ctx, &js, `SELECT id, kind, state::text AS state, left(args::text, 400) AS args, attempt, max_attempts,
		left(coalesce(errors[array_upper(errors, 1)]->>'error', ''), 600) AS error, coalesce(attempted_at, created_at) AS last_time FROM river_job
		WHERE state IN ('discarded', 'cancelled', 'retryable') ORDER BY state = 'retryable', attempted_at DESC LIMIT $1`, limit); err != nil {
		return nil, fmt.Errorf("listing failed jobs: %w", err)
	}
	return js, nil
}

// Retry has a job tried once more at once.
func (s *Jobs) Retry(ctx context.Context, id int64) error {
	if _, err := s.jobs.JobRetry(ctx, id); err != nil && !errors.Is(err, river.ErrNotFound) {
		return fmt.Errorf("retrying a job: %w", err)
	}
	return nil
}

// Drop forgets a job that failed.
func (s *Jobs) Drop(ctx context.Context, id int64) error {
	if _, err := s.jobs.JobDelete(ctx, id); err != nil && !errors.Is(err, river.ErrNotFound) {
		return fmt.Errorf("forgetting a job: %w", err)
	}
	return nil
}

// QueueLengths gives the number of jobs by state.
func (s *Jobs) QueueLengths(ctx context.Context) (map[string]float64, error) {
	var rows []struct {
		State string  `db:"state"`
		N     float64 `db:"n"`
	}
	if err := s.db.SelectContext(ctx, &rows, `SELECT state::text AS state, count(*)::float8 AS n FROM river_job GROUP BY state`); err != nil {
		return nil, fmt.Errorf("counting jobs: %w", err)
	}
	out := map[string]float64{}
	for _, r := range rows {
		out[r.State] = r.N
	}
	return out, nil
}

// Unreachable reports whether an error is that the database can't be reached, or can't answer
// in time, rather than that what was asked is wrong (PostgreSQL 15, appendix A: classes 08, 53
// and 57).
func Unreachable(err error) bool {
	var pg *pgconn.PgError
	if errors.As(err, &pg) {
		switch pg.Code[:2] {
		case "08", "53", "57":
			return true
		}
		return pg.Code == "55P03" // lock_not_available
	}
	var connect *pgconn.ConnectError
	var network net.Error
	for _, cut := range []error{driver.ErrBadConn, sql.ErrConnDone, io.ErrUnexpectedEOF, io.EOF, context.DeadlineExceeded} {
		if errors.Is(err, cut) {
			return true
		}
	}
	return errors.As(err, &connect) || errors.As(err, &network)
}
