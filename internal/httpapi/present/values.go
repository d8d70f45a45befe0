package present

import (
	"encoding"
	"time"

	openapi_types "github.com/oapi-codegen/runtime/types"
)

// WordOf is a word that a row of the log keeps, as the core's own. The rows were
// checked as they came in; a word that this Corte no longer knows is the first
// of its kind.
func WordOf[T any, P interface {
	*T
	encoding.TextUnmarshaler
}](kept string) (v T) {
	_ = P(&v).UnmarshalText([]byte(kept))
	return v
}

// Date is the day of a moment, by UTC; nothing of none.
func Date(t *time.Time) *openapi_types.Date {
	if t == nil {
		return nil
	}
	return &openapi_types.Date{Time: t.UTC()}
}

// Day is a day as it stands.
func Day(t time.Time) openapi_types.Date { return openapi_types.Date{Time: t} }
