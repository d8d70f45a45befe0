package httpapi

import (
	"encoding"
	"strconv"
	"strings"
	"time"

	openapi_types "github.com/oapi-codegen/runtime/types"

	"corte/internal/ptr"
	"corte/internal/shop/env"
)

const usualLimit = 100

func limitOf(l *int) int {
	if l == nil {
		return usualLimit
	}
	return *l
}

// wordOf is a word that a row of the log keeps, as the core's own. The rows were
// checked as they came in; a word that this Corte no longer knows is the first
// of its kind.
func wordOf[T any, P interface {
	*T
	encoding.TextUnmarshaler
}](kept string) (v T) {
	_ = P(&v).UnmarshalText([]byte(kept))
	return v
}

// noon is a date as the log keeps it: no zone's day but its own.
func noon(d *openapi_types.Date) *time.Time {
	if d == nil {
		return nil
	}
	t := d.UTC().Add(12 * time.Hour)
	return &t
}

func dateOf(t *time.Time) *openapi_types.Date {
	if t == nil {
		return nil
	}
	return &openapi_types.Date{Time: t.UTC()}
}

// version reads an ETag, whose form the contract has checked.
func version(etag string) int {
	v, _ := strconv.Atoi(strings.Trim(etag, `"`))
	return v
}

func dayOf(t time.Time) openapi_types.Date { return openapi_types.Date{Time: t} }

// sentOf is what the headers say of the way that a request took.
func sentOf(waited *float64, after *time.Time) env.Sent {
	return env.Sent{Waited: time.Duration(ptr.Value(waited) * float64(time.Second)), After: ptr.Value(after)}
}
