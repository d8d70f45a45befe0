// Package attack holds what people have tried against Corte, as tests: hostile
// files, rows that nothing can read, requests from the demo shop, neighbors who
// flood, bodies that trickle in, many hands at once, clocks that jump. Each test
// goes through the whole server on a real PostgreSQL. Those that take long carry
// the build tag long and run under make test-long. docs/security.md names the
// test that holds each promise.
package attack

import (
	"encoding/json"
	"fmt"
	"io"
	"log/slog"
	"maps"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"os"
	"strings"
	"sync"
	"testing"
	"testing/fstest"
	"time"

	"github.com/alexedwards/argon2id"
	"github.com/google/uuid"
	"github.com/jmoiron/sqlx"

	"corte/internal/events"
	"corte/internal/httpapi"
	"corte/internal/shop"
	"corte/internal/store"
	"corte/internal/testkit/pgtest"
)

func TestMain(m *testing.M) { os.Exit(pgtest.Run(m)) }

type obj = map[string]any

const password = "six words are easy to keep"

// A clock can be set.
type clock struct {
	mu sync.Mutex
	at time.Time
}

func (c *clock) now() time.Time {
	c.mu.Lock()
	defer c.mu.Unlock()
	return c.at
}

func (c *clock) move(by time.Duration) {
	c.mu.Lock()
	defer c.mu.Unlock()
	c.at = c.at.Add(by)
}

// A target is the whole server over the demo shop, on a port of its own.
type target struct {
	t     testing.TB
	url   string // of the database
	st    *store.Store
	svc   *shop.Service
	shop  uuid.UUID
	clock *clock
	srv   *httptest.Server
	log   *strings.Builder
	logMu *sync.Mutex
	opts  httpapi.Options
}

// open is a target that nobody signs in to.
func open(t testing.TB) *target { return serve(t, httpapi.Options{}) }

// closed is a target that people sign in to.
func closed(t testing.TB) *target {
	return serve(t, httpapi.Options{SignIn: &httpapi.SignIn{Cost: &argon2id.Params{Memory: 64, Iterations: 1, Parallelism: 1, SaltLength: 8, KeyLength: 16}}})
}

func serve(t testing.TB, o httpapi.Options) *target {
	t.Helper()
	url, id := pgtest.Demo(t)
	x := &target{t: t, url: url, st: pgtest.Open(t, url), shop: id, clock: &clock{at: time.Now()}, log: &strings.Builder{}, logMu: &sync.Mutex{}}
	x.svc = shop.New(x.st, x.clock.now)
	o.Service, o.Shop, o.Pages = x.svc, id, []string{"", "join/:secret", "guest/:secret"}
	o.Web = fstest.MapFS{"index.html": {Data: []byte(`<meta content="__CSP_NONCE__">`)}}
	o.Log = slog.New(slog.NewTextHandler(x, nil))
	o.Events = events.New(url, x.st, slog.New(slog.NewTextHandler(io.Discard, nil)), nil, id)
	x.opts = o
	h := x.handler(o)
	o.Beside = true
	demo := x.handler(o)
	mux := http.NewServeMux()
	mux.Handle("/", h)
	mux.Handle("/demo/", http.StripPrefix("/demo", demo))
	x.srv = httptest.NewUnstartedServer(mux)
	x.srv.Config.ReadTimeout, x.srv.Config.WriteTimeout = 15*time.Second, 30*time.Second // as cmd/corte has them
	x.srv.Start()
	var rings sync.WaitGroup
	rings.Go(func() { o.Events.Run(t.Context()) })
	t.Cleanup(func() { x.srv.CloseClientConnections(); x.srv.Close(); rings.Wait() })
	return x
}

func (x *target) handler(o httpapi.Options) http.Handler {
	h, err := httpapi.New(o)
	if err != nil {
		x.t.Fatal(err)
	}
	return h
}

// Write takes what the server logs.
func (x *target) Write(line []byte) (int, error) {
	x.logMu.Lock()
	defer x.logMu.Unlock()
	return x.log.Write(line)
}

func (x *target) logged() string {
	x.logMu.Lock()
	defer x.logMu.Unlock()
	return x.log.String()
}

// db is the database as its owner sees it.
func (x *target) db() *sqlx.DB {
	x.t.Helper()
	db, err := sqlx.Connect("pgx", x.url)
	if err != nil {
		x.t.Fatal(err)
	}
	x.t.Cleanup(func() { db.Close() })
	return db
}

// A client is a browser or a script, with cookies of its own.
type client struct {
	x      *target
	http   *http.Client
	under  string // the address that it asks under
	bearer string
}

