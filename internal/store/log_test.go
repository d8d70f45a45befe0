package store_test

import (
	"encoding/json"
	"fmt"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jmoiron/sqlx"

	"corte/core/blade"
	"corte/core/cut"
	"corte/core/groove"
	"corte/core/history"
	"corte/internal/store"
	"corte/internal/testkit/pgtest"
)

// Rows count from when they happened, in whatever order they come in, and what
// is struck out counts no more.
func TestTheFoldFollowsTime(t *testing.T) {
	ctx, st := t.Context(), pgtest.Store(t)
	sh, saws, b := furnished(t, st, "a")
	day := func(n int) time.Time { return time.Date(2026, 3, 1+n, 9, 0, 0, 0, time.UTC) }
	var ids []int64
	add := func(at time.Time, kind history.Kind, detail []byte) {
		t.Helper()
		e := store.Entry{Shop: sh.ID, At: at, Kind: kind, Blade: &b.ID, Saw: &saws[0].ID, Detail: detail}
		row, err := st.Append(ctx, e)
		if err != nil {
			t.Fatal(err)
		}
		ids = append(ids, row.ID)
	}
	add(day(1), history.KindCut, pine(10))
	add(day(3), history.KindWashed, nil)
	add(day(2), history.KindCut, pine(20)) // was waiting in a tablet
	got, err := st.Blade(ctx, sh.ID, b.ID)
	if err != nil || got.Condition.Metres != 30 || got.Condition.MetresWashed != 0 {
		t.Errorf("a late row: %+v, %v", got.Condition, err)
	}
	strike := store.Entry{Shop: sh.ID, At: day(4), Kind: history.KindStruck, Blade: &b.ID, Strikes: &ids[1]}
	if _, err := st.Append(ctx, strike); err != nil {
		t.Fatal(err)
	}
	if got, _ = st.Blade(ctx, sh.ID, b.ID); got.Condition.Washes != 0 || got.Condition.MetresWashed != 30 {
		t.Errorf("a wash that was struck out: %+v", got.Condition)
	}
	if _, err := st.Append(ctx, strike); !store.IsDuplicate(err) {
		t.Errorf("struck out twice: %v", err)
	}
	if rows, err := st.Log(ctx, sh.ID, store.Filter{Blade: &b.ID, Standing: true}, store.Mark{}, 10); err != nil || len(rows) != 2 || !rows[0].At.Equal(day(2)) {
		t.Errorf("what stands: %+v, %v", rows, err)
	}
	// Teeth that were counted wrong change what every cut did.
	wear := got.Condition.WearM2
	got.Teeth *= 2
	if err := st.ChangeBlade(ctx, sh.ID, got); err != nil {
		t.Fatal(err)
	}
	if got, _ = st.Blade(ctx, sh.ID, b.ID); got.Condition.WearM2 != wear/2 {
		t.Errorf("with twice the teeth a tooth wears %v, not %v", got.Condition.WearM2, wear/2)
	}
}

