package attack

import (
	"bytes"
	"fmt"
	"image"
	"image/jpeg"
	"image/png"
	"io"
	"net"
	"net/http"
	"runtime"
	"slices"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/coder/websocket"

	"corte/internal/photo"
)

// p99 is how long the slowest of a hundred plans took.
func (c *client) p99(saw string) time.Duration {
	took := make([]time.Duration, 100)
	for i := range took {
		begun := time.Now()
		c.must(200, "POST", "/plans", obj{"cut": cut(saw, nil), "units": "mm"})
		took[i] = time.Since(begun)
	}
	return slices.Max(took)
}

// Bodies that trickle in take no connection of the database: forty of one
// learner leave everybody else's answers where they were, and each is answered.
func TestTrickledBodiesHinderNobody(t *testing.T) {
	x := closed(t)
	maren := x.owner()
	rosa, _ := maren.member("Rosa", "learner")
	saw := maren.ids("/saws", "kind")["table"]
	maren.p99(saw) // the first ones warm what is warm later
	alone := maren.p99(saw)
	u := strings.TrimPrefix(x.srv.URL, "http://")
	cookie := rosa.http.Jar.Cookies(mustURL(t, x.srv.URL))
	const slow = 40
	conns := make([]net.Conn, slow)
	for i := range conns {
		conn, err := net.Dial("tcp", u)
		if err != nil {
			t.Fatal(err)
		}
		defer conn.Close()
		conns[i] = conn
		head := "POST /api/v1/cuts HTTP/1.1\r\nHost: " + u + "\r\nContent-Type: application/json\r\nContent-Length: 4000\r\n"
		if i%2 == 0 {
			head += "Idempotency-Key: " + keyed()[1] + "\r\n"
		}
		for _, c := range cookie {
			head += "Cookie: " + c.String() + "\r\n"
		}
		if _, err := io.WriteString(conn, head+"\r\n{"); err != nil {
			t.Fatal(err)
		}
	}
	time.Sleep(300 * time.Millisecond)
	if n := x.st.Stat().AcquiredConns(); n > 2 {
		t.Errorf("forty bodies that have not come hold %d connections of the database", n)
	}
	beside := maren.p99(saw)
	t.Logf("the slowest of a hundred plans: %v alone, %v beside %d slow bodies", alone, beside, slow)
	// Where they held the pool, a plan waited for as long as they took: fifteen seconds.
	if beside > alone+2*time.Second {
		t.Errorf("the slowest plan took %v, and %v alone", beside, alone)
	}
	if !long {
		return
	}
	for i, conn := range conns { // in time each hears that it was too slow
		_ = conn.SetReadDeadline(time.Now().Add(30 * time.Second))
		line := make([]byte, 12)
		if _, err := io.ReadFull(conn, line); err != nil || string(line) != "HTTP/1.1 408" {
			t.Errorf("slow body %d: %q, %v", i, line, err)
		}
	}
}

