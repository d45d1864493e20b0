// Package migrate brings documents of older formats up to date: pages, sections, steps
// and commands of logs, as JSON.
//
// It works on JSON alone and not on the types of package doc, which go on changing, so
// that each step of a document's life stays as it was written. doc.Format is the format
// that this version reads and writes; a document says its own. Start at Page.
package migrate

import (
	"bytes"
	"encoding/json"
	"fmt"

	"openplot/core/doc"
)

// object is a JSON object.
type object = map[string]any

// Page brings a page up to date; one of this version's format is given back as it is.
// A page of a newer format is an error.
func Page(page []byte) ([]byte, error) {
	o, err := read(page)
	if err != nil {
		return nil, fmt.Errorf("reading a page: %w", err)
	}
	format := 1 // pages of the first didn't say
	if n, ok := o["format"].(json.Number); ok {
		n, err := n.Int64()
		if err != nil {
			return nil, fmt.Errorf("reading a page's format: %w", err)
		}
		format = int(n)
	}
	if format > doc.Format {
		return nil, doc.FormatError{Format: format}
	}
	if format == doc.Format {
		return page, nil
	}
	stablePage(o)
	return json.Marshal(o)
}

// Edition brings the source of an edition, written in format 1, up to date.
func Edition(source []byte) ([]byte, error) {
	return change(source, func(o object) {
		if p, ok := o["Page"].(object); ok {
			stablePage(p)
		}
	})
}

// Section brings a section by itself, written in format 1, up to date.
func Section(section []byte) ([]byte, error) {
	return change(section, stableSection)
}

// Steps brings a log's steps, written in format 1, up to date.
func Steps(steps []byte) ([]byte, error) {
	d := json.NewDecoder(bytes.NewReader(steps))
	d.UseNumber()
	var list []any
	if err := d.Decode(&list); err != nil {
		return nil, fmt.Errorf("reading steps: %w", err)
	}
	each(list, func(o object) {
		if s, ok := o["section"].(object); ok {
			stableSection(s)
		}
		if b, ok := o["block"].(object); ok {
			stableBlock(b)
		}
	})
	return json.Marshal(list)
}

// Command brings a log's command, written in format 1, up to date.
func Command(command []byte) ([]byte, error) {
	return change(command, stableCommand)
}

func change(text []byte, f func(object)) ([]byte, error) {
	o, err := read(text)
	if err != nil {
		return nil, err
	}
	f(o)
	return json.Marshal(o)
}

func read(text []byte) (object, error) {
	d := json.NewDecoder(bytes.NewReader(text))
	d.UseNumber() // so that numbers come out as they went in
	var o object
	if err := d.Decode(&o); err != nil {
		return nil, err
	}
	return o, nil
}

// each calls f for the objects of a list.
func each(list any, f func(object)) {
	l, _ := list.([]any)
	for _, e := range l {
		if o, ok := e.(object); ok {
			f(o)
		}
	}
}
