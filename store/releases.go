package store

import (
	"context"
	"database/sql"
	"fmt"
	"slices"
	"time"

	"github.com/jmoiron/sqlx"

	"openplot/core/doc"
	"openplot/core/policy"
)

// Change is a change of what a site's host shows. Next makes what it shows of what it showed
// before, nil at first; Put brings that to visitors, as the last thing before it is kept.
type Change struct {
	Next func(was []byte, number int64) ([]byte, error)
	Put  func(content []byte) error
}

// Publication is what is published of a site at once, and what is withdrawn.
type Publication struct {
	Site      string
	By        string // a user, or "" for the program itself
	Note      string // what was done, in words
	Editions  []Edition
	Withdrawn []string // pages
	Change
}

// ReleaseInfo is what lists of publications show.
type ReleaseInfo struct {
	Number int64     `db:"number"`
	Note   string    `db:"note"`
	By     string    `db:"by"` // a name, or ""
	MadeAt time.Time `db:"made_at"`
}

// Publish keeps a publication: all of it, or nothing. Publications of a site come one after
// another.
func (s *Releases) Publish(ctx context.Context, p Publication) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		at, err := lockInUse(ctx, tx, p.Site)
		if err != nil {
			return err
		}
		pages := slices.Clone(p.Withdrawn)
		for _, e := range p.Editions {
			pages = append(pages, e.Page)
		}
		if err := lockPages(ctx, tx, pages); err != nil {
			return err
		}
		var last int64
		if err := tx.GetContext(ctx, &last, `SELECT coalesce(max(number), 0) FROM releases WHERE site_id = $1`, p.Site); err != nil {
			return fmt.Errorf("numbering a publication: %w", err)
		}
		number := last + 1
		content, err := p.Next(at.Content, number)
		if err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `WITH made AS (INSERT INTO releases (site_id, number, content, note, made_by) VALUES ($1, $2, $3, $4, nullif($5, '')))
			UPDATE sites SET release = $2 WHERE id = $1`, p.Site, number, content, p.Note, p.By); err != nil {
			return fmt.Errorf("keeping a publication: %w", err)
		}
		if len(p.Editions) > 0 {
			if err := keepSiteVersion(ctx, tx, p.Site, p.By, Published, p.Note); err != nil {
				return err
			}
		}
		for _, e := range p.Editions {
			if err := keepEdition(ctx, tx, p.Site, e); err != nil {
				return err
			}
		}
		for _, page := range p.Withdrawn {
			if err := withdraw(ctx, tx, p.Site, page); err != nil {
				return err
			}
		}
		return p.Put(content)
	})
}

// showing is what the host of a site shows: its number and content, 0 and nil when that is
// nothing, as when it is Archived.
type showing struct {
	Number   int64
	Content  []byte
	Archived bool
}

// lockShown locks what a site's host shows until the end of the transaction, before anything
// else of the site is locked (docs/decisions/0024); ErrNotFound when the site is deleted. It asks
// twice: whoever waited for the lock would otherwise read what was there before it waited
// (PostgreSQL 15 §13.2.1).
func lockShown(ctx context.Context, tx *sqlx.Tx, site string) (at showing, err error) {
	var row struct {
		Number   sql.NullInt64 `db:"release"`
		Archived bool          `db:"archived"`
	}
	if err := tx.GetContext(ctx, &row, `SELECT release, archived_at IS NOT NULL AS archived FROM sites WHERE id = $1 AND deleted_at IS NULL FOR NO KEY UPDATE`, site); err != nil {
		return at, fmt.Errorf("locking what is published: %w", notFound(err))
	}
	at.Number, at.Archived = row.Number.Int64, row.Archived
	if !row.Number.Valid {
		return at, nil
	}
	if err := tx.GetContext(ctx, &at.Content, `SELECT content FROM releases WHERE site_id = $1 AND number = $2`, site, at.Number); err != nil {
		return at, fmt.Errorf("reading what is published: %w", notFound(err))
	}
	return at, nil
}

// lockInUse locks what a site's host shows, for what brings something to visitors; a *doc.Problem
// when the site is archived.
func lockInUse(ctx context.Context, tx *sqlx.Tx, site string) (showing, error) {
	at, err := lockShown(ctx, tx, site)
	if err == nil && at.Archived {
		err = doc.Problemf("Site", "is archived, and visitors find nothing of it: bring it back first, in its settings")
	}
	return at, err
}

