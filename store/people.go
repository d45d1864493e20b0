package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/mail"
	"strings"
	"unicode/utf8"

	"github.com/alexedwards/argon2id"
	"github.com/jackc/pgx/v5/pgconn"

	"openplot/core/doc"
	"openplot/core/rights"
)

// User is a person who signs in.
type User struct {
	ID           string `db:"id"`
	Email        string `db:"email"`
	Name         string `db:"name"`
	PasswordHash string `db:"password_hash"`
	Epoch        int64  `db:"epoch"`    // sessions begun in an earlier one have ended
	Operator     bool   `db:"operator"` // runs the program
	Tray         string `db:"tray"`     // where the Tray stands: "below", "beside", or "" as there is room
	Keys         Keys   `db:"keys"`     // that they gave to commands
}

// Keys are the keys that somebody gave to commands, by the commands' ids; "" is none.
type Keys map[string]string

// Scan reads the keys as the database has them.
func (k *Keys) Scan(from any) error {
	b, ok := from.([]byte)
	if !ok {
		return fmt.Errorf("keys are %T", from)
	}
	return json.Unmarshal(b, k)
}

// Role is what a person is on a site.
type Role = rights.Role

// The roles.
const (
	Owner    = rights.Owner
	Designer = rights.Designer
	Writer   = rights.Writer
)

const userColumns = `id, email, name, password_hash, epoch, operator, tray, keys`

// Lengths of a password, in characters (OWASP ASVS 4.0, 2.1.1 and 2.1.2).
const (
	MinPassword = 12
	MaxPassword = 128
)

// hashing is what a hash takes: 19 MB, twice over (OWASP Password Storage Cheat Sheet, its first
// choice for Argon2id). More memory would be the server's while people sign in.
var hashing = &argon2id.Params{Memory: 19 << 10, Iterations: 2, Parallelism: 1, SaltLength: 16, KeyLength: 32}

// hashed checks a new password and gives its hash (argon2id). Errors are *doc.Problem.
func (s *People) hashed(ctx context.Context, password string) (string, error) {
	if n := utf8.RuneCountInString(password); n < MinPassword || n > MaxPassword || !utf8.ValidString(password) {
		return "", doc.Problemf("Password", "has %d characters; choose %d to %d", n, MinPassword, MaxPassword)
	}
	return s.hash(ctx, password)
}

func (s *People) hash(ctx context.Context, password string) (string, error) {
	if err := s.hashing.Acquire(ctx, 1); err != nil {
		return "", fmt.Errorf("hashing the password: %w", err)
	}
	defer s.hashing.Release(1)
	hash, err := argon2id.CreateHash(password, hashing)
	if err != nil {
		return "", fmt.Errorf("hashing the password: %w", err)
	}
	return hash, nil
}

// foldEmail is how emails are kept: two that differ in capitals are one account.
func foldEmail(email string) string { return strings.ToLower(strings.TrimSpace(email)) }

// AddUser makes an account; the password is kept as an argon2id hash. Errors are
// *doc.Problem when something can't be so.
func (s *People) AddUser(ctx context.Context, email, name, password string) (*User, error) {
	u := &User{ID: NewID("u"), Email: foldEmail(email), Name: strings.TrimSpace(name), Epoch: 1}
	if a, err := mail.ParseAddress(u.Email); err != nil || a.Address != u.Email || len(u.Email) > 254 {
		return nil, doc.Problemf("Email", "can't be %.60q: write an address such as somebody@example.org", email)
	}
	if n := utf8.RuneCountInString(u.Name); n < 1 || n > 120 || strings.ContainsRune(u.Name, 0) {
		return nil, doc.Problemf("Name", "has %d characters; write 1 to 120", n)
	}
	var err error
	if u.PasswordHash, err = s.hashed(ctx, password); err != nil {
		return nil, err
	}
	_, err = s.db.NamedExecContext(
		ctx,
		`INSERT INTO users (id, email, name, password_hash) VALUES (:id, :email, :name, :password_hash)`,
		u,
	)
	if duplicate(err) {
		return nil, doc.Problemf("Email", "%s has an account already", u.Email)
	}
	if err != nil {
		return nil, fmt.Errorf("adding user %s: %w", u.Email, err)
	}
	return u, nil
}

// duplicate reports whether an error is that a key is there already (PostgreSQL 15,
// appendix A: 23505, unique_violation).
func duplicate(err error) bool {
	var pg *pgconn.PgError
	return errors.As(err, &pg) && pg.Code == "23505"
}

// SetPassword gives an account another password, and ends its sessions.
func (s *People) SetPassword(ctx context.Context, email, password string) error {
	hash, err := s.hashed(ctx, password)
	if err != nil {
		return err
	}
	return s.changeUser(ctx, `UPDATE users SET password_hash = $2, epoch = epoch + 1 WHERE email = $1`, email, hash)
}

// DisableUser ends an account's sessions, and lets nobody sign in to it until it is enabled.
func (s *People) DisableUser(ctx context.Context, email string, disabled bool) error {
	return s.changeUser(
		ctx,
		`UPDATE users SET disabled_at = CASE WHEN $2 THEN coalesce(disabled_at, now()) END, epoch = epoch + 1 WHERE email = $1`,
		email,
		disabled,
	)
}

