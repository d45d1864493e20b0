package origin

import (
	"testing"
	"time"
)

func TestTriesAreAllowedAgainLater(t *testing.T) {
	a := NewAttempts(10, 6*time.Second)
	now := time.Now()
	n := 0
	for a.Allow("1.2.3.4", now) {
		n++
	}
	if n != 10 || !a.Allow("5.6.7.8", now) || !a.Allow("1.2.3.4", now.Add(7*time.Second)) {
		t.Errorf("%d tries at once", n)
	}
}

// One subscriber's addresses are one.
func TestNetworks(t *testing.T) {
	for address, want := range map[string]string{
		"192.0.2.7":          "192.0.2.7",
		"::ffff:192.0.2.7":   "192.0.2.7",
		"2001:db8:1:2:3::4":  "2001:db8:1:2::/64",
		"2001:db8:1:2::5%en": "2001:db8:1:2::/64",
		"somewhere":          "somewhere",
	} {
		if got := Network(address); got != want {
			t.Errorf("%s: %s, want %s", address, got, want)
		}
	}
}
