// Package memory remembers what was made, within a budget of bytes that several caches share:
// what was asked for longest ago goes first, of whichever cache it is.
//
// In come values with what they weigh, out they come again as long as there is room. Values are
// immutable or keyed by all that they are made from, so nothing has to be invalidated; what is known
// to be asked for never again can be dropped at once. Start at New and Of.
package memory

import (
	"math"
	"sync"

	"github.com/hashicorp/golang-lru/v2/simplelru"
)

// Budget is a number of bytes that caches share.
type Budget struct {
	mu    sync.Mutex
	most  int64
	used  int64
	items *simplelru.LRU[key, *item]
	of    map[any]map[key]bool // keys by what they are of
	names int
}

// key is a key of one of the caches.
type key struct {
	cache int
	key   any
}

type item struct {
	value any
	of    any
	bytes int64
}

// New makes a budget of so many bytes.
func New(bytes int64) *Budget {
	b := &Budget{most: bytes, of: map[any]map[key]bool{}}
	items, err := simplelru.NewLRU(math.MaxInt32, b.gone)
	if err != nil {
		panic(err) // only for a size below 1
	}
	b.items = items
	return b
}

// gone counts what isn't remembered any more.
func (b *Budget) gone(k key, i *item) {
	b.used -= i.bytes
	if i.of == nil {
		return
	}
	if delete(b.of[i.of], k); len(b.of[i.of]) == 0 {
		delete(b.of, i.of)
	}
}

// Used is how many bytes what is remembered weighs.
func (b *Budget) Used() int64 {
	b.mu.Lock()
	defer b.mu.Unlock()
	return b.used
}

// Len is how many values are remembered.
func (b *Budget) Len() int {
	b.mu.Lock()
	defer b.mu.Unlock()
	return b.items.Len()
}

// Drop forgets all that is of something, in whichever cache.
func (b *Budget) Drop(of any) {
	b.mu.Lock()
	defer b.mu.Unlock()
	for k := range b.of[of] {
		b.items.Remove(k)
	}
}

// Cache remembers values by keys within a budget.
type Cache[K comparable, V any] struct {
	b     *Budget
	name  int
	bytes func(V) int
}

// overhead is what remembering a value takes beside it, about, in bytes.
const overhead = 300

// Of makes a cache within a budget; bytes is what a value weighs, about, for as long as it is
// remembered.
func Of[K comparable, V any](b *Budget, bytes func(V) int) *Cache[K, V] {
	b.mu.Lock()
	defer b.mu.Unlock()
	b.names++
	return &Cache[K, V]{b, b.names, bytes}
}

// Get gives the value of a key, if it is remembered.
func (c *Cache[K, V]) Get(k K) (v V, ok bool) {
	c.b.mu.Lock()
	defer c.b.mu.Unlock()
	i, ok := c.b.items.Get(key{c.name, k})
	if !ok {
		return v, false
	}
	v, ok = i.value.(V)
	return v, ok
}

// Put remembers a value, of something that may be dropped, or nil. What weighs more than a quarter
// of the budget isn't remembered.
func (c *Cache[K, V]) Put(k K, v V, of any) {
	i := &item{v, of, int64(c.bytes(v)) + overhead}
	at := key{c.name, k}
	b := c.b
	b.mu.Lock()
	defer b.mu.Unlock()
	b.items.Remove(at)
	if i.bytes > b.most/4 {
		return
	}
	b.items.Add(at, i)
	if b.used += i.bytes; of != nil {
		if b.of[of] == nil {
			b.of[of] = map[key]bool{}
		}
		b.of[of][at] = true
	}
	for b.used > b.most {
		b.items.RemoveOldest()
	}
}
