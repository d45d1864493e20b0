package model

import (
	"fmt"
	"slices"
	"strings"
	"sync"
	"time"
	"unsafe"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/emit"
	"openplot/core/layout"
	"openplot/core/place"
	"openplot/core/shape"
	"openplot/core/style"
	"openplot/core/value"
	"openplot/metrics"
	"openplot/site"
	"openplot/store"
)

// What checks need of a Stage.
type (
	sceneChecks struct{ *Stage } // its sections laid out and drawn
)

// Stage is what the scenes of one page are made with.
type Stage struct {
	Site     *store.Site
	Source   site.Source
	Builder  *element.Builder
	workshop *Workshop
	lib      *shape.Library
	look     string            // changes when the house style or the pages' names do
	media    map[string]string // each one's words and files, by id
	key      string            // look, and the page
	passing  bool              // scenes aren't remembered
}

// For gives the stage of another page of the same site.
func (st *Stage) For(slug string) *Stage {
	c := *st
	c.key = st.look + " " + slug
	if st.Builder != nil { // of another page: all but where it stands is the same
		b := *st.Builder
		b.Here, c.Builder = slug, &b
		return &c
	}
	prefix := st.workshop.mediaURL
	c.Builder = st.Source.Builder(
		slug,
		site.Addresses{Media: prefix, StyleMedia: prefix, Scenes: site.ScenesPath, StyleScenes: site.ScenesPath},
	)
	c.Builder.Still = true
	return &c
}

// on has a builder build sections of a page; how far down they reach is remembered.
func (st *Stage) on(p *doc.Page, b *element.Builder) {
	b.On(p)
	b.Reach = func(s *doc.Section, zone int) float64 { return st.scene(p, s).reaches()[zone] }
}

// Media are the site's pictures and videos.
func (st *Stage) Media() []*store.Medium { return st.Source.Media }

// inForce gives what holds in a zone where the settings of a section or a block in it
// aren't set, by setting: what building it falls back to.
func (st *Stage) inForce(sec *doc.Section, node string, zone int) map[string]string {
	b := *st.Builder
	holds := map[string]string{}
	b.Kept, b.Watched = nil, node
	b.Instead = func(z int, setting, instead string) {
		if z == zone {
			holds[setting] = instead
		}
	}
	b.Section(sec)
	return holds
}

// Passing gives the stage for drawings that are kept elsewhere: nothing made on it is
// remembered.
func (st *Stage) Passing() *Stage {
	c := *st
	c.passing = true
	return &c
}

// Library has the fonts that the site's words are shaped in.
func (st *Stage) Library() *shape.Library { return st.lib }

// Medium tells what a file of the site's library is good for.
func (st *Stage) Medium(id string) doc.MediumSort {
	if m, ok := st.Builder.Media(id); ok {
		return m.Sort()
	}
	return ""
}

// OwnFaces gives the rules of the site's own fonts.
func (st *Stage) OwnFaces() (faces []emit.FontFace) {
	for _, f := range st.Source.Fonts {
		faces = append(faces, site.OwnFontFace(f, "/fonts/own/"+f.File))
	}
	return faces
}

// scene is a section made ready to show: its elements, its text for the canvas
// and its boxes at the widths asked for. Sections never change, so that neither
// does a scene.
type scene struct {
	node      *element.Node
	tree      *layout.Tree
	HTML, CSS string

	mu    sync.Mutex
	boxes map[float64]*layout.Box
	down  []float64 // how far down it reaches, by zone, once asked for
}

// reaches gives how far down a section reaches in each zone, px.
func (s *scene) reaches() []float64 {
	s.mu.Lock()
	defer s.mu.Unlock()
	for z := len(s.down); z < len(s.node.Styles); z++ {
		s.down = append(s.down, s.tree.Reach(z))
	}
	return s.down
}

// weight is about what a scene takes, in bytes, with as many boxes as it may keep.
func (s *scene) weight() int {
	nodes, styles := 0, 0
	s.node.Walk(func(n *element.Node) { nodes, styles = nodes+1, styles+len(n.Styles) })
	return len(s.HTML) + len(s.CSS) + nodes*nodeBytes + styles*int(unsafe.Sizeof(style.Style{}))
}

// nodeBytes is about what an element takes beside its styles, with what layout keeps of it and its
// boxes (measured, see TestScenesWeigh).
const nodeBytes = 4000

// maxBoxes is at how many widths a scene's boxes are kept.
const maxBoxes = 8

// at gives the section's boxes at a width.
func (s *scene) at(width float64) *layout.Box {
	s.mu.Lock()
	defer s.mu.Unlock()
	if b := s.boxes[width]; b != nil {
		return b
	}
	if len(s.boxes) > maxBoxes {
		clear(s.boxes)
	}
	start := time.Now()
	b := s.tree.At(width)
	metrics.Since(metrics.Layouts, start)
	s.boxes[width] = b
	return b
}

// around tells scenes of one section apart by what they show of others: what a divider passes
// into, the views that a menu lists, the room that a bar takes.
func (st *Stage) around(p *doc.Page, sec *doc.Section) string {
	var views strings.Builder
	sec.Walk(func(b *doc.Block) {
		if b.Kind == doc.Menu && b.Content.Values["from"] == value.Views {
			fmt.Fprint(&views, p.Views(), " ")
		}
	})
	over := place.Over(p, st.Site.Zones)
	for z := range st.Site.Zones {
		if bar := over(sec, z); bar != nil {
			fmt.Fprint(&views, "under ", st.scene(p, bar).reaches()[z], " ")
		}
	}
	if !sec.Divided() && sec.Style["pull"] == nil {
		return views.String()
	}
	neighbours := place.Neighbours(p, st.Site.Zones)
	for z := range st.Site.Zones {
		above, below := neighbours(sec, z)
		for _, s := range []*doc.Section{above, below} {
			if s != nil {
				fmt.Fprint(&views, s.Style["background"], s.Style["gradient"])
			}
			fmt.Fprint(&views, " ")
		}
	}
	return views.String()
}

// shown tells the media that a section shows: with other words or files it looks different.
func (st *Stage) shown(sec *doc.Section) string {
	var ms []string
	sec.EachValue(func(v string) {
		if m, ok := st.media[v]; ok && v != "" {
			ms = append(ms, m)
		}
	})
	slices.Sort(ms) // values come in any order
	return strings.Join(ms, "")
}

// scene gives the scene of a section of a page, from memory when nothing changed.
func (st *Stage) scene(p *doc.Page, sec *doc.Section) *scene {
	k := sceneKey{sec, st.key + p.Ground + st.around(p, sec) + st.shown(sec)}
	if sc, ok := st.workshop.scenes.Get(k); ok {
		return sc
	}
	sc := &scene{boxes: map[float64]*layout.Box{}}
	sc.HTML, sc.CSS, sc.node = st.write(p, sec)
	sc.tree = layout.New(st.lib, st.Site.Zones, sc.node)
	if !st.passing {
		st.workshop.scenes.Put(k, sc, sec)
	}
	return sc
}

// write gives a section's text for the canvas, and its elements.
func (st *Stage) write(p *doc.Page, sec *doc.Section) (html, css string, n *element.Node) {
	st.on(p, st.Builder)
	n = st.Builder.Section(sec)
	sheet := emit.NewCanvasSheet(st.Site.Zones, sec.ID)
	var b strings.Builder
	sheet.Write(&b, n)
	return b.String(), sheet.CSS(), n
}
