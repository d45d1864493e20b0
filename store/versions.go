package store

import (
	"context"
	"encoding/json"
	"fmt"
	"time"

	"github.com/jmoiron/sqlx"

	"openplot/core/doc"
	"openplot/core/edit"
)

// VersionKind says why a version was kept.
type VersionKind string

// The kinds.
const (
	Named     VersionKind = "named"     // by somebody, under a name
	Published VersionKind = "published" // as it was published
	Before    VersionKind = "before"    // before something large
	Hourly    VersionKind = "hour"      // after an hour's work
)

// Version is a page, or a site, as it was.
type Version struct {
	ID     string      `db:"id"`
	Page   *string     `db:"page_id"` // nil is the whole site
	Seq    int64       `db:"seq"`     // of the page that is asked for
	Kind   VersionKind `db:"kind"`
	Note   string      `db:"note"`
	By     string      `db:"by"` // a name, or ""
	MadeAt time.Time   `db:"made_at"`
}

// KeepVersion keeps a page as it is now, under a name or for a reason.
func (s *Log) KeepVersion(ctx context.Context, site, page, user string, kind VersionKind, note string) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		if _, err := tx.ExecContext(ctx, `INSERT INTO page_docs (page_id, seq, doc) SELECT id, seq, doc FROM pages WHERE id = $1 AND site_id = $2 ON CONFLICT DO NOTHING`,
			page, site); err != nil {
			return fmt.Errorf("keeping a page as it is: %w", err)
		}
		if _, err := tx.ExecContext(ctx, `INSERT INTO versions (id, site_id, page_id, seq, kind, note, made_by) SELECT $1, site_id, id, seq, $4, $5, nullif($6, '')
			FROM pages WHERE id = $2 AND site_id = $3`, NewID("v"), page, site, kind, note, user); err != nil {
			return fmt.Errorf("keeping a version: %w", err)
		}
		return nil
	})
}

// KeepSiteVersion keeps a site with all its pages as they are now.
func (s *Log) KeepSiteVersion(ctx context.Context, site, user string, kind VersionKind, note string) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		if err := lockSite(ctx, tx, site); err != nil {
			return err
		}
		return keepSiteVersion(ctx, tx, site, user, kind, note)
	})
}

func keepSiteVersion(ctx context.Context, tx *sqlx.Tx, site, user string, kind VersionKind, note string) error {
	if _, err := tx.ExecContext(ctx, `INSERT INTO page_docs (page_id, seq, doc) SELECT id, seq, doc FROM pages p WHERE site_id = $1 AND deleted_at IS NULL
		AND NOT EXISTS (SELECT FROM page_docs d WHERE d.page_id = p.id AND d.seq = p.seq) ON CONFLICT DO NOTHING`, site); err != nil {
		return fmt.Errorf("keeping pages as they are: %w", err)
	}
	if _, err := tx.ExecContext(ctx, `INSERT INTO versions (id, site_id, house, pages, kind, note, made_by) SELECT $1, id, house::json,
		(SELECT coalesce(jsonb_object_agg(p.id, p.seq), '{}') FROM pages p WHERE p.site_id = s.id AND p.deleted_at IS NULL), $3, $4, nullif($5, '') FROM sites s WHERE id = $2`,
		NewID("v"), site, kind, note, user); err != nil {
		return fmt.Errorf("keeping a version: %w", err)
	}
	return nil
}

const versionColumns = `v.id, v.page_id, v.kind, v.note, coalesce(u.name, '') AS by, v.made_at`

// Versions lists what a page was like, the newest first: its own versions, and those of the site
// that have it.
func (s *Log) Versions(ctx context.Context, site, page string, limit int) (vs []Version, err error) {
	if err := s.db.SelectContext(ctx, &vs, `SELECT `+versionColumns+`, coalesce(v.seq, (v.pages->>$2)::bigint) AS seq FROM versions v LEFT JOIN users u ON u.id = v.made_by
		WHERE v.site_id = $1 AND (v.page_id = $2 OR v.page_id IS NULL AND v.pages ? $2) ORDER BY v.made_at DESC, v.id LIMIT $3`, site, page, limit); err != nil {
		return nil, fmt.Errorf("listing versions: %w", err)
	}
	return vs, nil
}

// SiteVersions lists what a site was like, the newest first.
func (s *Log) SiteVersions(ctx context.Context, site string, limit int) (vs []Version, err error) {
	if err := s.db.SelectContext(ctx, &vs, `SELECT `+versionColumns+`, 0 AS seq FROM versions v LEFT JOIN users u ON u.id = v.made_by
		WHERE v.site_id = $1 AND v.page_id IS NULL ORDER BY v.made_at DESC, v.id LIMIT $2`, site, limit); err != nil {
		return nil, fmt.Errorf("listing versions: %w", err)
	}
	return vs, nil
}

