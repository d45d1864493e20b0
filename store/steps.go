package store

import (
	"context"
	"fmt"
)

// Begun notes that a site's first steps aren't shown any more.
func (s *Steps) Begun(ctx context.Context, site string) error {
	if _, err := s.db.ExecContext(ctx, `UPDATE sites SET begun = true WHERE id = $1`, site); err != nil {
		return fmt.Errorf("noting the first steps: %w", err)
	}
	return nil
}

// Firsts reports whether anything was written on a site's pages, and whether one of them was looked at
// in the narrowest zone.
func (s *Steps) Firsts(ctx context.Context, site string) (written, narrow bool, err error) {
	row := s.db.QueryRowxContext(
		ctx,
		`SELECT s.seen_narrow, EXISTS (SELECT FROM page_log l JOIN pages p ON p.id = l.page_id
		WHERE p.site_id = s.id AND l.command->>'op' IN ('block.write', 'entry.write', 'block.words')) FROM sites s WHERE s.id = $1`,
		site,
	)
	if err := row.Scan(&narrow, &written); err != nil {
		return false, false, fmt.Errorf("looking for first steps: %w", notFound(err))
	}
	return written, narrow, nil
}

// SeenNarrow notes that a page of a site was looked at in the narrowest zone.
func (s *Steps) SeenNarrow(ctx context.Context, site string) error {
	if _, err := s.db.ExecContext(ctx, `UPDATE sites SET seen_narrow = true WHERE id = $1 AND NOT seen_narrow`, site); err != nil {
		return fmt.Errorf("noting the first steps: %w", err)
	}
	return nil
}
