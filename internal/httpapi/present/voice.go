// Package present maps between the contract's types and what the shop and the store
// take and answer, where more than one station needs it or a reader's units do. The
// mappings that the browser's own core needs are in internal/wire, which doesn't
// depend on the database.
package present

import (
	"context"
	"reflect"

	"github.com/gin-gonic/gin"
	"golang.org/x/text/language"

	"corte/internal/httpapi/contract"
	"corte/internal/locale"
	"corte/internal/wire"
)

// A Voice puts what the core and the shop found into the contract's types, for
// one reader: here alone do values become sentences.
type Voice struct{ wire.Voice }

const voiceKey = "voice"

// languageCookie has the language that the pages in a browser are in (web/src/i18n.ts):
// what is asked for by a link, a socket or a script of the page comes in it too.
const languageCookie = "corte-language"

// languages finds the one that a request accepts most.
var languages = func() language.Matcher {
	var tags []language.Tag
	for _, tag := range locale.Tags() {
		tags = append(tags, language.Make(tag))
	}
	return language.NewMatcher(tags)
}()

// Speaking gives each request the voice of who asks: in the units that it
// names, or in millimetres, and in the language of the pages in this browser, or
// the one that it accepts.
func Speaking(next contract.StrictHandlerFunc, _ string) contract.StrictHandlerFunc {
	return func(c *gin.Context, request any) (any, error) {
		c.Set(voiceKey, voice(c, unitsOf(request)))
		return next(c, request)
	}
}

func voice(c *gin.Context, u contract.Units) Voice {
	accepted := c.GetHeader("Accept-Language")
	if pages, err := c.Cookie(languageCookie); err == nil {
		accepted = pages
	}
	tags, _, _ := language.ParseAcceptLanguage(accepted) // what can't be read is English
	_, i, _ := languages.Match(tags...)
	return Voice{wire.VoiceIn(u, locale.Tags()[i])}
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

// VoiceOf is the voice of the request that a context is of.
func VoiceOf(ctx context.Context) Voice {
	v, ok := ctx.Value(voiceKey).(Voice)
	if c, is := ctx.(*gin.Context); !ok && is && c.Request != nil {
		return voice(c, contract.UnitsMm) // refused before it was read
	}
	return v
}
