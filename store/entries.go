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
	Trial   bool      `db:"trial"` // sent from a preview
}

// maxEntries is how many entries a site keeps; the oldest go first.
const maxEntries = 5000

// AddFormEntry keeps what a visitor sent, or with trial what somebody sent to try a form.
func (s *Store) AddFormEntry(ctx context.Context, site, form string, answers []Answer, trial bool) error {
	raw, err := json.Marshal(answers)
	if err != nil {
		return fmt.Errorf("writing answers: %w", err)
	}
	_, err = s.db.ExecContext(
		ctx,
		`INSERT INTO form_entries (id, site_id, form, answers, trial) VALUES ($1, $2, $3, $4, $5)`,
		NewID("e"), site, form, raw, trial,
	)
	if err == nil {
		_, err = s.db.ExecContext(
			ctx,
			`DELETE FROM form_entries WHERE id IN (SELECT id FROM form_entries WHERE site_id = $1 AND trial = $3 ORDER BY sent_at DESC, id OFFSET $2)`,
			site, maxEntries, trial,
		)
	}
	if err != nil {
		return fmt.Errorf("keeping a form's entry: %w", err)
	}
	return nil
}

// FormEntries gives the newest entries of a site's forms.
func (s *Store) FormEntries(ctx context.Context, site string, limit int) ([]*FormEntry, error) {
	var es []*FormEntry
	if err := s.db.SelectContext(
		ctx, &es,
		`SELECT id, form, answers, sent_at, trial FROM form_entries WHERE site_id = $1 ORDER BY sent_at DESC, id LIMIT $2`,
		site, limit,
	); err != nil {
		return nil, fmt.Errorf("listing entries: %w", err)
	}
	for _, e := range es {
		if err := json.Unmarshal(e.Raw, &e.Answers); err != nil {
			return nil, fmt.Errorf("reading the entry %s: %w", e.ID, err)
		}
	}
	return es, nil
}

// DeleteFormEntry forgets an entry of a site's forms.
func (s *Store) DeleteFormEntry(ctx context.Context, site, id string) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM form_entries WHERE site_id = $1 AND id = $2`, site, id); err != nil {
		return fmt.Errorf("forgetting an entry: %w", err)
	}
	return nil
}

// DeleteTrials forgets all that was sent to try a site's forms.
func (s *Store) DeleteTrials(ctx context.Context, site string) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM form_entries WHERE site_id = $1 AND trial`, site); err != nil {
		return fmt.Errorf("forgetting trials: %w", err)
	}
	return nil
}
