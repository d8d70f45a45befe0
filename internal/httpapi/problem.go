package httpapi

import (
	"context"
	"database/sql/driver"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"os"
	"regexp"
	"strconv"
	"strings"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/getkin/kin-openapi/openapi3filter"
	"github.com/gin-gonic/gin"
	"github.com/jackc/pgx/v5/pgconn"

	"corte/core/say"
	"corte/internal/httpapi/contract"
	"corte/internal/httpapi/present"
	"corte/internal/record"
	"corte/internal/refusal"
	"corte/internal/store"
)

const retryAfter = "Retry-After" // seconds

// refuse answers with a problem and ends the request.
func refuse(c *gin.Context, status int, field string, detail say.Line) {
	id := c.GetString(requestIDKey)
	p := contract.Problem{
		Type: "about:blank", Title: http.StatusText(status), Status: status, Detail: present.VoiceOf(c).Say(detail), RequestID: &id,
	}
	if field != "" {
		p.Field = &field
	}
	// A refusal that passes with time says when to try again.
	if (status == http.StatusTooManyRequests || status == http.StatusServiceUnavailable) && c.Writer.Header().Get(retryAfter) == "" {
		c.Header(retryAfter, "5")
	}
	c.Header("Content-Type", "application/problem+json")
	c.AbortWithStatusJSON(status, p)
}

// refuseError turns an error into a problem. An unexpected error is logged in full,
// and its details are kept from the client.
func refuseError(c *gin.Context, err error) {
	var (
		se   *refusal.Error
		re   *openapi3filter.RequestError
		size *http.MaxBytesError
		kind *json.UnmarshalTypeError
		db   *pgconn.PgError
		gone *pgconn.ConnectError
		torn *record.DamagedError
	)
	switch {
	case errors.As(err, &torn):
		refuseError(c, refusal.OfDamaged(torn))
	case errors.As(err, &se):
		if wait := se.RetryAfter(); wait > 0 {
			c.Header(retryAfter, strconv.Itoa(int(wait.Seconds())))
		}
		refuse(c, se.Status(), se.Field, say.Of("%s", present.VoiceOf(c).Sentence(se.What)))
	case errors.As(err, &size):
		refuse(c, http.StatusRequestEntityTooLarge, "", say.Of("What was sent is larger than %d kB, which nothing here needs. Nothing was saved.", size.Limit>>10))
	case errors.As(err, &re):
		status, field, detail := contractBreach(re)
		refuse(c, status, field, detail)
	case errors.As(err, &kind): // the contract takes 40.0 for a whole number, Go does not
		name := kind.Field[strings.LastIndexByte(kind.Field, '.')+1:]
		refuse(c, http.StatusBadRequest, kind.Field, say.Of("%s must be a whole number, written in digits alone.", name))
	case errors.Is(err, errUnreadBody):
		refuse(c, http.StatusRequestTimeout, "", say.Of("This request arrived too slowly. Nothing was saved. Send it again."))
	case errors.Is(c.Request.Context().Err(), context.Canceled):
		c.Abort() // nobody is listening any more, and whatever failed then says nothing of the database
	case errors.Is(err, store.ErrUnknown):
		slog.Error("no answer to a commit", "request_id", c.GetString(requestIDKey), "error", err)
		refuse(c, http.StatusServiceUnavailable, "", say.Of("The database connection was lost, so this may or may not be saved. Press again: it won't be saved twice."))
	case errors.As(err, &gone):
		outageOf(c).lost(err)
		refuse(c, http.StatusServiceUnavailable, "", say.Of("No answer from the database. Nothing was saved. Try again in a moment."))
	case errors.Is(err, context.DeadlineExceeded):
		refuse(c, http.StatusServiceUnavailable, "", say.Of("The database took too long. Nothing was saved. Try again."))
	case lost(err):
		outageOf(c).lost(err)
		refuse(c, http.StatusServiceUnavailable, "", say.Of("The database connection was lost. Press again: nothing is saved twice."))
	case errors.As(err, &db) && db.Code == diskFull:
		slog.Error("disk full", "request_id", c.GetString(requestIDKey), "error", err)
		refuse(c, http.StatusInsufficientStorage, "", say.Of("The database disk is full. Nothing was saved. Make room and try again."))
	case errors.As(err, &db) && (db.Code == zeroByte || db.Code == zeroEscape):
		refuse(c, http.StatusUnprocessableEntity, "", say.Of("The text contains a character that can't be saved (a zero byte). Nothing was saved. Type the text again."))
	default:
		slog.Error("request failed", "request_id", c.GetString(requestIDKey), "error", err)
		refuse(c, http.StatusInternalServerError, "", say.Of("Something went wrong. Nothing was saved. The server's log has details under this request's id."))
	}
}

// errUnreadBody is returned where a request's body did not come in time.
var errUnreadBody = errors.New("the request body didn't arrive in time")

// readBody reads what a request carries, up to the most that its address takes.
// It waits for the client, so it comes before any transaction.
func readBody(r *http.Request) ([]byte, error) {
	raw, err := io.ReadAll(r.Body)
	var slow net.Error
	if errors.Is(err, os.ErrDeadlineExceeded) || errors.As(err, &slow) && slow.Timeout() || errors.Is(err, io.ErrUnexpectedEOF) {
		err = errUnreadBody
	}
	return raw, err
}

