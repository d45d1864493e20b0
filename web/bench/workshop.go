package bench

import (
	"fmt"
	"hash/fnv"
	"html/template"
	"log/slog"
	"os"
	"path/filepath"
	"strings"

	lru "github.com/hashicorp/golang-lru/v2"

	"openplot/core/check"
	"openplot/core/doc"
	"openplot/core/shape"
	"openplot/fonts"
	"openplot/site"
	"openplot/store"
)

// Workshop makes stages, and remembers what was made for them: scenes of sections, and
// the fonts of sites that have their own.
type Workshop struct {
	mediaDir, mediaURL string
	log                *slog.Logger
	shipped            *shape.Library
	libraries          *lru.Cache[string, *shape.Library] // by the files' names
	scenes             *lru.Cache[sceneKey, *scene]
	drawings           *lru.Cache[string, template.HTML] // of ready-made sections, by stage and name
	checked            *lru.Cache[sceneKey, *checked]
	pairs              *lru.Cache[[2]*checked, []check.Finding] // of a section and the one below it
	colours            *lru.Cache[string, *check.Pixels]        // of pictures, by file
	readPixels         func(file string) (*check.Pixels, error)
}

const (
	maxLibraries = 50
	maxScenes    = 1000
	maxDrawings  = 1000
	maxChecked   = 600
	maxColours   = 500
)

// sceneKey tells scenes apart by all that they are made from.
type sceneKey struct {
	section *doc.Section
	stage   string
}

// NewWorkshop prepares one for uploads in mediaDir that are served below mediaURL, which
// ends in a slash; pixels reads the colours of one.
func NewWorkshop(mediaDir, mediaURL string, pixels func(file string) (*check.Pixels, error), log *slog.Logger) (*Workshop, error) {
	w := &Workshop{mediaDir: mediaDir, mediaURL: mediaURL, readPixels: pixels, log: log}
	var err error
	if w.shipped, err = fonts.Library(); err != nil {
		return nil, err
	}
	if w.libraries, err = lru.New[string, *shape.Library](maxLibraries); err != nil {
		return nil, fmt.Errorf("remembering fonts: %w", err)
	}
	if w.scenes, err = lru.New[sceneKey, *scene](maxScenes); err != nil {
		return nil, fmt.Errorf("remembering scenes: %w", err)
	}
	if w.drawings, err = lru.New[string, template.HTML](maxDrawings); err != nil {
		return nil, fmt.Errorf("remembering drawings: %w", err)
	}
	if w.pairs, err = lru.New[[2]*checked, []check.Finding](maxChecked); err != nil {
		return nil, err
	}
	if w.checked, err = lru.New[sceneKey, *checked](maxChecked); err != nil {
		return nil, fmt.Errorf("remembering findings: %w", err)
	}
	if w.colours, err = lru.New[string, *check.Pixels](maxColours); err != nil {
		return nil, fmt.Errorf("remembering colours: %w", err)
	}
	return w, nil
}

// Stage prepares a page of a site, "" being the home page's slug.
func (w *Workshop) Stage(st *store.Site, src site.Source, slug string) *Stage {
	// Menus and other lists show pages' names and pictures.
	names, pictures := fnv.New64a(), make(map[string]string, len(src.Media))
	for _, m := range src.Media {
		pictures[m.ID] = fmt.Sprintf("%q %q %q %v ", m.ID, m.Alt, m.Focal, m.Variants)
	}
	for _, p := range src.Pages {
		fmt.Fprintf(names, "%q %q %q %q %q ", p.Slug, p.Name, p.Description, p.Categories, pictures[p.Picture])
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
		return lib
	}
	lib := w.shipped.With()
	for _, f := range own {
		b, err := os.ReadFile(filepath.Join(w.mediaDir, f.Original))
		if err == nil {
			err = lib.Add(f.Family, f.Italic, [2]int{f.Least, f.Most}, b)
		}
		if err != nil { // it was checked when it came; the others still do their part
			w.log.Error("font", "family", f.Family, "error", err)
		}
	}
	w.libraries.Add(key.String(), lib)
	return lib
}
