package web

import (
	"net/http"
	"net/url"
	"strings"
	"testing"
)

// TestAskToPublish has a writer say that a page is ready: those who may publish see it beside the page until it is
// published, and nobody else is asked anything.
func TestAskToPublish(t *testing.T) {
	p := begin(t)
	writer, designer := p.as("writer@example.org"), p.as("designer@example.org")
	asks := func() bool {
		_, body, _ := designer.get("/sites/skerry")
		return strings.Contains(oneLine(body), "asks to publish it")
	}
	if asks() {
		t.Fatal("nobody asked yet")
	}
	if status, _, _ := writer.post(benchPath+"/publish", nil); status != http.StatusForbidden {
		t.Errorf("a writer publishes: %d", status)
	}
	status, body, _ := writer.post(benchPath+"/ask", url.Values{"width": {"1280"}})
	if status != http.StatusOK || !strings.Contains(body, "Asked.") || !asks() {
		t.Errorf("asking: %d", status)
	}
	if status, _, _ := p.as("stranger@example.org").post(benchPath+"/ask", nil); status != http.StatusNotFound {
		t.Errorf("a stranger asks: %d", status)
	}
	if status, body, _ := designer.post(benchPath+"/publish", nil); status != http.StatusOK {
		t.Fatalf("publishing: %d %s", status, body)
	}
	if asks() {
		t.Error("it is still asked for what is published")
	}
}

// TestWayBack leads from a problem back to where somebody came from on this host, and never elsewhere.
func TestWayBack(t *testing.T) {
	p := begin(t)
	q := p.as("designer@example.org")
	for from, want := range map[string]string{
		"":                             "",
		p.app.URL + "/sites/skerry":    `href="/sites/skerry"`,
		"https://elsewhere.example/":   "",
		p.app.URL + "//elsewhere.org/": "",
		p.app.URL + "/sites/none":      "", // itself
	} {
		r, err := http.NewRequest(http.MethodGet, p.app.URL+"/sites/none", nil)
		if err != nil {
			t.Fatal(err)
		}
		if from != "" {
			r.Header.Set("Referer", from)
		}
		status, body, _ := q.do(r)
		if status != http.StatusNotFound || strings.Contains(body, "Go back") != (want != "") ||
			!strings.Contains(body, want) {
			t.Errorf("from %q: %d, %s", from, status, body)
		}
	}
}
