package visitors

import (
	"context"
	"errors"
	"strings"
	"time"

	lru "github.com/hashicorp/golang-lru/v2"
	"golang.org/x/sync/singleflight"

	"openplot/origin"
	"openplot/store"
)

// standings are what hosts stand for, as it was a moment ago: asked once for all requests of that
// moment, and remembered while the database is away.
type standings struct {
	*Config
	known *lru.Cache[string, standing]
	asked singleflight.Group
}

// standing is what was answered about a host; nil is that there is nothing.
type standing struct {
	*store.Standing
	at time.Time
}

// Limits of what is remembered of hosts, and how long the database is waited for.
const (
	maxStandings = 5000
	askingTime   = 3 * time.Second
)

func newStandings(c *Config) *standings {
	known, _ := lru.New[string, standing](maxStandings) // a size that can be
	return &standings{Config: c, known: known}
}

// atAddress gives the site that an address leads to, or nil.
func (s *standings) atAddress(slug string) (*store.Standing, error) {
	return s.find(slug, s.Store.Hosts.AtAddress)
}

// atHost gives the site that is shown at a host of its own, or nil.
func (s *standings) atHost(host string) (*store.Standing, error) {
	host = strings.ToLower(strings.TrimSuffix(origin.HostName(host), "."))
	if !strings.Contains(host, ".") { // nor can it be taken for an address
		return nil, nil
	}
	return s.find(host, s.Store.Hosts.AtDomain)
}

func (s *standings) find(
	key string,
	ask func(context.Context, string) (*store.Standing, error),
) (*store.Standing, error) {
	if k, ok := s.known.Get(key); ok && time.Since(k.at) < s.Fresh {
		return k.Standing, nil
	}
	found, err, _ := s.asked.Do(key, func() (any, error) {
		ctx, cancel := context.WithTimeout(context.Background(), askingTime) // whoever asked first may go
		defer cancel()
		at := time.Now()
		found, err := ask(ctx, key)
		if err == nil || errors.Is(err, store.ErrNotFound) {
			s.known.Add(key, standing{found, at})
			return found, nil
		}
		k, ok := s.known.Get(key)
		if !ok {
			return nil, err
		}
		s.Log.Error("hosts", "error", err)
		s.known.Add(key, standing{k.Standing, time.Now()}) // not asked again by each request
		return k.Standing, nil
	})
	if err != nil {
		return nil, err
	}
	st, _ := found.(*store.Standing)
	return st, nil
}
