// Package store keeps everything in PostgreSQL: people, sites, pages with their
// log of edits, media and what was published.
//
// In and out go the types of core and rows named here; SQL stands nowhere else.
// One file per aggregate. Start at Open, then pages.go.
package store

import (
	"context"
	"crypto/rand"
	"database/sql"
	"embed"
	"encoding/base32"
	"errors"
	"fmt"
	"io/fs"
	"strings"

	_ "github.com/jackc/pgx/v5/stdlib" // the driver "pgx"
	"github.com/jmoiron/sqlx"
	"github.com/pressly/goose/v3"
	"github.com/riverqueue/river"
	"github.com/riverqueue/river/riverdriver/riverdatabasesql"
	"github.com/riverqueue/river/rivermigrate"
)

//go:embed migrations
var migrations embed.FS

// ErrNotFound means that there is no such thing, or not for the person who asks.
var ErrNotFound = errors.New("not found")

// Store is a connection pool with what it caches.
type Store struct {
	db    *sqlx.DB
	jobs  *river.Client[*sql.Tx] // to add jobs with; those who do them have their own
	pages pageCache
}

// Open connects to a database and brings its schema up to date.
func Open(ctx context.Context, dsn string) (*Store, error) {
	db, err := sqlx.Open("pgx", dsn)
	if err != nil {
		return nil, fmt.Errorf("opening the database: %w", err)
	}
	db.SetMaxOpenConns(20)
	db.SetMaxIdleConns(10)
	folder, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return nil, fmt.Errorf("reading migrations: %w", err)
	}
	m, err := goose.NewProvider(goose.DialectPostgres, db.DB, folder, goose.WithGoMigrations(upgrades()...))
	if err != nil {
		return nil, fmt.Errorf("reading migrations: %w", err)
	}
	if _, err := m.Up(ctx); err != nil {
		db.Close()
		return nil, fmt.Errorf("migrating the database: %w", err)
	}
	jobs, err := openJobs(ctx, db.DB)
	if err != nil {
		db.Close()
		return nil, err
	}
	pages, err := newPageCache()
	if err != nil {
		db.Close()
		return nil, fmt.Errorf("remembering pages: %w", err)
	}
	return &Store{db: db, jobs: jobs, pages: pages}, nil
}

// openJobs brings the tables of the queue of jobs up to date.
func openJobs(ctx context.Context, db *sql.DB) (*river.Client[*sql.Tx], error) {
	driver := riverdatabasesql.New(db)
	m, err := rivermigrate.New(driver, nil)
	if err != nil {
		return nil, fmt.Errorf("reading the queue's migrations: %w", err)
	}
	if _, err := m.Migrate(ctx, rivermigrate.DirectionUp, nil); err != nil {
		return nil, fmt.Errorf("migrating the queue: %w", err)
	}
	jobs, err := river.NewClient(driver, &river.Config{})
	if err != nil {
		return nil, fmt.Errorf("opening the queue: %w", err)
	}
	return jobs, nil
}

// DB is the pool, for the session store.
func (s *Store) DB() *sql.DB { return s.db.DB }

// Close closes the pool.
func (s *Store) Close() error { return s.db.Close() }

// NewID makes a random id with a prefix, such as "s4kq0…": a letter, then letters
// and digits, so that it can be a class name.
func NewID(prefix string) string {
	b := make([]byte, 8)
	_, _ = rand.Read(b) // never fails (crypto/rand)
	return prefix + strings.ToLower(base32.HexEncoding.WithPadding(base32.NoPadding).EncodeToString(b))
}

func notFound(err error) error {
	if errors.Is(err, sql.ErrNoRows) {
		return ErrNotFound
	}
	return err
}

// inTx runs f in a transaction.
func (s *Store) inTx(ctx context.Context, f func(*sqlx.Tx) error) error {
	tx, err := s.db.BeginTxx(ctx, nil)
	if err != nil {
		return fmt.Errorf("beginning: %w", err)
	}
	if err := f(tx); err != nil {
		_ = tx.Rollback() // the first error is the one to tell
		return err
	}
	if err := tx.Commit(); err != nil {
		return fmt.Errorf("committing: %w", err)
	}
	return nil
}
