// Command oracle writes pages with the boxes that package layout computes for
// them, for e2e/oracle.mjs to hold against Chromium.
//
//	oracle DIR [pages [seed]]
//
// DIR gets, per page, NAME.html (self-contained but for fonts/) and NAME.json: at
// each width, the box of every element in document order.
package main

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"os"
	"path/filepath"
	"strconv"
	"strings"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/emit"
	"openplot/core/layout"
	"openplot/demo"
	"openplot/fonts"
	"openplot/site"
)

// widths are those compared: around the zones' boundaries, and typical ones.
var widths = []float64{320, 375, 412, 540, 639, 640, 800, 1023, 1024, 1280, 1440, 1920}

func main() {
	if len(os.Args) < 2 {
		fmt.Fprintln(os.Stderr, "usage: oracle DIR [pages [seed]]")
		os.Exit(2)
	}
	pages, seed := 20, 1
	if len(os.Args) > 2 {
		pages, _ = strconv.Atoi(os.Args[2])
	}
	if len(os.Args) > 3 {
		seed, _ = strconv.Atoi(os.Args[3])
	}
	if err := run(os.Args[1], pages, uint64(seed)); err != nil {
		fmt.Fprintln(os.Stderr, "oracle:", err)
		os.Exit(1)
	}
}

func run(dir string, pages int, seed uint64) error {
	if err := os.MkdirAll(filepath.Join(dir, "fonts"), 0o755); err != nil {
		return fmt.Errorf("making the folder: %w", err)
	}
	for _, f := range fonts.Faces {
		b, err := fonts.Files.ReadFile("files/" + f.File)
		if err != nil {
			return fmt.Errorf("reading font: %w", err)
		}
		if err := os.WriteFile(filepath.Join(dir, "fonts", f.File), b, 0o644); err != nil {
			return fmt.Errorf("writing font: %w", err)
		}
	}
	s := demo.Site()
	pictures := map[string]string{}
	for _, name := range demo.PictureNames() {
		pictures[name] = name
	}
	if err := write(dir, "demo-home", s, demo.Home(pictures)); err != nil {
		return err
	}
	if err := write(dir, "demo-winter", s, demo.WinterWeekend(pictures)); err != nil {
		return err
	}
	for i := range pages {
		r := rand.New(rand.NewPCG(seed, uint64(i)))
		if err := write(dir, fmt.Sprintf("generated-%d-%04d", seed, i), s, Generate(r, s)); err != nil {
			return err
		}
	}
	return nil
}

type box struct {
	Name  string  `json:"name"`
	X     float64 `json:"x"`
	Y     float64 `json:"y"`
	W     float64 `json:"w"`
	H     float64 `json:"h"`
	Lines int     `json:"lines"`
}

func write(dir, name string, s *doc.Site, p *doc.Page) error {
	b := element.Builder{Site: s, Media: func(id string) (element.Medium, bool) {
		return element.Medium{ID: id, Width: 1440, Height: 1080, Variants: []element.Variant{{URL: "picture.svg", StyleURL: "picture.svg", Width: 1440}}}, id != ""
	}}
	body := b.Page(p)
	lib, err := fonts.Library()
	if err != nil {
		return err
	}
	tree := layout.New(lib, s.Zones, body)
	boxes := map[string][]box{}
	for _, w := range widths {
		var list []box
		byNode := map[*element.Node]box{}
		tree.At(w).Walk(func(b *layout.Box, x, y float64) {
			byNode[b.Node] = box{b.Node.Tag + " " + b.Node.Key, x, y, b.W, b.H, len(b.Lines)}
		})
		body.Walk(func(n *element.Node) {
			if v, ok := byNode[n]; ok {
				list = append(list, v)
			}
		})
		boxes[strconv.Itoa(int(w))] = list
	}
	var css strings.Builder
	for _, f := range fonts.Faces {
		css.WriteString(site.FontFace(f, "fonts/").CSS("block"))
	}
	sheet := emit.NewSheet(s.Zones)
	document, rules := sheet.Document(emit.Page{Title: name, Language: "en", Stylesheet: name + ".css"}, body)
	for file, content := range map[string]string{name + ".html": document, name + ".css": css.String() + rules} {
		if err := os.WriteFile(filepath.Join(dir, file), []byte(content), 0o644); err != nil {
			return fmt.Errorf("writing: %w", err)
		}
	}
	text, err := json.Marshal(boxes)
	if err != nil {
		return fmt.Errorf("writing boxes: %w", err)
	}
	return os.WriteFile(filepath.Join(dir, name+".json"), text, 0o644)
}
