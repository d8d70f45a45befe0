package httpapi_test

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"log/slog"
	"maps"
	"net/http"
	"net/http/httptest"
	"os"
	"strings"
	"sync"
	"testing"
	"testing/fstest"
	"time"

	"github.com/gin-gonic/gin"
	"github.com/google/uuid"

	"corte/internal/httpapi"
	"corte/internal/shop"
	"corte/internal/store"
	"corte/internal/testkit/pgtest"
)

func TestMain(m *testing.M) { os.Exit(pgtest.Run(m)) }

type obj = map[string]any

// A bench is the whole server on a database of its own, with the demo shop.
type bench struct {
	t     testing.TB
	url   string // of its database
	h     http.Handler
	st    *store.Store
	shop  uuid.UUID
	saw   map[string]string // by kind
	blade map[string]string // by name
}

// page is a front end, as small as it can be.
var page = fstest.MapFS{
	"index.html": {Data: []byte(`<meta content="__CSP_NONCE__">`)},
	"sw.js":      {Data: []byte("self")}, "manifest.webmanifest": {Data: []byte("{}")}, "assets/main.js": {Data: []byte(`1`)},
}

func newBench(t testing.TB) *bench {
	t.Helper()
	url, id := pgtest.Demo(t)
	st := pgtest.Open(t, url)
	h, err := httpapi.New(httpapi.Options{Service: shop.New(st, time.Now), Shop: id, Web: page, Pages: []string{"", "rack/:id", "rack/files"}, Log: slog.New(slog.NewTextHandler(io.Discard, nil))})
	if err != nil {
		t.Fatal(err)
	}
	b := &bench{t: t, url: url, h: h, st: st, shop: id, saw: map[string]string{}, blade: map[string]string{}}
	for _, s := range b.get("/saws")["items"].([]any) {
		b.saw[s.(obj)["kind"].(string)] = s.(obj)["id"].(string)
	}
	for _, x := range b.get("/blades")["items"].([]any) {
		b.blade[x.(obj)["name"].(string)] = x.(obj)["id"].(string)
	}
	return b
}

func (b *bench) do(method, path, body string, header ...string) *httptest.ResponseRecorder {
	r := httptest.NewRequest(method, "http://127.0.0.1"+path, strings.NewReader(body))
	if body != "" {
		r.Header.Set("Content-Type", "application/json")
	}
	for i := 0; i+1 < len(header); i += 2 {
		r.Header.Set(header[i], header[i+1])
	}
	w := httptest.NewRecorder()
	b.h.ServeHTTP(w, r)
	return w
}

func (b *bench) get(path string) obj {
	b.t.Helper()
	w := b.do("GET", "/api/v1"+path, "")
	if w.Code != http.StatusOK {
		b.t.Fatalf("GET %s: %d %s", path, w.Code, w.Body)
	}
	return decode(b.t, w)
}

func (b *bench) post(path string, body obj, header ...string) *httptest.ResponseRecorder {
	raw, err := json.Marshal(body)
	if err != nil {
		b.t.Fatal(err)
	}
	return b.do("POST", "/api/v1"+path, string(raw), header...)
}

func decode(t testing.TB, w *httptest.ResponseRecorder) obj {
	t.Helper()
	var v obj
	if err := json.Unmarshal(w.Body.Bytes(), &v); err != nil {
		t.Fatalf("%v in %s", err, w.Body)
	}
	return v
}

func (b *bench) cut(change obj) obj {
	c := obj{"saw_id": b.saw["table"], "material": "hard-maple", "direction": "rip",
		"thickness_mm": 25, "width_mm": 120, "length_mm": 900, "finish": "hidden"}
	maps.Copy(c, change)
	return c
}

func (b *bench) plan(change obj) *httptest.ResponseRecorder {
	return b.post("/plans", obj{"cut": b.cut(change), "units": "mm"})
}

