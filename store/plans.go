package store

import (
	"context"
	"encoding/json"
	"fmt"
	"time"

	"github.com/jmoiron/sqlx"
	"github.com/riverqueue/river"

	"openplot/core/doc"
)

// PublishPlan is the job that carries out a plan.
type PublishPlan struct {
	Plan string `json:"plan"`
}

// Kind is the job's name in the queue.
func (PublishPlan) Kind() string { return "publish-plan" }

// PublishQueue is the queue of plans.
const PublishQueue = "publish"

// Acts of plans.
const (
	PlanPublish  = "publish"
	PlanWithdraw = "withdraw"
)

// Plan is what is to be published at a time, or withdrawn.
type Plan struct {
	ID      string    `db:"id"`
	Site    string    `db:"site_id"`
	Act     string    `db:"act"`
	Pages   pageIDs   `db:"pages"` // none are all that differ then
	At      time.Time `db:"at"`
	By      string    `db:"by"`      // a user's id
	ByName  string    `db:"by_name"` // and name
	Problem string    `db:"problem"` // why it couldn't be carried out
	// AtOnce is one that isn't for later: it is carried out in the background because it is long.
	AtOnce bool `db:"at_once"`
	Done   int  `db:"done"`  // pages that are ready
	Parts  int  `db:"parts"` // of so many, 0 before it is begun
}

type pageIDs []string

// Scan implements sql.Scanner.
func (p *pageIDs) Scan(from any) error {
	b, ok := from.([]byte)
	if !ok {
		if s, is := from.(string); is {
			b = []byte(s)
		} else {
			return fmt.Errorf("pages can't be read from a %T", from)
		}
	}
	return json.Unmarshal(b, (*[]string)(p))
}

// MaxPlans is how many plans a site has at most.
const MaxPlans = 200

// AddPlan keeps a plan, with the job that carries it out at its time. Errors are *doc.Problem
// when the site is archived or has as many as it may.
func (s *Releases) AddPlan(ctx context.Context, p Plan) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		if _, err := lockInUse(ctx, tx, p.Site); err != nil {
			return err
		}
		var planned int
		if err := tx.GetContext(ctx, &planned, `SELECT count(*) FROM plans WHERE site_id = $1`, p.Site); err != nil {
			return fmt.Errorf("counting plans: %w", err)
		}
		if planned >= MaxPlans {
			return doc.Problemf("Plans", "are %d, as many as a site can have; end some first", planned)
		}
		if p.Pages == nil {
			p.Pages = pageIDs{}
		}
		id := NewID("l")
		if _, err := tx.ExecContext(ctx, `INSERT INTO plans (id, site_id, act, pages, at, made_by, at_once) VALUES ($1, $2, $3, $4, $5, $6, $7)`,
			id, p.Site, p.Act, []string(p.Pages), p.At, p.By, p.AtOnce); err != nil {
			return fmt.Errorf("keeping a plan: %w", err)
		}
		return s.queuePlan(ctx, tx, id, p.At)
	})
}

func (s *Releases) queuePlan(ctx context.Context, tx *sqlx.Tx, id string, at time.Time) error {
	o := &river.InsertOpts{Queue: PublishQueue, MaxAttempts: 4, ScheduledAt: at}
	if _, err := s.jobs.InsertTx(ctx, tx.Tx, PublishPlan{id}, o); err != nil {
		return fmt.Errorf("queueing a plan: %w", err)
	}
	return nil
}

// PlanDone notes how many pages of a plan are ready; ErrNotFound when somebody ended it.
func (s *Releases) PlanDone(ctx context.Context, id string, done, parts int) error {
	r, err := s.db.ExecContext(
		ctx,
		`UPDATE plans SET done = $2, parts = $3, problem = '' WHERE id = $1`,
		id,
		done,
		parts,
	)
	if err != nil {
		return fmt.Errorf("noting how far a plan has come: %w", err)
	}
	if n, err := r.RowsAffected(); err == nil && n == 0 {
		return fmt.Errorf("plan %s: %w", id, ErrNotFound)
	}
	return nil
}

// DropDue ends the plans of a site that are being carried out: nothing of them is published, but
// what is already. Those that couldn't be stay, with why.
func (s *Releases) DropDue(ctx context.Context, site string) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM plans WHERE site_id = $1 AND at <= now() AND problem = ''`, site); err != nil {
		return fmt.Errorf("ending plans: %w", err)
	}
	return nil
}

// RetryDue has the plans of a site carried out that should have been and couldn't.
func (s *Releases) RetryDue(ctx context.Context, site string) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		var ids []string
		if err := tx.SelectContext(ctx, &ids, `UPDATE plans SET problem = '', done = 0
			WHERE site_id = $1 AND at <= now() AND problem <> '' RETURNING id`, site); err != nil {
			return fmt.Errorf("retrying plans: %w", err)
		}
		for _, id := range ids {
			if err := s.queuePlan(ctx, tx, id, time.Now()); err != nil {
				return err
			}
		}
		return nil
	})
}

const planColumns = `p.id, p.site_id, p.act, array_to_json(p.pages) AS pages, p.at, coalesce(p.made_by, '') AS by, coalesce(u.name, '') AS by_name, p.problem,
	p.at_once, p.done, p.parts`

// Plans lists those of a site by time.
func (s *Releases) Plans(ctx context.Context, site string) (ps []Plan, err error) {
	if err := s.db.SelectContext(ctx, &ps, `SELECT `+planColumns+` FROM plans p LEFT JOIN users u ON u.id = p.made_by WHERE p.site_id = $1 ORDER BY p.at`, site); err != nil {
		return nil, fmt.Errorf("listing plans: %w", err)
	}
	return ps, nil
}

// Plan gives a plan by id.
func (s *Releases) Plan(ctx context.Context, id string) (*Plan, error) {
	var p Plan
	if err := s.db.GetContext(ctx, &p, `SELECT `+planColumns+` FROM plans p LEFT JOIN users u ON u.id = p.made_by WHERE p.id = $1`, id); err != nil {
		return nil, fmt.Errorf("finding a plan: %w", notFound(err))
	}
	return &p, nil
}

// DropPlan ends a plan, carried out or not.
func (s *Releases) DropPlan(ctx context.Context, site, id string) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM plans WHERE id = $1 AND site_id = $2`, id, site); err != nil {
		return fmt.Errorf("ending a plan: %w", err)
	}
	return nil
}

// FailPlan notes why a plan couldn't be carried out.
func (s *Releases) FailPlan(ctx context.Context, id, why string) error {
	if _, err := s.db.ExecContext(ctx, `UPDATE plans SET problem = $2 WHERE id = $1`, id, why); err != nil {
		return fmt.Errorf("noting what became of a plan: %w", err)
	}
	return nil
}
