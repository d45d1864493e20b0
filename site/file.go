package site

import (
	"archive/zip"
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"time"

	"golang.org/x/sync/semaphore"

	"openplot/core/carry"
	"openplot/core/doc"
	"openplot/core/tree"
	"openplot/sandbox"
	"openplot/store"
)

// MaxFile is the greatest size in bytes of a site's file.
const MaxFile = 1 << 30

// WriteFile writes a site as a file (docs/site-file.md); medium opens what one of its media
// holds. Errors are *doc.Problem where it can't be carried.
func WriteFile(w io.Writer, c carry.Site, medium func(carry.Medium) (io.ReadCloser, error)) error {
	z := zip.NewWriter(w)
	put := func(name string, method uint16, from io.Reader) error {
		f, err := z.CreateHeader(&zip.FileHeader{Name: name, Method: method, Modified: time.Now()})
		if err == nil {
			_, err = io.Copy(f, from)
		}
		if err != nil {
			return fmt.Errorf("writing %s: %w", name, err)
		}
		return nil
	}
	if err := carry.WriteSite(c, func(name string, b []byte) error { return put(name, zip.Deflate, bytes.NewReader(b)) }); err != nil {
		return err
	}
	for _, m := range c.Media {
		from, err := medium(m)
		if err != nil {
			return fmt.Errorf("reading %s: %w", m.Name, err)
		}
		err = errors.Join(put(m.File, zip.Store, from), from.Close())
		if err != nil {
			return err
		}
	}
	if err := z.Close(); err != nil {
		return fmt.Errorf("writing the file: %w", err)
	}
	return nil
}

// fileTask is that of reading a site's file in a process of its own, to see whether it can be.
const fileTask = "site-file"

// fileLimits are what that may take.
var fileLimits = sandbox.Limits{Memory: 1 << 30, CPU: 60 * time.Second, Wall: 2 * time.Minute, Answer: 1}

// readingFiles bounds how many are read at a time.
var readingFiles = semaphore.NewWeighted(2)

func init() {
	sandbox.Register(fileTask, func(in *os.File, _ []byte, _ io.Writer) error {
		fi, err := in.Stat()
		if err == nil {
			_, _, _, err = openFile(in, fi.Size(), store.NewID)
		}
		return err
	})
}

// OpenFile reads a site's file as carry.ReadSite does, once a process of its own could read it
// within limits; medium opens what one of its media holds. Errors are *doc.Problem when they are
// about the file.
func OpenFile(
	ctx context.Context,
	f *os.File,
	newID func(string) string,
) (c carry.Site, t tree.Tree, medium func(carry.Medium) (io.ReadCloser, error), err error) {
	if err := readingFiles.Acquire(ctx, 1); err != nil {
		return c, nil, nil, fmt.Errorf("waiting to read a site's file: %w", err)
	}
	defer readingFiles.Release(1)
	if _, err := f.Seek(0, io.SeekStart); err != nil {
		return c, nil, nil, fmt.Errorf("reading a site's file: %w", err)
	}
	_, err = sandbox.Run(ctx, fileTask, nil, fileLimits, f, func(out io.Reader) error {
		_, err := io.Copy(io.Discard, out)
		return err
	})
	if errors.Is(err, sandbox.ErrTooMuch) {
		return c, nil, nil, doc.Problemf("File", "takes too much work to read: save the site again, with fewer pages")
	}
	if err != nil {
		return c, nil, nil, err
	}
	fi, err := f.Stat()
	if err != nil {
		return c, nil, nil, fmt.Errorf("reading a site's file: %w", err)
	}
	return openFile(f, fi.Size(), newID)
}

func openFile(
	r io.ReaderAt,
	size int64,
	newID func(string) string,
) (c carry.Site, t tree.Tree, medium func(carry.Medium) (io.ReadCloser, error), err error) {
	z, err := zip.NewReader(r, size)
	if err != nil {
		return c, nil, nil, doc.Problemf(
			"File",
			"isn't a site's file: choose one that ends in .site.zip, as Save as a file gives it",
		)
	}
	open := func(name string) (io.ReadCloser, error) {
		f, err := z.Open(name)
		if err != nil {
			return nil, doc.Problemf("File", "lacks %.120q", name)
		}
		return f, nil
	}
	c, t, err = carry.ReadSite(func(name string) ([]byte, error) {
		f, err := open(name)
		if err != nil {
			return nil, err
		}
		defer f.Close()
		b, err := io.ReadAll(io.LimitReader(f, carry.MaxSitePart+1))
		if err != nil {
			return nil, doc.Problemf("File", "is damaged at %.120q: save it again", name)
		}
		if len(b) > carry.MaxSitePart {
			return nil, doc.Problemf("File", "has more than %d MB in %.120q", carry.MaxSitePart>>20, name)
		}
		return b, nil
	}, newID)
	return c, t, func(m carry.Medium) (io.ReadCloser, error) {
		f, err := open(m.File)
		if err != nil {
			return nil, err
		}
		if st, err := f.(fs.File).Stat(); err != nil || st.IsDir() {
			return nil, errors.Join(doc.Problemf("File", "lacks %.120q", m.File), f.Close())
		}
		return f, nil
	}, err
}
