package store

import (
	"context"
	"database/sql"
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
		if _, err := tx.ExecContext(ctx, `INSERT INTO plans (id, site_id, act, pages, at, made_by) VALUES ($1, $2, $3, $4, $5, $6)`,
			id, p.Site, p.Act, []string(p.Pages), p.At, p.By); err != nil {
			return fmt.Errorf("keeping a plan: %w", err)
		}
		var raw *sql.Tx = tx.Tx
		if _, err := s.jobs.InsertTx(ctx, raw, PublishPlan{id}, &river.InsertOpts{Queue: PublishQueue, MaxAttempts: 4, ScheduledAt: p.At}); err != nil {
			return fmt.Errorf("queueing a plan: %w", err)
		}
		return nil
	})
}

const planColumns = `p.id, p.site_id, p.act, array_to_json(p.pages) AS pages, p.at, coalesce(p.made_by, '') AS by, coalesce(u.name, '') AS by_name, p.problem`

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