// VersionOf gives a page as a version of it or of its site has it.
func (s *Log) VersionOf(ctx context.Context, site, page, id string) (*Version, *doc.Page, error) {
	var v Version
	if err := s.db.GetContext(ctx, &v, `SELECT `+versionColumns+`, coalesce(v.seq, (v.pages->>$2)::bigint) AS seq FROM versions v LEFT JOIN users u ON u.id = v.made_by
		WHERE v.site_id = $1 AND (v.page_id = $2 OR v.page_id IS NULL AND v.pages ? $2) AND v.id = $3`, site, page, Clean(id)); err != nil {
		return nil, nil, fmt.Errorf("finding a version: %w", notFound(err))
	}
	d, err := s.docAt(ctx, page, v.Seq)
	return &v, d, err
}

// docAt gives a page as a version kept it.
func (s *Log) docAt(ctx context.Context, page string, seq int64) (*doc.Page, error) {
	var text []byte
	if err := s.db.GetContext(ctx, &text, `SELECT doc FROM page_docs WHERE page_id = $1 AND seq = $2`, page, seq); err != nil {
		return nil, fmt.Errorf("reading a version: %w", notFound(err))
	}
	d := new(doc.Page)
	if err := json.Unmarshal(text, d); err != nil {
		return nil, fmt.Errorf("reading a version: %w", err)
	}
	return d, nil
}

// SiteVersion is a site as it was: its house style, and its pages by id.
type SiteVersion struct {
	House  doc.House
	Pages  map[string]*doc.Page
	MadeAt time.Time
}

// SiteVersion gives a site as a version has it, without the pages that are deleted.
func (s *Log) SiteVersion(ctx context.Context, site, id string) (*SiteVersion, error) {
	var row struct {
		House  []byte    `db:"house"`
		MadeAt time.Time `db:"made_at"`
	}
	if err := s.db.GetContext(ctx, &row, `SELECT house, made_at FROM versions WHERE site_id = $1 AND id = $2 AND page_id IS NULL`, site, Clean(id)); err != nil {
		return nil, fmt.Errorf("finding a version: %w", notFound(err))
	}
	v := &SiteVersion{Pages: map[string]*doc.Page{}, MadeAt: row.MadeAt}
	if err := json.Unmarshal(row.House, &v.House); err != nil {
		return nil, fmt.Errorf("reading a house style: %w", err)
	}
	var docs []struct {
		Page string `db:"page_id"`
		Doc  []byte `db:"doc"`
	}
	if err := s.db.SelectContext(ctx, &docs, `SELECT d.page_id, d.doc FROM versions v, jsonb_each_text(v.pages) e JOIN page_docs d ON d.page_id = e.key AND d.seq = e.value::bigint
		JOIN pages p ON p.id = d.page_id AND p.deleted_at IS NULL WHERE v.site_id = $1 AND v.id = $2`, site, Clean(id)); err != nil {
		return nil, fmt.Errorf("reading a version: %w", err)
	}
	for _, d := range docs {
		p := new(doc.Page)
		if err := json.Unmarshal(d.Doc, p); err != nil {
			return nil, fmt.Errorf("reading a version: %w", err)
		}
		v.Pages[d.Page] = p
	}
	return v, nil
}

// RestoreVersion makes a page, or a section or block of it, what a version says; what it was is
// kept as a version. It is an edit like any other. Errors are *doc.Problem.
func (s *Log) RestoreVersion(ctx context.Context, site, page, user, id, node string) (*Edited, error) {
	v, then, err := s.VersionOf(ctx, site, page, id)
	if err != nil {
		return nil, err
	}
	p, err := s.all.Pages.ByID(ctx, site, page)
	if err != nil {
		return nil, err
	}
	st, err := s.all.Sites.ByID(ctx, site)
	if err != nil {
		return nil, err
	}
	zone, err := time.LoadLocation(st.TimeZone)
	if err != nil {
		zone = time.UTC
	}
	note := "Before restoring " + v.MadeAt.In(zone).Format("2 January, 15:04")
	if err := s.KeepVersion(ctx, site, page, user, Before, note); err != nil {
		return nil, err
	}
	shared := func(id string) *doc.Section {
		sec, err := s.all.Pages.sharedNow(ctx, s.db, site, id, page)
		if err != nil {
			return nil // it stands nowhere else
		}
		return sec
	}
	command := edit.Command{Op: "restore", Node: node, Value: v.MadeAt.Format(time.RFC3339)}
	return s.all.Pages.Edit(
		ctx,
		page,
		user,
		p.Seq,
		command,
		func(now *doc.Page) (*edit.Result, error) { return edit.Restore(now, then, node, shared) },
	)
}

// ForgetVersions thins out versions of before a time: those that were kept by themselves go;
// named and published ones stay.
func (s *Log) ForgetVersions(ctx context.Context, before time.Time) error {
	for _, query := range []string{
		`DELETE FROM versions WHERE made_at < $1 AND kind IN ('hour', 'before')`,
		`DELETE FROM page_docs d WHERE $1::timestamptz IS NOT NULL AND NOT EXISTS (SELECT FROM versions v WHERE v.page_id = d.page_id AND v.seq = d.seq)
			AND NOT EXISTS (SELECT FROM versions v JOIN pages p ON p.id = d.page_id WHERE v.site_id = p.site_id AND v.page_id IS NULL AND (v.pages->>d.page_id)::bigint = d.seq)`,
	} {
		if _, err := s.db.ExecContext(ctx, query, before); err != nil {
			return fmt.Errorf("thinning out versions: %w", err)
		}
	}
	return nil
}