// A snapshot that says something else than its log is found and mended.
func TestSnapshotsAreCompared(t *testing.T) {
	ctx, url := t.Context(), pgtest.URL(t)
	st, err := store.Open(ctx, url)
	if err != nil {
		t.Fatal(err)
	}
	defer st.Close()
	sh, saws, b := furnished(t, st, "a")
	if _, err := st.Append(ctx, store.Entry{Shop: sh.ID, At: time.Now(), Kind: history.KindCut, Blade: &b.ID, Saw: &saws[0].ID, Detail: pine(7)}); err != nil {
		t.Fatal(err)
	}
	want, _ := st.Blade(ctx, sh.ID, b.ID)
	db := sqlx.MustConnect("pgx", url)
	defer db.Close()
	db.MustExec(`UPDATE conditions SET condition = jsonb_set(condition, '{wear_m2}', '9')`)
	for _, mend := range []bool{false, true} {
		if n, drifts, err := st.Conditions(ctx, mend); err != nil || n != 1 || len(drifts) != 1 || drifts[0].Folded.WearM2 != want.Condition.WearM2 {
			t.Errorf("%d blades, %+v, %v", n, drifts, err)
		}
	}
	if _, drifts, err := st.Conditions(ctx, false); err != nil || len(drifts) != 0 {
		t.Errorf("after mending %+v, %v", drifts, err)
	}
	// What is held of a set's parts is compared and mended too.
	if err := st.SetDadoSet(ctx, sh.ID, store.DadoSet{Blade: b.ID, Set: groove.Set{Left: 3.2, Right: 3.2}}); err != nil {
		t.Fatal(err)
	}
	if _, err := st.Append(ctx, store.Entry{Shop: sh.ID, At: time.Now(), Kind: history.KindGrooved, Blade: &b.ID, Saw: &saws[0].ID, Detail: json.RawMessage(`{"test": true, "left_mm": 3.2, "right_mm": 3.2, "width_mm": [6.5]}`)}); err != nil {
		t.Fatal(err)
	}
	held, err := st.DadoSet(ctx, sh.ID, b.ID)
	if err != nil || held.Held.Told != 1 || held.Held.Estimate.Mean[0] <= 0 {
		t.Errorf("a test groove taught %+v, %v", held.Held, err)
	}
	db.MustExec(`UPDATE dado_sets SET held = jsonb_set(held, '{mean_mm}', '[1]')`)
	for _, drifted := range []bool{true, false} {
		if _, drifts, err := st.Conditions(ctx, true); err != nil || (len(drifts) == 1) != drifted || drifted && !drifts[0].Parts {
			t.Errorf("drifted %v: %+v, %v", drifted, drifts, err)
		}
	}
	// One that an older Corte wrote is made anew when this one starts.
	db.MustExec(`UPDATE conditions SET fold = 0, condition = '{}'`)
	if err := st.Migrate(ctx); err != nil {
		t.Fatal(err)
	}
	if got, _ := st.Blade(ctx, sh.ID, b.ID); got.Condition.WearM2 != want.Condition.WearM2 {
		t.Errorf("after a start %+v", got.Condition)
	}
}

// BenchmarkLogPage reads a page from the middle of a log of a million rows: of
// the shop, of a saw, of a blade, and of one kind.
func BenchmarkLogPage(b *testing.B) {
	url := pgtest.URL(b)
	st, err := store.Open(b.Context(), url)
	if err != nil {
		b.Fatal(err)
	}
	defer st.Close()
	sh, saws, one := furnished(b, st, "a")
	ctx := store.For(b.Context(), sh.ID) // as it is served
	db := sqlx.MustConnect("pgx", url)
	defer db.Close()
	db.MustExec(`INSERT INTO blades (id, shop_id, name, make, diameter_mm, bore_mm, kerf_mm, teeth, grind, kept_for)
		SELECT gen_random_uuid(), $1, 'Blade ' || i, 'toothed', 254, 15.875, 3, 40, 'ATB', 'general' FROM generate_series(1, 200) i`, sh.ID)
	db.MustExec(`INSERT INTO log (shop_id, at, kind, blade_id, saw_id, detail)
		SELECT $1, timestamptz '2020-01-01' + i * interval '2 minutes', CASE WHEN i % 50 = 0 THEN 'washed' ELSE 'cut' END,
			(array_agg(b.id) OVER ())[1], $2, $3 FROM generate_series(1, 1000000) i, (SELECT id FROM blades WHERE shop_id = $1 LIMIT 1) b`, sh.ID, saws[0].ID, pine(1))
	db.MustExec(`ANALYZE`)
	middle := store.Mark{At: time.Date(2022, 1, 1, 0, 0, 0, 0, time.UTC), ID: 1 << 40}
	rows, err := st.Log(ctx, sh.ID, store.Filter{}, store.Mark{}, 1)
	if err != nil {
		b.Fatal(err)
	}
	busy := rows[0].Blade
	for name, f := range map[string]store.Filter{
		"shop": {}, "saw": {Saw: &saws[0].ID}, "blade": {Blade: busy}, "quiet blade": {Blade: &one.ID}, "kind": {Kinds: []history.Kind{history.KindWashed}}, "standing": {Standing: true},
	} {
		b.Run(name, func(b *testing.B) {
			for b.Loop() {
				rows, err := st.Log(ctx, sh.ID, f, middle, 100)
				if err != nil || name != "quiet blade" && len(rows) != 100 {
					b.Fatal(len(rows), err)
				}
			}
		})
	}
}

