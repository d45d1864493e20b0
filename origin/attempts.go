package origin

import (
	"net"
	"net/http"
	"time"

	lru "github.com/hashicorp/golang-lru/v2"
	"golang.org/x/time/rate"
)

// Attempts limits how often an address may try something. The zero value can't be used;
// see NewAttempts.
type Attempts struct {
	from *lru.Cache[string, *rate.Limiter]
}

// maxAddresses is how many addresses are remembered, those that came last.
const maxAddresses = 10_000

// NewAttempts makes Attempts of ten at once and then one every six seconds.
func NewAttempts() *Attempts {
	from, err := lru.New[string, *rate.Limiter](maxAddresses)
	if err != nil {
		panic(err) // only for a size below 1
	}
	return &Attempts{from}
}

// Allow reports whether an address may try once more.
func (a *Attempts) Allow(address string, now time.Time) bool {
	fresh := rate.NewLimiter(rate.Every(6*time.Second), 10)
	limit, known, _ := a.from.PeekOrAdd(address, fresh)
	if !known {
		limit = fresh
	}
	a.from.Get(address) // it came last now
	return limit.AllowN(now, 1)
}

// Address is where a request came from, without its port.
func Address(r *http.Request) string {
	host, _, err := net.SplitHostPort(r.RemoteAddr)
	if err != nil {
		return r.RemoteAddr
	}
	return host
}
