// Package httpapi serves the contract in api/openapi.yaml over HTTP. Each station's
// handlers decode a request, call the shop and answer with what package present
// makes of it; what all requests go through, and how people sign in, stands here.
// It also serves the front end, which is embedded in the binary.
package httpapi

import (
	"context"
	"crypto/rand"
	"fmt"
	"io/fs"
	"log/slog"
	"net"
	"net/http"
	"net/netip"
	"reflect"
	"slices"
	"strings"
	"time"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/getkin/kin-openapi/openapi3filter"
	"github.com/getkin/kin-openapi/routers/gorillamux"
	"github.com/gin-contrib/gzip"
	"github.com/gin-gonic/gin"
	"github.com/google/uuid"

	"corte/core/say"
	"corte/internal/events"
	"corte/internal/gauge"
	"corte/internal/httpapi/bench"
	"corte/internal/httpapi/care"
	"corte/internal/httpapi/choose"
	"corte/internal/httpapi/contract"
	"corte/internal/httpapi/groove"
	"corte/internal/httpapi/job"
	"corte/internal/httpapi/log"
	"corte/internal/httpapi/mount"
	"corte/internal/httpapi/own"
	"corte/internal/httpapi/practice"
	"corte/internal/httpapi/present"
	"corte/internal/httpapi/rack"
	"corte/internal/httpapi/repair"
	"corte/internal/httpapi/request"
	"corte/internal/httpapi/run"
	"corte/internal/httpapi/special"
	"corte/internal/httpapi/trace"
	"corte/internal/httpapi/truing"
	"corte/internal/jobfile"
	"corte/internal/logfile"
	"corte/internal/metrics"
	"corte/internal/rackfile"
	"corte/internal/record"
	"corte/internal/refusal"
	"corte/internal/shop"
	"corte/internal/shopfile"
)

// Options say what to serve.
type Options struct {
	Service *shop.Service
	Shop    uuid.UUID  // that is served where nobody signs in, and whose the dial gauges are
	SignIn  *SignIn    // how people come in; nil where the server is open, on loopback alone
	Beside  bool       // it is looked at from another shop, by whoever came into that one
	Hosts   []string   // names that it is reached under, beside loopback
	Proxies []string   // addresses that forward to it
	Web     fs.FS      // the built front end
	Pages   []string   // the addresses it has pages for; "rack/:id" for any one blade's
	Gauges  *gauge.Hub // the dial gauges that are listened to
	Log     *slog.Logger
	Events  *events.Broker   // that tells other servers and pages what changes; nil for none
	Copies  *shopfile.Keeper // that keeps the shop's copies; nil for none
	By      string           // what a copy says of the Corte that wrote it
	Metrics *metrics.Metrics // that count what is served; nil for none
}

