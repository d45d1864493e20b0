package model

import (
	"context"
	"sync"
)

// turns bounds how many do something at once, in all and for one key, such as a site. Others wait.
type turns struct {
	all, each int
	mu        sync.Mutex
	running   int
	of        map[string]int
	waiting   []*waiter // in their order
}

type waiter struct {
	key   string
	begin chan struct{} // closed when it is its turn
}

// take waits for a turn, which done ends; the error is that of ctx.
func (t *turns) take(ctx context.Context, key string) (done func(), err error) {
	t.mu.Lock()
	w := &waiter{key, make(chan struct{})}
	t.waiting = append(t.waiting, w)
	t.next()
	t.mu.Unlock()
	select {
	case <-w.begin:
		return func() { t.end(key) }, nil
	case <-ctx.Done():
	}
	t.mu.Lock()
	defer t.mu.Unlock()
	for i, o := range t.waiting {
		if o == w {
			t.waiting = append(t.waiting[:i], t.waiting[i+1:]...)
			return nil, ctx.Err()
		}
	}
	t.leave(key) // its turn came at the same moment
	return nil, ctx.Err()
}

func (t *turns) end(key string) {
	t.mu.Lock()
	defer t.mu.Unlock()
	t.leave(key)
}

func (t *turns) leave(key string) {
	t.running--
	if t.of[key]--; t.of[key] == 0 {
		delete(t.of, key)
	}
	t.next()
}

// next lets those begin whose turn it is.
func (t *turns) next() {
	if t.of == nil {
		t.of = map[string]int{}
	}
	for i := 0; i < len(t.waiting) && t.running < t.all; {
		w := t.waiting[i]
		if t.of[w.key] >= t.each {
			i++
			continue
		}
		t.waiting = append(t.waiting[:i], t.waiting[i+1:]...)
		t.running++
		t.of[w.key]++
		close(w.begin)
	}
}
