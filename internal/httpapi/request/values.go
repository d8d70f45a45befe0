package request

import (
	"strconv"
	"strings"
	"time"

	openapi_types "github.com/oapi-codegen/runtime/types"

	"corte/internal/ptr"
	"corte/internal/shop/env"
)

const usualLimit = 100

// Limit is how many rows a page has: usualLimit where nobody says.
func Limit(l *int) int {
	if l == nil {
		return usualLimit
	}
	return *l
}

// Noon is a date as the log keeps it: no zone's day but its own.
func Noon(d *openapi_types.Date) *time.Time {
	if d == nil {
		return nil
	}
	t := d.UTC().Add(12 * time.Hour)
	return &t
}

// Version reads an ETag, whose form the contract has checked.
func Version(etag string) int {
	v, _ := strconv.Atoi(strings.Trim(etag, `"`))
	return v
}

// Sent is what the headers say of the way that a request took.
func Sent(waited *float64, after *time.Time) env.Sent {
	return env.Sent{Waited: time.Duration(ptr.Value(waited) * float64(time.Second)), After: ptr.Value(after)}
}
