package demo_test

import (
	"math"
	"os"
	"testing"
	"time"

	"corte/core/blade"
	"corte/internal/demo"
	"corte/internal/shop"
	"corte/internal/store"
	"corte/internal/testkit/pgtest"
)

func TestMain(m *testing.M) { os.Exit(pgtest.Run(m)) }

// The demo shop is furnished once, covers the field, and its snapshots are
// what its log adds up to.
func TestFurnish(t *testing.T) {
	ctx, st := t.Context(), pgtest.Store(t)
	now := time.Date(2026, 5, 20, 18, 0, 0, 0, time.UTC)
	sh, err := demo.Furnish(ctx, st, now)
	if err != nil {
		t.Fatal(err)
	}
	svc := shop.New(st, time.Now)
	blades, _, err := svc.Rack.Blades(ctx, sh.ID, store.Place{}, 500)
	if err != nil || len(blades) < 14 {
		t.Fatalf("%d blades, %v", len(blades), err)
	}
	if again, err := demo.Furnish(ctx, st, now.AddDate(0, 1, 0)); err != nil || again != sh {
		t.Errorf("furnishing again: %+v, %v", again, err)
	}
	grinds, states, rows := map[blade.Grind]bool{}, map[string]bool{}, 0
	for _, b := range blades {
		if err := b.Check(); err != nil {
			t.Errorf("%s: %v", b.Name, err)
		}
		grinds[b.Grind] = true
		states[b.Condition.Word(b.Grind)] = true
		log, more, err := svc.Log.Rows(ctx, sh.ID, store.Filter{Blade: &b.ID}, store.Mark{}, 500)
		if err != nil || more != nil {
			t.Fatalf("%s: %d rows, more from %v, %v", b.Name, len(log), more, err)
		}
		rows += len(log)
		for _, e := range log {
			if e.At.After(now) {
				t.Errorf("%s: a row from the future, %v", b.Name, e.At)
			}
		}
	}
	if n, drifts, err := st.Conditions(ctx, false); err != nil || n != len(blades) || len(drifts) != 0 {
		t.Errorf("%d snapshots, %d of them drifted: %+v, %v", n, len(drifts), drifts, err)
	}
	// The season's cuts teach what is true of this shop's wood.
	lessons, err := svc.Run.Lessons(ctx, sh.ID)
	if err != nil {
		t.Fatal(err)
	}
	for _, l := range lessons {
		if l.Material == "cherry" && !(l.LnScorch < -0.1 && l.LnScorch > -0.7) || l.Material == "softwood-ply" && math.Abs(l.LnSplinter-0.25) > 0.2 {
			t.Errorf("of %s it taught %+v", l.Material, l.Correction)
		}
	}
	for _, g := range blade.Grinds() {
		if !grinds[g] {
			t.Errorf("no blade with grind %v", g)
		}
	}
	if !states["dull"] || !states["pitchy"] || !states["fine"] || !states["away"] || rows < 200 {
		t.Errorf("states %v in %d rows", states, rows)
	}
	saws, err := svc.Rack.Saws(ctx, sh.ID)
	if err != nil || len(saws) != 3 || saws[1].Heel == 0 || saws[1].Mounted == nil {
		t.Errorf("saws %+v, %v", saws, err)
	}
}
