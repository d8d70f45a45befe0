// Package metrics counts requests, queries and database connections for
// Prometheus, and serves profiles. It listens on an address of its own, on
// loopback, where that is configured.
package metrics

import (
	"context"
	"net/http"
	"net/http/pprof"
	"strconv"
	"time"

	"github.com/gin-gonic/gin"
	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgxpool"
	"github.com/prometheus/client_golang/prometheus"
	"github.com/prometheus/client_golang/prometheus/collectors"
	"github.com/prometheus/client_golang/prometheus/promhttp"
)

// Metrics are one server's.
type Metrics struct {
	registry *prometheus.Registry
	requests *prometheus.HistogramVec
	queries  *prometheus.HistogramVec
	away     prometheus.Counter
}

// seconds are the bounds of what is counted, from a plan of the cache to a year
// of a log.
var seconds = []float64{.001, .0025, .005, .01, .025, .05, .1, .25, .5, 1, 2.5, 5, 10, 30}

// New makes metrics with those of the process in them.
func New() *Metrics {
	m := &Metrics{
		registry: prometheus.NewRegistry(),
		requests: prometheus.NewHistogramVec(prometheus.HistogramOpts{Name: "corte_request_seconds", Help: "What requests took, by their address in the contract.", Buckets: seconds}, []string{"method", "route", "status"}),
		queries:  prometheus.NewHistogramVec(prometheus.HistogramOpts{Name: "corte_query_seconds", Help: "What statements took in the database, waiting for it included.", Buckets: seconds}, []string{"outcome"}),
		away:     prometheus.NewCounter(prometheus.CounterOpts{Name: "corte_database_outages_total", Help: "How often the database went away."}),
	}
	m.registry.MustRegister(m.requests, m.queries, m.away, collectors.NewGoCollector(), collectors.NewProcessCollector(collectors.ProcessCollectorOpts{}))
	return m
}

// Outage counts that the database went away.
func (m *Metrics) Outage() {
	if m != nil {
		m.away.Inc()
	}
}

// Requests times what passes through, under its route: never under an address
// that somebody made up.
func (m *Metrics) Requests(c *gin.Context) {
	start := time.Now()
	c.Next()
	route := c.FullPath()
	if route == "" {
		route = "other"
	}
	m.requests.WithLabelValues(c.Request.Method, route, strconv.Itoa(c.Writer.Status())).Observe(time.Since(start).Seconds())
}

// Pool watches a pool of connections.
func (m *Metrics) Pool(stat func() *pgxpool.Stat) {
	gauge := func(name, help string, value func(*pgxpool.Stat) float64) {
		m.registry.MustRegister(prometheus.NewGaugeFunc(prometheus.GaugeOpts{Name: "corte_pool_" + name, Help: help}, func() float64 { return value(stat()) }))
	}
	gauge("connections", "Connections to the database.", func(s *pgxpool.Stat) float64 { return float64(s.TotalConns()) })
	gauge("connections_busy", "Connections that somebody works on.", func(s *pgxpool.Stat) float64 { return float64(s.AcquiredConns()) })
	gauge("connections_most", "Connections that there may be.", func(s *pgxpool.Stat) float64 { return float64(s.MaxConns()) })
	count := func(name, help string, value func(*pgxpool.Stat) float64) {
		m.registry.MustRegister(prometheus.NewCounterFunc(prometheus.CounterOpts{Name: "corte_pool_" + name, Help: help}, func() float64 { return value(stat()) }))
	}
	count("waits_total", "How often somebody had to wait for a connection.", func(s *pgxpool.Stat) float64 { return float64(s.EmptyAcquireCount()) })
	count("wait_seconds_total", "How long all of them waited.", func(s *pgxpool.Stat) float64 { return s.AcquireDuration().Seconds() })
}

type begun struct{}

// TraceQueryStart and TraceQueryEnd time a statement, as pgx asks for it.
func (m *Metrics) TraceQueryStart(ctx context.Context, _ *pgx.Conn, _ pgx.TraceQueryStartData) context.Context {
	return context.WithValue(ctx, begun{}, time.Now())
}

// TraceQueryEnd is the other half of TraceQueryStart.
func (m *Metrics) TraceQueryEnd(ctx context.Context, _ *pgx.Conn, data pgx.TraceQueryEndData) {
	outcome := "done"
	if data.Err != nil {
		outcome = "failed"
	}
	if at, ok := ctx.Value(begun{}).(time.Time); ok {
		m.queries.WithLabelValues(outcome).Observe(time.Since(at).Seconds())
	}
}

// Handler serves /metrics, and profiles under /debug/pprof/.
func (m *Metrics) Handler() http.Handler {
	mux := http.NewServeMux()
	mux.Handle("GET /metrics", promhttp.HandlerFor(m.registry, promhttp.HandlerOpts{Registry: m.registry}))
	mux.HandleFunc("GET /debug/pprof/", pprof.Index)
	mux.HandleFunc("GET /debug/pprof/cmdline", pprof.Cmdline)
	mux.HandleFunc("GET /debug/pprof/profile", pprof.Profile)
	mux.HandleFunc("GET /debug/pprof/symbol", pprof.Symbol)
	mux.HandleFunc("GET /debug/pprof/trace", pprof.Trace)
	return mux
}
