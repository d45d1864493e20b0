package store

import (
	"context"
	"errors"
	"fmt"
	"maps"
	"slices"

	"github.com/jmoiron/sqlx"

	"openplot/core/doc"
	"openplot/core/edit"
)

// SharedSection is a section that stands on several pages of a site, as it is there.
func (s *Pages) SharedSection(ctx context.Context, site, id string) (*doc.Section, error) {
	return s.sharedNow(ctx, s.db, site, id, "")
}

// sharedNow gives a shared section from any page of a site but one; ErrNotFound where none has it.
func (s *Pages) sharedNow(ctx context.Context, q sqlx.QueryerContext, site, id, but string) (*doc.Section, error) {
	var at struct {
		ID  string `db:"id"`
		Seq int64  `db:"seq"`
	}
	if err := sqlx.GetContext(ctx, q, &at, `SELECT id, seq FROM pages WHERE site_id = $1 AND shared @> ARRAY[$2::text] AND id <> $3
		ORDER BY deleted_at IS NOT NULL, id LIMIT 1`, site, Clean(id), but); err != nil {
		return nil, fmt.Errorf("finding a shared section: %w", notFound(err))
	}
	d, err := s.doc(ctx, q, at.ID, at.Seq)
	if err != nil {
		return nil, err
	}
	sec, _ := d.Section(id)
	if sec == nil {
		return nil, ErrNotFound
	}
	return sec, nil
}

// Shared is a section that stands on several pages.
type Shared struct {
	Section *doc.Section
	Pages   []*PageInfo
}

// SharedSections lists those of a site, by the pages they stand on first.
func (s *Pages) SharedSections(ctx context.Context, site string) (out []Shared, err error) {
	infos, err := s.List(ctx, site)
	if err != nil {
		return nil, err
	}
	for _, p := range infos {
		for _, id := range p.Shared {
			if i := slices.IndexFunc(out, func(o Shared) bool { return o.Section.ID == id }); i >= 0 {
				out[i].Pages = append(out[i].Pages, p)
				continue
			}
			sec, err := s.SharedSection(ctx, site, id)
			if err != nil {
				return nil, err
			}
			out = append(out, Shared{sec, []*PageInfo{p}})
		}
	}
	return out, nil
}

// evenOut has pages follow that have shared sections which an undo or a redo changed on others:
// they may have got them since. It adds them to done; they are nobody's to take back.
func (s *Pages) evenOut(ctx context.Context, tx *sqlx.Tx, page string, done map[string]*Edited) error {
	for _, id := range slices.Sorted(maps.Keys(done)) {
		e := done[id]
		ids := slices.DeleteFunc(
			e.Page.SharedSections(),
			func(sec string) bool { return !slices.Contains(e.Result.Sections, sec) },
		)
		if len(ids) == 0 {
			continue
		}
		var others []string
		if err := tx.SelectContext(ctx, &others, `SELECT id FROM pages WHERE site_id = (SELECT site_id FROM pages WHERE id = $1) AND shared && $2 ORDER BY id FOR NO KEY UPDATE`,
			page, ids); err != nil {
			return fmt.Errorf("locking pages that share a section: %w", err)
		}
		for _, other := range others {
			if done[other] != nil {
				continue
			}
			seq, d, err := s.lock(ctx, tx, other)
			if err != nil {
				return err
			}
			follows, err := e.Result.Follow(ids, d)
			if err != nil {
				return err
			}
			if follows == nil {
				continue
			}
			if err := s.append(ctx, tx, entry{page: other, seq: seq + 1, kind: kindEdit, result: follows}); err != nil {
				return err
			}
			done[other] = &Edited{Page: follows.Page, Seq: seq + 1, Result: follows}
		}
	}
	return nil
}

// renewShared brings the shared sections that steps put on a page up to date: they may have
// changed on other pages since the steps were written.
func (s *Pages) renewShared(ctx context.Context, tx *sqlx.Tx, page string, steps []edit.Step) ([]edit.Step, error) {
	var site string
	out := slices.Clone(steps)
	for i, st := range out {
		if st.Do != edit.InsertSection || !st.Section.Shared {
			continue
		}
		if site == "" {
			if err := tx.GetContext(ctx, &site, `SELECT site_id FROM pages WHERE id = $1`, page); err != nil {
				return nil, fmt.Errorf("finding the page's site: %w", notFound(err))
			}
		}
		now, err := s.sharedNow(ctx, tx, site, st.Section.ID, page)
		if err == nil {
			out[i].Section = now
		} else if !errors.Is(err, ErrNotFound) {
			return nil, err
		}
	}
	return out, nil
}