func (b *bench) made(change obj) obj {
	m := obj{"cut": b.cut(nil), "blade_id": b.blade["Plough"], "height_mm": 39, "wall": "brown", "splinters": "fuzz"}
	maps.Copy(m, change)
	return m
}

func (b *bench) logged(blade string) int {
	return int(b.get("/blades/" + b.blade[blade])["condition"].(obj)["cuts"].(float64))
}

func TestPlanKnowsTheShop(t *testing.T) {
	b := newBench(t)
	p := decode(t, b.plan(nil))
	options, stopped := p["options"].([]any), p["stopped"].([]any)
	halted := 0
	for _, s := range stopped {
		halted += len(s.(obj)["blade_ids"].([]any))
	}
	if len(options)+halted != len(b.blade) || p["options_total"] != float64(len(options)) {
		t.Errorf("%d options and %d stopped of %d blades", len(options), halted, len(b.blade))
	}
	if first := options[0].(obj); first["blade_id"] != b.blade["Plough"] || first["setting"] == nil {
		t.Errorf("the first option is %v", first)
	}
	if p["heel_mm"].(float64) == 0 || p["ideal"] == nil {
		t.Errorf("heel %v, ideal %v", p["heel_mm"], p["ideal"])
	}
	rules := map[string]bool{}
	for _, s := range stopped {
		rules[s.(obj)["rule"].(string)] = true
	}
	for _, want := range []string{"diameter", "riving-knife", "dado", "make"} {
		if !rules[want] {
			t.Errorf("no blade is stopped by %s: %v", want, rules)
		}
	}
	// On the miter saw what is left out is settled, and a strong hook stops.
	p = decode(t, b.plan(obj{"saw_id": b.saw["miter"], "direction": "crosscut", "width_mm": 240}))
	if c := p["cut"].(obj); c["motion"] != "push" || c["other_support"] != "backer" {
		t.Errorf("settled as %v", c)
	}
	p = decode(t, b.plan(obj{"material": "aluminium"}))
	if sheet, _ := p["by_rule"].(obj); p["modelled"] != false || sheet["lubricant"] == nil || p["kerfs"] != nil {
		t.Errorf("aluminium: %v", p)
	}
	// The same rack for a shop that would rather leave the blade on.
	p = decode(t, b.plan(obj{"form": "groove", "depth_mm": 9}))
	if c := p["options"].([]any)[0].(obj)["heights"].(obj); c["suggested_mm"] != 9.0 || c["exact"] != true || p["swap"].(obj)["text"] == "" {
		t.Errorf("a groove: %v, swap %v", c, p["swap"])
	}
	p = decode(t, b.plan(obj{"thickness_mm": 120}))
	if p["both_faces"] != true || !strings.Contains(fmt.Sprint(p["hold"]), "same face against the fence") {
		t.Errorf("120 mm on the table saw: %v, %v", p["both_faces"], p["hold"])
	}
}

func TestSweepAgreesWithPlan(t *testing.T) {
	b := newBench(t)
	at := decode(t, b.plan(nil))["options"].([]any)[0].(obj)["setting"].(obj)
	s := decode(t, b.post("/sweeps", obj{"cut": b.cut(nil), "blade_id": b.blade["Plough"], "step_mm": 0.5, "also_mm": 30.1625, "units": "mm"}))
	all := s["settings"].([]any)
	if len(all) != 158 || s["also"].(obj)["height_mm"].(float64) != 30.1625 {
		t.Fatalf("%d settings, also %v", len(all), s["also"])
	}
	same, _ := json.Marshal(all[77])
	want, _ := json.Marshal(at)
	if !bytes.Equal(same, want) {
		t.Errorf("at 39 mm the sweep says %s, the plan %s", same, want)
	}
	if first := all[0].(obj); first["through"] != false || first["verdict"] != "caution" {
		t.Errorf("half a millimetre high: %v", first)
	}
}

