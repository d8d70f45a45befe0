package store_test

import (
	"encoding/json"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"sync/atomic"
	"testing"
	"testing/fstest"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"corte/core/history"
	"corte/internal/store"
	"corte/internal/testkit/pgtest"
)

var (
	inserts = regexp.MustCompile(`INSERT INTO (\w+) (?:AS \w+ )?\(([^)]*)\)`)
	openSet = regexp.MustCompile(`^SELECT (\w+\.)?\*|RETURNING (\w+\.)?\*`)
)

// What earlier releases say to the database, this one's tables still
// understand: their servers go on beside it. `make statements` keeps what this
// release says.
func TestAnEarlierReleaseGoesOnOverTheseTables(t *testing.T) {
	ctx, url := t.Context(), pgtest.URL(t)
	conn, err := pgx.Connect(ctx, url)
	if err != nil {
		t.Fatal(err)
	}
	defer conn.Close(ctx)
	needed := func(table string) (names []string) {
		rows, _ := conn.Query(ctx, `SELECT column_name::text FROM information_schema.columns WHERE table_schema = 'public' AND table_name = $1
			AND is_nullable = 'NO' AND column_default IS NULL AND is_identity = 'NO' AND is_generated = 'NEVER'`, table)
		if names, err = pgx.CollectRows(rows, pgx.RowTo[string]); err != nil {
			t.Fatal(err)
		}
		return names
	}
	files, _ := filepath.Glob("testdata/statements-*.json")
	if len(files) == 0 {
		t.Fatal("no release's statements are there")
	}
	for _, file := range files {
		var said []string
		if raw, err := os.ReadFile(file); err != nil || json.Unmarshal(raw, &said) != nil || len(said) < 100 {
			t.Fatalf("%s: %d statements, %v", file, len(said), err)
		}
		for _, sql := range said {
			if _, err := conn.Prepare(ctx, "", sql); err != nil {
				t.Errorf("%s: %.160s: %v", file, sql, err)
			}
			// A row read into a struct would meet a column that the struct has not.
			if openSet.MatchString(sql) && !strings.Contains(sql, "last.*") {
				t.Errorf("%s: %.160s: it asks for whatever columns there are", file, sql)
			}
			if m := inserts.FindStringSubmatch(sql); m != nil {
				for _, column := range needed(m[1]) {
					if !slices.Contains(strings.Split(m[2], ", "), column) {
						t.Errorf("%s: %.160s: nothing for %s", file, sql, column)
					}
				}
			}
		}
	}
}

// A new server migrates while an old one serves and a copy is being made: cuts
// go on being logged, and the old one starts again over the newer tables.
func TestMigratingBesideAServerThatServes(t *testing.T) {
	ctx, url := t.Context(), pgtest.URL(t)
	older, newer := pgtest.Open(t, url), pgtest.Open(t, url)
	sh, _, b := furnished(t, older, "a")
	dir := fstest.MapFS{"99999_next.sql": {Data: []byte(`-- +goose Up
ALTER TABLE log ADD COLUMN mood text NOT NULL DEFAULT '';
CREATE TABLE moods (shop_id uuid, mood text);
-- +goose Down
`)}}
	kept, err := filepath.Glob("migrations/*.sql")
	if err != nil {
		t.Fatal(err)
	}
	for _, name := range kept {
		text, err := os.ReadFile(name)
		if err != nil {
			t.Fatal(err)
		}
		dir[filepath.Base(name)] = &fstest.MapFile{Data: text}
	}
	reader, err := pgx.Connect(ctx, url)
	if err != nil {
		t.Fatal(err)
	}
	defer reader.Close(ctx)
	if _, err := reader.Exec(ctx, `BEGIN; SELECT count(*) FROM log`); err != nil {
		t.Fatal(err)
	}
	migrated := make(chan error, 1)
	go func() { migrated <- newer.MigrateFrom(ctx, dir) }()
	var over atomic.Bool
	var logged atomic.Int64
	done := make(chan struct{})
	go func() {
		defer close(done)
		for !over.Load() {
			if _, err := older.Append(store.For(ctx, sh.ID), store.Entry{Shop: sh.ID, At: time.Now(), Kind: history.KindNoted, Blade: &b.ID}); err != nil {
				t.Errorf("row %d: %v", logged.Load(), err)
				return
			}
			logged.Add(1)
			time.Sleep(5 * time.Millisecond)
		}
	}()
	time.Sleep(time.Second) // by now they wait behind the migration
	behind := logged.Load()
	select {
	case err := <-migrated:
		t.Errorf("migrated under a reader's table: %v", err)
	case <-time.After(3 * time.Second):
	}
	if n := logged.Load() - behind; n < 10 {
		t.Errorf("%d rows were logged while the migration stood back", n)
	}
	if _, err := reader.Exec(ctx, `COMMIT`); err != nil {
		t.Fatal(err)
	}
	if err := <-migrated; err != nil {
		t.Errorf("once the reader is done: %v", err)
	}
	over.Store(true)
	<-done
	if err := older.Migrate(ctx); err != nil {
		t.Errorf("the older one starts over newer tables: %v", err)
	}
	again := pgtest.Open(t, url)
	if _, err := again.Append(store.For(ctx, sh.ID), store.Entry{Shop: sh.ID, At: time.Now(), Kind: history.KindNoted, Blade: &b.ID}); err != nil {
		t.Errorf("and logs: %v", err)
	}
	if rows, err := newer.Log(ctx, sh.ID, store.Filter{}, store.Mark{}, 1); err != nil || len(rows) != 1 || rows[0].Shop == uuid.Nil {
		t.Errorf("the newer one reads %v, %v", rows, err)
	}
}
