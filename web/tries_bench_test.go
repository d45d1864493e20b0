package web

import (
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"
)

// A try on a section of 60 blocks, from request to answer.
func BenchmarkTry60(b *testing.B) {
	p := begin(b)
	d := p.as("designer@example.org")
	parts := []string{`{"op":"section.add","after":"","preset":"empty"}`}
	for i := range 60 {
		kind := []string{"text", "heading", "button"}[i%3]
		parts = append(parts, fmt.Sprintf(`{"op":"block.add","node":"@1","kind":%q,"zone":"desktop"}`, kind))
	}
	status, body, _ := d.post(
		"/sites/skerry/pages/home/edits",
		url.Values{"command": {`{"op":"many","parts":[` + strings.Join(parts, ",") + `]}`}, "width": {"1280"}},
	)
	if status != http.StatusOK {
		b.Fatalf("%d %.300s", status, body)
	}
	section := p.home().Sections[0].ID
	for b.Loop() {
		status, _, _ := d.post("/sites/skerry/pages/home/tries", url.Values{
			"command": {`{"op":"set","node":"` + section + `","zone":"desktop","setting":"min-height","value":"400"}`},
		})
		if status != http.StatusOK {
			b.Fatal(status)
		}
	}
}

// A section of 200 blocks moved at once, from request to answer.
func BenchmarkMove200(b *testing.B) {
	p := begin(b)
	d := p.as("designer@example.org")
	send := func(command string) {
		b.Helper()
		status, body, _ := d.post("/sites/skerry/pages/home/edits", url.Values{"command": {command}, "width": {"1280"}})
		if status != http.StatusOK {
			b.Fatalf("%d %.300s", status, body)
		}
	}
	seq := 0
	add := func(node string, n int, first string) {
		var parts []string
		if first != "" {
			parts = append(parts, first)
		}
		for i := range n {
			kind := []string{"text", "heading", "button"}[i%3]
			parts = append(
				parts,
				fmt.Sprintf(
					`{"op":"block.add","node":%q,"kind":%q,"zone":"desktop","place":{"column":%d,"span":3,"row":%d,"rows":3}}`,
					node,
					kind,
					1+i%4*3,
					1+i/4*4,
				),
			)
		}
		send(fmt.Sprintf(`{"op":"many","base":%d,"parts":[%s]}`, seq, strings.Join(parts, ",")))
		seq++
	}
	add("@1", 90, `{"op":"section.add","after":"","preset":"empty"}`)
	section := p.home().Sections[0].ID
	add(section, 90, "")
	add(section, 20, "")
	var rest []string
	for _, block := range p.home().Sections[0].Blocks[1:] {
		rest = append(rest, `"`+block.ID+`"`)
	}
	first := p.home().Sections[0].Blocks[0].ID
	for i := 0; b.Loop(); i++ {
		send(
			fmt.Sprintf(
				`{"op":"blocks.nudge","base":%d,"node":%q,"with":[%s],"zone":"desktop","dx":0,"dy":%d}`,
				seq,
				first,
				strings.Join(rest, ","),
				1-i%2*2,
			),
		)
		seq++
	}
}
