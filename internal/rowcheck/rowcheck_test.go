package rowcheck_test

import (
	"encoding/json"
	"os"
	"strings"
	"testing"

	"corte/internal/logfile"
	"corte/internal/rowcheck"
	"corte/internal/store"
	"corte/internal/testkit/pgtest"
)

func TestMain(m *testing.M) { os.Exit(pgtest.Run(m)) }

// Every row of the demo shop is one that Corte would write, and each table has a
// check.
func TestTheDemoShopIsSound(t *testing.T) {
	url, shop := pgtest.Demo(t)
	st := pgtest.Open(t, url)
	tables, err := st.Tables(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	for _, table := range tables {
		if err := rowcheck.Check(table.Name, json.RawMessage(`{"id": 5}`)); err != nil && strings.Contains(err.Error(), "not a known table") {
			t.Error(err)
		}
		if err := st.CopyOut(t.Context(), table, shop, "jpeg", func(row []byte) error {
			if err := rowcheck.Check(table.Name, row); err != nil {
				t.Errorf("%s: %v in %.200s", table.Name, err, row)
			}
			return nil
		}); err != nil {
			t.Fatal(err)
		}
	}
	settings, err := st.Settings(t.Context(), shop)
	if err == nil {
		err = rowcheck.Settings(settings)
	}
	if err != nil {
		t.Error(err)
	}
}

// The bounds of each kind of row, on both sides.
func TestBounds(t *testing.T) {
	const good, bad = true, false
	blade := func(change string) string {
		row := map[string]any{"id": "7e57ab1e-0000-4000-8000-000000000001", "name": "Plough", "make": "toothed", "diameter_mm": 254, "bore_mm": 15.875, "kerf_mm": 3.2, "plate_mm": 2.2,
			"teeth": 24, "grind": "FTG", "hook_deg": 20, "kept_for": "rip", "carbide": "unknown", "gullet_shape": "unknown", "coating": "none"}
		var with map[string]any
		if err := json.Unmarshal([]byte(change), &with); err != nil {
			t.Fatal(err)
		}
		for k, v := range with {
			row[k] = v
		}
		raw, _ := json.Marshal(row)
		return string(raw)
	}
	cut := func(change string) string {
		return `{"id": 1, "at": "2026-01-01T10:00:00Z", "kind": "cut", "detail": {"material": "hard-maple", "direction": "rip", "motion": "along", "finish": "hidden", "thickness_mm": 25, "width_mm": 100,
			"length_mm": 900, "pieces": 1, "exit_support": "open", "other_support": "open", "wall": "clean", "splinters": "none"` + change + `}}`
	}
	entry := func(kind, detail string) string {
		return `{"id": 1, "at": "2026-01-01T10:00:00Z", "kind": "` + kind + `", "detail": ` + detail + `}`
	}
	for _, c := range []struct {
		name, table, row string
		ok               bool
	}{
		{"a blade", "blades", blade(`{}`), good},
		{"most teeth", "blades", blade(`{"teeth": 200}`), good},
		{"more teeth", "blades", blade(`{"teeth": 201}`), bad},
		{"a thick plate", "blades", blade(`{"plate_mm": 3.2}`), bad},
		{"no make", "blades", blade(`{"make": "nope"}`), bad},
		{"no grind", "blades", blade(`{"grind": "XX"}`), bad},
		{"no use", "blades", blade(`{"kept_for": "show"}`), bad},
		{"teeth as text", "blades", blade(`{"teeth": "24"}`), bad},
		{"a long name", "blades", blade(`{"name": "` + strings.Repeat("x", 201) + `"}`), bad},
		{"a cut", "log", cut(``), good},
		{"a material of before", "log", cut(`, "material": "bog-oak"`), good},
		{"a field of before", "log", cut(`, "weather": "rain"`), good},
		{"a wall of none", "log", cut(`, "wall": "green"`), bad},
		{"a support of none", "log", cut(`, "exit_support": "glue"`), bad},
		{"most pieces", "log", cut(`, "pieces": 9999`), good},
		{"more pieces", "log", cut(`, "pieces": 10000`), bad},
		{"a future", "log", strings.Replace(cut(``), "2026", "2200", 1), bad},
		{"a past", "log", strings.Replace(cut(``), "2026", "1899", 1), bad},
		{"for ever", "log", strings.Replace(cut(``), "2026-01-01T10:00:00Z", "infinity", 1), bad},
		{"a saying", "log", entry("judged", `{"says": "dull"}`), good},
		{"no saying", "log", entry("judged", `{"says": "fine"}`), bad},
		{"a fault", "log", entry("inspected", `{"fault": "cracked"}`), good},
		{"no fault", "log", entry("inspected", `{"fault": "tired"}`), bad},
		{"a figure", "log", entry("heel", `{"figure": 1000, "figure_unit": "mm", "verdict": "stop"}`), good},
		{"more of one", "log", entry("heel", `{"figure": 1000.1, "figure_unit": "mm", "verdict": "stop"}`), bad},
		{"in ells", "log", entry("heel", `{"figure": 1, "figure_unit": "ell", "verdict": "stop"}`), bad},
		{"a verdict of none", "log", entry("heel", `{"figure": 1, "figure_unit": "mm", "verdict": "perhaps"}`), bad},
		{"a price", "log", entry("sharpened", `{"price": 1e6, "sharpenings_left": 0}`), good},
		{"a dearer one", "log", entry("sharpened", `{"price": 1000001}`), bad},
		{"a kind of none", "log", entry("polished", `{}`), bad},
		{"struck", "log", entry("struck", `{}`), good},
		{"a snapshot", "conditions", `{"fold": 4, "condition": {"v": 1, "wear_m2": 1, "unfit": ""}}`, good},
		{"of no fold", "conditions", `{"fold": 0, "condition": {"v": 1, "unfit": ""}}`, bad},
		{"of a later fold", "conditions", `{"fold": 5, "condition": {"v": 1, "unfit": ""}}`, bad},
		{"of no version", "conditions", `{"fold": 4, "condition": {"wear_m2": 1, "unfit": ""}}`, bad},
		{"of nothing", "conditions", `{"fold": 4, "condition": []}`, bad},
		{"a lesson", "corrections", `{"material": "cherry", "ln_scorch": 10, "cuts": 3}`, good},
		{"too much of one", "corrections", `{"material": "cherry", "ln_scorch": 10.1, "cuts": 3}`, bad},
		{"a worker", "members", `{"name": "Rosa", "role": "worker", "since": "2026-01-01T10:00:00Z"}`, good},
		{"a king", "members", `{"name": "Rosa", "role": "king", "since": "2026-01-01T10:00:00Z"}`, bad},
		{"no name", "members", `{"name": " ", "role": "worker", "since": "2026-01-01T10:00:00Z"}`, bad},
		{"a bath", "baths", `{"name": "A", "cleaner": "citrus", "made_at": "2026-01-01T10:00:00Z"}`, good},
		{"of acid", "baths", `{"name": "A", "cleaner": "acid", "made_at": "2026-01-01T10:00:00Z"}`, bad},
		{"an answer", "idempotency", `{"key": "k", "status": 201, "headers": {"Content-Type": "application/json"}}`, good},
		{"a page", "idempotency", `{"key": "k", "status": 201, "headers": {"Content-Type": "text/html"}}`, bad},
		{"a cookie", "idempotency", `{"key": "k", "status": 201, "headers": {"Set-Cookie": "a=b"}}`, bad},
		{"a refusal", "idempotency", `{"key": "k", "status": 404, "headers": {}}`, bad},
		{"no object", "saws", `[]`, bad},
		{"no table", "planes", `{}`, bad},
	} {
		if err := rowcheck.Check(c.table, json.RawMessage(c.row)); (err == nil) != c.ok {
			t.Errorf("%s: %v", c.name, err)
		}
	}
	for settings, ok := range map[string]bool{
		`{"name": "A shop", "time_zone": "Europe/Vienna", "change_minutes": 120}`: true,
		`{"name": "A shop", "change_minutes": 120.1}`:                             false,
		`{"name": "A shop", "time_zone": "x'; DROP"}`:                             false,
		`{"name": "A shop", "height_school": "low"}`:                              false,
		`{"name": "A shop", "drills": "feed-it,"}`:                                false,
		`{"name": ""}`: false,
	} {
		if err := rowcheck.Settings(json.RawMessage(settings)); (err == nil) != ok {
			t.Errorf("%s: %v", settings, err)
		}
	}
}

// Whatever a row is, it is taken or refused, and one that is taken can be read.
func FuzzCheck(f *testing.F) {
	for _, row := range []string{`{}`, `[]`, `{"teeth": 24}`, `{"detail": {"pieces": 1}, "kind": "cut", "at": "2026-01-01T10:00:00Z"}`, `{"made_of": {"v": 1, "kind": "stack"}, "held": null}`,
		`{"list": {"v": 1, "rows": [{"pieces": 1}]}, "sheet": 5}`, `{"asked": {}, "runs": [{"setting": 9}]}`, `{"cuts": ["rip"], "headers": {"a": 1}, "blade_ids": ["x"]}`} {
		for _, table := range []string{"blades", "saws", "log", "dado_sets", "jobs", "trials", "sign_offs"} {
			f.Add(table, []byte(row))
		}
	}
	f.Fuzz(func(t *testing.T, table string, row []byte) {
		if rowcheck.Check(table, row) != nil {
			return
		}
		switch table {
		case "blades":
			if _, err := store.BladeOfRow(row); err != nil {
				t.Error(err)
			}
		case "log":
			e, err := store.RowOf[store.Entry](row)
			if err == nil {
				_, err = logfile.RecordOf(e)
			}
			if err != nil {
				t.Error(err)
			}
		}
		_ = rowcheck.Settings(row)
	})
}