// Passes, pins and supports are answered together with what may not be.
func TestPassesPinsAndSupports(t *testing.T) {
	b := newBench(t)
	wide := obj{"saw_id": b.saw["miter"], "direction": "crosscut", "width_mm": 240, "exit_support": "scored"}
	passes := decode(t, b.post("/sweeps", obj{"cut": b.cut(wide), "blade_id": b.blade["Curtain"], "step_mm": 0.5, "units": "mm"}))["passes"].([]any)
	if len(passes) != 2 || passes[0].(obj)["name"] != "scoring pass" || passes[0].(obj)["scorch_assessed"] != false {
		t.Errorf("a scored push: %v", passes)
	}
	items := decode(t, b.post("/comparisons", obj{"units": "mm", "cut": b.cut(nil), "pins": []obj{
		{"blade_id": b.blade["Plough"]}, {"blade_id": b.blade["Plough"], "height_mm": 70}, {"blade_id": b.blade["Plough"], "height_mm": 90}, {"blade_id": b.blade["Reed"]},
	}}))["items"].([]any)
	low, high := items[0].(obj)["setting"].(obj), items[1].(obj)["setting"].(obj)
	if low["arc_mm"].(float64) <= high["arc_mm"].(float64) || items[2].(obj)["refused"] == nil || !strings.Contains(items[3].(obj)["refused"].(string), "riving knife") {
		t.Errorf("pins: %v", items)
	}
	board := obj{"material": "softwood-ply", "thickness_mm": 18, "span_mm": 2440, "breadth_mm": 1220, "line_mm": 1200, "now_mm": []float64{200, 2200}, "units": "mm"}
	s := decode(t, b.post("/support-plans", board))
	if len(s["plan"].(obj)["at_mm"].([]any)) != 4 || s["plan"].(obj)["binds"] != false || s["now"].(obj)["binds"] != true {
		t.Errorf("supports: %v", s)
	}
	board["line_mm"] = 2440
	if w := b.post("/support-plans", board); w.Code != 422 || decode(t, w)["field"] != "line_mm" {
		t.Errorf("a line at the end: %d %s", w.Code, w.Body)
	}
}

