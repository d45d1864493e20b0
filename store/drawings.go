package store

import (
	"context"
	"fmt"
	"time"

	"github.com/riverqueue/river"
	"github.com/riverqueue/river/rivertype"
)

// DrawnPage is a page as lists show it, with its drawing.
type DrawnPage struct {
	PageInfo
	SVG   string `db:"svg"`   // of an earlier state while it isn't fresh; "" when there is none
	Fresh bool   `db:"fresh"` // drawn as it is, in the look that was asked for
	// Found is how much was found about it as it is, hints left out; Planned when the next plan with it
	// is carried out, or nil; and Visits how often it was seen within VisitsTold.
	Found   int        `db:"found"`
	Planned *time.Time `db:"planned"`
	Visits  int        `db:"visits"`
}

// VisitsTold is how far back lists of pages count visits, in days.
const VisitsTold = 30

// DrawnPages gives pages of a site in their order, from one on, with their drawings; and how
// many there are in all. look is the look of the site that drawings have to be in.
func (s *Drawings) DrawnPages(
	ctx context.Context,
	site, look string,
	from, limit int,
) (pages []*DrawnPage, all int, err error) {
	if err := s.db.GetContext(ctx, &all, `SELECT count(*) FROM pages WHERE site_id = $1 AND deleted_at IS NULL`, site); err != nil {
		return nil, 0, fmt.Errorf("counting pages: %w", err)
	}
	if err := s.db.SelectContext(
		ctx, &pages,
		`SELECT `+pageColumns+`, coalesce(d.svg, '') AS svg, coalesce(d.seq = p.seq AND d.look = $2, false) AS fresh,
			coalesce(f.broken + f.doubtful, 0) AS found,
			(SELECT min(l.at) FROM plans l WHERE l.site_id = p.site_id AND p.id = ANY (l.pages)) AS planned,
			coalesce((SELECT sum(v.n) FROM visits v WHERE v.page_id = p.id AND v.day > current_date - $5::integer), 0) AS visits
			FROM pages p LEFT JOIN page_drawings d ON d.page_id = p.id LEFT JOIN page_findings f ON f.page_id = p.id AND f.seq = p.seq
			WHERE p.site_id = $1 AND p.deleted_at IS NULL ORDER BY p.position, p.slug OFFSET $3 LIMIT $4`,
		site, look, from, limit, VisitsTold,
	); err != nil {
		return nil, 0, fmt.Errorf("listing pages: %w", err)
	}
	return pages, all, nil
}

// Of gives the drawings of some of a site's pages by their ids; those that were never drawn lack.
func (s *Drawings) Of(ctx context.Context, site string, pages []string) (map[string]string, error) {
	var rows []struct{ Page, SVG string }
	if err := s.db.SelectContext(ctx, &rows, `SELECT d.page_id AS page, d.svg FROM page_drawings d JOIN pages p ON p.id = d.page_id
		WHERE p.site_id = $1 AND p.id = ANY ($2)`, site, pages); err != nil {
		return nil, fmt.Errorf("reading drawings: %w", err)
	}
	out := map[string]string{}
	for _, r := range rows {
		out[r.Page] = r.SVG
	}
	return out, nil
}

// Undrawn gives pages of a site whose drawings aren't fresh.
func (s *Drawings) Undrawn(ctx context.Context, site, look string, limit int) ([]*PageInfo, error) {
	var ps []*PageInfo
	if err := s.db.SelectContext(
		ctx, &ps,
		`SELECT `+pageColumns+` FROM pages p LEFT JOIN page_drawings d ON d.page_id = p.id
			WHERE p.site_id = $1 AND p.deleted_at IS NULL AND (d.page_id IS NULL OR d.seq <> p.seq OR d.look <> $2) ORDER BY p.position, p.slug LIMIT $3`,
		site, look, limit,
	); err != nil {
		return nil, fmt.Errorf("looking for pages to draw: %w", err)
	}
	return ps, nil
}

// Keep keeps a page's drawing.
func (s *Drawings) Keep(ctx context.Context, page string, seq int64, look, svg string) error {
	if _, err := s.db.ExecContext(
		ctx,
		`INSERT INTO page_drawings (page_id, seq, look, svg) SELECT id, $2, $3, $4 FROM pages WHERE id = $1
			ON CONFLICT (page_id) DO UPDATE SET seq = EXCLUDED.seq, look = EXCLUDED.look, svg = EXCLUDED.svg`,
		page, seq, look, svg,
	); err != nil {
		return fmt.Errorf("keeping a drawing: %w", err)
	}
	return nil
}

// staleDrawings has the pages of a site drawn anew when they are listed next.
func (s *Drawings) staleDrawings(ctx context.Context, site string) error {
	if _, err := s.db.ExecContext(ctx, `UPDATE page_drawings SET look = '' WHERE page_id IN (SELECT id FROM pages WHERE site_id = $1)`, site); err != nil {
		return fmt.Errorf("marking drawings: %w", err)
	}
	return nil
}

// DrawPages is the job that draws the pages of a site whose drawings aren't fresh.
type DrawPages struct {
	Site string `json:"site"` // its slug
}

// Kind is the job's name in the queue.
func (DrawPages) Kind() string { return "draw_pages" }

// DrawingsQueue is the queue of drawings, beside that of pictures' copies, which take long.
const DrawingsQueue = "drawings"

// underWay are the states of a job that is still to do something.
var underWay = []rivertype.JobState{
	rivertype.JobStateAvailable, rivertype.JobStatePending, rivertype.JobStateRunning, rivertype.JobStateRetryable, rivertype.JobStateScheduled,
}

// Want has the pages of a site drawn in the background, unless that is under way.
func (s *Drawings) Want(ctx context.Context, site string) error {
	once := &river.InsertOpts{
		Queue:       DrawingsQueue,
		UniqueOpts:  river.UniqueOpts{ByArgs: true, ByState: underWay},
		MaxAttempts: 3,
	}
	if _, err := s.jobs.Insert(ctx, DrawPages{Site: site}, once); err != nil {
		return fmt.Errorf("asking for drawings: %w", err)
	}
	return nil
}
