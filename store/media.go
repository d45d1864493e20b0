package store

import (
	"context"
	"encoding/json"
	"fmt"
	"strings"
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
	Focal    string       `db:"focal"`    // what is kept in sight, "50% 50%" from the left and the top
	Original string       `db:"original"` // file in the media folder, or "" where it wasn't kept
	RawFiles []byte       `db:"variants"`
	Variants []MediumCopy `db:"-"`
}

// MediumCopy is one file of a medium: the name in the media folder and the width
// in px.
type MediumCopy struct {
	File  string `json:"file"`
	Width int    `json:"width"`
}

const mediumColumns = `id, site_id, name, type, width, height, alt, focal, original, variants`

// AddMedium keeps a medium.
func (s *Store) AddMedium(ctx context.Context, m *Medium) error {
	var err error
	if m.RawFiles, err = json.Marshal(m.Variants); err != nil {
		return fmt.Errorf("writing variants: %w", err)
	}
	if m.Focal == "" {
		m.Focal = "50% 50%"
	}
	_, err = s.db.NamedExecContext(ctx, `INSERT INTO media (id, site_id, name, type, width, height, alt, focal, original, variants)
		VALUES (:id, :site_id, :name, :type, :width, :height, :alt, :focal, :original, :variants)`, m)
	if err != nil {
		return fmt.Errorf("adding medium %s: %w", m.Name, err)
	}
	return nil
}

// SetMedium keeps a medium's name, words, focal point and files anew.
func (s *Store) SetMedium(ctx context.Context, m *Medium) error {
	var err error
	if m.RawFiles, err = json.Marshal(m.Variants); err != nil {
		return fmt.Errorf("writing variants: %w", err)
	}
	_, err = s.db.NamedExecContext(ctx, `UPDATE media SET name = :name, type = :type, width = :width, height = :height, alt = :alt, focal = :focal,
		original = :original, variants = :variants WHERE id = :id AND site_id = :site_id`, m)
	if err != nil {
		return fmt.Errorf("keeping medium %s: %w", m.Name, err)
	}
	return nil
}

// DeleteMedium forgets a medium; its files stay for pages that were published with it.
func (s *Store) DeleteMedium(ctx context.Context, site, id string) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM media WHERE site_id = $1 AND id = $2`, site, id); err != nil {
		return fmt.Errorf("deleting a medium: %w", err)
	}
	return nil
}

// Medium gives a medium of a site, or ErrNotFound.
func (s *Store) Medium(ctx context.Context, site, id string) (*Medium, error) {
	var m Medium
	if err := s.db.GetContext(ctx, &m, `SELECT `+mediumColumns+` FROM media WHERE site_id = $1 AND id = $2`, site, id); err != nil {
		return nil, fmt.Errorf("finding a medium: %w", notFound(err))
	}
	return &m, m.read()
}

func (m *Medium) read() error {
	if err := json.Unmarshal(m.RawFiles, &m.Variants); err != nil {
		return fmt.Errorf("reading variants of %s: %w", m.ID, err)
	}
	return nil
}

// Media gives a site's media, the newest first.
func (s *Store) Media(ctx context.Context, site string) ([]*Medium, error) {
	var ms []*Medium
	err := s.db.SelectContext(ctx, &ms, `SELECT `+mediumColumns+` FROM media WHERE site_id = $1 ORDER BY created_at DESC, id`, site)
	if err != nil {
		return nil, fmt.Errorf("listing media: %w", err)
	}
	for _, m := range ms {
		if err := m.read(); err != nil {
			return nil, err
		}
	}
	return ms, nil
}

// MediaUses gives, by the ids of a site's media, the names of the pages that show them.
func (s *Store) MediaUses(ctx context.Context, site string, media []*Medium) (map[string][]string, error) {
	var pages []struct {
		Name string `db:"name"`
		Doc  string `db:"doc"`
	}
	if err := s.db.SelectContext(ctx, &pages, `SELECT doc->>'name' AS name, doc::text AS doc FROM pages WHERE site_id = $1 ORDER BY position, slug`, site); err != nil {
		return nil, fmt.Errorf("looking where media are used: %w", err)
	}
	uses := map[string][]string{}
	for _, m := range media {
		for _, p := range pages {
			if strings.Contains(p.Doc, `"`+m.ID+`"`) {
				uses[m.ID] = append(uses[m.ID], p.Name)
			}
		}
	}
	return uses, nil
}
