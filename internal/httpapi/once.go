package httpapi

import (
	"bytes"
	"crypto/sha256"
	"errors"
	"fmt"
	"io"
	"net/http"
	"strings"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/gin-gonic/gin"

	"corte/internal/httpapi/request"
	"corte/internal/shop"
	"corte/internal/store"
)

const (
	keyHeader = "Idempotency-Key"
)

// keyed lists the operations that the contract gives a key, as Gin names them,
// with the shortest and longest key that each takes.
func keyed(spec *openapi3.T) map[string]openapi3.Schema {
	out := map[string]openapi3.Schema{}
	for path, item := range spec.Paths.Map() {
		for method, op := range item.Operations() {
			if p := op.Parameters.GetByInAndName(openapi3.ParameterInHeader, keyHeader); p != nil {
				out[method+" "+base+strings.NewReplacer("{", ":", "}", "").Replace(path)] = *p.Schema.Value
			}
		}
	}
	return out
}

// errRefused rolls back the transaction of a refused request.
var errRefused = errors.New("refused")

// once answers a retry with the stored answer of its key, before it looks at anything
// else of the request. The first request runs in one transaction with its answer. A
// change without a key runs in a transaction too.
func (s *server) once(spec *openapi3.T) gin.HandlerFunc {
	takes := keyed(spec)
	return func(c *gin.Context) {
		key := c.GetHeader(keyHeader)
		limits, ok := takes[c.Request.Method+" "+c.FullPath()]
		n := uint64(len(key))
		if !ok || n > 0 && n < limits.MinLength || limits.MaxLength != nil && n > *limits.MaxLength {
			return // it changes nothing, or the contract refuses its key
		}
		// Read the body before the transaction: a client may be slow to send it.
		body, err := readBody(c.Request)
		if err != nil {
			refuseError(c, err)
			return
		}
		c.Request.Body = io.NopCloser(bytes.NewReader(body))
		act := func(in *shop.Service) store.Answer {
			direct, kept := c.Writer, &storedAnswer{ResponseWriter: c.Writer, header: http.Header{}, status: http.StatusOK}
			c.Writer = kept
			defer func() { c.Writer = direct }()
			request.Within(c, in)
			c.Next()
			return kept.answer()
		}
		var answer store.Answer
		if key == "" {
			err = s.Service.Together(c.Request.Context(), func(in *shop.Service) error {
				if answer = act(in); !answer.Done() {
					return errRefused
				}
				return nil
			})
			if errors.Is(err, errRefused) {
				err = nil
			}
		} else {
			answer, err = s.underKey(c, key, body, act)
		}
		if err != nil {
			refuseError(c, err)
			return
		}
		if answer.Done() {
			ctx := c.Request.Context()
			s.events.Publish(request.Shop(ctx), kindOf(c.FullPath()))
		}
		for name, value := range answer.Headers {
			c.Header(name, value)
		}
		c.Status(answer.Status)
		c.Abort()
		if len(answer.Body) > 0 { // a 204 may not even begin a body
			_, _ = c.Writer.Write(answer.Body)
		}
	}
}

// kindOf is the kind of resource at an address of the contract.
func kindOf(path string) string {
	kind, _, _ := strings.Cut(strings.TrimPrefix(path, base+"/"), "/")
	return kind
}

func (s *server) underKey(c *gin.Context, key string, body []byte, act func(*shop.Service) store.Answer) (store.Answer, error) {
	digest := sha256.Sum256(fmt.Appendf(nil, "%s %s\n%s", c.Request.Method, c.Request.URL.RequestURI(), body))
	return s.Service.Once(c.Request.Context(), request.Shop(c.Request.Context()), key, digest[:], func(in *shop.Service) (store.Answer, error) { return act(in), nil })
}

// A storedAnswer records an answer instead of sending it.
type storedAnswer struct {
	gin.ResponseWriter
	header http.Header
	status int
	body   bytes.Buffer
}

func (w *storedAnswer) Header() http.Header { return w.header }

func (w *storedAnswer) WriteHeader(status int) { w.status = status }

func (w *storedAnswer) WriteHeaderNow() {}

func (w *storedAnswer) Write(b []byte) (int, error) { return w.body.Write(b) }

func (w *storedAnswer) WriteString(s string) (int, error) { return w.body.WriteString(s) }

func (w *storedAnswer) Status() int { return w.status }

func (w *storedAnswer) Size() int { return w.body.Len() }

func (w *storedAnswer) Written() bool { return w.body.Len() > 0 }

func (w *storedAnswer) answer() store.Answer {
	headers := map[string]string{}
	for name := range w.header {
		headers[name] = w.header.Get(name)
	}
	return store.Answer{Status: w.status, Headers: headers, Body: append([]byte{}, w.body.Bytes()...)}
}
