package httpapi_test

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"net/http/httptest"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jmoiron/sqlx"

	"corte/internal/events"
	"corte/internal/gauge"
	"corte/internal/gaugesim"
	"corte/internal/httpapi"
	"corte/internal/shop"
	"corte/internal/store"
	"corte/internal/testkit/pgtest"
)

// Two servers on one database are one: a key that one has answered is known to
// the other, also at the same moment; of two changes over one version one is
// kept; and ticks of both add up. The second has its connections from a pooler.
func TestTwoServersAreOne(t *testing.T) {
	b := newBench(t)
	h, err := httpapi.New(httpapi.Options{Service: shop.New(pgtest.OpenThrough(t, pgtest.Pooler(t, b.url), b.url), time.Now), Shop: b.shop, Web: page, Log: slog.New(slog.NewTextHandler(io.Discard, nil))})
	if err != nil {
		t.Fatal(err)
	}
	other := &bench{t: t, url: b.url, h: h, st: b.st, shop: b.shop, saw: b.saw, blade: b.blade}
	robin := []*bench{b, other}
	before := b.logged("Plough")
	const cuts, tries = 12, 4
	bodies := make([][tries]string, cuts)
	var wg sync.WaitGroup
	for i := range cuts {
		key := uuid.NewString()
		for try := range tries {
			wg.Go(func() {
				w := robin[try%2].post("/cuts", b.made(obj{"pieces": 1 + i}), "Idempotency-Key", key)
				if w.Code != http.StatusCreated {
					t.Errorf("cut %d: %d: %s", i, w.Code, w.Body)
				}
				bodies[i][try] = w.Body.String()
			})
		}
	}
	wg.Wait()
	for i, of := range bodies {
		for _, body := range of {
			if body != of[0] {
				t.Errorf("cut %d is answered %s and %s", i, of[0], body)
			}
		}
	}
	if now := other.logged("Plough"); now != before+cuts || b.logged("Plough") != now {
		t.Errorf("%d cuts were logged as %d", cuts, now-before)
	}
	for _, path := range []string{"/saws", "/blades", "/bench", "/log?limit=200", "/log/season?days=400", "/jobs", "/trials", "/traces", "/grooves?units=mm", "/owning", "/pace"} {
		if one, two := b.do("GET", "/api/v1"+path, ""), other.do("GET", "/api/v1"+path, ""); one.Code != 200 || one.Body.String() != two.Body.String() {
			t.Errorf("%s: %d and %d, or not the same", path, one.Code, two.Code)
		}
	}
	// Over one version both change something; one of them is told.
	sh := b.get("/shop")
	change := func(at *bench, name string) int {
		return at.put("/shop", obj{"name": name, "change_minutes": 3, "height_school": "saw", "learning": true, "sharpening_price": 0}, "If-Match", fmt.Sprintf(`"%v"`, sh["version"])).Code
	}
	codes := make([]int, 2)
	for i, at := range robin {
		wg.Go(func() { codes[i] = change(at, []string{"Ours", "Theirs"}[i]) })
	}
	wg.Wait()
	if codes[0]+codes[1] != 200+412 {
		t.Errorf("two changes over one version are answered %v", codes)
	}
	if name := b.get("/shop")["name"]; name != other.get("/shop")["name"] || (name == "Ours") != (codes[0] == 200) {
		t.Errorf("the shop is called %v after %v", name, codes)
	}
	j := b.job("Small", "40 boards, 20 × 100 cherry, 900 long, rip, hidden")
	row := j["rows"].([]any)[0].(obj)["id"]
	for i := range 20 {
		wg.Go(func() {
			if w := robin[i%2].post("/jobs/"+j["id"].(string)+"/ticks", obj{"row_id": row, "made": 2, "spoilt": 0}, "Idempotency-Key", uuid.NewString()); w.Code != 200 {
				t.Errorf("a tick: %d: %s", w.Code, w.Body)
			}
		})
	}
	wg.Wait()
	for _, at := range robin {
		if now := at.get("/jobs/" + j["id"].(string)); now["rows"].([]any)[0].(obj)["made"].(float64) != 40 || now["ended_at"] == nil {
			t.Errorf("ticked at both it is at %v", now["rows"])
		}
	}
}

// A beside is a server of its own on the same database, that people sign in to,
// with a broker of events, and with its connections from a pooler.
func (h *house) beside(hub *gauge.Hub) *httptest.Server {
	h.t.Helper()
	log := slog.New(slog.NewTextHandler(io.Discard, nil))
	ctx, stop := context.WithCancel(h.t.Context())
	st := pgtest.OpenThrough(h.t, pgtest.Pooler(h.t, h.url), h.url)
	b := events.New(st.URL(), st, log, hub, h.shop)
	h.svc = shop.New(st, time.Now)
	srv := httptest.NewServer(h.serve(httpapi.Options{Events: b, Gauges: hub}))
	var all sync.WaitGroup
	all.Go(func() { b.Run(ctx) })
	all.Go(func() { hub.Run(ctx) })
	h.t.Cleanup(func() { stop(); all.Wait(); srv.Close() })
	return srv
}

