package own

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"
)

// random is a year of a shop: kinds on saws, blades that are good at some.
func random(r *rand.Rand, rows, kinds, saws, blades int) Work {
	w := Work{Change: make([]float64, saws)}
	for s := range w.Change {
		w.Change[s] = float64(1 + r.IntN(5))
	}
	for range kinds {
		m := make([]float64, blades)
		base := 0.4 + 2*r.Float64()
		for b := range m {
			m[b] = base * (0.6 + r.Float64())
			if r.IntN(3) == 0 {
				m[b] = Never
			}
		}
		m[0] = 1.3 * base // one that does anything
		w.Minutes, w.Saw = append(w.Minutes, m), append(w.Saw, r.IntN(saws))
	}
	for range rows {
		w.Rows = append(w.Rows, Row{r.IntN(kinds), 1 + r.IntN(12)})
	}
	return w
}

// brute takes every way through the rows.
func brute(w Work, blades []int) float64 {
	best := math.Inf(1)
	on := make([]int, len(w.Change))
	for s := range on {
		on[s] = -1
	}
	var go_ func(i int, cost float64)
	go_ = func(i int, cost float64) {
		if cost >= best {
			return
		}
		if i == len(w.Rows) {
			best = cost
			return
		}
		r := w.Rows[i]
		s := w.Saw[r.Kind]
		for _, b := range blades {
			m := float64(r.Pieces) * w.Minutes[r.Kind][b]
			if on[s] != -1 && on[s] != b {
				m += w.Change[s]
			}
			was := on[s]
			on[s] = b
			go_(i+1, cost+m)
			on[s] = was
		}
	}
	go_(0, 0)
	return best
}

func TestOneSumDecides(t *testing.T) {
	whole := 0
	for seed := range uint64(300) {
		r := rand.New(rand.NewPCG(seed, 2))
		w := random(r, 3+r.IntN(5), 4, 2, 5)
		for s := range w.Change {
			w.Change[s] = r.Float64()
		}
		owned, sold := []int{0, 1}, []int{2, 3, 4}
		got, err := Weigh(w, owned, sold)
		if err != nil {
			t.Fatal(err)
		}
		base := brute(w, owned)
		if math.Abs(got.Total-base) > 1e-9 {
			t.Fatalf("seed %d: %v, by hand %v", seed, got.Total, base)
		}
		most := func(n int) (best float64) {
			for set := range 1 << len(sold) {
				with := slices.Clone(owned)
				for i, b := range sold {
					if set&(1<<i) != 0 {
						with = append(with, b)
					}
				}
				if len(with) <= len(owned)+n {
					best = max(best, base-brute(w, with))
				}
			}
			return best
		}
		saves := func(p *Purchase, or float64) float64 {
			if p == nil {
				return or
			}
			return p.Saves
		}
		one := 0.0
		if len(got.One) > 0 {
			one = got.One[0].Saves
		}
		two := saves(got.Two, one)
		three := saves(got.Three, two)
		if len(got.One) == len(sold) && got.Three != nil {
			whole++
		}
		for n, have := range map[int]float64{1: one, 2: two, 3: three} {
			// Two are looked for among those that save something by themselves.
			if want := most(n); math.Abs(have-want) > 1e-6 && (n == 1 || len(got.One) == len(sold)) || have > want+1e-6 {
				t.Errorf("seed %d: %d blades save %v, by hand %v", seed, n, have, want)
			}
		}
		for _, p := range got.One {
			cutting := 0.0
			for _, k := range p.Takes {
				cutting += k.Saves
			}
			if p.Saves <= 0 || len(p.Takes) == 0 {
				t.Errorf("seed %d: %+v", seed, p)
			}
		}
	}
	if whole < 5 {
		t.Errorf("three saved more than two in %d years only", whole)
	}
}

func TestWhatIsMissingAndWhatIsIdle(t *testing.T) {
	w := Work{
		Minutes: [][]float64{{1, 2, Never, 0.9}, {Never, Never, Never, 3}, {2, Never, Never, Never}},
		Saw:     []int{0, 0, 0}, Change: []float64{100}, Rows: []Row{{0, 4}, {1, 1}, {2, 1}},
	}
	got, err := Weigh(w, []int{0, 1, 2}, []int{3})
	if err != nil || got.Total != 6 || !slices.Equal(got.Undone, []int{1}) || !slices.Equal(got.NeverBest, []int{1, 2}) || !slices.Equal(got.Alone, []int{0}) {
		t.Fatalf("%+v, %v", got, err)
	}
	if len(got.One) != 0 || got.Two != nil {
		t.Errorf("a change of 100 minutes pays for nothing: %+v", got.One)
	}
	w.Change[0] = 0.1
	if got, err = Weigh(w, []int{0, 1, 2}, []int{3}); err != nil || len(got.One) != 1 || math.Abs(got.One[0].Saves-0.3) > 1e-9 || math.Abs(got.One[0].Changes+0.1) > 1e-9 || got.One[0].Takes[0] != (Taken{Kind: 0, Blade: 3, Pieces: 4, Saves: got.One[0].Takes[0].Saves}) || math.Abs(got.One[0].Takes[0].Saves-0.4) > 1e-9 {
		t.Errorf("%+v, %v", got.One, err)
	}
	w.Could = [][]bool{{true, true, false, true}, {false, false, false, true}, {false, false, false, false}}
	if got, err = Weigh(w, []int{0, 1, 2}, nil); err != nil || len(got.Alone) != 0 {
		t.Errorf("what could stand in does: %v, %v", got.Alone, err)
	}
	if _, err := Weigh(Work{Rows: []Row{{0, 1}}}, nil, nil); err == nil {
		t.Error("a row of no kind passes")
	}
}

