package store

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"path"
	"slices"
	"strings"
	"time"

	"github.com/jmoiron/sqlx"
	"github.com/riverqueue/river"

	"openplot/core/doc"
)

// Medium is a file of a site's library: mostly an uploaded picture.
type Medium struct {
	ID       string       `db:"id"`
	SiteID   string       `db:"site_id"`
	Name     string       `db:"name"`
	Type     string       `db:"type"`
	Width    int          `db:"width"`
	Height   int          `db:"height"`
	Alt      string       `db:"alt"`
	Focal    string       `db:"focal"`    // what is kept in sight, "50% 50%" from the left and the top
	Original string       `db:"original"` // file in the media folder, or "" where it wasn't kept
	RawFiles []byte       `db:"variants"    json:"-"`
	Variants []MediumCopy `db:"-"` // by format, the ones that every browser reads first; then narrow to wide
	// CopiesLeft is how many copies are still to be made.
	CopiesLeft int    `db:"copies_left"`
	Bytes      int64  `db:"bytes"`       // of all its files, each counted even where two are one on the disk
	UploadedBy string `db:"uploaded_by"` // an account, or "" for the program
	Problem    string `db:"problem"`     // why copies can't be made, or ""
	Folder     string `db:"folder"`      // of the library, or ""
}

// Sort tells what the medium is good for. What isn't a picture has the file itself as its
// only variant.
func (m *Medium) Sort() doc.MediumSort { return doc.SortOf(m.Type) }

// Picture reports whether the medium is a picture.
func (m *Medium) Picture() bool { return m.Sort() == doc.PictureMedium }

// Video reports whether it is a video, Audio whether it is to be listened to.
func (m *Medium) Video() bool { return m.Sort() == doc.VideoMedium }
func (m *Medium) Audio() bool { return m.Sort() == doc.AudioMedium }

// Extension is how the medium's first file ends, without the dot.
func (m *Medium) Extension() string { return strings.TrimPrefix(path.Ext(m.Variants[0].File), ".") }

// Thumb is the file that shows the medium small: the narrowest copy of at least doc.ThumbWidth that
// every browser reads, or the widest there is.
func (m *Medium) Thumb() string {
	c := m.Variants[0]
	for _, v := range m.Variants {
		if !v.Modern() && c.Width < doc.ThumbWidth && v.Width > c.Width {
			c = v
		}
	}
	return c.File
}

// Modern reports whether a copy is in a format that not every browser reads.
func (c MediumCopy) Modern() bool { return strings.HasSuffix(c.File, ".avif") }

// MediumCopy is one file of a medium: the name in the media folder and the width
// in px.
type MediumCopy struct {
	File  string `json:"file"`
	Width int    `json:"width"`
}

const mediumColumns = `id, site_id, name, type, width, height, alt, focal, original, variants, copies_left, bytes, coalesce(uploaded_by, '') AS uploaded_by, problem, folder`

// MakeCopies is the job of making the copies of a picture that are still missing: those
// that every browser reads, or the Modern ones, which take longer.
type MakeCopies struct {
	Site     string `json:"site"`
	Medium   string `json:"medium"`
	Original string `json:"original"` // what they are of; another one has jobs of its own
	Modern   bool   `json:"modern,omitempty"`
}

// Kind names the job in the queue.
func (MakeCopies) Kind() string { return "make-copies" }

// Add keeps a medium, with the jobs of making what copies it lacks.
func (s *Media) Add(ctx context.Context, m *Medium) error {
	return s.keepMedium(
		ctx,
		m,
		`INSERT INTO media (id, site_id, name, type, width, height, alt, focal, original, variants, copies_left, bytes, uploaded_by)
		VALUES (:id, :site_id, :name, :type, :width, :height, :alt, :focal, :original, :variants, :copies_left, :bytes, nullif(:uploaded_by, ''))`,
	)
}

// Replace gives a medium other files, with the jobs of making what copies they lack.
func (s *Media) Replace(ctx context.Context, m *Medium) error {
	if err := s.keepMedium(ctx, m, `UPDATE media SET type = :type, width = :width, height = :height, original = :original, variants = :variants,
		copies_left = :copies_left, bytes = :bytes, problem = '' WHERE id = :id AND site_id = :site_id`); err != nil {
		return err
	}
	return s.all.Drawings.staleDrawings(ctx, m.SiteID)
}

