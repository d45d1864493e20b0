package store

import (
	"context"
	"encoding/json"
	"fmt"
)

// Medium is an uploaded picture.
type Medium struct {
	ID       string       `db:"id"`
	SiteID   string       `db:"site_id"`
	Name     string       `db:"name"`
	Type     string       `db:"type"`
	Width    int          `db:"width"`
	Height   int          `db:"height"`
	Alt      string       `db:"alt"`
	RawFiles []byte       `db:"variants"`
	Variants []MediumCopy `db:"-"`
}

// MediumCopy is one file of a medium: the name in the media folder and the width
// in px.
type MediumCopy struct {
	File  string `json:"file"`
	Width int    `json:"width"`
}

// AddMedium keeps a medium.
func (s *Store) AddMedium(ctx context.Context, m *Medium) error {
	var err error
	if m.RawFiles, err = json.Marshal(m.Variants); err != nil {
		return fmt.Errorf("writing variants: %w", err)
	}
	_, err = s.db.NamedExecContext(ctx, `INSERT INTO media (id, site_id, name, type, width, height, alt, variants)
		VALUES (:id, :site_id, :name, :type, :width, :height, :alt, :variants)`, m)
	if err != nil {
		return fmt.Errorf("adding medium %s: %w", m.Name, err)
	}
	return nil
}

// Media gives a site's media, the newest first.
func (s *Store) Media(ctx context.Context, site string) ([]*Medium, error) {
	var ms []*Medium
	err := s.db.SelectContext(ctx, &ms, `SELECT id, site_id, name, type, width, height, alt, variants FROM media WHERE site_id = $1 ORDER BY created_at DESC, id`, site)
	if err != nil {
		return nil, fmt.Errorf("listing media: %w", err)
	}
	for _, m := range ms {
		if err := json.Unmarshal(m.RawFiles, &m.Variants); err != nil {
			return nil, fmt.Errorf("reading variants of %s: %w", m.ID, err)
		}
	}
	return ms, nil
}