// SetTray keeps where somebody wants the Tray to stand: "below", "beside", or "".
func (s *People) SetTray(ctx context.Context, user, where string) error {
	if where != "below" && where != "beside" {
		where = ""
	}
	if _, err := s.db.ExecContext(ctx, `UPDATE users SET tray = $2 WHERE id = $1`, user, where); err != nil {
		return fmt.Errorf("keeping where the Tray stands: %w", err)
	}
	return nil
}

// SetKeys keeps the keys that somebody gave to commands.
func (s *People) SetKeys(ctx context.Context, user string, keys Keys) error {
	b, err := json.Marshal(keys)
	if err == nil {
		_, err = s.db.ExecContext(ctx, `UPDATE users SET keys = $2 WHERE id = $1`, user, b)
	}
	if err != nil {
		return fmt.Errorf("keeping keys: %w", err)
	}
	return nil
}

// SetOperator makes somebody an operator, or no longer one.
func (s *People) SetOperator(ctx context.Context, email string, operator bool) error {
	return s.changeUser(ctx, `UPDATE users SET operator = $2 WHERE email = $1`, email, operator)
}

func (s *People) changeUser(ctx context.Context, query, email string, value any) error {
	r, err := s.db.ExecContext(ctx, query, foldEmail(email), value)
	if err != nil {
		return fmt.Errorf("changing an account: %w", err)
	}
	if n, err := r.RowsAffected(); err == nil && n == 0 {
		return doc.Problemf("Email", "%s has no account", foldEmail(email))
	}
	return nil
}

// absent is compared against when there is no account, so that the answer takes as
// long.
const absent = "$argon2id$v=19$m=19456,t=2,p=1$c29tZXNhbHRzb21lc2FsdA$b1eLXJkEZ6yxZN6wRrtPhEGmNqHsEOjhJ8cQv4vyzHA"

// SignIn gives the account with an email and password, or ErrNotFound. Few are looked at
// at a time, since each takes memory. A hash that was made otherwise is made anew.
func (s *People) SignIn(ctx context.Context, email, password string) (*User, error) {
	var u User
	err := notFound(
		s.db.GetContext(
			ctx,
			&u,
			`SELECT `+userColumns+` FROM users WHERE email = $1 AND disabled_at IS NULL`,
			Clean(foldEmail(email)),
		),
	)
	hash := u.PasswordHash
	if err == ErrNotFound {
		hash = absent
	} else if err != nil {
		return nil, fmt.Errorf("finding the account: %w", err)
	}
	if err := s.hashing.Acquire(ctx, 1); err != nil {
		return nil, fmt.Errorf("waiting to compare passwords: %w", err)
	}
	defer s.hashing.Release(1)
	match, cerr := argon2id.ComparePasswordAndHash(password, hash)
	if err != nil || cerr != nil || !match {
		return nil, ErrNotFound
	}
	if p, _, _, err := argon2id.DecodeHash(hash); err == nil && *p != *hashing {
		if hash, err = argon2id.CreateHash(password, hashing); err != nil {
			return nil, fmt.Errorf("hashing the password: %w", err)
		}
		if _, err := s.db.ExecContext(ctx, `UPDATE users SET password_hash = $2 WHERE id = $1 AND password_hash = $3`, u.ID, hash, u.PasswordHash); err != nil {
			return nil, fmt.Errorf("keeping the password: %w", err)
		}
	}
	return &u, nil
}

// User gives an account by id; ErrNotFound when it is disabled.
func (s *People) User(ctx context.Context, id string) (*User, error) {
	var u User
	if err := notFound(s.db.GetContext(ctx, &u, `SELECT `+userColumns+` FROM users WHERE id = $1 AND disabled_at IS NULL`, id)); err != nil {
		return nil, fmt.Errorf("finding user: %w", err)
	}
	return &u, nil
}

// UserByEmail gives an account, disabled or not.
func (s *People) UserByEmail(ctx context.Context, email string) (*User, error) {
	var u User
	if err := notFound(s.db.GetContext(ctx, &u, `SELECT `+userColumns+` FROM users WHERE email = $1`, foldEmail(email))); err != nil {
		return nil, fmt.Errorf("finding user: %w", err)
	}
	return &u, nil
}

// Account is an account as lists show it.
type Account struct {
	Email    string `db:"email"`
	Name     string `db:"name"`
	Operator bool   `db:"operator"`
	Disabled bool   `db:"disabled"`
	Sites    string `db:"sites"` // with the role on each
}

// Accounts lists everybody.
func (s *People) Accounts(ctx context.Context) (as []Account, err error) {
	if err := s.db.SelectContext(ctx, &as, `SELECT email, u.name, operator, disabled_at IS NOT NULL AS disabled,
		coalesce(string_agg(s.slug || ' (' || m.role || ')', ', ' ORDER BY s.slug), '') AS sites
		FROM users u LEFT JOIN members m ON m.user_id = u.id LEFT JOIN sites s ON s.id = m.site_id GROUP BY u.id ORDER BY email`); err != nil {
		return nil, fmt.Errorf("listing accounts: %w", err)
	}
	return as, nil
}

// AddMember gives a person a role on a site.
func (s *People) AddMember(ctx context.Context, site, user string, role Role) error {
	_, err := s.db.ExecContext(ctx, `INSERT INTO members (site_id, user_id, role) VALUES ($1, $2, $3)
		ON CONFLICT (site_id, user_id) DO UPDATE SET role = excluded.role`, site, user, role)
	if err != nil {
		return fmt.Errorf("adding a member: %w", err)
	}
	return nil
}
