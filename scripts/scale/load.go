package main

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"maps"
	"net/http"
	"slices"
	"strings"
	"sync"
	"time"

	"github.com/google/uuid"
)

// A call is one that every client makes in turn.
type call struct {
	name, method, path string
	body               any
	under              bool // a key of its own
}

var theCut = map[string]any{"material": "hard-maple", "direction": "rip", "thickness_mm": 25, "width_mm": 120, "length_mm": 900, "finish": "hidden"}

// calls are what a day at the saw asks for.
func calls(saw, blade string) []call {
	cut := maps.Clone(theCut)
	cut["saw_id"] = saw
	return []call{
		{"plan", "POST", "/plans", map[string]any{"cut": cut, "units": "mm"}, false},
		{"bench", "GET", "/bench", nil, false},
		{"care", "GET", "/care", nil, false},
		{"log page", "GET", "/log?limit=50", nil, false},
		{"log a cut", "POST", "/cuts", map[string]any{"cut": cut, "blade_id": blade, "height_mm": 39, "wall": "clean", "splinters": "none"}, true},
	}
}

type client struct {
	base, token string
	http        *http.Client
}

func (c client) do(ctx context.Context, what call, into any) (time.Duration, error) {
	raw, err := json.Marshal(what.body)
	if err != nil {
		return 0, err
	}
	r, err := http.NewRequestWithContext(ctx, what.method, c.base+"/api/v1"+what.path, bytes.NewReader(raw))
	if err != nil {
		return 0, err
	}
	r.Header.Set("Authorization", "Bearer "+c.token)
	r.Header.Set("Content-Type", "application/json")
	if what.under {
		r.Header.Set("Idempotency-Key", uuid.NewString())
	}
	began := time.Now()
	res, err := c.http.Do(r)
	if err != nil {
		return 0, err
	}
	defer res.Body.Close()
	answer, err := io.ReadAll(res.Body)
	took := time.Since(began)
	if err == nil && res.StatusCode > 299 {
		err = fmt.Errorf("%s: %d %.200s", what.name, res.StatusCode, answer)
	}
	if err == nil && into != nil {
		err = json.Unmarshal(answer, into)
	}
	return took, err
}

// named finds the ID of one of a list by a word of it.
func (c client) named(ctx context.Context, path, key, value string) (string, error) {
	var list struct{ Items []map[string]any }
	if _, err := c.do(ctx, call{name: path, method: "GET", path: path}, &list); err != nil {
		return "", err
	}
	for _, one := range list.Items {
		if one[key] == value {
			return one["id"].(string), nil
		}
	}
	return "", fmt.Errorf("%s has nothing whose %s is %s", path, key, value)
}

// load lets clients make the calls one after another for some time, each with
// the token of its turn, and gives what every call took. One that fails ends it.
func load(ctx context.Context, base string, tokens []string, clients int, lasts time.Duration) (map[string][]time.Duration, error) {
	if len(tokens) == 0 {
		return nil, fmt.Errorf("there are no tokens; give it what fill wrote")
	}
	ctx, cancel := context.WithCancelCause(ctx)
	defer cancel(nil)
	took := map[string][]time.Duration{}
	var mu sync.Mutex
	var all sync.WaitGroup
	over := time.Now().Add(lasts)
	web := &http.Client{Transport: &http.Transport{MaxIdleConnsPerHost: clients}}
	for i := range clients {
		all.Go(func() {
			c := client{strings.TrimSuffix(base, "/"), tokens[i%len(tokens)], web}
			saw, err := c.named(ctx, "/saws", "kind", "table")
			if err != nil {
				cancel(err)
				return
			}
			blade, err := c.named(ctx, "/blades?limit=200", "name", "Plough")
			if err != nil {
				cancel(err)
				return
			}
			for more := true; more; more = time.Now().Before(over) {
				for _, what := range calls(saw, blade) {
					d, err := c.do(ctx, what, nil)
					if err != nil {
						cancel(err)
						return
					}
					mu.Lock()
					took[what.name] = append(took[what.name], d)
					mu.Unlock()
				}
			}
		})
	}
	all.Wait()
	return took, context.Cause(ctx)
}

// at is the time within which a share of the calls were answered.
func at(sorted []time.Duration, share float64) time.Duration {
	return sorted[min(int(share*float64(len(sorted))), len(sorted)-1)]
}

// table shows what calls took, in Markdown.
func table(took map[string][]time.Duration, lasts time.Duration) string {
	out := "| call | answered | p50 | p99 |\n|---|---|---|---|\n"
	n := 0
	for _, what := range calls("", "") {
		d := slices.Sorted(slices.Values(took[what.name]))
		if n += len(d); len(d) > 0 {
			out += fmt.Sprintf("| %s | %d | %.1f ms | %.1f ms |\n", what.name, len(d), ms(at(d, 0.5)), ms(at(d, 0.99)))
		}
	}
	return out + fmt.Sprintf("\n%.0f calls a second\n", float64(n)/lasts.Seconds())
}

func ms(d time.Duration) float64 { return float64(d.Microseconds()) / 1000 }
