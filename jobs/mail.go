package jobs

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"strings"
	"time"

	"github.com/riverqueue/river"

	"openplot/mail"
	"openplot/store"
)

// Post is where mails go.
type Post struct {
	Server *mail.Server // nil where there is none
	App    string       // the application's address, before the paths that letters lead to
}

// ErrNoServer is why mails aren't sent where no server is set.
var ErrNoServer = errors.New("no mail server is set (OPENPLOT_SMTP)")

// SendMail hands a mail over that is still to be sent. The error of what would be in vain the next
// time too is mail.ErrRefused. A mail whose handing over was noted isn't sent again; one that ended
// in between is, since nothing tells whether the server took it (RFC 5321 §4.5.4).
func (w *Tasks) SendMail(ctx context.Context, id string) error {
	m, err := w.Store.Mails.ByID(ctx, id)
	if errors.Is(err, store.ErrNotFound) {
		return nil // it went with the entry that it told of
	}
	if err != nil || !m.Waiting() {
		return err
	}
	if w.Post.Server == nil {
		return ErrNoServer
	}
	out := &mail.Mail{ID: m.ID, At: m.MadeAt, To: m.To, From: m.SiteName, ReplyTo: m.ReplyTo}
	if err := json.Unmarshal(m.Letter, &out.Letter); err != nil {
		return fmt.Errorf("%w: reading its letter: %w", mail.ErrRefused, err)
	}
	if m.Sort == store.MailOfAnswer {
		if out.ByHand = true; m.Entry != "" {
			if out.After, err = w.Store.Mails.Thread(ctx, m); err != nil {
				return err
			}
		}
	}
	if l := out.Link; l != nil && strings.HasPrefix(l.URL, "/") {
		l.URL = w.Post.App + l.URL
	}
	if err := w.Post.Server.Send(ctx, out); err != nil {
		return err
	}
	return w.Store.Mails.Sent(ctx, id)
}

// mailer sends mails.
type mailer struct {
	river.WorkerDefaults[store.SendMail]
	*Tasks
}

func (m *mailer) Work(ctx context.Context, job *river.Job[store.SendMail]) error {
	err := m.SendMail(ctx, job.Args.Mail)
	if err == nil || ctx.Err() != nil {
		return counted(job.Kind, err)
	}
	last := errors.Is(err, mail.ErrRefused) || job.Attempt >= job.MaxAttempts
	err = errors.Join(err, m.Store.Mails.NotSent(ctx, job.Args.Mail, err.Error(), last))
	if last {
		err = river.JobCancel(err)
	}
	return counted(job.Kind, err)
}

// Timeout is more than a server may take.
func (m *mailer) Timeout(*river.Job[store.SendMail]) time.Duration { return time.Minute }
