package store_test

import (
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jmoiron/sqlx"

	"corte/core/history"
	"corte/internal/store"
	"corte/internal/testkit/pgtest"
)

// In a context that serves one shop the database itself keeps to it: another
// shop's rows are not there, none can be made for it, and the log is only
// added to. Connections that have served one shop serve another next.
func TestServingKeepsToAShop(t *testing.T) {
	url := pgtest.URL(t)
	keepsToAShop(t, url, pgtest.Open(t, url))
}

// Behind a pooler that lends two connections to all of them, too.
func TestServingThroughAPoolerKeepsToAShop(t *testing.T) {
	url := pgtest.URL(t)
	keepsToAShop(t, url, pgtest.OpenThrough(t, pgtest.Pooler(t, url), url))
}

func keepsToAShop(t *testing.T, url string, st *store.Store) {
	ctx := t.Context()
	a, sawsA, bladeA := furnished(t, st, "a")
	b, _, bladeB := furnished(t, st, "b")
	note := func(shop, blade uuid.UUID) store.Entry {
		return store.Entry{Shop: shop, At: time.Now(), Kind: history.KindNoted, Blade: &blade}
	}
	if _, err := st.Append(ctx, note(b.ID, bladeB.ID)); err != nil {
		t.Fatal(err)
	}
	asA := store.For(ctx, a.ID)
	if _, err := st.Append(asA, note(a.ID, bladeA.ID)); err != nil {
		t.Errorf("its own log: %v", err)
	}
	for what, rows := range map[string]func() (int, error){
		"blade of b": func() (int, error) { r, err := st.Blades(asA, b.ID, store.Place{}, 0); return len(r), err },
		"log of b": func() (int, error) {
			r, err := st.Log(asA, b.ID, store.Filter{}, store.Mark{}, 9)
			return len(r), err
		},
		"saw of b": func() (int, error) { r, err := st.Saws(asA, b.ID); return len(r), err },
	} {
		if n, err := rows(); n != 0 || err != nil {
			t.Errorf("serving a, there are %d of %s, %v", n, what, err)
		}
	}
	if _, err := st.Shop(asA, b.ID); err == nil {
		t.Error("serving a, b is there")
	}
	if err := st.AddSaw(asA, b.ID, store.Saw{ID: uuid.New(), Name: "ours", Saw: sawsA[0].Saw}); err == nil || !strings.Contains(err.Error(), "row-level security") {
		t.Errorf("serving a, a saw for b: %v", err)
	}
	var both sync.WaitGroup // over the same few connections
	for range 40 {
		for _, sh := range []store.Shop{a, b} {
			both.Go(func() {
				if rows, err := st.Blades(store.For(ctx, sh.ID), sh.ID, store.Place{}, 0); err != nil || len(rows) != 1 {
					t.Errorf("serving %s: %d blades, %v", sh.Slug, len(rows), err)
				}
			})
		}
	}
	both.Wait()
	if rows, err := st.Blades(ctx, b.ID, store.Place{}, 0); err != nil || len(rows) != 1 {
		t.Errorf("the owner sees %d blades of b, %v", len(rows), err)
	}
	db := sqlx.MustConnect("pgx", url)
	defer db.Close()
	db.SetMaxOpenConns(1)
	db.MustExec(`SET ROLE corte_serves`)
	for _, sql := range []string{`UPDATE log SET note = 'x'`, `DELETE FROM log`, `TRUNCATE log`, `TRUNCATE photos`, `DELETE FROM blades`, `INSERT INTO log_kinds VALUES ('x', true, true)`, `DELETE FROM shops`,
		`SELECT password FROM people`, `SELECT data FROM sessions`, `SELECT digest FROM recovery_codes`, `UPDATE audit SET who = 'x'`, `DELETE FROM sign_offs`} {
		if _, err := db.Exec(sql); err == nil || !strings.Contains(err.Error(), "permission denied") {
			t.Errorf("%s: %v", sql, err)
		}
	}
	var n int
	if err := db.Get(&n, `SELECT (SELECT count(*) FROM shops) + (SELECT count(*) FROM blades) + (SELECT count(*) FROM log)`); err != nil || n != 0 {
		t.Errorf("serving nobody, %d rows are there, %v", n, err)
	}
}

// Every key of a table that belongs to a shop begins with the shop, so that one
// shop's rows can live together on one server of many; and every such table
// keeps shops apart.
func TestKeysBeginWithTheShop(t *testing.T) {
	db := sqlx.MustConnect("pgx", pgtest.URL(t))
	defer db.Close()
	var bad []string
	if err := db.Select(&bad, `SELECT c.relname || ': ' || pg_get_constraintdef(k.oid) FROM pg_constraint k JOIN pg_class c ON c.oid = k.conrelid
		JOIN pg_attribute a ON a.attrelid = c.oid AND a.attname = 'shop_id'
		WHERE c.relnamespace = 'public'::regnamespace AND (k.contype IN ('p', 'u') AND NOT a.attnum = ANY(k.conkey)
			OR k.contype = 'f' AND NOT a.attnum = ANY(k.conkey) AND k.confrelid NOT IN ('log_kinds'::regclass, 'people'::regclass))
		UNION SELECT relname || ' shows every shop to every server' FROM pg_class WHERE relnamespace = 'public'::regnamespace AND relkind IN ('r', 'p')
			AND relname <> 'log_kinds' AND NOT relrowsecurity AND has_table_privilege('corte_serves', oid, 'SELECT, INSERT, UPDATE, DELETE')`); err != nil || len(bad) > 0 {
		t.Errorf("%q, %v", bad, err)
	}
	// What a row of the log is about goes with its kind.
	for sql, ok := range map[string]bool{
		`INSERT INTO log_kinds VALUES ('cut', true, false)`:                          true, // it is not there yet
		`INSERT INTO log_kinds VALUES ('noted', true, false)`:                        false,
		`INSERT INTO log (shop_id, at, kind) VALUES (gen_random_uuid(), now(), 'x')`: false,
	} {
		if _, err := db.Exec(sql); (err == nil) != ok {
			t.Errorf("%s: %v", sql, err)
		}
	}
}
