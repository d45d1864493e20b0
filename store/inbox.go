package store

import (
	"context"
	"errors"
	"fmt"
	"strings"
	"time"

	"github.com/jmoiron/sqlx"

	"openplot/core/doc"
	"openplot/core/inbox"
	"openplot/core/policy"
)

// Box is which of a site's entries are looked at.
type Box string

// What there is. All are those of people; the others are apart from them.
const (
	BoxNew     Box = "new" // that who looks hasn't read
	BoxStarred Box = "starred"
	BoxMine    Box = "mine" // assigned to who looks
	BoxAll     Box = "all"
	BoxSpam    Box = "spam"
	BoxTrials  Box = "trials"
	BoxDeleted Box = "deleted"
)

// boxes says which entries those are; $1 is the person.
var boxes = map[Box]string{
	BoxNew:     people + ` AND NOT ` + hasRead,
	BoxStarred: people + ` AND e.starred`,
	BoxMine:    people + ` AND e.assigned_to = $1`,
	BoxAll:     people,
	BoxSpam:    `NOT e.trial AND e.suspect <> '' AND e.deleted_at IS NULL`,
	BoxTrials:  `e.trial AND e.deleted_at IS NULL`,
	BoxDeleted: `e.deleted_at IS NOT NULL`,
}

const (
	people  = `NOT e.trial AND e.suspect = '' AND e.deleted_at IS NULL`
	hasRead = `coalesce(r.read, e.sent_at < m.joined_at)`
)

// reading joins to entries of a site what a member of it has read.
func reading(member, site string) string {
	return ` FROM form_entries e JOIN members m ON m.site_id = e.site_id AND m.user_id = ` + member + `
		LEFT JOIN entry_reads r ON r.entry_id = e.id AND r.user_id = ` + member + ` WHERE e.site_id = ` + site + ` AND `
}

// Look is what somebody looks at in a site's Inbox.
type Look struct {
	Site, User string
	Box        Box
	Form       string    // of one form, or ""
	Find       string    // with these words, or the beginnings of them
	Day        time.Time // that begins a day, or none
	Before     string    // after this entry in the list, which has the newest first, or ""
	Also       []string  // entries of people that stay in the list, since they were seen in it
	Limit      int
}

// Listed is an entry in a list.
type Listed struct {
	FormEntry
	Read     bool `db:"read"`
	Notes    int  `db:"notes"`
	Answered bool `db:"answered"` // a mail went to whoever sent it
}

// List gives what is looked at, the newest first, and whether there is more of it.
func (s *Inbox) List(ctx context.Context, l Look) (es []*Listed, more bool, err error) {
	which, known := boxes[l.Box]
	if !known {
		return nil, false, fmt.Errorf("listing entries: %w", ErrNotFound)
	}
	args := []any{l.User, l.Site}
	with := func(value any) string {
		args = append(args, value)
		return fmt.Sprintf("$%d", len(args))
	}
	if len(l.Also) > 0 {
		which = `(` + which + ` OR ` + people + ` AND e.id = ANY (` + with(l.Also) + `))`
	}
	if l.Form != "" {
		which += ` AND e.form = ` + with(l.Form)
	}
	for _, word := range inbox.Words(l.Find) {
		found := `to_tsquery('simple', ` + with("'"+word+"':*") + `)`
		which += ` AND (e.found @@ ` + found + ` OR EXISTS (SELECT FROM entry_notes n WHERE n.entry_id = e.id AND to_tsvector('simple', n.words) @@ ` + found + `))`
	}
	if !l.Day.IsZero() {
		which += ` AND e.sent_at >= ` + with(l.Day) + ` AND e.sent_at < ` + with(l.Day.AddDate(0, 0, 1))
	}
	if l.Before != "" {
		which += ` AND (e.sent_at, e.id) < (SELECT sent_at, id FROM form_entries WHERE id = ` + with(
			l.Before,
		) + ` AND site_id = $2)`
	}
	if err := s.db.SelectContext(ctx, &es, `SELECT `+entryColumns+`, `+hasRead+` AS read,
		(SELECT count(*) FROM entry_notes n WHERE n.entry_id = e.id) AS notes,
		EXISTS (SELECT FROM mails a WHERE a.entry_id = e.id AND a.kind = 'answer') AS answered`+
		reading("$1", "$2")+which+` ORDER BY e.sent_at DESC, e.id DESC LIMIT `+with(l.Limit+1), args...); err != nil {
		return nil, false, fmt.Errorf("listing entries: %w", err)
	}
	if more = len(es) > l.Limit; more {
		es = es[:l.Limit]
	}
	for _, e := range es {
		if err := readEntries([]*FormEntry{&e.FormEntry}); err != nil {
			return nil, false, err
		}
	}
	return es, more, nil
}

