package store

import (
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"slices"
	"time"

	"github.com/jmoiron/sqlx"

	"openplot/core/doc"
	"openplot/core/edit"
)

// What somebody takes back next: their own last edit that stands; and does again: what
// they took back last, as long as they edited nothing since.
const (
	nextUndo = `SELECT seq, act FROM page_log WHERE page_id = $1 AND user_id = $2 AND kind = 'edit' AND NOT undone ORDER BY seq DESC LIMIT 1`
	nextRedo = `SELECT seq, act FROM page_log u WHERE page_id = $1 AND user_id = $2 AND kind = 'undo' AND NOT undone
		AND NOT EXISTS (SELECT FROM page_log e WHERE e.page_id = u.page_id AND e.user_id = $2 AND e.kind = 'edit' AND e.seq > u.seq) ORDER BY seq DESC LIMIT 1`
)

func history(ctx context.Context, q sqlx.QueryerContext, page, user string) (History, error) {
	var h History
	row := q.QueryRowxContext(ctx, `SELECT edits, u.seq IS NOT NULL, e.command, r.seq IS NOT NULL, d.command FROM pages
		LEFT JOIN (`+nextUndo+`) u ON true LEFT JOIN page_log e ON e.page_id = pages.id AND e.seq = u.seq
		LEFT JOIN (`+nextRedo+`) r ON true LEFT JOIN page_log b ON b.page_id = pages.id AND b.seq = r.seq
		LEFT JOIN page_log d ON d.page_id = pages.id AND d.seq = b.target WHERE pages.id = $1`, page, user)
	var undo, redo []byte
	if err := row.Scan(&h.Edits, &h.CanUndo, &undo, &h.CanRedo, &redo); err != nil {
		return History{}, fmt.Errorf("reading the log: %w", err)
	}
	h.Undo, h.Redo = saidOf(undo), saidOf(redo)
	return h, nil
}

// saidOf says what a command of the log did; "" where it isn't known.
func saidOf(command []byte) string {
	var c edit.Command
	if len(command) == 0 || json.Unmarshal(command, &c) != nil {
		return ""
	}
	return edit.Said(c)
}

// MostBack is how many edits can be taken back at once.
const MostBack = 50

// Made is an edit that stands.
type Made struct {
	Said string // what it did, in a few words
	At   time.Time
}

// Recent gives a person's own last edits of a page that stand, the latest first: those that
// Undo takes back, one after another.
func (s *Log) Recent(ctx context.Context, page, user string) ([]Made, error) {
	var rows []struct {
		Command []byte    `db:"command"`
		At      time.Time `db:"made_at"`
	}
	if err := s.db.SelectContext(ctx, &rows, `SELECT command, made_at FROM page_log WHERE page_id = $1 AND user_id = $2 AND kind = 'edit' AND NOT undone
		ORDER BY seq DESC LIMIT $3`, page, user, MostBack); err != nil {
		return nil, fmt.Errorf("reading the log: %w", err)
	}
	out := make([]Made, len(rows))
	for i, r := range rows {
		out[i] = Made{cmp.Or(saidOf(r.Command), "edit"), r.At}
	}
	return out, nil
}

// History tells what a person can undo on a page.
func (s *Log) History(ctx context.Context, page, user string) (History, error) {
	return history(ctx, s.db, page, user)
}

// Undo takes back a person's own last edit that stands, and with it what belongs to it on
// other pages and in the house style. It appends to the log. ErrNothing means that
// there is none, and a *doc.Problem that somebody else built on it since.
func (s *Log) Undo(ctx context.Context, page, user string) (*Edited, error) {
	return s.back(ctx, page, user, kindUndo)
}

// Redo does again what the person's last undo took back.
func (s *Log) Redo(ctx context.Context, page, user string) (*Edited, error) {
	return s.back(ctx, page, user, kindRedo)
}

// logged is an entry of a page's log.
type logged struct {
	Page string  `db:"page_id"`
	Seq  int64   `db:"seq"`
	Act  *string `db:"act"`
}