// A page listens to one server.
type listener struct {
	lines chan string
}

func (h *house) listen(br *browser, srv *httptest.Server, path string) *listener {
	h.t.Helper()
	r, err := http.NewRequestWithContext(h.t.Context(), "GET", srv.URL+"/api/v1"+path, nil)
	if err != nil {
		h.t.Fatal(err)
	}
	for name, value := range br.jar {
		r.AddCookie(&http.Cookie{Name: name, Value: value})
	}
	w, err := http.DefaultClient.Do(r)
	if err != nil || w.StatusCode != 200 {
		h.t.Fatalf("%s: %v, %v", path, w, err)
	}
	l := &listener{make(chan string, 1000)}
	go func() {
		defer w.Body.Close()
		for s := bufio.NewScanner(w.Body); s.Scan(); {
			select {
			case l.lines <- s.Text():
			default:
			}
		}
	}()
	return l
}

// hears waits for a line that holds a text.
func (l *listener) hears(t *testing.T, text string) {
	t.Helper()
	late := time.After(10 * time.Second)
	for {
		select {
		case line := <-l.lines:
			if strings.Contains(line, text) {
				return
			}
		case <-late:
			t.Fatalf("nothing of %s is heard", text)
		}
	}
}

// What is changed at one server is heard by the pages of another, in their shop
// alone; so is a dial gauge that stands at one; a session is one at both; and
// who was cut off is told to ask for everything.
func TestPagesHearOtherServers(t *testing.T) {
	h := newHouse(t)
	maren := h.owner()
	rig, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		t.Fatal(err)
	}
	go gaugesim.Rig{Truth: gaugesim.Demo, Names: []string{"dial"}, Every: 10 * time.Millisecond}.Serve(t.Context(), rig)
	log := slog.New(slog.NewTextHandler(io.Discard, nil))
	one, two := h.beside(gauge.New([]string{rig.Addr().String()}, log)), h.beside(gauge.New(nil, log))
	there, _, err := h.st.EnsureShop(t.Context(), store.Shop{ID: uuid.New(), Slug: "there", Name: "Over there", ChangeMinutes: 3})
	if err != nil {
		t.Fatal(err)
	}
	secret, err := h.svc.People.FirstOwner(t.Context(), there.ID)
	if err != nil {
		t.Fatal(err)
	}
	other := h.browser()
	other.must(200, "POST", "/invitations/"+secret, obj{"name": "Mischa", "password": password})
	page, stranger := h.listen(maren, two, "/events"), h.listen(other, two, "/events")
	at := func(srv *httptest.Server, method, path string, body any) *http.Response {
		t.Helper()
		raw, err := json.Marshal(body)
		if err != nil {
			t.Fatal(err)
		}
		r, err := http.NewRequest(method, srv.URL+"/api/v1"+path, bytes.NewReader(raw))
		if err != nil {
			t.Fatal(err)
		}
		r.Header.Set("Content-Type", "application/json")
		r.Header.Set("Idempotency-Key", uuid.NewString())
		for name, value := range maren.jar {
			r.AddCookie(&http.Cookie{Name: name, Value: value})
		}
		w, err := http.DefaultClient.Do(r)
		if err != nil {
			t.Fatal(err)
		}
		w.Body.Close()
		return w
	}
	if w := at(one, "POST", "/mountings", obj{"saw_id": h.saw["table"], "blade_id": h.blade["Plough"], "units": "mm"}); w.StatusCode > 201 {
		t.Fatalf("a mounting: %d", w.StatusCode)
	}
	page.hears(t, `{"what":"mountings"}`)
	h.listen(maren, two, "/gauges/stream").hears(t, `"name":"dial"`)
	readings := h.listen(maren, two, "/gauges/stream")
	readings.hears(t, "event: reading")
	readings.hears(t, "event: reading")
	// The connection that it hears on is cut.
	db := sqlx.MustConnect("pgx", h.url)
	defer db.Close()
	db.MustExec(`SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE query LIKE 'LISTEN%' AND datname = current_database()`)
	page.hears(t, `{"what":"everything"}`)
	if w := at(one, "POST", "/cuts", h.made(nil)); w.StatusCode != 201 {
		t.Fatalf("a cut: %d", w.StatusCode)
	}
	page.hears(t, `{"what":"cuts"}`)
	for len(stranger.lines) > 0 {
		if line := <-stranger.lines; strings.Contains(line, "mountings") || strings.Contains(line, "cuts") {
			t.Errorf("another shop hears %s", line)
		}
	}
	// Signed out at one, she is out at the other.
	if w := at(one, "GET", "/blades", nil); w.StatusCode != 200 {
		t.Errorf("signed in: %d", w.StatusCode)
	}
	at(one, "DELETE", "/session", nil)
	if w := at(two, "GET", "/blades", nil); w.StatusCode != 401 {
		t.Errorf("signed out at another: %d", w.StatusCode)
	}
}
