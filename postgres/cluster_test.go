package postgres

import (
	"database/sql"
	"errors"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
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
	c, err := Start(dir, Options{Databases: true})
	if err != nil {
		t.Fatal(err)
	}
	for range 2 { // the second time there is one
		if err := c.CreateDatabase(t.Context(), `a "name"`, ""); err != nil {
			t.Fatal(err)
		}
	}
	db := open(t, c, "a \"name\"")
	if _, err := db.Exec(`CREATE TABLE boats (name text)`); err != nil {
		t.Fatal(err)
	}
	for i, end := range []func(){c.Stop, nil} {
		if _, err := db.Exec(`INSERT INTO boats VALUES ($1)`, strings.Repeat("x", i+1)); err != nil {
			t.Fatal(err)
		}
		if end == nil {
			c.kill(t)
			c.Stop()
		} else {
			end()
		}
		db.Close()
		if c, err = Start(dir, Options{Databases: true}); err != nil {
			t.Fatal(err)
		}
		db = open(t, c, "a \"name\"")
		var n int
		if err := db.QueryRow(`SELECT count(*) FROM boats`).Scan(&n); err != nil || n != i+1 {
			t.Errorf("%d boats of %d, %v", n, i+1, err)
		}
	}
	c.Stop()
	c.Stop() // does nothing more
	if err := c.ping(t.Context(), database); err == nil {
		t.Error("the server goes on")
	}
}

// kill ends the server as a lack of memory would.
func (c *Cluster) kill(t *testing.T) {
	t.Helper()
	var now *process
	for end := time.Now().Add(10 * time.Second); ; time.Sleep(10 * time.Millisecond) { // it answers a moment before it is known to run
		c.mu.Lock()
		now = c.now
		c.mu.Unlock()
		select {
		case <-now.done:
			if time.Now().Before(end) {
				continue
			}
			t.Fatal("it isn't there again")
		default:
		}
		break
	}
	if err := syscall.Kill(-now.cmd.Process.Pid, syscall.SIGKILL); err != nil {
		t.Fatal(err)
	}
	<-now.done
}

// A server that ends by itself is there again within seconds, with what it had, for those who
// are connected.
func TestClusterIsStartedAgain(t *testing.T) {
	c, err := Start(folder(t), Options{})
	if err != nil {
		t.Fatal(err)
	}
	defer c.Stop()
	db := open(t, c, database)
	if _, err := db.Exec(`CREATE TABLE boats (name text)`); err != nil {
		t.Fatal(err)
	}
	for i := range 3 {
		if _, err := db.Exec(`INSERT INTO boats VALUES ('Auk')`); err != nil {
			t.Fatal(err)
		}
		c.kill(t)
		start, n := time.Now(), 0
		for err = errors.New("not yet"); err != nil && time.Since(start) < 20*time.Second; time.Sleep(20 * time.Millisecond) {
			err = db.QueryRow(`SELECT count(*) FROM boats`).Scan(&n)
		}
		if err != nil || n != i+1 {
			t.Fatalf("after %s: %d boats, %v", time.Since(start), n, err)
		}
		t.Logf("there again after %s", time.Since(start).Round(time.Millisecond))
	}
}

// It listens on a socket that is closed to others, and lets in one role that may do nothing
// but own its database.
func TestClusterIsClosed(t *testing.T) {
	dir := folder(t)
	c, err := Start(dir, Options{Throwaway: true})
	if err != nil {
		t.Fatal(err)
	}
	defer c.Stop()
	db := open(t, c, database)
	for setting, want := range map[string]string{"listen_addresses": "", "fsync": "off"} {
		var got string
		if err := db.QueryRow(`SELECT setting FROM pg_settings WHERE name = $1`, setting).Scan(&got); err != nil ||
			got != want {
			t.Errorf("%s is %q, %v", setting, got, err)
		}
	}
	for name, want := range map[string]os.FileMode{dir + "/socket": 0o700, dir: 0o700, passwordFile(dir): 0o600} {
		if fi, err := os.Stat(name); err != nil || fi.Mode().Perm() != want {
			t.Errorf("%s: %v, %v", name, fi.Mode(), err)
		}
	}
	alone(t, db)
	for name, dsn := range map[string]string{
		"the superuser":     "host=" + c.socket + " port=5432 user=postgres dbname=openplot",
		"the role, no word": "host=" + c.socket + " port=5432 user=plot dbname=openplot",
		"another database":  c.DSN("postgres"),
		"loopback":          "host=127.0.0.1 port=5432 user=plot dbname=openplot connect_timeout=1",
	} {
		other, err := sql.Open("pgx", dsn)
		if err != nil {
			t.Fatal(err)
		}
		if err := other.Ping(); err == nil {
			t.Errorf("%s gets in", name)
		}
		other.Close()
	}
}

// alone fails unless db's role is no more than the owner of its database.
func alone(t *testing.T, db *sql.DB) {
	t.Helper()
	var powers bool
	var owner string
	if err := db.QueryRow(`SELECT rolsuper OR rolcreaterole OR rolcreatedb OR rolreplication OR rolbypassrls, (SELECT pg_get_userbyid(datdba) FROM pg_database
		WHERE datname = current_database()) FROM pg_roles WHERE rolname = current_user`).Scan(&powers, &owner); err != nil ||
		powers ||
		owner != role {
		t.Errorf("powers %v, owner %s, %v", powers, owner, err)
	}
	for _, q := range []string{`COPY (SELECT 1) TO PROGRAM 'true'`, `SELECT rolpassword FROM pg_authid`, `SELECT pg_read_file('/etc/hostname')`} {
		if _, err := db.Exec(q); err == nil {
			t.Errorf("%s is allowed", q)
		}
	}
}

