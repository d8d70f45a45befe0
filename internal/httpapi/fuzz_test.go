package httpapi_test

import (
	"encoding/json"
	"flag"
	"io"
	"maps"
	"math/rand/v2"
	"net/http"
	"net/http/httptest"
	"net/url"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/google/uuid"

	"corte/internal/httpapi/contract"
)

var (
	oddCalls = flag.Int("odd", 1200, "how many odd requests are sent")
	oddSeed  = flag.Uint64("odd-seed", 12, "what they are drawn by")
)

// Requests drawn at random from the contract, spoilt in several places at once,
// go to a live server: none ends in a crash or hangs, and none that is refused
// leaves anything behind.
func TestOddRequests(t *testing.T) {
	b := newBench(t)
	srv := httptest.NewServer(b.h)
	defer srv.Close()
	client := &http.Client{Timeout: 20 * time.Second}
	spec, err := contract.GetSpec()
	if err != nil {
		t.Fatal(err)
	}
	type call struct {
		method, path string
		op           *openapi3.Operation
	}
	var calls []call
	for _, path := range slices.Sorted(maps.Keys(spec.Paths.Map())) {
		ops := spec.Paths.Value(path).Operations()
		for _, method := range slices.Sorted(maps.Keys(ops)) {
			if path != "/gauges/stream" && path != "/events" { // they do not end
				calls = append(calls, call{method, path, ops[method]})
			}
		}
	}
	dice := oddity{rand.New(rand.NewPCG(*oddSeed, 0)), b, nil}
	all := b.whole()
	refused := 0
	for range *oddCalls {
		c := calls[dice.IntN(len(calls))]
		query := url.Values{}
		for _, p := range c.op.Parameters {
			if p.Value.In == "query" && (p.Value.Required || dice.IntN(3) == 0) {
				query.Set(p.Value.Name, dice.text())
			}
		}
		var body string
		if c.op.RequestBody != nil {
			body = dice.body(c.op.RequestBody.Value)
		}
		at := strings.NewReplacer("{id}", dice.id(), "{name}", dice.id(), "{secret}", dice.id()).Replace(c.path)
		r, err := http.NewRequest(c.method, srv.URL+"/api/v1"+at+"?"+query.Encode(), strings.NewReader(body))
		if err != nil {
			t.Fatal(err)
		}
		dice.headers(r.Header)
		w, err := client.Do(r)
		if err != nil {
			t.Fatalf("%s %s: %v for %s", c.method, r.URL, err, body)
		}
		says, err := io.ReadAll(w.Body)
		w.Body.Close()
		moved := all.moved()
		switch {
		case err != nil || w.StatusCode >= 500:
			t.Errorf("%s %s: %d %s, %v for %.400s with %v", c.method, r.URL, w.StatusCode, says, err, body, r.Header)
		case w.StatusCode >= 400:
			refused++
			if moved {
				t.Errorf("%s %s: refused with %d, and something was changed, for %.400s", c.method, r.URL, w.StatusCode, body)
			}
		case moved && c.method == http.MethodGet:
			t.Errorf("GET %s changed something", r.URL)
		}
	}
	if refused < *oddCalls/3 || refused > *oddCalls*9/10 {
		t.Errorf("%d of %d were refused: the test no longer reaches much", refused, *oddCalls)
	}
}

// An oddity draws what nobody means.
type oddity struct {
	*rand.Rand
	b    *bench
	keys []string // of requests so far
}

func (o *oddity) pick(of ...string) string { return of[o.IntN(len(of))] }

func (o *oddity) id() string {
	return o.pick(o.b.blade["Trapdoor"], o.b.blade["Quill"], o.b.saw["table"], o.b.saw["miter"], uuid.NewString(), "7", "0", "-1", "dial", "9223372036854775808", "%2e%2e", "%00")
}

func (o *oddity) text() string {
	return o.pick("", "a", "0", "-1", "1", "12", "1e9", "true", "in", "mm", "csv", "json", "\x00", "\ufeff", "Österreich", "2026-02-30", "2026-11-26T10:00:00+14:00",
		"0001-01-01T00:00:00Z", "a,b;c\n=1", strings.Repeat("ß", 300), o.b.blade["Trapdoor"], o.b.saw["table"], "hard-maple", "table")
}

// odd is a value in a place where another was meant.
func (o *oddity) odd() any {
	switch o.IntN(8) {
	case 0:
		return nil
	case 1:
		return o.text()
	case 2:
		return o.IntN(2) == 0
	case 3:
		return []any{}
	case 4:
		return map[string]any{}
	case 5:
		return json.Number(o.pick("1e-300", "5e-324", "1e308", "1e400", "-0", "1.0", "2147483648", "9223372036854775808", "0.1", "1e2"))
	}
	return (o.Float64() - 0.3) * []float64{1, 10, 100, 1e4, 1e7}[o.IntN(5)]
}

// spoil puts odd values into some places of a value, one in so many.
func (o *oddity) spoil(v any, one int) any {
	if o.IntN(one) == 0 {
		return o.odd()
	}
	switch v := v.(type) {
	case map[string]any:
		for _, key := range slices.Sorted(maps.Keys(v)) {
			if o.IntN(3*one) == 0 {
				delete(v, key)
			} else {
				v[key] = o.spoil(v[key], one)
			}
		}
	case []any:
		for i := range v {
			v[i] = o.spoil(v[i], one)
		}
		if len(v) > 0 && o.IntN(2*one) == 0 {
			return slices.Repeat(v, o.IntN(40))
		}
	}
	return v
}

func (o *oddity) body(want *openapi3.RequestBody) string {
	content := want.Content["application/json"]
	if content == nil {
		return o.text() + o.text()
	}
	good := o.b.plausible("", content.Schema.Value, 0)
	if fields, ok := good.(map[string]any); ok && o.IntN(4) > 0 {
		good = map[string]any{}
		for _, key := range slices.Sorted(maps.Keys(fields)) { // at the top all places are likely to stay
			good.(map[string]any)[key] = o.spoil(fields[key], 2*len(fields))
		}
	}
	raw, err := json.Marshal(good)
	if err != nil {
		o.b.t.Fatal(err)
	}
	if o.IntN(12) == 0 && len(raw) > 0 {
		raw[o.IntN(len(raw))] = byte(o.IntN(256))
		raw = raw[:o.IntN(len(raw)+1)]
	}
	return string(raw)
}

func (o *oddity) headers(h http.Header) {
	h.Set("Content-Type", o.pick("application/json", "application/json", "application/json", "application/json", "text/csv", "image/png", ""))
	switch o.IntN(6) {
	case 0:
		h.Set("Idempotency-Key", o.pick(" ", "\"", strings.Repeat("k", 400), "é"))
	case 1:
		if len(o.keys) > 0 {
			h.Set("Idempotency-Key", o.pick(o.keys...))
		}
	case 2, 3, 4:
		key := uuid.NewString()
		o.keys = append(o.keys, key)
		h.Set("Idempotency-Key", key)
	}
	if o.IntN(3) > 0 {
		h.Set("If-Match", o.pick(`"1"`, `"1"`, `"1"`, `"2"`, `"0"`, `"-1"`, `1`, `W/"1"`, `"1e2"`, `"99999999999999999999"`, `*`))
	}
}
