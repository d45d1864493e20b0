// Package domains looks at the records of sites' own domains: whether they lead here, and go on to.
//
// A site is shown at a domain that it has proved (docs/decisions/0025), as long as its records
// stand, and a while beyond. Start at Watch.
package domains

import (
	"cmp"
	"context"
	"errors"
	"log/slog"
	"net/url"
	"slices"

	"openplot/core/doc"
	"openplot/dns"
	"openplot/site"
	"openplot/store"
)

// Watch looks at records.
type Watch struct {
	Store *store.Store
	DNS   dns.Resolver
	Hosts site.Hosts
	Log   *slog.Logger
}

// Records gives the records of a host of a site, which may lead to any address that the site has
// had.
func (w *Watch) Records(ctx context.Context, st *store.Site, d store.Domain) ([]dns.Record, error) {
	was, err := w.Store.Hosts.FormerAddresses(ctx, st.ID)
	if err != nil {
		return nil, err
	}
	for i := range was {
		was[i] = w.Target(was[i])
	}
	return dns.Check(ctx, w.DNS, d.Host, d.Token, w.Target(st.Slug), was...)
}

// Target is the host of an address, that a domain has to lead to.
func (w *Watch) Target(slug string) string {
	u, err := url.Parse(w.Hosts.Public(slug))
	if err != nil {
		return ""
	}
	return u.Hostname()
}

// LookUp looks at the records of a host, and shows the site there once they are found. Errors are
// *doc.Problem when another site has proved the same.
func (w *Watch) LookUp(ctx context.Context, st *store.Site, host string) error {
	ds, err := w.Store.Hosts.Domains(ctx, st.ID)
	if err != nil {
		return err
	}
	i := slices.IndexFunc(ds, func(d store.Domain) bool { return d.Host == host })
	if i < 0 {
		return nil
	}
	records, err := w.Records(ctx, st, ds[i])
	if err != nil {
		w.Log.Error("dns", "host", host, "error", err)
		return nil // it stays as it was
	}
	holder, err := w.Store.Hosts.ProveDomain(ctx, st.ID, host, dns.Proved(records))
	if err != nil || holder == "" {
		return err
	}
	// It leads to one place: whoever it doesn't lead to any more has lost it.
	if kept, err := w.stillHolds(ctx, holder, host); err != nil || kept {
		return cmp.Or(
			err,
			error(
				doc.Problemf(
					"Domain",
					"%s is shown by another site, whose records stand too: take those away first",
					host,
				),
			),
		)
	}
	_, err = w.Store.Hosts.ProveDomain(ctx, st.ID, host, true)
	return err
}

// stillHolds reports whether the records of a host are still those of a site that has proved it;
// otherwise it isn't shown there any more.
func (w *Watch) stillHolds(ctx context.Context, site, host string) (bool, error) {
	st, err := w.Store.Sites.ByID(ctx, site)
	if err != nil {
		return false, err
	}
	ds, err := w.Store.Hosts.Domains(ctx, site)
	if err != nil {
		return false, err
	}
	for _, d := range ds {
		if d.Host != host {
			continue
		}
		records, err := w.Records(ctx, st, d)
		if err != nil || dns.Proved(records) {
			return true, nil // nothing is known, or they stand
		}
	}
	if err := w.Store.Hosts.LoseDomain(ctx, site, host); err != nil {
		return false, err
	}
	return false, w.Store.Audit.Note(
		ctx,
		store.Noted{Site: site, Who: programName, Act: "domain proved by another site", About: host},
	)
}

// programName is who did what nobody asked for just then, in the log.
const programName = "the program"

// LookAgain looks at the records of all domains that are shown, and notes with their sites which
// aren't led here any more.
func (w *Watch) LookAgain(ctx context.Context) error {
	ds, err := w.Store.Hosts.ProvedDomains(ctx)
	if err != nil {
		return err
	}
	for _, d := range ds {
		st, err := w.Store.Sites.ByID(ctx, d.Site)
		if errors.Is(err, store.ErrNotFound) {
			continue
		}
		if err != nil {
			return err
		}
		records, err := w.Records(ctx, st, d)
		if err != nil {
			w.Log.Error("dns", "host", d.Host, "error", err)
			continue
		}
		found := dns.Proved(records)
		if _, err := w.Store.Hosts.ProveDomain(ctx, d.Site, d.Host, found); err != nil {
			return err
		}
		if !found {
			if err := w.Store.Audit.Note(ctx, store.Noted{Site: d.Site, Who: programName, Act: "domain’s records not found", About: d.Host}); err != nil {
				return err
			}
		}
	}
	return nil
}
