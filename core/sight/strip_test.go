package sight

import (
	"math/rand/v2"
	"slices"
	"testing"
)

func TestRanked(t *testing.T) {
	r := rand.New(rand.NewPCG(4, 2))
	for range 200 {
		v := make([]float32, 1+r.IntN(40))
		for i := range v {
			v[i] = float32(r.IntN(12)) // many of them alike
		}
		sorted, place := slices.Sorted(slices.Values(v)), r.IntN(len(v))
		if got := ranked(slices.Clone(v), place); got != sorted[place] {
			t.Fatalf("at %d of %v: %g, not %g", place, v, got, sorted[place])
		}
	}
}
