package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"github.com/jmoiron/sqlx"

	"openplot/core/policy"
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
	Trial   bool      `db:"trial"`   // sent from a preview
	Suspect string    `db:"suspect"` // why it looks as if a program had sent it, or ""
}

// Limits of what is kept. Nothing makes room for what comes: what is over them isn't taken.
// What looks like a program's has limits of its own, and so has what is sent to try a form.
const (
	maxFormDay    = 2000   // entries of one form within a day
	maxSuspectDay = 1000   // of one form within a day
	maxEntries    = 50_000 // of a site
	maxSuspects   = 5000   // of a site
	maxTrials     = 500    // of a site
)

// TooMany is why entries are set apart that come when a form has had as many as it gets in a day.
const TooMany = "more came that day than the form takes"

// ErrFull means that a form takes no more just now.
var ErrFull = errors.New("as many entries as are taken")

// Add keeps what a visitor sent, or as a trial what somebody sent to try a form. What is
// more than a form gets in a day is set apart, and with what looks like a program's ErrFull is all
// that comes of too much: nothing makes room for it, and it takes no room of others'. The mails that
// tell of it go out with what is neither.
func (s *Entries) Add(ctx context.Context, site string, e FormEntry, mails ...*Mail) error {
	raw, err := json.Marshal(e.Answers)
	if err != nil {
		return fmt.Errorf("writing answers: %w", err)
	}
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		e.ID = NewID("e")
		if e.Suspect, err = add(ctx, tx, site, e, raw); err != nil || e.Trial || e.Suspect != "" {
			return err
		}
		return s.sendOn(ctx, tx, site, e.ID, mails)
	})
}

// sendOn queues the mails that tell of an entry, as far as a site sends so many: it is in the Inbox all
// the same.
func (s *Entries) sendOn(ctx context.Context, tx *sqlx.Tx, site, entry string, mails []*Mail) error {
	for _, m := range mails {
		m.Site, m.Sort, m.Entry = site, MailOfEntry, entry
		if err := s.queueMail(ctx, tx, m); err != nil && !errors.Is(err, ErrMails) {
			return err
		}
	}
	return nil
}

// add keeps an entry, and tells why it is set apart, if it is.
func add(ctx context.Context, tx *sqlx.Tx, site string, e FormEntry, raw []byte) (suspect string, err error) {
	err = tx.GetContext(
		ctx,
		&suspect,
		`WITH here AS (SELECT count(*) FILTER (WHERE NOT trial AND suspect = '') AS people, count(*) FILTER (WHERE NOT trial AND suspect <> '') AS suspects,
			count(*) FILTER (WHERE trial) AS trials,
			count(*) FILTER (WHERE NOT trial AND suspect = '' AND form = $3 AND sent_at > now() - interval '1 day') AS people_today,
			count(*) FILTER (WHERE NOT trial AND suspect <> '' AND form = $3 AND sent_at > now() - interval '1 day') AS suspects_today FROM form_entries WHERE site_id = $2),
		as_it_is AS (SELECT here.*, CASE WHEN $5 OR $6 <> '' THEN $6 WHEN people_today >= $7 OR people >= $9 THEN $12 ELSE '' END AS suspect FROM here)
		INSERT INTO form_entries (id, site_id, form, answers, trial, suspect) SELECT $1, $2, $3, $4, $5, suspect FROM as_it_is
		WHERE CASE WHEN $5 THEN trials < $11 WHEN suspect <> '' THEN suspects_today < $8 AND suspects < $10 ELSE true END RETURNING suspect`,
		e.ID,
		site,
		Clean(e.Form),
		raw,
		e.Trial,
		e.Suspect,
		maxFormDay,
		maxSuspectDay,
		maxEntries,
		maxSuspects,
		maxTrials,
		TooMany,
	)
	if errors.Is(err, sql.ErrNoRows) {
		return "", ErrFull
	}
	if err != nil {
		return "", fmt.Errorf("keeping a form's entry: %w", err)
	}
	return suspect, nil
}

// List gives the newest entries of a site's forms: those that look like people's, or
// those that don't.
func (s *Entries) List(ctx context.Context, site string, suspect bool, limit int) ([]*FormEntry, error) {
	var es []*FormEntry
	if err := s.db.SelectContext(
		ctx, &es,
		`SELECT id, form, answers, sent_at, trial, suspect FROM form_entries WHERE site_id = $1 AND (suspect <> '') = $2 ORDER BY sent_at DESC, id LIMIT $3`,
		site, suspect, limit,
	); err != nil {
		return nil, fmt.Errorf("listing entries: %w", err)
	}
	return es, readEntries(es)
}

