package postgres

import (
	"bytes"
	"crypto/rand"
	"encoding/hex"
	"errors"
	"fmt"
	"io/fs"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"runtime"
	"strconv"
	"strings"
)

// The application's role, and the database that it owns.
const (
	role     = "plot"
	database = "openplot"
)

// socketPort only names the socket's file.
const socketPort = 5432

// place is where a cluster listens, and the password of the application's role there.
type place struct {
	socket   string // folder; "" for loopback, where the folder's name is too long for a socket
	port     int
	password string
}

// maxSocketName is how long the name of a socket can be (unix(7): 108 bytes with the last
// one 0).
const maxSocketName = 107

// socketFolder is the folder of a cluster's socket, or "" when its name would be too long.
func socketFolder(dir string) string {
	folder := filepath.Join(dir, "socket")
	if len(folder)+len("/.s.PGSQL.5432") > maxSocketName {
		return ""
	}
	return folder
}

// passwordFile is beside the cluster, since everything in it is the server's.
func passwordFile(dir string) string { return dir + ".password" }

// DSN is the data source name of a database in the cluster.
func (p place) DSN(name string) string {
	u := url.URL{Scheme: "postgres", User: url.UserPassword(role, p.password), Path: "/" + name}
	q := url.Values{"sslmode": {"disable"}}
	if p.socket == "" {
		u.Host = "127.0.0.1:" + strconv.Itoa(p.port)
	} else {
		q.Set("host", p.socket)
		q.Set("port", strconv.Itoa(p.port))
	}
	u.RawQuery = q.Encode()
	return u.String()
}

// Main is the data source name of the application's database.
func (p place) Main() string { return p.DSN(database) }

// listen are the server's settings of where it listens.
func (p place) listen() []string {
	if p.socket == "" {
		return []string{"-c", "listen_addresses=127.0.0.1", "-c", "unix_socket_directories="}
	}
	return []string{
		"-c",
		"listen_addresses=",
		"-c",
		"unix_socket_directories=" + p.socket,
		"-c",
		"unix_socket_permissions=0700",
	}
}

// running is the place of a cluster that somebody runs: its port is the fourth line of
// postmaster.pid (PostgreSQL 15, miscadmin.h).
func running(dir string) (place, error) {
	b, err := os.ReadFile(filepath.Join(dir, "postmaster.pid"))
	if err != nil {
		return place{}, err
	}
	lines := strings.Split(string(b), "\n")
	if len(lines) < 4 {
		return place{}, errors.New("postmaster.pid isn't whole")
	}
	p := place{socket: socketFolder(dir)}
	if p.port, err = strconv.Atoi(strings.TrimSpace(lines[3])); err != nil {
		return place{}, err
	}
	word, err := os.ReadFile(passwordFile(dir))
	p.password = string(word)
	return p, err
}

// setUp sees to it that the cluster lets in nobody but the application's role, and that the
// role owns its database. What isn't so yet is done without a server that anybody could
// reach (postgres --single).
func (s server) setUp() (place, error) {
	p := place{socket: socketFolder(s.dir), port: socketPort}
	if p.socket == "" {
		var err error
		if p.port, err = freePort(); err != nil {
			return p, err
		}
	} else if err := s.hand(p.socket); err != nil {
		return p, err
	}
	word, err := os.ReadFile(passwordFile(s.dir))
	if err != nil && !errors.Is(err, fs.ErrNotExist) {
		return p, fmt.Errorf("reading the database's password: %w", err)
	}
	p.password = string(word)
	rules := s.rules(p)
	if was, err := os.ReadFile(filepath.Join(s.dir, "pg_hba.conf")); err == nil && string(was) == rules &&
		p.password != "" {
		return p, nil
	}
	b := make([]byte, 24)
	_, _ = rand.Read(b) // never fails (crypto/rand)
	p.password = hex.EncodeToString(b)
	if err := s.own(p.password); err != nil {
		return p, err
	}
	if err := os.WriteFile(passwordFile(s.dir), []byte(p.password), 0o600); err != nil {
		return p, fmt.Errorf("keeping the database's password: %w", err)
	}
	// These come last: with them, all of this was done.
	if err := os.WriteFile(filepath.Join(s.dir, "pg_hba.conf"), []byte(rules), 0o600); err != nil {
		return p, fmt.Errorf("closing the database: %w", err)
	}
	return p, nil
}

