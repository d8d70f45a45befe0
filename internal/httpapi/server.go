// Package httpapi answers over HTTP: it decodes what the contract in
// api/openapi.yaml describes, calls the shop, and encodes what comes back. It
// also serves the front end, which is embedded in the binary.
package httpapi

import (
	"context"
	"crypto/rand"
	"fmt"
	"io/fs"
	"log/slog"
	"net"
	"net/http"
	"strings"
	"time"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/getkin/kin-openapi/openapi3filter"
	"github.com/getkin/kin-openapi/routers/gorillamux"
	"github.com/gin-contrib/gzip"
	"github.com/gin-gonic/gin"
	"github.com/google/uuid"

	"corte/internal/gauge"
	"corte/internal/httpapi/contract"
	"corte/internal/jobfile"
	"corte/internal/logfile"
	"corte/internal/metrics"
	"corte/internal/rackfile"
	"corte/internal/shop"
	"corte/internal/shopfile"
	"corte/internal/store"
)

// Options say what to serve.
type Options struct {
	Service *shop.Service
	Shop    uuid.UUID  // whose rack is served, until sign-in says so
	Web     fs.FS      // the built front end
	Pages   []string   // the addresses it has pages for; "rack/:id" for any one blade's
	Gauges  *gauge.Hub // the dial gauges that are listened to
	Log     *slog.Logger
	Copies  *shopfile.Keeper // that keeps the shop's copies; nil for none
	By      string           // what a copy says of the Corte that wrote it
	Metrics *metrics.Metrics // that count what is served; nil for none
}

const (
	base         = "/api/v1"
	maxBody      = 256 << 10
	maxFile      = 8 << 20          // a photo, or a rack file
	patience     = 10 * time.Second // for one request
	requestIDKey = "request_id"
	streamPath   = base + "/gauges/stream" // goes on as long as the page is open
	exportPath   = base + "/log-exports"   // goes on as long as the log
)

// New makes the handler of the whole application.
func New(o Options) (http.Handler, error) {
	spec, err := contract.GetSpec()
	if err != nil {
		return nil, fmt.Errorf("the embedded contract cannot be read: %w", err)
	}
	keep, err := keepContract(spec)
	if err != nil {
		return nil, err
	}
	if o.Gauges == nil {
		o.Gauges = gauge.New(nil, o.Log)
	}
	web, err := newWeb(o.Web, o.Pages)
	if err != nil {
		return nil, err
	}
	gin.SetMode(gin.ReleaseMode)
	r := gin.New()
	r.HandleMethodNotAllowed = true
	r.ContextWithFallback = true // handlers see the request's deadline through *gin.Context
	if o.Metrics != nil {
		r.Use(o.Metrics.Requests)
	}
	r.Use((&outage{log: o.Log, metrics: o.Metrics}).watch, identify, ofShop(o.Shop), logRequests(o.Log), recoverPanics, onlyLoopback, onlySameOrigin(), secure, limit, gzip.Gzip(gzip.DefaultCompression, gzip.WithExcludedExtensions([]string{".woff2"}), gzip.WithExcludedPaths([]string{streamPath, shopFilePath})))
	r.NoRoute(func(c *gin.Context) {
		if strings.HasPrefix(c.Request.URL.Path, "/api/") {
			refuse(c, http.StatusNotFound, "", "There is nothing at this address; /api/v1/openapi.json lists what there is.")
			return
		}
		web.serve(c)
	})
	r.NoMethod(func(c *gin.Context) {
		refuse(c, http.StatusMethodNotAllowed, "", fmt.Sprintf("%s is not possible at this address.", c.Request.Method))
	})
	r.GET(base+"/openapi.json", func(c *gin.Context) { c.JSON(http.StatusOK, spec) })

	files := rackfile.NewReader(spec, func(e *openapi3.SchemaError, field string) string {
		_, says := schemaBreach(e, field)
		return says
	})
	schema, err := files.Schema()
	if err != nil {
		return nil, fmt.Errorf("the schema of rack files cannot be made: %w", err)
	}
	r.GET(base+"/schemas/rack.json", func(c *gin.Context) { c.JSON(http.StatusOK, schema) })
	r.GET(base+"/schemas/log.json", func(c *gin.Context) { c.JSON(http.StatusOK, logfile.Schema) })
	r.GET(base+"/schemas/job.json", func(c *gin.Context) { c.JSON(http.StatusOK, jobfile.Schema) })

	s := &server{o.Service, o.Shop, files, o.Gauges, o.Copies, o.By}
	strict := contract.NewStrictHandlerWithOptions(s, []contract.StrictMiddlewareFunc{outlasting, speaking}, contract.StrictGinServerOptions{
		RequestErrorHandlerFunc:  refuseError,
		HandlerErrorFunc:         refuseError,
		ResponseErrorHandlerFunc: refuseError,
	})
	contract.RegisterHandlersWithOptions(r.Group("", develop, s.once(spec), keep), strict, contract.GinServerOptions{
		BaseURL: base,
		ErrorHandler: func(c *gin.Context, _ error, _ int) {
			refuse(c, http.StatusBadRequest, "", "The address cannot be read.")
		},
	})
	return r, nil
}