func (x *target) client() *client {
	jar, err := cookiejar.New(nil)
	if err != nil {
		x.t.Fatal(err)
	}
	return &client{x: x, http: &http.Client{Jar: jar, Transport: &http.Transport{}}, under: "/api/v1"}
}

// inDemo is the same client as it asks the demo shop.
func (c *client) inDemo() *client {
	d := *c
	d.under = "/demo/api/v1"
	return &d
}

type reply struct {
	code   int
	header http.Header
	body   string
}

func (r reply) obj(t testing.TB) obj {
	t.Helper()
	var v obj
	if err := json.Unmarshal([]byte(r.body), &v); err != nil {
		t.Fatalf("%v in %s", err, r.body)
	}
	return v
}

func (c *client) do(method, path string, body any, header ...string) reply {
	c.x.t.Helper()
	r, err := c.try(method, path, body, header...)
	if err != nil {
		c.x.t.Fatalf("%s %s: no answer: %v", method, path, err)
	}
	return r
}

func (c *client) try(method, path string, body any, header ...string) (reply, error) {
	var in io.Reader
	switch b := body.(type) {
	case nil:
	case io.Reader:
		in = b
	case string:
		in = strings.NewReader(b)
	default:
		raw, err := json.Marshal(b)
		if err != nil {
			return reply{}, err
		}
		in = strings.NewReader(string(raw))
	}
	r, err := http.NewRequest(method, c.x.srv.URL+c.under+path, in)
	if err != nil {
		return reply{}, err
	}
	if body != nil {
		r.Header.Set("Content-Type", "application/json")
	}
	if c.bearer != "" {
		r.Header.Set("Authorization", "Bearer "+c.bearer)
	}
	for i := 0; i+1 < len(header); i += 2 {
		r.Header.Set(header[i], header[i+1])
	}
	w, err := c.http.Do(r)
	if err != nil {
		return reply{}, err
	}
	defer w.Body.Close()
	raw, err := io.ReadAll(w.Body)
	return reply{w.StatusCode, w.Header, string(raw)}, err
}

// must is an answer that has to be of a status.
func (c *client) must(code int, method, path string, body any, header ...string) obj {
	c.x.t.Helper()
	w := c.do(method, path, body, header...)
	if w.code != code {
		c.x.t.Fatalf("%s %s: %d, not %d: %.500s", method, path, w.code, code, w.body)
	}
	if w.body == "" {
		return nil
	}
	return w.obj(c.x.t)
}

// keyed is a header with a fresh idempotency key.
func keyed() []string { return []string{"Idempotency-Key", uuid.NewString()} }

// owner is a client that the first owner is signed in on.
func (x *target) owner() *client {
	x.t.Helper()
	secret, err := x.svc.People.FirstOwner(x.t.Context(), x.shop)
	if err != nil || secret == "" {
		x.t.Fatalf("no way in: %q, %v", secret, err)
	}
	c := x.client()
	c.must(200, "POST", "/invitations/"+secret, obj{"name": "Maren", "password": password})
	return c
}

// member is a client that somebody new is signed in on, and their ID.
func (c *client) member(name, role string) (*client, string) {
	c.x.t.Helper()
	m := c.must(201, "POST", "/people", obj{"name": name, "role": role}, keyed()...)
	in := c.must(201, "POST", fmt.Sprint("/people/", m["id"], "/invitations"), nil)
	n := c.x.client()
	n.must(200, "POST", "/invitations/"+strings.TrimPrefix(in["path"].(string), "/join/"), obj{"name": name, "password": password})
	return n, m["id"].(string)
}

// tablet is a client that is a tablet of the shop, on which no name is tapped.
func (c *client) tablet(name string) *client {
	c.x.t.Helper()
	n := c.x.client()
	n.must(200, "POST", "/session", obj{"name": "Maren", "password": password})
	n.must(201, "POST", "/devices", obj{"name": name})
	return n
}

// ids are those of a list of the contract by their names.
func (c *client) ids(path, by string) map[string]string {
	c.x.t.Helper()
	out := map[string]string{}
	for _, v := range c.must(200, "GET", path, nil)["items"].([]any) {
		out[v.(obj)[by].(string)] = v.(obj)["id"].(string)
	}
	return out
}

// cut is a rip that the demo shop's table saw makes.
func cut(saw string, change obj) obj {
	c := obj{"saw_id": saw, "material": "hard-maple", "direction": "rip", "thickness_mm": 25, "width_mm": 120, "length_mm": 900, "finish": "hidden"}
	maps.Copy(c, change)
	return c
}
