// Package postgrestest gives tests a PostgreSQL database of their own: one
// throwaway cluster per test binary, a copy of one migrated database per test. OPENPLOT_TEST_DURABLE
// makes the cluster as durable as the real one, for benchmarks.
package postgrestest

import (
	"context"
	"fmt"
	"os"
	"sync"
	"sync/atomic"
	"testing"

	"openplot/postgres"
)

var (
	cluster *postgres.Cluster
	count   atomic.Int64
	// schema brings a database up to date; once that is done in one, all others are copies of it.
	schema  func(ctx context.Context, dsn string) error
	migrate = sync.OnceValue(func() error {
		ctx := context.Background()
		if err := cluster.CreateDatabase(ctx, migrated, ""); err != nil {
			return err
		}
		return schema(ctx, cluster.DSN(migrated))
	})
)

const migrated = "migrated"

// Main runs a package's tests with a cluster whose databases have a schema; call it from TestMain.
func Main(m *testing.M, with func(ctx context.Context, dsn string) error) {
	schema = with
	os.Exit(func() int {
		dir, err := os.MkdirTemp("/tmp", "openplot-test-")
		if err != nil {
			fmt.Fprintln(os.Stderr, "making a folder for PostgreSQL:", err)
			return 1
		}
		defer os.RemoveAll(dir)
		if err := os.Chmod(dir, 0o711); err != nil { // the user postgres has to get in
			fmt.Fprintln(os.Stderr, err)
			return 1
		}
		cluster, err = postgres.Start(
			dir+"/cluster",
			postgres.Options{Throwaway: os.Getenv("OPENPLOT_TEST_DURABLE") == "", Databases: true},
		)
		if err != nil {
			fmt.Fprintln(os.Stderr, err)
			return 1
		}
		defer cluster.Stop()
		return m.Run()
	}())
}

// Database makes a database that is up to date and has nothing in it, and gives its data source name.
func Database(t testing.TB) string {
	t.Helper()
	if err := migrate(); err != nil {
		t.Fatal(err)
	}
	return create(t, migrated)
}

// Empty makes a database that has no schema either.
func Empty(t testing.TB) string {
	t.Helper()
	return create(t, "")
}

func create(t testing.TB, of string) string {
	t.Helper()
	name := fmt.Sprintf("test%d", count.Add(1))
	if err := cluster.CreateDatabase(context.Background(), name, of); err != nil {
		t.Fatal(err)
	}
	return cluster.DSN(name)
}
