package web

import (
	"context"
	"fmt"
	"hash/fnv"
	"strings"
	"sync"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/emit"
	"openplot/core/layout"
	"openplot/core/shape"
	"openplot/site"
	"openplot/store"
)

// scene is a section made ready to show: its elements, its text for the canvas
// and its boxes at the widths asked for. Sections never change, so that neither
// does a scene.
type scene struct {
	node      *element.Node
	tree      *layout.Tree
	HTML, CSS string

	mu    sync.Mutex
	boxes map[float64]*layout.Box
}

// at gives the section's boxes at a width.
func (s *scene) at(width float64) *layout.Box {
	s.mu.Lock()
	defer s.mu.Unlock()
	if b := s.boxes[width]; b != nil {
		return b
	}
	if len(s.boxes) > 8 {
		clear(s.boxes)
	}
	b := s.tree.At(width)
	s.boxes[width] = b
	return b
}

// stage is what scenes of one site are made with.
type stage struct {
	site    *store.Site
	source  site.Source
	media   []*store.Medium
	builder *element.Builder
	lib     *shape.Library
	key     string // changes when the house style or the media do
	server  *Server
}

// stage prepares a page of a site, "" being the home page.
func (s *Server) stage(ctx context.Context, st *store.Site, slug string) (*stage, error) {
	media, err := s.Store.Media(ctx, st.ID)
	if err != nil {
		return nil, err
	}
	pages, err := s.Store.Pages(ctx, st.ID)
	if err != nil {
		return nil, err
	}
	own, err := s.Store.Fonts(ctx, st.ID)
	if err != nil {
		return nil, err
	}
	lib, err := s.libraries.of(s, own)
	if err != nil {
		return nil, err
	}
	// Menus and other lists show pages' names; pictures have their words and files.
	names := fnv.New64a()
	for _, p := range pages {
		fmt.Fprintf(names, "%q %q %q ", p.Slug, p.Name, p.Description)
	}
	for _, m := range media {
		fmt.Fprintf(names, "%q %q %q %v ", m.ID, m.Alt, m.Focal, m.Variants)
	}
	for _, f := range own {
		fmt.Fprintf(names, "%q %q ", f.Family, f.File)
	}
	prefix := s.PagesURL + "/media/"
	src := site.Source{Site: &st.Site, Media: media, Pages: pages, Fonts: own}
	builder := src.Builder(slug, site.Addresses{Media: prefix, StyleMedia: prefix})
	builder.Still = true
	return &stage{
		site: st, source: src, media: media, server: s,
		builder: builder, lib: lib,
		key: fmt.Sprint(st.ID, " ", st.Version, " ", st.Worn, " ", names.Sum64(), " ", slug),
	}, nil
}

func (st *stage) hasPicture(id string) bool {
	m, ok := st.builder.Media(id)
	return ok && m.Video == ""
}

func (st *stage) hasVideo(id string) bool {
	m, ok := st.builder.Media(id)
	return ok && m.Video != ""
}

// scene gives a section's scene, from memory when nothing changed.
func (st *stage) scene(sec *doc.Section) *scene {
	k := sceneKey{sec, st.key}
	cache := &st.server.scenes
	if sc := cache.get(k); sc != nil {
		return sc
	}
	sc := &scene{node: st.builder.Section(sec), boxes: map[float64]*layout.Box{}}
	sc.tree = layout.New(st.lib, st.site.Zones, sc.node)
	sheet := emit.NewCanvasSheet(st.site.Zones, sec.ID)
	var b strings.Builder
	sheet.Write(&b, sc.node)
	sc.HTML, sc.CSS = b.String(), sheet.CSS()
	cache.put(k, sc)
	return sc
}

type sceneKey struct {
	section *doc.Section
	stage   string
}

// sceneCache keeps the scenes last made.
type sceneCache struct {
	mu         sync.Mutex
	young, old map[sceneKey]*scene
}

// maxScenes is how many scenes a generation has; two are kept.
const maxScenes = 500

func (c *sceneCache) get(k sceneKey) *scene {
	c.mu.Lock()
	defer c.mu.Unlock()
	if sc := c.young[k]; sc != nil {
		return sc
	}
	sc := c.old[k]
	if sc != nil {
		c.young[k] = sc
	}
	return sc
}

func (c *sceneCache) put(k sceneKey, sc *scene) {
	c.mu.Lock()
	defer c.mu.Unlock()
	if c.young == nil || len(c.young) >= maxScenes {
		c.old, c.young = c.young, map[sceneKey]*scene{}
	}
	c.young[k] = sc
}
