package httpapi_test

import (
	"bufio"
	"context"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"

	"corte/internal/gauge"
	"corte/internal/gaugesim"
	"corte/internal/httpapi"
	"corte/internal/shop"
)

// A mounting is refused by the hard rules, comes back where it was, ends only
// when every check is answered with yes, and moves what is on the saw.
func TestMounting(t *testing.T) {
	b := newBench(t)
	table := b.saw["table"]
	start := func(blade string) *httptest.ResponseRecorder {
		return b.post("/mountings", obj{"saw_id": table, "blade_id": b.blade[blade], "by": "Ilse", "units": "mm"})
	}
	if w := start("Reed"); w.Code != 422 || !strings.Contains(w.Body.String(), "riving knife") {
		t.Errorf("a blade too thin for the knife: %d %s", w.Code, w.Body)
	}
	m := decode(t, start("Needle"))
	id, steps := m["id"].(string), m["steps"].([]any)
	said := fmt.Sprint(steps)
	for _, want := range []string{"Unplug the saw", "Take off Chorus", "left-hand thread", "2.3 mm thick", "Teeth toward you at the top"} {
		if !strings.Contains(said, want) {
			t.Errorf("nobody says %q", want)
		}
	}
	step := func(version, step int, answers obj) *httptest.ResponseRecorder {
		return b.put("/mountings/"+id, obj{"step": step, "answers": answers, "units": "mm"}, "If-Match", fmt.Sprintf(`"%d"`, version))
	}
	if w := step(1, 3, obj{"dead": true}); w.Code != 200 {
		t.Fatalf("%d %s", w.Code, w.Body)
	}
	if w := step(1, 4, obj{"dead": true}); w.Code != http.StatusPreconditionFailed {
		t.Errorf("another device's step was written over: %d", w.Code)
	}
	if again := decode(t, start("Needle")); again["id"] != id || again["step"] != 3.0 || again["answers"].(obj)["dead"] != true {
		t.Errorf("it came back as %v, step %v", again["id"], again["step"])
	}
	on := func() any { return b.get("/saws/" + table)["mounted_blade_id"] }
	if on() != b.blade["Chorus"] {
		t.Errorf("before the end %v is on", on())
	}
	answers := obj{}
	end := func(version int) *httptest.ResponseRecorder {
		return b.post("/mountings/"+id+"/end", obj{}, "If-Match", fmt.Sprintf(`"%d"`, version))
	}
	if w := end(2); w.Code != 422 || decode(t, w)["field"] != "answers" {
		t.Errorf("ended unanswered: %d", w.Code)
	}
	for _, s := range steps {
		for _, c := range s.(obj)["checks"].([]any) {
			answers[c.(obj)["id"].(string)] = true
		}
	}
	answers["plate"] = false
	step(2, 5, answers)
	if w := end(2); w.Code != http.StatusPreconditionFailed {
		t.Errorf("it ended over a no that was saved just before: %d", w.Code)
	}
	if w := end(3); w.Code != 422 || !strings.Contains(w.Body.String(), "Don't use") {
		t.Errorf("a cracked plate went on: %d %s", w.Code, w.Body)
	}
	answers["plate"] = true
	step(3, 12, answers)
	if w := end(4); w.Code != 201 || decode(t, w)["by"] != "Ilse" || on() != b.blade["Needle"] {
		t.Errorf("at the end: %d %s, on is %v", w.Code, w.Body, on())
	}
	if row := b.get("/log?blade_id=" + b.blade["Chorus"] + "&limit=1")["items"].([]any)[0].(obj); row["kind"] != "dismounted" {
		t.Errorf("what came off says %v", row)
	}
	if w := b.do("GET", "/api/v1/mountings/"+id+"?units=mm", ""); w.Code != 404 {
		t.Errorf("it is still under way: %d", w.Code)
	}
}

func (b *bench) truing(input obj) *httptest.ResponseRecorder {
	return b.post("/truings", input, "Idempotency-Key", uuid.NewString())
}

