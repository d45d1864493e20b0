package store

import (
	"context"
	"database/sql"
	"fmt"
)

// Snapshot has files taken and the database dumped as of one moment, at which nothing is being
// published and no file removed. take is called at that moment and should be quick; dump may
// take long, and is given the name of the snapshot (PostgreSQL 15 §9.27.5, pg_export_snapshot).
func (s *Store) Snapshot(ctx context.Context, take func() error, dump func(snapshot string) error) error {
	standing, err := s.pool.BeginTx(ctx, &sql.TxOptions{Isolation: sql.LevelRepeatableRead, ReadOnly: true})
	if err != nil {
		return fmt.Errorf("beginning: %w", err)
	}
	defer standing.Rollback() // it changes nothing
	if _, err := standing.ExecContext(ctx, `SET LOCAL idle_in_transaction_session_timeout = 0`); err != nil {
		return fmt.Errorf("beginning: %w", err)
	}
	var name string
	err = s.Media.WithFiles(ctx, func() error {
		stop, err := s.pool.BeginTx(ctx, nil)
		if err != nil {
			return fmt.Errorf("beginning: %w", err)
		}
		defer stop.Rollback() // which lets publishing go on
		if _, err := stop.ExecContext(ctx, `LOCK TABLE releases, published, editions IN SHARE MODE`); err != nil {
			return fmt.Errorf("waiting for what is being published: %w", err)
		}
		if err := standing.QueryRowContext(ctx, `SELECT pg_export_snapshot()`).Scan(&name); err != nil {
			return fmt.Errorf("taking a snapshot: %w", err)
		}
		return take()
	})
	if err != nil {
		return err
	}
	return dump(name)
}
