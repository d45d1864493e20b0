package store

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"strconv"

	"github.com/jmoiron/sqlx"

	"openplot/core/doc"
	"openplot/core/edit"
)

// Edit changes a site's house style; the change is in the log before it
// returns. base is the version of the site that the person saw: ErrStale means that
// somebody changed the house style since. Other errors are change's, and *doc.Problem
// when the change takes away what a page uses.
func (s *Houses) Edit(
	ctx context.Context,
	site, user string,
	base int64,
	command edit.HouseCommand,
	change func(doc.House) (doc.House, error),
) error {
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
		return s.changeHouse(ctx, tx, site, user, version, &h, was, &next, command, nil)
	})
}

// changeHouse writes an edit of a house style that is locked at a version.
func (s *Houses) changeHouse(
	ctx context.Context,
	tx *sqlx.Tx,
	site, user string,
	version int64,
	h *doc.House,
	was []byte,
	next *doc.House,
	command edit.HouseCommand,
	act *string,
) error {
	if err := losesNothing(ctx, tx, site, h, next); err != nil {
		return err
	}
	before, err := json.Marshal(h)
	if err != nil {
		return fmt.Errorf("writing the house style: %w", err)
	}
	now, err := json.Marshal(next)
	if err != nil {
		return fmt.Errorf("writing the house style: %w", err)
	}
	if bytes.Equal(now, before) {
		return nil
	}
	text, err := json.Marshal(command)
	if err != nil {
		return fmt.Errorf("writing the command: %w", err)
	}
	return keepHouse(ctx, tx, site, user, version+1, text, was, now, act)
}

// Undo takes back the person's own last edit of a house style that stands, with what
// belongs to it on pages, or gives ErrNothing; *doc.Problem when a page uses what that edit
// added, or when somebody else changed the house style since.
func (s *Houses) Undo(ctx context.Context, site, user string) error {
	done := map[string]*Edited{}
	err := s.inTx(ctx, func(tx *sqlx.Tx) error {
		if _, _, err := lockHouse(ctx, tx, site); err != nil {
			return err
		}
		var act *string
		err := tx.GetContext(
			ctx,
			&act,
			`SELECT act FROM house_log WHERE site_id = $1 AND user_id = $2 AND command IS NOT NULL AND NOT undone ORDER BY version DESC LIMIT 1`,
			site,
			user,
		)
		if errors.Is(notFound(err), ErrNotFound) {
			return ErrNothing
		}
		if err != nil {
			return fmt.Errorf("finding what to undo: %w", err)
		}
		if act == nil {
			return s.undoLast(ctx, tx, site, user, nil, nil)
		}
		var e logged
		err = tx.GetContext(
			ctx,
			&e,
			`SELECT page_id, seq, act FROM page_log WHERE act = $1 AND kind = 'edit' AND NOT undone LIMIT 1`,
			*act,
		)
		if errors.Is(notFound(err), ErrNotFound) {
			return s.undoLast(ctx, tx, site, user, act, nil)
		}
		if err != nil {
			return fmt.Errorf("finding what belongs together: %w", err)
		}
		done, err = s.all.Log.backAct(ctx, tx, user, kindUndo, e)
		return err
	})
	if err != nil {
		return err
	}
	for id, e := range done {
		s.pages.put(id, e.Seq, e.Page)
	}
	return nil
}

// undoLast takes back the last edit of a house style that stands, which has to be the
// person's own, and of an act if there is one.
func (s *Houses) undoLast(ctx context.Context, tx *sqlx.Tx, site, user string, act, as *string) error {
	var last struct {
		Version int64   `db:"version"`
		User    *string `db:"user_id"`
		Act     *string `db:"act"`
		Before  []byte  `db:"before"`
	}
	if err := tx.GetContext(ctx, &last, `UPDATE house_log SET undone = true WHERE site_id = $1 AND version =
		(SELECT max(version) FROM house_log WHERE site_id = $1 AND command IS NOT NULL AND NOT undone) RETURNING version, user_id, act, before`, site); err != nil {
		return fmt.Errorf("finding what to undo: %w", err)
	}
	if last.User == nil || *last.User != user || act != nil && (last.Act == nil || *last.Act != *act) {
		return doc.Problemf("Undo", "isn't possible: the house style was changed since")
	}
	return s.setHouse(ctx, tx, site, user, last.Before, as)
}

