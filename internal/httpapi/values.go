package httpapi

import (
	"encoding"
	"strconv"
	"strings"
	"time"

	openapi_types "github.com/oapi-codegen/runtime/types"

	"corte/core/measure"
	"corte/internal/httpapi/contract"
	"corte/internal/shop/kit"
)

func units(u contract.Units) measure.Unit {
	if u == contract.UnitsIn {
		return measure.Inch
	}
	return measure.Millimetre
}

const usualLimit = 100

func limitOf(l *int) int {
	if l == nil {
		return usualLimit
	}
	return *l
}

func value[T any](p *T) T {
	if p == nil {
		var zero T
		return zero
	}
	return *p
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

func orNone(s []string) []string {
	if s == nil {
		return []string{}
	}
	return s
}

func ptr[T any](v T) *T { return &v }

// positive leaves out a number that stands for not known or not there.
func positive[T ~float64](v T) *T {
	if v <= 0 {
		return nil
	}
	return &v
}

// set leaves out what is zero.
func set[T comparable](v T) *T {
	var zero T
	if v == zero {
		return nil
	}
	return &v
}

func text(s string) *string { return set(s) }

func dayOf(t time.Time) openapi_types.Date { return openapi_types.Date{Time: t} }

// sentOf is what the headers say of the way that a request took.
func sentOf(waited *float64, after *time.Time) kit.Sent {
	return kit.Sent{Waited: time.Duration(value(waited) * float64(time.Second)), After: value(after)}
}
