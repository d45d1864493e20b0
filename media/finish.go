package media

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"io/fs"
	"log/slog"
	"os"
	"path/filepath"
	"slices"
	"time"

	"github.com/riverqueue/river"
	"github.com/riverqueue/river/riverdriver/riverdatabasesql"

	"openplot/store"
)

// Finish makes the copies of a picture that are missing, those of some file name
// extensions alone when any are given. It stops when the picture is deleted or replaced
// meanwhile.
func Finish(ctx context.Context, st *store.Store, dir string, job store.MakeCopies, extensions ...string) error {
	m, err := st.Medium(ctx, job.Site, job.Medium)
	if errors.Is(err, store.ErrNotFound) || err == nil && (m.Original != job.Original || m.CopiesLeft == 0) {
		return nil
	}
	if err != nil {
		return err
	}
	data, err := os.ReadFile(filepath.Join(dir, m.Original))
	if errors.Is(err, fs.ErrNotExist) { // nothing to make them from
		_, err = st.AddCopy(ctx, job, nil, 0)
		return err
	}
	if err != nil {
		return fmt.Errorf("reading a picture: %w", err)
	}
	p, err := Open(data)
	if err != nil {
		return err
	}
	wants := slices.DeleteFunc(p.Wants(), func(w Want) bool {
		return len(extensions) > 0 && !slices.Contains(extensions, w.Ext) || slices.ContainsFunc(m.Variants, func(c store.MediumCopy) bool { return c.File == copyName(m.Original, w) })
	})
	if len(wants) == 0 {
		_, err = st.AddCopy(ctx, job, nil, 0)
		return err
	}
	for i, w := range wants {
		if err := ctx.Err(); err != nil {
			return err
		}
		kept, err := finishOne(dir, m.Original, p, w)
		if err != nil {
			return err
		}
		if still, err := st.AddCopy(ctx, job, kept, len(wants)-1-i); err != nil || !still {
			return err
		}
	}
	return nil
}

// Sharp reports whether a medium has every copy that all browsers read; others may still
// be made.
func Sharp(m *store.Medium) bool {
	n := 0
	for _, c := range m.Variants {
		if !c.Modern() {
			n++
		}
	}
	return m.CopiesLeft == 0 || n >= len(widths(m.Width))
}

// finishOne makes and writes a copy; it is nil when another one is as good.
func finishOne(dir, original string, p *Picture, w Want) (*store.MediumCopy, error) {
	c, err := p.Make(w)
	if err != nil {
		return nil, err
	}
	if w.Ext == ".avif" {
		other, err := os.Stat(filepath.Join(dir, copyName(original, Want{w.Width, ".webp"})))
		if err != nil {
			return nil, fmt.Errorf("looking at a copy: %w", err)
		}
		if !worthIt(int64(len(c.Data)), other.Size()) {
			return nil, nil
		}
	}
	kept, err := writeCopy(dir, original, c)
	return &kept, err
}

// copier does the jobs of the queue.
type copier struct {
	river.WorkerDefaults[store.MakeCopies]
	store *store.Store
	dir   string
}

func (c *copier) Work(ctx context.Context, job *river.Job[store.MakeCopies]) error {
	return Finish(ctx, c.store, c.dir, job.Args)
}

// Timeout is for the largest picture there can be, many times over.
func (c *copier) Timeout(*river.Job[store.MakeCopies]) time.Duration { return 10 * time.Minute }

// Run makes copies in the background, one picture at a time since a large one takes
// 400 MB, until stop is called. Several processes may run it on one database.
func Run(ctx context.Context, st *store.Store, dir string, log *slog.Logger) (stop func(context.Context) error, err error) {
	workers := river.NewWorkers()
	river.AddWorker(workers, &copier{store: st, dir: dir})
	client, err := river.NewClient[*sql.Tx](riverdatabasesql.New(st.DB()), &river.Config{
		Queues: map[string]river.QueueConfig{river.QueueDefault: {MaxWorkers: 1, FetchPollInterval: 300 * time.Millisecond, FetchCooldown: 100 * time.Millisecond}}, Workers: workers, Logger: log,
	})
	if err != nil {
		return nil, fmt.Errorf("opening the queue: %w", err)
	}
	if err := client.Start(ctx); err != nil {
		return nil, fmt.Errorf("starting the queue: %w", err)
	}
	return client.StopAndCancel, nil
}