// Every bad input is a sentence about its field, and changes nothing.
func TestBadInput(t *testing.T) {
	b := newBench(t)
	before := b.logged("Plough")
	refused := func(name string, w *httptest.ResponseRecorder, status int, field, says string) {
		t.Helper()
		if w.Code != status || w.Header().Get("Content-Type") != "application/problem+json" {
			t.Errorf("%s: %d %s %s", name, w.Code, w.Header().Get("Content-Type"), w.Body)
			return
		}
		p := decode(t, w)
		if f, _ := p["field"].(string); f != field || !strings.Contains(p["detail"].(string), says) || p["request_id"] != w.Header().Get("X-Request-Id") {
			t.Errorf("%s: %s; want %s in %q", name, w.Body, says, field)
		}
	}
	for name, c := range map[string]struct {
		change      obj
		status      int
		field, says string
	}{
		"no thickness":           {obj{"thickness_mm": 0}, 422, "cut.thickness_mm", "at least 0.5"},
		"negative width":         {obj{"width_mm": -3}, 422, "cut.width_mm", "at least 1"},
		"absurd length":          {obj{"length_mm": 1e9}, 422, "cut.length_mm", "at most 20000"},
		"thicker than the plate": {obj{"thickness_mm": 160}, 422, "cut.thickness_mm", "from both faces (79 mm each)"},
		"unknown material":       {obj{"material": "marzipan"}, 422, "cut.material", "not a material"},
		"unknown saw":            {obj{"saw_id": uuid.NewString()}, 422, "cut.saw_id", "no such saw"},
		"a rip on the mitre":     {obj{"saw_id": b.saw["miter"], "direction": "rip"}, 422, "cut.direction", "only crosscuts"},
		"a word for a size":      {obj{"thickness_mm": "thick"}, 400, "cut.thickness_mm", "must be a number"},
		"a field too many":       {obj{"thickness_in": 1}, 400, "cut", "thickness_in is not a field"},
		"an unknown finish":      {obj{"finish": "shiny"}, 422, "cut.finish", "one of rough, hidden"},
		"a steep bevel":          {obj{"bevel_deg": 50}, 422, "cut.bevel_deg", "tilts to 45"},
		"a groove too deep":      {obj{"form": "groove", "depth_mm": 25}, 422, "cut.depth_mm", "doesn't go through"},
	} {
		refused("plan with "+name, b.plan(c.change), c.status, c.field, c.says)
		refused("cut with "+name, b.post("/cuts", b.made(obj{"cut": b.cut(c.change)}), "Idempotency-Key", uuid.NewString()), c.status, c.field, c.says)
	}
	key := []string{"Idempotency-Key", "abcdefgh"}
	refused("NaN", b.do("POST", "/api/v1/plans", `{"cut":{"thickness_mm":NaN}}`), 400, "", "isn't valid JSON")
	refused("no key", b.post("/cuts", b.made(nil)), 400, "Idempotency-Key", "missing")
	refused("a null height", b.post("/cuts", b.made(obj{"height_mm": nil}), key...), 400, "height_mm", "leave it out")
	low := b.made(nil)
	delete(low, "height_mm")
	refused("no height", b.post("/cuts", low, key...), 422, "height_mm", "Enter the blade height")
	refused("height past reach", b.post("/cuts", b.made(obj{"height_mm": 200}), key...), 422, "height_mm", "beyond this saw's cutting depth")
	refused("a blade not on the rack", b.post("/cuts", b.made(obj{"blade_id": uuid.NewString()}), key...), 422, "blade_id", "no such blade")
	refused("a blade that may not", b.post("/cuts", b.made(obj{"blade_id": b.blade["Reed"]}), key...), 422, "blade_id", "Reed can't make this cut")
	refused("too large", b.do("POST", "/api/v1/plans", `{"x":"`+strings.Repeat("y", 300<<10)+`"}`), 413, "", "larger than 256 kB")
	refused("unknown address", b.do("GET", "/api/v1/nothing", ""), 404, "", "nothing at this address")
	refused("unknown method", b.do("DELETE", "/api/v1/saws", ""), 405, "", "DELETE is not possible")
	refused("unknown blade", b.do("GET", "/api/v1/blades/"+uuid.NewString(), ""), 404, "id", "no such blade")
	refused("not an id", b.do("GET", "/api/v1/blades/plough", ""), 400, "id", "id is not a UUID")
	refused("a length", b.do("GET", "/api/v1/length?text=1/0&units=in", ""), 422, "text", "over zero")
	refused("a page", b.do("GET", "/api/v1/blades?after=zzz", ""), 422, "after", "page position is unknown")
	refused("another site's page", b.post("/cuts", b.made(nil), "Sec-Fetch-Site", "cross-site"), 403, "", "another site")
	if after := b.logged("Plough"); after != before {
		t.Errorf("refused input changed the log: %d cuts, then %d", before, after)
	}
}