// keepContract refuses requests that do not keep to the contract.
func keepContract(spec *openapi3.T) (gin.HandlerFunc, error) {
	openapi3.DefineStringFormatValidator("uuid", openapi3.NewCallbackValidator(uuid.Validate))
	router, err := gorillamux.NewRouter(spec)
	if err != nil {
		return nil, fmt.Errorf("the contract cannot be routed: %w", err)
	}
	options := &openapi3filter.Options{KeepValidatedValue: true, SkipSettingDefaults: false}
	unread := &openapi3filter.Options{ExcludeRequestBody: true}
	return func(c *gin.Context) {
		route, params, err := router.FindRoute(c.Request)
		if err != nil {
			refuse(c, http.StatusNotFound, "", "There is nothing at this address; /api/v1/openapi.json lists what there is.")
			return
		}
		how := options
		if bringsShop(c.Request) {
			how = unread
		}
		err = openapi3filter.ValidateRequest(c.Request.Context(), &openapi3filter.RequestValidationInput{
			Request: c.Request, PathParams: params, Route: route, Options: how,
		})
		if err != nil {
			refuseError(c, err)
		}
	}, nil
}

// outlasting gives the handlers a context that stays theirs: Gin hands its own
// to the next request while database/sql still watches for this one's end.
func outlasting(next contract.StrictHandlerFunc, _ string) contract.StrictHandlerFunc {
	return func(c *gin.Context, request any) (any, error) { return next(c.Copy(), request) }
}

// ofShop lets the database show and change one shop's rows alone.
func ofShop(shop uuid.UUID) gin.HandlerFunc {
	return func(c *gin.Context) { c.Request = c.Request.WithContext(store.For(c.Request.Context(), shop)) }
}

// identify gives each request an id, for its log line and its problems.
func identify(c *gin.Context) {
	id := rand.Text()[:12]
	c.Set(requestIDKey, id)
	c.Header("X-Request-Id", id)
}

func logRequests(log *slog.Logger) gin.HandlerFunc {
	return func(c *gin.Context) {
		start := time.Now()
		c.Next()
		level := slog.LevelDebug
		if strings.HasPrefix(c.Request.URL.Path, "/api/") {
			level = slog.LevelInfo
		}
		log.Log(c.Request.Context(), level, "request", "request_id", c.GetString(requestIDKey), "method", c.Request.Method,
			"path", c.Request.URL.Path, "status", c.Writer.Status(), "took", time.Since(start))
	}
}

func recoverPanics(c *gin.Context) {
	defer func() {
		if r := recover(); r != nil {
			refuseError(c, fmt.Errorf("panic: %v", r))
		}
	}()
	c.Next()
}

// onlyLoopback refuses names that a hostile page could point at this machine.
func onlyLoopback(c *gin.Context) {
	host := c.Request.Host
	if h, _, err := net.SplitHostPort(host); err == nil {
		host = h
	}
	ip := net.ParseIP(strings.Trim(host, "[]"))
	if host != "localhost" && (ip == nil || !ip.IsLoopback()) {
		refuse(c, http.StatusMisdirectedRequest, "", "Corte answers on this machine alone, as 127.0.0.1 or localhost.")
	}
}

// onlySameOrigin refuses writes that another site's page sends.
func onlySameOrigin() gin.HandlerFunc {
	protection := http.NewCrossOriginProtection()
	return func(c *gin.Context) {
		if err := protection.Check(c.Request); err != nil {
			refuse(c, http.StatusForbidden, "", "This was sent by a page of another site.")
		}
	}
}

func secure(c *gin.Context) {
	h := c.Writer.Header()
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("Referrer-Policy", "no-referrer")
	h.Set("Cross-Origin-Opener-Policy", "same-origin")
	h.Set("Cross-Origin-Resource-Policy", "same-origin")
	h.Set("Permissions-Policy", "camera=(), microphone=(), geolocation=()")
	h.Set("Content-Security-Policy", "default-src 'none'; frame-ancestors 'none'")
	if strings.HasPrefix(c.Request.URL.Path, "/api/") {
		h.Set("Cache-Control", "no-store")
	}
}

func limit(c *gin.Context) {
	if slow(c.Request.URL.Path) {
		patient(c)
	} else {
		ctx, cancel := context.WithTimeout(c.Request.Context(), patience)
		defer cancel()
		c.Request = c.Request.WithContext(ctx)
	}
	most := int64(maxBody)
	if c.Request.Method == http.MethodPut && strings.HasSuffix(c.Request.URL.Path, "/photo") || strings.HasPrefix(c.Request.URL.Path, base+"/rack-import") || strings.HasPrefix(c.Request.URL.Path, base+"/log-import") {
		most = maxFile
	} else if bringsShop(c.Request) {
		most = maxShop
	}
	c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, most)
	c.Next()
}

// A server meets the contract. Every answer but success is an error, which
// refuseError turns into a problem.
type server struct {
	svc    *shop.Service
	shop   uuid.UUID
	files  *rackfile.Reader
	gauges *gauge.Hub
	copies *shopfile.Keeper
	by     string
}
