package httpapi

import (
	"log/slog"
	"net/http"
	"strings"
	"sync/atomic"
	"time"

	"github.com/gin-gonic/gin"

	"corte/internal/metrics"
)

// An outage is a time without the database. It is logged once when it begins and
// once when it ends, however many requests fail in between.
type outage struct {
	log     *slog.Logger
	metrics *metrics.Metrics // nil where nobody counts
	since   atomic.Pointer[time.Time]
}

const outageKey = "outage"

// outageOf is the outage that a request would be part of; of a server of its own
// where it has none.
func outageOf(c *gin.Context) *outage {
	if o, ok := c.Value(outageKey).(*outage); ok {
		return o
	}
	return &outage{log: slog.Default()}
}

func (o *outage) lost(err error) {
	now := time.Now()
	if o.since.CompareAndSwap(nil, &now) {
		o.log.Error("the database is away", "error", err)
		o.metrics.Outage()
	}
}

func (o *outage) over() {
	if since := o.since.Swap(nil); since != nil {
		o.log.Info("the database is back", "after", time.Since(*since).Round(time.Millisecond))
	}
}

// watch ends the outage when a request that needs the database succeeds.
func (o *outage) watch(c *gin.Context) {
	c.Set(outageKey, o)
	c.Next()
	path := c.Request.URL.Path
	if o.since.Load() != nil && c.Writer.Status() < http.StatusBadRequest && strings.HasPrefix(path, base+"/") && asksDatabase(path) {
		o.over()
	}
}

// asksDatabase reports whether requests to an address need the database.
func asksDatabase(path string) bool {
	switch path {
	case base + "/live", base + "/openapi.json", base + "/materials", base + "/length", base + "/licences", streamPath, eventsPath:
		return false
	}
	return !strings.HasPrefix(path, base+"/schemas/")
}
