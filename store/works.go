package store

import (
	"context"
	"fmt"
	"time"

	"github.com/jmoiron/sqlx"
	"github.com/riverqueue/river"

	"openplot/core/doc"
	"openplot/core/policy"
)

// MakeSite is the job that makes a site of a file or of another site.
type MakeSite struct {
	Work string `json:"work"`
}

// Kind is the job's name in the queue.
func (MakeSite) Kind() string { return "make-site" }

// SitesQueue is the queue of sites that are made.
const SitesQueue = "sites"

// MakeAttempts is how often the making of a site is tried.
const MakeAttempts = 3

// How works stand.
const (
	WorkWaiting = "waiting"
	WorkRunning = "running"
	WorkDone    = "done"
	WorkFailed  = "failed"
)

// SiteWork is a site that somebody wants made of what there is already, and how far that has come.
type SiteWork struct {
	ID      string `db:"id"`
	User    string `db:"user_id"`
	Email   string `db:"email"`
	Name    string `db:"name"`    // of the site, or "" where the file says it
	Slug    string `db:"slug"`    // the address that was asked for, or ""
	File    string `db:"file"`    // in the media folder, or ""
	Source  string `db:"source"`  // the site that it is to be a copy of, by its id, or ""
	Of      string `db:"of"`      // that one's name
	Address string `db:"address"` // the client's, who asked for it
	State   string `db:"state"`
	// Stopping reports whether somebody wants it to end.
	Stopping bool      `db:"stopping"`
	Done     int       `db:"done"`
	Parts    int       `db:"parts"`
	Problem  string    `db:"problem"` // why it failed
	Lost     string    `db:"lost"`    // what isn't as in the file
	Made     string    `db:"made"`    // the slug of the site that was made, or ""
	BegunAt  time.Time `db:"begun_at"`
}

// Going reports whether the work is still to be done.
func (w *SiteWork) Going() bool { return w.State == WorkWaiting || w.State == WorkRunning }

// May gives a *doc.Problem when somebody has as many sites made, or has as many left that couldn't be, as
// they may: each keeps its file.
func (s *Works) May(ctx context.Context, user string) error {
	return mayWork(ctx, s.db, user)
}

func mayWork(ctx context.Context, q sqlx.QueryerContext, user string) error {
	var n int
	if err := sqlx.GetContext(ctx, q, &n, `SELECT count(*) FROM works WHERE user_id = $1 AND state <> 'done'`, user); err != nil {
		return fmt.Errorf("counting works: %w", err)
	}
	if n >= policy.WorksAtOnce {
		return doc.Problemf(
			"Sites",
			"that are being made for you, or couldn't be, are %d: wait for one, or stop showing one that failed",
			n,
		)
	}
	return nil
}

// Add has a work done in the background. Errors are *doc.Problem where there are as many as there may be.
func (s *Works) Add(ctx context.Context, w *SiteWork) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		if _, err := tx.ExecContext(ctx, `SELECT FROM users WHERE id = $1 FOR UPDATE`, w.User); err != nil { // one at a time
			return fmt.Errorf("adding a work: %w", err)
		}
		if err := mayWork(ctx, tx, w.User); err != nil {
			return err
		}
		if _, err := tx.NamedExecContext(ctx, `INSERT INTO works (id, user_id, name, slug, file, source, address)
			VALUES (:id, :user_id, :name, :slug, :file, nullif(:source, ''), :address)`, w); err != nil {
			return fmt.Errorf("adding a work: %w", err)
		}
		return s.queue(ctx, tx, w.ID)
	})
}

func (s *Works) queue(ctx context.Context, tx *sqlx.Tx, id string) error {
	o := &river.InsertOpts{
		Queue: SitesQueue, MaxAttempts: MakeAttempts, UniqueOpts: river.UniqueOpts{ByArgs: true, ByState: underWay},
	}
	if _, err := s.jobs.InsertTx(ctx, tx.Tx, MakeSite{id}, o); err != nil {
		return fmt.Errorf("queueing a work: %w", err)
	}
	return nil
}

