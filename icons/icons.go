// Package icons holds the shipped icon set, bootstrap-icons without companies' signs, for the app's own screens
// and for the pages made with it.
//
// In comes an icon's name; out comes what is drawn in it, as SVG on a plane of 16 by
// 16 units. Start at Drawing.
package icons

import (
	_ "embed" // for the set
	"regexp"
	"slices"
	"strings"
	"sync"
)

//go:embed icons.svg
var sprite string

var symbol = regexp.MustCompile(`<symbol class="[^"]*" viewBox="0 0 16 16" id="([a-z0-9-]+)">(.*?)</symbol>`)

type set struct {
	drawings map[string]string
	names    []string // sorted
}

var load = sync.OnceValue(func() set {
	s := set{drawings: map[string]string{}}
	for _, m := range symbol.FindAllStringSubmatch(sprite, -1) {
		s.drawings[m[1]] = m[2]
		s.names = append(s.names, m[1])
	}
	slices.Sort(s.names)
	return s
})

// Drawing gives the SVG elements that an icon is drawn with, filled in the colour of
// the words around it.
func Drawing(name string) (svg string, ok bool) {
	svg, ok = load().drawings[name]
	return svg, ok
}

// Has reports whether there is an icon with a name.
func Has(name string) bool {
	_, ok := Drawing(name)
	return ok
}

// Find gives the names of icons that hold all words of a query, at most limit, those
// that begin with it first.
func Find(query string, limit int) []string {
	words := strings.Fields(strings.ToLower(query))
	var first, other []string
	for _, name := range load().names {
		fits := !slices.ContainsFunc(words, func(w string) bool { return !strings.Contains(name, w) })
		switch {
		case !fits:
		case len(words) > 0 && strings.HasPrefix(name, words[0]):
			first = append(first, name)
		default:
			other = append(other, name)
		}
	}
	first = append(first, other...)
	return first[:min(len(first), limit)]
}
