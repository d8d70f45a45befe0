package store_test

import (
	"testing"

	"github.com/google/uuid"
	"github.com/jmoiron/sqlx"

	"corte/internal/store"
	"corte/internal/testkit/pgtest"
)

// In the role that serves, what is asked of a long log goes to the rows that are
// wanted, and not through all of them: a policy keeps PostgreSQL from looking
// rows up by much of what it would use otherwise.
func TestALongLogIsReadWhereItIsAsked(t *testing.T) {
	url := pgtest.URL(t)
	st := pgtest.Open(t, url)
	sh, saws, b := furnished(t, st, "a")
	if err := st.AddSaw(t.Context(), sh.ID, store.Saw{ID: uuid.New(), Name: "new", Saw: saws[0].Saw}); err != nil {
		t.Fatal(err)
	}
	db := sqlx.MustConnect("pgx", url)
	t.Cleanup(func() { db.Close() })
	const long = 20000
	db.MustExec(`INSERT INTO log (shop_id, at, kind, blade_id, saw_id, detail) SELECT $1, timestamptz '2020-01-01' + i * interval '1 hour',
		(ARRAY['cut', 'cut', 'cut', 'washed', 'runout', 'heel', 'sent'])[i % 7 + 1], $2, CASE WHEN i % 7 NOT IN (3, 6) THEN ($3::uuid[])[i % 2 + 1] END, $4 FROM generate_series(1, $5) i`, sh.ID, b.ID, []uuid.UUID{saws[0].ID, saws[1].ID}, pine(1), long)
	db.MustExec(`INSERT INTO log (shop_id, at, kind, blade_id, strikes) SELECT $1, now(), 'struck', $2, id FROM log WHERE id % 100 = 0 AND kind = 'cut'`, sh.ID, b.ID)
	db.MustExec(`INSERT INTO log (shop_id, at, kind, blade_id, amends) SELECT $1, now(), 'noted', $2, id FROM log WHERE id % 100 = 50 AND kind = 'cut'`, sh.ID, b.ID)
	db.MustExec(`INSERT INTO conditions (shop_id, blade_id, fold, condition) VALUES ($1, $2, 1, '{"away": true}')`, sh.ID, b.ID)
	db.MustExec(`ANALYZE`)
	ctx := store.For(t.Context(), sh.ID)
	for what, ask := range map[string]func(*store.Store) error{
		"a page": func(st *store.Store) error {
			_, err := st.Log(ctx, sh.ID, store.Filter{}, store.Mark{}, 50)
			return err
		},
		"a page of a blade": func(st *store.Store) error {
			_, err := st.Log(ctx, sh.ID, store.Filter{Blade: &b.ID}, store.Mark{}, 50)
			return err
		},
		"a page that stands": func(st *store.Store) error {
			_, err := st.Log(ctx, sh.ID, store.Filter{Standing: true}, store.Mark{}, 50)
			return err
		},
		"the last of saws": func(st *store.Store) error { _, err := st.LastOfSaws(ctx, sh.ID, 5); return err },
		"truings":          func(st *store.Store) error { _, err := st.Truings(ctx, sh.ID, &saws[0].ID, nil, "", 20); return err },
		"how saws stand":   func(st *store.Store) error { _, err := st.Stands(ctx, sh.ID); return err },
	} {
		var rows int
		if err := st.Atomically(ctx, func(tx *store.Store) (err error) {
			before, err := tx.LogRead(ctx) // by those before it on this connection
			if err == nil {
				err = ask(tx)
			}
			if err == nil {
				rows, err = tx.LogRead(ctx)
			}
			rows -= before
			return err
		}); err != nil {
			t.Fatalf("%s: %v", what, err)
		}
		if rows == 0 || rows > 1000 {
			t.Errorf("%s reads %d rows of a log of %d", what, rows, long)
		}
	}
}
