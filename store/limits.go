package store

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"database/sql"
	"errors"
	"fmt"
	"slices"
	"sync"
	"time"
)

// Allow reports whether one more attempt by a key is let through, of so many at once and then one every so often,
// by all processes together (the generic cell rate algorithm, ITU-T I.371).
func (s *Limits) Allow(ctx context.Context, key string, burst int, every time.Duration) (bool, error) {
	salt, err := s.salt(ctx)
	if err != nil {
		return false, err
	}
	hash := sha256.Sum256(append(salt, key...))
	var ok bool
	err = s.db.GetContext(ctx, &ok, `INSERT INTO attempts (key, until) VALUES ($1, now() + make_interval(secs => $2))
		ON CONFLICT (key) DO UPDATE SET until = greatest(attempts.until, now()) + make_interval(secs => $2)
		WHERE greatest(attempts.until, now()) + make_interval(secs => $2) <= now() + make_interval(secs => $3) RETURNING true`,
		hash[:], every.Seconds(), every.Seconds()*float64(burst))
	if errors.Is(err, sql.ErrNoRows) {
		return false, nil
	}
	if err != nil {
		return false, fmt.Errorf("counting attempts: %w", err)
	}
	return ok, nil
}

// saltOfDay is what was read last.
type saltOfDay struct {
	mu   sync.Mutex
	day  string
	salt []byte
}

// salt is that of the day, the same for all processes.
func (s *Limits) salt(ctx context.Context) ([]byte, error) {
	s.salted.mu.Lock()
	defer s.salted.mu.Unlock()
	day := time.Now().UTC().Format(time.DateOnly)
	if s.salted.day == day {
		return slices.Clone(s.salted.salt), nil
	}
	fresh := make([]byte, 32)
	if _, err := rand.Read(fresh); err != nil {
		return nil, fmt.Errorf("making a salt: %w", err)
	}
	if _, err := s.db.ExecContext(ctx, `INSERT INTO salts (day, salt) VALUES ($1, $2) ON CONFLICT (day) DO NOTHING`, day, fresh); err != nil {
		return nil, fmt.Errorf("keeping a salt: %w", err)
	}
	var salt []byte
	if err := s.db.GetContext(ctx, &salt, `SELECT salt FROM salts WHERE day = $1`, day); err != nil {
		return nil, fmt.Errorf("reading the salt: %w", err)
	}
	s.salted.day, s.salted.salt = day, salt
	return slices.Clone(salt), nil
}

// Forget ends what uses up nothing any more, and the salts of days that are over.
func (s *Limits) Forget(ctx context.Context) error {
	for _, query := range []string{`DELETE FROM attempts WHERE until < now()`, `DELETE FROM salts WHERE day < (now() AT TIME ZONE 'UTC')::date`} {
		if _, err := s.db.ExecContext(ctx, query); err != nil {
			return fmt.Errorf("forgetting attempts: %w", err)
		}
	}
	return nil
}
