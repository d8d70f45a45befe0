package cut

import (
	"math"
	"testing"

	"corte/core/blade"
	"corte/core/material"
	"corte/core/measure"
)

// The paces of docs/model.md, section 5: how briskly a practised hand feeds, and
// what the finish leaves of that and of the fastest feed.
func TestPacesAreTheModels(t *testing.T) {
	for name, tt := range map[string]struct {
		direction   Direction
		motion      Motion
		byHand      bool
		brisk, push float64
	}{
		"a rip":               {Rip, Along, false, 3.6, 22},
		"a rip by hand":       {Rip, Along, true, 3.0, 18},
		"a rip on the push":   {Rip, Push, false, 2.0, 18},
		"across":              {Crosscut, Along, false, 2.4, 22},
		"across by hand":      {Crosscut, Along, true, 2.4, 18},
		"across on the push":  {Crosscut, Push, false, 2.0, 18},
		"a chop":              {Crosscut, Chop, false, 1.2, 25},
		"sheet goods, a tool": {Sheet, Along, false, 2.4, 22},
	} {
		brisk, push := hands(&Job{Direction: tt.direction, Motion: tt.motion}, Drive{HandHeld: tt.byHand})
		if brisk != tt.brisk || push != tt.push {
			t.Errorf("%s: %v m/min and %v N, want %v and %v", name, brisk, push, tt.brisk, tt.push)
		}
	}
	for f, want := range map[Finish][2]float64{Rough: {1.15, 0.8}, Hidden: {1, 0.8}, Show: {0.85, 0.75}, Fine: {0.65, 0.65}} {
		if got := [2]float64{briskFinish[f], fastShare[f]}; got != want {
			t.Errorf("a %v finish leaves %v of brisk and fastest, want %v", f, got, want)
		}
	}
}

// How grinds and supports splinter: docs/model.md, section 4.
func TestSplinterFactorsAreTheModels(t *testing.T) {
	for name, tt := range map[string]struct {
		b    blade.Blade
		kind material.Kind
		want float64
	}{
		"flat top":                   {blade.Blade{Grind: blade.FTG}, material.Hardwood, 2.2},
		"conical counts as flat":     {blade.Blade{Grind: blade.Conical}, material.Hardwood, 2.2},
		"bevel 15":                   {blade.Blade{Grind: blade.ATB, Bevel: 15}, material.Hardwood, 0.95},
		"a bevel is worth 0.35":      {blade.Blade{Grind: blade.HighATB, Bevel: 50}, material.Hardwood, 0.35},
		"four bevels and a raker":    {blade.Blade{Grind: blade.ATBR, Bevel: 15, Group: 5}, material.Hardwood, (4*0.95 + 2.2) / 5},
		"triple chip":                {blade.Blade{Grind: blade.TCG}, material.Hardwood, 1.1},
		"triple chip in faced board": {blade.Blade{Grind: blade.TCG}, material.Laminate, 0.7},
	} {
		if got := grindFactor(&tt.b, tt.kind); math.Abs(got-tt.want) > 1e-12 {
			t.Errorf("%s: %v, want %v", name, got, tt.want)
		}
	}
	for s, want := range map[Support]float64{Open: 1, Tape: 0.7, ZeroClearance: 0.45, Backer: 0.4, Scored: 0.35, ScoringBlade: 0.3, Spare: 1} {
		if s.Factor() != want {
			t.Errorf("%v leaves %v, want %v", s, s.Factor(), want)
		}
	}
	for board, fits := range map[measure.Length]bool{0: true, 119: false, 120: true, 5000: true, 5001: false} {
		j := job(t, "cherry")
		j.Board = board
		if err := j.Check(); (err == nil) != fits {
			t.Errorf("a board of %v: %v", board, err)
		}
	}
}
