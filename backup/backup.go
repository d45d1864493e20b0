// Package backup writes everything that Open Plot keeps into one archive, while it runs, and
// brings it back.
//
// The archive is a gzipped tar (POSIX.1-2001, pax) of database.dump (pg_dump's custom format),
// media/ and published/, and at its end manifest.json with the SHA-256 of each. What is
// published agrees with the database: both are taken at one moment at which nothing is being
// published. Start at Write.
package backup

import (
	"archive/tar"
	"compress/gzip"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"net/url"
	"os"
	"os/exec"
	"path"
	"path/filepath"
	"time"

	"github.com/jackc/pgx/v5"

	"openplot/durable"
	"openplot/store"
)

// Place is where Open Plot keeps what it keeps.
type Place struct {
	DSN              string // of the database
	Data             string // a folder on the same file system as the other two
	Media, Published string // folders
	Programs         string // where pg_dump and pg_restore are; "" looks in PATH
}

// manifest is what an archive says about itself.
type manifest struct {
	Format int               `json:"format"` // 1
	Made   time.Time         `json:"made"`
	Files  map[string]string `json:"files"` // SHA-256 by name
}

const (
	dumpName     = "database.dump"
	manifestName = "manifest.json"
)

// Write writes an archive. It takes a moment at which nothing is being published and no file
// removed, links all files as they are then, and copies them after.
func Write(ctx context.Context, st *store.Store, p Place, name string) (err error) {
	work, err := os.MkdirTemp(p.Data, ".backup-*")
	if err != nil {
		return fmt.Errorf("making a folder: %w", err)
	}
	defer os.RemoveAll(work)
	dump := filepath.Join(work, dumpName)
	err = st.Snapshot(ctx, func() error {
		return errors.Join(
			linkTree(filepath.Join(work, "media"), p.Media),
			linkTree(filepath.Join(work, "published"), p.Published),
		)
	}, func(snapshot string) error {
		// Sessions end with a restored backup, so nobody gains by one.
		return p.program(
			ctx,
			"pg_dump",
			"--format=custom",
			"--no-owner",
			"--no-privileges",
			"--exclude-table-data=sessions",
			"--snapshot="+snapshot,
			"--file="+dump,
		)
	})
	if err != nil {
		return err
	}
	read, write := io.Pipe()
	go func() { write.CloseWithError(pack(write, work)) }()
	if _, err := durable.Copy(name, read); err != nil {
		return fmt.Errorf("writing the archive: %w", err)
	}
	return nil
}

// linkTree makes a folder whose files are those of another one, without copying them: all are
// replaced whole, none is written in place.
func linkTree(to, from string) error {
	if err := os.MkdirAll(to, 0o700); err != nil {
		return fmt.Errorf("making a folder: %w", err)
	}
	return filepath.WalkDir(from, func(name string, e fs.DirEntry, err error) error {
		if errors.Is(err, fs.ErrNotExist) {
			return nil
		}
		if err != nil {
			return err
		}
		rest, err := filepath.Rel(from, name)
		if err != nil {
			return err
		}
		if e.IsDir() {
			return os.MkdirAll(filepath.Join(to, rest), 0o700)
		}
		if !e.Type().IsRegular() ||
			len(e.Name()) > len(durable.TemporaryPrefix) &&
				e.Name()[:len(durable.TemporaryPrefix)] == durable.TemporaryPrefix {
			return nil
		}
		if err := os.Link(name, filepath.Join(to, rest)); err != nil &&
			!errors.Is(err, fs.ErrNotExist) { // another one was removed meanwhile
			return err
		}
		return nil
	})
}

// pack writes a folder as an archive.
func pack(w io.Writer, folder string) error {
	z := gzip.NewWriter(w)
	t := tar.NewWriter(z)
	m := manifest{Format: 1, Made: time.Now().UTC().Truncate(time.Second), Files: map[string]string{}}
	err := filepath.WalkDir(folder, func(name string, e fs.DirEntry, err error) error {
		if err != nil || e.IsDir() {
			return err
		}
		rest, err := filepath.Rel(folder, name)
		if err != nil {
			return err
		}
		m.Files[filepath.ToSlash(rest)], err = packFile(t, filepath.ToSlash(rest), name)
		return err
	})
	if err != nil {
		return err
	}
	b, err := json.MarshalIndent(m, "", "  ")
	if err != nil {
		return err
	}
	if err := t.WriteHeader(&tar.Header{Name: manifestName, Mode: 0o600, Size: int64(len(b)), ModTime: m.Made}); err != nil {
		return err
	}
	_, err = t.Write(b)
	return errors.Join(err, t.Close(), z.Close())
}

func packFile(t *tar.Writer, as, name string) (sum string, err error) {
	f, err := os.Open(name)
	if err != nil {
		return "", err
	}
	defer f.Close()
	fi, err := f.Stat()
	if err != nil {
		return "", err
	}
	if err := t.WriteHeader(&tar.Header{Name: as, Mode: 0o600, Size: fi.Size(), ModTime: fi.ModTime()}); err != nil {
		return "", err
	}
	h := sha256.New()
	if _, err := io.Copy(io.MultiWriter(t, h), f); err != nil {
		return "", err
	}
	return hex.EncodeToString(h.Sum(nil)), nil
}

// program runs one of PostgreSQL's programs on the database, whose password stands in no list
// of processes.
func (p Place) program(ctx context.Context, name string, args ...string) error {
	c, err := pgx.ParseConfig(p.DSN)
	if err != nil {
		return fmt.Errorf("reading the database's address: %w", err)
	}
	at := name
	if p.Programs != "" {
		at = path.Join(p.Programs, name)
	}
	cmd := exec.CommandContext(ctx, at, args...)
	cmd.Dir = "/"
	cmd.Env = append(
		os.Environ(),
		"PGHOST="+c.Host,
		fmt.Sprint("PGPORT=", c.Port),
		"PGUSER="+c.User,
		"PGPASSWORD="+c.Password,
		"PGDATABASE="+c.Database,
	)
	if u, err := url.Parse(p.DSN); err == nil {
		for key, variable := range map[string]string{"sslmode": "PGSSLMODE", "sslrootcert": "PGSSLROOTCERT", "sslcert": "PGSSLCERT", "sslkey": "PGSSLKEY"} {
			if v := u.Query().Get(key); v != "" {
				cmd.Env = append(cmd.Env, variable+"="+v)
			}
		}
	}
	if out, err := cmd.CombinedOutput(); err != nil {
		return fmt.Errorf("%s: %w: %s", name, err, out)
	}
	return nil
}
