package store

import (
	"context"
	"database/sql"
	"embed"
	"fmt"
	"io/fs"

	"github.com/pressly/goose/v3"
	"github.com/riverqueue/river/riverdriver/riverdatabasesql"
	"github.com/riverqueue/river/rivermigrate"
)

//go:embed migrations
var migrations embed.FS

// newestMigration is the number of the last one.
var newestMigration = func() int64 {
	names, err := fs.Glob(migrations, "migrations/*.sql")
	if err != nil || len(names) == 0 {
		panic("there are no migrations")
	}
	n, err := goose.NumericComponent(names[len(names)-1])
	if err != nil {
		panic(err)
	}
	return n
}()

// migrationLock is the advisory lock under which a schema is changed. The number is only
// ours.
const migrationLock = 0x0931a7e

// Migrate brings a database up to date, on a connection without limits of time: one
// process at a time, the others wait for it and find nothing to do.
func Migrate(ctx context.Context, dsn string) error {
	db, err := sql.Open("pgx", dsn)
	if err != nil {
		return fmt.Errorf("opening the database: %w", err)
	}
	defer db.Close()
	lock, err := db.Conn(ctx)
	if err != nil {
		return fmt.Errorf("opening the database: %w", err)
	}
	defer lock.Close() // which lets go of the lock
	if _, err := lock.ExecContext(ctx, `SELECT pg_advisory_lock($1)`, migrationLock); err != nil {
		return fmt.Errorf("waiting to migrate the database: %w", err)
	}
	m, err := provider(db)
	if err != nil {
		return err
	}
	if _, err := m.Up(ctx); err != nil {
		return fmt.Errorf("migrating the database: %w", err)
	}
	queue, err := rivermigrate.New(riverdatabasesql.New(db), nil)
	if err != nil {
		return fmt.Errorf("reading the queue's migrations: %w", err)
	}
	if _, err := queue.Migrate(ctx, rivermigrate.DirectionUp, nil); err != nil {
		return fmt.Errorf("migrating the queue: %w", err)
	}
	return nil
}

// provider knows all migrations.
func provider(db *sql.DB) (*goose.Provider, error) {
	folder, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return nil, fmt.Errorf("reading migrations: %w", err)
	}
	m, err := goose.NewProvider(goose.DialectPostgres, db, folder, goose.WithGoMigrations(upgrades()...))
	if err != nil {
		return nil, fmt.Errorf("reading migrations: %w", err)
	}
	return m, nil
}
