package main

import (
	"fmt"
	"math/rand/v2"
	"os"
	"path/filepath"
	"strings"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/emit"
	"openplot/demo"
	"openplot/fonts"
	"openplot/icons"
	"openplot/site"
)

// specimenPictures are the sizes of the pictures on the specimens' pages, by name.
var specimenPictures = []struct {
	name          string
	width, height int
}{{"one", 1440, 1080}, {"two", 1080, 1350}, {"three", 1600, 900}, {"four", 1200, 1200}, {"five", 1500, 1000}, {"six", 900, 1200}}

func specimenIDs() (ids []string) {
	for _, p := range specimenPictures {
		ids = append(ids, p.name)
	}
	return ids
}

// specimenPicture draws one of them: hills and a sun, so that crops can be seen.
func specimenPicture(name string) (svg string, ok bool) {
	for i, p := range specimenPictures {
		if p.name != name {
			continue
		}
		r := rand.New(rand.NewPCG(uint64(i), 5))
		hue := 150 + 40*i
		var b strings.Builder
		fmt.Fprintf(
			&b,
			`<svg xmlns="http://www.w3.org/2000/svg" width="%d" height="%d" viewBox="0 0 100 100" preserveAspectRatio="none"><rect width="100" height="100" fill="hsl(%d 40%% 78%%)"/><ellipse cx="%d" cy="26" rx="9" ry="%d" fill="hsl(40 90%% 82%%)"/>`,
			p.width,
			p.height,
			hue%360,
			20+r.IntN(60),
			9*p.width/p.height,
		)
		for k := range 3 {
			y := 48 + 16*k
			fmt.Fprintf(
				&b,
				`<path d="M0 %d Q %d %d 50 %d T 100 %d V100H0z" fill="hsl(%d 35%% %d%%)"/>`,
				y, 15+r.IntN(20), y-14-r.IntN(8), y, y-r.IntN(8), hue%360, 55-13*k,
			)
		}
		b.WriteString(`</svg>`)
		return b.String(), true
	}
	return "", false
}

// specimenMedium gives one of them as pages use it, found below a prefix.
func specimenMedium(prefix string) func(id string) (element.Medium, bool) {
	return func(id string) (element.Medium, bool) {
		if id == demo.SpecimenSound {
			return element.Medium{
				ID:       id,
				Type:     "audio/mpeg",
				Variants: []element.Variant{{URL: prefix + id + ".mp3"}},
			}, true
		}
		if id == demo.SpecimenVideo {
			at := prefix + id + ".webm"
			return element.Medium{
				ID: id, Width: 960, Height: 540, Type: "video/webm",
				Variants: []element.Variant{{URL: at, StyleURL: at, Width: 960}},
			}, true
		}
		for _, p := range specimenPictures {
			if p.name == id {
				at := prefix + id + ".svg"
				return element.Medium{
					ID: id, Width: p.width, Height: p.height, Alt: "Hills under a low sun",
					Variants: []element.Variant{{URL: at, StyleURL: at, Width: p.width}},
				}, true
			}
		}
		return element.Medium{}, false
	}
}

// write writes the specimens as they would be published, a file each, into a folder
// from which they can be opened.
func write(dir string) error {
	if err := os.MkdirAll(dir, 0o755); err != nil {
		return fmt.Errorf("writing specimens: %w", err)
	}
	s := demo.Site()
	pages, err := demo.Specimens(s, specimenIDs())
	if err != nil {
		return err
	}
	for _, id := range specimenIDs() {
		svg, _ := specimenPicture(id)
		if err := os.WriteFile(filepath.Join(dir, id+".svg"), []byte(svg), 0o644); err != nil {
			return fmt.Errorf("writing specimens: %w", err)
		}
	}
	for _, f := range fonts.Faces {
		b, err := fonts.Files.ReadFile("files/" + f.File)
		if err == nil {
			err = os.WriteFile(filepath.Join(dir, f.File), b, 0o644)
		}
		if err != nil {
			return fmt.Errorf("writing specimens: %w", err)
		}
	}
	for _, p := range pages {
		html, css := specimen(s, p)
		name := filepath.Join(dir, strings.ReplaceAll(p.Name, " ", "-"))
		for ending, text := range map[string]string{".html": html, ".css": css} {
			if err := os.WriteFile(name+ending, []byte(text), 0o644); err != nil {
				return fmt.Errorf("writing specimens: %w", err)
			}
		}
	}
	return nil
}

// specimen renders a specimen's page.
func specimen(s *doc.Site, p *doc.Page) (html, css string) {
	b := element.Builder{
		Site:      s,
		Media:     specimenMedium(""),
		Icon:      icons.Drawing,
		DropEmpty: true,
		Pages:     demo.SpecimenPages,
	}
	body := b.Page(p)
	var faces []emit.FontFace
	for _, f := range fonts.Needed(emit.Used(body)) {
		faces = append(faces, site.FontFace(f, ""))
	}
	return emit.NewSheet(s.Zones).Document(
		emit.Page{
			Title:      p.Title,
			Language:   "en",
			Stylesheet: strings.ReplaceAll(p.Name, " ", "-") + ".css",
			Fonts:      faces,
		},
		body,
	)
}
