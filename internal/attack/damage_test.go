package attack

import (
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/jmoiron/sqlx"
)

// A spoiler puts odd values into the rows of a database, as its owner could.
type spoiler struct {
	t  testing.TB
	db *sqlx.DB
}

// odd are values that a column of a type might hold, as SQL.
func odd(kind string) []string {
	switch kind {
	case "text":
		return []string{`''`, `'nope'`}
	case "double precision":
		return []string{`'NaN'`, `'Infinity'`, `-1e300`, `1e9`}
	case "integer", "bigint":
		return []string{`2147483647`, `-1`}
	case "timestamp with time zone":
		return []string{`'infinity'`, `'-infinity'`}
	case "bytea":
		return []string{`''`}
	}
	return nil
}

// oddJSON are values in place of a JSON document, and of each of its fields.
func oddJSON(doc []byte) (out []string) {
	out = []string{`[]`, `{"x": 5}`, `5`, `null`}
	var fields map[string]json.RawMessage
	if json.Unmarshal(doc, &fields) != nil {
		return out
	}
	for name := range fields {
		for _, v := range []string{`"abc"`, `-1e300`, `[]`, `{}`, `null`} {
			spoilt := map[string]json.RawMessage{}
			for k, was := range fields {
				spoilt[k] = was
			}
			spoilt[name] = json.RawMessage(v)
			raw, err := json.Marshal(spoilt)
			if err == nil {
				out = append(out, string(raw))
			}
		}
	}
	return out
}

// keyOf is the column by which a table's rows of one shop are told apart.
func keyOf(table string) string {
	switch table {
	case "conditions", "photos", "dado_sets":
		return "blade_id"
	case "corrections":
		return "material"
	case "owning":
		return "shop_id"
	}
	return "id"
}

// spoil calls f while one value of the newest row of a table is odd, for every
// column and every odd value that the database takes. Rows of a kind are told
// apart by where.
func (s spoiler) spoil(table, where string, f func(what string)) (spoilt int) {
	s.t.Helper()
	var columns []struct {
		Name string `db:"column_name"`
		Kind string `db:"data_type"`
	}
	if err := s.db.Select(&columns, `SELECT column_name, data_type FROM information_schema.columns WHERE table_schema = 'public' AND table_name = $1 AND is_generated = 'NEVER'`, table); err != nil {
		s.t.Fatal(err)
	}
	key := keyOf(table)
	var id string
	if err := s.db.Get(&id, `SELECT `+key+`::text FROM `+table+` WHERE `+where+` ORDER BY `+key+` DESC LIMIT 1`); err != nil {
		return 0 // the demo shop has no such row
	}
	for _, c := range columns {
		if c.Name == "shop_id" || strings.HasSuffix(c.Name, "_id") || c.Name == "id" || c.Name == key {
			continue
		}
		values := odd(c.Kind)
		if c.Kind == "jsonb" {
			var doc []byte
			if err := s.db.Get(&doc, `SELECT `+c.Name+` FROM `+table+` WHERE `+key+`::text = $1`, id); err != nil {
				s.t.Fatal(err)
			}
			if doc == nil {
				continue
			}
			for _, v := range oddJSON(doc) {
				values = append(values, "'"+strings.ReplaceAll(v, "'", "''")+"'::jsonb")
			}
		}
		for i, v := range values {
			if !long && i > 1 && (i+len(c.Name))%7 != 0 {
				continue // a sample of them; all under make test-long
			}
			var was string
			if err := s.db.Get(&was, `SELECT quote_nullable(`+c.Name+`::text) FROM `+table+` WHERE `+key+`::text = $1`, id); err != nil {
				s.t.Fatal(err)
			}
			set := func(value string) bool {
				_, err := s.db.Exec(`UPDATE `+table+` SET `+c.Name+` = `+value+` WHERE `+key+`::text = $1`, id)
				return err == nil
			}
			if !set(v) {
				continue // the database knows better
			}
			spoilt++
			f(fmt.Sprintf("%s.%s = %.300s", table, c.Name, v))
			if !set(was + "::" + c.Kind) {
				s.t.Fatalf("%s.%s is not put back to %s", table, c.Name, was)
			}
		}
	}
	return spoilt
}

