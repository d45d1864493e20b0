package site

import (
	"os"
	"path/filepath"
	"sync"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/layout"
	"openplot/core/shape"
	"openplot/fonts"
	"openplot/store"
)

// OwnLibrary gives fonts with a site's own beside them, whose files are in a folder, and how many
// bytes those have. One that can't be read is left out and told of.
func OwnLibrary(
	shipped *shape.Library,
	own []*store.Font,
	mediaDir string,
	broken func(f *store.Font, err error),
) (lib *shape.Library, bytes int) {
	if len(own) == 0 {
		return shipped, 0
	}
	lib = shipped.With()
	for _, f := range own {
		b, err := os.ReadFile(filepath.Join(mediaDir, f.Original))
		if bytes += len(b); err == nil {
			err = lib.Add(f.Family, f.Italic, [2]int{f.Least, f.Most}, b)
		}
		if err != nil {
			broken(f, err)
		}
	}
	return lib, bytes
}

// library gives the fonts that pages are laid out with, read when they are first asked for. One
// of the site's own that can't be read was told of when it was edited with; what isn't there has
// no measure of its own.
func (src Source) library(mediaDir string) func() *shape.Library {
	return sync.OnceValue(func() *shape.Library {
		shipped, err := fonts.Library()
		if err != nil {
			return shape.NewLibrary()
		}
		lib, _ := OwnLibrary(shipped, src.Fonts, mediaDir, func(*store.Font, error) {})
		return lib
	})
}

// reach gives how far down a section of a page reaches, laid out as the builder has it, each once.
func reach(b *element.Builder, lib func() *shape.Library) func(s *doc.Section, zone int) float64 {
	trees := map[*doc.Section]*layout.Tree{}
	return func(s *doc.Section, zone int) float64 {
		if trees[s] == nil {
			alone := *b
			alone.Over, alone.Kept, alone.Watched = nil, nil, ""
			trees[s] = layout.New(lib(), b.Site.Zones, alone.Section(s))
		}
		return trees[s].Reach(zone)
	}
}
