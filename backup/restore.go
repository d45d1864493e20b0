package backup

import (
	"archive/tar"
	"compress/gzip"
	"context"
	"crypto/sha256"
	"database/sql"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strings"

	"openplot/durable"
)

// Restore brings an archive back into an empty place. All of it is checked before anything is
// written.
func Restore(ctx context.Context, p Place, name string) error {
	if err := p.empty(ctx); err != nil {
		return err
	}
	if err := Check(name); err != nil {
		return err
	}
	work, err := os.MkdirTemp(p.Data, ".restore-*")
	if err != nil {
		return fmt.Errorf("making a folder: %w", err)
	}
	defer os.RemoveAll(work)
	if err := each(name, func(h *tar.Header, r io.Reader) error {
		if h.Name == manifestName {
			return nil
		}
		to := filepath.Join(work, filepath.FromSlash(h.Name))
		if _, err := durable.Copy(to, r); err != nil {
			return err
		}
		return os.Chtimes(to, h.ModTime, h.ModTime)
	}); err != nil {
		return err
	}
	err = p.place(work)
	if err == nil { // last, since it is all or nothing by itself
		err = p.program(
			ctx,
			"pg_restore",
			"--no-owner",
			"--no-privileges",
			"--exit-on-error",
			"--single-transaction",
			"--dbname="+databaseOf(p.DSN),
			filepath.Join(work, dumpName),
		)
	}
	if err != nil { // there was nothing there before
		return errors.Join(err, os.RemoveAll(p.Media), os.RemoveAll(p.Published))
	}
	return durable.SyncFolder(p.Data)
}

// place brings unpacked files to where they belong.
func (p Place) place(work string) error {
	for from, to := range map[string]string{"media": p.Media, "published": p.Published} {
		if err := os.Remove(to); err != nil && !errors.Is(err, os.ErrNotExist) {
			return fmt.Errorf("making place: %w", err)
		}
		if err := os.Rename(filepath.Join(work, from), to); err != nil &&
			!errors.Is(err, os.ErrNotExist) { // there were no such files
			return fmt.Errorf("bringing back %s: %w", from, err)
		}
	}
	return nil
}

// databaseOf is the name of a data source's database.
func databaseOf(dsn string) string {
	if i := strings.LastIndexByte(strings.SplitN(dsn, "?", 2)[0], '/'); i >= 0 {
		return strings.SplitN(dsn, "?", 2)[0][i+1:]
	}
	return ""
}

// empty gives an error unless there is nothing where the archive is to be brought back.
func (p Place) empty(ctx context.Context) error {
	for _, folder := range []string{p.Media, p.Published} {
		if entries, err := os.ReadDir(folder); err == nil && len(entries) > 0 {
			return fmt.Errorf("%s isn't empty: restore into another data folder", folder)
		}
	}
	db, err := sql.Open("pgx", p.DSN)
	if err != nil {
		return fmt.Errorf("opening the database: %w", err)
	}
	defer db.Close()
	var n int
	if err := db.QueryRowContext(ctx, `SELECT count(*) FROM pg_class WHERE relnamespace = 'public'::regnamespace`).Scan(&n); err != nil {
		return fmt.Errorf("looking at the database: %w", err)
	}
	if n > 0 {
		return errors.New("the database isn't empty: restore into another one, or another data folder")
	}
	return nil
}

// errArchive means that a file isn't an archive as Write writes them, or isn't whole.
var errArchive = errors.New("the archive is damaged")

// Check reads an archive to its end and compares every checksum.
func Check(name string) error {
	sums := map[string]string{}
	var m manifest
	if err := each(name, func(h *tar.Header, r io.Reader) error {
		if h.Name == manifestName {
			return json.NewDecoder(r).Decode(&m)
		}
		s := sha256.New()
		if _, err := io.Copy(s, r); err != nil {
			return err
		}
		sums[h.Name] = hex.EncodeToString(s.Sum(nil))
		return nil
	}); err != nil {
		return fmt.Errorf("%w: %w", errArchive, err)
	}
	if m.Format != 1 {
		return fmt.Errorf("%w, or of a newer version: its format is %d, and 1 is known", errArchive, m.Format)
	}
	if len(sums) != len(m.Files) {
		return fmt.Errorf("%w: it has %d files and says %d", errArchive, len(sums), len(m.Files))
	}
	for name, want := range m.Files {
		if sums[name] != want {
			return fmt.Errorf("%w: %s isn't what was put in", errArchive, name)
		}
	}
	return nil
}

// each goes through the files of an archive. Names that lead elsewhere are refused.
func each(name string, f func(*tar.Header, io.Reader) error) error {
	file, err := os.Open(name)
	if err != nil {
		return fmt.Errorf("opening the archive: %w", err)
	}
	defer file.Close()
	z, err := gzip.NewReader(file)
	if err != nil {
		return fmt.Errorf("reading the archive: %w", err)
	}
	t := tar.NewReader(z)
	for {
		h, err := t.Next()
		if errors.Is(err, io.EOF) {
			return nil
		}
		if err != nil {
			return fmt.Errorf("reading the archive: %w", err)
		}
		known := h.Name == dumpName || h.Name == manifestName || strings.HasPrefix(h.Name, "media/") ||
			strings.HasPrefix(h.Name, "published/")
		if h.Typeflag != tar.TypeReg || !known || !filepath.IsLocal(h.Name) {
			return fmt.Errorf("the archive has %q, which no backup has", h.Name)
		}
		if err := f(h, t); err != nil {
			return err
		}
	}
}