// reads are the pages that read a table whose rows say nothing of blades and
// saws; those that do are read by all.
var reads = map[string][]string{
	"grooves": {"/grooves?units=mm", "/care"}, "mountings": {"/bench"}, "baths": {"/care"}, "washes": {"/care"}, "trials": {"/trials"}, "traces": {"/traces"},
	"jobs": {"/jobs"}, "job_ticks": {"/jobs"}, "owning": {"/owning"}, "members": {"/drills"}, "sign_offs": {"/drills"}, "practised": {"/drills"}, "imports": {"/care"},
	"corrections": {"/lessons", "/shelf"},
}

// underWay makes what the demo shop has none of: a mounting, a wash, a
// comparison, a trace, notes on owning and an import.
func (x *target) underWay(c *client, blades, saws map[string]string) {
	made := func(path string, body obj) {
		if w := c.do("POST", path, body, keyed()...); w.code/100 != 2 {
			x.t.Fatalf("POST %s: %d %s", path, w.code, w.body)
		}
	}
	rip := cut(saws["table"], nil)
	made("/mountings", obj{"saw_id": saws["table"], "blade_id": blades["Plough"], "units": "mm"})
	made("/washes", obj{"blade_ids": []string{blades["Rook"]}, "cleaner": "citrus", "brush": "nylon"})
	at := func(height float64) obj { return obj{"blade_id": blades["Stagehand"], "height_mm": height} }
	made("/trials", obj{"cut": rip, "settings": []obj{at(31), at(60)}, "repeats": 2, "blind": true, "units": "mm"})
	made("/traces", obj{"cut": rip, "blade_id": blades["Plough"], "present": []string{"scorch-both-walls"}, "units": "mm"})
	c.must(200, "PUT", "/owning", obj{"prices": []obj{}, "wishes": []obj{}}, append(keyed(), "If-Match", `"0"`)...)
	file := "at,kind,blade\n2024-05-01T10:00:00Z,washed,Chorus\n"
	c.must(202, "PUT", "/log-imports/"+uuid.NewString(), file, "Content-Type", "application/octet-stream")
}

// A snapshot that cannot be read is what the log adds up to, in every list: a
// cracked blade does not come back as a sound one.
func TestASpoiltSnapshotIsFoldedAnew(t *testing.T) {
	x := open(t)
	ctx, db := t.Context(), x.db()
	c := x.client()
	c.must(201, "POST", "/blades/"+c.ids("/blades", "name")["Chorus"]+"/inspections", obj{"fault": "cracked"}, keyed()...)
	type stand struct {
		unfit, flaw string
		wear        float64
	}
	rack := func() map[string]stand {
		t.Helper()
		all, err := x.st.Rack(ctx, x.shop)
		if err != nil {
			t.Fatal(err)
		}
		out := map[string]stand{}
		for _, b := range all {
			out[b.Name] = stand{b.Condition.Unfit, b.Condition.Flaw, b.Condition.WearM2}
		}
		return out
	}
	want := rack()
	if want["Chorus"].unfit == "" || want["Chorus"].wear == 0 {
		t.Fatalf("Chorus stands at %+v: the test asks nothing", want["Chorus"])
	}
	page := func() obj {
		return c.must(200, "GET", "/blades/"+c.ids("/blades", "name")["Chorus"], nil)["condition"].(obj)
	}
	was := fmt.Sprint(page())
	for _, spoilt := range []string{`[]`, `{"x": 5}`, `5`, `{"v": 1, "cuts": "many"}`, `{"v": 1, "unfit": null}`} {
		db.MustExec(`UPDATE conditions SET condition = $1`, spoilt)
		if got := rack(); !maps.Equal(got, want) {
			t.Errorf("%s: the rack stands at %v, not %v", spoilt, got["Chorus"], want["Chorus"])
		}
		if got := fmt.Sprint(page()); got != was {
			t.Errorf("%s: its page says %s, not %s", spoilt, got, was)
		}
	}
	if err := x.st.Migrate(ctx); err != nil {
		t.Fatal(err)
	}
	var left int
	if err := db.Get(&left, `SELECT count(*) FROM conditions WHERE unfit IS NULL`); err != nil || left != 0 {
		t.Errorf("after a start %d snapshots are still spoilt: %v", left, err)
	}
}

