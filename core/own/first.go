package own

import (
	"cmp"
	"math"
	"slices"
)

// A Step is a blade that somebody buys next who has none, or only those before.
type Step struct {
	Blade  int
	Undone int     // pieces that still cannot be made with it
	Total  float64 // minutes of what can
	Or     []Step  // what else one could buy in its place, the nearest first
}

// First says which blades to begin with, one at a time: the one that makes most
// of the work, and of those the one with which it takes least; then the one that
// adds most to it. It ends where another would add less than a change is worth.
// Of blades that take nearly as long a plain one goes before the others: the first
// one on a saw is for general work (craft section 14), since the work of a
// beginner is not yet known.
func First(w Work, sold []int, most int, plain func(have []int, blade int) bool) ([]Step, error) {
	if err := w.check(); err != nil {
		return nil, err
	}
	runs := w.runs()
	least := 0.0
	for _, c := range w.Change {
		least = max(least, c)
	}
	var have []int
	var out []Step
	for len(out) < most {
		var all []Step
		for _, b := range sold {
			if !slices.Contains(have, b) {
				all = append(all, w.with(runs, append(slices.Clone(have), b), b))
			}
		}
		slices.SortStableFunc(all, func(a, b Step) int {
			return cmp.Or(cmp.Compare(a.Undone, b.Undone), cmp.Compare(a.Total, b.Total))
		})
		if len(all) == 0 {
			break
		}
		if i := slices.IndexFunc(all, func(s Step) bool {
			return plain(have, s.Blade) && s.Undone == all[0].Undone && s.Total <= nearly*all[0].Total
		}); i > 0 {
			all = append([]Step{all[i]}, slices.Delete(slices.Clone(all), i, i+1)...)
		}
		next := all[0]
		if last := len(out) - 1; last >= 0 && next.Undone == out[last].Undone && out[last].Total-next.Total <= least {
			break
		}
		next.Or = all[1:]
		have, out = append(have, next.Blade), append(out, next)
	}
	return out, nil
}

// nearly is how much longer work may take with a first blade for general work.
const nearly = 1.1

// with is what the work comes to with some blades; what they cannot make is left
// out of its minutes.
func (w Work) with(runs [][]run, blades []int, last int) Step {
	s := Step{Blade: last}
	left := make([][]run, len(runs))
	for i, all := range runs {
		for _, r := range all {
			if slices.ContainsFunc(blades, func(b int) bool { return !math.IsInf(w.Minutes[r.kind][b], 1) }) {
				left[i] = append(left[i], r)
			} else {
				s.Undone += r.pieces
			}
		}
	}
	s.Total = w.sum(left, blades, false).total
	return s
}