func (s *Media) keepMedium(ctx context.Context, m *Medium, query string) error {
	var err error
	if m.RawFiles, err = json.Marshal(m.Variants); err != nil {
		return fmt.Errorf("writing variants: %w", err)
	}
	if m.Focal == "" {
		m.Focal = "50% 50%"
	}
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		if _, err := tx.NamedExecContext(ctx, query, m); err != nil {
			return fmt.Errorf("keeping medium %s: %w", m.Name, err)
		}
		if m.CopiesLeft == 0 {
			return nil
		}
		return s.queueCopies(ctx, tx, MakeCopies{Site: m.SiteID, Medium: m.ID, Original: m.Original})
	})
}

// copyAttempts is how often the making of copies is tried.
const copyAttempts = 4

// queueCopies adds a job, unless it is in the queue already. All pictures' plain copies come
// first.
func (s *Media) queueCopies(ctx context.Context, tx *sqlx.Tx, job MakeCopies) error {
	o := &river.InsertOpts{
		Priority:    1,
		MaxAttempts: copyAttempts,
		UniqueOpts:  river.UniqueOpts{ByArgs: true, ByState: underWay},
	}
	if job.Modern {
		o.Priority = 2
	}
	if _, err := s.jobs.InsertTx(ctx, tx.Tx, job, o); err != nil {
		return fmt.Errorf("queueing copies: %w", err)
	}
	return nil
}

// WantCopies has copies made in the background.
func (s *Media) WantCopies(ctx context.Context, job MakeCopies) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error { return s.queueCopies(ctx, tx, job) })
}

// RetryCopies has the copies of a picture made that couldn't be.
func (s *Media) RetryCopies(ctx context.Context, m *Medium) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		if _, err := tx.ExecContext(ctx, `UPDATE media SET problem = '' WHERE id = $1 AND site_id = $2`, m.ID, m.SiteID); err != nil {
			return fmt.Errorf("trying copies again: %w", err)
		}
		return s.queueCopies(ctx, tx, MakeCopies{Site: m.SiteID, Medium: m.ID, Original: m.Original})
	})
}

// RetryAllCopies has the copies of a site's pictures made that couldn't be.
func (s *Media) RetryAllCopies(ctx context.Context, site string) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		var failed []MakeCopies
		if err := tx.SelectContext(ctx, &failed, `UPDATE media SET problem = '' WHERE site_id = $1 AND deleted_at IS NULL AND copies_left > 0 AND problem <> ''
			RETURNING site_id AS site, id AS medium, original`, site); err != nil {
			return fmt.Errorf("trying copies again: %w", err)
		}
		for _, job := range failed {
			if err := s.queueCopies(ctx, tx, job); err != nil {
				return err
			}
		}
		return nil
	})
}

// FailCopies notes why the copies of a job can't be made.
func (s *Media) FailCopies(ctx context.Context, job MakeCopies, why string) error {
	if _, err := s.db.ExecContext(
		ctx, `UPDATE media SET problem = left($4, 500) WHERE id = $1 AND site_id = $2 AND original = $3`, job.Medium, job.Site, job.Original, Clean(why),
	); err != nil {
		return fmt.Errorf("noting why copies can't be made: %w", err)
	}
	return nil
}

// AddCopy notes a copy of a picture that was made, or nil when none was worth keeping,
// with its bytes, and how many are left to make. It is false when the medium is gone or has another
// original.
func (s *Media) AddCopy(ctx context.Context, job MakeCopies, c *MediumCopy, bytes int64, left int) (bool, error) {
	raw := []byte("[]")
	if c != nil {
		var err error
		if raw, err = json.Marshal([]MediumCopy{*c}); err != nil {
			return false, fmt.Errorf("writing a copy: %w", err)
		}
	}
	r, err := s.db.ExecContext(
		ctx,
		`UPDATE media SET variants = CASE WHEN variants @> $4::jsonb THEN variants ELSE variants || $4::jsonb END, copies_left = $5,
			bytes = bytes + CASE WHEN variants @> $4::jsonb THEN 0 ELSE $6::bigint END, problem = '' WHERE id = $1 AND site_id = $2 AND original = $3`,
		job.Medium,
		job.Site,
		job.Original,
		string(raw),
		left,
		bytes,
	)
	if err != nil {
		return false, fmt.Errorf("noting a copy: %w", err)
	}
	n, err := r.RowsAffected()
	if err != nil {
		return false, fmt.Errorf("noting a copy: %w", err)
	}
	return n == 1, nil
}