// Where a socket's name would be too long, it is loopback, with the password.
func TestLongNamesMakeItListenOnLoopback(t *testing.T) {
	dir := folder(t)
	if err := os.Mkdir(filepath.Dir(dir)+"/"+strings.Repeat("n", 100), 0o755); err != nil {
		t.Fatal(err)
	}
	c, err := Start(filepath.Dir(dir)+"/"+strings.Repeat("n", 100)+"/db", Options{Throwaway: true})
	if err != nil {
		t.Fatal(err)
	}
	defer c.Stop()
	alone(t, open(t, c, database))
	wrong := c.place
	wrong.password = "guessed"
	db, err := sql.Open("pgx", wrong.DSN(database))
	if err != nil {
		t.Fatal(err)
	}
	defer db.Close()
	if err := db.Ping(); err == nil || !strings.Contains(err.Error(), "password") {
		t.Errorf("a guessed password: %v", err)
	}
}

// A cluster that trusted everybody and whose superuser was the application is closed at the
// next start, with all that is in it.
func TestOldClustersAreBroughtOver(t *testing.T) {
	dir := folder(t)
	attr, err := unprivileged(dir)
	if err != nil {
		t.Fatal(err)
	}
	cmd := exec.Command(
		Programs+"/initdb",
		"-D",
		dir,
		"-A",
		"trust",
		"-U",
		"openplot",
		"-E",
		"UTF8",
		"--locale=C.UTF-8",
		"--no-sync",
	)
	cmd.SysProcAttr, cmd.Dir = attr, "/"
	if out, err := cmd.CombinedOutput(); err != nil {
		t.Fatal(string(out))
	}
	s := server{dir, attr, Options{Throwaway: true}}
	for name, q := range map[string][]string{
		"postgres": {`CREATE DATABASE openplot`},
		"openplot": {
			`CREATE TYPE state AS ENUM ('a', 'b')`, `CREATE TABLE boats (id bigserial PRIMARY KEY, name text, s state)`, `INSERT INTO boats (name, s) VALUES ('Auk', 'a')`,
			`CREATE FUNCTION boat() RETURNS text LANGUAGE sql AS 'SELECT name FROM boats'`, `CREATE VIEW seen AS SELECT name FROM boats`,
		},
	} {
		if name == "openplot" {
			if err := s.single("postgres", `CREATE DATABASE openplot`); err != nil &&
				!strings.Contains(err.Error(), "already exists") {
				t.Fatal(err)
			}
		}
		if err := s.single(name, q...); err != nil && !strings.Contains(err.Error(), "already exists") {
			t.Fatal(err)
		}
	}
	for range 2 { // the second time it is over already
		c, err := Start(dir, Options{Throwaway: true})
		if err != nil {
			t.Fatal(err)
		}
		db := open(t, c, database)
		alone(t, db)
		var boat string
		if err := db.QueryRow(`SELECT boat()`).Scan(&boat); err != nil || boat != "Auk" {
			t.Errorf("%q, %v", boat, err)
		}
		for _, q := range []string{
			`ALTER TABLE boats ADD COLUMN IF NOT EXISTS length int`, `INSERT INTO boats (name, s) VALUES ('Tern', 'b')`, `ALTER TYPE state ADD VALUE IF NOT EXISTS 'c'`,
			`CREATE OR REPLACE FUNCTION boat() RETURNS text LANGUAGE sql AS 'SELECT name FROM boats LIMIT 1'`, `CREATE TABLE IF NOT EXISTS piers ()`,
			`CREATE OR REPLACE VIEW seen AS SELECT name FROM boats LIMIT 1`,
		} {
			if _, err := db.Exec(q); err != nil {
				t.Errorf("%s: %v", q, err)
			}
		}
		attached, err := Attach(t.Context(), dir, Options{})
		if err != nil || attached.now != nil || attached.ping(t.Context(), database) != nil {
			t.Errorf("a second process: %v", err)
		}
		old, err := sql.Open("pgx", fmt.Sprintf("host=%s port=%d user=openplot dbname=openplot", c.socket, c.port))
		if err != nil {
			t.Fatal(err)
		}
		if err := old.Ping(); err == nil {
			t.Error("the old superuser gets in")
		}
		old.Close()
		c.Stop()
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
	if _, err := Start(closed+"/db", Options{Throwaway: true}); err == nil ||
		!strings.Contains(err.Error(), "OPENPLOT_DATA") {
		t.Errorf("a folder that postgres can't reach: %v", err)
	}
}

// Two programs don't run one folder: the second says so.
func TestOneProgramAFolder(t *testing.T) {
	dir := folder(t)
	c, err := Start(dir, Options{})
	if err != nil {
		t.Fatal(err)
	}
	if _, err := Start(dir, Options{}); err == nil || !strings.Contains(err.Error(), "already") {
		t.Errorf("a second one: %v", err)
	}
	if err := c.ping(t.Context(), database); err != nil {
		t.Errorf("the first one: %v", err)
	}
	c.Stop()
	if c, err = Start(dir, Options{}); err != nil {
		t.Fatal(err)
	}
	c.Stop()
}
