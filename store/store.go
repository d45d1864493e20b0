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
	"encoding/base32"
	"errors"
	"fmt"
	mathrand "math/rand/v2"
	"runtime"
	"strings"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"
	"github.com/jackc/pgx/v5/stdlib"
	"github.com/jmoiron/sqlx"
	"github.com/riverqueue/river"
	"github.com/riverqueue/river/riverdriver/riverdatabasesql"
	"golang.org/x/sync/semaphore"

	"openplot/memory"
)

// ErrNotFound means that there is no such thing, or not for the person who asks.
var ErrNotFound = errors.New("not found")

// Store is everything that is kept, parted by what it is; all of it over one pool.
type Store struct {
	*base
	Audit    Audit
	Drawings Drawings
	Entries  Entries
	Findings Findings
	Hosts    Hosts
	Houses   Houses
	Inbox    Inbox
	Jobs     Jobs
	Limits   Limits
	Log      Log
	Media    Media
	Pages    Pages
	People   People
	Previews Previews
	Releases Releases
	Shelf    Shelf
	Sites    Sites
	Tree     PageTree
	Visible  Visible
	Visits   Visits
	Steps    Steps
	Works    Works
	Mails    Mails
	Members  Members
}

// The parts of a Store. Their methods are safe for concurrent use, but within a Transaction.
type (
	Audit    struct{ *base } // who did what on a site
	Drawings struct{ *base } // of pages, for lists
	Entries  struct{ *base } // of forms
	Findings struct{ *base } // what checks found when they were last asked, and what is kept quiet
	Hosts    struct{ *base } // addresses and domains, and which site is at them
	Inbox    struct{ *base } // what somebody sees of a site's entries
	Houses   struct{ *base } // house styles, those set aside, and fonts of a site's own
	Limits   struct{ *base } // of what may be tried how often, over all processes
	Jobs     struct{ *base } // what is done in the background, by which process, and what it took
	Log      struct{ *base } // of edits: undone, redone, gone back to
	Media    struct{ *base } // what was uploaded
	Pages    struct{ *base } // with their edits
	People   struct{ *base } // accounts and members
	Previews struct{ *base } // of pages that aren't published
	Releases struct{ *base } // publications, those that are planned, and what pages were published from
	Shelf    struct{ *base } // sections that were kept, and what is used
	Sites    struct{ *base }
	PageTree struct{ *base } // how the pages of a site lie below one another, and what leads to them
	Visible  struct{ *base } // what visitors find: words that are searched, fields of forms
	Visits   struct{ *base } // counted by day and width
	Steps    struct{ *base } // the first ones of a site
	Members  struct{ *base } // of sites, and who is invited to be one
	Works    struct{ *base } // sites that are being made in the background
	Mails    struct{ *base } // that go out
)

// base is what the parts share.
type base struct {
	db      querier  // the pool, or one transaction
	pool    *sqlx.DB // nil within a transaction
	jobs    *river.Client[*sql.Tx]
	pages   pageCache
	process string              // this one's id
	hashing *semaphore.Weighted // of passwords, which takes memory
	salted  *saltOfDay
	all     *Store // for parts that need another
}

// over makes a Store of what its parts share.
func over(b *base) *Store {
	b.all = &Store{
		base: b, Audit: Audit{b}, Drawings: Drawings{b}, Entries: Entries{b}, Findings: Findings{b}, Hosts: Hosts{b}, Houses: Houses{b}, Inbox: Inbox{b}, Jobs: Jobs{b}, Limits: Limits{b}, Log: Log{b},
		Media: Media{
			b,
		}, Pages: Pages{b}, People: People{b}, Previews: Previews{b}, Releases: Releases{b}, Shelf: Shelf{b}, Sites: Sites{b}, Tree: PageTree{b},
		Visible: Visible{b}, Visits: Visits{b}, Steps: Steps{b}, Works: Works{b}, Members: Members{b}, Mails: Mails{b},
	}
	return b.all
}

// within is the Store in a transaction that is open.
func (s *base) within(tx *sqlx.Tx) *Store {
	pages := newPageCache(memory.New(transactionMemory)) // what is rolled back isn't remembered
	return over(&base{db: tx, jobs: s.jobs, pages: pages, process: s.process, hashing: s.hashing, salted: s.salted})
}

// querier is what a pool and a transaction have in common.
type querier interface {
	sqlx.ExtContext
	GetContext(ctx context.Context, dest any, query string, args ...any) error
	SelectContext(ctx context.Context, dest any, query string, args ...any) error
	NamedExecContext(ctx context.Context, query string, arg any) (sql.Result, error)
}

// Limits of what a statement and an idle transaction may take, so that none holds up
// others for ever.
const (
	statementTimeout = 30 * time.Second
	idleTimeout      = time.Minute
)

