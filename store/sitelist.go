package store

import (
	"context"
	"fmt"
	"time"

	"github.com/jmoiron/sqlx"

	"openplot/core/doc"
	"openplot/core/policy"
	"openplot/core/tree"
)

// SiteInfo is what lists of sites show.
type SiteInfo struct {
	Slug     string    `db:"slug"`
	Name     string    `db:"name"`
	Role     Role      `db:"role"`
	Version  int64     `db:"version"`
	Archived bool      `db:"archived"`
	Pages    int       `db:"pages"`
	EditedAt time.Time `db:"edited_at"`
	// Published are the pages that visitors see, Changed those of them that they see an earlier
	// state of.
	Published int `db:"published"`
	Changed   int `db:"changed"`
	// SVG is the home page's drawing, of an earlier state unless Fresh.
	SVG   string `db:"svg"`
	Look  string `db:"look"`
	Fresh bool   `db:"fresh"`
}

// SiteQuery says which of somebody's sites are listed: those whose name or address has some
// words, and which are set aside or aren't.
type SiteQuery struct {
	Words    string
	Archived bool
	From     int
	Limit    int
}

// Search lists sites of a person, those edited last first, with the number of all that fit.
func (s *Sites) Search(ctx context.Context, user string, q SiteQuery) (sites []*SiteInfo, all int, err error) {
	const which = `FROM sites s JOIN members m ON m.site_id = s.id WHERE m.user_id = $1 AND s.deleted_at IS NULL AND s.maker IS NULL AND (s.archived_at IS NOT NULL) = $2
		AND ($3 = '' OR strpos(lower(s.name || ' ' || s.slug), lower($3)) > 0)`
	words := Clean(q.Words)
	if err := s.db.GetContext(ctx, &all, `SELECT count(*) `+which, user, q.Archived, words); err != nil {
		return nil, 0, fmt.Errorf("counting sites: %w", err)
	}
	if err := s.db.SelectContext(ctx, &sites, `WITH mine AS (SELECT s.id, s.slug, s.name, s.version, s.archived_at IS NOT NULL AS archived, s.created_at, m.role `+which+`),
		shown AS (SELECT mine.*, greatest(mine.created_at, (SELECT max(p.edited_at) FROM pages p WHERE p.site_id = mine.id AND p.deleted_at IS NULL)) AS edited_at
			FROM mine ORDER BY edited_at DESC, slug OFFSET $4 LIMIT $5)
		SELECT shown.slug, shown.name, shown.role, shown.version, shown.archived, shown.edited_at, coalesce(d.svg, '') AS svg, coalesce(d.look, '') AS look,
			coalesce(d.seq = h.seq, false) AS fresh, n.pages, n.published, n.changed
		FROM shown LEFT JOIN pages h ON h.site_id = shown.id AND h.slug = '' AND h.deleted_at IS NULL LEFT JOIN page_drawings d ON d.page_id = h.id,
		LATERAL (SELECT count(*) AS pages, count(p.published_seq) AS published,
			count(*) FILTER (WHERE p.published_seq <> p.seq OR p.published_look <> shown.version) AS changed
			FROM pages p WHERE p.site_id = shown.id AND p.deleted_at IS NULL) n ORDER BY shown.edited_at DESC, shown.slug`,
		user, q.Archived, words, q.From, q.Limit); err != nil {
		return nil, 0, fmt.Errorf("listing sites: %w", err)
	}
	return sites, all, nil
}

// DeletedSite is a site that its owner can have back.
type DeletedSite struct {
	ID        string    `db:"id"`
	Slug      string    `db:"slug"`
	Name      string    `db:"name"`
	DeletedAt time.Time `db:"deleted_at"`
}

// Deleted lists those that somebody owned.
func (s *Sites) Deleted(ctx context.Context, user string) (sites []DeletedSite, err error) {
	if err := s.db.SelectContext(ctx, &sites, `SELECT s.id, s.slug, s.name, s.deleted_at FROM sites s JOIN members m ON m.site_id = s.id
		WHERE m.user_id = $1 AND m.role = 'owner' AND s.deleted_at IS NOT NULL ORDER BY s.deleted_at DESC`, user); err != nil {
		return nil, fmt.Errorf("listing deleted sites: %w", err)
	}
	return sites, nil
}

// Archive sets a site aside, so that visitors find nothing of it, or brings it back as it was.
func (s *Sites) Archive(ctx context.Context, site string, archived bool) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		if _, err := lockShown(ctx, tx, site); err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `UPDATE sites SET archived_at = CASE WHEN $2 THEN coalesce(archived_at, now()) END WHERE id = $1`, site, archived); err != nil {
			return fmt.Errorf("setting a site aside: %w", err)
		}
		if !archived {
			return nil
		}
		if _, err := tx.ExecContext(ctx, `DELETE FROM plans WHERE site_id = $1`, site); err != nil {
			return fmt.Errorf("ending plans: %w", err)
		}
		return nil
	})
}

// SetOffline has visitors read words instead of a site's pages, or shows these again.
func (s *Sites) SetOffline(ctx context.Context, site string, offline bool, words string) error {
	if _, err := s.db.ExecContext(
		ctx, `UPDATE sites SET offline_at = CASE WHEN $2 THEN coalesce(offline_at, now()) END, offline_words = $3 WHERE id = $1`, site, offline, words,
	); err != nil {
		return fmt.Errorf("taking a site offline: %w", err)
	}
	return nil
}

