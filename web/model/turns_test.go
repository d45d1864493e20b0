package model

import (
	"context"
	"fmt"
	"math/rand/v2"
	"sync"
	"sync/atomic"
	"testing"
	"time"
)

// No more run at once than may, of none more than its share, and all that wait get their turn.
func TestTurns(t *testing.T) {
	ts := &turns{all: 3, each: 2}
	var running, most, did, left atomic.Int64
	var of [4]atomic.Int64
	var all sync.WaitGroup
	for i := range 200 {
		all.Go(func() {
			k := i % len(of)
			ctx, cancel := context.WithCancel(t.Context())
			defer cancel()
			if rand.IntN(4) == 0 {
				time.AfterFunc(time.Duration(rand.IntN(3000))*time.Microsecond, cancel)
			}
			done, err := ts.take(ctx, fmt.Sprint(k))
			if err != nil {
				left.Add(1)
				return
			}
			if n := running.Add(1); n > most.Load() {
				most.Store(n)
			}
			if n := of[k].Add(1); n > 2 {
				t.Errorf("%d of one", n)
			}
			time.Sleep(time.Duration(rand.IntN(300)) * time.Microsecond)
			of[k].Add(-1)
			running.Add(-1)
			did.Add(1)
			done()
		})
	}
	all.Wait()
	if most.Load() > 3 || did.Load()+left.Load() != 200 || did.Load() < 100 {
		t.Errorf("%d at once, %d did, %d left", most.Load(), did.Load(), left.Load())
	}
	if ts.running != 0 || len(ts.of) != 0 || len(ts.waiting) != 0 {
		t.Errorf("left behind: %+v", ts)
	}
}
