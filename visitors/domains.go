package visitors

import (
	"context"
	"net"
	"strings"
	"sync"
	"time"
)

// domains are the hosts of sites' own, as they were a moment ago: looked up once for all
// requests of that moment, and as they were last while the database is away.
type domains struct {
	mu  sync.Mutex
	at  time.Time
	all map[string]string
}

// domainsLife is how long a domain that was added or taken away is shown as before.
const domainsLife = 2 * time.Second

// slug gives the site that is shown at a host.
func (d *domains) slug(ctx context.Context, c Config, host string) (string, bool) {
	if name, _, err := net.SplitHostPort(host); err == nil {
		host = name
	}
	d.mu.Lock()
	defer d.mu.Unlock()
	if time.Since(d.at) > domainsLife {
		all, err := c.Store.ShownDomains(ctx)
		if err == nil {
			d.all = all
		} else {
			c.Log.Error("domains", "error", err)
		}
		d.at = time.Now()
	}
	slug, ok := d.all[strings.ToLower(host)]
	return slug, ok
}