// hand makes a folder that is the server's alone.
func (s server) hand(folder string) error {
	if err := os.MkdirAll(folder, 0o700); err != nil {
		return fmt.Errorf("making the socket's folder: %w", err)
	}
	if s.attr == nil {
		return nil
	}
	if err := os.Chown(folder, int(s.attr.Credential.Uid), int(s.attr.Credential.Gid)); err != nil {
		return fmt.Errorf("handing over the socket's folder: %w", err)
	}
	return nil
}

// rules are those of who may sign in (PostgreSQL 15 §21.1): whoever isn't named is refused.
func (s server) rules(p place) string {
	which := database
	if s.Databases {
		which = "all"
	}
	if p.socket == "" {
		return "host " + which + " " + role + " 127.0.0.1/32 scram-sha-256\n"
	}
	return "local " + which + " " + role + " scram-sha-256\n"
}

// adopt gives the application's role all that is in its database.
const adopt = `DO $$ DECLARE r record; BEGIN
 ALTER SCHEMA public OWNER TO ` + role + `;
 FOR r IN SELECT c.oid::regclass AS name FROM pg_class c WHERE c.relnamespace = 'public'::regnamespace AND c.relkind IN ('r', 'p', 'v', 'm') LOOP
  EXECUTE format('ALTER TABLE %s OWNER TO ` + role + `', r.name);
 END LOOP;
 FOR r IN SELECT c.oid::regclass AS name FROM pg_class c WHERE c.relnamespace = 'public'::regnamespace AND c.relkind = 'S'
  AND NOT EXISTS (SELECT FROM pg_depend d WHERE d.objid = c.oid AND d.deptype IN ('a', 'i')) LOOP
  EXECUTE format('ALTER SEQUENCE %s OWNER TO ` + role + `', r.name);
 END LOOP;
 FOR r IN SELECT t.oid::regtype AS name FROM pg_type t WHERE t.typnamespace = 'public'::regnamespace AND t.typtype IN ('e', 'd') LOOP
  EXECUTE format('ALTER TYPE %s OWNER TO ` + role + `', r.name);
 END LOOP;
 FOR r IN SELECT p.oid::regprocedure AS name FROM pg_proc p WHERE p.pronamespace = 'public'::regnamespace LOOP
  EXECUTE format('ALTER FUNCTION %s OWNER TO ` + role + `', r.name);
 END LOOP;
END $$`

// own makes the application's role with a password, and its database with all in it the
// role's own.
func (s server) own(password string) error {
	more := ""
	if s.Databases {
		more = " CREATEDB"
	}
	if err := s.single("postgres",
		`DO $$ BEGIN IF NOT EXISTS (SELECT FROM pg_roles WHERE rolname = '`+role+`') THEN CREATE ROLE `+role+`; END IF; END $$`,
		`ALTER ROLE `+role+` WITH LOGIN NOSUPERUSER NOCREATEROLE NOREPLICATION`+more+` PASSWORD '`+password+`'`,
	); err != nil {
		return err
	}
	// It can't be made only where it is missing.
	if err := s.single("postgres", `CREATE DATABASE `+database); err != nil &&
		!strings.Contains(err.Error(), "already exists") {
		return err
	}
	if err := s.single("postgres", `ALTER DATABASE `+database+` OWNER TO `+role, `REVOKE ALL ON DATABASE `+database+` FROM PUBLIC`); err != nil {
		return err
	}
	return s.single(database, adopt)
}

// single carries out statements as the superuser, without a server (PostgreSQL 15,
// postgres(1), "Single-User Mode": one a line).
func (s server) single(name string, statements ...string) error {
	args := []string{"--single", "-D", s.dir}
	if s.Throwaway {
		args = append(args, "-c", "fsync=off")
	}
	cmd := exec.Command(filepath.Join(Programs, "postgres"), append(args, name)...)
	cmd.Dir, cmd.SysProcAttr = "/", s.dying()
	var in strings.Builder
	for _, q := range statements {
		in.WriteString(strings.ReplaceAll(q, "\n", " ") + "\n")
	}
	cmd.Stdin = strings.NewReader(in.String())
	runtime.LockOSThread() // dying is about the thread that starts the process
	out, err := cmd.CombinedOutput()
	runtime.UnlockOSThread()
	for line := range bytes.Lines(out) {
		if bytes.Contains(line, []byte("ERROR:")) || bytes.Contains(line, []byte("FATAL:")) {
			return fmt.Errorf("setting up the database: %s", bytes.TrimSpace(line))
		}
	}
	if err != nil {
		return fmt.Errorf("setting up the database: %w: %s", err, bytes.TrimSpace(out))
	}
	return nil
}
