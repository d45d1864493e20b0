package origin

import (
	"testing"
	"time"
)

func TestTriesAreAllowedAgainLater(t *testing.T) {
	a := NewAttempts()
	now := time.Now()
	n := 0
	for a.Allow("1.2.3.4", now) {
		n++
	}
	if n != 10 || !a.Allow("5.6.7.8", now) || !a.Allow("1.2.3.4", now.Add(7*time.Second)) {
		t.Errorf("%d tries at once", n)
	}
}
