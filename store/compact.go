package store

import (
	"context"
	"encoding/json"
	"fmt"
	"time"

	"github.com/jmoiron/sqlx"

	"openplot/core/doc"
	"openplot/core/edit"
)

// AsOf gives a page's document as it was after an entry of its log, by taking back what
// came later. ErrNotFound means that the log doesn't reach back so far.
func (s *Pages) AsOf(ctx context.Context, page string, seq int64) (*doc.Page, error) {
	var d *doc.Page
	err := s.inTx(ctx, func(tx *sqlx.Tx) error {
		now, current, err := s.lock(ctx, tx, page)
		if err != nil {
			return err
		}
		d, err = pageAt(ctx, tx, page, current, now, seq)
		return err
	})
	return d, err
}

// logStep is how many entries of a log are read at a time.
const logStep = 500

// pageAt goes back from a page as of a sequence number to an earlier one.
func pageAt(ctx context.Context, tx *sqlx.Tx, page string, d *doc.Page, from, to int64) (*doc.Page, error) {
	for from > to {
		var entries []struct {
			Seq     int64  `db:"seq"`
			Inverse []byte `db:"inverse"`
		}
		if err := tx.SelectContext(ctx, &entries, `SELECT seq, inverse FROM page_log WHERE page_id = $1 AND seq <= $2 AND seq > $3 ORDER BY seq DESC LIMIT $4`,
			page, from, to, logStep); err != nil {
			return nil, fmt.Errorf("reading the log: %w", err)
		}
		if len(entries) == 0 {
			return nil, ErrNotFound
		}
		for _, e := range entries {
			if e.Seq != from {
				return nil, ErrNotFound // there is a gap
			}
			var steps []edit.Step
			if err := json.Unmarshal(e.Inverse, &steps); err != nil {
				return nil, fmt.Errorf("reading entry %d: %w", e.Seq, err)
			}
			var err error
			if d, _, err = edit.Run(d, steps); err != nil {
				return nil, fmt.Errorf("going back over entry %d: %w", e.Seq, err)
			}
			from--
		}
	}
	return d, nil
}

// Compact replaces what the logs of pages have of before a time by a snapshot each, and ends
// what the logs of house styles have of before it, but for the last entry of each. It gives
// the number of entries that went.
func (s *Pages) Compact(ctx context.Context, before time.Time) (gone int64, err error) {
	var pages []struct {
		Page string `db:"page_id"`
		Seq  int64  `db:"seq"` // the last entry that goes
	}
	if err := s.db.SelectContext(ctx, &pages, `SELECT page_id, max(seq) AS seq FROM page_log WHERE made_at < $1 GROUP BY page_id ORDER BY page_id`, before); err != nil {
		return 0, fmt.Errorf("looking for old edits: %w", err)
	}
	for _, p := range pages {
		n, err := s.compactPage(ctx, p.Page, p.Seq)
		if err != nil {
			return gone, fmt.Errorf("compacting the log of %s: %w", p.Page, err)
		}
		gone += n
	}
	r, err := s.db.ExecContext(
		ctx,
		`DELETE FROM house_log l WHERE made_at < $1 AND version < (SELECT max(version) FROM house_log WHERE site_id = l.site_id)`,
		before,
	)
	if err != nil {
		return gone, fmt.Errorf("compacting the logs of house styles: %w", err)
	}
	n, err := r.RowsAffected()
	return gone + n, err
}

func (s *Pages) compactPage(ctx context.Context, page string, to int64) (gone int64, err error) {
	err = s.inTx(ctx, func(tx *sqlx.Tx) error {
		now, current, err := s.lock(ctx, tx, page)
		if err != nil {
			return err
		}
		d, err := pageAt(ctx, tx, page, current, now, to)
		if err != nil {
			return err
		}
		b, err := json.Marshal(d)
		if err != nil {
			return fmt.Errorf("writing a snapshot: %w", err)
		}
		if _, err := tx.ExecContext(ctx, `WITH old AS (DELETE FROM page_snapshots WHERE page_id = $1 AND name = '' AND seq <> $2)
			INSERT INTO page_snapshots (page_id, seq, doc) VALUES ($1, $2, $3) ON CONFLICT DO NOTHING`, page, to, b); err != nil {
			return fmt.Errorf("keeping a snapshot: %w", err)
		}
		r, err := tx.ExecContext(ctx, `DELETE FROM page_log WHERE page_id = $1 AND seq <= $2`, page, to)
		if err != nil {
			return fmt.Errorf("ending old edits: %w", err)
		}
		gone, err = r.RowsAffected()
		return err
	})
	return gone, err
}

// filesLock is the advisory lock under which files are removed, or a set of them is taken. The
// number is only ours.
const filesLock = 0x0931f11e
