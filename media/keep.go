package media

import (
	"context"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"mime"
	"os"
	"path"
	"path/filepath"
	"runtime"
	"slices"
	"strings"
	"time"
	"unicode"
	"unicode/utf8"

	"golang.org/x/sync/semaphore"

	"openplot/core/colour"
	"openplot/core/doc"
	"openplot/durable"
	"openplot/store"
)

// OriginalMark is in the names of files that hold what was uploaded. They are never
// served.
const OriginalMark = "-original"

// Keeper keeps uploads: files in a folder, and what is known about them in the store.
type Keeper struct {
	store *store.Store
	dir   string
	quota int64
	plain bool                // no copies in AVIF
	slots *semaphore.Weighted // processes that open uploads
}

// DefaultQuota is how many bytes the files of a site may take unless the operator says
// otherwise.
const DefaultQuota = 2000 << 20

// personShare is how many times as much as a site's the files may take that one person uploaded, to
// all sites.
const personShare = 10

// NewKeeper makes a Keeper whose files are in dir. The files of a site take at most quota
// bytes.
func NewKeeper(st *store.Store, dir string, quota int64) *Keeper {
	return &Keeper{store: st, dir: dir, quota: quota, slots: semaphore.NewWeighted(int64(max(runtime.NumCPU(), 2)))}
}

// Plain has no copies made in AVIF, which take by far the most work, and gives k.
func (k *Keeper) Plain() *Keeper {
	k.plain = true
	return k
}

// wants are the copies of a picture that are made.
func (k *Keeper) wants(of []Want) []Want {
	if !k.plain {
		return of
	}
	return slices.DeleteFunc(slices.Clone(of), Want.modern)
}

// By says for which site something is done, and by whom; "" is the program itself, which
// has no quota.
type By struct{ Site, User string }

// Limits of the work that opening uploads and making copies may take.
const (
	personHour = 10 * time.Minute // of opening, by one person within an hour
	siteHour   = 30 * time.Minute
	siteDay    = 12 * time.Hour // of all work, for one site within a day
)

// waitForSlot is how long an upload waits until others are done with.
const waitForSlot = 30 * time.Second

// allowed gives a *doc.Problem when somebody has used up what they may.
func (k *Keeper) allowed(ctx context.Context, by By) error {
	if by.User == "" {
		return nil
	}
	u, err := k.store.Jobs.PictureUse(ctx, by.Site, by.User)
	if err != nil {
		return err
	}
	switch {
	case u.Bytes >= k.quota:
		return doc.Problemf(
			"Pictures",
			"of this site take %d MB, as much as they may: delete some that aren’t used",
			k.quota>>20,
		)
	case u.PersonBytes >= personShare*k.quota:
		return doc.Problemf(
			"Pictures",
			"of yours on all sites take %d MB, as much as one person’s may: delete some that aren’t used",
			personShare*k.quota>>20,
		)
	case u.PersonHour >= personHour:
		return doc.Problemf("Uploads", "of yours took much work within this hour; go on in the next one")
	case u.SiteHour >= siteHour || u.SiteDay >= siteDay:
		return doc.Problemf("Uploads", "to this site took much work; go on in an hour")
	}
	return nil
}

// Keep checks an upload, makes its first copy and keeps it as a medium of the site. The
// other copies are made in the background, by Finish. Errors are *doc.Problem when they are
// about the file.
func (k *Keeper) Keep(ctx context.Context, by By, name, alt string, from io.Reader) (*store.Medium, error) {
	m, err := k.Prepare(ctx, by, name, alt, from)
	if err != nil {
		return nil, err
	}
	if err := k.store.Media.Add(ctx, m); err != nil {
		k.discard(m)
		return nil, err
	}
	return m, nil
}

// Prepare is Keep without the last step, of adding the medium to the store.
func (k *Keeper) Prepare(ctx context.Context, by By, name, alt string, from io.Reader) (*store.Medium, error) {
	m := &store.Medium{ID: store.NewID("m"), SiteID: by.Site, Name: fileName(name), Alt: alt, UploadedBy: by.User}
	return m, k.begin(ctx, by, m, from)
}

