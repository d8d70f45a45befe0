package httpapi_test

import (
	"context"
	"encoding/binary"
	"encoding/json"
	"math"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"github.com/coder/websocket"
	"github.com/google/uuid"

	"corte/internal/offline"
)

// sounding is a saw of so many teeth that turns at speeds of one second each, over a
// little noise, in blocks as a page sends them.
func sounding(teeth int, speeds ...float64) (blocks [][]byte) {
	const rate = 16000
	phase, seed := 0.0, uint32(7)
	block := make([]byte, 0, rate/10)
	for _, rpm := range speeds {
		for range rate {
			phase += rpm / 60 * float64(teeth) / rate
			seed = seed*1664525 + 1013904223
			x := 0.01 * (float64(seed>>8)/(1<<23) - 1)
			for h := 1.0; h <= 3; h++ {
				x += 0.1 / h * math.Sin(2*math.Pi*h*phase+h)
			}
			if block = binary.LittleEndian.AppendUint16(block, uint16(int16(32000*x))); len(block) == cap(block) {
				blocks, block = append(blocks, block), make([]byte, 0, rate/10)
			}
		}
	}
	return blocks
}

// A saw is listened to over one connection: each block is answered, cuts are counted,
// what is logged of them teaches the saw's idle speed, and cuts that slow it more than
// they should are told the next time. Away from the server it is the same.
func TestListen(t *testing.T) {
	b := newBench(t)
	server := httptest.NewServer(b.h)
	defer server.Close()
	address := server.URL + "/api/v1/listening?saw_id=" + b.saw["table"] + "&blade_id=" + b.blade["Plough"] + "&rate=16000"
	played := func(blocks [][]byte) (last string) {
		t.Helper()
		ctx, done := context.WithTimeout(context.Background(), 30*time.Second)
		defer done()
		conn, _, err := websocket.Dial(ctx, address, nil)
		if err != nil {
			t.Fatal(err)
		}
		defer conn.CloseNow()
		for _, block := range blocks {
			if err := conn.Write(ctx, websocket.MessageBinary, block); err != nil {
				t.Fatal(err)
			}
			kind, raw, err := conn.Read(ctx)
			if err != nil || kind != websocket.MessageText {
				t.Fatal(kind, err)
			}
			last = string(raw)
		}
		return last
	}
	const idle = 4000.0
	blocks := sounding(24, idle, idle, 0.93*idle, 0.93*idle, 0.93*idle, idle, idle, 0.95*idle, 0.95*idle, idle, idle)
	last := played(blocks)
	var got struct {
		At    float64 `json:"at_s"`
		Doing string
		Idle  float64 `json:"idle_rpm"`
		Says  []string
		Cuts  []struct {
			Start float64 `json:"start_s"`
			End   float64 `json:"end_s"`
			Droop float64 `json:"droop_percent"`
		}
		Fill obj
	}
	if err := json.Unmarshal([]byte(last), &got); err != nil {
		t.Fatal(err)
	}
	near := func(a, b, by float64) bool { return math.Abs(a-b) <= by }
	if !near(got.At, 11, 1e-9) || got.Doing != "idling" || !near(got.Idle, idle, 8) || len(got.Cuts) != 2 || len(got.Says) > 0 ||
		!near(got.Cuts[0].Start, 2, 0.2) || !near(got.Cuts[0].End, 5, 0.2) || !near(got.Cuts[0].Droop, 7, 0.3) || !near(got.Cuts[1].Start, 7, 0.2) {
		t.Errorf("%s", last)
	}
	heard := got.Fill["heard"].(obj)
	if got.Fill["pieces"] != 2.0 || !near(got.Fill["seconds"].(float64), 2.5, 0.11) || got.Fill["effort"] != "hard" || !near(heard["mean_rpm"].(float64), (0.93*3+0.95*2)/5*idle, 15) {
		t.Errorf("%v", got.Fill)
	}

	host, err := offline.New(b.do("GET", "/api/v1/shelf", "").Body.Bytes())
	if err != nil {
		t.Fatal(err)
	}
	if status, out := host.Listen(b.saw["table"], b.blade["Plough"], 16000); status != 200 {
		t.Fatalf("%d %s", status, out)
	}
	var here []byte
	for _, block := range blocks {
		_, here = host.Hear(block)
	}
	if string(here) != last {
		t.Errorf("without the server:\n%s\nnot\n%s", here, last)
	}

	log := func(change obj) *httptest.ResponseRecorder {
		return b.post("/cuts", b.made(change), "Idempotency-Key", uuid.NewString())
	}
	if w := log(obj{"heard": obj{"idle_rpm": 4000, "mean_rpm": 3700, "least_rpm": 3800}}); w.Code != 422 || decode(t, w)["field"] != "heard" {
		t.Errorf("the least above the mean: %d %s", w.Code, w.Body)
	}
	for range 5 {
		if w := log(obj{"blade_id": b.blade["Plough"], "heard": got.Fill["heard"]}); w.Code != 201 {
			t.Fatalf("%d %s", w.Code, w.Body)
		}
	}
	var rows struct{ Items []struct{ Cut obj } }
	if err := json.Unmarshal(b.do("GET", "/api/v1/log?limit=1", "").Body.Bytes(), &rows); err != nil || rows.Items[0].Cut["heard"].(obj)["idle_rpm"] != heard["idle_rpm"] {
		t.Errorf("%v %v", rows, err)
	}
	// Now its idle speed is known before it idles.
	again := played(sounding(24, 0.95*idle, 0.95*idle, 0.95*idle))
	if !strings.Contains(again, `"idle_rpm":400`) || !strings.Contains(again, "slowed the saw") {
		t.Errorf("the next time: %s", again)
	}

	for name, c := range map[string]struct {
		address, field string
		code           int
	}{
		"no WebSocket":      {address, "upgrade", 422},
		"no such blade":     {strings.Replace(address, b.blade["Plough"], uuid.NewString(), 1), "blade_id", 422},
		"a disc":            {strings.Replace(address, b.blade["Plough"], b.blade["Mason"], 1), "blade_id", 422},
		"few samples":       {strings.Replace(address, "16000", "7999", 1), "rate", 422},
		"nothing is a rate": {strings.Replace(address, "&rate=16000", "", 1), "rate", 400},
	} {
		if w := b.do("GET", strings.TrimPrefix(c.address, server.URL), ""); w.Code != c.code || decode(t, w)["field"] != c.field {
			t.Errorf("%s: %d %s", name, w.Code, w.Body)
		}
	}
}
