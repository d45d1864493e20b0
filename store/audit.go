package store

import (
	"context"
	"fmt"
	"time"

	"openplot/core/policy"
)

// Noted is what the audit log says that somebody did.
type Noted struct {
	Site    string `db:"site_id"` // id, or ""
	User    string `db:"user_id"` // id, or "" where nobody is signed in
	Who     string `db:"who"`     // the email
	Act     string `db:"act"`
	About   string `db:"about"`
	Address string `db:"address"` // the client's
	At      time.Time
}

// Note adds to the audit log.
func (s *Audit) Note(ctx context.Context, n Noted) error {
	if _, err := s.db.ExecContext(
		ctx, `INSERT INTO audit (site_id, user_id, who, act, about, address) VALUES (nullif($1, ''), nullif($2, ''), left($3, 254), $4, left($5, 300), $6)`,
		n.Site, n.User, Clean(n.Who), n.Act, Clean(n.About), n.Address,
	); err != nil {
		return fmt.Errorf("noting %s: %w", n.Act, err)
	}
	return nil
}

// List gives the newest of what is noted about a site, and of its members' sign-ins.
func (s *Audit) List(ctx context.Context, site string, limit int) (ns []Noted, err error) {
	if err := s.db.SelectContext(ctx, &ns, `SELECT coalesce(site_id, '') AS site_id, coalesce(user_id, '') AS user_id, who, act, about, address, at FROM audit
		WHERE site_id = $1 OR site_id IS NULL AND user_id IN (SELECT user_id FROM members WHERE site_id = $1) ORDER BY at DESC, id DESC LIMIT $2`, site, limit); err != nil {
		return nil, fmt.Errorf("reading the audit log: %w", err)
	}
	return ns, nil
}

// Forget ends what the audit log has of longer than a year ago.
func (s *Audit) Forget(ctx context.Context) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM audit WHERE at < now() - make_interval(days => $1)`, policy.Days(policy.Audit)); err != nil {
		return fmt.Errorf("shortening the audit log: %w", err)
	}
	return nil
}
