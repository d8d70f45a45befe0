package store_test

import (
	"errors"
	"os"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jmoiron/sqlx"

	"corte/core/blade"
	"corte/core/history"
	"corte/core/saw"
	"corte/internal/store"
	"corte/internal/testkit/pgtest"
)

func TestMain(m *testing.M) { os.Exit(pgtest.Run(m)) }

func furnished(t testing.TB, st *store.Store, slug string) (sh store.Shop, saws [2]store.Saw, b store.Blade) {
	t.Helper()
	ctx := t.Context()
	sh, _, err := st.EnsureShop(ctx, store.Shop{ID: uuid.New(), Slug: slug, Name: slug})
	if err != nil {
		t.Fatal(err)
	}
	for i := range saws {
		saws[i] = store.Saw{ID: uuid.New(), Name: "saw", Saw: saw.Saw{Kind: saw.Table, Diameter: 254, Arbor: 15.875, RPM: 4000, MotorW: 1300, Reach: 79, Brake: &saw.Brake{MinKerf: 2, MaxKerf: 4, MinDiameter: 250, MaxDiameter: 260}}}
		if err := st.AddSaw(ctx, sh.ID, saws[i]); err != nil {
			t.Fatal(err)
		}
	}
	b = store.Blade{ID: uuid.New(), Name: "Plough", Blade: blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Teeth: 24, Grind: blade.FTG}}
	if err := st.AddBlade(ctx, sh.ID, b); err != nil {
		t.Fatal(err)
	}
	return sh, saws, b
}

func TestRowsComeBackAsTheyWent(t *testing.T) {
	ctx, st := t.Context(), pgtest.Store(t)
	if err := st.Migrate(ctx); err != nil {
		t.Errorf("migrating what is up to date: %v", err)
	}
	sh, saws, b := furnished(t, st, "a")
	got, err := st.Blade(ctx, sh.ID, b.ID)
	if err != nil || got.Blade != b.Blade {
		t.Errorf("blade %+v, %v; want %+v", got, err, b)
	}
	w, err := st.Saw(ctx, sh.ID, saws[0].ID)
	if err != nil || *w.Brake != *saws[0].Brake || w.Reach != 79 {
		t.Errorf("saw %+v, %v", w, err)
	}
	// Another shop sees nothing of it.
	other, _, _ := furnished(t, st, "b")
	if _, err := st.Blade(ctx, other.ID, b.ID); !errors.Is(err, store.ErrNone) {
		t.Errorf("another shop's blade: %v", err)
	}
	if _, err := st.Saw(ctx, other.ID, saws[0].ID); !errors.Is(err, store.ErrNone) {
		t.Errorf("another shop's saw: %v", err)
	}
}

// A blade is where it was last mounted or cut with, and only there.
func TestABladeIsOnOneSaw(t *testing.T) {
	ctx, st := t.Context(), pgtest.Store(t)
	sh, saws, b := furnished(t, st, "a")
	for i, kind := range []history.Kind{history.KindMounted, history.KindCut} {
		e := store.Entry{Shop: sh.ID, At: time.Now(), Kind: kind, Blade: &b.ID, Saw: &saws[i].ID}
		if _, err := st.Append(ctx, e); err != nil {
			t.Fatal(err)
		}
		for k, s := range saws {
			w, err := st.Saw(ctx, sh.ID, s.ID)
			if err != nil || (w.Mounted != nil) != (k == i) {
				t.Errorf("after row %d saw %d has %v on it, %v", i, k, w.Mounted, err)
			}
		}
	}
}

// Two tablets that log at once must not each fold from the same snapshot.
func TestNoCutIsLostFromTheCondition(t *testing.T) {
	ctx, st := t.Context(), pgtest.Store(t)
	sh, saws, b := furnished(t, st, "a")
	const cuts = 40
	var wg sync.WaitGroup
	for range cuts {
		wg.Go(func() {
			e := store.Entry{Shop: sh.ID, At: time.Now(), Kind: history.KindCut, Blade: &b.ID, Saw: &saws[0].ID, Detail: pine(3)}
			if _, err := st.Append(ctx, e); err != nil {
				t.Error(err)
			}
		})
	}
	wg.Wait()
	got, err := st.Blade(ctx, sh.ID, b.ID)
	if err != nil || got.Condition.Cuts != cuts || got.Condition.Metres != cuts*3 {
		t.Errorf("after %d cuts at once the snapshot counts %d, %v m, %v", cuts, got.Condition.Cuts, got.Condition.Metres, err)
	}
	rows, err := st.Log(ctx, sh.ID, store.Filter{Blade: &b.ID}, store.Mark{}, 100)
	if err != nil || len(rows) != cuts {
		t.Errorf("%d rows, %v", len(rows), err)
	}
}

