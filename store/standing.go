package store

import (
	"context"
	"encoding/json"
	"fmt"

	"github.com/jmoiron/sqlx"
)

// Standing is the site that visitors find at a host. Addresses and domains are pointers to it;
// what is published hangs on its id.
type Standing struct {
	Site string `db:"id"`
	Slug string `db:"slug"` // the address that it has now
	// Published reports whether it shows anything, whatever its folder has.
	Published bool `db:"published"`
	// Offline reports whether visitors read OfflineWords instead of its pages.
	Offline      bool   `db:"offline"`
	OfflineWords string `db:"offline_words"`
	// Locks are the hashes of the passwords of its pages, by page.
	Locks locks `db:"locks"`
	// Domains are the hosts of its own at which it is shown.
	Domains words `db:"domains"`
}

type locks map[string]string

// Scan implements sql.Scanner.
func (l *locks) Scan(from any) error {
	switch v := from.(type) {
	case []byte:
		return json.Unmarshal(v, l)
	case string:
		return json.Unmarshal([]byte(v), l)
	}
	return fmt.Errorf("locks can't be read from a %T", from)
}

const standingColumns = `s.id, s.slug, s.release IS NOT NULL AS published, s.offline_at IS NOT NULL AS offline, s.offline_words, coalesce((SELECT json_object_agg(p.id, p.lock) FROM pages p
	WHERE p.site_id = s.id AND p.lock <> '' AND p.deleted_at IS NULL), '{}') AS locks,
	coalesce((SELECT json_agg(own.host ORDER BY own.host) FROM domains own WHERE own.site_id = s.id AND own.found_at IS NOT NULL), '[]') AS domains`

// AtAddress gives the site that has an address or, where none has it, that had it last;
// ErrNotFound when visitors find nothing there.
func (s *Hosts) AtAddress(ctx context.Context, slug string) (*Standing, error) {
	return s.standing(
		ctx,
		`SELECT `+standingColumns+` FROM shown_sites s LEFT JOIN former_addresses f ON f.site_id = s.id AND f.slug = $1
		WHERE s.slug = $1 OR f.slug IS NOT NULL AND NOT EXISTS (SELECT FROM sites WHERE slug = $1 AND deleted_at IS NULL)`,
		slug,
	)
}

// AtDomain gives the site that is shown at a host of its own, or ErrNotFound.
func (s *Hosts) AtDomain(ctx context.Context, host string) (*Standing, error) {
	return s.standing(
		ctx,
		`SELECT `+standingColumns+` FROM domains d JOIN shown_sites s ON s.id = d.site_id WHERE d.host = $1 AND d.found_at IS NOT NULL`,
		host,
	)
}

func (s *Hosts) standing(ctx context.Context, query, at string) (*Standing, error) {
	var found Standing
	if err := s.db.GetContext(ctx, &found, query, Clean(at)); err != nil {
		return nil, fmt.Errorf("finding what is at a host: %w", notFound(err))
	}
	return &found, nil
}

// Shows reports whether visitors find a site: it is neither deleted nor archived.
func (s *Hosts) Shows(ctx context.Context, site string) (shown bool, err error) {
	if err := s.db.GetContext(ctx, &shown, `SELECT EXISTS (SELECT FROM shown_sites WHERE id = $1)`, site); err != nil {
		return false, fmt.Errorf("finding a site: %w", err)
	}
	return shown, nil
}

// takeAddress ends what led elsewhere from an address that a site takes.
func takeAddress(ctx context.Context, q sqlx.ExecerContext, slug string) error {
	if _, err := q.ExecContext(ctx, `DELETE FROM former_addresses WHERE slug = $1`, slug); err != nil {
		return fmt.Errorf("taking an address: %w", err)
	}
	return nil
}

// KeepFormerAddress has an address that no site has lead to that which another has now.
func (s *Hosts) KeepFormerAddress(ctx context.Context, slug, to string) error {
	if _, err := s.db.ExecContext(ctx, `INSERT INTO former_addresses (slug, site_id) SELECT $1, id FROM shown_sites WHERE slug = $2
		AND NOT EXISTS (SELECT FROM sites WHERE slug = $1 AND deleted_at IS NULL) ON CONFLICT DO NOTHING`, slug, to); err != nil {
		return fmt.Errorf("keeping an old address: %w", err)
	}
	return nil
}
