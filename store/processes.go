package store

import (
	"context"
	"fmt"
	"time"
)

// Process is the id of this one among those that share the database: what it began and didn't end
// is known by it.
func (s *Jobs) Process() string { return s.process }

// ProcessLife is how long a process counts as running that wasn't heard of: it is to Beat more
// often.
const ProcessLife = 45 * time.Second

// Beat says that this process runs.
func (s *Jobs) Beat(ctx context.Context) error {
	if _, err := s.db.ExecContext(ctx, `INSERT INTO processes (id) VALUES ($1) ON CONFLICT (id) DO UPDATE SET seen_at = now()`, s.process); err != nil {
		return fmt.Errorf("saying that this process runs: %w", err)
	}
	return nil
}

// Leave says that this process, or with alone all that ran before it on a database that is its
// own, has ended.
func (s *Jobs) Leave(ctx context.Context, alone bool) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM processes WHERE (id = $1) <> $2`, s.process, alone); err != nil {
		return fmt.Errorf("saying which processes run: %w", err)
	}
	return nil
}

// Sweep takes away the sites that processes were making which don't run any more, and has others
// do the jobs that they were doing.
func (s *Jobs) Sweep(ctx context.Context) error {
	for _, query := range []string{
		`DELETE FROM processes WHERE seen_at < now() - make_interval(secs => $1)`,
		`DELETE FROM sites WHERE maker IS NOT NULL AND $1 > 0 AND maker NOT IN (SELECT id FROM processes)`,
		// The one that has what is due put into the queues; another waits for it for a while otherwise.
		`DELETE FROM river_leader WHERE $1 > 0 AND leader_id NOT IN (SELECT id FROM processes)`,
		// As if this attempt hadn't been made. attempted_by has the client that does it last.
		`UPDATE river_job SET state = 'available', scheduled_at = now(), attempt = greatest(attempt - 1, 0) WHERE state = 'running' AND $1 > 0
			AND attempted_by[array_upper(attempted_by, 1)] NOT IN (SELECT id FROM processes)`,
	} {
		if _, err := s.db.ExecContext(ctx, query, ProcessLife.Seconds()); err != nil {
			return fmt.Errorf("taking up what was left: %w", err)
		}
	}
	return nil
}

// Making marks a new site as one that this process is still making: nobody sees it until Made.
func (s *Jobs) Making(ctx context.Context, site string) error {
	if err := s.Beat(ctx); err != nil {
		return err
	}
	if _, err := s.db.ExecContext(ctx, `UPDATE sites SET maker = $2 WHERE id = $1`, site, s.process); err != nil {
		return fmt.Errorf("marking a site: %w", err)
	}
	return nil
}

// Made lets people see a site that was being made; ErrNotFound when it was given up meanwhile.
func (s *Jobs) Made(ctx context.Context, site string) error {
	r, err := s.db.ExecContext(ctx, `UPDATE sites SET maker = NULL WHERE id = $1 AND maker = $2`, site, s.process)
	if err != nil {
		return fmt.Errorf("marking a site: %w", err)
	}
	if n, err := r.RowsAffected(); err != nil || n == 0 {
		return fmt.Errorf("marking a site: %w", ErrNotFound)
	}
	return nil
}
