package store

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"encoding/base64"
	"fmt"
	"time"
)

// Preview is a link by which anybody who has it can look at a draft.
type Preview struct {
	ID     string    `db:"id"`
	SiteID string    `db:"site_id"`
	Site   string    `db:"site"`    // its slug
	PageID string    `db:"page_id"` // "" opens the whole site
	Page   string    `db:"page"`    // its name
	Slug   string    `db:"slug"`    // the page's
	By     string    `db:"by"`      // the name of who made it
	MadeAt time.Time `db:"made_at"`
	EndsAt time.Time `db:"ends_at"`
}

// MaxPreviews is how many links a site has at most; the oldest end first.
const MaxPreviews = 200

// Add makes a link for a page, or with "" for a whole site, and gives what opens it.
func (s *Previews) Add(ctx context.Context, site, page, user string, ends time.Time) (token string, err error) {
	b := make([]byte, 18)
	_, _ = rand.Read(b) // never fails (crypto/rand)
	token = base64.RawURLEncoding.EncodeToString(b)
	hash := sha256.Sum256([]byte(token))
	if _, err := s.db.ExecContext(ctx, `WITH ended AS (DELETE FROM previews WHERE site_id = $3 AND (ends_at < now()
			OR id IN (SELECT id FROM previews WHERE site_id = $3 ORDER BY made_at DESC OFFSET $7)))
		INSERT INTO previews (id, token, site_id, page_id, made_by, ends_at) VALUES ($1, $2, $3, nullif($4, ''), $5, $6)`,
		NewID("v"), hash[:], site, page, user, ends, MaxPreviews-1); err != nil {
		return "", fmt.Errorf("making a preview: %w", err)
	}
	return token, nil
}

// standing are links that haven't ended: by time, or with the membership of who made them.
const standing = `FROM previews v JOIN shown_sites s ON s.id = v.site_id JOIN users u ON u.id = v.made_by AND u.disabled_at IS NULL
	JOIN members m ON m.site_id = v.site_id AND m.user_id = v.made_by LEFT JOIN pages p ON p.id = v.page_id WHERE v.ends_at > now()`

const previewColumns = `v.id, v.site_id, s.slug AS site, coalesce(v.page_id, '') AS page_id, coalesce(p.name, '') AS page, coalesce(p.slug, '') AS slug,
	u.name AS by, v.made_at, v.ends_at `

// Named gives the link that a token opens, or ErrNotFound.
func (s *Previews) Named(ctx context.Context, token string) (*Preview, error) {
	hash := sha256.Sum256([]byte(token))
	var p Preview
	if err := s.db.GetContext(ctx, &p, `SELECT `+previewColumns+standing+` AND v.token = $1`, hash[:]); err != nil {
		return nil, fmt.Errorf("finding a preview: %w", notFound(err))
	}
	return &p, nil
}

// List lists a site's links, the newest first.
func (s *Previews) List(ctx context.Context, site string) (ps []*Preview, err error) {
	if err := s.db.SelectContext(ctx, &ps, `SELECT `+previewColumns+standing+` AND v.site_id = $1 ORDER BY v.made_at DESC, v.id`, site); err != nil {
		return nil, fmt.Errorf("listing previews: %w", err)
	}
	return ps, nil
}

// End ends a link.
func (s *Previews) End(ctx context.Context, site, id string) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM previews WHERE site_id = $1 AND id = $2`, site, id); err != nil {
		return fmt.Errorf("ending a preview: %w", err)
	}
	return nil
}
