package shopfile

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"image"
	"image/jpeg"
	"io"
	"os"
	"regexp"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"corte/core/say"
	"corte/internal/refusal"
	"corte/internal/store"
	_ "corte/internal/testkit/golden" // for -accept
	"corte/internal/testkit/pgtest"
)

func TestMain(m *testing.M) { os.Exit(pgtest.Run(m)) }

var now = time.Date(2026, 11, 27, 8, 0, 0, 0, time.UTC)

// full is the demo shop with a row of every kind that it lacks.
func full(t *testing.T) (*store.Store, *pgx.Conn, uuid.UUID) {
	t.Helper()
	url, shop := pgtest.Demo(t)
	conn, err := pgx.Connect(t.Context(), url)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { conn.Close(context.WithoutCancel(t.Context())) })
	for _, sql := range []string{
		`INSERT INTO photos (shop_id, blade_id, at, jpeg) SELECT shop_id, id, now(), '\xffd8000aff5c22' FROM blades WHERE shop_id = $1 ORDER BY name LIMIT 2`,
		`INSERT INTO owning (shop_id, notes, version) VALUES ($1, '{"v": 1, "hour": 60}', 7)`,
		`INSERT INTO idempotency (shop_id, key, request, status, body) VALUES ($1, 'k1', '\x00ff', 201, '{"a": 1}')`,
		`INSERT INTO idempotency (shop_id, key, request, status, body) VALUES ($1, 'k2', '\x00ff', 201, '{"path": "/calendar/secret.ics"}')`,
		`INSERT INTO calendars (shop_id, digest, made_at) VALUES ($1, '\x01', now())`,
		`INSERT INTO washes (shop_id, id, blade_ids, cleaner, brush, bath_id, step_at, started_at) SELECT b.shop_id, gen_random_uuid(), ARRAY[b.id], 'detergent', 'brass', t.id, now(), now()
			FROM blades b, baths t WHERE b.shop_id = $1 LIMIT 1`,
		`INSERT INTO mountings (shop_id, id, saw_id, blade_id, groove_id, answers, started_at) SELECT s.shop_id, gen_random_uuid(), s.id, b.id, g.id, '{"plug": true}', now()
			FROM saws s, blades b, grooves g WHERE s.shop_id = $1 LIMIT 1`,
		`INSERT INTO traces (shop_id, id, saw_id, blade_id, cut, finish, groove, facts, present, started_at) SELECT s.shop_id, gen_random_uuid(), s.id, b.id, '{"t": 25.4}', 'show', false, '[]', ARRAY['scorch, "left"', 'x'], now()
			FROM saws s, blades b WHERE s.shop_id = $1 LIMIT 1`,
		`INSERT INTO trials (shop_id, id, saw_id, blade_id, material, asked, runs, blind, started_at) SELECT s.shop_id, gen_random_uuid(), s.id, b.id, 'cherry', '{"cut": {"n": 1e-7}, "settings": [], "repeats": 2}', '[]', true, now()
			FROM saws s, blades b WHERE s.shop_id = $1 LIMIT 1`,
		`INSERT INTO people (id, name, folded, password, since) VALUES ('7e57ab1e-0000-4000-8000-000000000001', 'Ines', 'ines', 'secret hash', now()) ON CONFLICT DO NOTHING`,
		`INSERT INTO members (shop_id, id, person_id, name, role, pin, since, version) VALUES ($1, gen_random_uuid(), '7e57ab1e-0000-4000-8000-000000000001', 'Ines', 'owner', 'secret pin', now(), 3)`,
		`INSERT INTO sign_offs (shop_id, member_id, saw_id, cuts, by, at) SELECT m.shop_id, m.id, s.id, ARRAY['rip', 'sheet'], 'Ines', now() FROM members m, saws s WHERE m.shop_id = $1 LIMIT 1`,
		`INSERT INTO practised (shop_id, member_id, skill, number, level, is_right, at) SELECT shop_id, id, 'read/hook', 999999999, 3, true, now() FROM members WHERE shop_id = $1 LIMIT 1`,
		`INSERT INTO passes (shop_id, id, kind, digest, name, role, made_by, made_at) VALUES ($1, gen_random_uuid(), 'token', 'secret', 'a script', 'viewer', 'Ines', now())`,
		`INSERT INTO audit (shop_id, at, who, what) VALUES ($1, now(), 'Ines', 'told a secret')`,
		`INSERT INTO imports (shop_id, id, at, state, rows, beat_at) VALUES ($1, gen_random_uuid(), now(), 'done', 3, now())`,
		`UPDATE shops SET sign_off = 'stop', pins = false, drills = 'set-up,before', name = 'Bühne "Ö" \ 7', time_zone = 'Europe/Vienna', rework = 0.1 + 0.2 WHERE id = $1`,
	} {
		args := []any{shop}
		if !strings.Contains(sql, "$1") {
			args = nil
		}
		if _, err := conn.Exec(t.Context(), sql, args...); err != nil {
			t.Fatalf("%s: %v", sql, err)
		}
	}
	return pgtest.Open(t, url), conn, shop
}