// Delete deletes a site, which its owner can have back: with nothing published, planned or to
// be seen by a link, and without its domains.
func (s *Sites) Delete(ctx context.Context, site string) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		if _, err := lockShown(ctx, tx, site); err != nil {
			return err
		}
		for _, query := range []string{
			`UPDATE sites SET deleted_at = now(), release = NULL, version = version + 1 WHERE id = $1`,
			`UPDATE pages SET published_at = NULL, published_seq = NULL, published_look = NULL WHERE site_id = $1`,
			`DELETE FROM plans WHERE site_id = $1`,
			`DELETE FROM editions e USING pages p WHERE p.id = e.page_id AND p.site_id = $1`,
			`DELETE FROM published WHERE site_id = $1`,
			`DELETE FROM releases WHERE site_id = $1`,
			`DELETE FROM previews WHERE site_id = $1`,
			`DELETE FROM domains WHERE site_id = $1`,
			`DELETE FROM former_addresses WHERE site_id = $1`,
		} {
			if _, err := tx.ExecContext(ctx, query, site); err != nil {
				return fmt.Errorf("deleting a site: %w", err)
			}
		}
		return nil
	})
}

// Restore brings a deleted site back to its owner, with nothing published; where its address
// is taken it gets another. It gives the address.
func (s *Sites) Restore(ctx context.Context, user, id string) (slug string, err error) {
	err = s.inTx(ctx, func(tx *sqlx.Tx) error {
		if err := tx.GetContext(ctx, &slug, `SELECT s.slug FROM sites s JOIN members m ON m.site_id = s.id
			WHERE s.id = $1 AND m.user_id = $2 AND m.role = 'owner' AND s.deleted_at IS NOT NULL FOR NO KEY UPDATE OF s`, id, user); err != nil {
			return fmt.Errorf("finding a deleted site: %w", notFound(err))
		}
		var failed error
		slug = tree.Slug(slug, func(word string) bool {
			var taken bool
			if err := tx.GetContext(ctx, &taken, `SELECT EXISTS (SELECT FROM sites WHERE slug = $1 AND deleted_at IS NULL)`, word); err != nil {
				failed = err
			}
			return taken || doc.SiteReserved(word)
		})
		if failed != nil {
			return fmt.Errorf("looking for an address: %w", failed)
		}
		if _, err := tx.ExecContext(ctx, `UPDATE sites SET deleted_at = NULL, slug = $2 WHERE id = $1`, id, slug); err != nil {
			return fmt.Errorf("restoring a site: %w", err)
		}
		return takeAddress(ctx, tx, slug)
	})
	return slug, err
}

// Forget ends sites that were deleted before a time.
func (s *Sites) Forget(ctx context.Context, before time.Time) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM sites WHERE deleted_at < $1`, before); err != nil {
		return fmt.Errorf("ending deleted sites: %w", err)
	}
	return nil
}

// MayBegin gives a *doc.Problem when somebody owns as many sites as they may.
func (s *Sites) MayBegin(ctx context.Context, user string) error {
	var n int
	if err := s.db.GetContext(ctx, &n, `SELECT count(*) FROM members WHERE user_id = $1 AND role = 'owner'`, user); err != nil {
		return fmt.Errorf("counting sites: %w", err)
	}
	if n >= policy.Sites {
		return doc.Problemf("Sites", "of yours are %d, deleted ones included; that is as many as one person has", n)
	}
	return nil
}

// Taken reports whether a site has an address.
func (s *Sites) Taken(ctx context.Context, slug string) (taken bool, err error) {
	if err := s.db.GetContext(ctx, &taken, `SELECT EXISTS (SELECT FROM sites WHERE slug = $1 AND deleted_at IS NULL)`, Clean(slug)); err != nil {
		return false, fmt.Errorf("looking for an address: %w", err)
	}
	return taken, nil
}

// Drop ends a site at once, with all that it has.
func (s *Sites) Drop(ctx context.Context, site string) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM sites WHERE id = $1`, site); err != nil {
		return fmt.Errorf("ending a site: %w", err)
	}
	return nil
}

// Rename gives a site another address; the one that it had leads there until somebody takes
// it. Errors are *doc.Problem for an address that is taken.
func (s *Sites) Rename(ctx context.Context, site, slug string) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		if _, err := lockShown(ctx, tx, site); err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `INSERT INTO former_addresses (slug, site_id) SELECT slug, id FROM sites WHERE id = $1
			ON CONFLICT (slug) DO UPDATE SET site_id = EXCLUDED.site_id, left_at = now()`, site); err != nil {
			return fmt.Errorf("keeping an old address: %w", err)
		}
		_, err := tx.ExecContext(ctx, `UPDATE sites SET slug = $2, version = version + 1 WHERE id = $1`, site, slug)
		if duplicate(err) {
			return doc.Problemf("Address", "%q is another site’s already; choose another", slug)
		}
		if err != nil {
			return fmt.Errorf("moving a site: %w", err)
		}
		return takeAddress(ctx, tx, slug)
	})
}