func TestLogRowsStay(t *testing.T) {
	ctx, url := t.Context(), pgtest.URL(t)
	st, err := store.Open(ctx, url)
	if err != nil {
		t.Fatal(err)
	}
	defer st.Close()
	sh, saws, b := furnished(t, st, "a")
	if _, err := st.Append(ctx, store.Entry{Shop: sh.ID, At: time.Now(), Kind: history.KindCut, Blade: &b.ID, Saw: &saws[0].ID}); err != nil {
		t.Fatal(err)
	}
	db := sqlx.MustConnect("pgx", url)
	defer db.Close()
	for _, sql := range []string{`UPDATE log SET note = 'x'`, `DELETE FROM log`, `TRUNCATE log CASCADE`} {
		if _, err := db.ExecContext(ctx, sql); err == nil || !strings.Contains(err.Error(), "only added") {
			t.Errorf("%s: %v", sql, err)
		}
	}
	other, _, _ := furnished(t, st, "b")
	if _, err := db.ExecContext(ctx, `INSERT INTO log (shop_id, at, kind, blade_id, saw_id) VALUES ($1, now(), 'cut', $2, $3)`, other.ID, b.ID, saws[0].ID); err == nil {
		t.Error("a row of one shop names another's blade")
	}
	failed := errors.New("no")
	err = st.Atomically(ctx, func(st *store.Store) error {
		if _, _, err := st.EnsureShop(ctx, store.Shop{ID: uuid.New(), Slug: "half"}); err != nil {
			return err
		}
		return failed
	})
	if _, founded, _ := st.EnsureShop(ctx, store.Shop{ID: uuid.New(), Slug: "half"}); !errors.Is(err, failed) || !founded {
		t.Errorf("a failed change was kept: %v, founded anew %v", err, founded)
	}
}

// An end takes the version that was seen, so that what came since is not lost.
func TestAnEndTakesItsVersion(t *testing.T) {
	ctx, st := t.Context(), pgtest.Store(t)
	sh, saws, b := furnished(t, st, "a")
	m, err := st.StartMounting(ctx, store.Mounting{ID: uuid.New(), Shop: sh.ID, Saw: saws[0].ID, Blade: b.ID, Started: time.Now()})
	if err != nil {
		t.Fatal(err)
	}
	m.Answers = []byte(`{"plate":false}`)
	if err := st.StepMounting(ctx, m); err != nil {
		t.Fatal(err)
	}
	for _, want := range []error{store.ErrStale, nil, store.ErrNone} {
		if err := st.EndMounting(ctx, sh.ID, m.ID, m.Version); !errors.Is(err, want) {
			t.Errorf("version %d: %v, not %v", m.Version, err, want)
		}
		m.Version = 2
	}
}

// Where the answer to a commit is lost, nobody knows whether it was kept, and
// nothing else is said.
func TestALostCommitIsSaid(t *testing.T) {
	ctx, url := t.Context(), pgtest.URL(t)
	st, err := store.Open(ctx, url)
	if err != nil {
		t.Fatal(err)
	}
	defer st.Close()
	db := sqlx.MustConnect("pgx", url)
	defer db.Close()
	err = st.Atomically(ctx, func(tx *store.Store) error {
		_, _, err := tx.EnsureShop(ctx, store.Shop{ID: uuid.New(), Slug: "half"})
		db.MustExec(`SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = current_database() AND pid <> pg_backend_pid()`)
		return err
	})
	if !errors.Is(err, store.ErrUnknown) {
		t.Errorf("a commit that was cut off says %v", err)
	}
	if err := st.Ping(ctx); err != nil {
		t.Errorf("the next one says %v", err)
	}
}