// Counts gives how many entries of each sort somebody sees.
func (s *Inbox) Counts(ctx context.Context, site, user string) (map[Box]int, error) {
	order := []Box{BoxNew, BoxStarred, BoxMine, BoxAll, BoxSpam, BoxTrials, BoxDeleted}
	columns := make([]string, len(order))
	for i, box := range order {
		columns[i] = `count(*) FILTER (WHERE ` + boxes[box] + `)`
	}
	var n [7]int
	row := s.db.QueryRowxContext(ctx, `SELECT `+strings.Join(columns, ", ")+reading("$1", "$2")+`true`, user, site)
	if err := row.Scan(&n[0], &n[1], &n[2], &n[3], &n[4], &n[5], &n[6]); err != nil {
		return nil, fmt.Errorf("counting entries: %w", err)
	}
	counts := map[Box]int{}
	for i, box := range order {
		counts[box] = n[i]
	}
	return counts, nil
}

// Newest gives the id of the entry that people sent last, or "".
func (s *Inbox) Newest(ctx context.Context, site string) (id string, err error) {
	err = s.db.GetContext(
		ctx,
		&id,
		`SELECT coalesce((SELECT e.id FROM form_entries e WHERE e.site_id = $1 AND `+people+`
		ORDER BY e.sent_at DESC, e.id DESC LIMIT 1), '')`,
		site,
	)
	if err != nil {
		return "", fmt.Errorf("reading the newest entry: %w", err)
	}
	return id, nil
}

// OfForm is how much there is of a form.
type OfForm struct {
	Form    string     `db:"form"`
	Entries int        `db:"entries"` // of people
	Oldest  *time.Time `db:"oldest"`
	Days    *int       `db:"days"`    // it keeps entries so long, or as long as its site
	MailTo  *string    `db:"mail_to"` // they are sent on to these addresses, or to those of its site
}

// Forms gives the forms of a site that somebody sent or that have settings of their own.
func (s *Inbox) Forms(ctx context.Context, site string) (fs []*OfForm, err error) {
	if err := s.db.SelectContext(ctx, &fs, `SELECT coalesce(e.form, f.form) AS form, coalesce(e.entries, 0) AS entries, e.oldest, f.days, f.mail_to
		FROM (SELECT e.form, count(*) AS entries, min(e.sent_at) AS oldest FROM form_entries e WHERE e.site_id = $1 AND `+people+` GROUP BY e.form) e
		FULL JOIN (SELECT * FROM form_settings WHERE site_id = $1) f ON f.form = e.form ORDER BY 1`, site); err != nil {
		return nil, fmt.Errorf("listing forms: %w", err)
	}
	return fs, nil
}

// SetForm keeps what of a form differs from its site: nil where nothing does.
func (s *Inbox) SetForm(ctx context.Context, site, form string, days *int, mailTo *string) error {
	query, args := `INSERT INTO form_settings (site_id, form, days, mail_to) VALUES ($1, $2, $3, $4)
		ON CONFLICT (site_id, form) DO UPDATE SET days = $3, mail_to = $4`, []any{site, form, days, mailTo}
	if days == nil && mailTo == nil {
		query, args = `DELETE FROM form_settings WHERE site_id = $1 AND form = $2`, args[:2]
	}
	if _, err := s.db.ExecContext(ctx, query, args...); err != nil {
		return fmt.Errorf("keeping a form's settings: %w", err)
	}
	return nil
}

// OnDay is how many entries of people came on a day.
type OnDay struct {
	Day     time.Time `db:"day"`
	Entries int       `db:"entries"`
}

// Days gives how many entries of people came on each of so many days, the last of them last. A day
// begins at midnight where the last one does.
func (s *Inbox) Days(ctx context.Context, site string, last time.Time, days int) ([]OnDay, error) {
	first := last.AddDate(0, 0, 1-days)
	var sent []time.Time
	if err := s.db.SelectContext(ctx, &sent, `SELECT e.sent_at FROM form_entries e WHERE e.site_id = $1 AND `+people+` AND e.sent_at >= $2`, site, first); err != nil {
		return nil, fmt.Errorf("counting entries by day: %w", err)
	}
	out := make([]OnDay, days)
	for i := range out {
		out[i].Day = first.AddDate(0, 0, i)
	}
	for _, at := range sent {
		for i := days - 1; i >= 0; i-- {
			if !at.Before(out[i].Day) {
				out[i].Entries++
				break
			}
		}
	}
	return out, nil
}

// SetRead notes that somebody has read entries of a site, or calls them unread.
func (s *Inbox) SetRead(ctx context.Context, site, user string, ids []string, read bool) error {
	return s.change(
		ctx,
		"noting what was read",
		`INSERT INTO entry_reads (entry_id, user_id, read) SELECT id, $3, $4 FROM form_entries
		WHERE site_id = $1 AND id = ANY ($2) ON CONFLICT (user_id, entry_id) DO UPDATE SET read = $4`,
		site,
		ids,
		user,
		read,
	)
}

// SetStarred stars entries of a site, or takes the star off them.
func (s *Inbox) SetStarred(ctx context.Context, site string, ids []string, starred bool) error {
	return s.change(
		ctx,
		"starring",
		`UPDATE form_entries SET starred = $3 WHERE site_id = $1 AND id = ANY ($2)`,
		site,
		ids,
		starred,
	)
}