// Describe keeps a medium's name, words, focal point and folder anew.
func (s *Media) Describe(ctx context.Context, m *Medium) error {
	if _, err := s.db.NamedExecContext(
		ctx, `UPDATE media SET name = :name, alt = :alt, focal = :focal, folder = :folder WHERE id = :id AND site_id = :site_id`, m,
	); err != nil {
		return fmt.Errorf("keeping medium %s: %w", m.Name, err)
	}
	return s.all.Drawings.staleDrawings(ctx, m.SiteID) // by another focal point
}

// Delete takes media out of the library, and RestoreMedia puts them back. Their files
// stay for pages that were published with them.
func (s *Media) Delete(ctx context.Context, site string, ids ...string) error {
	return s.markMedia(ctx, site, ids, `deleted_at = now()`)
}

func (s *Media) Restore(ctx context.Context, site string, ids ...string) error {
	return s.markMedia(ctx, site, ids, `deleted_at = NULL`)
}

func (s *Media) markMedia(ctx context.Context, site string, ids []string, set string) error {
	if _, err := s.db.ExecContext(ctx, `UPDATE media SET `+set+` WHERE site_id = $1 AND id = ANY($2)`, site, ids); err != nil {
		return fmt.Errorf("marking media: %w", err)
	}
	return s.all.Drawings.staleDrawings(ctx, site)
}

// ForgetOne ends a medium that was deleted.
func (s *Media) ForgetOne(ctx context.Context, site, id string) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM media WHERE site_id = $1 AND id = $2 AND deleted_at IS NOT NULL`, site, id); err != nil {
		return fmt.Errorf("forgetting a medium: %w", err)
	}
	return nil
}

// Forget ends the media that were deleted before a time.
func (s *Media) Forget(ctx context.Context, before time.Time) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM media WHERE deleted_at < $1`, before); err != nil {
		return fmt.Errorf("forgetting media: %w", err)
	}
	return nil
}

// Deleted gives a medium that was deleted, such as one that waits to take another's place.
func (s *Media) Deleted(ctx context.Context, site, id string) (*Medium, error) {
	var m Medium
	if err := s.db.GetContext(ctx, &m, `SELECT `+mediumColumns+` FROM media WHERE site_id = $1 AND id = $2 AND deleted_at IS NOT NULL`, site, id); err != nil {
		return nil, fmt.Errorf("finding a deleted medium: %w", notFound(err))
	}
	return &m, m.read()
}

// File puts media into a folder of the library; "" is none.
func (s *Media) File(ctx context.Context, site, folder string, ids ...string) error {
	if _, err := s.db.ExecContext(ctx, `UPDATE media SET folder = $3 WHERE site_id = $1 AND id = ANY($2)`, site, ids, folder); err != nil {
		return fmt.Errorf("filing media: %w", err)
	}
	return nil
}

// ByID gives a medium of a site, or ErrNotFound.
func (s *Media) ByID(ctx context.Context, site, id string) (*Medium, error) {
	var m Medium
	if err := s.db.GetContext(ctx, &m, `SELECT `+mediumColumns+` FROM media WHERE site_id = $1 AND id = $2 AND deleted_at IS NULL`, site, id); err != nil {
		return nil, fmt.Errorf("finding a medium: %w", notFound(err))
	}
	return &m, m.read()
}

func (m *Medium) read() error {
	if err := json.Unmarshal(m.RawFiles, &m.Variants); err != nil {
		return fmt.Errorf("reading variants of %s: %w", m.ID, err)
	}
	slices.SortStableFunc(m.Variants, func(a, b MediumCopy) int {
		if a.Modern() != b.Modern() {
			if b.Modern() {
				return -1
			}
			return 1
		}
		return a.Width - b.Width
	})
	return nil
}

// readAll reads what the database has as text of some media.
func readAll(ms []*Medium) error {
	for _, m := range ms {
		if err := m.read(); err != nil {
			return err
		}
	}
	return nil
}

