package mail

import (
	"bytes"
	"errors"
	"fmt"
	"io"
	"mime"
	"net"
	"net/mail"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"time"

	"github.com/emersion/go-smtp"
	gomail "github.com/wneessen/go-mail"
)

// StandIn is a mail server on the same machine that hands nothing on: it keeps what it gets as files
// of RFC 5322 (.eml), the newest of them.
type StandIn struct {
	dir    string
	server *smtp.Server
	port   int
	mu     sync.Mutex // over the files
}

// Limits of the stand-in.
const (
	keptMails   = 500
	maxMailSize = 2 << 20
)

// Begin opens a stand-in at a port of its own on loopback; its mails are kept in a folder.
func Begin(dir string) (*StandIn, error) {
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return nil, fmt.Errorf("making the stand-in’s folder: %w", err)
	}
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return nil, fmt.Errorf("opening the stand-in: %w", err)
	}
	s := &StandIn{dir: dir, port: l.Addr().(*net.TCPAddr).Port}
	s.server = smtp.NewServer(smtp.BackendFunc(func(*smtp.Conn) (smtp.Session, error) { return &session{of: s}, nil }))
	s.server.Domain, s.server.MaxMessageBytes, s.server.MaxRecipients = "localhost", maxMailSize, 10
	s.server.ReadTimeout, s.server.WriteTimeout = patience, patience
	go func() { _ = s.server.Serve(l) }() // until Close
	return s, nil
}

// Server is the stand-in as a server that mails are handed to.
func (s *StandIn) Server(from mail.Address) *Server {
	return &Server{Host: "127.0.0.1", Port: s.port, Security: Plain, From: from}
}

// Close ends it.
func (s *StandIn) Close() error { return s.server.Close() }

// session is one connection.
type session struct{ of *StandIn }

func (*session) Reset()        {}
func (*session) Logout() error { return nil }

func (*session) Mail(string, *smtp.MailOptions) error { return nil }

// Rcpt takes every address but those of a name that stands for none (RFC 2606 has the domain).
func (*session) Rcpt(to string, _ *smtp.RcptOptions) error {
	if strings.HasSuffix(to, "@refused.invalid") {
		return &smtp.SMTPError{Code: 550, EnhancedCode: smtp.EnhancedCode{5, 1, 1}, Message: "no such mailbox"}
	}
	return nil
}

func (s *session) Data(r io.Reader) error {
	b, err := io.ReadAll(r)
	if err != nil {
		return err
	}
	return s.of.keep(b)
}

// keep writes a mail down, and forgets the oldest of too many.
func (s *StandIn) keep(b []byte) error {
	m, err := mail.ReadMessage(bytes.NewReader(b))
	if err != nil {
		return &smtp.SMTPError{Code: 554, EnhancedCode: smtp.EnhancedCode{5, 6, 0}, Message: "not a mail"}
	}
	s.mu.Lock()
	defer s.mu.Unlock()
	id := strings.Map(func(r rune) rune {
		if r >= 'a' && r <= 'z' || r >= '0' && r <= '9' {
			return r
		}
		return -1
	}, strings.SplitN(strings.Trim(m.Header.Get("Message-ID"), "<>"), "@", 2)[0])
	name := fmt.Sprintf("%019d-%.60s.eml", time.Now().UnixNano(), id)
	if err := os.WriteFile(filepath.Join(s.dir, name), b, 0o600); err != nil {
		return fmt.Errorf("keeping a mail: %w", err)
	}
	all, err := s.files()
	if err != nil {
		return err
	}
	for _, old := range all[min(keptMails, len(all)):] {
		if err := os.Remove(filepath.Join(s.dir, old)); err != nil && !errors.Is(err, os.ErrNotExist) {
			return fmt.Errorf("forgetting a mail: %w", err)
		}
	}
	return nil
}

// files lists the names of what is kept, the newest first.
func (s *StandIn) files() (names []string, err error) {
	all, err := os.ReadDir(s.dir)
	if err != nil {
		return nil, fmt.Errorf("listing mails: %w", err)
	}
	for _, e := range slices.Backward(all) {
		if filepath.Ext(e.Name()) == ".eml" {
			names = append(names, e.Name())
		}
	}
	return names, nil
}

// Received is a mail as the stand-in got it.
type Received struct {
	From    string
	To      string
	ReplyTo string
	Subject string
	Text    string
	HTML    string
	Raw     []byte // RFC 5322
}

// Find gives what came by a mail's ID last; nil where nothing did.
func (s *StandIn) Find(id string) (*Received, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	all, err := s.files()
	if err != nil {
		return nil, err
	}
	i := slices.IndexFunc(all, func(name string) bool { return strings.HasSuffix(name, "-"+id+".eml") })
	if i < 0 {
		return nil, nil
	}
	b, err := os.ReadFile(filepath.Join(s.dir, all[i]))
	if err != nil {
		return nil, fmt.Errorf("reading a mail: %w", err)
	}
	return read(b)
}

// read takes a mail apart: what it says by go-mail, which decodes its parts.
func read(b []byte) (*Received, error) {
	msg, err := gomail.EMLToMsgFromReader(bytes.NewReader(b))
	if err != nil {
		return nil, fmt.Errorf("reading a mail: %w", err)
	}
	raw, err := mail.ReadMessage(bytes.NewReader(b))
	if err != nil {
		return nil, fmt.Errorf("reading a mail: %w", err)
	}
	r := &Received{
		Raw:     b,
		From:    header(raw, "From"),
		To:      header(raw, "To"),
		ReplyTo: header(raw, "Reply-To"),
		Subject: header(raw, "Subject"),
	}
	for _, p := range msg.GetParts() {
		content, err := p.GetContent()
		if err != nil {
			return nil, fmt.Errorf("reading a mail’s part: %w", err)
		}
		switch p.GetContentType() {
		case gomail.TypeTextPlain:
			r.Text = string(content)
		case gomail.TypeTextHTML:
			r.HTML = string(content)
		}
	}
	return r, nil
}

// header gives a header as people read it (RFC 2047); one that can't be read as it is.
func header(m *mail.Message, name string) string {
	value := m.Header.Get(name)
	if read, err := new(mime.WordDecoder).DecodeHeader(value); err == nil {
		return read
	}
	return value
}
