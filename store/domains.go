package store

import (
	"context"
	"fmt"
	"time"

	"github.com/jmoiron/sqlx"

	"openplot/core/doc"
	"openplot/core/policy"
)

// Domain is a host that a site says is its own. It is shown there once that is proved.
type Domain struct {
	Host  string `db:"host"`
	Site  string `db:"site_id"`
	Token string `db:"token"`
	// FoundAt is when its records were found; nil shows nothing there.
	FoundAt *time.Time `db:"found_at"`
	// FailingSince is since when they weren't there any more; nil while they are.
	FailingSince *time.Time `db:"failing_since"`
}

// MaxDomains is how many a site has at most.
const MaxDomains = 20

const domainColumns = `host, site_id, token, found_at, failing_since`

// Domains lists those of a site.
func (s *Hosts) Domains(ctx context.Context, site string) (ds []Domain, err error) {
	if err := s.db.SelectContext(ctx, &ds, `SELECT `+domainColumns+` FROM domains WHERE site_id = $1 ORDER BY found_at, host`, site); err != nil {
		return nil, fmt.Errorf("listing domains: %w", err)
	}
	return ds, nil
}

// ProvedDomains lists those that are shown, of all sites.
func (s *Hosts) ProvedDomains(ctx context.Context) (ds []Domain, err error) {
	if err := s.db.SelectContext(ctx, &ds, `SELECT d.host, d.site_id, d.token, d.found_at, d.failing_since FROM domains d JOIN shown_sites s ON s.id = d.site_id
		WHERE d.found_at IS NOT NULL ORDER BY d.host`); err != nil {
		return nil, fmt.Errorf("listing domains: %w", err)
	}
	return ds, nil
}

// AddDomain notes that a site says a host is its own, which others may say too. Errors are
// *doc.Problem.
func (s *Hosts) AddDomain(ctx context.Context, site, host string) error {
	r, err := s.db.ExecContext(
		ctx,
		`INSERT INTO domains (host, site_id, token) SELECT $1, $2, $3 WHERE (SELECT count(*) FROM domains WHERE site_id = $2 AND host <> $1) < $4
		ON CONFLICT (host, site_id) DO UPDATE SET token = domains.token`,
		host,
		site,
		NewID("openplot-"),
		MaxDomains,
	)
	if err != nil {
		return fmt.Errorf("keeping a domain: %w", err)
	}
	if n, err := r.RowsAffected(); err != nil || n == 0 {
		return doc.Problemf("Domain", "can't be added: a site has %d at most; remove one first", MaxDomains)
	}
	return nil
}

// ProveDomain notes whether the records of a host were found. holder is another site that has
// proved it as well, or "": then nothing is noted until that one is looked at again. What is
// published with it differs when it is shown from now on, or no longer.
func (s *Hosts) ProveDomain(ctx context.Context, site, host string, found bool) (holder string, err error) {
	err = s.inTx(ctx, func(tx *sqlx.Tx) error {
		if err := lockSite(ctx, tx, site); err != nil {
			return err
		}
		holder = ""
		if found {
			if err := tx.GetContext(ctx, &holder, `SELECT coalesce((SELECT site_id FROM domains WHERE host = $1 AND site_id <> $2 AND found_at IS NOT NULL), '')`, host, site); err != nil ||
				holder != "" {
				return err
			}
		}
		_, err := tx.ExecContext(
			ctx,
			`WITH was AS (SELECT found_at IS NOT NULL AS shown FROM domains WHERE host = $2 AND site_id = $1),
			now AS (UPDATE domains SET failing_since = CASE WHEN NOT $3 AND found_at IS NOT NULL THEN coalesce(failing_since, now()) END,
				found_at = CASE WHEN $3 THEN coalesce(found_at, now()) WHEN failing_since >= now() - make_interval(secs => $4) THEN found_at
					WHEN failing_since IS NULL THEN found_at END
				WHERE host = $2 AND site_id = $1 RETURNING found_at IS NOT NULL AS shown)
			UPDATE sites SET version = version + 1 WHERE id = $1 AND (SELECT shown FROM was) IS DISTINCT FROM (SELECT shown FROM now)`,
			site,
			host,
			found,
			policy.LostDomain.Seconds(),
		)
		return err
	})
	if err != nil {
		return "", fmt.Errorf("noting what was found of a domain: %w", err)
	}
	return holder, nil
}

// LoseDomain ends that a host is shown by a site, which may prove it anew.
func (s *Hosts) LoseDomain(ctx context.Context, site, host string) error {
	if _, err := s.db.ExecContext(ctx, `WITH lost AS (UPDATE domains SET found_at = NULL, failing_since = NULL WHERE site_id = $1 AND host = $2 AND found_at IS NOT NULL RETURNING host)
		UPDATE sites SET version = version + 1 WHERE id = $1 AND EXISTS (SELECT FROM lost)`, site, host); err != nil {
		return fmt.Errorf("ending a domain: %w", err)
	}
	return nil
}

// DropDomain ends a host of a site.
func (s *Hosts) DropDomain(ctx context.Context, site, host string) error {
	if _, err := s.db.ExecContext(ctx, `WITH gone AS (DELETE FROM domains WHERE site_id = $1 AND host = $2) UPDATE sites SET version = version + 1 WHERE id = $1`, site, host); err != nil {
		return fmt.Errorf("ending a domain: %w", err)
	}
	return nil
}

// FormerAddresses gives the addresses that lead to a site beside its own.
func (s *Hosts) FormerAddresses(ctx context.Context, site string) (slugs []string, err error) {
	if err := s.db.SelectContext(ctx, &slugs, `SELECT slug FROM former_addresses WHERE site_id = $1 ORDER BY slug`, site); err != nil {
		return nil, fmt.Errorf("listing old addresses: %w", err)
	}
	return slugs, nil
}
