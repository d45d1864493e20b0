package media

import (
	"context"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"slices"

	"openplot/store"
)

// Finish makes the copies that a job is about. It stops when the picture is deleted or
// replaced meanwhile. Modern copies are measured against the others, so ErrTooEarly says
// that those are to be made first.
func Finish(ctx context.Context, st *store.Store, dir string, job store.MakeCopies) error {
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
	var wants []Want
	later := 0 // copies that another job makes
	for _, w := range p.Wants() {
		switch {
		case slices.ContainsFunc(m.Variants, func(c store.MediumCopy) bool { return c.File == copyName(m.Original, w) }):
		case w.modern() == job.Modern:
			wants = append(wants, w)
		case job.Modern:
			return ErrTooEarly
		default:
			later++
		}
	}
	if len(wants) == 0 {
		_, err = st.AddCopy(ctx, job, nil, later)
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
		if still, err := st.AddCopy(ctx, job, kept, len(wants)-1-i+later); err != nil || !still {
			return err
		}
	}
	return nil
}

// finishOne makes and writes a copy; it is nil when another one is as good.
func finishOne(dir, original string, p *Picture, w Want) (*store.MediumCopy, error) {
	c, err := p.Make(w)
	if err != nil {
		return nil, err
	}
	if w.modern() {
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

// ErrTooEarly means that a job has to wait for another one.
var ErrTooEarly = errors.New("plain copies are to be made first")
