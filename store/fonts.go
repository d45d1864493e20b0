package store

import (
	"context"
	"fmt"

	"openplot/core/doc"
	"openplot/core/policy"
)

// Font is a font file that a site's people uploaded.
type Font struct {
	ID       string `db:"id"`
	SiteID   string `db:"site_id"`
	Family   string `db:"family"`
	Italic   bool   `db:"italic"`
	Least    int    `db:"least_weight"`
	Most     int    `db:"most_weight"` // alike for a static font
	File     string `db:"file"`        // in the media folder, WOFF2
	Original string `db:"original"`    // in the media folder, TrueType or OpenType
}

// AddFont keeps a font file; one of the same family, style and weights is replaced.
// Errors are *doc.Problem when there are too many.
func (s *Houses) AddFont(ctx context.Context, f *Font) error {
	r, err := s.db.ExecContext(
		ctx,
		`INSERT INTO site_fonts (id, site_id, family, italic, least_weight, most_weight, file, original)
		SELECT $1, $2, $3, $4, $5, $6, $7, $8 WHERE (SELECT count(*) FROM site_fonts WHERE site_id = $2) < $9
		ON CONFLICT (site_id, family, italic, least_weight, most_weight) DO UPDATE SET file = EXCLUDED.file, original = EXCLUDED.original`,
		f.ID,
		f.SiteID,
		f.Family,
		f.Italic,
		f.Least,
		f.Most,
		f.File,
		f.Original,
		policy.Fonts,
	)
	if err != nil {
		return fmt.Errorf("keeping the font %s: %w", f.Family, err)
	}
	if n, err := r.RowsAffected(); err == nil && n == 0 {
		return doc.Problemf("Font", "can't be added: %d files are the most a site has", policy.Fonts)
	}
	return nil
}

// Fonts gives a site's font files by family, weight and style.
func (s *Houses) Fonts(ctx context.Context, site string) ([]*Font, error) {
	var fs []*Font
	if err := s.db.SelectContext(ctx, &fs, `SELECT id, site_id, family, italic, least_weight, most_weight, file, original FROM site_fonts
		WHERE site_id = $1 ORDER BY family, least_weight, most_weight, italic`, site); err != nil {
		return nil, fmt.Errorf("listing fonts: %w", err)
	}
	return fs, nil
}

// DropFamily forgets a family's files; they stay on disk for pages published with them.
func (s *Houses) DropFamily(ctx context.Context, site, family string) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM site_fonts WHERE site_id = $1 AND family = $2`, site, family); err != nil {
		return fmt.Errorf("forgetting a font: %w", err)
	}
	return nil
}