// Whatever stands in a row of a shop costs that row: every page still comes,
// with all other rows, and the server starts, folds and writes its backup.
func TestARowThatCannotBeReadCostsThatRow(t *testing.T) {
	x := open(t)
	db := x.db()
	db.MustExec(`ALTER TABLE log DISABLE TRIGGER ALL; DO $$ BEGIN FOR i IN 0..15 LOOP EXECUTE format('ALTER TABLE log_%s DISABLE TRIGGER ALL', i); END LOOP; END $$`)
	c := x.client()
	blades, saws := c.ids("/blades", "name"), c.ids("/saws", "kind")
	plan := obj{"cut": cut(saws["table"], nil), "units": "mm"}
	x.underWay(c, blades, saws)
	pages := []string{"/bench", "/blades?limit=200", "/care", "/log?limit=50", "/shelf", "/jobs", "/traces", "/trials", "/grooves?units=mm", "/owning", "/lessons", "/log/season?days=90", "/drills"}
	if long {
		pages = append(pages, "/saws", "/shop", "/faults", "/truings?units=mm", "/people", "/passes", "/copies", "/log-imports", "/gauges", "/pace",
			"/blades/"+blades["Chorus"], "/blades/"+blades["Chorus"]+"/life", "/blades/"+blades["Chorus"]+"/stand-ins", "/log-exports?format=json", "/log-exports?format=csv", "/rack-exports?format=json", "/shop-file")
	}
	for _, p := range pages {
		if w := c.do("GET", p, nil); w.code != 200 {
			t.Fatalf("before anything is spoilt, GET %s: %d %s", p, w.code, w.body)
		}
	}
	s := spoiler{t, db}
	// How many blades and saws the other pages still show is asked of one page.
	shown := func() int {
		w := c.do("GET", "/blades?limit=200", nil)
		var page struct{ Items []any }
		_ = json.Unmarshal([]byte(w.body), &page)
		return len(page.Items)
	}
	all := shown()
	ask := func(what string) {
		table, _, _ := strings.Cut(what, ".")
		for _, p := range pages {
			if near, ok := reads[table]; !long && ok && !slices.Contains(near, p) {
				continue
			}
			if w := c.do("GET", p, nil); w.code >= 500 {
				t.Errorf("%s: GET %s: %d %.300s", what, p, w.code, w.body)
			}
		}
		if _, aside := reads[table]; aside && !long {
			return
		}
		if w := c.do("POST", "/plans", plan); w.code >= 500 || w.code == 409 && !strings.HasPrefix(what, "saws.") {
			t.Errorf("%s: a plan: %d %.300s", what, w.code, w.body)
		}
		if n := shown(); n < all-1 {
			t.Errorf("%s: %d of %d blades are shown", what, n, all)
		}
		if strings.Contains(what, "condition") || strings.Contains(what, "blades.") || strings.Contains(what, "dado_sets") {
			if err := x.st.Migrate(t.Context()); err != nil {
				t.Errorf("%s: it does not start: %v", what, err)
			}
		}
	}
	n := 0
	for _, table := range []string{"saws", "blades", "conditions", "corrections", "dado_sets", "grooves", "mountings", "baths", "washes", "trials", "traces", "jobs", "job_ticks", "owning", "members", "sign_offs", "practised", "imports"} {
		one := s.spoil(table, "true", ask)
		if n += one; one == 0 {
			t.Errorf("no value of %s was spoilt", table)
		}
	}
	var kinds []string
	if err := db.Select(&kinds, `SELECT DISTINCT kind FROM log ORDER BY 1`); err != nil {
		t.Fatal(err)
	}
	for _, k := range kinds {
		n += s.spoil("log", "kind = '"+k+"'", ask)
	}
	t.Logf("%d values were spoilt", n)
	if n < 300 {
		t.Errorf("only %d values were spoilt: the test asks nothing", n)
	}
}