// setHouse makes a house style what it was at another time.
func (s *Houses) setHouse(ctx context.Context, tx *sqlx.Tx, site, user string, to []byte, act *string) error {
	version, was, err := lockHouse(ctx, tx, site)
	if err != nil {
		return err
	}
	var h, next doc.House
	if err := errors.Join(json.Unmarshal(was, &h), json.Unmarshal(to, &next)); err != nil {
		return fmt.Errorf("reading the house style: %w", err)
	}
	if act == nil { // otherwise what pages do with it changes together with it
		if err := losesNothing(ctx, tx, site, &h, &next); err != nil {
			return err
		}
	}
	return keepHouse(ctx, tx, site, user, version+1, nil, was, to, act)
}

// backHouse takes back what an act did to the house style, or does it again; as is the act
// that this belongs to.
func (s *Houses) backHouse(ctx context.Context, tx *sqlx.Tx, site, user, kind, act, as string) error {
	if _, _, err := lockHouse(ctx, tx, site); err != nil {
		return err
	}
	if kind == kindUndo {
		var stands bool
		if err := tx.GetContext(
			ctx, &stands,
			`SELECT EXISTS (SELECT FROM house_log WHERE act = $1 AND command IS NOT NULL AND NOT undone)`,
			act,
		); err != nil || !stands {
			return err
		}
		return s.undoLast(ctx, tx, site, user, &act, &as)
	}
	var undo struct {
		Version int64  `db:"version"`
		Before  []byte `db:"before"`
		Newest  bool   `db:"newest"`
		Target  int64  `db:"target"`
	}
	err := tx.GetContext(
		ctx,
		&undo,
		`SELECT u.version, u.before, NOT EXISTS (SELECT FROM house_log l WHERE l.site_id = u.site_id AND l.version > u.version) AS newest,
		(SELECT max(e.version) FROM house_log e WHERE e.site_id = u.site_id AND e.version < u.version AND e.command IS NOT NULL AND e.undone) AS target
		FROM house_log u WHERE u.act = $1 AND u.command IS NULL`,
		act,
	)
	if errors.Is(notFound(err), ErrNotFound) {
		return nil // it did nothing to the house style
	}
	if err != nil {
		return fmt.Errorf("finding what to redo: %w", err)
	}
	if !undo.Newest {
		return doc.Problemf("Redo", "isn't possible: the house style was changed since")
	}
	if _, err := tx.ExecContext(ctx, `UPDATE house_log SET undone = false WHERE site_id = $1 AND version = $2`, site, undo.Target); err != nil {
		return fmt.Errorf("marking version %d: %w", undo.Target, err)
	}
	return s.setHouse(ctx, tx, site, user, undo.Before, &as)
}

func lockHouse(ctx context.Context, tx *sqlx.Tx, site string) (int64, []byte, error) {
	var row struct {
		Version int64  `db:"version"`
		House   []byte `db:"house"`
	}
	if err := tx.GetContext(ctx, &row, `SELECT version, house FROM sites WHERE id = $1 FOR NO KEY UPDATE`, site); err != nil {
		return 0, nil, fmt.Errorf("locking the site: %w", notFound(err))
	}
	return row.Version, row.House, nil
}

func keepHouse(
	ctx context.Context,
	tx *sqlx.Tx,
	site, user string,
	version int64,
	command, before, after []byte,
	act *string,
) error {
	_, err := tx.ExecContext(ctx, `WITH kept AS (
			INSERT INTO house_log (site_id, version, user_id, command, before, after, act) VALUES ($1, $2, $3, $4, $5, $6, $7)
		) UPDATE sites SET house = $6, version = $2 WHERE id = $1`, site, version, user, command, before, after, act)
	if err != nil {
		return fmt.Errorf("keeping the house style: %w", err)
	}
	return nil
}

// CanUndo reports whether an edit of the house style stands that is the person's own.
func (s *Houses) CanUndo(ctx context.Context, site, user string) (bool, error) {
	var can bool
	if err := s.db.GetContext(
		ctx, &can,
		`SELECT EXISTS (SELECT FROM house_log WHERE site_id = $1 AND user_id = $2 AND command IS NOT NULL AND NOT undone)`,
		site, user,
	); err != nil {
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

// tokenUses counts the pages of a site that use a token of its house style.
func tokenUses(ctx context.Context, q sqlx.QueryerContext, site, token string) (int, error) {
	var docs [][]byte
	if err := sqlx.SelectContext(
		ctx, q, &docs,
		`SELECT doc FROM pages WHERE site_id = $1 AND strpos(doc::text, $2) > 0 ORDER BY id FOR SHARE`,
		site, token,
	); err != nil {
		return 0, fmt.Errorf("looking for a token: %w", err)
	}
	n := 0
	for _, b := range docs {
		var p doc.Page
		if err := json.Unmarshal(b, &p); err != nil {
			return 0, fmt.Errorf("reading a page: %w", err)
		}
		if p.Uses(token) {
			n++
		}
	}
	return n, nil
}
