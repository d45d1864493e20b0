package store

import (
	"context"
	"encoding/json"
	"fmt"

	"github.com/jmoiron/sqlx"
)

// AllMedia gives the media of all sites.
func (s *Store) AllMedia(ctx context.Context) (ms []*Medium, err error) {
	if err := s.db.SelectContext(ctx, &ms, `SELECT `+mediumColumns+` FROM media ORDER BY id`); err != nil {
		return nil, fmt.Errorf("listing media: %w", err)
	}
	for _, m := range ms {
		if err := m.read(); err != nil {
			return nil, err
		}
	}
	return ms, nil
}

// AllFonts gives the font files of all sites.
func (s *Store) AllFonts(ctx context.Context) (fs []*Font, err error) {
	if err := s.db.SelectContext(ctx, &fs, `SELECT id, site_id, family, italic, least_weight, most_weight, file, original FROM site_fonts ORDER BY id`); err != nil {
		return nil, fmt.Errorf("listing fonts: %w", err)
	}
	return fs, nil
}

// MendMedium keeps a medium's files and their bytes as they were found to be, with the job of
// making copies that it lacks.
func (s *Store) MendMedium(ctx context.Context, m *Medium) error {
	raw, err := json.Marshal(m.Variants)
	if err != nil {
		return fmt.Errorf("writing variants: %w", err)
	}
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		if _, err := tx.ExecContext(ctx, `UPDATE media SET variants = $2, bytes = $3, copies_left = $4, problem = $5 WHERE id = $1`,
			m.ID, raw, m.Bytes, m.CopiesLeft, m.Problem); err != nil {
			return fmt.Errorf("mending a medium: %w", err)
		}
		if m.CopiesLeft == 0 {
			return nil
		}
		return s.Media.queueCopies(ctx, tx, MakeCopies{Site: m.SiteID, Medium: m.ID, Original: m.Original})
	})
}