// However often and however much at once a cut is sent, it is logged once.
func TestARetryLogsOnce(t *testing.T) {
	b := newBench(t)
	before := b.logged("Plough")
	made := b.made(obj{"pieces": 4})
	ids := make(chan float64, 8)
	var wg sync.WaitGroup
	for range cap(ids) {
		wg.Go(func() {
			w := b.post("/cuts", made, "Idempotency-Key", "one-cut-one-key")
			if w.Code != http.StatusCreated {
				t.Errorf("%d %s", w.Code, w.Body)
				return
			}
			ids <- decode(t, w)["id"].(float64)
		})
	}
	wg.Wait()
	close(ids)
	seen := map[float64]bool{}
	for id := range ids {
		seen[id] = true
	}
	if after := b.logged("Plough"); len(seen) != 1 || after != before+1 {
		t.Errorf("rows %v, cuts %d then %d", seen, before, after)
	}
	if w := b.post("/cuts", b.made(nil), "Idempotency-Key", "one-cut-one-key"); w.Code != http.StatusUnprocessableEntity {
		t.Errorf("the same key for another cut: %d %s", w.Code, w.Body)
	}
	row := b.get("/log?blade_id=" + b.blade["Plough"] + "&limit=1")["items"].([]any)[0].(obj)
	if c := row["cut"].(obj); c["wall"] != "brown" || c["pieces"].(float64) != 4 || c["metres"].(float64) != 3.6 {
		t.Errorf("the row says %v", row)
	}
	if on := b.get("/blades/" + b.blade["Plough"])["mounted_on"]; on != b.saw["table"] {
		t.Errorf("after a cut the blade is on %v", on)
	}
}

func TestPagesByKey(t *testing.T) {
	b := newBench(t)
	names, after := 0, ""
	for pages := 0; ; pages++ {
		page := b.get("/blades?limit=8" + after)
		names += len(page["items"].([]any))
		next, more := page["next"].(string)
		if !more {
			if names != len(b.blade) || pages != 2 {
				t.Errorf("%d blades on %d pages", names, pages+1)
			}
			break
		}
		after = "&after=" + next
	}
	last, rows := 1e18, 0
	before := ""
	for {
		page := b.get("/log?blade_id=" + b.blade["Rook"] + "&limit=20" + before)
		for _, e := range page["items"].([]any) {
			id := e.(obj)["id"].(float64)
			if id >= last {
				t.Fatalf("row %v after row %v", id, last)
			}
			last, rows = id, rows+1
		}
		next, more := page["next"].(string)
		if !more {
			break
		}
		before = "&before=" + next
	}
	if rows < 50 {
		t.Errorf("%d rows in all", rows)
	}
}

func TestPageAndHeaders(t *testing.T) {
	b := newBench(t)
	one, two := b.do("GET", "/rack/anything", ""), b.do("GET", "/", "")
	csp := one.Header().Get("Content-Security-Policy")
	nonce := strings.TrimSuffix(strings.TrimPrefix(one.Body.String(), `<meta content="`), `">`)
	if len(nonce) < 20 || !strings.Contains(csp, "'nonce-"+nonce+"'") || strings.Contains(csp, "unsafe") || one.Body.String() == two.Body.String() {
		t.Errorf("policy %q for page %q", csp, one.Body)
	}
	if w := b.do("GET", "/assets/main.js", ""); w.Code != 200 || !strings.Contains(w.Header().Get("Cache-Control"), "immutable") {
		t.Errorf("an asset: %d %v", w.Code, w.Header())
	}
	// The worker that keeps the pages is asked for anew, and may ask for them.
	if w := b.do("GET", "/sw.js", ""); w.Code != 200 || w.Header().Get("Cache-Control") != "no-cache" || !strings.Contains(w.Header().Get("Content-Security-Policy"), "connect-src 'self'") {
		t.Errorf("the worker: %d %v", w.Code, w.Header())
	}
	if w := b.do("GET", "/manifest.webmanifest", ""); w.Code != 200 || w.Header().Get("Content-Type") != "application/manifest+json" {
		t.Errorf("the manifest: %d %v", w.Code, w.Header())
	}
	if w := b.do("GET", "/assets/gone.js", ""); w.Code != 404 {
		t.Errorf("an asset of another build: %d", w.Code)
	}
	for at, code := range map[string]int{"/rack/files": 200, "/rack/": 404, "/rack/a/b": 404, "/racks": 404, "/index.html": 404, "/rack/../": 200} {
		if w := b.do("GET", at, ""); w.Code != code || !strings.Contains(w.Body.String(), "<meta") {
			t.Errorf("%s: %d %s", at, w.Code, w.Body)
		}
	}
	r := httptest.NewRequest("GET", "http://shop.example/api/v1/saws", nil)
	w := httptest.NewRecorder()
	if b.h.ServeHTTP(w, r); w.Code != http.StatusMisdirectedRequest {
		t.Errorf("under another name: %d", w.Code)
	}
	if spec := b.get("/openapi.json"); spec["openapi"] == nil {
		t.Errorf("the contract: %v", spec)
	}
	if l := b.get("/length?units=mm&text=1+3%2F16"); l["mm"].(float64) < 30.16 || l["text_in"] != `1 3/16"` {
		t.Errorf("a length: %v", l)
	}
	b.get("/health")
}