func TestPays(t *testing.T) {
	for _, tt := range []struct {
		saves, metres, life, price, sharpening float64
		times                                  int
		hour, year, spent, after               float64
	}{
		// 10 hours at 30; one edge a year of a blade of 100 that is sharpened four times at 20.
		{600, 400, 400, 100, 20, 4, 30, 300, 36, 100.0 / (300 - 16)},
		// It saves nothing.
		{0, 400, 400, 100, 20, 4, 30, 0, 36, math.Inf(1)},
		// Its sharpenings alone cost more than it saves.
		{6, 4000, 400, 100, 20, 4, 30, 3, 360, math.Inf(1)},
		// Nobody knows how long it lasts.
		{600, 400, 0, 100, 20, 4, 30, 300, 0, 100.0 / 300},
	} {
		p := Pays(tt.saves, tt.metres, tt.life, tt.price, tt.sharpening, tt.times, tt.hour)
		near := func(a, b float64) bool { return a == b || math.Abs(a-b) < 1e-9 }
		if !near(p.Year, tt.year) || !near(p.Spent, tt.spent) || !near(p.After(), tt.after) {
			t.Errorf("%+v: %+v", tt, p)
		}
		if both := p.And(p); !near(both.After(), p.After()) || !near(both.Spent, 2*p.Spent) {
			t.Errorf("twice %+v is %+v", p, both)
		}
	}
}

func BenchmarkYear(b *testing.B) {
	w := random(rand.New(rand.NewPCG(1, 2)), 20_000, 200, 4, 22+15)
	var owned, sold []int
	for i := range 37 {
		if i < 22 {
			owned = append(owned, i)
		} else {
			sold = append(sold, i)
		}
	}
	for b.Loop() {
		if _, err := Weigh(w, owned, sold); err != nil {
			b.Fatal(err)
		}
	}
}

func TestFirstBlades(t *testing.T) {
	w := Work{
		// a general blade does all, a rip blade halves the rips, a fine one is all that cuts melamine
		Minutes: [][]float64{{2, 1, Never, 2.2}, {1, Never, 0.9, 1}, {Never, Never, 3, Never}},
		Saw:     []int{0, 0, 0}, Change: []float64{3}, Rows: []Row{{0, 20}, {1, 30}, {2, 2}},
	}
	none := func([]int, int) bool { return false }
	steps, err := First(w, []int{0, 1, 2, 3}, 4, none)
	if err != nil || len(steps) != 3 {
		t.Fatalf("%+v, %v", steps, err)
	}
	for i, want := range []Step{{Blade: 0, Undone: 2, Total: 70}, {Blade: 2, Undone: 0, Total: 70 + 6 - 3 + 3}, {Blade: 1, Undone: 0, Total: 20 + 3 + 27 + 6}} {
		if got := steps[i]; got.Blade != want.Blade || got.Undone != want.Undone || math.Abs(got.Total-want.Total) > 1e-9 {
			t.Errorf("step %d: %+v, want %+v", i+1, got, want)
		}
	}
	if len(steps[0].Or) != 3 || steps[0].Or[0].Blade != 3 || steps[0].Or[0].Total != 74 {
		t.Errorf("or %+v", steps[0].Or)
	}
	// 74 minutes are nearly 70; a third more is not.
	for change, want := range map[float64]int{2.2: 3, 2.4: 0} {
		w.Minutes[0][3] = change
		if steps, err = First(w, []int{0, 1, 2, 3}, 1, func(have []int, b int) bool { return len(have) == 0 && b == 3 }); err != nil || steps[0].Blade != want || len(steps[0].Or) != 3 {
			t.Errorf("%v: %+v, %v", change, steps, err)
		}
	}
	if steps, err = First(w, []int{0, 1}, 1, none); err != nil || len(steps) != 1 {
		t.Errorf("%+v, %v", steps, err)
	}
}
