package groove

import (
	"math"
	"math/rand/v2"
	"testing"

	"corte/core/blade"
	"corte/core/measure"
)

// brute tries every count of every part.
func brute(target, outer, tolerance measure.Length, parts []Part) Stack {
	var best Stack
	better := func(a, b Stack) bool {
		off := func(s Stack) float64 { return math.Abs(s.Error.Mm()) }
		in := func(s Stack) bool { return off(s) <= tolerance.Mm()+1e-9 }
		switch {
		case b.Counts == nil:
			return true
		case in(a) != in(b):
			return in(a)
		case !in(a):
			return off(a) < off(b)-1e-9
		case a.Shims != b.Shims:
			return a.Shims < b.Shims
		case a.Parts != b.Parts:
			return a.Parts < b.Parts
		}
		return off(a) < off(b)-1e-9
	}
	counts := make([]int, len(parts))
	var try func(k int)
	try = func(k int) {
		if k == len(parts) {
			s := Stack{Counts: append([]int(nil), counts...), Width: outer}
			for i, n := range counts {
				s.Width += parts[i].Thickness * measure.Length(n)
				s.Parts += n
				if parts[i].Shim {
					s.Shims += n
				}
			}
			s.Error = s.Width - target
			if better(s, best) {
				best = s
			}
			return
		}
		for counts[k] = 0; counts[k] <= parts[k].Count; counts[k]++ {
			try(k + 1)
		}
		counts[k] = 0
	}
	try(0)
	return best
}

func TestSearchIsExact(t *testing.T) {
	dice := rand.New(rand.NewPCG(12, 7))
	sizes := []measure.Length{3.2, 2.4, 1.6, 0.8, 0.5, 0.4, 0.25, 0.2, 0.1, 0.05}
	for range 400 {
		var parts []Part
		all := measure.Length(6.4)
		for range 2 + dice.IntN(4) {
			p := Part{sizes[dice.IntN(len(sizes))] + micron*measure.Length(dice.IntN(21)-10), dice.IntN(4), false}
			p.Shim = p.Thickness < 0.7
			parts = append(parts, p)
			all += p.Thickness * measure.Length(p.Count)
		}
		target := measure.Length(math.Round(1000*(6.4+(all.Mm()-6.4)*dice.Float64()))) * micron
		tolerance := micron * measure.Length(dice.IntN(80))
		want := brute(target, 6.4, tolerance, parts)
		got, err := Search(target, 6.4, tolerance, parts)
		if err != nil || got.Shims != want.Shims || got.Parts != want.Parts || math.Abs(math.Abs(got.Error.Mm())-math.Abs(want.Error.Mm())) > 1e-9 {
			t.Fatalf("%v within %v of %+v: got %+v, %v; want %+v", target, tolerance, parts, got, err, want)
		}
	}
	parts := []Part{{3.2, 1, false}}
	for target, ok := range map[measure.Length]bool{5: false, 6.4: true, 9.6: true, 12: false, -1: false, measure.Length(math.NaN()): false} {
		if _, err := Search(target, 6.4, 0.05, parts); (err == nil) != ok {
			t.Errorf("%v: %v", target, err)
		}
	}
}

func TestPasses(t *testing.T) {
	if n, step, err := Passes(18.51, 3.2, 0.4); err != nil || n != 7 || math.Abs(step.Mm()-2.55167) > 1e-5 {
		t.Errorf("%d passes of %v, %v", n, step, err)
	}
	if n, _, err := Passes(3.2, 3.2, 0.4); err != nil || n != 1 {
		t.Errorf("a groove as wide as the kerf takes %d, %v", n, err)
	}
	for _, bad := range [][3]measure.Length{{3, 3.2, 0}, {10, 3.2, 3.2}, {10, 0, 0}} {
		if _, _, err := Passes(bad[0], bad[1], bad[2]); err == nil {
			t.Errorf("%v is let pass", bad)
		}
	}
}

// Passes cover a groove from wall to wall, leave no fin and go no further.
func TestPassesCoverTheGroove(t *testing.T) {
	dice := rand.New(rand.NewPCG(7, 11))
	for range 300 {
		kerf := measure.Length(1.6 + 3*dice.Float64())
		width := kerf + measure.Length(20*dice.Float64())
		edge, depth := measure.Length(200*dice.Float64()), measure.Length(2+10*dice.Float64())
		passes, err := Stepped(edge, width, kerf, depth)
		if err != nil {
			t.Fatal(err)
		}
		first, last := passes[0], passes[len(passes)-1]
		if first.Fence != edge || math.Abs((last.Fence+kerf-edge-width).Mm()) > 1e-9 || math.Abs((first.Centre-kerf/2+width/2).Mm()) > 1e-9 {
			t.Fatalf("%v wide with %v: first %+v, last %+v", width, kerf, first, last)
		}
		for i := 1; i < len(passes); i++ {
			if over := kerf - (passes[i].Fence - passes[i-1].Fence); over < Overlap-1e-9 {
				t.Errorf("%v wide with %v: pass %d takes only %v of the one before", width, kerf, i+1, over)
			}
		}
		for _, b := range []blade.Blade{{Grind: blade.FTG, Kerf: kerf}, {Grind: blade.ATB, Kerf: kerf, Bevel: 15}} {
			for _, at := range BottomOf(b, width, passes, 201) {
				if at[1] < 0 || at[1] > Ridge(b)+1e-9 {
					t.Fatalf("%v in %v passes of %v leaves %v at %v", b.Grind, len(passes), kerf, at[1], at[0])
				}
			}
		}
	}
}

// Kerfs of a fold close to the bend that was asked for, with wood between them.
func TestFoldsCloseToTheirBend(t *testing.T) {
	dice := rand.New(rand.NewPCG(5, 5))
	folds := 0
	for range 400 {
		sheet := measure.Length(4 + 20*dice.Float64())
		skin, radius, deg := UsualSkin(sheet), sheet*measure.Length(1.2+20*dice.Float64()), 10+170*dice.Float64()
		f, err := FoldOf(sheet, skin, 3.2, radius, deg)
		if err != nil {
			continue
		}
		folds++
		if turn := f.Closes * float64(f.Kerfs); turn < deg-1e-6 || turn >= deg+f.Closes {
			t.Errorf("%d kerfs of %v° for %v°", f.Kerfs, f.Closes, deg)
		}
		if f.Spacing <= 3.7 || math.Abs((f.Spacing*measure.Length(f.Kerfs)-(radius-skin/2)*measure.Length(deg*math.Pi/180)).Mm()) > 1e-6 {
			t.Errorf("%d kerfs %v apart bend %v to a radius of %v", f.Kerfs, f.Spacing, sheet, radius)
		}
	}
	if folds < 200 {
		t.Errorf("only %d bends of 400 can be cut", folds)
	}
}

func BenchmarkSearch(b *testing.B) {
	var parts []Part
	for i, t := range []measure.Length{6.4, 4.8, 3.2, 2.4, 1.6, 0.8, 0.5, 0.4, 0.25, 0.2, 0.1, 0.05} {
		parts = append(parts, Part{t, 6, i > 5})
	}
	for b.Loop() {
		if _, err := Search(18.27, 6.4, 0.05, parts); err != nil {
			b.Fatal(err)
		}
	}
}
