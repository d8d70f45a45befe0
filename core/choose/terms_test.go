package choose

import (
	"math"
	"strings"
	"testing"

	"corte/core/blade"
	"corte/core/cut"
	"corte/core/measure"
)

// Each term by hand, at and off its limit, from docs/model.md.
func TestTerms(t *testing.T) {
	r := request(t, "red-oak", cut.Rip, cut.Show) // a face bears 0.7 of splinters; marks of 0.06 mm
	r.ChangeMinutes = 3
	limit, mark := r.Job.SplinterLimit(), r.Job.Finish.WallLimit()
	at := func(change func(*cut.Figures, *Candidate, *Request)) Terms {
		f := cut.Figures{Load: 0.9, Allowed: 0.9, WallMark: mark, Window: cut.Window{Slowest: 1, Fastest: 1}, Exit: cut.Face{Matters: true, Splinter: limit}}
		c, req := Candidate{Blade: rip24}, r
		change(&f, &c, &req)
		o := Option{Figures: f}
		o.Minutes.Handling = 2
		return weigh(req, c, o)
	}
	none := func(*cut.Figures, *Candidate, *Request) {}
	for name, tt := range map[string]struct {
		term   Term
		change func(*cut.Figures, *Candidate, *Request)
		want   float64
	}{
		"splinters at the limit":  {TermFinish, none, 0.5},
		"splinters at twice":      {TermFinish, func(f *cut.Figures, _ *Candidate, _ *Request) { f.Exit.Splinter = 2 * limit }, 0.2},
		"the other face is worse": {TermFinish, func(f *cut.Figures, _ *Candidate, _ *Request) { f.Other = cut.Face{Matters: true, Splinter: 3 * limit} }, 0.1},
		"one that does not count": {TermFinish, func(f *cut.Figures, _ *Candidate, _ *Request) { f.Other = cut.Face{Splinter: 3 * limit} }, 0.5},
		"a third of walls burn":   {TermScorch, func(f *cut.Figures, _ *Candidate, _ *Request) { f.Burn = 1. / 3 }, 2. / 3},
		"every wall burns":        {TermScorch, func(f *cut.Figures, _ *Candidate, _ *Request) { f.Burn = 1 }, 0.01},
		"all that is allowed":     {TermLoad, none, 0.5},
		"twice that":              {TermLoad, func(f *cut.Figures, _ *Candidate, _ *Request) { f.Load = 1.8 }, 1. / 9},
		"no room":                 {TermRoom, none, 0.5},
		"room of 2":               {TermRoom, func(f *cut.Figures, _ *Candidate, _ *Request) { f.Window.Fastest = 2 }, 0.8},
		"marks at the limit":      {TermWall, none, 0.5},
		"marks at half":           {TermWall, func(f *cut.Figures, _ *Candidate, _ *Request) { f.WallMark = mark / 2 }, 0.8},
		"marks of twice":          {TermWall, func(f *cut.Figures, _ *Candidate, _ *Request) { f.WallMark = 2 * mark }, 0.2},
		"nobody looks at it":      {TermWall, func(_ *cut.Figures, _ *Candidate, r *Request) { r.Job.Finish = cut.Rough }, 1},
		"sharp and clean":         {TermCondition, none, 1},
		"worn by half, pitchy":    {TermCondition, func(_ *cut.Figures, c *Candidate, _ *Request) { c.State = cut.State{Sharpness: 1.5, Pitch: 2} }, 1 / 1.44},
		"a hook nobody has read":  {TermCondition, func(_ *cut.Figures, c *Candidate, r *Request) { c.Blade.HookUnknown, r.Saw = true, slider }, 0.2},
		"chipped":                 {TermCondition, func(_ *cut.Figures, c *Candidate, _ *Request) { c.State.Chipped = true }, 0.6},
		"a change for one piece":  {TermChange, none, math.Exp(-3. / 14)},
		"for fifty":               {TermChange, func(_ *cut.Figures, _ *Candidate, r *Request) { r.Job.Pieces = 50 }, math.Exp(-3. / 112)},
		"it is on":                {TermChange, func(_ *cut.Figures, c *Candidate, _ *Request) { c.Mounted = true }, 1},
	} {
		if got := at(tt.change)[tt.term]; math.Abs(got-tt.want) > 1e-9 {
			t.Errorf("%s: %v, not %v", name, got, tt.want)
		}
	}
	// The mean by hand: weights 2, 2, 1, 3, 1, 1.5, 0.75, 1, which add up to 12.25.
	mean := func(term Term, v float64) float64 {
		ones := Terms{1, 1, 1, 1, 1, 1, 1, 1}
		ones[term] = v
		return ones.logs().score()
	}
	for term, weight := range map[Term]float64{TermFinish: 2, TermScorch: 2, TermLoad: 1, TermRoom: 3, TermWall: 1, TermFitness: 1.5, TermCondition: 0.75, TermChange: 1} {
		if got := mean(term, 0.5); math.Abs(got-math.Pow(0.5, weight/12.25)) > 1e-9 {
			t.Errorf("%v counts %v", term, got)
		}
	}
}

