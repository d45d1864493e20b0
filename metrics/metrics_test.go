package metrics

import (
	"net/http/httptest"
	"strings"
	"testing"
	"time"
)

// What was noted is served, with the queue's lengths.
func TestHandler(t *testing.T) {
	Edits.WithLabelValues("kept").Inc()
	Since(Requests.WithLabelValues("app", "/sign-in", "200"), time.Now())
	registry.MustRegister(&queue{func() map[string]float64 { return map[string]float64{"available": 3} }})
	w := httptest.NewRecorder()
	Handler().ServeHTTP(w, httptest.NewRequest("GET", "/metrics", nil))
	for _, want := range []string{
		`openplot_edits_total{end="kept"} 1`, `openplot_request_seconds_count{route="/sign-in",side="app",status="200"} 1`, `openplot_queue_jobs{state="available"} 3`,
		"go_goroutines", "process_resident_memory_bytes",
	} {
		if !strings.Contains(w.Body.String(), want) {
			t.Errorf("no %s", want)
		}
	}
}