func keepEdition(ctx context.Context, tx *sqlx.Tx, site string, e Edition) error {
	r, err := tx.ExecContext(
		ctx,
		`UPDATE pages SET published_at = now(), published_seq = $2, published_look = $3 WHERE id = $1 AND site_id = $4`,
		e.Page,
		e.Seq,
		e.Look,
		site,
	)
	if err != nil {
		return fmt.Errorf("noting a publication: %w", err)
	}
	if n, err := r.RowsAffected(); err != nil || n == 0 {
		return fmt.Errorf("noting a publication of %s: %w", e.Page, ErrNotFound)
	}
	if err := keepSaid(ctx, tx, e); err != nil {
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
	return nil
}

// withdraw notes that a page isn't published any more.
func withdraw(ctx context.Context, tx *sqlx.Tx, site, page string) error {
	for _, query := range []string{
		`UPDATE pages SET published_at = NULL, published_seq = NULL, published_look = NULL WHERE id = $1 AND site_id = $2`,
		`DELETE FROM published WHERE page_id = $1 AND site_id = $2`,
		`DELETE FROM editions e USING pages p WHERE e.page_id = $1 AND p.id = e.page_id AND p.site_id = $2`,
	} {
		if _, err := tx.ExecContext(ctx, query, page, site); err != nil {
			return fmt.Errorf("withdrawing a page: %w", err)
		}
	}
	return nil
}

// List lists the newest publications of a site, the newest first.
func (s *Releases) List(ctx context.Context, site string, limit int) (rs []ReleaseInfo, err error) {
	if err := s.db.SelectContext(ctx, &rs, `SELECT r.number, r.note, coalesce(u.name, '') AS by, r.made_at FROM releases r LEFT JOIN users u ON u.id = r.made_by
		WHERE r.site_id = $1 ORDER BY r.number DESC LIMIT $2`, site, limit); err != nil {
		return nil, fmt.Errorf("listing publications: %w", err)
	}
	return rs, nil
}

// ShownRelease gives the number of the publication that a site's host shows, or 0.
func (s *Releases) ShownRelease(ctx context.Context, site string) (number int64, err error) {
	if err := s.db.GetContext(ctx, &number, `SELECT coalesce(release, 0) FROM sites WHERE id = $1`, site); err != nil {
		return 0, fmt.Errorf("finding the publication: %w", notFound(err))
	}
	return number, nil
}

// ByID gives the content of a publication of a site.
func (s *Releases) ByID(ctx context.Context, site string, number int64) (content []byte, err error) {
	if err := s.db.GetContext(ctx, &content, `SELECT content FROM releases WHERE site_id = $1 AND number = $2`, site, number); err != nil {
		return nil, fmt.Errorf("finding a publication: %w", notFound(err))
	}
	return content, nil
}

// Shown is what the host of a site shows.
type Shown struct {
	Site    string `db:"site"` // id
	Slug    string `db:"slug"`
	Content []byte `db:"content"` // nil: pages were published before there were releases
}

// AllShown gives what the hosts of all sites show that visitors find and that have anything
// published.
func (s *Releases) AllShown(ctx context.Context) (all []Shown, err error) {
	if err := s.db.SelectContext(ctx, &all, `SELECT s.id AS site, s.slug, r.content FROM shown_sites s LEFT JOIN releases r ON r.site_id = s.id AND r.number = s.release
		WHERE r.number IS NOT NULL OR EXISTS (SELECT FROM pages p WHERE p.site_id = s.id AND p.published_at IS NOT NULL) ORDER BY s.slug`); err != nil {
		return nil, fmt.Errorf("listing what is published: %w", err)
	}
	return all, nil
}

// Reading is a look at what a site's host shows, if that is anything, while nothing is published.
func (s *Releases) Reading(ctx context.Context, site string, look func(content []byte) error) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		at, err := lockShown(ctx, tx, site)
		if err != nil || at.Content == nil {
			return err
		}
		return look(at.Content)
	})
}

// ReleaseContents gives the content of all publications of a site that are kept.
func (s *Releases) ReleaseContents(ctx context.Context, site string) (all [][]byte, err error) {
	if err := s.db.SelectContext(ctx, &all, `SELECT content FROM releases WHERE site_id = $1`, site); err != nil {
		return nil, fmt.Errorf("reading publications: %w", err)
	}
	return all, nil
}

// Forget ends publications of before a time, but for the newest of each site and the
// one that is shown.
func (s *Releases) Forget(ctx context.Context, before time.Time) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM releases r USING sites s WHERE s.id = r.site_id AND r.made_at < $1 AND r.number IS DISTINCT FROM s.release
		AND r.number <= (SELECT max(number) FROM releases WHERE site_id = r.site_id) - $2`, before, policy.FewestReleases); err != nil {
		return fmt.Errorf("ending old publications: %w", err)
	}
	return nil
}
