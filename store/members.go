package store

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"encoding/base64"
	"fmt"
	"net/mail"
	"time"

	"github.com/jmoiron/sqlx"

	"openplot/core/doc"
	"openplot/core/policy"
)

// Member is somebody who belongs to a site.
type Member struct {
	User  string `db:"id"`
	Email string `db:"email"`
	Name  string `db:"name"`
	Role  Role   `db:"role"`
	// EditedAt is when they last edited a page of it, nil when that isn't known.
	EditedAt *time.Time `db:"edited_at"`
}

// Invitation is a link by which somebody joins a site.
type Invitation struct {
	ID       string    `db:"id"`
	SiteID   string    `db:"site_id"`
	Site     string    `db:"site"`      // its slug
	SiteName string    `db:"site_name"` // its name
	Email    string    `db:"email"`     // whom it is for
	Role     Role      `db:"role"`
	By       string    `db:"by"` // the name of who invites
	EndsAt   time.Time `db:"ends_at"`
}

// List gives who belongs to a site, its owners first.
func (s *Members) List(ctx context.Context, site string) (ms []*Member, err error) {
	if err := s.db.SelectContext(ctx, &ms, `SELECT u.id, u.email, u.name, m.role,
		(SELECT max(l.made_at) FROM pages p, LATERAL (SELECT made_at FROM page_log WHERE page_id = p.id AND user_id = u.id AND NOT undone
			ORDER BY seq DESC LIMIT 1) l WHERE p.site_id = m.site_id) AS edited_at
		FROM members m JOIN users u ON u.id = m.user_id WHERE m.site_id = $1
		ORDER BY array_position(ARRAY['owner', 'designer', 'writer'], m.role), lower(u.name), u.id`, site); err != nil {
		return nil, fmt.Errorf("listing members: %w", err)
	}
	return ms, nil
}

// Set gives a member of a site another role, or with "" takes them off it. Errors are *doc.Problem
// where no owner would be left, and ErrNotFound where they don't belong to it.
func (s *Members) Set(ctx context.Context, site, user string, role Role) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		var owners []string // who are one, locked, so that two at once don't leave none
		if err := tx.SelectContext(ctx, &owners, `SELECT user_id FROM members WHERE site_id = $1 AND role = 'owner' ORDER BY user_id FOR UPDATE`, site); err != nil {
			return fmt.Errorf("reading owners: %w", err)
		}
		if role != Owner && len(owners) == 1 && owners[0] == user {
			return doc.Problemf("Role", "of the only owner can't be another: make somebody else an owner first")
		}
		query, args := `UPDATE members SET role = $3 WHERE site_id = $1 AND user_id = $2`, []any{site, user, role}
		if role == "" {
			query, args = `DELETE FROM members WHERE site_id = $1 AND user_id = $2`, args[:2]
		}
		r, err := tx.ExecContext(ctx, query, args...)
		if err != nil {
			return fmt.Errorf("changing a member: %w", err)
		}
		if n, err := r.RowsAffected(); err != nil || n == 0 {
			return fmt.Errorf("changing a member: %w", ErrNotFound)
		}
		return nil
	})
}