// Replace puts another upload in a medium's place, wherever it is shown.
func (k *Keeper) Replace(ctx context.Context, by By, m *store.Medium, from io.Reader) error {
	next := *m
	if err := k.begin(ctx, by, &next, from); err != nil {
		return err
	}
	if err := k.store.Media.Replace(ctx, &next); err != nil {
		k.discard(&next)
		return err
	}
	*m = next
	return nil
}

// Propose keeps an upload that may take a medium's place. It isn't in the library: Take puts
// it there, and it is forgotten like one that was deleted.
func (k *Keeper) Propose(ctx context.Context, by By, name string, from io.Reader) (*store.Medium, error) {
	m, err := k.Keep(ctx, by, name, "", from)
	if err != nil {
		return nil, err
	}
	return m, k.store.Media.Delete(ctx, by.Site, m.ID)
}

// Take puts the files of a medium that was proposed in another's place, wherever that is
// shown.
func (k *Keeper) Take(ctx context.Context, m, proposed *store.Medium) error {
	next := *proposed
	next.ID, next.Name, next.Alt, next.Focal = m.ID, m.Name, m.Alt, m.Focal
	if err := k.store.Media.Replace(ctx, &next); err != nil {
		return err
	}
	*m = next
	return k.store.Media.ForgetOne(ctx, m.SiteID, proposed.ID)
}

// begin keeps an upload as it came, has it checked, and writes its first files, under names
// that were never used, since browsers keep what they had.
func (k *Keeper) begin(ctx context.Context, by By, m *store.Medium, from io.Reader) (err error) {
	if err := k.allowed(ctx, by); err != nil {
		return err
	}
	m.Original, m.Variants, m.Bytes, m.Problem = store.NewID("f")+OriginalMark, nil, 0, ""
	defer func() {
		if err != nil {
			k.discard(m)
		}
	}()
	if m.Bytes, err = durable.Copy(k.file(m.Original), io.LimitReader(from, MaxVideoBytes+1)); err != nil {
		return fmt.Errorf("keeping an upload: %w", err)
	}
	r, err := k.work(ctx, by, task{Do: doOpen, Memory: openMemory, CPU: openCPU}, m.Original, k.keepCopy(m))
	if err != nil {
		return err
	}
	m.Type, m.Width, m.Height = r.Picture.Type, r.Picture.Width, r.Picture.Height
	if says := doc.SortOf(mime.TypeByExtension(strings.ToLower(path.Ext(m.Name)))); strings.HasPrefix(
		m.Type,
		"text/",
	) &&
		says != doc.FileMedium {
		return doc.Problemf(field, "is text, although its name is a %s’s: save it again and upload that", says)
	}
	m.CopiesLeft = max(len(k.wants(r.Wants))-1, 0)
	if !r.Same {
		return nil
	}
	c := store.MediumCopy{File: copyName(m.Original, r.Copies[0].Want), Width: r.Copies[0].Width}
	if err := os.Link(k.file(m.Original), k.file(c.File)); err != nil {
		return fmt.Errorf("keeping an upload: %w", err)
	}
	m.Variants, m.Bytes = []store.MediumCopy{c}, 2*m.Bytes
	return durable.SyncFolder(k.dir)
}

// keepCopy writes copies that are made of a medium, and notes them in it.
func (k *Keeper) keepCopy(m *store.Medium) func(Want, io.Reader) error {
	return func(w Want, from io.Reader) error {
		c := store.MediumCopy{File: copyName(m.Original, w), Width: w.Width}
		n, err := durable.Copy(k.file(c.File), from)
		if err != nil {
			return fmt.Errorf("keeping a copy: %w", err)
		}
		m.Variants, m.Bytes = append(m.Variants, c), m.Bytes+n
		return nil
	}
}