const workColumns = `w.id, w.user_id, u.email, w.name, w.slug, w.file, coalesce(w.source, '') AS source, coalesce(f.name, '') AS of, w.address,
	w.state, w.stopping, w.done, w.parts, w.problem, w.lost, coalesce(m.slug, '') AS made, w.begun_at
	FROM works w JOIN users u ON u.id = w.user_id LEFT JOIN sites f ON f.id = w.source LEFT JOIN sites m ON m.id = w.made`

// ByID gives a work, or ErrNotFound.
func (s *Works) ByID(ctx context.Context, id string) (*SiteWork, error) {
	w := new(SiteWork)
	if err := s.db.GetContext(ctx, w, `SELECT `+workColumns+` WHERE w.id = $1`, id); err != nil {
		return nil, fmt.Errorf("reading a work: %w", notFound(err))
	}
	return w, nil
}

// Of lists somebody's works, the newest first.
func (s *Works) Of(ctx context.Context, user string) (ws []*SiteWork, err error) {
	if err := s.db.SelectContext(ctx, &ws, `SELECT `+workColumns+` WHERE w.user_id = $1 ORDER BY w.begun_at DESC, w.id LIMIT 20`, user); err != nil {
		return nil, fmt.Errorf("listing works: %w", err)
	}
	return ws, nil
}

// At notes how far a work has come.
func (s *Works) At(ctx context.Context, id string, done, parts int) error {
	return s.set(ctx, `UPDATE works SET state = 'running', done = $2, parts = $3 WHERE id = $1`, id, done, parts)
}

// End notes that a site was made, and what of it isn't as in the file.
func (s *Works) End(ctx context.Context, id, made, lost string) error {
	return s.set(
		ctx,
		`UPDATE works SET state = 'done', done = parts, made = $2, lost = $3 WHERE id = $1`,
		id,
		made,
		Clean(lost),
	)
}

// Fail notes why a work can't be done.
func (s *Works) Fail(ctx context.Context, id, why string) error {
	return s.set(ctx, `UPDATE works SET state = 'failed', problem = left($2, 500) WHERE id = $1`, id, Clean(why))
}

// Stop has a work of somebody end, in whatever process it is under way; one that isn't is forgotten
// at once.
func (s *Works) Stop(ctx context.Context, user, id string) error {
	if err := s.set(ctx, `UPDATE works SET stopping = true WHERE id = $1 AND user_id = $2`, id, user); err != nil {
		return err
	}
	return s.set(ctx, `DELETE FROM works WHERE id = $1 AND user_id = $2 AND state <> 'running'`, id, user)
}

// Retry has a work of somebody done that failed.
func (s *Works) Retry(ctx context.Context, user, id string) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		r, err := tx.ExecContext(
			ctx,
			`UPDATE works SET state = 'waiting', done = 0, problem = '' WHERE id = $1 AND user_id = $2 AND state = 'failed'`,
			id,
			user,
		)
		if err != nil {
			return fmt.Errorf("trying a work again: %w", err)
		}
		if n, err := r.RowsAffected(); err != nil || n == 0 {
			return err
		}
		return s.queue(ctx, tx, id)
	})
}

// Drop forgets a work.
func (s *Works) Drop(ctx context.Context, id string) error {
	return s.set(ctx, `DELETE FROM works WHERE id = $1`, id)
}

// Forget ends what ended before a time, or was left.
func (s *Works) Forget(ctx context.Context, before time.Time) error {
	return s.set(ctx, `DELETE FROM works WHERE begun_at < $1`, before)
}

func (s *Works) set(ctx context.Context, query string, args ...any) error {
	if _, err := s.db.ExecContext(ctx, query, args...); err != nil {
		return fmt.Errorf("noting how a work stands: %w", err)
	}
	return nil
}
