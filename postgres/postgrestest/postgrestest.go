// Package postgrestest gives tests a PostgreSQL database of their own: one
// throwaway cluster per test binary, one database per test. OPENPLOT_TEST_DURABLE
// makes the cluster as durable as the real one, for benchmarks.
package postgrestest

import (
	"context"
	"fmt"
	"os"
	"sync/atomic"
	"testing"

	"openplot/postgres"
)

var (
	cluster *postgres.Cluster
	count   atomic.Int64
)

// Main runs a package's tests with a cluster; call it from TestMain.
func Main(m *testing.M) {
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
		cluster, err = postgres.Start(dir+"/cluster", postgres.Options{Throwaway: os.Getenv("OPENPLOT_TEST_DURABLE") == "", Databases: true})
		if err != nil {
			fmt.Fprintln(os.Stderr, err)
			return 1
		}
		defer cluster.Stop()
		return m.Run()
	}())
}

// Database makes an empty database and gives its data source name.
func Database(t testing.TB) string {
	t.Helper()
	name := fmt.Sprintf("test%d", count.Add(1))
	if err := cluster.CreateDatabase(context.Background(), name); err != nil {
		t.Fatal(err)
	}
	return cluster.DSN(name)
}