// What is measured goes into the plan, and says so; what is moved is stale.
func TestTruingReachesThePlanAndTheBench(t *testing.T) {
	b := newBench(t)
	table := b.saw["table"]
	burn := func() float64 {
		return decode(t, b.plan(nil))["options"].([]any)[0].(obj)["setting"].(obj)["window"].(obj)["scorch_m_min"].(float64)
	}
	save := func(test string, rear float64) obj {
		t.Helper()
		in := obj{"test": test, "saw_id": table, "first_mm": []float64{0, rear}, "span_mm": 220, "dial": "right", "units": "mm"}
		w := b.truing(in)
		if w.Code != 201 {
			t.Fatalf("%d %s", w.Code, w.Body)
		}
		return decode(t, w)
	}
	if rec := save("heel", 0); rec["verdict"] != "clear" || rec["input"].(obj)["span_mm"] != 220.0 || rec["high"] != 0.1 {
		t.Errorf("the record: %v", rec)
	}
	save("fence", 0)
	straight := burn()
	save("heel", 0.2)
	p := decode(t, b.plan(nil))
	if out := burn(); out <= straight || p["heel_mm"] != 0.2 || !strings.Contains(p["heel_from"].(string), "Toe-in 0.2 mm toward the fence on ") {
		t.Errorf("straight scorches below %v, out of line below %v; %v %v", straight, out, p["heel_mm"], p["heel_from"])
	}
	save("fence", 0.2) // opens as far as the blade leans: along it, all is well
	if again := burn(); again != straight {
		t.Errorf("with the fence along the blade: %v, not %v", again, straight)
	}
	due := func() string {
		for _, s := range b.get("/bench")["items"].([]any) {
			if s.(obj)["saw"].(obj)["id"] == table {
				return fmt.Sprint(s.(obj)["due"])
			}
		}
		return ""
	}
	if d := due(); !strings.Contains(d, "Blade to slot was off when") || !strings.Contains(d, "Tilt: never measured") || !strings.Contains(d, "Chorus has resin buildup") {
		t.Errorf("due: %s", d)
	}
	b.post("/saws/"+table+"/moves", obj{"note": "to the paint frame"}, "Idempotency-Key", uuid.NewString())
	if d := due(); !strings.Contains(d, "Blade to slot: the saw was moved") {
		t.Errorf("after the move: %s", d)
	}
	if h := b.get("/truings?saw_id=" + table + "&test=heel&limit=2")["items"].([]any); len(h) != 2 || h[0].(obj)["figure"] != 0.2 {
		t.Errorf("history: %v", h)
	}
	work := func(in obj) obj {
		in["units"] = "mm"
		return decode(t, b.post("/truing-results", in))
	}
	if r := work(obj{"test": "depth", "saw_id": table, "wanted_mm": 9, "measured_mm": 8.6}); r["turns"].(float64) < 0.049 || !strings.Contains(fmt.Sprint(r["do"]), "Raise") {
		t.Errorf("a shy depth: %v", r)
	}
	teeth := make([]float64, 60)
	for i := range teeth {
		teeth[i] = 0.5
	}
	teeth[22] = 0.6
	r := work(obj{"test": "clearance", "saw_id": table, "blade_id": b.blade["Quill"], "first_mm": teeth, "second_mm": teeth[:3]})
	if fmt.Sprint(r["left"].(obj)["proud"]) != "[22]" || r["marks_apart_mm"] == nil {
		t.Errorf("clearance: %v", r)
	}
	if r := work(obj{"test": "runout", "saw_id": table, "first_mm": []float64{0, 0.01, 7.2, 0.02}}); fmt.Sprint(r["doubtful_first"]) != "[2]" {
		t.Errorf("a slip of the finger: %v", r)
	}
	for field, in := range map[string]obj{
		"span_mm":  {"test": "heel", "saw_id": table, "first_mm": []float64{0, 1}, "units": "mm"},
		"first_mm": {"test": "heel", "saw_id": table, "first_mm": []float64{0}, "span_mm": 200, "units": "mm"},
		"saw_id":   {"test": "tilt", "gap_mm": 1, "height_mm": 100, "units": "mm"},
		"blade_id": {"test": "clearance", "first_mm": teeth, "units": "mm"},
		"test":     {"test": "width", "saw_id": table, "wanted_mm": 9, "measured_mm": 8, "units": "mm"},
	} {
		if w := b.truing(in); w.Code != 422 || decode(t, w)["field"] != field {
			t.Errorf("%s: %d %s", field, w.Code, w.Body)
		}
	}
}

// A stand-in's readings arrive as server-sent events.
func TestGaugeStream(t *testing.T) {
	b := newBench(t)
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		t.Fatal(err)
	}
	ctx, cancel := context.WithCancel(t.Context())
	defer cancel()
	go gaugesim.Rig{Truth: gaugesim.Demo, Names: []string{"dial"}, Every: 20 * time.Millisecond}.Serve(ctx, l)
	log := slog.New(slog.NewTextHandler(io.Discard, nil))
	hub := gauge.New([]string{l.Addr().String()}, log)
	go hub.Run(ctx)
	h, err := httpapi.New(httpapi.Options{Service: shop.New(b.st, time.Now), Shop: b.shop, Web: page, Log: log, Gauges: hub})
	if err != nil {
		t.Fatal(err)
	}
	srv := httptest.NewServer(h)
	defer srv.Close()
	r, err := http.Get(srv.URL + "/api/v1/gauges/stream")
	if err != nil || !strings.HasPrefix(r.Header.Get("Content-Type"), "text/event-stream") {
		t.Fatalf("%v, %v", err, r)
	}
	defer r.Body.Close()
	lines := bufio.NewScanner(r.Body)
	seen := map[string]bool{}
	timer := time.AfterFunc(8*time.Second, func() { r.Body.Close() })
	defer timer.Stop()
	for lines.Scan() && !(seen["event: state"] && seen["event: reading"]) {
		seen[lines.Text()] = true
	}
	if !seen["event: reading"] {
		t.Errorf("no reading came: %v", seen)
	}
	b.h = h
	if w := b.post("/gauges/dial/place", obj{"where": "heel-rear"}); w.Code != 204 {
		t.Errorf("placing it: %d %s", w.Code, w.Body)
	}
	if w := b.post("/gauges/none/place", obj{"where": "heel-rear"}); w.Code != 404 {
		t.Errorf("placing one that is not there: %d", w.Code)
	}
	cancel() // Corte stops: the stream ends by itself
	for lines.Scan() {
		_ = lines.Text()
	}
}
