package store

import (
	"context"
	"fmt"
)

// Tally is how much there is on a site, as its screens lead to it.
type Tally struct {
	Pages    int `db:"pages"`
	Media    int `db:"media"`
	New      int `db:"new"`      // entries of people that somebody hasn't read
	Findings int `db:"findings"` // that aren't hints, as far as pages were checked as they are
	// ToPublish are the pages that visitors don't see as they are.
	ToPublish int `db:"to_publish"`
	UnderWay
}

// UnderWay is what is going on on a site in the background.
type UnderWay struct {
	Copies  int `db:"copies"`   // of pictures, still to be made
	Swept   int `db:"swept"`    // pages that were checked
	ToSweep int `db:"to_sweep"` // of so many, 0 when none are being checked
	// Uncopied are pictures of which copies couldn't be made.
	Uncopied int `db:"uncopied"`
	// Put are pages that are ready to be published, ToPut of so many, 0 when nothing is being
	// published; Unput are how often that didn't work.
	Put   int `db:"put"`
	ToPut int `db:"to_put"`
	Unput int `db:"unput"`
}

// Tally counts what there is on a site, for one of its members.
func (s *Sites) Tally(ctx context.Context, site, user string) (t Tally, err error) {
	if err := s.db.GetContext(ctx, &t, `SELECT n.pages, n.to_publish, n.findings, m.media, m.copies, m.uncopied,
		(SELECT count(*)`+reading("$2", "s.id")+boxes[BoxNew]+`) AS new,
		coalesce(w.done, 0) AS swept, coalesce(w.pages, 0) AS to_sweep, d.put, d.to_put, d.unput
		FROM sites s LEFT JOIN sweeps w ON w.site_id = s.id,
		LATERAL (SELECT count(*) AS pages, coalesce(sum(f.broken + f.doubtful), 0) AS findings,
			count(*) FILTER (WHERE p.published_seq IS DISTINCT FROM p.seq OR p.published_look <> s.version) AS to_publish
			FROM pages p LEFT JOIN page_findings f ON f.page_id = p.id AND f.seq = p.seq WHERE p.site_id = s.id AND p.deleted_at IS NULL) n,
		LATERAL (SELECT count(*) AS media, coalesce(sum(copies_left) FILTER (WHERE problem = ''), 0) AS copies,
			count(*) FILTER (WHERE copies_left > 0 AND problem <> '') AS uncopied FROM media WHERE site_id = s.id AND deleted_at IS NULL) m,
		LATERAL (SELECT coalesce(sum(done) FILTER (WHERE problem = ''), 0) AS put,
			coalesce(sum(greatest(parts, cardinality(pages))) FILTER (WHERE problem = ''), 0) AS to_put,
			count(*) FILTER (WHERE problem <> '') AS unput FROM plans WHERE site_id = s.id AND at <= now()) d
		WHERE s.id = $1`, site, user); err != nil {
		return Tally{}, fmt.Errorf("counting what is on a site: %w", err)
	}
	return t, nil
}

// SiteName is a site as others lead to it.
type SiteName struct {
	Slug string `db:"slug"`
	Name string `db:"name"`
}

// Last gives those of a person's sites in use that were edited last, the last one first.
func (s *Sites) Last(ctx context.Context, user string, limit int) (sites []SiteName, err error) {
	if err := s.db.SelectContext(ctx, &sites, `SELECT s.slug, s.name FROM sites s JOIN members m ON m.site_id = s.id
		WHERE m.user_id = $1 AND s.deleted_at IS NULL AND s.maker IS NULL AND s.archived_at IS NULL
		ORDER BY (SELECT max(p.edited_at) FROM pages p WHERE p.site_id = s.id AND p.deleted_at IS NULL) DESC NULLS LAST, s.slug LIMIT $2`,
		user, limit); err != nil {
		return nil, fmt.Errorf("listing sites: %w", err)
	}
	return sites, nil
}
