package store

import (
	"context"
	"encoding/json"
	"fmt"

	"openplot/core/doc"
	"openplot/core/policy"
)

// KeptSection is a section that a site's people keep on the Shelf.
type KeptSection struct {
	ID      string       `db:"id"`
	Site    string       `db:"site_id"` // the one that it comes from
	Name    string       `db:"name"`
	Purpose string       `db:"purpose"` // one of edit.Purposes, or ""
	Owner   string       `db:"owner"`   // an account on all of whose sites it is, or ""
	Raw     []byte       `db:"section"`
	Section *doc.Section `db:"-"`
}

// KeepSection puts a section on a site's Shelf, or on those of all its owner's sites; it gets
// an id. Errors are *doc.Problem when there are too many.
func (s *Shelf) KeepSection(ctx context.Context, k *KeptSection) error {
	var err error
	if k.Raw, err = json.Marshal(k.Section); err != nil {
		return fmt.Errorf("writing a section: %w", err)
	}
	k.ID = NewID("k")
	r, err := s.db.ExecContext(
		ctx,
		`INSERT INTO kept_sections (id, site_id, name, section, purpose, owner) SELECT $1, $2, $3, $4, $6, nullif($7, '')
		WHERE (SELECT count(*) FROM kept_sections WHERE site_id = $2) < $5`,
		k.ID,
		k.Site,
		k.Name,
		k.Raw,
		policy.KeptSections,
		k.Purpose,
		k.Owner,
	)
	if err != nil {
		return fmt.Errorf("keeping a section: %w", err)
	}
	if n, err := r.RowsAffected(); err == nil && n == 0 {
		return doc.Problemf(
			"Kept sections",
			"are %d already, the most there can be; take one off the Shelf first",
			policy.KeptSections,
		)
	}
	return nil
}

// KeptSections gives the sections on a site's Shelf as an account sees it, the newest first.
func (s *Shelf) KeptSections(ctx context.Context, site, user string) ([]*KeptSection, error) {
	var ks []*KeptSection
	if err := s.db.SelectContext(
		ctx, &ks,
		`SELECT id, site_id, name, purpose, coalesce(owner, '') AS owner, section FROM kept_sections
			WHERE site_id = $1 AND owner IS NULL OR owner = $2 ORDER BY created_at DESC, id`, site, user,
	); err != nil {
		return nil, fmt.Errorf("listing kept sections: %w", err)
	}
	for _, k := range ks {
		if err := json.Unmarshal(k.Raw, &k.Section); err != nil {
			return nil, fmt.Errorf("reading the kept section %s: %w", k.ID, err)
		}
	}
	return ks, nil
}

// DropSection takes a section off a site's Shelf as an account sees it.
func (s *Shelf) DropSection(ctx context.Context, site, user, id string) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM kept_sections WHERE id = $3 AND (site_id = $1 AND owner IS NULL OR owner = $2)`, site, user, id); err != nil {
		return fmt.Errorf("dropping a section: %w", err)
	}
	return nil
}

// How widely a page is offered for new ones to begin as.
const (
	BeginsNowhere = ""
	BeginsOnSite  = "site"
	BeginsOnAll   = "all" // sites of whoever said so
)

// Beginning is a page that new ones are offered to begin as.
type Beginning struct {
	Page string `db:"id"`
	Name string `db:"name"`
	Site string `db:"slug"`      // of the page, its slug
	From string `db:"site_name"` // that site's name
	SVG  string `db:"svg"`       // its drawing, maybe of an earlier state
}

// SetBegins says how widely a page of a site is offered to begin as, by a user.
func (s *Shelf) SetBegins(ctx context.Context, site, page, user, how string) error {
	if _, err := s.db.ExecContext(ctx, `UPDATE pages SET begins = $3, begins_by = CASE WHEN $3 <> '' THEN $4 END WHERE site_id = $1 AND id = $2`,
		site, page, how, user); err != nil {
		return fmt.Errorf("offering a page to begin as: %w", err)
	}
	return nil
}

// BeginsFor tells how widely a page is offered to begin as.
func (s *Shelf) BeginsFor(ctx context.Context, page string) (how string, err error) {
	if err := s.db.GetContext(ctx, &how, `SELECT begins FROM pages WHERE id = $1`, page); err != nil {
		return "", fmt.Errorf("reading whether a page is offered: %w", notFound(err))
	}
	return how, nil
}

// Beginnings lists the pages that new ones of a site are offered to begin as, to a user: those of the
// site, and of others those that the user offers on all of theirs and may copy.
func (s *Shelf) Beginnings(ctx context.Context, site, user string) (bs []*Beginning, err error) {
	if err := s.db.SelectContext(ctx, &bs, `SELECT p.id, p.name, s.slug, s.name AS site_name, coalesce(d.svg, '') AS svg FROM pages p
		JOIN sites s ON s.id = p.site_id AND s.deleted_at IS NULL AND s.maker IS NULL LEFT JOIN page_drawings d ON d.page_id = p.id
		WHERE p.deleted_at IS NULL AND (p.site_id = $1 AND p.begins <> '' OR p.site_id <> $1 AND p.begins = 'all' AND p.begins_by = $2
			AND EXISTS (SELECT FROM members m WHERE m.site_id = p.site_id AND m.user_id = $2 AND m.role IN ('owner', 'designer')))
		ORDER BY p.site_id <> $1, s.name, p.name, p.id LIMIT 60`, site, user); err != nil {
		return nil, fmt.Errorf("listing pages to begin as: %w", err)
	}
	return bs, nil
}

// ShelfUse is what somebody did with a thing on the Shelf.
type ShelfUse struct {
	Item      string `db:"item"`
	Favourite bool   `db:"favourite"`
	Used      bool   `db:"used"` // and not only marked
}

// ShelfUses gives what a person marked or used, the latest use first.
func (s *Shelf) ShelfUses(ctx context.Context, user string) ([]ShelfUse, error) {
	var us []ShelfUse
	if err := s.db.SelectContext(
		ctx, &us,
		`SELECT item, favourite, used_at IS NOT NULL AS used FROM shelf_uses WHERE user_id = $1 ORDER BY used_at DESC NULLS LAST, item LIMIT 300`,
		user,
	); err != nil {
		return nil, fmt.Errorf("reading the Shelf's uses: %w", err)
	}
	return us, nil
}

// UseShelf notes that a person took a thing from the Shelf.
func (s *Shelf) UseShelf(ctx context.Context, user, item string) error {
	_, err := s.db.ExecContext(
		ctx,
		`INSERT INTO shelf_uses (user_id, item, used_at) VALUES ($1, $2, now()) ON CONFLICT (user_id, item) DO UPDATE SET used_at = now()`,
		user,
		item,
	)
	if err != nil {
		return fmt.Errorf("noting a use of the Shelf: %w", err)
	}
	return nil
}

// FavourShelf marks a thing on the Shelf as a favourite, or no longer.
func (s *Shelf) FavourShelf(ctx context.Context, user, item string, favourite bool) error {
	_, err := s.db.ExecContext(
		ctx,
		`INSERT INTO shelf_uses (user_id, item, favourite) VALUES ($1, $2, $3) ON CONFLICT (user_id, item) DO UPDATE SET favourite = $3`,
		user,
		item,
		favourite,
	)
	if err != nil {
		return fmt.Errorf("marking a favourite: %w", err)
	}
	return nil
}
