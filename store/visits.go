package store

import (
	"context"
	"fmt"

	"github.com/jmoiron/sqlx"

	"openplot/core/policy"
)

// VisitStep is how fine widths are counted, in px.
const VisitStep = 40

// Visit is how often a page was seen in windows from Width to VisitStep - 1 px wider.
type Visit struct {
	Width int `db:"width"`
	N     int `db:"n"`
}

// Count counts a visit of a published page in a window of a width in px, if its site counts
// them, and gives the page's id; slug is its address. ErrNotFound tells that there is no such page, or that it doesn't.
func (s *Visits) Count(ctx context.Context, site, slug string, width int) (page string, err error) {
	width = min(max(width, 0), 8000)
	err = s.db.GetContext(ctx, &page, `INSERT INTO visits (page_id, day, width)
		SELECT p.id, current_date, $3 FROM pages p JOIN shown_sites s ON s.id = p.site_id
		WHERE s.id = $1 AND s.counts_visits AND p.slug = $2 AND p.published_seq IS NOT NULL AND p.deleted_at IS NULL
		ON CONFLICT (page_id, day, width) DO UPDATE SET n = visits.n + 1 RETURNING page_id`, site, slug, width/VisitStep*VisitStep)
	if err != nil {
		return "", fmt.Errorf("counting a visit: %w", notFound(err))
	}
	return page, nil
}

// List gives how wide the windows were in which a page was seen in the last policy.Days(policy.Visits) days, from
// narrow to wide.
func (s *Visits) List(ctx context.Context, page string) (vs []Visit, err error) {
	if err := s.db.SelectContext(ctx, &vs, `SELECT width, sum(n)::int AS n FROM visits WHERE page_id = $1 AND day > current_date - $2::int
		GROUP BY width ORDER BY width`, page, policy.Days(policy.Visits)); err != nil {
		return nil, fmt.Errorf("reading visits: %w", err)
	}
	return vs, nil
}

// Forget takes away what is older than policy.Days(policy.Visits) days.
func (s *Visits) Forget(ctx context.Context) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM visits WHERE day <= current_date - $1::int`, policy.Days(policy.Visits)); err != nil {
		return fmt.Errorf("forgetting visits: %w", err)
	}
	return s.forgetCounts(ctx)
}

// SetCounting has a site count visits or not; its pages change by it. What was counted goes when it
// doesn't any more.
func (s *Visits) SetCounting(ctx context.Context, site string, on bool) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		if _, err := tx.ExecContext(ctx, `UPDATE sites SET counts_visits = $2, version = version + 1 WHERE id = $1 AND counts_visits <> $2`, site, on); err != nil {
			return fmt.Errorf("counting visits: %w", err)
		}
		if on {
			return nil
		}
		if _, err := tx.ExecContext(ctx, `DELETE FROM visits WHERE page_id IN (SELECT id FROM pages WHERE site_id = $1)`, site); err != nil {
			return fmt.Errorf("forgetting visits: %w", err)
		}
		for _, table := range []string{"counts", "visit_marks"} {
			if _, err := tx.ExecContext(ctx, `DELETE FROM `+table+` WHERE site_id = $1`, site); err != nil {
				return fmt.Errorf("forgetting visits: %w", err)
			}
		}
		return nil
	})
}
