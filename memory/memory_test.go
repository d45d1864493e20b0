package memory

import (
	"fmt"
	"math/rand/v2"
	"sync"
	"testing"
)

func TestBudget(t *testing.T) {
	b := New(10 * (1000 + overhead))
	words := Of[string](b, func(s string) int { return len(s) })
	numbers := Of[int](b, func(n int) int { return n })
	text := string(make([]byte, 1000))
	for i := range 10 {
		words.Put(fmt.Sprint(i), text, i%2)
	}
	if b.Len() != 10 || b.Used() != 10*(1000+overhead) {
		t.Fatal(b.Len(), b.Used())
	}
	if _, ok := words.Get("0"); !ok {
		t.Error("the first is gone")
	}
	numbers.Put(0, 1000, nil) // of another cache, with a key that looks the same
	if _, ok := words.Get("1"); ok {
		t.Error("what was asked for longest ago is there")
	}
	if _, ok := words.Get("0"); !ok {
		t.Error("what was asked for last is gone")
	}
	if n, ok := numbers.Get(0); !ok || n != 1000 {
		t.Error(n, ok)
	}
	b.Drop(0)
	if b.Len() != 5 { // 3, 5, 7, 9 and the number
		t.Error(b.Len())
	}
	words.Put("3", "lighter", nil) // no longer of anything
	b.Drop(1)
	if _, ok := words.Get("3"); !ok || b.Len() != 2 || b.Used() != int64(len("lighter"))+1000+2*overhead {
		t.Error(b.Len(), b.Used())
	}
	numbers.Put(1, 1<<40, nil)
	if _, ok := numbers.Get(1); ok || b.Len() != 2 {
		t.Error("something is remembered that doesn't fit")
	}
}

// Whatever is done, by however many, the budget is kept, and what is counted is what is there.
func TestBudgetIsKept(t *testing.T) {
	const most = 50_000
	b := New(most)
	var all sync.WaitGroup
	for range 4 {
		c := Of[int](b, func(n int) int { return n })
		all.Go(func() {
			for range 5000 {
				switch n := rand.IntN(100); {
				case n < 60:
					c.Put(rand.IntN(200), rand.IntN(most/3), rand.IntN(20))
				case n < 90:
					c.Get(rand.IntN(200))
				default:
					b.Drop(rand.IntN(20))
				}
				if used := b.Used(); used > most || used < 0 {
					t.Errorf("%d used", used)
				}
			}
		})
	}
	all.Wait()
	for of := range 20 {
		b.Drop(of)
	}
	if b.Used() != 0 || b.Len() != 0 || len(b.of) != 0 {
		t.Errorf("left: %d bytes, %d values, of %d", b.Used(), b.Len(), len(b.of))
	}
}
