package main

import (
	"context"
	"log/slog"
	"net/http"
	"strings"
	"sync"
	"time"

	"corte/internal/demo"
	"corte/internal/httpapi"
	"corte/internal/store"
)

// lookRoundAt is where the demo shop is looked at from a shop of one's own. The
// front end knows it as well (web/src/api/place.ts).
const lookRoundAt = "/demo"

// lookRound serves the demo shop beside a shop, in the same database and apart
// from it as any two shops are. Its pages are the same ones; it is furnished
// when somebody first asks for something of it. Who is there already is led to
// its first page.
func lookRound(own http.Handler, st *store.Store, o httpapi.Options, there bool) http.Handler {
	var (
		mu    sync.Mutex
		ready http.Handler
	)
	open := func(ctx context.Context) (http.Handler, error) {
		mu.Lock()
		defer mu.Unlock()
		if ready != nil {
			return ready, nil
		}
		sh, err := demo.Furnish(context.WithoutCancel(ctx), st, time.Now())
		if err != nil {
			return nil, err
		}
		o.Shop, o.Gauges, o.Copies, o.Beside = sh.ID, nil, nil, true // the dial at the saw and the folder of copies are the other shop's
		ready, err = httpapi.New(o)
		return ready, err
	}
	beside := http.StripPrefix(lookRoundAt, http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if !strings.HasPrefix(r.URL.Path, "/api/") {
			own.ServeHTTP(w, r)
			return
		}
		h, err := open(r.Context())
		if err != nil {
			slog.Error("the demo shop was not furnished", "error", err)
			http.Error(w, `{"status":503,"detail":"Can't set up the demo shop now. Try again in a moment."}`, http.StatusServiceUnavailable)
			return
		}
		h.ServeHTTP(w, r)
	}))
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		within := r.URL.Path == lookRoundAt || strings.HasPrefix(r.URL.Path, lookRoundAt+"/")
		switch {
		case within && there:
			http.Redirect(w, r, "/", http.StatusFound)
		case r.URL.Path == lookRoundAt:
			http.Redirect(w, r, lookRoundAt+"/", http.StatusFound)
		case within:
			beside.ServeHTTP(w, r)
		default:
			own.ServeHTTP(w, r)
		}
	})
}
