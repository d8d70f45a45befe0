package runsheet

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"testing"
)

// random is a small day, or a large one, with a shape that shops have: saws
// that may not make some cuts, blades that are good at a kind of cut.
func random(r *rand.Rand, cuts, saws, blades, stages int) Day {
	d := Day{
		Minutes: make([][]float64, cuts), Stage: make([]int, cuts),
		Saw: make([]int, blades), Mounted: make([]int, saws), ChangeMin: make([]float64, saws),
	}
	for b := range d.Saw {
		d.Saw[b] = r.IntN(saws)
		if b < saws {
			d.Saw[b] = b
		}
	}
	for w := range saws {
		d.ChangeMin[w] = float64(r.IntN(16)) / 2
		d.Mounted[w] = None
		if r.IntN(4) > 0 {
			for _, b := range r.Perm(blades) {
				if d.Saw[b] == w {
					d.Mounted[w] = b
					break
				}
			}
		}
	}
	for c := range cuts {
		d.Stage[c] = 1 + r.IntN(stages)
		d.Minutes[c] = make([]float64, blades)
		base := 0.5 + 10*r.Float64()
		for b := range blades {
			d.Minutes[c][b] = base * (0.6 + r.Float64())
			if r.IntN(3) == 0 {
				d.Minutes[c][b] = Never
			}
		}
		d.Minutes[c][r.IntN(blades)] = base
	}
	return d
}

func extra(d Day, b int) float64 {
	if d.Extra == nil {
		return 0
	}
	return d.Extra[b]
}

// addUp adds a sheet up by itself, and fails where it is none.
func addUp(t *testing.T, d Day, s Sheet) float64 {
	t.Helper()
	total, stage, on := 0.0, 0, slices.Clone(d.Mounted)
	made := make([]int, len(d.Minutes))
	for _, turn := range s.Turns {
		if turn.Stage < stage || d.Saw[turn.Blade] != turn.Saw || len(turn.Cuts) == 0 {
			t.Fatalf("turn %+v cannot be", turn)
		}
		stage = turn.Stage
		if turn.Changed != (on[turn.Saw] != turn.Blade) {
			t.Errorf("turn %+v over %d: changed or not?", turn, on[turn.Saw])
		}
		if turn.Changed {
			total += d.ChangeMin[turn.Saw] + extra(d, turn.Blade)
		}
		on[turn.Saw] = turn.Blade
		for _, c := range turn.Cuts {
			if d.Stage[c] != stage || s.Blade[c] != turn.Blade {
				t.Errorf("cut %d stands in turn %+v", c, turn)
			}
			made[c]++
			total += d.Minutes[c][turn.Blade]
		}
	}
	for c, n := range made {
		if n != 1 {
			t.Errorf("cut %d is made %d times", c, n)
		}
	}
	if math.Abs(total-s.TotalMin()) > 1e-6 {
		t.Errorf("says %v, comes to %v", s.TotalMin(), total)
	}
	return total
}

// brute tries every order: the blade of each saw, cut by cut and stage by stage.
func brute(d Day) float64 {
	stages := stagesOf(d)
	type key string
	memo := map[key]float64{}
	var from func(k int, done uint, on []int) float64
	from = func(k int, done uint, on []int) float64 {
		left := false
		for c, s := range d.Stage {
			left = left || s == stages[k] && done&(1<<c) == 0
		}
		if !left {
			if k+1 == len(stages) {
				return 0
			}
			return from(k+1, done, on)
		}
		at := key(fmt.Sprint(k, done, on))
		if v, ok := memo[at]; ok {
			return v
		}
		least := math.Inf(1)
		for c, s := range d.Stage {
			if s != stages[k] || done&(1<<c) != 0 {
				continue
			}
			for b, m := range d.Minutes[c] {
				if math.IsInf(m, 1) {
					continue
				}
				w, was := d.Saw[b], on[d.Saw[b]]
				if was != b {
					m += d.ChangeMin[w] + extra(d, b)
				}
				on[w] = b
				least = min(least, m+from(k, done|1<<c, on))
				on[w] = was
			}
		}
		memo[at] = least
		return least
	}
	return from(0, 0, slices.Clone(d.Mounted))
}

func TestSmallDaysAreTheShortestThereAre(t *testing.T) {
	for seed := range uint64(400) {
		r := rand.New(rand.NewPCG(seed, 14))
		d := random(r, 1+r.IntN(7), 1+r.IntN(3), 3+r.IntN(4), 1+r.IntN(3))
		if seed%2 == 0 { // a blade or two are stacks
			d.Extra = make([]float64, len(d.Saw))
			for b := range d.Extra {
				d.Extra[b] = float64(r.IntN(3)) * 4 * r.Float64()
			}
		}
		s, err := Plan(d)
		if err != nil {
			t.Fatal(seed, err)
		}
		total, want := addUp(t, d, s), brute(d)
		if math.Abs(total-want) > 1e-6 || !s.Exact() || s.BoundMin > want+1e-6 {
			t.Errorf("seed %d: %v minutes, bound %v; the shortest takes %v", seed, total, s.BoundMin, want)
		}
	}
}

