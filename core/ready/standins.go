package ready

import (
	"slices"
	"strconv"
	"strings"
	"sync"

	"openplot/core/doc"
	"openplot/core/element"
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

// said is what a kind of block says.
type said struct {
	kind  doc.Kind
	words string
}

// begun has what each ready-made section says to begin with, whatever the site was for then,
// by its id. It is asked at every edit, and made when it is first asked for.
var begun sync.Map

func beginnings(p *Preset) map[said]bool {
	if known, ok := begun.Load(p.ID); ok {
		return known.(map[said]bool)
	}
	all := map[said]bool{}
	for i := range len(Businesses) + 1 {
		var business *Business
		if i > 0 {
			business = &Businesses[i-1]
		}
		for _, of := range p.Look(business).Blocks {
			of.Walk(func(b *doc.Block) {
				sayings(b, func(_, words string) { all[said{b.Kind, words}] = true })
				for _, it := range b.Items {
					b.Walk(func(in *doc.Block) { all[said{in.Kind, it.Contents[in.ID].Words.Plain()}] = true })
				}
			})
		}
	}
	begun.Store(p.ID, all)
	return all
}

// StandIns tells which blocks of a section still say what they began with: the words of
// their kind, or of the ready-made section that they came with.
func StandIns(sec *doc.Section) func(b *doc.Block) bool {
	var made map[said]bool
	if p := FindPreset(sec.Made); p != nil {
		made = beginnings(p)
	}
	return func(b *doc.Block) bool {
		words := b.Content.Words.Plain()
		return words != "" && (made[said{b.Kind, words}] || words == element.Start(b.Kind).Content.Words.Plain())
	}
}

// sayings calls f for all that a block says: its words, as part "", and those of its entries, as
// parts such as "2" and "2.title".
func sayings(b *doc.Block, f func(part, words string)) {
	f("", b.Content.Words.Plain())
	for i, e := range b.Content.Entries {
		at := strconv.Itoa(i)
		f(at, e.Words.Plain())
		for name, v := range e.Values {
			f(at+"."+name, v)
		}
	}
}

// usual has what each kind of block says to begin with.
var usual = sync.OnceValue(func() map[said]bool {
	all := map[said]bool{}
	for _, kind := range doc.Kinds {
		sayings(element.Start(kind), func(_, words string) { all[said{kind, words}] = true })
	}
	return all
})

// StandInParts tells which parts of a block's entries still say what they began with.
func StandInParts(sec *doc.Section) func(b *doc.Block) []string {
	var made map[said]bool
	if p := FindPreset(sec.Made); p != nil {
		made = beginnings(p)
	}
	return func(b *doc.Block) (parts []string) {
		if len(b.Content.Entries) == 0 {
			return nil
		}
		sayings(b, func(part, words string) {
			if s := (said{b.Kind, words}); part != "" && words != "" && (made[s] || usual()[s]) {
				parts = append(parts, part)
			}
		})
		slices.Sort(parts)
		return parts
	}
}
