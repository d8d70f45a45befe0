package store_test

import (
	"encoding/json"
	"math"
	"os"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jmoiron/sqlx"
	"github.com/pressly/goose/v3"

	"corte/core/groove"
	"corte/core/history"
	"corte/internal/store"
	"corte/internal/testkit/pgtest"
)

// Every migration goes down and comes up again under a rack and a log that are
// in use: what both versions know is still there, and what follows from the log
// is made anew.
func TestMigrationsUnderAShopInUse(t *testing.T) {
	ctx, url := t.Context(), pgtest.URL(t)
	st, err := store.Open(ctx, url)
	if err != nil {
		t.Fatal(err)
	}
	defer st.Close()
	sh, saws, b := furnished(t, st, "a")
	detail, _ := json.Marshal(history.Cut{Material: "hard-maple", Direction: "rip", Motion: "along", Finish: "hidden", Thickness: 25, Width: 120, Length: 900,
		Height: 39, Pieces: 20, Exit: "open", Other: "open", Wall: "clean", Splinters: "none"})
	for _, e := range []store.Entry{
		{Kind: history.KindMounted, At: time.Now().Add(-time.Hour)}, {Kind: history.KindCut, At: time.Now(), Detail: detail},
	} {
		e.Shop, e.Blade, e.Saw = sh.ID, &b.ID, &saws[0].ID
		if _, err := st.Append(ctx, e); err != nil {
			t.Fatal(err)
		}
	}
	if err := st.SetDadoSet(ctx, sh.ID, store.DadoSet{Blade: b.ID, Set: groove.Set{Left: 3.2, Right: 3.2, Wings: 2}}); err != nil {
		t.Fatal(err)
	}
	was, err := st.Blade(ctx, sh.ID, b.ID)
	if err != nil || was.Condition.WearM2 <= 0 {
		t.Fatalf("before it: %+v, %v", was.Condition, err)
	}
	db, err := sqlx.Connect("pgx", url)
	if err != nil {
		t.Fatal(err)
	}
	defer db.Close()
	p, err := goose.NewProvider(goose.DialectPostgres, db.DB, os.DirFS("migrations"))
	if err != nil {
		t.Fatal(err)
	}
	sources := p.ListSources()
	for i := len(sources) - 1; i > 0; i-- {
		if _, err := p.DownTo(ctx, sources[i-1].Version); err != nil {
			t.Fatalf("down from %d: %v", sources[i].Version, err)
		}
		var rows int
		if err := db.Get(&rows, `SELECT count(*) FROM log`); err != nil || rows != 2 {
			t.Fatalf("under %d the log has %d rows, %v", sources[i].Version, rows, err)
		}
		if err := st.Migrate(ctx); err != nil {
			t.Fatalf("up from %d: %v", sources[i-1].Version, err)
		}
		now, err := st.Blade(ctx, sh.ID, b.ID)
		if err != nil || now.Blade != was.Blade || now.MountedOn == nil || math.Abs(now.Condition.WearM2-was.Condition.WearM2) > 1e-12 {
			t.Errorf("down to %d and up again the blade is %+v, %v", sources[i-1].Version, now, err)
		}
		if w, err := st.Saw(ctx, sh.ID, saws[0].ID); err != nil || w.Mounted == nil || w.ArborLength != 0 {
			t.Errorf("down to %d and up again the saw is %+v, %v", sources[i-1].Version, w, err)
		}
	}
}

// A set is changed by one of two who change it at once.
func TestASetIsChangedOnce(t *testing.T) {
	ctx, st := t.Context(), pgtest.Store(t)
	sh, _, b := furnished(t, st, "a")
	set := store.DadoSet{Blade: b.ID, Set: groove.Set{Left: 3.2, Right: 3.2, Wings: 2, Parts: []groove.Part{{Thickness: 0.1, Count: 3, Shim: true}}}}
	changes := []struct {
		version int
		err     error
	}{{1, store.ErrStale}, {0, nil}, {0, store.ErrStale}, {1, nil}, {1, store.ErrStale}}
	for i, c := range changes {
		set.Version = c.version
		if err := st.SetDadoSet(ctx, sh.ID, set); err != c.err {
			t.Errorf("change %d over version %d: %v, want %v", i, c.version, err, c.err)
		}
	}
	if got, err := st.DadoSet(ctx, sh.ID, b.ID); err != nil || got.Version != 2 || got.Set.Parts[0] != set.Set.Parts[0] {
		t.Errorf("it is %+v, %v", got, err)
	}
}

// Blades that were called the same get a number, also where that is taken, and
// those that are retired keep their names.
func TestNamesThatWereTheSameArePartedByAMigration(t *testing.T) {
	ctx, url := t.Context(), pgtest.URL(t)
	st := pgtest.Open(t, url)
	sh, _, b := furnished(t, st, "a")
	other, _, _ := furnished(t, st, "b") // whose blade is called the same
	db, err := sqlx.Connect("pgx", url)
	if err != nil {
		t.Fatal(err)
	}
	defer db.Close()
	p, err := goose.NewProvider(goose.DialectPostgres, db.DB, os.DirFS("migrations"))
	if err != nil {
		t.Fatal(err)
	}
	if _, err := p.DownTo(ctx, 15); err != nil {
		t.Fatal(err)
	}
	long := strings.Repeat("ü", 60)
	for _, name := range []string{b.Name, strings.ToUpper(b.Name), b.Name + " 2", long, long} {
		one := b
		one.ID, one.Name = uuid.New(), name
		if err := st.AddBlade(ctx, sh.ID, one); err != nil {
			t.Fatal(err)
		}
	}
	gone := b
	gone.ID = uuid.New()
	if err := st.AddBlade(ctx, sh.ID, gone); err != nil {
		t.Fatal(err)
	}
	if err := st.RetireBlade(ctx, sh.ID, gone.ID, &store.Retired{At: time.Now(), Reason: "lost"}); err != nil {
		t.Fatal(err)
	}
	if err := st.Migrate(ctx); err != nil {
		t.Fatal(err)
	}
	var names []string
	if err := db.Select(&names, `SELECT lower(name) FROM blades WHERE shop_id = $1 AND retired_at IS NULL ORDER BY 1`, sh.ID); err != nil {
		t.Fatal(err)
	}
	if len(names) != 6 || len(slices.Compact(names)) != 6 || !slices.Contains(names, strings.ToLower(b.Name)) {
		t.Errorf("they are called %q", names)
	}
	for _, n := range names {
		if len([]rune(n)) > 60 {
			t.Errorf("%q is too long", n)
		}
	}
	if was, err := st.Blade(ctx, sh.ID, gone.ID); err != nil || was.Name != b.Name {
		t.Errorf("the retired one is called %q, %v", was.Name, err)
	}
	if all, err := st.Rack(ctx, other.ID); err != nil || len(all) != 1 || all[0].Name != b.Name {
		t.Errorf("the other shop's: %+v, %v", all, err)
	}
}
