package store

import (
	"context"
	"fmt"
	"time"

	"openplot/core/doc"
)

// Domain is a host of a site's own.
type Domain struct {
	Host    string     `db:"host"`
	Site    string     `db:"site_id"`
	Token   string     `db:"token"`
	FoundAt *time.Time `db:"found_at"` // when its records were found; nil shows nothing there
}

// Domains lists those of a site.
func (s *Store) Domains(ctx context.Context, site string) (ds []Domain, err error) {
	if err := s.db.SelectContext(ctx, &ds, `SELECT host, site_id, token, found_at FROM domains WHERE site_id = $1 ORDER BY found_at, host`, site); err != nil {
		return nil, fmt.Errorf("listing domains: %w", err)
	}
	return ds, nil
}

// AddDomain keeps a host for a site. Errors are *doc.Problem.
func (s *Store) AddDomain(ctx context.Context, site, host string) error {
	r, err := s.db.ExecContext(ctx, `INSERT INTO domains (host, site_id, token) VALUES ($1, $2, $3) ON CONFLICT (host) DO UPDATE SET token = domains.token
		WHERE domains.site_id = EXCLUDED.site_id`, host, site, NewID("openplot-"))
	if err != nil {
		return fmt.Errorf("keeping a domain: %w", err)
	}
	if n, err := r.RowsAffected(); err != nil || n == 0 {
		return doc.Problemf("Domain", "%s is another site’s already", host)
	}
	return nil
}

// FindDomain notes whether the records of a host were found. What is published with it differs
// then.
func (s *Store) FindDomain(ctx context.Context, site, host string, found bool) error {
	if _, err := s.db.ExecContext(ctx, `WITH was AS (SELECT found_at IS NOT NULL AS found FROM domains WHERE host = $2 AND site_id = $1),
		now AS (UPDATE domains SET found_at = CASE WHEN $3 THEN coalesce(found_at, now()) END WHERE host = $2 AND site_id = $1)
		UPDATE sites SET version = version + 1 WHERE id = $1 AND (SELECT found FROM was) IS DISTINCT FROM $3`, site, host, found); err != nil {
		return fmt.Errorf("noting what was found of a domain: %w", err)
	}
	return nil
}

// DropDomain ends a host of a site.
func (s *Store) DropDomain(ctx context.Context, site, host string) error {
	if _, err := s.db.ExecContext(ctx, `WITH gone AS (DELETE FROM domains WHERE site_id = $1 AND host = $2) UPDATE sites SET version = version + 1 WHERE id = $1`, site, host); err != nil {
		return fmt.Errorf("ending a domain: %w", err)
	}
	return nil
}
