package httpapi

import (
	"context"
	"reflect"

	"github.com/gin-gonic/gin"

	"corte/internal/httpapi/contract"
	"corte/internal/wire"
)

// A voice puts what the core and the shop found into the contract's types, for
// one reader: here alone do values become sentences.
type voice struct{ wire.Voice }

const voiceKey = "voice"

// speaking gives each request the voice of who asks: in the units that it
// names, or in millimetres.
func speaking(next contract.StrictHandlerFunc, _ string) contract.StrictHandlerFunc {
	return func(c *gin.Context, request any) (any, error) {
		c.Set(voiceKey, voice{wire.VoiceIn(unitsOf(request))})
		return next(c, request)
	}
}

// unitsOf finds the units in a request, which stand in its query or its body.
func unitsOf(request any) contract.Units {
	for _, at := range [...]string{"Params", "Body"} {
		part := reflect.Indirect(reflect.Indirect(reflect.ValueOf(request)).FieldByName(at))
		if part.Kind() != reflect.Struct {
			continue
		}
		if u := reflect.Indirect(part.FieldByName("Units")); u.Kind() == reflect.String {
			return contract.Units(u.String())
		}
	}
	return contract.UnitsMm
}

// voiceOf is the voice of the request that a context is of.
func voiceOf(ctx context.Context) voice {
	v, _ := ctx.Value(voiceKey).(voice)
	return v
}
