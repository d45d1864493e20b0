package store

import (
	"cmp"
	"context"
	"crypto/sha256"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"strings"
	"time"

	"github.com/jmoiron/sqlx"

	"openplot/core/inbox"
	"openplot/core/policy"
)

// Answer is what was written into one field of a form.
type Answer = inbox.Answer

// FormEntry is what a visitor sent with a form.
type FormEntry struct {
	ID        string     `db:"id"`
	Form      string     `db:"form"`      // the block's id
	From      string     `db:"sent_from"` // the page that it was sent from, as host and path, or ""
	Raw       []byte     `db:"answers"`
	Answers   []Answer   `db:"-"`
	SentAt    time.Time  `db:"sent_at"`
	Trial     bool       `db:"trial"`   // sent from a preview
	Suspect   string     `db:"suspect"` // why it looks as if a program had sent it, or ""
	Starred   bool       `db:"starred"`
	Assigned  string     `db:"assigned_to"` // a person's id, or ""
	DeletedAt *time.Time `db:"deleted_at"`  // from when on it can be had back for a while
	Once      string     `db:"-"`           // what its page made up, so that the same sent twice is kept once; or ""
}

const entryColumns = `e.id, e.form, e.sent_from, e.answers, e.sent_at, e.trial, e.suspect, e.starred, coalesce(e.assigned_to, '') AS assigned_to, e.deleted_at`