// Fitness and what follows from the spacing of teeth, from docs/model.md, section 7.
func TestFitnessIsTheModels(t *testing.T) {
	for f, want := range map[fit]float64{
		fitKept: 1, fitFraming: 1, fitFlat: 0.9, fitGeneral: 0.85, fitNear: 0.85, fitEars: 0.6, fitFiner: 0.5, fitOther: 0.5,
		fitSteep: 0.35, fitSaved: 0.35, fitCoarse: 0.3, fitRidged: 0.15,
	} {
		if fitValues[f] != want {
			t.Errorf("fit %d counts %v, want %v", f, fitValues[f], want)
		}
	}
	of := func(material string, finish cut.Finish, d cut.Direction, pitch measure.Length, b blade.Blade) fit {
		b.Teeth = 60
		b.Diameter = pitch * 60 / math.Pi
		return fitnessOf(b, request(t, material, d, finish).Job)
	}
	general, rip := blade.Blade{KeptFor: blade.UseGeneral, Grind: blade.ATB}, blade.Blade{KeptFor: blade.UseRip, Grind: blade.ATB}
	for name, tt := range map[string]struct{ under, over, want, then fit }{
		"fine is under 12.5 mm": {of("cherry", cut.Hidden, cut.Rip, 12.4, rip), of("cherry", cut.Hidden, cut.Rip, 12.6, rip), fitFiner, fitKept},
		"rough is over 19 mm":   {of("cherry", cut.Rough, cut.Rip, 18.9, general), of("cherry", cut.Rough, cut.Rip, 19.1, general), fitGeneral, fitFraming},
		"framing is over 22 mm": {of("birch-ply", cut.Show, cut.Sheet, 21.9, general), of("birch-ply", cut.Show, cut.Sheet, 22.1, general), fitGeneral, fitCoarse},
	} {
		if tt.under != tt.want || tt.over != tt.then {
			t.Errorf("%s: %d and %d, want %d and %d", name, tt.under, tt.over, tt.want, tt.then)
		}
	}
	for d, want := range map[measure.Length][2]measure.Length{199: {1.6, 2.0}, 200: {2.4, 3.2}} {
		if got := [2]measure.Length{kerfFor(d, true), kerfFor(d, false)}; got != want {
			t.Errorf("a thin and a full kerf at %v are %v, want %v", d, got, want)
		}
	}
	for name, tt := range map[string]struct {
		a, b float64
		same bool
	}{
		"half a minute":        {4, 4.49, true},
		"over half a minute":   {4, 4.51, false},
		"a twentieth":          {100, 104.9, true},
		"more than that":       {100, 105.1, false},
		"and less by as much":  {100, 95.1, true},
		"less by more than it": {100, 94.9, false},
	} {
		if hardly(tt.a, tt.b) != tt.same {
			t.Errorf("%s: %v", name, !tt.same)
		}
	}
}

// What is said of the wall turns where the mark passes what may stand.
func TestTheWallInWords(t *testing.T) {
	r := request(t, "cherry", cut.Rip, cut.Show)
	limit := r.Job.Finish.WallLimit()
	c := Candidate{Blade: rip24}
	for _, tt := range []struct {
		mark measure.Length
		by   cut.Bound
		says string
	}{
		{limit * 1.02, cut.ByHand, "where " + limit.Thin(measure.Millimetre) + " is allowed"},
		{limit, cut.ByWall, "limit the feed rate"},
		{limit * 1.005, cut.ByWall, "limit the feed rate"},
		{limit / 2, cut.ByHand, "under the " + limit.Thin(measure.Millimetre)},
	} {
		o := Option{Figures: cut.Figures{WallMark: tt.mark, Window: cut.Window{FastBy: tt.by}}}
		if got := told(TermWall, r, c, o).String(); !strings.Contains(got, tt.says) {
			t.Errorf("%v by %v: %q", tt.mark, tt.by, got)
		}
	}
}

// A saw for steel turns too slowly for wood; a little over 40 m/s is enough.
func TestASlowSawIsNotForWood(t *testing.T) {
	j := request(t, "white-pine", cut.Crosscut, cut.Rough).Job
	j.Motion, j.Width = cut.Chop, 90
	s := slider
	s.Steel = true
	b := rip24
	b.Diameter, b.Bore, b.Hook = 305, 25.4, 0
	for rpm, want := range map[float64]bool{2495: true, 2515: false} { // 39.8 and 40.2 m/s at 305 mm
		s.RPM = rpm
		said := false
		for _, x := range minds(Request{Job: j, Saw: s}, Candidate{Blade: b}, j, cut.Figures{}) {
			said = said || x.Rule == RuleSpeed
		}
		if said != want {
			t.Errorf("at %v rpm it is said: %v", rpm, said)
		}
	}
}
