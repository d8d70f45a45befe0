package job

import (
	"math"
	"testing"
	"time"

	"corte/core/blade"
	"corte/core/care"
	"corte/core/cut"
	"corte/core/material"
	"corte/core/measure"
)

// A blade is said to pass where the fold of its own log would call it due, to the
// piece, and once.
func TestPassesAreWhereTheLogWouldHaveThem(t *testing.T) {
	now := time.Date(2026, 11, 27, 8, 0, 0, 0, time.UTC)
	b := blade.Blade{Diameter: 254, Teeth: 24, Grind: blade.FTG, Hook: 20, Kerf: 3.2}
	use := func(wood string, pieces int, thick measure.Length) Use {
		m, err := material.Get(wood)
		if err != nil {
			t.Fatal(err)
		}
		return Use{cut.Job{Material: m, Direction: cut.Rip, Thickness: thick, Width: 90, Length: 2400, Height: thick + 9, Pieces: pieces}}
	}
	if e := use("yellow-pine", 10, 38).event(10, now); math.Abs(e.Metres-24) > 1e-9 || math.Abs(e.FaceM2-24*0.038) > 1e-9 || e.Resin != 2.5 || e.Abrasion != 0.9 {
		t.Errorf("ten of them are %+v", e)
	}
	uses := []Use{use("white-oak", 40, 25), use("yellow-pine", 9000, 38), use("yellow-pine", 60, 38)}
	got := Passes(b, care.Condition{}, uses, now)
	if len(got) != 2 || got[0].Dull || !got[1].Dull {
		t.Fatalf("%+v", got)
	}
	for _, p := range got {
		if p.Use != 1 || p.Pieces == 0 || p.Pieces >= 9000 {
			t.Errorf("passes at %+v", p)
		}
		c := care.Condition{}.Then(b, uses[0].event(40, now))
		due := func(n int) bool {
			h := care.HealthOf(c.Then(b, uses[1].event(n, now)), b.Grind, now)
			return p.Dull && h.Sharpen == care.Due || !p.Dull && h.Wash == care.Due
		}
		if due(p.Pieces) || !due(p.Pieces+1) {
			t.Errorf("dull %v: due before %d pieces, or not after the next", p.Dull, p.Pieces)
		}
		if p.Then != c.Then(b, uses[1].event(p.Pieces, now)) {
			t.Errorf("by then it is %+v", p.Then)
		}
	}
	if clean := Washed(b, got[0].Then, now); clean.PitchLevel() != 0 || clean.WearM2 != got[0].Then.WearM2 {
		t.Errorf("washed it is %+v", clean)
	}
	// What it was before the work is not said again, and what comes after is no news.
	dirty := got[0].Then.Then(b, uses[1].event(1, now))
	if again := Passes(b, dirty, []Use{use("yellow-pine", 60, 38)}, now); len(again) != 0 {
		t.Errorf("said again: %+v", again)
	}
}
