package store

import (
	"context"
	"encoding/json"
	"fmt"
	"time"
)

// Answer is what was written into one field of a form.
type Answer struct {
	Field string `json:"field"`
	Value string `json:"value"`
}

// FormEntry is what a visitor sent with a form.
type FormEntry struct {
	ID      string    `db:"id"`
	Form    string    `db:"form"` // the block's id
	Raw     []byte    `db:"answers"`
	Answers []Answer  `db:"-"`
	SentAt  time.Time `db:"sent_at"`
}

// maxEntries is how many entries a site keeps; the oldest go first.
const maxEntries = 5000

// AddFormEntry keeps what a visitor sent.
func (s *Store) AddFormEntry(ctx context.Context, site, form string, answers []Answer) error {
	raw, err := json.Marshal(answers)
	if err != nil {
		return fmt.Errorf("writing answers: %w", err)
	}
	_, err = s.db.ExecContext(ctx, `INSERT INTO form_entries (id, site_id, form, answers) VALUES ($1, $2, $3, $4)`, NewID("e"), site, form, raw)
	if err == nil {
		_, err = s.db.ExecContext(ctx, `DELETE FROM form_entries WHERE id IN (SELECT id FROM form_entries WHERE site_id = $1 ORDER BY sent_at DESC, id OFFSET $2)`, site, maxEntries)
	}
	if err != nil {
		return fmt.Errorf("keeping a form's entry: %w", err)
	}
	return nil
}

// FormEntries gives the newest entries of a site's forms.
func (s *Store) FormEntries(ctx context.Context, site string, limit int) ([]*FormEntry, error) {
	var es []*FormEntry
	if err := s.db.SelectContext(ctx, &es, `SELECT id, form, answers, sent_at FROM form_entries WHERE site_id = $1 ORDER BY sent_at DESC, id LIMIT $2`, site, limit); err != nil {
		return nil, fmt.Errorf("listing entries: %w", err)
	}
	for _, e := range es {
		if err := json.Unmarshal(e.Raw, &e.Answers); err != nil {
			return nil, fmt.Errorf("reading the entry %s: %w", e.ID, err)
		}
	}
	return es, nil
}
