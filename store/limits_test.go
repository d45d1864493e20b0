package store

import (
	"testing"
	"time"

	"openplot/postgres/postgrestest"
)

// So many at once are let through by two processes together, then one as often as it says; each key by itself; no
// key is kept as it is.
func TestLimitsHoldOverProcesses(t *testing.T) {
	ctx := t.Context()
	dsn := postgrestest.Database(t)
	var by []*Store
	for range 2 {
		st, err := Open(ctx, dsn)
		if err != nil {
			t.Fatal(err)
		}
		defer st.Close()
		by = append(by, st)
	}
	tries := func(key string) (through int) {
		for i := range 30 {
			ok, err := by[i%2].Limits.Allow(ctx, key, 10, time.Hour)
			if err != nil {
				t.Fatal(err)
			}
			if ok {
				through++
			}
		}
		return through
	}
	if a, b := tries("192.0.2.1"), tries("192.0.2.2"); a != 10 || b != 10 {
		t.Errorf("%d and %d of 30 are let through", a, b)
	}
	pool := by[0].pool
	if _, err := pool.Exec(`UPDATE attempts SET until = until - interval '2 hours'`); err != nil {
		t.Fatal(err)
	}
	if n := tries("192.0.2.1"); n != 2 {
		t.Errorf("two hours later %d are let through", n)
	}
	var known int
	if err := pool.Get(&known, `SELECT count(*) FROM attempts WHERE encode(key, 'escape') LIKE '%192.0.2%'`); err != nil ||
		known != 0 {
		t.Errorf("%d keys are kept as they are, %v", known, err)
	}
	// A day later the salt is thrown away, and what used nothing up any more.
	if _, err := pool.Exec(`UPDATE salts SET day = day - 1`); err != nil {
		t.Fatal(err)
	}
	if _, err := pool.Exec(`UPDATE attempts SET until = now() - interval '1 hour'`); err != nil {
		t.Fatal(err)
	}
	if err := by[0].Limits.Forget(ctx); err != nil {
		t.Fatal(err)
	}
	var left int
	if err := pool.Get(&left, `SELECT (SELECT count(*) FROM salts) + (SELECT count(*) FROM attempts)`); err != nil ||
		left != 0 {
		t.Errorf("%d are left, %v", left, err)
	}
}