// Telling is the letter that tells of an entry: to the addresses of its form, or those of its site.
type Telling struct {
	Letter  any // a mail.Letter
	ReplyTo string
	Copy    any    // a mail.Letter to whoever sent it, or nil
	CopyTo  string // their address
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
// that comes of too much: nothing makes room for it, and it takes no room of others'. What is neither is
// told to the people of the site by mail, where they say so. An entry without an id gets one.
func (s *Entries) Add(ctx context.Context, site string, e FormEntry, t Telling) error {
	raw, err := json.Marshal(e.Answers)
	if err != nil {
		return fmt.Errorf("writing answers: %w", err)
	}
	e.ID = cmp.Or(e.ID, NewID("e"))
	err = s.inTx(ctx, func(tx *sqlx.Tx) error {
		if e.Suspect, err = add(ctx, tx, site, e, raw); err != nil || e.Trial || e.Suspect != "" {
			return err
		}
		if t.CopyTo != "" {
			if err := s.sendCopy(ctx, tx, site, e.ID, t); err != nil {
				return err
			}
		}
		return s.tell(ctx, tx, site, e.ID, t)
	})
	if errors.Is(err, errThere) {
		return nil
	}
	return err
}

// sendCopy queues a copy to whoever sent an entry, unless their address got as many as one gets in a day from
// anywhere.
func (s *Entries) sendCopy(ctx context.Context, tx *sqlx.Tx, site, entry string, t Telling) error {
	var n int
	if err := tx.GetContext(ctx, &n, `SELECT count(*) FROM mails WHERE kind = 'copy' AND lower(recipient) = lower($1)
		AND made_at > now() - interval '1 day'`, t.CopyTo); err != nil || n >= policy.CopiesADay {
		return err
	}
	letter, err := json.Marshal(t.Copy)
	if err != nil {
		return fmt.Errorf("writing a letter: %w", err)
	}
	var reply string
	if err := tx.GetContext(ctx, &reply, `SELECT mail_reply FROM sites WHERE id = $1`, site); err != nil {
		return fmt.Errorf("reading a setting: %w", err)
	}
	m := &Mail{Site: site, Sort: MailOfCopy, Entry: entry, To: t.CopyTo, ReplyTo: reply, Letter: letter}
	if err := s.queueMail(ctx, tx, m); err != nil && !errors.Is(err, ErrMails) {
		return err
	}
	return nil
}

// tell queues the mails that tell of an entry, as far as a site sends so many: it is in the Inbox all
// the same.
func (s *Entries) tell(ctx context.Context, tx *sqlx.Tx, site, entry string, t Telling) error {
	if t.Letter == nil {
		return nil
	}
	var to string
	if err := tx.GetContext(ctx, &to, `SELECT coalesce(f.mail_to, s.mail_to) FROM form_entries e JOIN sites s ON s.id = e.site_id
		LEFT JOIN form_settings f ON f.site_id = e.site_id AND f.form = e.form WHERE e.id = $1`, entry); err != nil ||
		to == "" {
		return err
	}
	letter, err := json.Marshal(t.Letter)
	if err != nil {
		return fmt.Errorf("writing a letter: %w", err)
	}
	for address := range strings.SplitSeq(to, ",") {
		m := &Mail{Site: site, Sort: MailOfEntry, Entry: entry, To: address, ReplyTo: t.ReplyTo, Letter: letter}
		if err := s.queueMail(ctx, tx, m); err != nil && !errors.Is(err, ErrMails) {
			return err
		}
	}
	return nil
}

// errThere means that an entry is kept already.
var errThere = errors.New("it is there")

// add keeps an entry, and tells why it is set apart, if it is.
func add(ctx context.Context, tx *sqlx.Tx, site string, e FormEntry, raw []byte) (suspect string, err error) {
	var once []byte
	if e.Once != "" { // with what was entered, so that who goes back and writes more sends that too
		sum := sha256.Sum256(slices.Concat([]byte(site+" "+e.Form+" "+e.Once+" "), raw))
		once = sum[:]
	}
	err = tx.GetContext(
		ctx,
		&suspect,
		`WITH here AS (SELECT count(*) FILTER (WHERE NOT trial AND suspect = '') AS people,
			count(*) FILTER (WHERE NOT trial AND suspect <> '' AND deleted_at IS NULL) AS suspects,
			count(*) FILTER (WHERE trial AND deleted_at IS NULL) AS trials,
			count(*) FILTER (WHERE NOT trial AND suspect = '' AND form = $3 AND sent_at > now() - interval '1 day') AS people_today,
			count(*) FILTER (WHERE NOT trial AND suspect <> '' AND form = $3 AND sent_at > now() - interval '1 day') AS suspects_today FROM form_entries WHERE site_id = $2),
		as_it_is AS (SELECT here.*, CASE WHEN $5 OR $6 <> '' THEN $6 WHEN people_today >= $7 OR people >= $9 THEN $12 ELSE '' END AS suspect FROM here)
		INSERT INTO form_entries (id, site_id, form, answers, trial, suspect, sent_from, once) SELECT $1, $2, $3, $4, $5, suspect, left($13, 600), $14 FROM as_it_is
		WHERE CASE WHEN $5 THEN trials < $11 WHEN suspect <> '' THEN suspects_today < $8 AND suspects < $10 ELSE true END ON CONFLICT (once) WHERE once IS NOT NULL DO NOTHING RETURNING suspect`,
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
		Clean(e.From),
		once,
	)
	if errors.Is(err, sql.ErrNoRows) {
		if once != nil {
			if err := tx.GetContext(ctx, new(int), `SELECT 1 FROM form_entries WHERE once = $1`, once); err == nil {
				return "", errThere
			}
		}
		return "", ErrFull
	}
	if err != nil {
		return "", fmt.Errorf("keeping a form's entry: %w", err)
	}
	return suspect, nil
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
			`SELECT `+entryColumns+` FROM form_entries e WHERE e.site_id = $1 AND NOT e.trial AND e.deleted_at IS NULL ORDER BY e.sent_at, e.id`,
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
	if err := s.db.GetContext(ctx, e, `SELECT `+entryColumns+` FROM form_entries e WHERE e.site_id = $1 AND e.id = $2`, site, id); err != nil {
		return nil, fmt.Errorf("reading an entry: %w", notFound(err))
	}
	return e, readEntries([]*FormEntry{e})
}

// Trust takes an entry for a person's that looked like a program's, and tells of it.
func (s *Entries) Trust(ctx context.Context, site, id string, t Telling) error {
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
		return s.tell(ctx, tx, site, id, t)
	})
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

// SetDays says how many days what visitors send is kept.
func (s *Entries) SetDays(ctx context.Context, site string, days int) error {
	if _, err := s.db.ExecContext(ctx, `UPDATE sites SET entry_days = $2 WHERE id = $1`, site, days); err != nil {
		return fmt.Errorf("keeping a setting: %w", err)
	}
	return nil
}

// Forget ends what is longer ago than each site keeps, or its form; trials and what was deleted before that.
func (s *Entries) Forget(ctx context.Context) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM form_entries WHERE id IN (SELECT e.id FROM form_entries e JOIN sites s ON s.id = e.site_id
		LEFT JOIN form_settings f ON f.site_id = e.site_id AND f.form = e.form
		WHERE e.sent_at < now() - make_interval(days => least(coalesce(f.days, s.entry_days), CASE WHEN e.trial THEN $1::int END))
			OR e.deleted_at < now() - make_interval(days => $2))`,
		policy.Days(policy.TrialEntries), policy.Days(policy.DeletedEntries)); err != nil {
		return fmt.Errorf("forgetting old entries: %w", err)
	}
	return nil
}
