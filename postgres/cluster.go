// Package postgres runs a private PostgreSQL cluster on loopback, from Debian's
// packages, as a child of this process.
//
// In comes a folder; out comes a data source name. The cluster is made on first
// use and stops when the process does. Start at Start.
package postgres

import (
	"bytes"
	"context"
	"database/sql"
	"errors"
	"fmt"
	"net"
	"os"
	"os/exec"
	"os/user"
	"path/filepath"
	"runtime"
	"strconv"
	"strings"
	"sync"
	"syscall"
	"time"

	_ "github.com/jackc/pgx/v5/stdlib" // the driver "pgx"
)

// bin is where Debian's postgresql-15 has its programs.
const bin = "/usr/lib/postgresql/15/bin"

// Options choose how a cluster runs.
type Options struct {
	// Throwaway gives up durability for speed; for tests only.
	Throwaway bool
}

// Cluster is a running PostgreSQL server.
type Cluster struct {
	Port int
	cmd  *exec.Cmd
	done chan struct{}
	err  error
	log  *tail
	stop sync.Once
}

// Start makes a cluster in dir, unless there is one, and runs it.
func Start(dir string, o Options) (*Cluster, error) {
	if _, err := os.Stat(filepath.Join(bin, "postgres")); err != nil {
		return nil, fmt.Errorf("PostgreSQL 15 isn't installed (%s is missing); bin/start installs it: %w", bin, err)
	}
	dir, err := filepath.Abs(dir)
	if err != nil {
		return nil, fmt.Errorf("finding the database folder: %w", err)
	}
	attr, err := unprivileged(dir)
	if err != nil {
		return nil, err
	}
	if _, err := os.Stat(filepath.Join(dir, "PG_VERSION")); errors.Is(err, os.ErrNotExist) {
		args := []string{"-D", dir, "-A", "trust", "-U", "openplot", "-E", "UTF8", "--locale=C.UTF-8"}
		if o.Throwaway {
			args = append(args, "--no-sync")
		}
		cmd := exec.Command(filepath.Join(bin, "initdb"), args...)
		cmd.SysProcAttr, cmd.Dir = attr, "/"
		if out, err := cmd.CombinedOutput(); err != nil {
			return nil, fmt.Errorf("making the database cluster: %w: %s", err, bytes.TrimSpace(out))
		}
	}
	for end := time.Now().Add(20 * time.Second); ; time.Sleep(100 * time.Millisecond) {
		c, err := run(dir, attr, o)
		// A server whose parent was killed takes a moment to stop.
		if err != nil && strings.Contains(err.Error(), "postmaster.pid") && time.Now().Before(end) {
			continue
		}
		return c, err
	}
}

// run starts the server on a free port and waits until it answers.
func run(dir string, attr *syscall.SysProcAttr, o Options) (*Cluster, error) {
	port, err := freePort()
	if err != nil {
		return nil, err
	}
	args := []string{"-D", dir, "-p", strconv.Itoa(port), "-c", "listen_addresses=127.0.0.1", "-c", "unix_socket_directories="}
	if o.Throwaway {
		args = append(args, "-c", "fsync=off", "-c", "full_page_writes=off")
	}
	c := &Cluster{Port: port, cmd: exec.Command(filepath.Join(bin, "postgres"), args...), done: make(chan struct{}), log: &tail{}}
	c.cmd.Dir, c.cmd.Stderr, c.cmd.Stdout = "/", c.log, c.log
	a := syscall.SysProcAttr{Setpgid: true, Pdeathsig: syscall.SIGINT}
	if attr != nil {
		a.Credential = attr.Credential
	}
	c.cmd.SysProcAttr = &a
	started := make(chan error)
	go func() {
		runtime.LockOSThread() // Pdeathsig is sent when the thread that started the child ends
		if err := c.cmd.Start(); err != nil {
			started <- err
			return
		}
		started <- nil
		c.err = c.cmd.Wait()
		close(c.done)
	}()
	if err := <-started; err != nil {
		return nil, fmt.Errorf("starting PostgreSQL: %w", err)
	}
	if err := c.await(30 * time.Second); err != nil {
		c.Stop()
		return nil, err
	}
	return c, nil
}