const (
	base         = "/api/v1"
	maxBody      = 256 << 10
	maxFile      = 8 << 20          // a photo, or a rack file
	maxLook      = 24 << 20         // a photo that is looked at as it came out of the camera
	patience     = 10 * time.Second // for one request
	lookSent     = 60 * time.Second // for a photo to come in
	requestIDKey = "request_id"
	streamPath   = base + "/gauges/stream" // goes on as long as the page is open
	listenPath   = base + "/listening"
	lookPath     = base + "/blade-looks"
	wallPath     = base + "/wall-looks"
	edgePath     = base + "/edge-looks"
	eventsPath   = base + "/events"      // as well
	exportPath   = base + "/log-exports" // goes on as long as the log
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
	if err := r.SetTrustedProxies(o.Proxies); err != nil {
		return nil, fmt.Errorf("a proxy's address cannot be read: %w", err)
	}
	if o.Metrics != nil {
		r.Use(o.Metrics.Requests)
	}
	r.Use((&outage{log: o.Log, metrics: o.Metrics}).watch, identify, logRequests(o.Log), recoverPanics, onlyOurs(o.Hosts), onlyThrough(o.Proxies), onlySameOrigin(), secure(o.SignIn), limit, gzip.Gzip(gzip.DefaultCompression, gzip.WithExcludedExtensions([]string{".woff2"}), gzip.WithExcludedPaths([]string{streamPath, eventsPath, listenPath, shopFilePath})))
	r.NoRoute(func(c *gin.Context) {
		if strings.HasPrefix(c.Request.URL.Path, "/api/") {
			refuse(c, http.StatusNotFound, "", say.Of("There is nothing at this address. See /api/v1/openapi.json for all addresses."))
			return
		}
		web.serve(c)
	})
	r.NoMethod(func(c *gin.Context) {
		refuse(c, http.StatusMethodNotAllowed, "", say.Of("%s is not possible at this address.", c.Request.Method))
	})
	r.GET(base+"/openapi.json", func(c *gin.Context) { c.JSON(http.StatusOK, spec) })

	files := rackfile.NewReader(spec, func(e *openapi3.SchemaError, field string) say.Line {
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

	s := newServer(o, files)
	if o.SignIn != nil {
		if s.door, err = newDoor(o.Service.Store, o.Service.Now, o.SignIn); err != nil {
			return nil, err
		}
	}
	need, err := needs(spec)
	if err != nil {
		return nil, err
	}
	strict := contract.NewStrictHandlerWithOptions(s, []contract.StrictMiddlewareFunc{outlasting, present.Speaking, signing, s.auditing}, contract.StrictGinServerOptions{
		RequestErrorHandlerFunc:  refuseError,
		HandlerErrorFunc:         refuseError,
		ResponseErrorHandlerFunc: refuseError,
	})
	contract.RegisterHandlersWithOptions(r.Group("", s.who, s.onlyWhoMay(need), madeBy, inBudget(newLooks()), develop, s.once(spec), keep), strict, contract.GinServerOptions{
		BaseURL: base,
		ErrorHandler: func(c *gin.Context, _ error, _ int) {
			refuse(c, http.StatusBadRequest, "", say.Of("This address can't be read."))
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
			refuse(c, http.StatusNotFound, "", say.Of("There is nothing at this address. See /api/v1/openapi.json for all addresses."))
			return
		}
		how := options
		if mostOf(c.Request) > 0 {
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

// outlasting gives handlers a copy of Gin's context: Gin reuses its own for the next
// request while database/sql may still watch this one's.
func outlasting(next contract.StrictHandlerFunc, _ string) contract.StrictHandlerFunc {
	return func(c *gin.Context, request any) (any, error) { return next(c.Copy(), request) }
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
			"route", routeOf(c), "status", c.Writer.Status(), "took", time.Since(start))
	}
}

// routeOf is what a log line says of an address: the contract's route or the
// first part of a page's path. What stands behind may be a secret.
func routeOf(c *gin.Context) string {
	if route := c.FullPath(); route != "" {
		return route
	}
	first, rest, _ := strings.Cut(strings.TrimPrefix(c.Request.URL.Path, "/"), "/")
	if first == "api" || len(first) > longestPlace || rest != "" && first != "assets" {
		return "/" + first[:min(len(first), longestPlace)] + "/..."
	}
	return "/" + first
}

// longestPlace is longer than the first part of any page's path.
const longestPlace = 12

func recoverPanics(c *gin.Context) {
	defer func() {
		if r := recover(); r != nil {
			refuseError(c, fmt.Errorf("panic: %v", r))
		}
	}()
	c.Next()
}

// onlyOurs refuses every host name but loopback's and those in the settings, against
// DNS rebinding.
func onlyOurs(hosts []string) gin.HandlerFunc {
	says := say.Of("Corte answers only on this computer, as 127.0.0.1 or localhost.")
	if len(hosts) > 0 {
		says = say.Of("Corte doesn't use this host name. Add it to CORTE_HOSTS.")
	}
	return func(c *gin.Context) {
		host := c.Request.Host
		if h, _, err := net.SplitHostPort(host); err == nil {
			host = h
		}
		host = strings.ToLower(strings.Trim(host, "[]"))
		ip := net.ParseIP(host)
		if host != "localhost" && (ip == nil || !ip.IsLoopback()) && !slices.Contains(hosts, host) {
			refuse(c, http.StatusMisdirectedRequest, "", says)
		}
	}
}

// onlyThrough refuses connections that don't come from a proxy, if there are any.
// proxies are addresses or ranges.
func onlyThrough(proxies []string) gin.HandlerFunc {
	var ranges []netip.Prefix
	for _, p := range proxies {
		if at, err := netip.ParseAddr(p); err == nil {
			ranges = append(ranges, netip.PrefixFrom(at, at.BitLen()))
		} else if in, err := netip.ParsePrefix(p); err == nil {
			ranges = append(ranges, in)
		}
	}
	return func(c *gin.Context) {
		from, err := netip.ParseAddr(c.RemoteIP())
		from = from.Unmap()
		if len(ranges) == 0 || err == nil && (from.IsLoopback() || slices.ContainsFunc(ranges, func(p netip.Prefix) bool { return p.Contains(from) })) {
			return
		}
		refuse(c, http.StatusMisdirectedRequest, "", say.Of("Corte only answers through its proxy."))
	}
}

// onlySameOrigin refuses writes from pages of other sites.
func onlySameOrigin() gin.HandlerFunc {
	protection := http.NewCrossOriginProtection()
	return func(c *gin.Context) {
		if err := protection.Check(c.Request); err != nil {
			refuse(c, http.StatusForbidden, "", say.Of("This came from a page of another site."))
		}
	}
}

func secure(how *SignIn) gin.HandlerFunc {
	return func(c *gin.Context) {
		if how != nil && how.Secure {
			c.Header("Strict-Transport-Security", "max-age=31536000")
		}
		secured(c)
	}
}

func secured(c *gin.Context) {
	h := c.Writer.Header()
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("Referrer-Policy", "no-referrer")
	h.Set("Cross-Origin-Opener-Policy", "same-origin")
	h.Set("Cross-Origin-Resource-Policy", "same-origin")
	h.Set("Permissions-Policy", "camera=(), microphone=(self), geolocation=()")
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
	if looks(c.Request.URL.Path) { // a photo may come over a slow network, and the answer always follows it
		out := http.NewResponseController(c.Writer)
		_ = out.SetReadDeadline(time.Now().Add(lookSent))
		_ = out.SetWriteDeadline(time.Now().Add(2 * lookSent))
	}
	most := int64(maxBody)
	if c.Request.Method == http.MethodPut && strings.HasSuffix(c.Request.URL.Path, "/photo") || strings.HasPrefix(c.Request.URL.Path, base+"/rack-import") {
		most = maxFile
	} else if file := mostOf(c.Request); file > 0 {
		most = file
	}
	c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, most)
	c.Next()
}

// The handlers of each station.
type (
	benchHandlers    = bench.Handlers
	careHandlers     = care.Handlers
	chooseHandlers   = choose.Handlers
	grooveHandlers   = groove.Handlers
	jobHandlers      = job.Handlers
	logHandlers      = log.Handlers
	mountHandlers    = mount.Handlers
	ownHandlers      = own.Handlers
	practiceHandlers = practice.Handlers
	rackHandlers     = rack.Handlers
	repairHandlers   = repair.Handlers
	runHandlers      = run.Handlers
	specialHandlers  = special.Handlers
	traceHandlers    = trace.Handlers
	truingHandlers   = truing.Handlers
)

// A server meets the contract, with the handlers of its stations and its own.
// Every answer but success is an error, which refuseError turns into a problem.
type server struct {
	request.Scope
	benchHandlers
	careHandlers
	chooseHandlers
	grooveHandlers
	jobHandlers
	logHandlers
	mountHandlers
	ownHandlers
	practiceHandlers
	rackHandlers
	repairHandlers
	runHandlers
	specialHandlers
	traceHandlers
	truingHandlers

	door   *door     // nil where the server is open
	home   uuid.UUID // that is served where nobody signs in
	beside bool
	gauges *gauge.Hub // that stand in the home shop
	none   *gauge.Hub // that stand in any other
	copies *shopfile.Keeper
	by     string
	events *events.Broker
	ears   *budget // for listening to saws
}

func newServer(o Options, files *rackfile.Reader) *server {
	in := request.Scope{Service: o.Service}
	return &server{
		Scope:            in,
		benchHandlers:    bench.Handlers{Scope: in},
		careHandlers:     care.Handlers{Scope: in},
		chooseHandlers:   choose.Handlers{Scope: in},
		grooveHandlers:   groove.Handlers{Scope: in},
		jobHandlers:      job.Handlers{Scope: in},
		logHandlers:      log.Handlers{Scope: in},
		mountHandlers:    mount.Handlers{Scope: in},
		ownHandlers:      own.Handlers{Scope: in},
		practiceHandlers: practice.Handlers{Scope: in},
		rackHandlers:     rack.Handlers{Scope: in, Files: files},
		repairHandlers:   repair.Handlers{Scope: in},
		runHandlers:      run.Handlers{Scope: in},
		specialHandlers:  special.Handlers{Scope: in},
		traceHandlers:    trace.Handlers{Scope: in},
		truingHandlers:   truing.Handlers{Scope: in},

		home: o.Shop, beside: o.Beside, gauges: o.Gauges, none: gauge.New(nil, o.Log),
		copies: o.Copies, by: o.By, events: o.Events, ears: newEars(),
	}
}

// hub has the dial gauges of the shop that a request is in.
func (s *server) hub(ctx context.Context) *gauge.Hub {
	if request.Shop(ctx) == s.home {
		return s.gauges
	}
	return s.none
}

// keeper keeps the copies of the shop that a request is in; nil if copies are off.
func (s *server) keeper(ctx context.Context) *shopfile.Keeper {
	if s.copies == nil {
		return nil
	}
	return s.copies.Of(request.Shop(ctx))
}

// audited maps the calls that an owner can look up later to their words. Some stations
// record further actions themselves.
var audited = map[string]string{
	"StrikeRow": "deleted an entry", "AmendRow": "corrected an entry", "ExportLog": "exported the log", "ExportRack": "exported the blades", "GetShopFile": "downloaded a backup",
	"BringShopFile": "restored a backup", "ImportLog": "imported a log", "ImportRack": "imported blades", "NewCalendar": "created a calendar address",
	"RepairRow": "repaired a damaged row", "RemoveRow": "removed a damaged row",
}

// auditing records who made an audited call, in its transaction. Without sign-in there
// is nobody to name.
func (s *server) auditing(next contract.StrictHandlerFunc, call string) contract.StrictHandlerFunc {
	what, ok := audited[call]
	if !ok {
		return next
	}
	return func(c *gin.Context, asked any) (any, error) {
		out, err := next(c, asked)
		if err != nil || record.ActorOf(c).Way == record.Open {
			return out, err
		}
		about := ""
		if id := reflect.ValueOf(asked).FieldByName("ID"); id.IsValid() {
			about = fmt.Sprintf("row %v", id.Interface())
		}
		return out, s.In(c).People.Note(c, request.Shop(c), what, about)
	}
}

// signing sets the author of a record to the person of the session. An owner may log
// for somebody else; the record then names both.
func signing(next contract.StrictHandlerFunc, call string) contract.StrictHandlerFunc {
	return func(c *gin.Context, request any) (any, error) {
		actor := record.ActorOf(c)
		body := reflect.Indirect(reflect.Indirect(reflect.ValueOf(request)).FieldByName("Body"))
		if actor.Name == "" || body.Kind() != reflect.Struct {
			return next(c, request)
		}
		by := body.FieldByName("By")
		if !by.IsValid() || by.Type() != reflect.TypeFor[*string]() {
			return next(c, request)
		}
		name := actor.Name
		said, _ := by.Interface().(*string)
		if said == nil && call == "AmendRow" {
			return next(c, request) // the row stays by whoever made it; the struck one says who corrected it
		}
		if said != nil && *said != "" && *said != name {
			if actor.Role != record.Owner {
				return nil, &refusal.Error{Reason: refusal.Forbidden, Field: "by", What: say.Of("you are signed in as %s, and only an owner can log for another person. Nothing was saved. Sign in as %s, or log it as your own", say.Word(name), say.Word(*said))}
			}
			name = *said + ", logged by " + name
		}
		by.Set(reflect.ValueOf(&name))
		return next(c, request)
	}
}