// Somebody who hangs up is no fault of the database, and the log says nothing.
func TestHangingUpIsNoError(t *testing.T) {
	b := newBench(t)
	var log bytes.Buffer
	was := slog.Default()
	slog.SetDefault(slog.New(slog.NewTextHandler(&log, nil)))
	defer slog.SetDefault(was)
	b.st.Close() // every read fails
	for gone, says := range map[bool]bool{true: false, false: true} {
		log.Reset()
		ctx, cancel := context.WithCancel(t.Context())
		if gone {
			cancel()
		}
		w := httptest.NewRecorder()
		b.h.ServeHTTP(w, httptest.NewRequest("GET", "http://127.0.0.1/api/v1/saws", nil).WithContext(ctx))
		if strings.Contains(log.String(), "ERROR") != says {
			t.Errorf("hung up: %v; %d, and the log says %q", gone, w.Code, &log)
		}
		cancel()
	}
}

// BenchmarkPlan compares a plan over the demo rack with a bare handler that
// reads the same rows and echoes them, in one run.
func BenchmarkPlan(b *testing.B) {
	on := newBench(b)
	sawID := uuid.MustParse(on.saw["table"])
	gin.SetMode(gin.ReleaseMode)
	bare := gin.New()
	bare.POST("/echo", func(c *gin.Context) {
		ctx := store.For(c, on.shop)
		s, err := on.st.Saw(ctx, on.shop, sawID)
		if err != nil {
			b.Error(err)
		}
		blades, err := on.st.Blades(ctx, on.shop, store.Place{}, 0)
		if err != nil {
			b.Error(err)
		}
		c.JSON(http.StatusOK, gin.H{"saw": s, "blades": blades})
	})
	raw, _ := json.Marshal(obj{"cut": on.cut(nil), "units": "mm"})
	var took [2]time.Duration
	for b.Loop() {
		for i, h := range []http.Handler{bare, on.h} {
			r := httptest.NewRequest("POST", []string{"http://127.0.0.1/echo", "http://127.0.0.1/api/v1/plans"}[i], bytes.NewReader(raw))
			r.Header.Set("Content-Type", "application/json")
			w := httptest.NewRecorder()
			start := time.Now()
			h.ServeHTTP(w, r)
			took[i] += time.Since(start)
			if w.Code != http.StatusOK {
				b.Fatal(w.Code, w.Body)
			}
		}
	}
	b.ReportMetric(float64(took[1])/float64(took[0]), "plan/bare")
	b.ReportMetric(float64(took[1].Microseconds())/float64(b.N), "µs/plan")
}

// BenchmarkLogCut logs cuts under keys, each with its condition and its lesson.
func BenchmarkLogCut(b *testing.B) {
	on := newBench(b)
	body := obj{"cut": on.cut(nil), "blade_id": on.blade["Plough"], "height_mm": 39, "wall": "clean", "splinters": "none"}
	for b.Loop() {
		if w := on.post("/cuts", body, "Idempotency-Key", uuid.NewString()); w.Code != http.StatusCreated {
			b.Fatal(w.Code, w.Body)
		}
	}
}
