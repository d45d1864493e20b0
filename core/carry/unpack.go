package carry

import (
	"bytes"
	"encoding/json"
	"errors"
	"io"
	"strings"

	"openplot/core/doc"
)

// What comes from outside as JSON is counted before anything is built of it: a few kB of empty
// objects would become gigabytes of sections.

// Limits of what JSON from outside may hold, nested ones included.
const (
	maxNesting = 100
	maxValues  = 300_000 // of a page, or a list of pages and media
	FewValues  = 100_000 // of a command, the clipboard, a house style
)

// ErrMuch means that JSON holds more than is taken.
var ErrMuch = errors.New("it holds more than there can be")

// Unpack reads JSON from outside, of so many values at most, into what it is to be. Errors are
// *doc.Problem when it holds too much, otherwise of encoding/json.
func Unpack(b []byte, into any, most int, field string) error {
	if err := CountValues(b, most); err != nil {
		var problem *doc.Problem
		switch {
		case errors.As(err, &problem):
			return problem
		case errors.Is(err, ErrMuch):
			return doc.Problemf(field, "holds more than %d values, or more than %d within each other", most, maxNesting)
		}
	}
	return json.Unmarshal(b, into) // which says best what is wrong with it
}

// CountValues holds JSON to limits. What isn't JSON is no concern of its.
func CountValues(b []byte, most int) error {
	type level struct {
		array bool
		name  string // of the member that holds it
	}
	d := json.NewDecoder(bytes.NewReader(b))
	var levels []level
	name, named := "", false // that the next value has
	values, counts := 0, map[string]int{}
	limits := map[string]int{"sections": doc.MaxSections, "blocks": doc.MaxBlocks}
	for {
		t, err := d.Token()
		if errors.Is(err, io.EOF) {
			return nil
		}
		if err != nil {
			return err
		}
		in := level{}
		if n := len(levels); n > 0 {
			in = levels[n-1]
		}
		if end, ok := t.(json.Delim); ok && (end == '}' || end == ']') {
			levels, named = levels[:len(levels)-1], false
			continue
		}
		if text, ok := t.(string); ok && len(levels) > 0 && !in.array && !named {
			name, named = text, true
			continue
		}
		if values++; values > most {
			return ErrMuch
		}
		of := name
		if in.array {
			of = in.name
			for kind, limit := range limits { // as encoding/json matches names
				if strings.EqualFold(of, kind) {
					if counts[kind]++; counts[kind] > limit {
						return doc.Problemf(
							doc.Capital(kind),
							"are more than %d, the most there can be",
							limit,
						)
					}
				}
			}
		}
		if begin, ok := t.(json.Delim); ok {
			if len(levels) == maxNesting {
				return ErrMuch
			}
			levels = append(levels, level{array: begin == '[', name: of})
		}
		named = false
	}
}
