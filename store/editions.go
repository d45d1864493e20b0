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
	Said
}

// Said is what visitors can read of a page, and the forms that they can send.
type Said struct {
	Words string
	Forms []string // blocks
}

// maxWords is how much of what a page says is searched, in bytes: a tsvector holds 1 MB
// (PostgreSQL 15 §12.11).
const maxWords = 400_000

// Publish notes that an edition is published, which write does. It is kept while it lacks
// copies.
func (s *Store) Publish(ctx context.Context, e Edition, write func() error) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		if _, err := tx.ExecContext(ctx, `UPDATE pages SET published_at = now(), published_seq = $2 WHERE id = $1`, e.Page, e.Seq); err != nil {
			return fmt.Errorf("noting a publication: %w", err)
		}
		if err := keepSaid(ctx, tx, e.Page, e.Said); err != nil {
			return err
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

// KeepSaid keeps what a page says that is published already.
func (s *Store) KeepSaid(ctx context.Context, page string, said Said) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error { return keepSaid(ctx, tx, page, said) })
}

func keepSaid(ctx context.Context, tx *sqlx.Tx, page string, said Said) error {
	var language string
	if err := tx.GetContext(ctx, &language, `SELECT s.language FROM pages p JOIN sites s ON s.id = p.site_id WHERE p.id = $1`, page); err != nil {
		return fmt.Errorf("finding the page's language: %w", notFound(err))
	}
	words := Clean(said.Words[:min(len(said.Words), maxWords)])
	if said.Forms == nil {
		said.Forms = []string{}
	}
	if _, err := tx.ExecContext(ctx, `INSERT INTO published (page_id, site_id, slug, name, description, words, forms, config)
		SELECT id, site_id, slug, name, description, $2, $3, $4::regconfig FROM pages WHERE id = $1 ON CONFLICT (page_id) DO UPDATE SET slug = EXCLUDED.slug,
		name = EXCLUDED.name, description = EXCLUDED.description, words = EXCLUDED.words, forms = EXCLUDED.forms, config = EXCLUDED.config`,
		page, words, said.Forms, textConfig(language)); err != nil {
		return fmt.Errorf("keeping what a page says: %w", err)
	}
	return nil
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
