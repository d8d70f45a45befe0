package httpapi_test

import (
	"encoding/json"
	"fmt"
	"maps"
	"math"
	"net/http"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/google/uuid"
	"github.com/jmoiron/sqlx"

	"corte/internal/httpapi/contract"
)

// Every call of the contract, with a body that is plausible and then spoilt in
// every field in turn: never a crash, every refusal a sentence, and what is
// refused changes nothing.
func TestSpoiltRequestsChangeNothing(t *testing.T) {
	b := newBench(t)
	all := b.whole()
	spec, err := contract.GetSpec()
	if err != nil {
		t.Fatal(err)
	}
	calls, refused, taken := 0, 0, 0
	for path, item := range spec.Paths.Map() {
		for method, op := range item.Operations() {
			if op.RequestBody == nil || op.RequestBody.Value.Content["application/json"] == nil {
				continue
			}
			schema := op.RequestBody.Value.Content["application/json"].Schema.Value
			good, _ := b.plausible("", schema, 0).(map[string]any)
			for what, body := range spoilt(good) {
				raw, err := json.Marshal(body)
				if err != nil {
					t.Fatal(err)
				}
				at := strings.NewReplacer("{id}", b.blade["Trapdoor"], "{name}", "dial", "{secret}", "none").Replace(path)
				if strings.HasPrefix(path, "/log/") {
					at = strings.Replace(path, "{id}", "7", 1)
				}
				if op.Parameters.GetByInAndName("query", "units") != nil {
					at += "?units=in"
				}
				w := b.do(method, "/api/v1"+at, string(raw), "Idempotency-Key", uuid.NewString(), "If-Match", `"1"`)
				calls++
				switch {
				case w.Code >= 500:
					t.Errorf("%s %s, %s: %d %s for %s", method, path, what, w.Code, w.Body, raw)
				case w.Code >= 400:
					refused++
					p := decode(t, w)
					if says, _ := p["detail"].(string); w.Header().Get("Content-Type") != "application/problem+json" || len(says) < 8 || !strings.HasSuffix(says, ".") {
						t.Errorf("%s %s, %s: refused with %s", method, path, what, w.Body)
					}
					if all.moved() {
						t.Errorf("%s %s, %s: refused with %d, and something was changed", method, path, what, w.Code)
					}
				default:
					taken++
					all.moved()
				}
			}
		}
	}
	t.Logf("%d calls: %d refused, %d taken", calls, refused, taken)
	if refused < 500 || taken < 50 {
		t.Errorf("%d calls, of which %d were refused and %d taken: the test no longer reaches much", calls, refused, taken)
	}
	if w := b.do(http.MethodGet, "/api/v1/health", ""); w.Code != http.StatusOK {
		t.Errorf("the server is left with %d", w.Code)
	}
}

// A whole is all that a bench keeps, looked at from outside.
type whole struct {
	t     testing.TB
	db    *sqlx.DB
	query string // all rows of all tables as one number: what is changed in place changes it too
	sum   string
	xid   string // of the transactions so far: where none was begun, nothing was written
}

func (b *bench) whole() *whole {
	db, err := sqlx.Connect("pgx", b.url)
	if err != nil {
		b.t.Fatal(err)
	}
	b.t.Cleanup(func() { db.Close() })
	var tables []string
	if err := db.Select(&tables, `SELECT relname FROM pg_stat_user_tables WHERE relname NOT LIKE 'goose%' ORDER BY relname`); err != nil {
		b.t.Fatal(err)
	}
	for i, name := range tables {
		tables[i] = fmt.Sprintf(`(SELECT coalesce(sum(hashtextextended(x::text, 0)::numeric), 0) + count(*) FROM %s x)`, name)
	}
	w := &whole{t: b.t, db: db, query: `SELECT (` + strings.Join(tables, ` + `) + `)::text`}
	w.moved()
	return w
}

// moved reports whether anything was kept, changed or forgotten since it was
// last asked.
func (w *whole) moved() bool {
	w.t.Helper()
	var xid, sum string
	if err := w.db.Get(&xid, `SELECT pg_snapshot_xmax(pg_current_snapshot())::text`); err != nil {
		w.t.Fatal(err)
	}
	if xid == w.xid {
		return false
	}
	if err := w.db.Get(&sum, w.query); err != nil {
		w.t.Fatal(err)
	}
	was := w.sum
	w.xid, w.sum = xid, sum
	return sum != was
}

// plausible is a value that a schema allows and that names things of the demo
// shop where it can.
func (b *bench) plausible(name string, s *openapi3.Schema, deep int) any {
	switch {
	case len(s.AllOf) > 0:
		return b.plausible(name, s.AllOf[0].Value, deep)
	case len(s.Enum) > 0:
		return s.Enum[0]
	case s.Type.Is("object"):
		out := map[string]any{}
		for key, p := range s.Properties {
			if deep < 4 && (slices.Contains(s.Required, key) || deep == 0) {
				out[key] = b.plausible(key, p.Value, deep+1)
			}
		}
		return out
	case s.Type.Is("array"):
		return []any{b.plausible(name, s.Items.Value, deep+1)}
	case s.Type.Is("boolean"):
		return true
	case s.Type.Is("integer"), s.Type.Is("number"):
		v := 12.0
		if s.Min != nil {
			v = max(v, *s.Min)
		}
		if s.Max != nil {
			v = min(v, *s.Max)
		}
		return v
	}
	switch {
	case name == "saw_id":
		return b.saw["table"]
	case s.Format == "uuid":
		return b.blade["Plough"]
	case s.Format == "date-time":
		return time.Now().UTC().Format(time.RFC3339)
	case name == "material":
		return "hard-maple"
	}
	return "a word"
}

// spoilt is a body as it is, and with each of its fields made wrong in turn, by
// what was done to it.
func spoilt(good map[string]any) map[string]map[string]any {
	out := map[string]map[string]any{"as it is": good, "more than is known": {"surprise": 1}}
	maps.Copy(out["more than is known"], good)
	for key, v := range good {
		change := func(what string, to any) {
			one := maps.Clone(good)
			one[key] = to
			out[key+" "+what] = one
		}
		gone := maps.Clone(good)
		delete(gone, key)
		out[key+" left out"] = gone
		change("null", nil)
		change("a list in a list", []any{[]any{1}})
		switch v := v.(type) {
		case float64:
			change("endless", math.MaxFloat64)
			change("far under", -math.MaxFloat64)
			change("nothing", 0)
			change("a word", "12")
		case string:
			change("a number", 5)
			change("empty", "")
			change("long", strings.Repeat("long ", 2000))
			change("with a null", "a\x00b")
			change("of nobody", uuid.NewString())
		case map[string]any:
			for what, inner := range spoilt(v) {
				change("with "+what, inner)
			}
		case []any:
			change("empty", []any{})
			change("endless", slices.Repeat(v, 6000))
		}
	}
	return out
}
