// Package dns looks at the records of a site's own domain: whether it leads here, and whether
// whoever set it is the site's.
//
// In come a host and what its records have to say; out comes what is missing, in words. The
// records are read from the world's DNS or, where there is no network, from a small stand-in of
// our own that people set records in. Start at Check.
package dns

import (
	"context"
	"encoding/json"
	"errors"
	"io/fs"
	"net"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"sync"

	"golang.org/x/net/idna"

	"openplot/core/doc"
	"openplot/durable"
)

// Record is a record that a domain has to have (RFC 1035 §3.2.2, RFC 1464).
type Record struct {
	Type  string // "CNAME" or "TXT"
	Name  string
	Value string
	Found []string // what it says now
	OK    bool
}

// Resolver reads records.
type Resolver interface {
	// Look gives what records of a type say of a name; none are no error.
	Look(ctx context.Context, kind, name string) ([]string, error)
}

// tokenName is where the token stands, before the host.
const tokenName = "_openplot."

// Proved reports whether all records are as they have to be.
func Proved(records []Record) bool {
	return !slices.ContainsFunc(records, func(r Record) bool { return !r.OK })
}

// Check gives the records that a host needs to show what is at another, which may have been at
// others before, with what they say now.
func Check(ctx context.Context, r Resolver, host, token, target string, before ...string) ([]Record, error) {
	records := []Record{{Type: "CNAME", Name: host, Value: target}, {Type: "TXT", Name: tokenName + host, Value: token}}
	for i := range records {
		rec := &records[i]
		found, err := r.Look(ctx, rec.Type, rec.Name)
		if err != nil {
			return nil, err
		}
		for k := range found {
			found[k] = strings.TrimSuffix(found[k], ".")
		}
		values := []string{rec.Value}
		if rec.Type == "CNAME" {
			values = append(values, before...)
		}
		rec.Found, rec.OK = found, slices.ContainsFunc(found, func(v string) bool {
			return slices.ContainsFunc(values, func(value string) bool { return strings.EqualFold(v, value) })
		})
	}
	return records, nil
}

var hostPattern = regexp.MustCompile(`^([a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?\.)+[a-z][a-z0-9-]{0,61}[a-z0-9]$`)

// ReadHost reads a host as somebody writes it, in any script. Errors are *doc.Problem.
func ReadHost(v string) (string, error) {
	v = strings.ToLower(strings.TrimSpace(v))
	for _, before := range []string{"https://", "http://"} {
		v = strings.TrimPrefix(v, before)
	}
	v = strings.TrimSuffix(strings.TrimSuffix(v, "/"), ".")
	ascii, err := idna.Lookup.ToASCII(v)
	if err != nil || !hostPattern.MatchString(ascii) || len(ascii) > 200 {
		return "", doc.Problemf(
			"Domain",
			"can't be %.80q: write it without anything before or behind, such as www.skerry.example",
			v,
		)
	}
	return ascii, nil
}

// World reads the world's DNS.
type World struct{}

// Look implements Resolver.
func (World) Look(ctx context.Context, kind, name string) ([]string, error) {
	var found []string
	var err error
	if kind == "TXT" {
		found, err = net.DefaultResolver.LookupTXT(ctx, name)
	} else {
		var cname string
		if cname, err = net.DefaultResolver.LookupCNAME(ctx, name); err == nil && strings.TrimSuffix(cname, ".") != name {
			found = []string{cname}
		}
	}
	var missing *net.DNSError
	if errors.As(err, &missing) && missing.IsNotFound {
		return nil, nil
	}
	return found, err
}

// StandIn is a small DNS of our own, in a file: for machines without a network, and for trying
// how a domain is set up. It answers nobody but this program.
type StandIn struct {
	File string
	mu   sync.Mutex
}

// Look implements Resolver.
func (s *StandIn) Look(_ context.Context, kind, name string) ([]string, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	all, err := s.read()
	if err != nil {
		return nil, err
	}
	return all[kind+" "+strings.ToLower(name)], nil
}

// Set sets what records of a type say of a name; "" takes them away.
func (s *StandIn) Set(kind, name, value string) error {
	s.mu.Lock()
	defer s.mu.Unlock()
	all, err := s.read()
	if err != nil {
		return err
	}
	key := kind + " " + strings.ToLower(name)
	if all[key] = []string{value}; value == "" {
		delete(all, key)
	}
	b, err := json.MarshalIndent(all, "", " ")
	if err != nil {
		return err
	}
	return durable.Write(filepath.Clean(s.File), b)
}

func (s *StandIn) read() (map[string][]string, error) {
	all := map[string][]string{}
	b, err := os.ReadFile(s.File)
	if errors.Is(err, fs.ErrNotExist) {
		return all, nil
	}
	if err != nil {
		return nil, err
	}
	return all, json.Unmarshal(b, &all)
}
