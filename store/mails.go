package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"github.com/jmoiron/sqlx"
	"github.com/riverqueue/river"

	"openplot/core/policy"
)

// SendMail is the job that hands a mail to the mail server.
type SendMail struct {
	Mail string `json:"mail"`
}

// Kind is the job's name in the queue.
func (SendMail) Kind() string { return "send-mail" }

// MailQueue is the queue of mails.
const MailQueue = "mail"

// MailAttempts is how often a mail is tried: over some eleven hours, each time after a longer rest
// (River's, the fourth power of the attempt in seconds).
const MailAttempts = 12

// Sorts of mails.
const (
	MailOfEntry      = "entry"
	MailOfInvitation = "invitation"
	MailOfTrial      = "trial"  // somebody wanted to see whether mails arrive
	MailOfAnswer     = "answer" // to whoever sent a form
	MailOfCopy       = "copy"   // of what they sent
)

// Mail is a mail to one person, and how far it has come.
type Mail struct {
	ID       string          `db:"id"`
	Site     string          `db:"site_id"`
	SiteName string          `db:"site_name"` // the name that it comes from
	Sort     string          `db:"kind"`
	Entry    string          `db:"entry_id"` // the entry that it tells of, or ""
	To       string          `db:"recipient"`
	ReplyTo  string          `db:"reply_to"`
	Letter   json.RawMessage `db:"letter"` // a mail.Letter; whose link leads to a path of the application
	MadeAt   time.Time       `db:"made_at"`
	SentAt   *time.Time      `db:"sent_at"`
	Tried    int             `db:"tried"`
	Problem  string          `db:"problem"` // why it couldn't be handed over the last time
	Failed   bool            `db:"failed"`  // it isn't tried any more
	By       string          `db:"made_by"` // who wrote it, or ""
	ByName   string          `db:"by_name"`
}

// Waiting reports whether the mail is still to be sent.
func (m *Mail) Waiting() bool { return m.SentAt == nil && !m.Failed }

// ErrMails means that as many mails of a site went out within a day as do.
var ErrMails = errors.New("as many mails as go out in a day")

// Queue has a mail sent, or gives ErrMails.
func (s *Mails) Queue(ctx context.Context, m *Mail) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error { return s.queueMail(ctx, tx, m) })
}

func (s *base) queueMail(ctx context.Context, tx *sqlx.Tx, m *Mail) error {
	var n int
	if err := tx.GetContext(ctx, &n, `SELECT count(*) FROM mails WHERE site_id = $1 AND made_at > now() - interval '1 day'`, m.Site); err != nil {
		return fmt.Errorf("counting mails: %w", err)
	}
	if n >= policy.MailsADay {
		return ErrMails
	}
	if m.ID == "" {
		m.ID = NewID("m")
	}
	if _, err := tx.NamedExecContext(ctx, `INSERT INTO mails (id, site_id, kind, entry_id, recipient, reply_to, letter, made_by)
		VALUES (:id, :site_id, :kind, nullif(:entry_id, ''), :recipient, :reply_to, :letter, nullif(:made_by, ''))`, m); err != nil {
		return fmt.Errorf("queueing a mail: %w", err)
	}
	return s.sendMail(ctx, tx, m.ID)
}

// sendMail queues a job of its own for a mail: the one that just noted that it was refused may not have ended.
func (s *base) sendMail(ctx context.Context, tx *sqlx.Tx, id string) error {
	o := &river.InsertOpts{Queue: MailQueue, MaxAttempts: MailAttempts}
	if _, err := s.jobs.InsertTx(ctx, tx.Tx, SendMail{id}, o); err != nil {
		return fmt.Errorf("queueing a mail: %w", err)
	}
	return nil
}

const mailColumns = `m.id, m.site_id, coalesce(nullif(s.mail_name, ''), s.name) AS site_name, m.kind, coalesce(m.entry_id, '') AS entry_id,
	m.recipient, m.reply_to, m.letter, m.made_at, m.sent_at, m.tried, m.problem, m.failed, coalesce(m.made_by, '') AS made_by,
	coalesce(u.name, '') AS by_name FROM mails m JOIN sites s ON s.id = m.site_id LEFT JOIN users u ON u.id = m.made_by`

// ByID gives a mail, or ErrNotFound.
func (s *Mails) ByID(ctx context.Context, id string) (*Mail, error) {
	m := new(Mail)
	if err := s.db.GetContext(ctx, m, `SELECT `+mailColumns+` WHERE m.id = $1`, id); err != nil {
		return nil, fmt.Errorf("reading a mail: %w", notFound(err))
	}
	return m, nil
}

