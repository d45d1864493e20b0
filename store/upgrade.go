package store

import (
	"context"
	"database/sql"
	"fmt"

	"github.com/pressly/goose/v3"

	"openplot/core/migrate"
)

// upgrades are the migrations of documents, which are written in Go; their numbers stand
// between those of the folder migrations.
func upgrades() []*goose.Migration {
	return []*goose.Migration{
		goose.NewGoMigration(9, &goose.GoFunc{RunTx: stableValues}, nil),
	}
}

// stableValues brings all documents to format 2, in which choices are kept as values and
// not as what people read.
func stableValues(ctx context.Context, tx *sql.Tx) error {
	for _, t := range []struct {
		what, read, write string
		bring             func([]byte) ([]byte, error)
	}{
		{"pages", `SELECT id, 0::bigint, doc FROM pages`, `UPDATE pages SET doc = $3 WHERE id = $1 AND 0 = $2`, migrate.Page},
		{
			"kept sections", `SELECT id, 0::bigint, section FROM kept_sections`,
			`UPDATE kept_sections SET section = $3 WHERE id = $1 AND 0 = $2`, migrate.Section,
		},
		{"steps", `SELECT page_id, seq, steps FROM page_log`, `UPDATE page_log SET steps = $3 WHERE page_id = $1 AND seq = $2`, migrate.Steps},
		{
			"inverse steps", `SELECT page_id, seq, inverse FROM page_log`,
			`UPDATE page_log SET inverse = $3 WHERE page_id = $1 AND seq = $2`, migrate.Steps,
		},
		{
			"commands", `SELECT page_id, seq, command FROM page_log WHERE command IS NOT NULL`,
			`UPDATE page_log SET command = $3 WHERE page_id = $1 AND seq = $2`, migrate.Command,
		},
		{
			"editions", `SELECT page_id, 0::bigint, source FROM editions`,
			`UPDATE editions SET source = $3 WHERE page_id = $1 AND 0 = $2`, migrate.Edition,
		},
	} {
		if err := rewrite(ctx, tx, t.read, t.write, t.bring); err != nil {
			return fmt.Errorf("bringing %s to format 2: %w", t.what, err)
		}
	}
	_, err := tx.ExecContext(ctx, `ALTER TABLE kept_sections ADD COLUMN format integer NOT NULL DEFAULT 2`)
	return err
}

// rewriteRows is how many rows are read and written at a time.
const rewriteRows = 200

// rewrite changes the documents that read gives, with the two parts of their key.
func rewrite(ctx context.Context, tx *sql.Tx, read, write string, bring func([]byte) ([]byte, error)) error {
	if _, err := tx.ExecContext(ctx, `DECLARE documents CURSOR FOR `+read); err != nil {
		return err
	}
	type row struct {
		id  string
		seq int64
		doc []byte
	}
	for {
		rows, err := tx.QueryContext(ctx, fmt.Sprintf(`FETCH %d FROM documents`, rewriteRows))
		if err != nil {
			return err
		}
		var batch []row
		for rows.Next() {
			var r row
			if err := rows.Scan(&r.id, &r.seq, &r.doc); err != nil {
				rows.Close()
				return err
			}
			batch = append(batch, r)
		}
		if err := rows.Err(); err != nil {
			return err
		}
		rows.Close()
		if len(batch) == 0 {
			_, err := tx.ExecContext(ctx, `CLOSE documents`)
			return err
		}
		for _, r := range batch {
			now, err := bring(r.doc)
			if err != nil {
				return fmt.Errorf("%s %d: %w", r.id, r.seq, err)
			}
			if _, err := tx.ExecContext(ctx, write, r.id, r.seq, now); err != nil {
				return err
			}
		}
	}
}
