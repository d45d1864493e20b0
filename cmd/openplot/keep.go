package main

import (
	"context"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"

	"openplot/backup"
	"openplot/jobs"
	"openplot/postgres"
	"openplot/site"
	"openplot/store"
)

// place is where everything is, with a data source name.
func (s settings) place(dsn string) backup.Place {
	p := backup.Place{DSN: dsn, Data: s.data, Media: s.media(), Published: s.published()}
	if _, err := os.Stat(filepath.Join(postgres.Programs, "pg_dump")); err == nil {
		p.Programs = postgres.Programs
	}
	return p
}

// backup writes everything into one archive.
func (s settings) backup(ctx context.Context, st *store.Store, dsn, name string) error {
	name, err := filepath.Abs(name)
	if err != nil {
		return err
	}
	if err := backup.Write(ctx, st, s.place(dsn), name); err != nil {
		return err
	}
	fi, err := os.Stat(name)
	if err != nil {
		return err
	}
	fmt.Printf("%s has everything, %.1f MB.\n", name, float64(fi.Size())/(1<<20))
	return st.Audit.Note(ctx, store.Noted{Who: operatorName, Act: "backup written", About: filepath.Base(name)})
}

// restore brings an archive back. What can't be brought back leaves nothing behind.
func (s settings) restore(ctx context.Context, name string) (err error) {
	if err := backup.Check(name); err != nil {
		return err
	}
	was, err := os.ReadDir(s.data)
	if err != nil && !errors.Is(err, fs.ErrNotExist) {
		return fmt.Errorf("looking at the data folder: %w", err)
	}
	made := errors.Is(err, fs.ErrNotExist)
	defer func() {
		if err != nil {
			err = errors.Join(err, s.clear(was, made))
		}
	}()
	dsn, end, err := s.open(postgres.Start)
	if err != nil {
		return err
	}
	defer end()
	if err := backup.Restore(ctx, s.place(dsn), name); err != nil {
		return err
	}
	st, err := store.Open(ctx, dsn) // which brings an older backup up to date
	if err != nil {
		return err
	}
	defer st.Close()
	fmt.Println("Restored. openplot doctor checks it; openplot serve serves it.")
	return st.Audit.Note(ctx, store.Noted{Who: operatorName, Act: "backup restored", About: filepath.Base(name)})
}

// clear takes away what came into the data folder since, and with whole the folder itself.
func (s settings) clear(was []os.DirEntry, whole bool) error {
	if whole {
		return os.RemoveAll(s.data)
	}
	now, err := os.ReadDir(s.data)
	if err != nil {
		return fmt.Errorf("looking at the data folder: %w", err)
	}
	for _, e := range now {
		if slices.ContainsFunc(was, func(w os.DirEntry) bool { return w.Name() == e.Name() }) {
			continue
		}
		err = errors.Join(err, os.RemoveAll(filepath.Join(s.data, e.Name())))
	}
	return err
}

// errIll means that doctor found something.
var errIll = errors.New("not everything is as it should be; openplot doctor -repair mends what can be")

// doctor checks the database against the files, says what is wrong, and with repair mends it.
func (s settings) doctor(ctx context.Context, st *store.Store, repair bool) error {
	pictures := s.keeper(st)
	publisher := &site.Publisher{Dir: s.published(), MediaDir: s.media(), Hosts: s.hosts}
	wrong := 0
	tell := func(format string, args ...any) {
		wrong++
		fmt.Printf(format+"\n", args...)
	}
	if err := pictures.Check(ctx, repair, tell); err != nil {
		return err
	}
	fonts, err := st.AllFonts(ctx)
	if err != nil {
		return err
	}
	for _, f := range fonts {
		for _, name := range []string{f.File, f.Original} {
			if _, err := os.Stat(filepath.Join(s.media(), name)); err != nil {
				tell("font %s: %s is missing; upload it again", f.Family, name)
			}
		}
	}
	if err := publisher.Check(ctx, st, repair, tell); err != nil {
		return err
	}
	failed, err := st.Jobs.Failed(ctx, 1000)
	if err != nil {
		return err
	}
	if failed = slices.DeleteFunc(failed, store.FailedJob.Waiting); len(failed) > 0 {
		fmt.Printf(
			"%d failed jobs wait for an operator; the last: %s: %s\n",
			len(failed),
			failed[0].Kind,
			strings.TrimSpace(failed[0].Error),
		)
	}
	if repair {
		before := time.Now().Add(-jobs.FileGrace)
		n, freed, err := pictures.Collect(ctx, before)
		if err != nil {
			return err
		}
		more, published, err := publisher.Collect(ctx, st, before)
		if err != nil {
			return err
		}
		fmt.Printf("%d files that nothing refers to are gone, %.1f MB.\n", n+more, float64(freed+published)/(1<<20))
	}
	switch {
	case wrong == 0:
		fmt.Println("All is as it should be.")
	case !repair:
		return errIll
	}
	return nil
}