// OfEntry gives the mails about an entry of a site, the oldest first.
func (s *Mails) OfEntry(ctx context.Context, site, entry string) (ms []*Mail, err error) {
	if err := s.db.SelectContext(ctx, &ms, `SELECT `+mailColumns+` WHERE m.site_id = $1 AND m.entry_id = $2 ORDER BY m.made_at, m.recipient`, site, entry); err != nil {
		return nil, fmt.Errorf("listing mails: %w", err)
	}
	return ms, nil
}

// Thread gives the ids of the answers to an entry that were sent before a mail to the same person, the first first.
func (s *Mails) Thread(ctx context.Context, m *Mail) (ids []string, err error) {
	if err := s.db.SelectContext(ctx, &ids, `SELECT id FROM mails WHERE entry_id = $1 AND kind = 'answer' AND recipient = $2
		AND sent_at IS NOT NULL AND id <> $3 ORDER BY made_at LIMIT 20`, m.Entry, m.To, m.ID); err != nil {
		return nil, fmt.Errorf("listing mails: %w", err)
	}
	return ids, nil
}

// Answer has a mail sent to whoever sent an entry, or gives ErrMails.
func (s *Mails) Answer(ctx context.Context, m *Mail) error {
	m.Sort = MailOfAnswer
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		var n int
		if err := tx.GetContext(ctx, &n, `SELECT count(*) FROM mails WHERE site_id = $1 AND kind = 'answer' AND made_at > now() - interval '1 day'`, m.Site); err != nil {
			return fmt.Errorf("counting mails: %w", err)
		}
		if n >= policy.AnswersADay {
			return ErrMails
		}
		return s.queueMail(ctx, tx, m)
	})
}

// List gives a site's newest mails of all sorts.
func (s *Mails) List(ctx context.Context, site string, limit int) (ms []*Mail, err error) {
	if err := s.db.SelectContext(ctx, &ms, `SELECT `+mailColumns+` WHERE m.site_id = $1 ORDER BY m.made_at DESC, m.id LIMIT $2`, site, limit); err != nil {
		return nil, fmt.Errorf("listing mails: %w", err)
	}
	return ms, nil
}

// Sent notes that a mail was handed over. What only its reader was to have, a link by which one
// joins, isn't kept any longer.
func (s *Mails) Sent(ctx context.Context, id string) error {
	if _, err := s.db.ExecContext(ctx, `UPDATE mails SET sent_at = now(), tried = tried + 1, problem = '', failed = false,
		letter = CASE WHEN kind = 'invitation' THEN (letter::jsonb - 'link')::json ELSE letter END WHERE id = $1`, id); err != nil {
		return fmt.Errorf("noting a mail: %w", err)
	}
	return nil
}

// NotSent notes why a mail couldn't be handed over, and whether that was the last time.
func (s *Mails) NotSent(ctx context.Context, id, problem string, last bool) error {
	if _, err := s.db.ExecContext(ctx, `UPDATE mails SET tried = tried + 1, problem = left($2, 600), failed = $3 WHERE id = $1`,
		id, Clean(problem), last); err != nil {
		return fmt.Errorf("noting a mail: %w", err)
	}
	return nil
}

// Again has a mail of a site that couldn't be sent tried once more; ErrNotFound where there is none.
func (s *Mails) Again(ctx context.Context, site, id string) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		r, err := tx.ExecContext(
			ctx,
			`UPDATE mails SET failed = false, problem = '', tried = 0 WHERE site_id = $1 AND id = $2 AND failed`,
			site,
			id,
		)
		if err != nil {
			return fmt.Errorf("sending a mail again: %w", err)
		}
		if n, err := r.RowsAffected(); err != nil || n == 0 {
			return fmt.Errorf("sending a mail again: %w", ErrNotFound)
		}
		return s.sendMail(ctx, tx, id)
	})
}

// MailSettings are how mails of a site go out.
type MailSettings struct {
	To    string // the addresses that entries are sent on to, with commas between
	Name  string // that mails come from, or "" for the site's
	Reply string // the address that answers go to, or "" for that of whoever writes
}

// Set keeps how mails of a site go out.
func (s *Mails) Set(ctx context.Context, site string, v MailSettings) error {
	if _, err := s.db.ExecContext(ctx, `UPDATE sites SET mail_to = $2, mail_name = $3, mail_reply = $4 WHERE id = $1`, site, v.To, Clean(v.Name), v.Reply); err != nil {
		return fmt.Errorf("keeping a setting: %w", err)
	}
	return nil
}

// Forget ends mails that were made before a time.
func (s *Mails) Forget(ctx context.Context, before time.Time) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM mails WHERE made_at < $1`, before); err != nil {
		return fmt.Errorf("forgetting mails: %w", err)
	}
	return nil
}
