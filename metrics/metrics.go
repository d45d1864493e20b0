// Package metrics counts what the program does, for Prometheus.
//
// Each value is here, with its name and labels; those who do something note it. Handler
// serves them all. No label holds what a person wrote, so their number is bounded.
package metrics

import (
	"database/sql"
	"net/http"
	"time"

	"github.com/prometheus/client_golang/prometheus"
	"github.com/prometheus/client_golang/prometheus/collectors"
	"github.com/prometheus/client_golang/prometheus/promauto"
	"github.com/prometheus/client_golang/prometheus/promhttp"
)

var (
	registry = prometheus.NewRegistry()
	with     = promauto.With(registry)
)

// What is counted and timed. Times are in seconds.
var (
	Requests = with.NewHistogramVec(prometheus.HistogramOpts{
		Name: "openplot_request_seconds", Help: "How long requests took, by side, route and status.",
		Buckets: []float64{.001, .0025, .005, .01, .025, .05, .1, .25, .5, 1, 2.5, 10},
	}, []string{"side", "route", "status"})
	Edits = with.NewCounterVec(prometheus.CounterOpts{
		Name: "openplot_edits_total", Help: "Commands on pages and house styles, by how they ended.",
	}, []string{"end"})
	Publications = with.NewHistogram(prometheus.HistogramOpts{
		Name: "openplot_publish_seconds", Help: "How long publishing a page took.", Buckets: []float64{.01, .05, .1, .25, .5, 1, 2.5, 5, 10, 30},
	})
	Layouts = with.NewHistogram(prometheus.HistogramOpts{
		Name: "openplot_layout_seconds", Help: "How long laying a section out at a width took.",
		Buckets: []float64{.0001, .00025, .0005, .001, .0025, .005, .01, .025, .05, .1, .25, 1},
	})
	Pictures = with.NewHistogramVec(prometheus.HistogramOpts{
		Name: "openplot_picture_seconds", Help: "How long the processes took that open uploads, by task and end.",
		Buckets: []float64{.05, .1, .25, .5, 1, 2.5, 5, 10, 30, 60, 120},
	}, []string{"task", "end"})
	Jobs = with.NewCounterVec(prometheus.CounterOpts{
		Name: "openplot_jobs_total", Help: "Jobs that were done or failed, by kind.",
	}, []string{"kind", "end"})
)

func init() {
	registry.MustRegister(
		collectors.NewGoCollector(),
		collectors.NewProcessCollector(collectors.ProcessCollectorOpts{}),
	)
}

// Since notes how long something took.
func Since(o prometheus.Observer, start time.Time) { o.Observe(time.Since(start).Seconds()) }

// Watch adds a database's pool, and the queue's lengths by state as count tells them, to
// what is served.
func Watch(db *sql.DB, count func() map[string]float64) {
	registry.MustRegister(collectors.NewDBStatsCollector(db, "openplot"), &queue{count})
}

// queue is a collector of the queue's lengths.
type queue struct{ count func() map[string]float64 }

var queueLength = prometheus.NewDesc("openplot_queue_jobs", "Jobs in the queue, by state.", []string{"state"}, nil)

func (q *queue) Describe(to chan<- *prometheus.Desc) { to <- queueLength }

func (q *queue) Collect(to chan<- prometheus.Metric) {
	for state, n := range q.count() {
		to <- prometheus.MustNewConstMetric(queueLength, prometheus.GaugeValue, n, state)
	}
}

// Handler serves what was noted, in Prometheus's text format.
func Handler() http.Handler { return promhttp.HandlerFor(registry, promhttp.HandlerOpts{}) }
