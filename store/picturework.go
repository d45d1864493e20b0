package store

import (
	"context"
	"fmt"
	"time"
)

// Work is a kind of work that uploads take.
type Work string

// The kinds.
const (
	Opening Work = "opening" // while somebody waits
	Copying Work = "copying" // in the background
)

// PictureUse is what somebody's and a site's uploads take.
type PictureUse struct {
	Bytes                         int64 // of the site's files
	PersonBytes                   int64 // of what the person uploaded to any site
	PersonHour, SiteHour, SiteDay time.Duration
}

// PictureUse tells what was used of what may be.
func (s *Jobs) PictureUse(ctx context.Context, site, user string) (u PictureUse, err error) {
	var row struct {
		Bytes  int64 `db:"bytes"`
		Owned  int64 `db:"owned"`
		Person int64 `db:"person"`
		Hour   int64 `db:"hour"`
		Day    int64 `db:"day"`
	}
	if err := s.db.GetContext(ctx, &row, `SELECT (SELECT coalesce(sum(bytes), 0)::bigint FROM media WHERE site_id = $1) AS bytes,
		(SELECT coalesce(sum(bytes), 0)::bigint FROM media WHERE uploaded_by = $2) AS owned,
		coalesce(sum(opening) FILTER (WHERE user_id = $2 AND w.hour = date_trunc('hour', now())), 0)::bigint AS person,
		coalesce(sum(opening) FILTER (WHERE w.hour = date_trunc('hour', now())), 0)::bigint AS hour,
		coalesce(sum(opening + copying), 0)::bigint AS day
		FROM picture_work w WHERE site_id = $1 AND w.hour > now() - interval '1 day'`, site, user); err != nil {
		return u, fmt.Errorf("reading what uploads took: %w", err)
	}
	ms := time.Millisecond
	return PictureUse{
		row.Bytes,
		row.Owned,
		time.Duration(row.Person) * ms,
		time.Duration(row.Hour) * ms,
		time.Duration(row.Day) * ms,
	}, nil
}

// NotePictureWork adds processor time to what a site's uploads took, and a person's.
func (s *Jobs) NotePictureWork(ctx context.Context, site, user string, kind Work, took time.Duration) error {
	opening, copying := took.Milliseconds(), int64(0)
	if kind == Copying {
		opening, copying = 0, opening
	}
	if _, err := s.db.ExecContext(ctx, `WITH old AS (DELETE FROM picture_work WHERE site_id = $1 AND hour < now() - interval '2 days')
		INSERT INTO picture_work (site_id, user_id, hour, opening, copying) SELECT id, $2, date_trunc('hour', now()), $3, $4 FROM sites WHERE id = $1
		ON CONFLICT (site_id, user_id, hour) DO UPDATE SET opening = picture_work.opening + EXCLUDED.opening, copying = picture_work.copying + EXCLUDED.copying`,
		site, user, opening, copying); err != nil {
		return fmt.Errorf("noting what an upload took: %w", err)
	}
	return nil
}
