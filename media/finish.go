package media

import (
	"context"
	"errors"
	"io"
	"io/fs"
	"os"
	"slices"

	"openplot/store"
)

// Finish makes the copies that a job is about, in a process of its own, and asks for the
// modern ones when the others are there, against which those are measured. It stops when the
// picture is deleted or replaced meanwhile. Errors are *doc.Problem when the file can't be
// worked on, so that trying again won't help.
func (k *Keeper) Finish(ctx context.Context, job store.MakeCopies) error {
	m, err := k.store.Media.ByID(ctx, job.Site, job.Medium)
	if errors.Is(err, store.ErrNotFound) || err == nil && (m.Original != job.Original || m.CopiesLeft == 0) {
		return nil
	}
	if err != nil {
		return err
	}
	if _, err := os.Stat(k.file(m.Original)); errors.Is(err, fs.ErrNotExist) { // nothing to make them from
		_, err = k.store.Media.AddCopy(ctx, job, nil, 0, 0)
		return err
	}
	var wants []Want
	later := 0 // copies that another job makes
	for _, w := range k.wants(wantsOf(m.Width, m.Height)) {
		switch {
		case slices.ContainsFunc(m.Variants, func(c store.MediumCopy) bool { return c.File == copyName(m.Original, w) }):
		case w.modern() == job.Modern:
			wants = append(wants, w)
		case job.Modern:
			return nil // the others are being made, and will ask for these
		default:
			later++
		}
	}
	if len(wants) > 0 {
		if err := k.makeCopies(ctx, job, m, wants, later); err != nil {
			return err
		}
	} else if _, err := k.store.Media.AddCopy(ctx, job, nil, 0, later); err != nil {
		return err
	}
	if job.Modern || k.plain {
		return nil
	}
	job.Modern = true
	return k.store.Media.WantCopies(ctx, job)
}

// makeCopies makes copies and notes each as it is there; later are still to be made then.
func (k *Keeper) makeCopies(ctx context.Context, job store.MakeCopies, m *store.Medium, wants []Want, later int) error {
	left := len(wants) + later
	gone := errors.New("the picture is another one now")
	made := &store.Medium{Original: m.Original}
	keep := k.keepCopy(made)
	t := task{Do: doCopy, Wants: wants, Memory: openMemory, CPU: copyCPU}
	_, took, err := run(ctx, t, copyWall, k.file(m.Original), func(w Want, from io.Reader) error {
		made.Variants, made.Bytes = nil, 0
		if err := keep(w, from); err != nil {
			return err
		}
		left--
		c := &made.Variants[0]
		if w.modern() {
			other, err := os.Stat(k.file(copyName(m.Original, Want{w.Width, ".webp"})))
			if err == nil && !worthIt(made.Bytes, other.Size()) {
				_ = os.Remove(k.file(c.File)) // what stays is collected
				c, made.Bytes = nil, 0
			}
		}
		still, err := k.store.Media.AddCopy(ctx, job, c, made.Bytes, left)
		if err == nil && !still {
			err = gone
		}
		return err
	})
	if nerr := k.store.Jobs.NotePictureWork(context.WithoutCancel(ctx), job.Site, "", store.Copying, took); err == nil {
		err = nerr
	}
	if errors.Is(err, gone) {
		return nil
	}
	return err
}
