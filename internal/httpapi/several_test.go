package httpapi_test

import (
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"

	"corte/internal/httpapi"
	"corte/internal/shop"
	"corte/internal/testkit/pgtest"
)

// Two servers on one database are one: a key that one has answered is known to
// the other, also at the same moment; of two changes over one version one is
// kept; and ticks of both add up.
func TestTwoServersAreOne(t *testing.T) {
	b := newBench(t)
	h, err := httpapi.New(httpapi.Options{Service: shop.New(pgtest.Open(t, b.url), time.Now), Shop: b.shop, Web: page, Log: slog.New(slog.NewTextHandler(io.Discard, nil))})
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
