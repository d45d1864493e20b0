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

// Cluster is a running PostgreSQL server. One that this process runs is started again when
// it ends by itself.
type Cluster struct {
	place
	server server
	own    *os.File // locks the folder while this process runs it
	mu     sync.Mutex
	now    *process // nil when another process runs it
	ending bool
	ended  chan struct{} // closed when it was stopped
}

// process is one run of a server.
type process struct {
	cmd  *exec.Cmd
	done chan struct{}
	err  error // once it is done
	log  *tail
}

// Start makes a cluster in dir, unless there is one, and runs it. One that was made before
// roles were separated is brought over.
func Start(dir string, o Options) (*Cluster, error) {
	if _, err := os.Stat(filepath.Join(Programs, "postgres")); err != nil {
		return nil, fmt.Errorf(
			"PostgreSQL 15 isn't installed (%s is missing); bin/start installs it: %w",
			Programs,
			err,
		)
	}
	dir, err := filepath.Abs(dir)
	if err != nil {
		return nil, fmt.Errorf("finding the database folder: %w", err)
	}
	attr, err := unprivileged(dir)
	if err != nil {
		return nil, err
	}
	own, err := only(dir)
	if err != nil {
		return nil, err
	}
	s := server{dir, attr, o}
	if _, err := os.Stat(filepath.Join(dir, "PG_VERSION")); errors.Is(err, os.ErrNotExist) {
		if err := s.make(); err != nil {
			return nil, errors.Join(err, own.Close())
		}
	}
	for end := time.Now().Add(20 * time.Second); ; time.Sleep(100 * time.Millisecond) {
		p, now, err := s.begin()
		if err == nil {
			c := &Cluster{place: p, server: s, now: now, own: own, ended: make(chan struct{})}
			go c.watch(now)
			return c, nil
		}
		// A server whose parent was killed takes a moment to stop.
		if !strings.Contains(err.Error(), "postmaster.pid") || time.Now().After(end) {
			return nil, errors.Join(err, own.Close())
		}
	}
}

// waitForOther is how long another program on the same folder may still be ending.
const waitForOther = 3 * time.Second

// only makes this the one program that runs the cluster of a folder, for as long as the file that
// it gives is open (flock(2)): it ends with the process, however that ends.
func only(dir string) (*os.File, error) {
	f, err := os.OpenFile(dir+".lock", os.O_RDWR|os.O_CREATE, 0o600)
	if err != nil {
		return nil, fmt.Errorf("locking the database folder: %w", err)
	}
	for end := time.Now().Add(waitForOther); ; time.Sleep(50 * time.Millisecond) {
		err := syscall.Flock(int(f.Fd()), syscall.LOCK_EX|syscall.LOCK_NB)
		if err == nil {
			return f, nil
		}
		if !errors.Is(err, syscall.EWOULDBLOCK) {
			return nil, errors.Join(fmt.Errorf("locking the database folder: %w", err), f.Close())
		}
		if time.Now().After(end) {
			return nil, errors.Join(
				fmt.Errorf(
					"%s is used by an Open Plot that runs already: stop it first, or set OPENPLOT_DATA to another folder",
					filepath.Dir(dir),
				),
				f.Close(),
			)
		}
	}
}

