package main

import (
	"errors"
	"fmt"
	netmail "net/mail"
	"os"
	"path/filepath"
	"strings"

	"openplot/mail"
)

// post is how mails go out.
type post struct {
	standIn bool         // to a server of the program's own, which keeps them
	server  *mail.Server // or to this one; nil sends none
	from    netmail.Address
}

// readMail reads the environment of mails.
func (s *settings) readMail() error {
	where := os.Getenv("OPENPLOT_SMTP")
	if where == "" {
		where = map[bool]string{true: "stand-in", false: "no"}[s.demo != ""]
	}
	host := s.appURL.Hostname()
	if !strings.Contains(host, ".") { // localhost isn't a domain that mails come from
		host += ".localdomain"
	}
	from := env("OPENPLOT_MAIL_FROM", "Open Plot <openplot@"+host+">")
	a, err := netmail.ParseAddress(from)
	if err != nil {
		return fmt.Errorf("OPENPLOT_MAIL_FROM is %.80q: write an address such as Open Plot <mail@example.org>", from)
	}
	s.mail.from = *a
	switch where {
	case "no":
		return nil
	case "stand-in":
		s.mail.standIn = true
		return nil
	}
	server, err := mail.ReadServer(where)
	if err != nil {
		return fmt.Errorf("OPENPLOT_SMTP (which isn’t shown, since it has a password) can’t be read: %w", err)
	}
	server.From = *a
	if file := os.Getenv("OPENPLOT_DKIM_KEY"); file != "" {
		b, err := os.ReadFile(file)
		if err != nil {
			return fmt.Errorf("reading OPENPLOT_DKIM_KEY: %w", err)
		}
		_, domain, _ := strings.Cut(a.Address, "@")
		if server.Key, err = mail.ReadKey(domain, env("OPENPLOT_DKIM_SELECTOR", "openplot"), b); err != nil {
			return fmt.Errorf("OPENPLOT_DKIM_KEY is %s: %w", file, err)
		}
	}
	s.mail.server = server
	return nil
}

// open begins the stand-in where that is asked for, and gives what mails are handed to.
func (p post) open(data string) (server *mail.Server, standIn *mail.StandIn, end func(), err error) {
	if !p.standIn {
		return p.server, nil, func() {}, nil
	}
	if standIn, err = mail.Begin(filepath.Join(data, "mails")); err != nil {
		return nil, nil, nil, err
	}
	return standIn.Server(p.from), standIn, func() {
		if err := standIn.Close(); err != nil && !errors.Is(err, os.ErrClosed) {
			fmt.Fprintln(os.Stderr, "ending the mail stand-in:", err)
		}
	}, nil
}