// What is done is done once: of sixteen at once one is told so, the others hear
// that it was done already, and one row is written.
func TestSixteenAtOnceDoItOnce(t *testing.T) {
	x := open(t)
	c := x.client()
	blades, saws := c.ids("/blades", "name"), c.ids("/saws", "name")
	db := x.db()
	rows := func(kind, id string) (n int) {
		if err := db.Get(&n, `SELECT count(*) FROM log WHERE kind = $1 AND (blade_id::text = $2 OR saw_id::text = $2)`, kind, id); err != nil {
			t.Fatal(err)
		}
		return n
	}
	spare := c.must(201, "POST", "/saws", obj{"name": "Spare", "kind": "miter", "diameter_mm": 254, "arbor_mm": 15.875, "rpm": 4800, "motor_w": 1500, "reach_mm": 90}, keyed()...)["id"].(string)
	blade := "/blades/" + blades["Needle"]
	for _, step := range []struct {
		name, method, path, kind, id string
		body                         obj
	}{
		{"sent out", "POST", blade + "/sending", "sent", blades["Needle"], obj{"to": "the sharpening service"}},
		{"taken back", "POST", blade + "/return", "sharpened", blades["Needle"], obj{"sharpened": true}},
		{"retired", "PUT", blade + "/retirement", "retired", blades["Needle"], obj{"reason": "worn-out"}},
		{"restored", "DELETE", blade + "/retirement", "restored", blades["Needle"], nil},
		{"a saw retired", "PUT", "/saws/" + spare + "/retirement", "retired", spare, obj{"reason": "sold"}},
		{"a saw restored", "DELETE", "/saws/" + spare + "/retirement", "restored", spare, nil},
	} {
		before := rows(step.kind, step.id)
		var done, told atomic.Int32
		var all sync.WaitGroup
		for range 16 {
			all.Go(func() {
				var body any
				if step.body != nil {
					body = step.body
				}
				w, err := x.client().try(step.method, step.path, body, keyed()...)
				switch {
				case err != nil:
					t.Errorf("%s: %v", step.name, err)
				case w.code/100 == 2:
					done.Add(1)
				case w.code == 409 && strings.Contains(w.body, "Nothing was saved"):
					told.Add(1)
				default:
					t.Errorf("%s: %d %s", step.name, w.code, w.body)
				}
			})
		}
		all.Wait()
		if done.Load() != 1 || told.Load() != 15 || rows(step.kind, step.id) != before+1 {
			t.Errorf("%s: %d did it, %d were told, %d rows", step.name, done.Load(), told.Load(), rows(step.kind, step.id)-before)
		}
	}
	// What never went out does not come back; a saw that is being worked on stays.
	c.must(409, "POST", "/blades/"+blades["Chorus"]+"/return", obj{"sharpened": true}, keyed()...)
	if w := c.do("POST", "/mountings", obj{"saw_id": saws["Long Table"], "blade_id": blades["Plough"], "units": "mm"}, keyed()...); w.code/100 != 2 {
		t.Fatalf("a mounting: %d %s", w.code, w.body)
	}
	for _, path := range []string{"/saws/" + saws["Long Table"], "/blades/" + blades["Plough"]} {
		if p := c.must(409, "PUT", path+"/retirement", obj{"reason": "sold"}, keyed()...); !strings.Contains(p["detail"].(string), "mounting in progress") {
			t.Errorf("retired while it is mounted: %v", p)
		}
	}
	// Of sixteen washes of one blade one begins, and one of sixteen ends it.
	var begun atomic.Int32
	var all sync.WaitGroup
	var wash atomic.Pointer[obj]
	for range 16 {
		all.Go(func() {
			if w, err := x.client().try("POST", "/washes", obj{"blade_ids": []string{blades["Rook"]}, "cleaner": "citrus", "brush": "nylon"}, keyed()...); err == nil && w.code == 201 {
				begun.Add(1)
				o := w.obj(t)
				wash.Store(&o)
			}
		})
	}
	all.Wait()
	if begun.Load() != 1 {
		t.Fatalf("%d washes of one blade are under way", begun.Load())
	}
	id := (*wash.Load())["id"].(string)
	last := len((*wash.Load())["steps"].([]any)) - 1
	version := int(c.must(200, "PUT", "/washes/"+id, obj{"step": last}, append(keyed(), "If-Match", `"1"`)...)["version"].(float64))
	before := rows("washed", blades["Rook"])
	for range 16 {
		all.Go(func() {
			if w, err := x.client().try("POST", "/washes/"+id+"/end", nil, append(keyed(), "If-Match", fmt.Sprintf(`"%d"`, version))...); err != nil || w.code >= 500 {
				t.Errorf("the end of a wash: %d %v", w.code, err)
			}
		})
	}
	all.Wait()
	if n := rows("washed", blades["Rook"]); n != before+1 {
		t.Errorf("one wash is logged %d times", n-before)
	}
}

