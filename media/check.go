package media

import (
	"context"
	"os"
	"slices"

	"openplot/store"
)

// Check compares what the store says of uploads with their files, tells what is wrong, and
// with repair has copies made anew that are missing.
func (k *Keeper) Check(ctx context.Context, repair bool, tell func(format string, args ...any)) error {
	all, err := k.store.AllMedia(ctx)
	if err != nil {
		return err
	}
	for _, m := range all {
		whole, err := os.Stat(k.file(m.Original))
		original, bytes, was := m.Original != "" && err == nil, int64(0), len(m.Variants)
		if original {
			bytes = whole.Size()
		} else {
			tell("%s: what was uploaded is missing; it can't be turned, cropped or copied again", m.Name)
		}
		m.Variants = slices.DeleteFunc(m.Variants, func(c store.MediumCopy) bool {
			fi, err := os.Stat(k.file(c.File))
			if err != nil {
				tell("%s: the copy %s is missing", m.Name, c.File)
				return true
			}
			bytes += fi.Size()
			return false
		})
		if original && was == len(m.Variants) && m.Bytes != 0 && m.Bytes != bytes {
			tell("%s: its files have %d bytes, and %d were written", m.Name, bytes, m.Bytes)
		}
		if !repair || was == len(m.Variants) && bytes == m.Bytes {
			continue
		}
		m.Bytes = bytes
		if lost := was - len(m.Variants); lost > 0 && original {
			m.CopiesLeft += lost
		}
		if len(m.Variants) == 0 && was > 0 { // pages need one at least; it stays named until it is there
			continue
		}
		if err := k.store.MendMedium(ctx, m); err != nil {
			return err
		}
	}
	return nil
}