// watch starts the server again whenever it ends, until it is stopped.
func (c *Cluster) watch(now *process) {
	defer close(c.ended)
	for {
		<-now.done
		for {
			c.mu.Lock()
			ending := c.ending
			c.mu.Unlock()
			if ending {
				return
			}
			_, next, err := c.server.begin()
			if err == nil {
				now = next
				break
			}
			time.Sleep(100 * time.Millisecond) // what is left of the one before takes a moment to go
		}
		c.mu.Lock()
		c.now = now
		if c.ending {
			_ = now.cmd.Process.Signal(syscall.SIGINT)
		}
		c.mu.Unlock()
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

// make makes the files of a cluster: beside the folder first, so that what was killed on the
// way isn't taken for one.
func (s server) make() error {
	making := s.dir + ".making"
	if err := os.RemoveAll(making); err != nil {
		return fmt.Errorf("making place for the database: %w", err)
	}
	if err := s.hand(making); err != nil {
		return err
	}
	args := []string{"-D", making, "-A", "reject", "-U", "postgres", "-E", "UTF8", "--locale=C.UTF-8"}
	if s.Throwaway {
		args = append(args, "--no-sync")
	}
	cmd := exec.Command(filepath.Join(Programs, "initdb"), args...)
	cmd.SysProcAttr, cmd.Dir = s.dying(), "/"
	runtime.LockOSThread() // dying is about the thread that starts the process
	out, err := cmd.CombinedOutput()
	runtime.UnlockOSThread()
	if err != nil {
		return fmt.Errorf("making the database cluster: %w: %s", err, bytes.TrimSpace(out))
	}
	if err := os.Remove(s.dir); err != nil { // it is empty, unless it is something else
		return fmt.Errorf("the database folder isn't empty, and has no database in it: %w", err)
	}
	if err := os.Rename(making, s.dir); err != nil {
		return fmt.Errorf("making the database cluster: %w", err)
	}
	return nil
}

// dying has a process end when this one does, whatever ends it.
func (s server) dying() *syscall.SysProcAttr {
	a := &syscall.SysProcAttr{Pdeathsig: syscall.SIGKILL}
	if s.attr != nil {
		a.Credential = s.attr.Credential
	}
	return a
}

// begin sets the cluster up, unless it is, and runs the server until it answers.
func (s server) begin() (place, *process, error) {
	p, err := s.setUp()
	if err != nil {
		return p, nil, err
	}
	args := append([]string{"-D", s.dir, "-p", strconv.Itoa(p.port)}, p.listen()...)
	if s.Throwaway {
		args = append(args, "-c", "fsync=off", "-c", "full_page_writes=off")
	}
	now := &process{
		cmd:  exec.Command(filepath.Join(Programs, "postgres"), args...),
		done: make(chan struct{}),
		log:  &tail{},
	}
	now.cmd.Dir, now.cmd.Stderr, now.cmd.Stdout = "/", now.log, now.log
	a := syscall.SysProcAttr{Setpgid: true, Pdeathsig: syscall.SIGINT}
	if s.attr != nil {
		a.Credential = s.attr.Credential
	}
	now.cmd.SysProcAttr = &a
	started := make(chan error)
	go func() {
		runtime.LockOSThread() // Pdeathsig is sent when the thread that started the child ends
		if err := now.cmd.Start(); err != nil {
			started <- err
			return
		}
		started <- nil
		now.err = now.cmd.Wait()
		close(now.done)
	}()
	if err := <-started; err != nil {
		return p, nil, fmt.Errorf("starting PostgreSQL: %w", err)
	}
	if err := now.await(p, 30*time.Second); err != nil {
		now.stop()
		return p, nil, err
	}
	return p, now, nil
}

// CreateDatabase makes a database unless there is one, as a copy of another or for "" an empty one;
// it takes Options.Databases.
func (c *Cluster) CreateDatabase(ctx context.Context, name, of string) error {
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
	quoted := func(name string) string { return `"` + strings.ReplaceAll(name, `"`, `""`) + `"` } // identifiers can't be parameters
	query := "CREATE DATABASE " + quoted(name)
	if of != "" {
		query += " TEMPLATE " + quoted(of)
	}
	if _, err := db.ExecContext(ctx, query); err != nil {
		return fmt.Errorf("making database %s: %w", name, err)
	}
	return nil
}

// Stop ends the server at once but cleanly (SIGINT, "fast shutdown"), if it is this process's.
func (c *Cluster) Stop() {
	if c.now == nil {
		return
	}
	c.mu.Lock()
	first := !c.ending
	c.ending = true
	now := c.now
	c.mu.Unlock()
	if first {
		now.stop()
	}
	<-c.ended
	if first {
		_ = c.own.Close() // which lets go of the folder
	}
}

func (p *process) stop() {
	_ = p.cmd.Process.Signal(syscall.SIGINT)
	select {
	case <-p.done:
	case <-time.After(20 * time.Second):
		_ = p.cmd.Process.Kill()
		<-p.done
	}
}

func (p *process) await(at place, limit time.Duration) error {
	for end := time.Now().Add(limit); ; {
		err := at.ping(context.Background(), database)
		if err == nil {
			return nil
		}
		select {
		case <-p.done:
			return fmt.Errorf("PostgreSQL ended at once (%v): %s", p.err, p.log)
		case <-time.After(20 * time.Millisecond):
		}
		if time.Now().After(end) {
			return fmt.Errorf("PostgreSQL didn't answer within %s: %w: %s", limit, err, p.log)
		}
	}
}

// ping asks a database of the cluster whether it answers, within a second.
func (p place) ping(ctx context.Context, name string) error {
	db, err := sql.Open("pgx", p.DSN(name))
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
		if err != nil ||
			fi.Mode().Perm()&0o001 == 0 && !(fi.Mode().Perm()&0o010 != 0 && fi.Sys().(*syscall.Stat_t).Gid == as.Gid) {
			return nil, fmt.Errorf(
				"the user postgres can't reach %s, since %s isn't open to it: set OPENPLOT_DATA to a folder it can reach, such as /var/lib/openplot",
				dir,
				p,
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