// Photos and sound have a budget: one of each a person, a few on the server; the
// others are told when to come back, and everybody is answered.
func TestLooksAndListeningAreBounded(t *testing.T) {
	x := closed(t)
	maren := x.owner()
	big := picture(t, 3000, 2000)
	var ok, later atomic.Int32
	var all sync.WaitGroup
	for range 12 {
		all.Go(func() {
			w, err := maren.try("POST", "/blade-looks", bytes.NewReader(big), "Content-Type", "image/jpeg")
			switch {
			case err != nil:
				t.Errorf("no answer: %v", err)
			case w.code == 429 && w.header.Get("Retry-After") != "":
				later.Add(1)
			case w.code < 500:
				ok.Add(1)
			default:
				t.Errorf("a look: %d %s", w.code, w.body)
			}
		})
	}
	all.Wait()
	if ok.Load() < 1 || later.Load() < 1 || ok.Load()+later.Load() != 12 {
		t.Errorf("of twelve photos at once %d were looked at and %d sent away", ok.Load(), later.Load())
	}
	// Listening: a second page is told, and takes over once the first is closed.
	address := "ws" + strings.TrimPrefix(x.srv.URL, "http") + "/api/v1/listening?rate=16000&saw_id=" + maren.ids("/saws", "kind")["table"] + "&blade_id=" + maren.ids("/blades", "name")["Plough"]
	dial := func() (*websocket.Conn, *http.Response, error) {
		return websocket.Dial(t.Context(), address, &websocket.DialOptions{HTTPClient: maren.http})
	}
	first, _, err := dial()
	if err != nil {
		t.Fatal(err)
	}
	if _, w, err := dial(); err == nil || w == nil || w.StatusCode != 429 || w.Header.Get("Retry-After") == "" {
		t.Errorf("a second page listens: %v, %v", w, err)
	}
	first.CloseNow()
	second, _, err := dial()
	if err != nil {
		t.Errorf("after the first was closed: %v", err)
	} else {
		second.CloseNow()
	}
}

func picture(t *testing.T, wide, high int) []byte {
	t.Helper()
	var out bytes.Buffer
	if err := jpeg.Encode(&out, image.NewGray(image.Rect(0, 0, wide, high)), nil); err != nil {
		t.Fatal(err)
	}
	return out.Bytes()
}

// A photo of fifty million pixels costs less than 400 MB and five seconds.
func TestALargePhotoIsDecodedWithinBounds(t *testing.T) {
	if !long {
		t.Skip("it takes ten seconds; run make test-long")
	}
	const wide, high = 10_000, 5_000
	var flat bytes.Buffer
	if err := png.Encode(&flat, image.NewNRGBA(image.Rect(0, 0, wide, high))); err != nil {
		t.Fatal(err)
	}
	for name, file := range map[string][]byte{"a JPEG": picture(t, wide, high), "a PNG": flat.Bytes()} {
		runtime.GC()
		var most atomic.Uint64
		done := make(chan struct{})
		var before, now runtime.MemStats
		runtime.ReadMemStats(&before)
		go func() {
			for {
				select {
				case <-done:
					return
				case <-time.After(5 * time.Millisecond):
					runtime.ReadMemStats(&now)
					most.Store(max(most.Load(), now.HeapInuse-min(now.HeapInuse, before.HeapInuse)))
				}
			}
		}()
		begun := time.Now()
		_, err := photo.Small(t.Context(), file, 1280)
		took := time.Since(begun)
		close(done)
		t.Logf("%s of 50 million pixels: %d MB, %v", name, most.Load()>>20, took)
		if err != nil || most.Load() > 400<<20 || took > 5*time.Second {
			t.Errorf("%s of 50 million pixels: %d MB, %v, %v", name, most.Load()>>20, took, err)
		}
	}
}