// Invite makes a link by which whoever has an email joins a site, in place of one that there is for
// them, and gives what opens it. Errors are *doc.Problem.
func (s *Members) Invite(
	ctx context.Context,
	site, by, email string,
	role Role,
	ends time.Time,
) (token string, err error) {
	email = foldEmail(email)
	if a, err := mail.ParseAddress(email); err != nil || a.Address != email || len(email) > 254 {
		return "", doc.Problemf("Email", "can't be %.60q: write an address such as somebody@example.org", email)
	}
	var n int
	if err := s.db.GetContext(ctx, &n, `SELECT (SELECT count(*) FROM members WHERE site_id = $1)
		+ (SELECT count(*) FROM invitations WHERE site_id = $1 AND ends_at > now() AND email <> $2)`, site, email); err != nil {
		return "", fmt.Errorf("counting members: %w", err)
	}
	if n >= policy.Members {
		return "", doc.Problemf("Members", "and invitations are %d; that is as many as one site has", n)
	}
	var belongs bool
	if err := s.db.GetContext(ctx, &belongs, `SELECT EXISTS (SELECT FROM members m JOIN users u ON u.id = m.user_id
		WHERE m.site_id = $1 AND u.email = $2)`, site, email); err != nil {
		return "", fmt.Errorf("looking for a member: %w", err)
	}
	if belongs {
		return "", doc.Problemf("Email", "%s belongs to the site already: change the role in the list", email)
	}
	b := make([]byte, 18)
	_, _ = rand.Read(b) // never fails (crypto/rand)
	token = base64.RawURLEncoding.EncodeToString(b)
	hash := sha256.Sum256([]byte(token))
	if _, err := s.db.ExecContext(ctx, `INSERT INTO invitations (id, token, site_id, email, role, made_by, ends_at) VALUES ($1, $2, $3, $4, $5, $6, $7)
		ON CONFLICT (site_id, email) DO UPDATE SET id = excluded.id, token = excluded.token, role = excluded.role, made_by = excluded.made_by,
			made_at = now(), ends_at = excluded.ends_at`, NewID("j"), hash[:], site, email, role, by, ends); err != nil {
		return "", fmt.Errorf("inviting: %w", err)
	}
	return token, nil
}

// open are invitations that haven't ended: by time, or because who invites may not any more.
const open = `SELECT i.id, i.site_id, s.slug AS site, s.name AS site_name, i.email, i.role, u.name AS by, i.ends_at FROM invitations i
	JOIN sites s ON s.id = i.site_id AND s.deleted_at IS NULL AND s.maker IS NULL JOIN users u ON u.id = i.made_by AND u.disabled_at IS NULL
	JOIN members m ON m.site_id = i.site_id AND m.user_id = i.made_by AND m.role = 'owner' WHERE i.ends_at > now()`

// Invited lists a site's invitations, the newest first.
func (s *Members) Invited(ctx context.Context, site string) (is []*Invitation, err error) {
	if err := s.db.SelectContext(ctx, &is, open+` AND i.site_id = $1 ORDER BY i.made_at DESC, i.id`, site); err != nil {
		return nil, fmt.Errorf("listing invitations: %w", err)
	}
	return is, nil
}

// Named gives the invitation that a token opens, or ErrNotFound.
func (s *Members) Named(ctx context.Context, token string) (*Invitation, error) {
	hash := sha256.Sum256([]byte(token))
	var i Invitation
	if err := s.db.GetContext(ctx, &i, open+` AND i.token = $1`, hash[:]); err != nil {
		return nil, fmt.Errorf("finding an invitation: %w", notFound(err))
	}
	return &i, nil
}

// Accept makes somebody a member by an invitation that is for their email, which ends it. One who
// belongs to the site keeps the role that they have.
func (s *Members) Accept(ctx context.Context, i *Invitation, u *User) error {
	if u.Email != i.Email {
		return doc.Problemf("Email", "of your account is %s, and the invitation is for %s", u.Email, i.Email)
	}
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		r, err := tx.ExecContext(ctx, `DELETE FROM invitations WHERE id = $1 AND ends_at > now()`, i.ID)
		if err != nil {
			return fmt.Errorf("ending an invitation: %w", err)
		}
		if n, err := r.RowsAffected(); err != nil || n == 0 {
			return fmt.Errorf("ending an invitation: %w", ErrNotFound)
		}
		if _, err := tx.ExecContext(ctx, `INSERT INTO members (site_id, user_id, role) VALUES ($1, $2, $3)
			ON CONFLICT (site_id, user_id) DO NOTHING`, i.SiteID, u.ID, i.Role); err != nil {
			return fmt.Errorf("adding a member: %w", err)
		}
		return nil
	})
}

// Uninvite ends an invitation.
func (s *Members) Uninvite(ctx context.Context, site, id string) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM invitations WHERE site_id = $1 AND id = $2`, site, id); err != nil {
		return fmt.Errorf("ending an invitation: %w", err)
	}
	return nil
}
