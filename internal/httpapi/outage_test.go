package httpapi_test

import (
	"bytes"
	"context"
	"log/slog"
	"net/http/httptest"
	"net/url"
	"strings"
	"testing"
	"time"

	"github.com/jackc/pgx/v5"

	"corte/internal/httpapi"
	"corte/internal/metrics"
	"corte/internal/shop"
	"corte/internal/store"
	"corte/internal/testkit/pgtest"
)

// A time without a database is told once, and once when it is over, whatever is
// asked meanwhile; the server lives through it and says that it is not ready.
func TestAnOutageIsToldOnce(t *testing.T) {
	at, id := pgtest.Demo(t)
	m := metrics.New()
	st, err := store.Open(t.Context(), at, m)
	if err != nil {
		t.Fatal(err)
	}
	defer st.Close()
	m.Pool(st.Stat)
	var told bytes.Buffer
	h, err := httpapi.New(httpapi.Options{Service: shop.New(st, time.Now), Shop: id, Web: page, Log: slog.New(slog.NewTextHandler(&told, nil)), Metrics: m})
	if err != nil {
		t.Fatal(err)
	}
	b := &bench{t: t, h: h}
	admin, err := url.Parse(at)
	if err != nil {
		t.Fatal(err)
	}
	name := strings.TrimPrefix(admin.Path, "/")
	admin.Path = "/postgres"
	conn, err := pgx.Connect(t.Context(), admin.String())
	if err != nil {
		t.Fatal(err)
	}
	defer conn.Close(context.WithoutCancel(t.Context())) //nolint:errcheck // nothing hangs on it
	do := func(sql string, args ...any) {
		t.Helper()
		if _, err := conn.Exec(t.Context(), sql, args...); err != nil {
			t.Fatal(err)
		}
	}
	code := func(path string) int { return b.do("GET", "/api/v1"+path, "").Code }
	for _, round := range []int{1, 2} {
		told.Reset()
		if code("/health") != 200 || code("/saws") != 200 || code("/live") != 200 {
			t.Fatal("it is not well to begin with")
		}
		do("ALTER DATABASE " + name + " WITH ALLOW_CONNECTIONS false")
		do("SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = $1", name)
		for range 3 {
			if health, saws, live := code("/health"), code("/saws"), code("/live"); health != 503 || saws != 503 || live != 200 || code("/openapi.json") != 200 {
				t.Errorf("away: health %d, saws %d, live %d", health, saws, live)
			}
		}
		do("ALTER DATABASE " + name + " WITH ALLOW_CONNECTIONS true")
		for i := 0; code("/health") != 200; i++ {
			if i > 50 {
				t.Fatal("it does not come back")
			}
			time.Sleep(20 * time.Millisecond)
		}
		code("/saws")
		if away, back := strings.Count(told.String(), "is away"), strings.Count(told.String(), "is back"); away != 1 || back != 1 {
			t.Errorf("told %d times that it is away, %d that it is back:\n%s", away, back, &told)
		}
		w := httptest.NewRecorder()
		m.Handler().ServeHTTP(w, httptest.NewRequest("GET", "/metrics", nil))
		for _, line := range []string{
			map[int]string{1: "corte_database_outages_total 1", 2: "corte_database_outages_total 2"}[round],
			`corte_request_seconds_count{method="GET",route="/api/v1/saws",status="503"} ` + map[int]string{1: "3", 2: "6"}[round],
			`corte_request_seconds_count{method="GET",route="/api/v1/live",status="200"}`, "corte_pool_connections_most 16", `corte_query_seconds_count{outcome="done"}`,
		} {
			if !strings.Contains(w.Body.String(), line) {
				t.Errorf("round %d: no %q among the metrics", round, line)
			}
		}
	}
	// No label is anybody's to make up.
	b.do("GET", "/api/v1/blades/not-an-id", "")
	b.do("GET", "/secret-name", "")
	w := httptest.NewRecorder()
	m.Handler().ServeHTTP(w, httptest.NewRequest("GET", "/metrics", nil))
	if s := w.Body.String(); strings.Contains(s, "not-an-id") || strings.Contains(s, "secret-name") || !strings.Contains(s, `route="other"`) {
		t.Error("an address that was made up is a label")
	}
}
