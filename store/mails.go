package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"strings"
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
	MailOfTrial      = "trial" // somebody wanted to see whether mails arrive
)

// Mail is a mail to one person, and how far it has come.
type Mail struct {
	ID       string          `db:"id"`
	Site     string          `db:"site_id"`
	SiteName string          `db:"site_name"`
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
}

// Waiting reports whether the mail is still to be sent.
func (m *Mail) Waiting() bool { return m.SentAt == nil && !m.Failed }

// MailsOf are a letter to each address that entries of the site are sent on to. It is a mail.Letter.
func (s *Site) MailsOf(letter any, reply string) (ms []*Mail, err error) {
	if s.MailTo == "" {
		return nil, nil
	}
	b, err := json.Marshal(letter)
	if err != nil {
		return nil, fmt.Errorf("writing a letter: %w", err)
	}
	for to := range strings.SplitSeq(s.MailTo, ",") {
		ms = append(ms, &Mail{To: to, ReplyTo: reply, Letter: b})
	}
	return ms, nil
}

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
	if _, err := tx.NamedExecContext(ctx, `INSERT INTO mails (id, site_id, kind, entry_id, recipient, reply_to, letter)
		VALUES (:id, :site_id, :kind, nullif(:entry_id, ''), :recipient, :reply_to, :letter)`, m); err != nil {
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

const mailColumns = `m.id, m.site_id, s.name AS site_name, m.kind, coalesce(m.entry_id, '') AS entry_id, m.recipient, m.reply_to, m.letter,
	m.made_at, m.sent_at, m.tried, m.problem, m.failed FROM mails m JOIN sites s ON s.id = m.site_id`

// ByID gives a mail, or ErrNotFound.
func (s *Mails) ByID(ctx context.Context, id string) (*Mail, error) {
	m := new(Mail)
	if err := s.db.GetContext(ctx, m, `SELECT `+mailColumns+` WHERE m.id = $1`, id); err != nil {
		return nil, fmt.Errorf("reading a mail: %w", notFound(err))
	}
	return m, nil
}

// OfEntries gives the newest mails that tell of entries of a site, by the entries' ids.
func (s *Mails) OfEntries(ctx context.Context, site string, limit int) (map[string][]*Mail, error) {
	var ms []*Mail
	if err := s.db.SelectContext(ctx, &ms, `SELECT `+mailColumns+` WHERE m.entry_id IN
		(SELECT id FROM form_entries WHERE site_id = $1 ORDER BY sent_at DESC, id LIMIT $2) ORDER BY m.recipient`, site, limit); err != nil {
		return nil, fmt.Errorf("listing mails: %w", err)
	}
	of := map[string][]*Mail{}
	for _, m := range ms {
		of[m.Entry] = append(of[m.Entry], m)
	}
	return of, nil
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

// SetTo says which addresses the entries of a site's forms go to, with commas between.
func (s *Mails) SetTo(ctx context.Context, site, to string) error {
	if _, err := s.db.ExecContext(ctx, `UPDATE sites SET mail_to = $2 WHERE id = $1`, site, to); err != nil {
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