// Assign makes entries of a site a member's, or with "" nobody's.
func (s *Inbox) Assign(ctx context.Context, site string, ids []string, user string) error {
	return s.change(
		ctx,
		"assigning",
		`UPDATE form_entries SET assigned_to = (SELECT user_id FROM members WHERE site_id = $1 AND user_id = $3)
		WHERE site_id = $1 AND id = ANY ($2)`,
		site,
		ids,
		user,
	)
}

// SetSpam sets entries of a site apart that people sent, for a reason.
func (s *Inbox) SetSpam(ctx context.Context, site string, ids []string, why string) error {
	return s.change(
		ctx,
		"setting entries apart",
		`UPDATE form_entries SET suspect = $3 WHERE site_id = $1 AND id = ANY ($2) AND suspect = '' AND NOT trial`,
		site,
		ids,
		why,
	)
}

// SetDeleted deletes entries of a site, or has them back.
func (s *Inbox) SetDeleted(ctx context.Context, site string, ids []string, deleted bool) error {
	return s.change(
		ctx,
		"deleting entries",
		`UPDATE form_entries SET deleted_at = CASE WHEN $3 THEN coalesce(deleted_at, now()) END
		WHERE site_id = $1 AND id = ANY ($2)`,
		site,
		ids,
		deleted,
	)
}

// DeleteAll deletes all of a sort that is set apart.
func (s *Inbox) DeleteAll(ctx context.Context, site string, box Box) error {
	if box != BoxSpam && box != BoxTrials {
		return fmt.Errorf("deleting entries: %w", ErrNotFound)
	}
	if _, err := s.db.ExecContext(ctx, `UPDATE form_entries e SET deleted_at = now() WHERE e.site_id = $1 AND `+boxes[box], site); err != nil {
		return fmt.Errorf("deleting entries: %w", err)
	}
	return nil
}

func (s *Inbox) change(ctx context.Context, doing, query, site string, ids []string, more ...any) error {
	if _, err := s.db.ExecContext(ctx, query, append([]any{site, ids}, more...)...); err != nil {
		return fmt.Errorf("%s: %w", doing, err)
	}
	return nil
}

// Note is what somebody noted beside an entry.
type Note struct {
	ID     string    `db:"id"`
	User   string    `db:"user_id"`
	Name   string    `db:"name"` // of who noted it, "" when they are gone
	Words  string    `db:"words"`
	MadeAt time.Time `db:"made_at"`
}

// Notes gives what was noted beside an entry of a site, the oldest first.
func (s *Inbox) Notes(ctx context.Context, site, entry string) (ns []*Note, err error) {
	if err := s.db.SelectContext(ctx, &ns, `SELECT n.id, coalesce(n.user_id, '') AS user_id, coalesce(u.name, '') AS name, n.words, n.made_at
		FROM entry_notes n JOIN form_entries e ON e.id = n.entry_id LEFT JOIN users u ON u.id = n.user_id
		WHERE e.site_id = $1 AND e.id = $2 ORDER BY n.made_at, n.id`, site, entry); err != nil {
		return nil, fmt.Errorf("listing notes: %w", err)
	}
	return ns, nil
}

// longestNote is how many characters a note has at most.
const longestNote = 4000

// AddNote notes something beside an entry of a site. Errors are *doc.Problem and ErrNotFound.
func (s *Inbox) AddNote(ctx context.Context, site, entry, user, words string) error {
	words = strings.TrimSpace(Clean(words))
	if n := len([]rune(words)); n == 0 {
		return doc.Problemf("Note", "is empty: write what others should know")
	} else if n > longestNote {
		return doc.Problemf("Note", "has %d characters: write %d at most", n, longestNote)
	}
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		var n int
		if err := tx.GetContext(ctx, &n, `SELECT count(n.id) FROM form_entries e LEFT JOIN entry_notes n ON n.entry_id = e.id
			WHERE e.site_id = $1 AND e.id = $2 GROUP BY e.id`, site, entry); err != nil {
			return fmt.Errorf("noting: %w", notFound(err))
		}
		if n >= policy.EntryNotes {
			return doc.Problemf("Note", "can't be added: an entry has %d at most", policy.EntryNotes)
		}
		if _, err := tx.ExecContext(ctx, `INSERT INTO entry_notes (id, entry_id, user_id, words) VALUES ($1, $2, $3, $4)`, NewID("n"), entry, user, words); err != nil {
			return fmt.Errorf("noting: %w", err)
		}
		return nil
	})
}

// DeleteNote takes a note away that somebody made themselves; ErrNotFound where there is none.
func (s *Inbox) DeleteNote(ctx context.Context, site, id, user string) error {
	r, err := s.db.ExecContext(
		ctx,
		`DELETE FROM entry_notes n USING form_entries e WHERE e.id = n.entry_id AND e.site_id = $1 AND n.id = $2 AND n.user_id = $3`,
		site,
		id,
		user,
	)
	if err != nil {
		return fmt.Errorf("taking a note away: %w", err)
	}
	if n, err := r.RowsAffected(); err != nil || n == 0 {
		return errors.Join(err, ErrNotFound)
	}
	return nil
}