// lines are all rows of all tables of a shop, beside the shop's id, as PostgreSQL
// writes them; not by the code under test.
func lines(t *testing.T, conn *pgx.Conn, shop uuid.UUID) map[string][]string {
	t.Helper()
	read := func(sql string, args ...any) []string {
		rows, err := conn.Query(t.Context(), sql, args...)
		if err != nil {
			t.Fatal(err)
		}
		all, err := pgx.CollectRows(rows, pgx.RowTo[string])
		if err != nil {
			t.Fatal(err)
		}
		return all
	}
	out := map[string][]string{"shops": read(`SELECT (to_jsonb(t) - 'id' - 'slug' - 'version' - 'created_at')::text FROM shops t WHERE id = $1`, shop)}
	for _, table := range read(pgtest.Tables) {
		out[table] = read(`SELECT (to_jsonb(t) - 'shop_id')::text FROM `+table+` t WHERE shop_id = $1 ORDER BY 1`, shop)
	}
	return out
}

func written(t *testing.T, st *store.Store, shop uuid.UUID) []byte {
	t.Helper()
	var b bytes.Buffer
	if err := Write(t.Context(), st, shop, now, "a test", &b, nil); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

func empty(t *testing.T) (*store.Store, *pgx.Conn, uuid.UUID) {
	t.Helper()
	url := pgtest.URL(t)
	st := pgtest.Open(t, url)
	conn, err := pgx.Connect(t.Context(), url)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { conn.Close(context.WithoutCancel(t.Context())) })
	sh, _, err := st.EnsureShop(t.Context(), store.Shop{ID: uuid.New(), Slug: "other", Name: "Our shop", ChangeMinutes: 3})
	if err != nil {
		t.Fatal(err)
	}
	return st, conn, sh.ID
}

func opened(t *testing.T, raw []byte) *File {
	t.Helper()
	f, err := Open(bytes.NewReader(raw), int64(len(raw)))
	if err != nil {
		t.Fatal(err)
	}
	return f
}

