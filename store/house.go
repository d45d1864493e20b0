package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"strconv"

	"github.com/jmoiron/sqlx"

	"openplot/core/doc"
	"openplot/core/edit"
)

// EditHouse changes a site's house style; the change is in the log before it
// returns. base is the version of the site that the person saw: ErrStale means that
// somebody changed the house style since. Other errors are change's, and *doc.Problem
// when the change takes away what a page uses.
func (s *Store) EditHouse(ctx context.Context, site, user string, base int64, command edit.HouseCommand, change func(doc.House) (doc.House, error)) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		version, was, err := lockHouse(ctx, tx, site)
		if err != nil {
			return err
		}
		if version != base {
			return ErrStale
		}
		var h doc.House
		if err := json.Unmarshal(was, &h); err != nil {
			return fmt.Errorf("reading the house style: %w", err)
		}
		next, err := change(h)
		if err != nil {
			return err
		}
		if err := losesNothing(ctx, tx, site, &h, &next); err != nil {
			return err
		}
		now, err := json.Marshal(next)
		if err != nil {
			return fmt.Errorf("writing the house style: %w", err)
		}
		if string(now) == string(was) {
			return nil
		}
		text, err := json.Marshal(command)
		if err != nil {
			return fmt.Errorf("writing the command: %w", err)
		}
		return keepHouse(ctx, tx, site, user, version+1, text, was, now)
	})
}

// UndoHouse takes back the last edit of a house style that stands, or gives ErrNothing;
// *doc.Problem when a page uses what that edit added.
func (s *Store) UndoHouse(ctx context.Context, site, user string) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		version, was, err := lockHouse(ctx, tx, site)
		if err != nil {
			return err
		}
		var before []byte
		err = tx.GetContext(ctx, &before, `UPDATE house_log SET undone = true WHERE site_id = $1 AND version =
			(SELECT max(version) FROM house_log WHERE site_id = $1 AND command IS NOT NULL AND NOT undone) RETURNING before`, site)
		if errors.Is(notFound(err), ErrNotFound) {
			return ErrNothing
		}
		if err != nil {
			return fmt.Errorf("finding what to undo: %w", err)
		}
		var h, next doc.House
		if err := errors.Join(json.Unmarshal(was, &h), json.Unmarshal(before, &next)); err != nil {
			return fmt.Errorf("reading the house style: %w", err)
		}
		if err := losesNothing(ctx, tx, site, &h, &next); err != nil {
			return err
		}
		return keepHouse(ctx, tx, site, user, version+1, nil, was, before)
	})
}

func lockHouse(ctx context.Context, tx *sqlx.Tx, site string) (int64, []byte, error) {
	var row struct {
		Version int64  `db:"version"`
		House   []byte `db:"house"`
	}
	if err := tx.GetContext(ctx, &row, `SELECT version, house FROM sites WHERE id = $1 FOR UPDATE`, site); err != nil {
		return 0, nil, fmt.Errorf("locking the site: %w", notFound(err))
	}
	return row.Version, row.House, nil
}

func keepHouse(ctx context.Context, tx *sqlx.Tx, site, user string, version int64, command, before, after []byte) error {
	_, err := tx.ExecContext(ctx, `WITH kept AS (
			INSERT INTO house_log (site_id, version, user_id, command, before, after) VALUES ($1, $2, $3, $4, $5, $6)
		) UPDATE sites SET house = $6, version = $2 WHERE id = $1`, site, version, user, command, before, after)
	if err != nil {
		return fmt.Errorf("keeping the house style: %w", err)
	}
	return nil
}

// HouseCanUndo reports whether an edit of the house style stands.
func (s *Store) HouseCanUndo(ctx context.Context, site string) (bool, error) {
	var can bool
	if err := s.db.GetContext(ctx, &can, `SELECT EXISTS (SELECT FROM house_log WHERE site_id = $1 AND command IS NOT NULL AND NOT undone)`, site); err != nil {
		return false, fmt.Errorf("reading the log: %w", err)
	}
	return can, nil
}

// losesNothing gives a *doc.Problem when next lacks something of h that pages of the site
// use. The pages stand still until the transaction ends.
func losesNothing(ctx context.Context, tx *sqlx.Tx, site string, h, next *doc.House) error {
	for _, gone := range h.Gone(next) {
		n, err := tokenUses(ctx, tx, site, gone.Token)
		if err != nil {
			return err
		}
		if n > 0 {
			pages := "one page"
			if n > 1 {
				pages = strconv.Itoa(n) + " pages"
			}
			return doc.Problemf(gone.Name, "stands on %s, so it can't go; give something else there first", pages)
		}
	}
	return nil
}

// tokenUses counts the pages of a site that use a token of its house style: as a
// value, in a gradient, or as the colour of words.
func tokenUses(ctx context.Context, q sqlx.QueryerContext, site, token string) (int, error) {
	var n int
	if err := sqlx.GetContext(ctx, q, &n, `SELECT count(*) FROM (SELECT doc::text AS doc FROM pages WHERE site_id = $1 FOR SHARE) p
		WHERE strpos(doc, $2) > 0 OR strpos(doc, $3) > 0 OR strpos(doc, $4) > 0`, site, `"$`+token+`"`, `$`+token+` `, `"colour":"`+token+`"`); err != nil {
		return 0, fmt.Errorf("looking for a token: %w", err)
	}
	return n, nil
}
