package store

import (
	"context"
	"fmt"
	"openplot/core/rights"
	"strings"

	"github.com/alexedwards/argon2id"
)

// User is a person who signs in.
type User struct {
	ID           string `db:"id"`
	Email        string `db:"email"`
	Name         string `db:"name"`
	PasswordHash string `db:"password_hash"`
}

// Role is what a person is on a site.
type Role = rights.Role

// The roles.
const (
	Designer = rights.Designer
	Writer   = rights.Writer
)

// AddUser makes an account; the password is kept as an argon2id hash.
func (s *Store) AddUser(ctx context.Context, email, name, password string) (*User, error) {
	hash, err := argon2id.CreateHash(password, argon2id.DefaultParams)
	if err != nil {
		return nil, fmt.Errorf("hashing the password: %w", err)
	}
	u := &User{NewID("u"), strings.ToLower(strings.TrimSpace(email)), name, hash}
	_, err = s.db.NamedExecContext(ctx, `INSERT INTO users (id, email, name, password_hash) VALUES (:id, :email, :name, :password_hash)`, u)
	if err != nil {
		return nil, fmt.Errorf("adding user %s: %w", u.Email, err)
	}
	return u, nil
}

// absent is compared against when there is no account, so that the answer takes as
// long.
const absent = "$argon2id$v=19$m=65536,t=1,p=2$c29tZXNhbHRzb21lc2FsdA$b1eLXJkEZ6yxZN6wRrtPhEGmNqHsEOjhJ8cQv4vyzHA"

// SignIn gives the account with an email and password, or ErrNotFound.
func (s *Store) SignIn(ctx context.Context, email, password string) (*User, error) {
	var u User
	err := notFound(
		s.db.GetContext(ctx, &u, `SELECT id, email, name, password_hash FROM users WHERE email = $1`, strings.ToLower(strings.TrimSpace(email))),
	)
	hash := u.PasswordHash
	if err == ErrNotFound {
		hash = absent
	} else if err != nil {
		return nil, fmt.Errorf("finding the account: %w", err)
	}
	match, cerr := argon2id.ComparePasswordAndHash(password, hash)
	if err != nil || cerr != nil || !match {
		return nil, ErrNotFound
	}
	return &u, nil
}

// User gives an account by id.
func (s *Store) User(ctx context.Context, id string) (*User, error) {
	var u User
	if err := notFound(s.db.GetContext(ctx, &u, `SELECT id, email, name, password_hash FROM users WHERE id = $1`, id)); err != nil {
		return nil, fmt.Errorf("finding user: %w", err)
	}
	return &u, nil
}

// AddMember gives a person a role on a site.
func (s *Store) AddMember(ctx context.Context, site, user string, role Role) error {
	_, err := s.db.ExecContext(ctx, `INSERT INTO members (site_id, user_id, role) VALUES ($1, $2, $3)
		ON CONFLICT (site_id, user_id) DO UPDATE SET role = excluded.role`, site, user, role)
	if err != nil {
		return fmt.Errorf("adding a member: %w", err)
	}
	return nil
}