// Every kind of row goes out and comes back as it was, ids and all; what is a
// secret does not; and the shop that came back goes on.
func TestAWholeShopGoesThrough(t *testing.T) {
	st, conn, shop := full(t)
	want := lines(t, conn, shop)
	for table, rows := range want {
		if len(rows) == 0 {
			t.Errorf("no row of %s to go through", table)
		}
	}
	raw := written(t, st, shop)
	to, conn2, other := empty(t)
	f := opened(t, raw)
	if faults, err := f.Check(t.Context(), to); err != nil || len(faults) > 0 {
		t.Fatalf("%v, %v", faults, err)
	}
	var told []string
	if err := f.Restore(t.Context(), to, other, func(table string, rows int) { told = append(told, fmt.Sprint(table, " ", rows)) }); err != nil {
		t.Fatal(err)
	}
	got := lines(t, conn2, other)
	for table, rows := range want {
		switch table {
		case "calendars", "passes", "audit", "imports":
			rows = nil
		case "members": // who they are stays, how they come in does not
			hidden := regexp.MustCompile(`"7e57[0-9a-f-]+"|"secret pin"`)
			for i, r := range rows {
				rows[i] = hidden.ReplaceAllStringFunc(r, func(s string) string { return map[bool]string{true: `""`, false: "null"}[strings.Contains(s, "pin")] })
			}
		case "idempotency":
			rows = slices.DeleteFunc(rows, func(r string) bool { return strings.Contains(r, `"k2"`) })
		}
		if !slices.Equal(got[table], rows) {
			t.Errorf("%s: %d rows went out, %d came back, or another", table, len(rows), len(got[table]))
		}
	}
	if bytes.Contains(raw, []byte("secret")) {
		t.Error("a secret is in the file")
	}
	if all := fmt.Sprint("log ", len(want["log"])); !slices.Contains(told, all) {
		t.Errorf("told %v, not %s", told, all)
	}
	// The next row of the log is a new one.
	var last, next int64
	if err := conn2.QueryRow(t.Context(), `SELECT max(id) FROM log`).Scan(&last); err != nil {
		t.Fatal(err)
	}
	if err := conn2.QueryRow(t.Context(), `INSERT INTO log (shop_id, at, kind, blade_id, detail) SELECT shop_id, now(), 'noted', id, '{}' FROM blades LIMIT 1 RETURNING id`).Scan(&next); err != nil || next <= last {
		t.Errorf("after %d comes %d, %v", last, next, err)
	}
	// Into a shop that is not empty nothing comes, also not beside it.
	before := lines(t, conn2, other)
	var refused *refusal.Error
	if err := f.Restore(t.Context(), to, other, nil); !errors.As(err, &refused) || refused.Reason != refusal.Conflict {
		t.Errorf("a second time: %v", err)
	}
	if after := lines(t, conn2, other); !slices.Equal(after["log"], before["log"]) {
		t.Error("and it was changed")
	}
	// Another shop of the same database may be brought in beside it.
	third, _, err := to.EnsureShop(t.Context(), store.Shop{ID: uuid.New(), Slug: "third", Name: "Third", ChangeMinutes: 3})
	if err != nil {
		t.Fatal(err)
	}
	if err := f.Restore(store.For(t.Context(), third.ID), to, third.ID, nil); err != nil {
		t.Errorf("in the role that serves: %v", err)
	}
	if rows := lines(t, conn2, third.ID); !slices.Equal(rows["log"], want["log"]) || !slices.Equal(rows["blades"], want["blades"]) {
		t.Error("the third shop is not the first")
	}
}