// A clock finer than the database's makes no drift, and a blade whose condition
// a new fold leaves as it was is folded once, not at every start.
func TestNoDriftWhereThereIsNone(t *testing.T) {
	ctx, url := t.Context(), pgtest.URL(t)
	st, err := store.Open(ctx, url)
	if err != nil {
		t.Fatal(err)
	}
	defer st.Close()
	sh, saws, b := furnished(t, st, "a")
	at := time.Date(2026, 11, 26, 9, 30, 0, 123456789, time.UTC)
	for i, kind := range []history.Kind{history.KindJudged, history.KindCut} { // the first alone was no reason to fold
		e := store.Entry{Shop: sh.ID, At: at.Add(time.Duration(i) * time.Second), Kind: kind, Blade: &b.ID, Saw: &saws[0].ID, Detail: []byte(`{"says":"pitchy"}`)}
		if kind == history.KindCut {
			e.Detail = pine(3)
		}
		row, err := st.Append(ctx, e)
		if err != nil || row.At.Nanosecond() != 123456000 {
			t.Fatalf("kept at %v, %v", row.At, err)
		}
		if _, drifts, err := st.Conditions(ctx, false); err != nil || len(drifts) != 0 {
			t.Errorf("after a %s: %+v, %v", kind, drifts, err)
		}
		db := sqlx.MustConnect("pgx", url)
		db.MustExec(`UPDATE conditions SET fold = 0`)
		if err := st.FoldNew(ctx); err != nil {
			t.Fatal(err)
		}
		var old bool
		if err := db.Get(&old, `SELECT fold = 0 FROM conditions`); err != nil || old {
			t.Errorf("after a %s the snapshot is still of an old fold, %v", kind, err)
		}
		db.Close()
	}
}

// How worn a dull blade is follows from its grind, so a grind that is put right is
// folded anew.
func TestACorrectedGrindIsFoldedAnew(t *testing.T) {
	ctx, st := t.Context(), pgtest.Store(t)
	sh, saws, b := furnished(t, st, "a")
	for _, e := range []store.Entry{{Kind: history.KindCut, Detail: pine(3)}, {Kind: history.KindJudged, Detail: []byte(`{"says":"dull"}`)}} {
		e.Shop, e.At, e.Blade, e.Saw = sh.ID, time.Now(), &b.ID, &saws[0].ID
		if _, err := st.Append(ctx, e); err != nil {
			t.Fatal(err)
		}
	}
	was, err := st.Blade(ctx, sh.ID, b.ID)
	if err != nil {
		t.Fatal(err)
	}
	right := was
	right.Grind = blade.TCG
	if err := st.ChangeBlade(ctx, sh.ID, right); err != nil {
		t.Fatal(err)
	}
	now, err := st.Blade(ctx, sh.ID, b.ID)
	if err != nil || now.Condition.EdgeM2() == was.Condition.EdgeM2() {
		t.Errorf("as %v it is worn by %g, as %v by %g; %v", was.Grind, was.Condition.EdgeM2(), now.Grind, now.Condition.EdgeM2(), err)
	}
	if _, drifts, err := st.Conditions(ctx, false); err != nil || len(drifts) != 0 {
		t.Errorf("the snapshot is not what its log gives: %+v, %v", drifts, err)
	}
}

// Cuts of one material that are logged at once, with several blades, all teach.
func TestCutsAtOnceAllTeach(t *testing.T) {
	ctx, st := t.Context(), pgtest.Store(t)
	sh, saws, b := furnished(t, st, "a")
	detail := fmt.Appendf(nil, `{"material":"poplar","wall":"clean","splinters":"none","foretold":{"edition":%d,"heat":0.5,"load":0.2,"exit":0.4}}`, cut.Edition)
	var blades [8]store.Blade
	for i := range blades {
		blades[i] = b
		blades[i].ID = uuid.New()
		blades[i].Name = blades[i].ID.String()
		if err := st.AddBlade(ctx, sh.ID, blades[i]); err != nil {
			t.Fatal(err)
		}
	}
	for round := range 10 {
		var wg sync.WaitGroup
		for i := range blades {
			wg.Go(func() {
				e := store.Entry{Shop: sh.ID, At: time.Now(), Kind: history.KindCut, Blade: &blades[i].ID, Saw: &saws[0].ID, Detail: detail}
				if _, err := st.Append(ctx, e, func(tx *store.Store, _ store.Entry) error { return tx.Learn(ctx, sh.ID, "poplar") }); err != nil {
					t.Error(err)
				}
			})
		}
		wg.Wait()
		if all, err := st.Lessons(ctx, sh.ID, "poplar"); err != nil || len(all) != 1 || all[0].Cuts != len(blades)*(round+1) {
			t.Fatalf("%d cuts taught %+v, %v", len(blades)*(round+1), all, err)
		}
	}
}