func next(ctx context.Context, tx *sqlx.Tx, page, user, kind string) (logged, error) {
	e := logged{Page: page}
	query := map[string]string{kindUndo: nextUndo, kindRedo: nextRedo}[kind]
	err := tx.GetContext(ctx, &e, query, page, user)
	if errors.Is(notFound(err), ErrNotFound) {
		return e, ErrNothing
	}
	if err != nil {
		return e, fmt.Errorf("finding what to %s: %w", kind, err)
	}
	return e, nil
}

func (s *Log) back(ctx context.Context, page, user, kind string) (*Edited, error) {
	var done map[string]*Edited
	err := s.inTx(ctx, func(tx *sqlx.Tx) error {
		e, err := next(ctx, tx, page, user, kind)
		if err != nil {
			return err
		}
		if done, err = s.backAct(ctx, tx, user, kind, e); err != nil {
			return err
		}
		again, err := next(ctx, tx, page, user, kind) // now that the page stands still
		if err == nil && again.Seq > e.Seq {
			return ErrStale
		}
		if errors.Is(err, ErrNothing) {
			return nil
		}
		return err
	})
	if err != nil {
		return nil, err
	}
	for id, e := range done {
		s.pages.put(id, e.Seq, e.Page)
	}
	done[page].Shared = len(done) - 1
	return done[page], nil
}

// backAct takes back an entry and all that belongs to it, or does it again.
func (s *Log) backAct(ctx context.Context, tx *sqlx.Tx, user, kind string, e logged) (map[string]*Edited, error) {
	entries, act := []logged{e}, (*string)(nil)
	if e.Act != nil {
		var site string
		if err := tx.GetContext(ctx, &site, `SELECT site_id FROM pages WHERE id = $1`, e.Page); err != nil {
			return nil, fmt.Errorf("finding the page's site: %w", err)
		}
		id := NewID("a")
		act = &id
		if err := s.all.Houses.backHouse(ctx, tx, site, user, kind, *e.Act, id); err != nil {
			return nil, err
		}
		of := map[string]string{kindUndo: kindEdit, kindRedo: kindUndo}[kind]
		if err := tx.SelectContext(
			ctx, &entries,
			`SELECT page_id, seq, act FROM page_log WHERE act = $1 AND kind = $2 AND NOT undone ORDER BY page_id, seq DESC`,
			*e.Act, of,
		); err != nil {
			return nil, fmt.Errorf("finding what belongs together: %w", err)
		}
	}
	done := map[string]*Edited{}
	for _, e := range entries {
		var err error
		if done[e.Page], err = s.backEntry(ctx, tx, user, kind, e, act); err != nil {
			return nil, err
		}
	}
	return done, s.all.Pages.evenOut(ctx, tx, e.Page, done)
}

// backEntry takes back one entry of a page's log, or does it again.
func (s *Log) backEntry(ctx context.Context, tx *sqlx.Tx, user, kind string, e logged, act *string) (*Edited, error) {
	seq, d, err := s.all.Pages.lock(ctx, tx, e.Page)
	if err != nil {
		return nil, err
	}
	var row struct {
		Inverse []byte `db:"inverse"`
		Target  *int64 `db:"target"`
	}
	if err := tx.GetContext(
		ctx, &row,
		`UPDATE page_log SET undone = true WHERE page_id = $1 AND seq = $2 AND NOT undone RETURNING inverse, target`,
		e.Page, e.Seq,
	); err != nil {
		return nil, fmt.Errorf("marking entry %d: %w", e.Seq, err)
	}
	if kind == kindRedo {
		if _, err := tx.ExecContext(ctx, `UPDATE page_log SET undone = false WHERE page_id = $1 AND seq = $2`, e.Page, *row.Target); err != nil {
			return nil, fmt.Errorf("marking entry %d: %w", *row.Target, err)
		}
	}
	var steps []edit.Step
	if err := json.Unmarshal(row.Inverse, &steps); err != nil {
		return nil, fmt.Errorf("reading entry %d: %w", e.Seq, err)
	}
	if steps, err = s.all.Pages.renewShared(ctx, tx, e.Page, steps); err != nil {
		return nil, err
	}
	name := map[string]string{kindUndo: "Undo", kindRedo: "Redo"}[kind]
	next, inverse, err := edit.Run(d, steps)
	if err != nil {
		return nil, doc.Problemf(name, "isn't possible: somebody else removed or moved what your edit was about")
	}
	r := &edit.Result{Page: next, Steps: steps, Inverse: inverse}
	r.Nodes, r.Sections = edit.Touched(steps, d, next)
	if others, err := othersSince(ctx, tx, e, user, edit.Within(r.Nodes, d)); err != nil {
		return nil, err
	} else if others {
		return nil, doc.Problemf(name, "isn't possible: somebody else changed the same thing since")
	}
	r.Select = edit.Reselect(r.Nodes, next)
	seq++
	target := e.Seq
	if err := s.all.Pages.append(ctx, tx, entry{page: e.Page, seq: seq, user: user, kind: kind, target: &target, act: act, result: r}); err != nil {
		return nil, err
	}
	h, err := history(ctx, tx, e.Page, user)
	return &Edited{Page: next, Seq: seq, Result: r, History: h}, err
}

