package store

import (
	"context"
	"encoding/json"
	"fmt"

	"github.com/jmoiron/sqlx"
)

// Edition is a page as it is published.
type Edition struct {
	Page   string
	Seq    int64
	Look   int64    // the version of the site that it is made with
	Lacks  []string // originals of the pictures of which copies are still to be made
	Source []byte   // what it is made from, as JSON
	Said
}

// Said is what visitors can read of a page, and the forms that they can send.
type Said struct {
	Words string
	Forms []PublishedForm
}

// PublishedForm is a form as it is published: its block, and the names of its fields in their
// order, those included that are there to tell people from programs.
type PublishedForm struct {
	Block  string
	Fields []string
}

// columns are the forms as the database has them: their blocks, and the fields by block as JSON.
func (s Said) columns() (blocks []string, fields []byte, err error) {
	blocks, by := []string{}, map[string][]string{}
	for _, f := range s.Forms {
		blocks = append(blocks, f.Block)
		by[f.Block] = append([]string{}, f.Fields...)
	}
	fields, err = json.Marshal(by)
	return blocks, fields, err
}

// maxWords is how much of what a page says is searched, in bytes: a tsvector holds 1 MB
// (PostgreSQL 15 §12.11).
const maxWords = 400_000

// keepSaid keeps what a page says as it is published: of one with a password only its forms.
func keepSaid(ctx context.Context, tx *sqlx.Tx, e Edition) error {
	page, said := e.Page, e.Said
	var language string
	if err := tx.GetContext(ctx, &language, `SELECT s.language FROM pages p JOIN sites s ON s.id = p.site_id WHERE p.id = $1`, page); err != nil {
		return fmt.Errorf("finding the page's language: %w", notFound(err))
	}
	words := Clean(said.Words[:min(len(said.Words), maxWords)])
	forms, fields, err := said.columns()
	if err != nil {
		return fmt.Errorf("writing the fields of forms: %w", err)
	}
	if _, err := tx.ExecContext(ctx, `INSERT INTO published (page_id, site_id, slug, name, description, words, forms, config, fields)
		SELECT id, site_id, slug, CASE WHEN lock = '' THEN name ELSE '' END, CASE WHEN lock = '' THEN description ELSE '' END, CASE WHEN lock = '' THEN $2 ELSE '' END,
			$3, $4::regconfig, $5 FROM pages WHERE id = $1 ON CONFLICT (page_id) DO UPDATE SET slug = EXCLUDED.slug,
		name = EXCLUDED.name, description = EXCLUDED.description, words = EXCLUDED.words, forms = EXCLUDED.forms, config = EXCLUDED.config, fields = EXCLUDED.fields`,
		page, words, forms, textConfig(language), fields); err != nil {
		return fmt.Errorf("keeping what a page says: %w", err)
	}
	return nil
}

// Renew gives write the source of every edition that lacks copies of an original, and
// keeps the one that it returns; then it makes the change of what the host shows. With done
// there are no more copies to come.
func (s *Releases) Renew(
	ctx context.Context,
	site, original string,
	done bool,
	write func(source []byte) ([]byte, error),
	change Change,
) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		at, err := lockShown(ctx, tx, site)
		if err != nil {
			return err
		}
		var editions []struct {
			Page   string `db:"page_id"`
			Source []byte `db:"source"`
		}
		if err := tx.SelectContext(ctx, &editions, `SELECT e.page_id, e.source FROM pages p JOIN editions e ON e.page_id = p.id
			WHERE p.site_id = $1 AND $2 = ANY (e.originals) ORDER BY p.id FOR NO KEY UPDATE OF p`, site, original); err != nil {
			return fmt.Errorf("finding editions: %w", err)
		}
		if len(editions) == 0 {
			return nil
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
		return amend(ctx, tx, site, at, change)
	})
}

// Amend makes a change of what a site's host shows that is no publication of its own.
func (s *Releases) Amend(ctx context.Context, site string, change Change) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		at, err := lockShown(ctx, tx, site)
		if err != nil || at.Content == nil {
			return err
		}
		return amend(ctx, tx, site, at, change)
	})
}

func amend(ctx context.Context, tx *sqlx.Tx, site string, at showing, change Change) error {
	content, err := change.Next(at.Content, at.Number)
	if err != nil {
		return err
	}
	if _, err := tx.ExecContext(ctx, `UPDATE releases SET content = $3 WHERE site_id = $1 AND number = $2`, site, at.Number, content); err != nil {
		return fmt.Errorf("amending a publication: %w", err)
	}
	return change.Put(content)
}
