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
	status, body, _ := d.post("/sites/skerry/pages/home/edits", url.Values{"command": {`{"op":"many","parts":[` + strings.Join(parts, ",") + `]}`}, "width": {"1280"}})
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