// lost reports whether a connection to the database broke.
func lost(err error) bool {
	var db *pgconn.PgError
	var broken net.Error
	if errors.As(err, &db) {
		return strings.HasPrefix(db.Code, goingAway) || strings.HasPrefix(db.Code, noConnection) || db.Code == tooMany
	}
	return errors.Is(err, driver.ErrBadConn) || errors.Is(err, io.ErrUnexpectedEOF) || errors.Is(err, io.EOF) || errors.Is(err, net.ErrClosed) ||
		errors.As(err, &broken) || pgconn.SafeToRetry(err) || strings.Contains(err.Error(), "conn closed")
}

// PostgreSQL's codes.
const (
	goingAway    = "57P" // shut down, crashed, starting
	noConnection = "08"
	tooMany      = "53300" // connections
	diskFull     = "53100"
	zeroByte     = "22021" // in a text
	zeroEscape   = "22P05" // in JSON
)

// contractBreach says in words what of a request does not keep to the
// contract: 400 where it cannot be read, 422 where it can but is impossible.
func contractBreach(e *openapi3filter.RequestError) (status int, field string, detail say.Line) {
	if e.Parameter != nil {
		field = e.Parameter.Name
	}
	var (
		schema *openapi3.SchemaError
		parse  *openapi3filter.ParseError
		syntax *json.SyntaxError
	)
	switch {
	case errors.As(e.Err, &schema):
		if path := schema.JSONPointer(); len(path) > 0 {
			field = strings.Join(path, ".")
		}
		status, detail = schemaBreach(schema, field)
		return status, field, detail
	case errors.Is(e.Err, openapi3filter.ErrInvalidRequired), errors.Is(e.Err, openapi3filter.ErrInvalidEmptyValue):
		if field == "" {
			return http.StatusBadRequest, "", say.Of("The request is empty; send it as JSON.")
		}
		return http.StatusBadRequest, field, say.Of("%s is missing.", field)
	case errors.As(e.Err, &syntax), errors.As(e.Err, &parse) && e.Parameter == nil:
		return http.StatusBadRequest, "", say.Of("This isn't valid JSON. Write plain numbers, and names in quotes.")
	case e.Parameter != nil:
		return http.StatusBadRequest, field, say.Of("%s cannot be read.", field)
	}
	return http.StatusBadRequest, "", say.Of("The request cannot be read; send JSON with the content type application/json.")
}

func schemaBreach(e *openapi3.SchemaError, field string) (status int, detail say.Line) {
	const bad, impossible = http.StatusBadRequest, http.StatusUnprocessableEntity
	name := field[strings.LastIndexByte(field, '.')+1:]
	switch e.SchemaField {
	case "minimum":
		return impossible, say.Of("%s must be at least %v.", name, *e.Schema.Min)
	case "maximum":
		return impossible, say.Of("%s must be at most %v.", name, *e.Schema.Max)
	case "maxLength":
		return impossible, say.Of("%s may have at most %d characters.", name, *e.Schema.MaxLength)
	case "minLength":
		return impossible, say.Of("%s must have at least %d characters.", name, e.Schema.MinLength)
	case "enum":
		return impossible, say.Of("%s must be one of %s.", name, list(e.Schema.Enum))
	case "required":
		return bad, say.Of("%s is missing.", name)
	case "properties":
		if m := unsupported.FindStringSubmatch(e.Reason); m != nil {
			name = m[1]
		}
		return bad, say.Of("%s is not a field that is known here.", name)
	case "nullable":
		return bad, say.Of("%s is null; give it a value or leave it out.", name)
	case "type":
		return bad, say.Of("%s must be a %s.", name, say.Or(say.Words(e.Schema.Type.Slice())))
	case "allOf": // what a $ref with a description beside it is wrapped in
		var inner *openapi3.SchemaError
		if errors.As(e.Origin, &inner) {
			return schemaBreach(inner, field)
		}
	case "pattern":
		if strings.Contains(e.Schema.Pattern, `\x00`) {
			return impossible, say.Of("%s contains a line break or a zero byte, which can't be saved. Type it again.", name)
		}
		return bad, say.Of("%s is not written as it should be.", name)
	case "maxItems":
		return impossible, say.Of("%s may hold at most %d.", name, *e.Schema.MaxItems)
	case "minItems":
		return impossible, say.Of("%s must hold at least %d.", name, e.Schema.MinItems)
	case "format":
		return bad, say.Of("%s is not a %s.", name, strings.ToUpper(e.Schema.Format))
	}
	return bad, say.Of("%s cannot be read.", name)
}

// unsupported is how the validator names a field that the contract lacks.
var unsupported = regexp.MustCompile(`property "(.+)" is unsupported`)

func list(values []any) string {
	words := make([]string, len(values))
	for i, v := range values {
		words[i] = fmt.Sprint(v)
	}
	return strings.Join(words, ", ")
}