func readEntries(es []*FormEntry) error {
	for _, e := range es {
		if err := json.Unmarshal(e.Raw, &e.Answers); err != nil {
			return fmt.Errorf("reading the entry %s: %w", e.ID, err)
		}
	}
	return nil
}

// Each gives all entries of a site's forms but trials, the oldest first.
func (s *Entries) Each(ctx context.Context, site string, f func(*FormEntry) error) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		rows, err := tx.QueryxContext(
			ctx,
			`SELECT id, form, answers, sent_at, trial, suspect FROM form_entries WHERE site_id = $1 AND NOT trial ORDER BY sent_at, id`,
			site,
		)
		if err != nil {
			return fmt.Errorf("listing entries: %w", err)
		}
		defer rows.Close()
		for rows.Next() {
			var e FormEntry
			if err := rows.StructScan(&e); err != nil {
				return fmt.Errorf("listing entries: %w", err)
			}
			if err := readEntries([]*FormEntry{&e}); err != nil {
				return err
			}
			if err := f(&e); err != nil {
				return err
			}
		}
		return rows.Err()
	})
}

// ByID gives an entry of a site, or ErrNotFound.
func (s *Entries) ByID(ctx context.Context, site, id string) (*FormEntry, error) {
	e := new(FormEntry)
	if err := s.db.GetContext(ctx, e, `SELECT id, form, answers, sent_at, trial, suspect FROM form_entries WHERE site_id = $1 AND id = $2`, site, id); err != nil {
		return nil, fmt.Errorf("reading an entry: %w", notFound(err))
	}
	return e, readEntries([]*FormEntry{e})
}

// Trust takes an entry for a person's that looked like a program's, and has the mails go out that tell
// of it.
func (s *Entries) Trust(ctx context.Context, site, id string, mails ...*Mail) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		r, err := tx.ExecContext(
			ctx,
			`UPDATE form_entries SET suspect = '' WHERE site_id = $1 AND id = $2 AND suspect <> ''`,
			site,
			id,
		)
		if err != nil {
			return fmt.Errorf("trusting an entry: %w", err)
		}
		if n, err := r.RowsAffected(); err != nil || n == 0 {
			return err
		}
		return s.sendOn(ctx, tx, site, id, mails)
	})
}

// Delete forgets an entry of a site's forms.
func (s *Entries) Delete(ctx context.Context, site, id string) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM form_entries WHERE site_id = $1 AND id = $2`, site, id); err != nil {
		return fmt.Errorf("forgetting an entry: %w", err)
	}
	return nil
}

// EraseAnswers forgets all entries of a site's forms in which somebody wrote exactly this,
// such as an email, whatever its capitals; and gives their number.
func (s *Entries) EraseAnswers(ctx context.Context, site, written string) (int64, error) {
	r, err := s.db.ExecContext(
		ctx,
		`DELETE FROM form_entries e WHERE site_id = $1 AND EXISTS (SELECT FROM json_array_elements(e.answers) a
		WHERE lower(btrim(a->>'value')) = lower(btrim($2)))`,
		site,
		Clean(written),
	)
	if err != nil {
		return 0, fmt.Errorf("erasing entries: %w", err)
	}
	return r.RowsAffected()
}

// DeleteTrials forgets all that was sent to try a site's forms.
func (s *Entries) DeleteTrials(ctx context.Context, site string) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM form_entries WHERE site_id = $1 AND trial`, site); err != nil {
		return fmt.Errorf("forgetting trials: %w", err)
	}
	return nil
}

// DeleteSuspects forgets all entries of a site that look like programs'.
func (s *Entries) DeleteSuspects(ctx context.Context, site string) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM form_entries WHERE site_id = $1 AND suspect <> ''`, site); err != nil {
		return fmt.Errorf("forgetting entries: %w", err)
	}
	return nil
}

// SetDays says how many days what visitors send is kept.
func (s *Entries) SetDays(ctx context.Context, site string, days int) error {
	if _, err := s.db.ExecContext(ctx, `UPDATE sites SET entry_days = $2 WHERE id = $1`, site, days); err != nil {
		return fmt.Errorf("keeping a setting: %w", err)
	}
	return nil
}

// Forget ends what is longer ago than each site keeps; trials before that.
func (s *Entries) Forget(ctx context.Context) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM form_entries e USING sites s WHERE s.id = e.site_id
		AND e.sent_at < now() - make_interval(days => CASE WHEN e.trial THEN least($1, s.entry_days) ELSE s.entry_days END)`,
		policy.Days(policy.TrialEntries)); err != nil {
		return fmt.Errorf("forgetting old entries: %w", err)
	}
	return nil
}