// work has a task done on a file when there is a slot, and notes what it took.
func (k *Keeper) work(
	ctx context.Context,
	by By,
	t task,
	file string,
	keep func(Want, io.Reader) error,
) (result, error) {
	waiting, cancel := context.WithTimeout(ctx, waitForSlot)
	defer cancel()
	if err := k.slots.Acquire(waiting, 1); err != nil {
		if ctx.Err() != nil {
			return result{}, ctx.Err()
		}
		return result{}, doc.Problemf(field, "has to wait: many are being opened just now; send it again in a minute")
	}
	r, took, err := run(ctx, t, openWall, k.file(file), keep)
	k.slots.Release(1)
	if by.User != "" {
		if nerr := k.store.Jobs.NotePictureWork(context.WithoutCancel(ctx), by.Site, by.User, store.Opening, took); err == nil {
			err = nerr
		}
	}
	return r, err
}

// discard removes the files of a medium that isn't kept.
func (k *Keeper) discard(m *store.Medium) {
	_ = os.Remove(k.file(m.Original)) // what stays is collected
	for _, c := range m.Variants {
		_ = os.Remove(k.file(c.File))
	}
}

func (k *Keeper) file(name string) string { return filepath.Join(k.dir, name) }

func copyName(original string, w Want) string {
	return fmt.Sprintf("%s-%d%s", strings.TrimSuffix(original, OriginalMark), w.Width, w.Ext)
}

// Edit turns and crops what was uploaded, and makes its copies anew.
func (k *Keeper) Edit(ctx context.Context, by By, m *store.Medium, c Change) error {
	if m.Type == "image/svg+xml" || !m.Picture() || m.Original == "" {
		return doc.Problemf(
			field,
			"can't be turned or cropped: it is a drawing that scales or a video, or what was uploaded isn't there any more",
		)
	}
	if err := c.check(); err != nil {
		return err
	}
	if err := k.allowed(ctx, by); err != nil {
		return err
	}
	if _, err := os.Stat(k.file(m.Original)); errors.Is(err, fs.ErrNotExist) {
		return doc.Problemf(field, "can't be changed: what was uploaded isn't there any more; upload it again")
	}
	changed := store.NewID("f") + OriginalMark
	defer os.Remove(k.file(changed)) // it is kept under another name
	t := task{Do: doChange, Change: c, Memory: openMemory, CPU: openCPU}
	if _, err := k.work(ctx, by, t, m.Original, func(_ Want, from io.Reader) error {
		_, err := durable.Copy(k.file(changed), from)
		return err
	}); err != nil {
		return err
	}
	f, err := os.Open(k.file(changed))
	if err != nil {
		return fmt.Errorf("reading a picture: %w", err)
	}
	defer f.Close()
	return k.Replace(ctx, by, m, f)
}

// Colours gives the colours that a kept picture is made of, the commonest first.
func (k *Keeper) Colours(ctx context.Context, by By, m *store.Medium) ([]colour.Cluster, error) {
	if len(m.Variants) == 0 || m.Type == "image/svg+xml" || !m.Picture() {
		return nil, doc.Problemf(field, "is a drawing in SVG or a video; take a palette from a photograph or a PNG")
	}
	if err := k.allowed(ctx, by); err != nil {
		return nil, err
	}
	r, err := k.work(ctx, by, task{Do: doColours, Memory: openMemory, CPU: openCPU}, m.Thumb(), nil)
	return r.Colours, err
}

// fileName is what people see of an upload's name.
func fileName(name string) string {
	name = path.Base(strings.ReplaceAll(name, `\`, "/"))
	name = strings.Map(func(r rune) rune {
		if r == utf8.RuneError || unicode.IsControl(r) {
			return -1
		}
		return r
	}, name)
	if r := []rune(name); len(r) > 120 {
		name = string(r[:120])
	}
	if name == "" || name == "." || name == "/" {
		return "Picture"
	}
	return name
}