// Open brings the schema of a database up to date and connects to it.
func Open(ctx context.Context, dsn string) (*Store, error) {
	if err := Migrate(ctx, dsn); err != nil {
		return nil, err
	}
	config, err := pgx.ParseConfig(dsn)
	if err != nil {
		return nil, fmt.Errorf("reading the database's address: %w", err)
	}
	config.RuntimeParams["statement_timeout"] = milliseconds(statementTimeout)
	config.RuntimeParams["idle_in_transaction_session_timeout"] = milliseconds(idleTimeout)
	config.RuntimeParams["lock_timeout"] = milliseconds(statementTimeout / 2)
	config.ConnectTimeout = 5 * time.Second
	db := sqlx.NewDb(stdlib.OpenDB(*config), "pgx")
	db.SetMaxOpenConns(20)
	db.SetMaxIdleConns(10)
	db.SetConnMaxIdleTime(5 * time.Minute)
	db.SetConnMaxLifetime(time.Hour)
	jobs, err := river.NewClient(riverdatabasesql.New(db.DB), &river.Config{})
	if err != nil {
		db.Close()
		return nil, fmt.Errorf("opening the queue: %w", err)
	}
	return over(
		&base{
			salted:  new(saltOfDay),
			db:      db,
			pool:    db,
			jobs:    jobs,
			pages:   newPageCache(memory.New(storeMemory)),
			process: NewID("r"),
			hashing: semaphore.NewWeighted(int64(max(runtime.NumCPU(), 2))),
		},
	), nil
}

func milliseconds(d time.Duration) string { return fmt.Sprint(d.Milliseconds()) }

// DB is the pool, for the session store and the jobs.
func (s *Store) DB() *sql.DB { return s.pool.DB }

// Close closes the pool.
func (s *Store) Close() error { return s.pool.Close() }

// Ping reports whether the database answers, and has the schema that this program needs.
func (s *Store) Ping(ctx context.Context) error {
	var version int64
	if err := s.db.GetContext(ctx, &version, `SELECT max(version_id) FROM goose_db_version WHERE is_applied`); err != nil {
		return fmt.Errorf("asking the database: %w", err)
	}
	if version < newestMigration {
		return fmt.Errorf("the database is at migration %d and has to be at %d", version, newestMigration)
	}
	return nil
}

// Transaction has f do several things as one: all of them, or none. f uses the store that it
// is given, from one goroutine.
func (s *Store) Transaction(ctx context.Context, f func(*Store) error) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error { return f(s.within(tx)) })
}

// Once reports whether a milestone is reached now for the first time.
func (s *Store) Once(ctx context.Context, milestone string) (bool, error) {
	r, err := s.db.ExecContext(ctx, `INSERT INTO milestones (name) VALUES ($1) ON CONFLICT DO NOTHING`, milestone)
	if err != nil {
		return false, fmt.Errorf("noting a milestone: %w", err)
	}
	n, err := r.RowsAffected()
	return n == 1, err
}

// NewID makes a random id with a prefix, such as "s4kq0…": a letter, then letters
// and digits, so that it can be a class name.
func NewID(prefix string) string {
	b := make([]byte, 8)
	_, _ = rand.Read(b) // never fails (crypto/rand)
	return prefix + strings.ToLower(base32.HexEncoding.WithPadding(base32.NoPadding).EncodeToString(b))
}

// Clean makes text such that a database takes it: valid UTF-8 without NUL (PostgreSQL 15
// §8.3).
func Clean(s string) string {
	return strings.ReplaceAll(strings.ToValidUTF8(s, "\uFFFD"), "\x00", "\uFFFD")
}

func notFound(err error) error {
	if errors.Is(err, sql.ErrNoRows) {
		return ErrNotFound
	}
	return err
}

// inTx runs f in a transaction: this store's own, if it is one. Where transactions stood in each
// other's way f is run again, a few times, in another one: what it does elsewhere has to bear that.
func (s *base) inTx(ctx context.Context, f func(*sqlx.Tx) error) error {
	if tx, ok := s.db.(*sqlx.Tx); ok {
		return f(tx)
	}
	for try := 1; ; try++ {
		err := s.tryTx(ctx, f)
		if try == mostTries || !inEachOthersWay(err) {
			return err
		}
		select {
		case <-ctx.Done():
			return err
		case <-time.After(time.Duration(mathrand.Int64N(int64(try) * int64(20*time.Millisecond)))):
		}
	}
}

// mostTries is how often a transaction is tried.
const mostTries = 5

func (s *base) tryTx(ctx context.Context, f func(*sqlx.Tx) error) error {
	tx, err := s.pool.BeginTxx(ctx, nil)
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

// inEachOthersWay reports whether a transaction was ended for the sake of others (PostgreSQL 15,
// appendix A: 40P01, deadlock_detected; 40001, serialization_failure).
func inEachOthersWay(err error) bool {
	var pg *pgconn.PgError
	return errors.As(err, &pg) && (pg.Code == "40P01" || pg.Code == "40001")
}

// OnSite has f do several things to one site as one, as Transaction does, with the site locked
// before any of its pages is (docs/decisions/0024).
func (s *Store) OnSite(ctx context.Context, site string, f func(*Store) error) error {
	return s.Transaction(ctx, func(in *Store) error {
		if err := in.inTx(ctx, func(tx *sqlx.Tx) error { return lockSite(ctx, tx, site) }); err != nil {
			return err
		}
		return f(in)
	})
}

// lockSite locks a site until the end of the transaction, which is to lock none of its pages
// before.
func lockSite(ctx context.Context, tx *sqlx.Tx, site string) error {
	if err := tx.GetContext(ctx, new(string), `SELECT id FROM sites WHERE id = $1 FOR NO KEY UPDATE`, site); err != nil {
		return fmt.Errorf("locking the site: %w", notFound(err))
	}
	return nil
}

// lockPages locks pages until the end of the transaction, in the order in which all do.
func lockPages(ctx context.Context, tx *sqlx.Tx, ids []string) error {
	if _, err := tx.ExecContext(ctx, `SELECT FROM pages WHERE id = ANY ($1) ORDER BY id FOR NO KEY UPDATE`, ids); err != nil {
		return fmt.Errorf("locking pages: %w", err)
	}
	return nil
}
