package main

import (
	"io"
	"log/slog"
	"net/http/httptest"
	"os"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"github.com/jackc/pgx/v5"

	"corte/internal/httpapi"
	"corte/internal/shop"
	"corte/internal/store"
	"corte/internal/testkit/pgtest"
)

func TestMain(m *testing.M) { os.Exit(pgtest.Run(m)) }

// Three shops are each as the first is, five years long, and what was copied of
// their conditions is what their logs come to; clients of all three are answered.
func TestShopsOfFiveYears(t *testing.T) {
	ctx, url := t.Context(), pgtest.URL(t)
	tokens, err := fill(ctx, url, 3, 4)
	if err != nil || len(tokens) != 4 {
		t.Fatalf("%d tokens, %v", len(tokens), err)
	}
	conn, err := pgx.Connect(ctx, url)
	if err != nil {
		t.Fatal(err)
	}
	defer conn.Close(ctx)
	var shops, sums, rows int
	var years float64
	if err := conn.QueryRow(ctx, `SELECT count(*), count(DISTINCT sum), min(n), min(years) FROM (SELECT count(*) AS n, sum(hashtextextended((to_jsonb(l) - 'shop_id')::text, 0)::numeric) AS sum,
		extract(epoch FROM max(at) - min(at)) / 86400 / 365 AS years FROM log l GROUP BY shop_id) x`).Scan(&shops, &sums, &rows, &years); err != nil {
		t.Fatal(err)
	}
	if shops != 3 || sums != 1 || rows < 9000 || years < 4.9 || years > 5.2 {
		t.Errorf("%d shops, %d different, %d rows over %.1f years", shops, sums, rows, years)
	}
	st := pgtest.Open(t, url)
	if _, differ, err := st.Conditions(ctx, false); err != nil || len(differ) > 0 {
		t.Errorf("%v conditions are not what the log says, %v", differ, err)
	}
	h, err := httpapi.New(httpapi.Options{Service: shop.New(st, time.Now), Shop: first(t, st), Web: fstest.MapFS{"index.html": {Data: []byte("<html></html>")}}, SignIn: &httpapi.SignIn{}, Log: slog.New(slog.NewTextHandler(io.Discard, nil))})
	if err != nil {
		t.Fatal(err)
	}
	srv := httptest.NewServer(h)
	defer srv.Close()
	took, err := load(ctx, srv.URL, tokens, 4, time.Millisecond)
	if err != nil {
		t.Fatal(err)
	}
	for _, what := range calls("", "") {
		if len(took[what.name]) < 4 || !strings.Contains(table(took, time.Second), "| "+what.name+" |") {
			t.Errorf("%s: %d answers", what.name, len(took[what.name]))
		}
	}
	var now int
	if err := conn.QueryRow(ctx, `SELECT count(*) FROM log`).Scan(&now); err != nil || now != 3*rows+len(took["log a cut"]) {
		t.Errorf("%d rows after %d cuts over 3 times %d, %v", now, len(took["log a cut"]), rows, err)
	}
	if _, err := load(ctx, srv.URL, []string{"no token"}, 1, time.Second); err == nil {
		t.Error("whoever is not let in measures nothing, and is not told")
	}
}

func first(t *testing.T, st *store.Store) (id [16]byte) {
	sh, err := st.ShopNamed(t.Context(), "lanterngate")
	if err != nil {
		t.Fatal(err)
	}
	return sh.ID
}
