package site

import (
	"archive/zip"
	"bytes"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"time"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/tree"
)

// MaxFile is the greatest size in bytes of a site's file.
const MaxFile = 1 << 30

// WriteFile writes a site as a file (docs/site-file.md); medium opens what one of its media
// holds. Errors are *doc.Problem where it can't be carried.
func WriteFile(w io.Writer, c edit.CarriedSite, medium func(edit.CarriedMedium) (io.ReadCloser, error)) error {
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
	if err := edit.WriteSite(c, func(name string, b []byte) error { return put(name, zip.Deflate, bytes.NewReader(b)) }); err != nil {
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

// OpenFile reads a site's file as edit.ReadSiteFile does; medium opens what one of its media
// holds. Errors are *doc.Problem when they are about the file.
func OpenFile(r io.ReaderAt, size int64, newID func(string) string) (c edit.CarriedSite, t tree.Tree, medium func(edit.CarriedMedium) (io.ReadCloser, error), err error) {
	z, err := zip.NewReader(r, size)
	if err != nil {
		return c, nil, nil, doc.Problemf("File", "isn't a site's file: choose one that ends in .site.zip, as Save as a file gives it")
	}
	open := func(name string) (io.ReadCloser, error) {
		f, err := z.Open(name)
		if err != nil {
			return nil, doc.Problemf("File", "lacks %.120q", name)
		}
		return f, nil
	}
	c, t, err = edit.ReadSiteFile(func(name string) ([]byte, error) {
		f, err := open(name)
		if err != nil {
			return nil, err
		}
		defer f.Close()
		b, err := io.ReadAll(io.LimitReader(f, edit.MaxSitePart+1))
		if err != nil {
			return nil, doc.Problemf("File", "is damaged at %.120q: save it again", name)
		}
		if len(b) > edit.MaxSitePart {
			return nil, doc.Problemf("File", "has more than %d MB in %.120q", edit.MaxSitePart>>20, name)
		}
		return b, nil
	}, newID)
	return c, t, func(m edit.CarriedMedium) (io.ReadCloser, error) {
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
