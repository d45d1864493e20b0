package postgres

import (
	"database/sql"
	"os"
	"strings"
	"syscall"
	"testing"
	"time"
)

// folder is one that the user postgres can reach.
func folder(t *testing.T) string {
	t.Helper()
	dir, err := os.MkdirTemp("/tmp", "openplot-cluster-")
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { os.RemoveAll(dir) })
	if err := os.Chmod(dir, 0o755); err != nil {
		t.Fatal(err)
	}
	return dir + "/db"
}

func open(t *testing.T, c *Cluster, name string) *sql.DB {
	t.Helper()
	db, err := sql.Open("pgx", c.DSN(name))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { db.Close() })
	return db
}

// What is in a cluster is there after it was stopped, and after it was killed.
func TestClusterComesBack(t *testing.T) {
	dir := folder(t)
	c, err := Start(dir, Options{})
	if err != nil {
		t.Fatal(err)
	}
	for range 2 { // the second time there is one
		if err := c.CreateDatabase(t.Context(), `a "name"`); err != nil {
			t.Fatal(err)
		}
	}
	db := open(t, c, "a%20%22name%22")
	if _, err := db.Exec(`CREATE TABLE boats (name text)`); err != nil {
		t.Fatal(err)
	}
	for i, end := range []func(){c.Stop, nil} {
		if _, err := db.Exec(`INSERT INTO boats VALUES ($1)`, strings.Repeat("x", i+1)); err != nil {
			t.Fatal(err)
		}
		if end == nil {
			if err := syscall.Kill(-c.cmd.Process.Pid, syscall.SIGKILL); err != nil {
				t.Fatal(err)
			}
			<-c.done
		} else {
			end()
		}
		db.Close()
		if c, err = Start(dir, Options{}); err != nil {
			t.Fatal(err)
		}
		db = open(t, c, "a%20%22name%22")
		var n int
		if err := db.QueryRow(`SELECT count(*) FROM boats`).Scan(&n); err != nil || n != i+1 {
			t.Errorf("%d boats of %d, %v", n, i+1, err)
		}
	}
	c.Stop()
	c.Stop() // does nothing more
	select {
	case <-c.done:
	case <-time.After(time.Minute):
		t.Error("the server goes on")
	}
}

// It is open to this machine alone.
func TestClusterListensOnLoopback(t *testing.T) {
	c, err := Start(folder(t), Options{Throwaway: true})
	if err != nil {
		t.Fatal(err)
	}
	defer c.Stop()
	db := open(t, c, "postgres")
	for setting, want := range map[string]string{"listen_addresses": "127.0.0.1", "unix_socket_directories": "", "fsync": "off"} {
		var got string
		if err := db.QueryRow(`SELECT setting FROM pg_settings WHERE name = $1`, setting).Scan(&got); err != nil || got != want {
			t.Errorf("%s is %q, %v", setting, got, err)
		}
	}
}

// A folder that can't be used is said to be so, and how to go on.
func TestFoldersThatCannotBeUsed(t *testing.T) {
	dir := folder(t)
	if err := os.MkdirAll(dir, 0o755); err != nil {
		t.Fatal(err)
	}
	if err := os.WriteFile(dir+"/words.txt", []byte("not a cluster"), 0o644); err != nil {
		t.Fatal(err)
	}
	if _, err := Start(dir, Options{Throwaway: true}); err == nil || !strings.Contains(err.Error(), "not empty") {
		t.Errorf("a folder of something else: %v", err)
	}
	if os.Geteuid() != 0 {
		return
	}
	closed, err := os.MkdirTemp("/tmp", "openplot-closed-") // 0700
	if err != nil {
		t.Fatal(err)
	}
	defer os.RemoveAll(closed)
	if _, err := Start(closed+"/db", Options{Throwaway: true}); err == nil || !strings.Contains(err.Error(), "OPENPLOT_DATA") {
		t.Errorf("a folder that postgres can't reach: %v", err)
	}
}