func TestLargeDaysSayHowFarOffTheyCanBe(t *testing.T) {
	for seed := range uint64(4) {
		d := random(rand.New(rand.NewPCG(seed, 3)), 120, 3, 40, 4)
		s, err := Plan(d)
		if err != nil {
			t.Fatal(err)
		}
		total := addUp(t, d, s)
		if s.BoundMin > total || s.Gap() > 0.03 || math.Abs(s.Gap()-(total-s.BoundMin)/total) > 1e-9 {
			t.Errorf("seed %d: %v minutes over a bound of %v", seed, total, s.BoundMin)
		}
	}
}

func BenchmarkSixtyCuts(b *testing.B)   { bench(b, 60, 3, 22, 4) }
func BenchmarkFiveHundred(b *testing.B) { bench(b, 500, 5, 200, 5) }

func bench(b *testing.B, cuts, saws, blades, stages int) {
	var gap float64
	for i := 0; b.Loop(); i++ {
		s, err := Plan(random(rand.New(rand.NewPCG(uint64(i%8), 7)), cuts, saws, blades, stages))
		if err != nil {
			b.Fatal(err)
		}
		gap = max(gap, s.Gap())
	}
	b.ReportMetric(100*gap, "gap-%")
}

func TestTheClock(t *testing.T) {
	// Three saws in one stage of 8, 5 and 4 minutes, and one cut after them.
	d := Day{
		Minutes: [][]float64{{8, Never, Never}, {Never, 5, Never}, {Never, Never, 1}, {2, Never, Never}},
		Saw:     []int{0, 1, 2}, Mounted: []int{0, 1, None}, ChangeMin: []float64{3, 3, 3}, Stage: []int{1, 1, 1, 2},
	}
	s, err := Plan(d)
	if err != nil {
		t.Fatal(err)
	}
	for people, want := range map[int]struct {
		end    float64
		begins []float64
	}{1: {19, []float64{0, 8, 13, 17}}, 2: {11, []float64{0, 0, 5, 9}}, 3: {10, []float64{0, 0, 0, 8}}} {
		slots, end := s.Clock(d, people)
		var begins []float64
		for i, x := range slots {
			begins = append(begins, x.Begin)
			if x.Turn != i || (x.CutsFrom > x.Begin) != s.Turns[i].Changed || x.Person >= people {
				t.Errorf("%d people: slot %+v of %+v", people, x, s.Turns[i])
			}
		}
		if end != want.end || !slices.Equal(begins, want.begins) {
			t.Errorf("%d people: done at %v, turns from %v; want %+v", people, end, begins, want)
		}
	}
}

func TestWhatCannotBePlanned(t *testing.T) {
	good := func() Day {
		return Day{Minutes: [][]float64{{1, 2}}, Saw: []int{0, 0}, Mounted: []int{1}, ChangeMin: []float64{2}, Stage: []int{1}}
	}
	for want, spoil := range map[string]func(*Day){
		"no blade may make this cut":                                      func(d *Day) { d.Minutes[0] = []float64{Never, Never} },
		"putting a blade on takes 0 minutes or more":                      func(d *Day) { d.Extra = []float64{1, -1} },
		"every blade has extra minutes, or none has: 2 blades, 1 said":    func(d *Day) { d.Extra = []float64{1} },
		"stages count from 1":                                             func(d *Day) { d.Stage[0] = 0 },
		"every cut has minutes for each blade, or none: 2 blades, 1 said": func(d *Day) { d.Minutes[0] = []float64{1} },
		"there is no saw 1":                                               func(d *Day) { d.Saw[1] = 1 },
		"blade 2 is not one of this saw's":                                func(d *Day) { d.Mounted[0] = 2 },
		"a cut takes 0 minutes or more":                                   func(d *Day) { d.Minutes[0][0] = math.NaN() },
		"a change takes 0 minutes or more":                                func(d *Day) { d.ChangeMin[0] = -1 },
		"every cut stands in a stage: 1 cuts, 0 stages said":              func(d *Day) { d.Stage = nil },
	} {
		d := good()
		spoil(&d)
		if _, err := Plan(d); err == nil || err.Error() != want {
			t.Errorf("%v, want %q", err, want)
		}
	}
	if s, err := Plan(good()); err != nil || s.TotalMin() != 2 {
		t.Errorf("%+v, %v", s, err)
	}
	if s, err := Plan(Day{}); err != nil || s.TotalMin() != 0 || !s.Exact() {
		t.Errorf("no cuts: %+v, %v", s, err)
	}
}
