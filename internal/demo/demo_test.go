package demo_test

import (
	"math"
	"os"
	"testing"
	"time"

	"corte/core/blade"
	"corte/core/care"
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
	blades, _, err := svc.Blades(ctx, sh.ID, store.Place{}, 500)
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
		states[b.Condition.Word(care.Life(b.Grind))] = true
		log, more, err := svc.BladeLog(ctx, sh.ID, b.ID, 0, 500)
		if err != nil || more != 0 {
			t.Fatalf("%s: %d rows, more from %d, %v", b.Name, len(log), more, err)
		}
		rows += len(log)
		folded := b
		folded.Condition = care.Condition{}
		for i := len(log) - 1; i >= 0; i-- {
			if log[i].At.After(now) {
				t.Errorf("%s: a row from the future, %v", b.Name, log[i].At)
			}
			folded.Condition = shop.Fold(log[i])(folded)
		}
		if d := math.Abs(folded.Condition.WearM2 - b.Condition.WearM2); d > 1e-12 || folded.Condition.Cuts != b.Condition.Cuts {
			t.Errorf("%s: the snapshot says %+v, the log %+v", b.Name, b.Condition, folded.Condition)
		}
	}
	for _, g := range blade.Grinds() {
		if !grinds[g] {
			t.Errorf("no blade with grind %v", g)
		}
	}
	if !states["dull"] || !states["pitchy"] || !states["fine"] || rows < 200 {
		t.Errorf("states %v in %d rows", states, rows)
	}
	saws, err := svc.Saws(ctx, sh.ID)
	if err != nil || len(saws) != 3 || saws[1].Heel == 0 || saws[1].Mounted == nil {
		t.Errorf("saws %+v, %v", saws, err)
	}
}
