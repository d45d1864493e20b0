package media

import (
	"context"
	"fmt"
	"os"
	"time"
)

// Collect removes the files of uploads that nothing refers to and that are older than a
// time, and tells how many that were, and their bytes.
func (k *Keeper) Collect(ctx context.Context, before time.Time) (files int, bytes int64, err error) {
	err = k.store.Media.WithFiles(ctx, func() error {
		entries, err := os.ReadDir(k.dir)
		if os.IsNotExist(err) {
			return nil
		}
		if err != nil {
			return fmt.Errorf("listing uploads: %w", err)
		}
		use, err := k.store.Media.FilesInUse(ctx) // after the list: what comes later isn't in it
		if err != nil {
			return err
		}
		for _, e := range entries {
			fi, err := e.Info()
			if err != nil || use[e.Name()] || !fi.Mode().IsRegular() || !fi.ModTime().Before(before) {
				continue
			}
			if err := os.Remove(k.file(e.Name())); err != nil {
				return fmt.Errorf("removing an upload: %w", err)
			}
			files, bytes = files+1, bytes+fi.Size()
		}
		return nil
	})
	return files, bytes, err
}
