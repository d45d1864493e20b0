package model

import (
	"fmt"
	"hash/fnv"
	"html/template"
	"log/slog"
	"strings"
	"unsafe"

	"openplot/core/check"
	"openplot/core/colour"
	"openplot/core/doc"
	"openplot/core/shape"
	"openplot/fonts"
	"openplot/memory"
	"openplot/site"
	"openplot/store"
)

// Workshop makes stages, and remembers what was made for them: scenes of sections, and
// the fonts of sites that have their own.
type Workshop struct {
	mediaDir, mediaURL string
	log                *slog.Logger
	shipped            *shape.Library
	budget             *memory.Budget
	libraries          *memory.Cache[string, ownLibrary] // by the files' names
	scenes             *memory.Cache[sceneKey, *scene]
	drawings           *memory.Cache[string, template.HTML]        // of ready-made sections, by stage and name
	checked            *memory.Cache[sceneKey, []check.Finding]    // in a section by itself
	pairs              *memory.Cache[[2]sceneKey, []check.Finding] // in a section and the one below it
	colours            *memory.Cache[string, *colour.Pixels]       // of pictures, by file
	readPixels         func(file string) (*colour.Pixels, error)
}

// ownLibrary is a library with fonts of a site's own, which have so many bytes.
type ownLibrary struct {
	*shape.Library
	bytes int
}

// sceneKey tells scenes apart by all that they are made from.
type sceneKey struct {
	section *doc.Section
	stage   string
}

// NewWorkshop prepares one for uploads in mediaDir that are served below mediaURL, which
// ends in a slash; pixels reads the colours of one. What it remembers counts in a budget.
func NewWorkshop(
	mediaDir, mediaURL string,
	pixels func(file string) (*colour.Pixels, error),
	budget *memory.Budget,
	log *slog.Logger,
) (*Workshop, error) {
	w := &Workshop{
		mediaDir: mediaDir, mediaURL: mediaURL, readPixels: pixels, log: log, budget: budget,
		libraries: memory.Of[string](budget, func(l ownLibrary) int { return 3 * l.bytes }),
		scenes:    memory.Of[sceneKey](budget, (*scene).weight),
		drawings:  memory.Of[string](budget, func(svg template.HTML) int { return len(svg) }),
		checked:   memory.Of[sceneKey](budget, weightOf),
		pairs:     memory.Of[[2]sceneKey](budget, weightOf),
		colours: memory.Of[string](budget, func(p *colour.Pixels) int {
			if p == nil {
				return 0
			}
			return len(p.RGBA) * int(unsafe.Sizeof(colour.Colour{}))
		}),
	}
	var err error
	w.shipped, err = fonts.Library()
	return w, err
}

// weightOf is about what findings take, in bytes.
func weightOf(fs []check.Finding) (n int) {
	for i := range fs {
		n += int(
			unsafe.Sizeof(fs[i]),
		) + 16*len(
			fs[i].Ranges,
		) + len(
			fs[i].Words,
		) + len(
			fs[i].Node,
		) + len(
			fs[i].Other,
		) + len(
			fs[i].Part,
		)
	}
	return n
}

// Replaced forgets what was made of the sections of a page that aren't on it any more: an edit
// makes new ones, and the old ones are asked for again only where it is taken back.
func (w *Workshop) Replaced(was, now *doc.Page) {
	still := map[*doc.Section]bool{}
	for _, s := range now.Sections {
		still[s] = true
	}
	for _, s := range was.Sections {
		if !still[s] {
			w.budget.Drop(s)
		}
	}
}

// Stage prepares a page of a site, "" being the home page's slug.
func (w *Workshop) Stage(st *store.Site, src site.Source, slug string) *Stage {
	// Menus and other lists show pages' names and pictures.
	names, pictures := fnv.New64a(), make(map[string]string, len(src.Media))
	for _, m := range src.Media {
		pictures[m.ID] = fmt.Sprintf("%q %q %q %v ", m.ID, m.Alt, m.Focal, m.Variants)
	}
	for _, p := range src.Pages {
		fmt.Fprintf(
			names,
			"%q %q %q %q %q %q %v ",
			site.DateOf(p, src.Site),
			p.Slug,
			p.Name,
			p.Description,
			p.Categories,
			pictures[p.Picture],
			p.Lock != "",
		)
	}
	for _, f := range src.Fonts {
		fmt.Fprintf(names, "%q %q ", f.Family, f.File)
	}
	s := &Stage{
		Site: st, Source: src, workshop: w,
		lib:   w.library(src.Fonts),
		look:  fmt.Sprint(st.ID, " ", st.Version, " ", st.Worn, " ", st.Business, " ", names.Sum64()),
		media: pictures,
	}
	return s.For(slug)
}

// library gives the shipped fonts, with a site's own where it has any.
func (w *Workshop) library(own []*store.Font) *shape.Library {
	if len(own) == 0 {
		return w.shipped
	}
	var key strings.Builder
	for _, f := range own {
		key.WriteString(f.File + " ")
	}
	if lib, ok := w.libraries.Get(key.String()); ok {
		return lib.Library
	}
	var lib ownLibrary
	// Each was checked when it came; the others still do their part.
	lib.Library, lib.bytes = site.OwnLibrary(w.shipped, own, w.mediaDir, func(f *store.Font, err error) {
		w.log.Error("font", "family", f.Family, "error", err)
	})
	w.libraries.Put(key.String(), lib, nil)
	return lib.Library
}
