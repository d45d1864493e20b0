package element

import (
	"cmp"
	"hash/fnv"

	"openplot/core/doc"
)

// standIn gives what stands in for a picture that isn't chosen, as wide to high as ratio; it
// reports whether anything does.
func (b *Builder) standIn(ratio float64) (Medium, bool) {
	if b.StandIn == nil || len(b.Scenes) == 0 {
		return emptyMedium, !b.DropEmpty
	}
	crop := "square"
	switch {
	case ratio > 1.2:
		crop = "wide"
	case ratio < 0.9:
		crop = "tall"
	}
	n := b.standing - 1 // of this one, which is counted
	if b.faces {
		return b.StandIn("person", crop, n), true
	}
	return b.StandIn(b.Scenes[n%len(b.Scenes)], crop, n), true
}

// startOf is where a section begins to go through the scenes, so that not all begin alike.
func startOf(s *doc.Section) int {
	sum := fnv.New32a()
	_, _ = sum.Write([]byte(cmp.Or(s.Made, s.ID))) // what is ready-made looks as it does on the Shelf
	return int(sum.Sum32() % 64)
}