// othersSince reports whether somebody else did anything to nodes after an entry that
// still stands, taking back something older included.
func othersSince(ctx context.Context, tx *sqlx.Tx, e logged, user string, nodes []string) (bool, error) {
	var others bool
	err := tx.GetContext(
		ctx,
		&others,
		`SELECT EXISTS (SELECT FROM page_log WHERE page_id = $1 AND seq > $2 AND user_id IS DISTINCT FROM $3
		AND NOT undone AND nodes && $4 AND (kind = 'edit' OR kind = 'undo' AND target < $2))`,
		e.Page,
		e.Seq,
		user,
		nodes,
	)
	if err != nil {
		return false, fmt.Errorf("looking for others' edits: %w", err)
	}
	return others, nil
}

// Act is what a command over pages and the house style of one site comes to.
type Act struct {
	House        *doc.House // as it is afterwards; nil leaves it as it is
	HouseCommand edit.HouseCommand
	Pages        map[string]PageAct // by id
}

// PageAct is what it comes to on one page.
type PageAct struct {
	Command edit.Command
	Result  *edit.Result
}

// Seen is what somebody saw who acts: the site's version, and pages' sequence numbers by id.
type Seen struct {
	House int64
	Pages map[string]int64
}

// Together carries out what act makes of a site and those of its pages that were seen: all
// of it, in one transaction, with entries that are taken back together, or nothing. Errors
// are act's, ErrStale when somebody changed the same since, and *doc.Problem when pages
// use what the house style loses.
func (s *Log) Together(
	ctx context.Context,
	site, user string,
	seen Seen,
	act func(house doc.House, pages map[string]*doc.Page) (*Act, error),
) (map[string]*Edited, error) {
	done := map[string]*Edited{}
	err := s.inTx(ctx, func(tx *sqlx.Tx) error {
		clear(done)
		version, was, err := lockHouse(ctx, tx, site)
		if err != nil {
			return err
		}
		var house doc.House
		if err := json.Unmarshal(was, &house); err != nil {
			return fmt.Errorf("reading the house style: %w", err)
		}
		pages, seqs := map[string]*doc.Page{}, map[string]int64{}
		ids := slices.Sorted(maps.Keys(seen.Pages))
		for _, id := range ids {
			if seqs[id], pages[id], err = s.all.Pages.lock(ctx, tx, id); err != nil {
				return err
			}
		}
		a, err := act(house, pages)
		if err != nil {
			return err
		}
		id := NewID("a")
		if a.House != nil {
			if version != seen.House {
				return ErrStale
			}
			if err := s.all.Houses.changeHouse(ctx, tx, site, user, version, &house, was, a.House, a.HouseCommand, &id); err != nil {
				return err
			}
		}
		for _, page := range ids {
			p, ok := a.Pages[page]
			if !ok {
				continue
			}
			e := entry{
				page:    page,
				seq:     seqs[page],
				user:    user,
				kind:    kindEdit,
				act:     &id,
				command: p.Command,
				result:  p.Result,
			}
			if done[page], err = s.all.Pages.change(ctx, tx, e, seen.Pages[page], p.Command.Nodes(), nil); err != nil {
				return err
			}
		}
		return nil
	})
	if err != nil {
		return nil, err
	}
	for page, e := range done {
		s.pages.put(page, e.Seq, e.Page)
	}
	return done, nil
}
