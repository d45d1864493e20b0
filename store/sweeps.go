package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"time"

	"github.com/jmoiron/sqlx"
	"github.com/riverqueue/river"
)

// CheckSite is the job that checks the pages of a site whose findings aren't known as they are now.
type CheckSite struct {
	Site string `json:"site"`
}

// Kind is the job's name in the queue.
func (CheckSite) Kind() string { return "check-site" }

// ChecksQueue is the queue of checks of whole sites.
const ChecksQueue = "checks"

// Sweep is how far the checks of a site's pages have come.
type Sweep struct {
	Done     int  `db:"done"`
	Of       int  `db:"pages"`
	Stopping bool `db:"stopping"` // somebody wants it to end
}

// BeginSweep has so many pages of a site checked in the background, unless that is under way.
func (s *Findings) BeginSweep(ctx context.Context, site string, pages int) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		r, err := tx.ExecContext(
			ctx,
			`INSERT INTO sweeps (site_id, pages) VALUES ($1, $2) ON CONFLICT DO NOTHING`,
			site,
			pages,
		)
		if err != nil {
			return fmt.Errorf("beginning a sweep: %w", err)
		}
		if n, err := r.RowsAffected(); err != nil || n == 0 {
			return err
		}
		o := &river.InsertOpts{
			Queue:       ChecksQueue,
			MaxAttempts: 3,
			UniqueOpts:  river.UniqueOpts{ByArgs: true, ByState: underWay},
		}
		if _, err := s.jobs.InsertTx(ctx, tx.Tx, CheckSite{site}, o); err != nil {
			return fmt.Errorf("queueing a sweep: %w", err)
		}
		return nil
	})
}

// Sweep gives how far a site's sweep has come, or nil when there is none.
func (s *Findings) Sweep(ctx context.Context, site string) (*Sweep, error) {
	w := new(Sweep)
	err := s.db.GetContext(ctx, w, `SELECT done, pages, stopping FROM sweeps WHERE site_id = $1`, site)
	if errors.Is(err, sql.ErrNoRows) {
		return nil, nil
	}
	if err != nil {
		return nil, fmt.Errorf("reading a sweep: %w", err)
	}
	return w, nil
}

// SweepAt notes how far a sweep has come: done of so many pages. One that was stopped stays so.
func (s *Findings) SweepAt(ctx context.Context, site string, done, pages int) error {
	if _, err := s.db.ExecContext(ctx, `INSERT INTO sweeps (site_id, done, pages) VALUES ($1, $2, $3)
		ON CONFLICT (site_id) DO UPDATE SET done = $2, pages = $3`, site, done, max(done, pages)); err != nil {
		return fmt.Errorf("noting a sweep: %w", err)
	}
	return nil
}

// EndSweep notes that a site's sweep has ended.
func (s *Findings) EndSweep(ctx context.Context, site string) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM sweeps WHERE site_id = $1`, site); err != nil {
		return fmt.Errorf("ending a sweep: %w", err)
	}
	return nil
}

// sweepPoll is how often it is looked whether a sweep has ended.
const sweepPoll = 20 * time.Millisecond

// StopSweep ends a site's sweep, in whatever process it is under way, and waits for that a while.
func (s *Findings) StopSweep(ctx context.Context, site string, wait time.Duration) error {
	if _, err := s.db.ExecContext(ctx, `UPDATE sweeps SET stopping = true WHERE site_id = $1`, site); err != nil {
		return fmt.Errorf("stopping a sweep: %w", err)
	}
	for end := time.Now().Add(wait); time.Now().Before(end); time.Sleep(sweepPoll) {
		if w, err := s.Sweep(ctx, site); err != nil || w == nil {
			return err
		}
	}
	return nil
}
