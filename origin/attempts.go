package origin

import (
	"net/netip"
	"time"

	lru "github.com/hashicorp/golang-lru/v2"
	"golang.org/x/time/rate"
)

// Attempts limits how often somebody may try something, each by a key such as an address.
// The zero value can't be used; see NewAttempts.
type Attempts struct {
	every time.Duration
	burst int
	from  *lru.Cache[string, *rate.Limiter]
}

// maxKeys is how many keys are remembered, those that came last.
const maxKeys = 10_000

// NewAttempts makes Attempts of burst at once and then one every so often.
func NewAttempts(burst int, every time.Duration) *Attempts {
	from, err := lru.New[string, *rate.Limiter](maxKeys)
	if err != nil {
		panic(err) // only for a size below 1
	}
	return &Attempts{every, burst, from}
}

// Allow reports whether one more attempt is let through.
func (a *Attempts) Allow(key string, now time.Time) bool {
	fresh := rate.NewLimiter(rate.Every(a.every), a.burst)
	limit, known, _ := a.from.PeekOrAdd(key, fresh)
	if !known {
		limit = fresh
	}
	a.from.Get(key) // it came last now
	return limit.AllowN(now, 1)
}

// Rate gives how many are let through at once, and how often one more.
func (a *Attempts) Rate() (burst int, every time.Duration) { return a.burst, a.every }

// Network is what an address counts as: itself, or for IPv6 the /64 that one subscriber has
// (RFC 6177 §2: sites get at least that much).
func Network(address string) string {
	a, err := netip.ParseAddr(address)
	if err != nil {
		return address
	}
	a = a.Unmap().WithZone("")
	if a.Is4() {
		return a.String()
	}
	return netip.PrefixFrom(a, 64).Masked().String()
}
