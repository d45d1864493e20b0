package store

import (
	"context"
	"fmt"

	"github.com/jmoiron/sqlx"
)

// Edition is a page as it is published.
type Edition struct {
	Page   string
	Seq    int64
	Lacks  []string // originals of the pictures of which copies are still to be made
	Source []byte   // what it is made from, as JSON
}

// Publish notes that an edition is published, which write does. It is kept while it lacks
// copies.
func (s *Store) Publish(ctx context.Context, e Edition, write func() error) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		if _, err := tx.ExecContext(ctx, `UPDATE pages SET published_at = now(), published_seq = $2 WHERE id = $1`, e.Page, e.Seq); err != nil {
			return fmt.Errorf("noting a publication: %w", err)
		}
		query, args := `DELETE FROM editions WHERE page_id = $1`, []any{e.Page}
		if len(e.Lacks) > 0 {
			query, args = `INSERT INTO editions (page_id, originals, source) VALUES ($1, $2, $3)
				ON CONFLICT (page_id) DO UPDATE SET originals = EXCLUDED.originals, source = EXCLUDED.source`, []any{e.Page, e.Lacks, e.Source}
		}
		if _, err := tx.ExecContext(ctx, query, args...); err != nil {
			return fmt.Errorf("keeping an edition: %w", err)
		}
		return write()
	})
}

// Renew gives write the source of every edition that lacks copies of an original, and
// keeps the one that it returns. With done there are no more copies to come.
func (s *Store) Renew(ctx context.Context, site, original string, done bool, write func(source []byte) ([]byte, error)) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		var editions []struct {
			Page   string `db:"page_id"`
			Source []byte `db:"source"`
		}
		if err := tx.SelectContext(ctx, &editions, `SELECT e.page_id, e.source FROM pages p JOIN editions e ON e.page_id = p.id
			WHERE p.site_id = $1 AND $2 = ANY (e.originals) ORDER BY p.id FOR UPDATE OF p`, site, original); err != nil {
			return fmt.Errorf("finding editions: %w", err)
		}
		for _, e := range editions {
			next, err := write(e.Source)
			if err != nil {
				return err
			}
			query, args := `UPDATE editions SET source = $2 WHERE page_id = $1`, []any{e.Page, next}
			if done {
				query, args = `WITH ended AS (DELETE FROM editions WHERE page_id = $1 AND originals = ARRAY[$3::text])
					UPDATE editions SET source = $2, originals = array_remove(originals, $3) WHERE page_id = $1 AND originals <> ARRAY[$3::text]`, append(
					args, original,
				)
			}
			if _, err := tx.ExecContext(ctx, query, args...); err != nil {
				return fmt.Errorf("keeping an edition: %w", err)
			}
		}
		return nil
	})
}
