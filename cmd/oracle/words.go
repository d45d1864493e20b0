package main

import (
	"bufio"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"os"
	"strings"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/element"
	"openplot/core/emit"
	"openplot/demo"
)

// words prints n random rich texts: each as JSON, and as the canvas shows it. What a browser
// made of them comes back to wordsBack.
func words(n int, seed uint64) error {
	g := &generator{r: rand.New(rand.NewPCG(seed, 1)), site: demo.Site()}
	out := bufio.NewWriter(os.Stdout)
	lines := json.NewEncoder(out)
	for range n {
		w := g.words(1 + g.r.IntN(6))
		for _, p := range w { // as ParseWords leaves them
			for i := range p {
				p[i].Text = strings.ReplaceAll(p[i].Text, "\u00ad", "")
				if i == len(p)-1 {
					p[i].Text = strings.TrimSuffix(p[i].Text, " ")
				}
			}
		}
		w, err := edit.ParseWords(shownWords(g.site, w))
		if err != nil {
			return fmt.Errorf("reading %v: %w", w, err)
		}
		if err := lines.Encode(map[string]any{"words": w, "html": shownWords(g.site, w)}); err != nil {
			return fmt.Errorf("writing: %w", err)
		}
	}
	return out.Flush()
}

// shownWords gives words as the canvas shows them in a text.
func shownWords(s *doc.Site, w doc.Words) string {
	sec := &doc.Section{
		ID:          "s",
		Arrangement: doc.LineUp,
		Blocks:      []*doc.Block{{ID: "b", Kind: doc.Text, Content: doc.Content{Words: w}}},
	}
	b := element.Builder{Site: s}
	var out strings.Builder
	sheet := emit.NewCanvasSheet(s.Zones, "s")
	b.Section(sec).Walk(func(n *element.Node) {
		if n.Block == "b" {
			for _, c := range n.Children {
				sheet.Write(&out, c)
			}
		}
	})
	return out.String()
}

// wordsBack reads HTML from standard input, a JSON text a line, and prints for each the words
// that they are and how the canvas shows these.
func wordsBack() error {
	in, out := json.NewDecoder(bufio.NewReader(os.Stdin)), bufio.NewWriter(os.Stdout)
	lines := json.NewEncoder(out)
	s := demo.Site()
	for in.More() {
		var text string
		if err := in.Decode(&text); err != nil {
			return fmt.Errorf("reading: %w", err)
		}
		w, err := edit.ParseWords(text)
		if err != nil {
			return fmt.Errorf("reading %.200q: %w", text, err)
		}
		if err := lines.Encode(map[string]any{"words": w, "html": shownWords(s, w)}); err != nil {
			return fmt.Errorf("writing: %w", err)
		}
	}
	return out.Flush()
}
