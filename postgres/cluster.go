// Package postgres runs a private PostgreSQL cluster from Debian's packages, as a child of
// this process.
//
// In comes a folder; out comes a data source name. The cluster is made on first use and
// stops when the process does. It listens on a Unix socket in a folder that is closed to
// everybody else, to one role with a generated password that owns its database and nothing
// more; nobody can sign in as the superuser. Start at Start.
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

// Programs is where Debian's postgresql-15 has its programs.
const Programs = "/usr/lib/postgresql/15/bin"

// Options choose how a cluster runs.
type Options struct {
	// Throwaway gives up durability for speed; for tests only.
	Throwaway bool
	// Databases lets the application's role make databases and reach all of them; for
	// tests only.
	Databases bool
}

// Cluster is a running PostgreSQL server.
type Cluster struct {
	place
	cmd  *exec.Cmd // nil when another process runs it
	done chan struct{}
	err  error
	log  *tail
	stop sync.Once
}

// Start makes a cluster in dir, unless there is one, and runs it. One that was made before
// roles were separated is brought over.
func Start(dir string, o Options) (*Cluster, error) {
	if _, err := os.Stat(filepath.Join(Programs, "postgres")); err != nil {
		return nil, fmt.Errorf("PostgreSQL 15 isn't installed (%s is missing); bin/start installs it: %w", Programs, err)
	}
	dir, err := filepath.Abs(dir)
	if err != nil {
		return nil, fmt.Errorf("finding the database folder: %w", err)
	}
	attr, err := unprivileged(dir)
	if err != nil {
		return nil, err
	}
	s := server{dir, attr, o}
	if _, err := os.Stat(filepath.Join(dir, "PG_VERSION")); errors.Is(err, os.ErrNotExist) {
		if err := s.make(); err != nil {
			return nil, err
		}
	}
	for end := time.Now().Add(20 * time.Second); ; time.Sleep(100 * time.Millisecond) {
		c, err := s.begin()
		// A server whose parent was killed takes a moment to stop.
		if err != nil && strings.Contains(err.Error(), "postmaster.pid") && time.Now().Before(end) {
			continue
		}
		return c, err
	}
}

// Attach gives the cluster in dir that another process runs, or starts it.
func Attach(ctx context.Context, dir string, o Options) (*Cluster, error) {
	dir, err := filepath.Abs(dir)
	if err != nil {
		return nil, fmt.Errorf("finding the database folder: %w", err)
	}
	if p, err := running(dir); err == nil {
		c := &Cluster{place: p}
		if err := c.ping(ctx, database); err == nil {
			return c, nil
		}
	}
	return Start(dir, o)
}

// server is a cluster that is to be started.
type server struct {
	dir  string
	attr *syscall.SysProcAttr
	Options
}

// make makes the files of a cluster.
func (s server) make() error {
	args := []string{"-D", s.dir, "-A", "reject", "-U", "postgres", "-E", "UTF8", "--locale=C.UTF-8"}
	if s.Throwaway {
		args = append(args, "--no-sync")
	}
	cmd := exec.Command(filepath.Join(Programs, "initdb"), args...)
	cmd.SysProcAttr, cmd.Dir = s.attr, "/"
	if out, err := cmd.CombinedOutput(); err != nil {
		return fmt.Errorf("making the database cluster: %w: %s", err, bytes.TrimSpace(out))
	}
	return nil
}

// begin sets the cluster up, unless it is, and runs the server until it answers.
func (s server) begin() (*Cluster, error) {
	p, err := s.setUp()
	if err != nil {
		return nil, err
	}
	args := append([]string{"-D", s.dir, "-p", strconv.Itoa(p.port)}, p.listen()...)
	if s.Throwaway {
		args = append(args, "-c", "fsync=off", "-c", "full_page_writes=off")
	}
	c := &Cluster{place: p, cmd: exec.Command(filepath.Join(Programs, "postgres"), args...), done: make(chan struct{}), log: &tail{}}
	c.cmd.Dir, c.cmd.Stderr, c.cmd.Stdout = "/", c.log, c.log
	a := syscall.SysProcAttr{Setpgid: true, Pdeathsig: syscall.SIGINT}
	if s.attr != nil {
		a.Credential = s.attr.Credential
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

// CreateDatabase makes a database unless there is one; it takes Options.Databases.
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

// Stop ends the server at once but cleanly (SIGINT, "fast shutdown"), if it is this process's.
func (c *Cluster) Stop() {
	if c.cmd == nil {
		return
	}
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
	for end := time.Now().Add(limit); ; {
		err := c.ping(context.Background(), database)
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

// ping asks a database of the cluster whether it answers, within a second.
func (c *Cluster) ping(ctx context.Context, name string) error {
	db, err := sql.Open("pgx", c.DSN(name))
	if err != nil {
		return fmt.Errorf("opening the cluster: %w", err)
	}
	defer db.Close()
	ctx, cancel := context.WithTimeout(ctx, time.Second)
	defer cancel()
	return db.PingContext(ctx)
}

// Enclose makes a folder that only its owner gets into and, for root, the user postgres,
// whose cluster stands below it.
func Enclose(dir string) error {
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return fmt.Errorf("making the data folder: %w", err)
	}
	mode := os.FileMode(0o700)
	if u, err := account(); err == nil && u != nil {
		if err := os.Chown(dir, -1, int(u.Gid)); err != nil {
			return fmt.Errorf("closing the data folder: %w", err)
		}
		mode = 0o710
	}
	if err := os.Chmod(dir, mode); err != nil {
		return fmt.Errorf("closing the data folder: %w", err)
	}
	return nil
}

// account is the one that the server runs as for root, whom initdb and postgres refuse: the
// user postgres. It is nil for others.
func account() (*syscall.Credential, error) {
	if os.Geteuid() != 0 {
		return nil, nil
	}
	u, err := user.Lookup("postgres")
	if err != nil {
		return nil, fmt.Errorf("running as root needs the user postgres, which Debian's package makes: %w", err)
	}
	uid, _ := strconv.Atoi(u.Uid)
	gid, _ := strconv.Atoi(u.Gid)
	return &syscall.Credential{Uid: uint32(uid), Gid: uint32(gid)}, nil
}

// unprivileged makes dir and hands it to the account that the server runs as.
func unprivileged(dir string) (*syscall.SysProcAttr, error) {
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return nil, fmt.Errorf("making the database folder: %w", err)
	}
	as, err := account()
	if err != nil || as == nil {
		return nil, err
	}
	if err := os.Chown(dir, int(as.Uid), int(as.Gid)); err != nil {
		return nil, fmt.Errorf("handing over the database folder: %w", err)
	}
	for p := filepath.Dir(dir); ; p = filepath.Dir(p) {
		fi, err := os.Stat(p)
		if err != nil || fi.Mode().Perm()&0o001 == 0 && !(fi.Mode().Perm()&0o010 != 0 && fi.Sys().(*syscall.Stat_t).Gid == as.Gid) {
			return nil, fmt.Errorf(
				"the user postgres can't reach %s, since %s isn't open to it: set OPENPLOT_DATA to a folder it can reach, such as /var/lib/openplot",
				dir, p,
			)
		}
		if p == "/" {
			break
		}
	}
	return &syscall.SysProcAttr{Credential: as}, nil
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
