package edit

import (
	"strings"
	"sync"

	"openplot/core/doc"
)

// leastStandIn is how long words are at least that are known as stand-ins: shorter ones, such as
// “Prices”, may well be meant.
const leastStandIn = 14

// standIns are the words of all ready-made sections, for each kind of business.
var standIns = sync.OnceValue(func() map[string]bool {
	out := map[string]bool{}
	note := func(b *doc.Block) {
		if words := strings.TrimSpace(b.Content.Words.Plain()); len([]rune(words)) >= leastStandIn {
			out[words] = true
		}
	}
	for i := range Presets {
		for k := range len(Businesses) + 1 {
			var b *Business
			if k < len(Businesses) {
				b = &Businesses[k]
			}
			for _, in := range Presets[i].Look(b).Blocks {
				in.Walk(note)
			}
		}
	}
	return out
})

// StandsIn reports whether words are those that a ready-made section came with, in the words of
// any business.
func StandsIn(words string) bool { return standIns()[strings.TrimSpace(words)] }