// changed is a file with one entry rewritten; a body of nil leaves it out.
func changed(t *testing.T, raw []byte, name string, body func([]byte) []byte, also ...string) []byte {
	t.Helper()
	z, err := zip.NewReader(bytes.NewReader(raw), int64(len(raw)))
	if err != nil {
		t.Fatal(err)
	}
	var b bytes.Buffer
	out := zip.NewWriter(&b)
	put := func(name string, content []byte) {
		w, err := out.Create(name)
		if err == nil {
			_, err = w.Write(content)
		}
		if err != nil {
			t.Fatal(err)
		}
	}
	for _, e := range z.File {
		r, err := e.Open()
		if err != nil {
			t.Fatal(err)
		}
		content, err := io.ReadAll(r)
		if err != nil {
			t.Fatal(err)
		}
		if e.Name == name {
			if content = body(content); content == nil {
				continue
			}
		}
		put(e.Name, content)
	}
	for _, name := range also {
		put(name, []byte("x"))
	}
	if err := out.Close(); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

// resummed is a file with a table rewritten, and its sum with it.
func resummed(t *testing.T, raw []byte, table string, body func([]byte) []byte) []byte {
	t.Helper()
	var content []byte
	name := tableName(table)
	rows := true
	if strings.HasPrefix(table, "photos/") || table == manifestName {
		name, rows = table, false
	}
	file := changed(t, raw, name, func(b []byte) []byte { content = body(b); return content })
	return changed(t, file, sumsName, func(b []byte) []byte {
		w := writer{zip: zip.NewWriter(io.Discard)}
		if err := json.Unmarshal(b, &w.sums); err != nil {
			t.Fatal(err)
		}
		out, done, err := w.entry(name, zip.Store)
		if err == nil {
			_, err = out.Write(content)
		}
		if err == nil {
			n := bytes.Count(content, []byte("\n"))
			if !rows {
				n = 0
			}
			err = done(n)
		}
		if err != nil {
			t.Fatal(err)
		}
		b, _ = json.Marshal(w.sums)
		return b
	})
}

// odd puts a value into a column of a table's first row.
func odd(column, value string) func([]byte) []byte {
	return func(b []byte) []byte {
		first, rest, _ := bytes.Cut(b, []byte("\n"))
		var row map[string]json.RawMessage
		if err := json.Unmarshal(first, &row); err != nil {
			panic(err)
		}
		row[column] = json.RawMessage(value)
		first, _ = json.Marshal(row)
		return append(append(first, '\n'), rest...)
	}
}

// stowed is a file whose first entry has an extra field of somebody else's.
func stowed(t *testing.T, raw []byte) []byte {
	t.Helper()
	var out bytes.Buffer
	w := zip.NewWriter(&out)
	z, err := zip.NewReader(bytes.NewReader(raw), int64(len(raw)))
	if err != nil {
		t.Fatal(err)
	}
	for i, e := range z.File {
		h := e.FileHeader
		if i == 0 {
			h.Extra = append([]byte{0x34, 0x12, 4, 0}, "boom"...)
		}
		to, err := w.CreateRaw(&h)
		if err != nil {
			t.Fatal(err)
		}
		from, err := e.OpenRaw()
		if err != nil {
			t.Fatal(err)
		}
		if _, err := io.Copy(to, from); err != nil {
			t.Fatal(err)
		}
	}
	if err := w.Close(); err != nil {
		t.Fatal(err)
	}
	return out.Bytes()
}

// What is damaged, cut off, foreign, too large or from a later Corte is said
// before a row is written, and what the database does not take leaves nothing.
func TestWhatCannotBeReadIsSaidAndNothingIsWritten(t *testing.T) {
	st, _, shop := full(t)
	raw := written(t, st, shop)
	to, conn, other := empty(t)
	same := func(b []byte) []byte { return b }
	manifest := func(old, new string) []byte {
		return changed(t, raw, manifestName, func(b []byte) []byte { return bytes.Replace(b, []byte(old), []byte(new), 1) })
	}
	blade := ""
	for _, e := range opened(t, raw).entries {
		if strings.HasPrefix(e.Name, "photos/") {
			blade = e.Name
		}
	}
	var wide bytes.Buffer
	if err := jpeg.Encode(&wide, image.NewGray(image.Rect(0, 0, mostSide+1, 8)), nil); err != nil {
		t.Fatal(err)
	}
	for name, tt := range map[string]struct {
		file []byte
		says string
	}{
		"a picture bomb":  {resummed(t, raw, blade, func([]byte) []byte { return wide.Bytes() }), "no photo as a shop keeps them"},
		"another picture": {resummed(t, raw, blade, func([]byte) []byte { return []byte("\x89PNG\r\n\x1a\n") }), "no photo as a shop keeps them"},
		"somebody's way in": {resummed(t, raw, "members", func(b []byte) []byte {
			return bytes.Replace(b, []byte(`{`), []byte(`{"person_id": "7e57ab1e-0000-4000-8000-000000000001", `), 1)
		}), `"person_id", which its columns do not name`},
		"his PIN":             {manifest(`"gone_at"`, `"pin", "gone_at"`), "pin, which this version doesn't know"},
		"no zip":              {[]byte("Corte"), "isn't a ZIP"},
		"cut off":             {raw[:len(raw)/2], "its end is missing"},
		"no manifest":         {changed(t, raw, manifestName, func([]byte) []byte { return nil }), "it has no corte-shop.json"},
		"another format":      {manifest(`"corte-shop"`, `"corte-rack"`), "isn't a Corte backup"},
		"a later format":      {manifest(`"version": 1`, `"version": 2`), "from a newer version of Corte (format 2)"},
		"an unknown table":    {manifest(`"name": "saws"`, `"name": "planes"`), "a table planes"},
		"an unknown field":    {manifest(`"arbor_mm"`, `"arbour_mm"`), "arbour_mm, which this version doesn't know"},
		"a changed row":       {changed(t, raw, tableName("blades"), func(b []byte) []byte { return bytes.Replace(b, []byte("Plough"), []byte("Plouhg"), 1) }), "not what was written"},
		"a lost row":          {changed(t, raw, tableName("log"), func(b []byte) []byte { return b[:bytes.LastIndexByte(b[:len(b)-1], '\n')+1] }), "is damaged"},
		"a lost table":        {changed(t, raw, tableName("log"), func([]byte) []byte { return nil }), "tables/log.ndjson is missing"},
		"a bomb":              {changed(t, raw, sumsName, func(b []byte) []byte { return bytes.Replace(b, []byte(`"bytes": `), []byte(`"bytes": 99999999`), 1) }), "too large"},
		"a fuse":              {changed(t, raw, tableName("baths"), func(b []byte) []byte { return bytes.Repeat([]byte("{}\n"), 1<<20) }), "not what was written"},
		"less than none":      {changed(t, raw, sumsName, func(b []byte) []byte { return bytes.Replace(b, []byte(`"bytes": `), []byte(`"bytes": -`), 1) }), "too large"},
		"a way out":           {changed(t, raw, "", same, "../../etc/passwd"), "isn't part of a backup"},
		"twice":               {changed(t, raw, "", same, "tables/log.ndjson"), "twice"},
		"no row":              {resummed(t, raw, "baths", func(b []byte) []byte { return append(b, "[]\n"...) }), "is not a row"},
		"a long row":          {resummed(t, raw, "baths", func(b []byte) []byte { return append(b, `{"id": "`+strings.Repeat("x", mostLine)+"\"}\n"...) }), "longer than a row"},
		"an odd row":          {resummed(t, raw, "blades", func(b []byte) []byte { return bytes.Replace(b, []byte(`"teeth": `), []byte(`"teeth": -`), 1) }), "blades, line 1: -30 is not a possible count"},
		"nothing's make":      {resummed(t, raw, "blades", func(b []byte) []byte { return bytes.Replace(b, []byte(`"make": "`), []byte(`"make": "no`), 1) }), "blades, line 1: "},
		"another grind":       {resummed(t, raw, "blades", func(b []byte) []byte { return bytes.Replace(b, []byte(`"grind": "`), []byte(`"grind": "XX`), 1) }), "blades, line 1: "},
		"too many teeth":      {resummed(t, raw, "blades", func(b []byte) []byte { return bytes.Replace(b, []byte(`"teeth": `), []byte(`"teeth": 1000`), 1) }), "blades, line 1: "},
		"kept for nothing":    {resummed(t, raw, "blades", func(b []byte) []byte { return bytes.Replace(b, []byte(`"kept_for": "`), []byte(`"kept_for": "un`), 1) }), "blades, line 1: "},
		"a fold of none":      {resummed(t, raw, "conditions", func(b []byte) []byte { return bytes.Replace(b, []byte(`"fold": 4`), []byte(`"fold": 0`), 1) }), "fold 0 is unknown"},
		"no condition":        {resummed(t, raw, "conditions", odd("condition", `[]`)), "conditions, line 1: "},
		"a set of nothing":    {resummed(t, raw, "dado_sets", odd("made_of", `{"x": 5}`)), "dado_sets, line 1: "},
		"for ever":            {resummed(t, raw, "log", odd("at", `"infinity"`)), "log, line 1: at has the wrong type"},
		"a detail of another": {resummed(t, raw, "log", func(b []byte) []byte { return bytes.Replace(b, []byte(`"wall": "`), []byte(`"wall": "no`), 1) }), "is none of clean, brown, black"},
		"no cleaner":          {resummed(t, raw, "baths", odd("cleaner", `"acid"`)), "baths, line 1: there is no cleaner"},
		"a zone":              {resummed(t, raw, manifestName, func(b []byte) []byte { return bytes.Replace(b, []byte("Europe/Vienna"), []byte("x'; DROP"), 1) }), "is no time zone"},
		"format 0":            {manifest(`"version": 1`, `"version": 0`), "formats start at 1"},
		"format -1":           {manifest(`"version": 1`, `"version": -1`), "formats start at 1"},
		"a page as answer":    {resummed(t, raw, "idempotency", odd("headers", `{"Content-Type": "text/html"}`)), "idempotency, line 1: "},
		"a stowaway":          {stowed(t, raw), "checksums don't cover"},
		"a foreign row": {resummed(t, raw, "blades", func(b []byte) []byte {
			return bytes.Replace(b, []byte(`{`), []byte(`{"shop_id": "`+shop.String()+`", `), 1)
		}), `"shop_id", which its columns do not name`},
	} {
		says := func() string {
			f, err := Open(bytes.NewReader(tt.file), int64(len(tt.file)))
			if err != nil {
				return err.Error()
			}
			faults, err := f.Check(t.Context(), to)
			if err != nil {
				return err.Error()
			}
			if len(faults) > 0 {
				return strings.Join(say.Voice{}.Each(faults), "; ")
			}
			if err := f.Restore(t.Context(), to, other, nil); err != nil {
				return err.Error()
			}
			return "nothing"
		}()
		if !strings.Contains(says, tt.says) {
			t.Errorf("%s: says %q, want %q", name, says, tt.says)
		}
		for table, rows := range lines(t, conn, other) {
			if table != "shops" && len(rows) > 0 || table == "shops" && !strings.Contains(rows[0], "Our shop") {
				t.Fatalf("%s: %s was written", name, table)
			}
		}
	}
}

// Every table that belongs to a shop is copied, or stays behind for a reason.
func TestNoTableIsForgotten(t *testing.T) {
	st, conn, shop := empty(t)
	tables, err := st.Tables(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	known := append([]string{"shops"}, store.NotCopied...)
	for _, table := range tables {
		known = append(known, table.Name)
	}
	for table := range lines(t, conn, shop) {
		if !slices.Contains(known, table) {
			t.Errorf("%s belongs to a shop and is in no copy", table)
		}
	}
}

// Files of every format that was ever written are read: testdata has one of each.
// It is written anew with -accept only while its format is not out yet.
func TestFilesOfEarlierFormatsAreRead(t *testing.T) {
	if flag.Lookup("accept").Value.String() == "true" {
		st, _, shop := full(t)
		raw := written(t, st, shop)
		first := func(n int) func([]byte) []byte {
			return func(b []byte) []byte { return bytes.Join(bytes.SplitAfterN(b, []byte("\n"), n+1)[:n], nil) }
		}
		raw = resummed(t, raw, "log", first(60))
		if err := os.WriteFile("testdata/v1.corte.zip", raw, 0o644); err != nil {
			t.Fatal(err)
		}
	}
	for v := 1; v <= Version; v++ {
		raw, err := os.ReadFile(fmt.Sprintf("testdata/v%d.corte.zip", v))
		if err != nil {
			t.Fatal(err)
		}
		st, conn, shop := empty(t)
		f := opened(t, raw)
		if faults, err := f.Check(t.Context(), st); err != nil || len(faults) > 0 {
			t.Fatalf("format %d: %v, %v", v, faults, err)
		}
		if err := f.Restore(t.Context(), st, shop, nil); err != nil {
			t.Fatalf("format %d: %v", v, err)
		}
		got := lines(t, conn, shop)
		for table, n := range f.ByTable() {
			if n == 0 || len(got[table]) != n {
				t.Errorf("format %d: %d rows of %s in the file, %d are here", v, n, table, len(got[table]))
			}
		}
		if all := strings.Join(got["blades"], ""); !strings.Contains(all, `"Plough"`) || !strings.Contains(strings.Join(got["photos"], ""), `ffd8000aff5c22`) {
			t.Errorf("format %d: a blade or a photo is not what it was", v)
		}
		if sh, err := st.Shop(t.Context(), shop); err != nil || sh.Zone != "Europe/Vienna" {
			t.Errorf("format %d: %+v, %v", v, sh, err)
		}
	}
}

// Whatever bytes a file is, it is opened and checked, or refused, within bounds.
func FuzzOpen(f *testing.F) {
	raw, err := os.ReadFile("testdata/v1.corte.zip")
	if err != nil {
		f.Fatal(err)
	}
	f.Add(raw)
	f.Add(raw[:len(raw)/2])
	f.Add([]byte("PK\x05\x06"))
	f.Fuzz(func(_ *testing.T, raw []byte) {
		file, err := Open(bytes.NewReader(raw), int64(len(raw)))
		if err != nil {
			return
		}
		var tables []store.Table
		for _, t := range file.Tables {
			tables = append(tables, store.Table{Name: t.Name, Columns: t.Columns})
		}
		if len(file.intact(tables)) == 0 {
			file.checkRows()
		}
	})
}
