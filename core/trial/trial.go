// Package trial compares settings on one board: which differ in what, in which
// order they are cut and graded so that nobody knows what is hoped for, and
// how sure the difference is. Craft section 8: one change at a time, recorded
// and not remembered.
package trial

import (
	"corte/core/fault"
	"corte/core/say"
	"math"
	"math/bits"
	"math/rand/v2"
)

// A Setting is one way to make the cut.
type Setting struct {
	Blade   string  // its name or id
	Height  float64 // mm; 0 for a chop
	Support string  // at the exit
	Feed    float64 // m/min; 0 if left to the hand
}

// Differ names what differs among the settings: blade, height, support, feed.
func Differ(all []Setting) say.And {
	var out say.And
	for _, f := range []struct {
		name string
		same func(a, b Setting) bool
	}{
		{"blade", func(a, b Setting) bool { return a.Blade == b.Blade }},
		{"height", func(a, b Setting) bool { return math.Abs(a.Height-b.Height) < 0.05 }},
		{"insert or backer", func(a, b Setting) bool { return a.Support == b.Support }},
		{"feed", func(a, b Setting) bool { return math.Abs(a.Feed-b.Feed) < 0.01 }},
	} {
		for _, s := range all {
			if !f.same(s, all[0]) {
				out = append(out, say.Word(f.name))
				break
			}
		}
	}
	return out
}

// The least and most that a session may hold. Twenty runs of two settings keep
// the exact test at 184,756 shares.
const (
	LeastSettings, MostSettings = 2, 4
	LeastRepeats, MostRepeats   = 1, 10
)

// Check refuses a session that could show nothing. note says where more than
// one thing was changed, so that a difference could come from either.
func Check(all []Setting, repeats int) (note say.Line, err error) {
	switch {
	case len(all) < LeastSettings || len(all) > MostSettings:
		return say.Line{}, fault.At("settings", "compare %d to %d settings", LeastSettings, MostSettings)
	case repeats < LeastRepeats || repeats > MostRepeats:
		return say.Line{}, fault.At("repeats", "cut each setting %d to %d times", LeastRepeats, MostRepeats)
	}
	for i, a := range all {
		for k, b := range all[:i] {
			if len(Differ([]Setting{a, b})) == 0 {
				return say.Line{}, fault.At("settings", "settings %c and %c are the same: change one thing", 'A'+k, 'A'+i)
			}
			if d := Differ([]Setting{a, b}); len(d) > 1 {
				note = say.Of("Between %c and %c, %s changed at once, so a difference may come from either", 'A'+k, 'A'+i, d)
			}
		}
	}
	return note, nil
}

// Order shuffles every setting's repeats, by a seed that is kept with the
// session. It names the setting of each run.
func Order(settings, repeats int, seed uint64) []int {
	out := make([]int, 0, settings*repeats)
	for range repeats {
		for s := range settings {
			out = append(out, s)
		}
	}
	rand.New(rand.NewPCG(seed, 0)).Shuffle(len(out), func(i, k int) { out[i], out[k] = out[k], out[i] })
	return out
}

// Compare tests one measure, lower is better, of two settings by the exact
// permutation test: of all the ways to share the pieces between them, how many
// show a difference at least as large?
func Compare(a, b []float64) (mean, chance float64) {
	n, all := len(a), append(append([]float64(nil), a...), b...)
	if n == 0 || len(b) == 0 || len(all) > 24 {
		return math.NaN(), 1
	}
	var total float64
	for _, v := range all {
		total += v
	}
	diff := func(first float64) float64 { return (total-first)/float64(len(b)) - first/float64(n) }
	var first float64
	for _, v := range a {
		first += v
	}
	mean = diff(first)
	ways, extreme := 0, 0
	for set := uint(0); set < 1<<len(all); set++ {
		if bits.OnesCount(set) != n {
			continue
		}
		ways++
		var sum float64
		for m := set; m != 0; m &= m - 1 {
			sum += all[bits.TrailingZeros(m)]
		}
		if math.Abs(diff(sum)) >= math.Abs(mean)-1e-9 {
			extreme++
		}
	}
	return mean, float64(extreme) / float64(ways)
}

// Likely is the chance up to which a difference is worth saying; our judgement,
// as is 0.05 for sure.
const Likely = 0.15

// Sure puts a chance into words.
func Sure(chance float64, pieces int) say.Line {
	switch {
	case chance <= 0.05:
		return say.Of("sure: luck alone does this in one of %.0f", oneIn(chance))
	case chance <= Likely:
		return say.Of("likely: luck alone does this in one of %.0f", oneIn(chance))
	case pieces < 8:
		return say.Of("no difference shown; more repeats would tell")
	}
	return say.Of("no difference shown; if there is one, it is small")
}

func oneIn(p float64) float64 { return math.Floor(1 / p) }