// DSN is the data source name of a database in the cluster.
func (c *Cluster) DSN(database string) string {
	return fmt.Sprintf("postgres://openplot@127.0.0.1:%d/%s?sslmode=disable", c.Port, database)
}

// CreateDatabase makes a database unless there is one.
func (c *Cluster) CreateDatabase(ctx context.Context, name string) error {
	db, err := sql.Open("pgx", c.DSN("postgres"))
	if err != nil {
		return fmt.Errorf("opening the cluster: %w", err)
	}
	defer db.Close()
	var exists bool
	if err := db.QueryRowContext(ctx, "SELECT EXISTS (SELECT FROM pg_database WHERE datname = $1)", name).Scan(&exists); err != nil {
		return fmt.Errorf("looking for database %s: %w", name, err)
	}
	if exists {
		return nil
	}
	quoted := `"` + strings.ReplaceAll(name, `"`, `""`) + `"` // identifiers can't be parameters
	if _, err := db.ExecContext(ctx, "CREATE DATABASE "+quoted); err != nil {
		return fmt.Errorf("making database %s: %w", name, err)
	}
	return nil
}

// Stop ends the server at once but cleanly (SIGINT, "fast shutdown").
func (c *Cluster) Stop() {
	c.stop.Do(func() {
		_ = c.cmd.Process.Signal(syscall.SIGINT)
		select {
		case <-c.done:
		case <-time.After(20 * time.Second):
			_ = c.cmd.Process.Kill()
			<-c.done
		}
	})
}

func (c *Cluster) await(limit time.Duration) error {
	db, err := sql.Open("pgx", c.DSN("postgres"))
	if err != nil {
		return fmt.Errorf("opening the cluster: %w", err)
	}
	defer db.Close()
	for end := time.Now().Add(limit); ; {
		ctx, cancel := context.WithTimeout(context.Background(), time.Second)
		err = db.PingContext(ctx)
		cancel()
		if err == nil {
			return nil
		}
		select {
		case <-c.done:
			return fmt.Errorf("PostgreSQL ended at once (%v): %s", c.err, c.log)
		case <-time.After(20 * time.Millisecond):
		}
		if time.Now().After(end) {
			return fmt.Errorf("PostgreSQL didn't answer within %s: %w: %s", limit, err, c.log)
		}
	}
}

// unprivileged makes dir and, for root, whom initdb and postgres refuse, hands it
// to the user postgres.
func unprivileged(dir string) (*syscall.SysProcAttr, error) {
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return nil, fmt.Errorf("making the database folder: %w", err)
	}
	if os.Geteuid() != 0 {
		return nil, nil
	}
	u, err := user.Lookup("postgres")
	if err != nil {
		return nil, fmt.Errorf("running as root needs the user postgres, which Debian's package makes: %w", err)
	}
	uid, _ := strconv.Atoi(u.Uid)
	gid, _ := strconv.Atoi(u.Gid)
	if err := os.Chown(dir, uid, gid); err != nil {
		return nil, fmt.Errorf("handing over the database folder: %w", err)
	}
	for p := filepath.Dir(dir); ; p = filepath.Dir(p) {
		if fi, err := os.Stat(p); err != nil || fi.Mode().Perm()&0o001 == 0 {
			return nil, fmt.Errorf(
				"the user postgres can't reach %s, since %s isn't open to it: set OPENPLOT_DATA to a folder it can reach, such as /var/lib/openplot",
				dir, p,
			)
		}
		if p == "/" {
			break
		}
	}
	return &syscall.SysProcAttr{Credential: &syscall.Credential{Uid: uint32(uid), Gid: uint32(gid)}}, nil
}

func freePort() (int, error) {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return 0, fmt.Errorf("finding a free port: %w", err)
	}
	defer l.Close()
	return l.Addr().(*net.TCPAddr).Port, nil
}

// tail keeps the end of what the server prints, for error messages.
type tail struct {
	mu sync.Mutex
	b  []byte
}

func (t *tail) Write(p []byte) (int, error) {
	t.mu.Lock()
	defer t.mu.Unlock()
	t.b = append(t.b, p...)
	if n := len(t.b); n > 4000 {
		t.b = append([]byte(nil), t.b[n-4000:]...)
	}
	return len(p), nil
}

func (t *tail) String() string {
	t.mu.Lock()
	defer t.mu.Unlock()
	return strings.TrimSpace(string(t.b))
}
