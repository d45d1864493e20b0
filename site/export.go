package site

import (
	"archive/zip"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"maps"
	"os"
	"path"
	"slices"
	"strings"
	"time"
)

// Export writes all that a site's host shows as a ZIP archive that any static host serves: a
// folder with an index.html for each page, its assets, and a page for each address that leads
// elsewhere. fs.ErrNotExist means that nothing is published.
func (p *Publisher) Export(w io.Writer, src Source) error {
	root := os.DirFS(p.folder(src.Site.ID))
	r, err := ReadRelease(root)
	if err != nil {
		return err
	}
	z := zip.NewWriter(w)
	put := func(name string, b []byte) error {
		f, err := z.CreateHeader(&zip.FileHeader{Name: name, Method: zip.Deflate, Modified: time.Now()})
		if err == nil {
			_, err = f.Write(b)
		}
		if err != nil {
			return fmt.Errorf("writing %s: %w", name, err)
		}
		return nil
	}
	var dynamic, locked []string
	locks := src.locked()
	used := map[string]bool{}
	entry := func(name string, e *Entry) error {
		b, err := fs.ReadFile(root, e.Content())
		if err != nil {
			return fmt.Errorf("reading %s: %w", name, err)
		}
		for word := range strings.FieldsFuncSeq(string(b), outsideNames) {
			used[word] = true
		}
		if strings.Contains(string(b), `action="/_`) {
			dynamic = append(dynamic, "/"+strings.TrimSuffix(name, "index.html"))
		}
		return put(name, b)
	}
	for _, at := range slices.Sorted(maps.Keys(r.Pages)) {
		if locks[r.Pages[at].Page] {
			locked = append(locked, "/"+at)
			continue // a static host can't ask for a password
		}
		if err := entry(path.Join(at, "index.html"), r.Pages[at]); err != nil {
			return err
		}
	}
	for _, at := range slices.Sorted(maps.Keys(r.Files)) {
		if err := entry(at, r.Files[at]); err != nil {
			return err
		}
	}
	if r.Missing != nil {
		if err := entry("404.html", r.Missing); err != nil {
			return err
		}
	}
	for _, from := range slices.Sorted(maps.Keys(r.Moved)) {
		to := r.Moved[from]
		if !strings.Contains(to, "://") {
			to = strings.Repeat("../", strings.Count(from, "/")+1) + to
		}
		if err := put(path.Join(from, "index.html"), []byte(leadOn(to))); err != nil {
			return err
		}
	}
	if err := exportAssets(root, used, put); err != nil {
		return err
	}
	if err := put("README.txt", []byte(exportNote(dynamic, locked))); err != nil {
		return err
	}
	if err := z.Close(); err != nil {
		return fmt.Errorf("writing the archive: %w", err)
	}
	return nil
}

// exportAssets writes those assets that what is shown names, and that those name.
func exportAssets(root fs.FS, used map[string]bool, put func(string, []byte) error) error {
	err := fs.WalkDir(root, assetFolder, func(name string, e fs.DirEntry, err error) error {
		if err != nil || e.IsDir() || !used[e.Name()] {
			return err
		}
		b, err := fs.ReadFile(root, name)
		if err != nil {
			return err
		}
		return put(name, b)
	})
	if errors.Is(err, fs.ErrNotExist) {
		return nil // nothing needs any
	}
	return err
}

// leadOn is a page that leads elsewhere.
func leadOn(to string) string {
	to = strings.NewReplacer("&", "&amp;", `"`, "&quot;", "<", "&lt;").Replace(to)
	return "<!DOCTYPE html>\n<html lang=\"en\"><head><meta charset=\"utf-8\"><title>Moved</title><meta name=\"robots\" content=\"noindex\"><meta http-equiv=\"refresh\" content=\"0; url=" + to +
		"\"></head><body><p><a href=\"" + to + "\">This page is somewhere else now.</a></p></body></html>\n"
}

// exportNote says what an export needs where it is put.
func exportNote(dynamic, locked []string) string {
	var b strings.Builder
	b.WriteString("This folder is a whole site: put it where a web server serves files, and it works.\n\n" +
		"404.html is for addresses that have nothing; most hosts show it by themselves.\n" +
		"The addresses in sitemap.xml, robots.txt and the pages' heads are those the site was published at.\n")
	if len(dynamic) > 0 {
		b.WriteString(
			"\nForms and search fields send to addresses that begin with /_forms/ and /_search/. A host that only serves files\n" +
				"doesn't answer there: have it pass those on to where the site was published, or give the forms another action.\nThey are on:\n",
		)
		for _, d := range dynamic {
			b.WriteString("  " + d + "\n")
		}
	}
	if len(locked) > 0 {
		b.WriteString("\nPages with a password are left out, since files can't ask for one:\n")
		for _, l := range locked {
			b.WriteString("  " + l + "\n")
		}
	}
	return b.String()
}