// List gives a site's media, the newest first.
func (s *Media) List(ctx context.Context, site string) ([]*Medium, error) {
	var ms []*Medium
	err := s.db.SelectContext(
		ctx,
		&ms,
		`SELECT `+mediumColumns+` FROM media WHERE site_id = $1 AND deleted_at IS NULL ORDER BY created_at DESC, id`,
		site,
	)
	if err != nil {
		return nil, fmt.Errorf("listing media: %w", err)
	}
	return ms, readAll(ms)
}

// Elsewhere gives those of some media that belong to other sites which somebody works on.
func (s *Media) Elsewhere(ctx context.Context, site, user string, ids []string) ([]*Medium, error) {
	var ms []*Medium
	err := s.db.SelectContext(
		ctx,
		&ms,
		`SELECT `+mediumColumns+` FROM media WHERE id = ANY($3) AND site_id <> $1 AND deleted_at IS NULL
		AND site_id IN (SELECT m.site_id FROM members m JOIN sites s ON s.id = m.site_id WHERE m.user_id = $2 AND s.deleted_at IS NULL AND s.maker IS NULL) ORDER BY id`,
		site,
		user,
		ids,
	)
	if err != nil {
		return nil, fmt.Errorf("listing media of other sites: %w", err)
	}
	return ms, readAll(ms)
}

// Uses gives, by the ids of a site's media, the names of the pages that show them.
func (s *Media) Uses(ctx context.Context, site string, media []*Medium) (map[string][]string, error) {
	ids := make([]string, len(media))
	for i, m := range media {
		ids[i] = m.ID
	}
	var rows []struct {
		Medium string `db:"medium"`
		Name   string `db:"name"`
	}
	if err := s.db.SelectContext(ctx, &rows, `SELECT u.medium, p.name FROM pages p, unnest(p.media) u (medium)
		WHERE p.site_id = $1 AND p.media && $2 AND u.medium = ANY ($2) ORDER BY p.position, p.slug`, site, ids); err != nil {
		return nil, fmt.Errorf("looking where media are used: %w", err)
	}
	uses := map[string][]string{}
	for _, r := range rows {
		uses[r.Medium] = append(uses[r.Medium], r.Name)
	}
	return uses, nil
}

// mediaIn gives the ids of media that a document names, and what else of it looks like one: texts of
// small letters and digits that begin with an m, alone or as links to a file.
func mediaIn(document []byte) []string {
	ids := []string{}
	for rest := document; ; {
		i := bytes.IndexByte(rest, '"')
		if i < 0 {
			return ids
		}
		var linked bool
		rest, linked = bytes.CutPrefix(rest[i+1:], []byte(doc.FilePrefix))
		n := 0
		for n < len(rest) && (rest[n] >= 'a' && rest[n] <= 'z' || rest[n] >= '0' && rest[n] <= '9') {
			n++
		}
		if n > 1 && rest[0] == 'm' && n < len(rest) && (linked || rest[n] == '"') {
			if id := string(rest[:n]); !slices.Contains(ids, id) {
				ids = append(ids, id)
			}
		}
		rest = rest[n:]
	}
}

// FilesInUse gives the names of all files in the media folder that something refers to.
func (s *Media) FilesInUse(ctx context.Context) (map[string]bool, error) {
	var names []string
	if err := s.db.SelectContext(ctx, &names, `SELECT original FROM media WHERE original <> '' UNION ALL SELECT v->>'file' FROM media, jsonb_array_elements(variants) v
		UNION ALL SELECT file FROM site_fonts UNION ALL SELECT original FROM site_fonts UNION ALL SELECT unnest(originals) FROM editions
		UNION ALL SELECT file FROM works WHERE file <> ''`); err != nil {
		return nil, fmt.Errorf("listing files in use: %w", err)
	}
	use := make(map[string]bool, len(names))
	for _, n := range names {
		use[n] = true
	}
	return use, nil
}

// WithFiles does something while nobody else removes files.
func (s *Media) WithFiles(ctx context.Context, f func() error) error {
	c, err := s.pool.Conn(ctx)
	if err != nil {
		return fmt.Errorf("connecting: %w", err)
	}
	defer c.Close()
	if _, err := c.ExecContext(ctx, `SELECT pg_advisory_lock($1)`, filesLock); err != nil {
		return fmt.Errorf("waiting for others who remove files: %w", err)
	}
	defer func() {
		_, _ = c.ExecContext(
			context.WithoutCancel(ctx),
			`SELECT pg_advisory_unlock($1)`,
			filesLock,
		) // it ends with the connection
	}()
	return f()
}
