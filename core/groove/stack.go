package groove

import (
	"fmt"
	"math"

	"corte/core/measure"
)

// A Part is one kind of chipper or shim that is owned, and how many.
type Part struct {
	Thickness measure.Length
	Count     int
	Shim      bool
}

// A Stack is how many of each kind go between the outer blades.
type Stack struct {
	Counts []int // in the order of the parts
	Width  measure.Length
	Error  measure.Length // of the width, over the target
	Shims  int
	Parts  int // chippers and shims, without the outer pair
}

// micron is the step in which widths are told apart; no caliper in a shop
// tells less.
const micron = measure.Length(0.001)

const (
	mostKinds = 20
	widest    = measure.Length(60)
)

// Search finds the stack for a width, exactly, over all that the owned parts
// allow: of the stacks within the tolerance the one with fewest shims, then
// fewest parts, then least error; where none is within it, the one of least
// error. The error says why no stack comes near: a target under the outer pair,
// or over all parts together.
func Search(target, outer, tolerance measure.Length, parts []Part) (Stack, error) {
	switch {
	case !(target > 0 && target <= widest) || !(outer > 0 && outer <= widest) || !(tolerance >= 0 && tolerance <= 5):
		return Stack{}, fmt.Errorf("a groove is at most %v wide, and so is the outer pair", widest)
	case len(parts) > mostKinds:
		return Stack{}, fmt.Errorf("at most %d kinds of part", mostKinds)
	case target < outer-tolerance:
		return Stack{}, fmt.Errorf("%v is less than the outer pair alone, %v: cut it in passes with a single blade", target, outer)
	}
	all := outer
	for _, p := range parts {
		if !(p.Thickness > 0 && p.Thickness <= widest) || p.Count < 0 || p.Count > 99 {
			return Stack{}, fmt.Errorf("a part has a thickness over 0 and a count up to 99")
		}
		all += p.Thickness * measure.Length(p.Count)
	}
	if target > all+tolerance {
		return Stack{}, fmt.Errorf("%v is wider than all parts together, %v: take two cuts, or more chippers", target, all)
	}
	// The outer pair alone misses by target-outer; what overshoots by more cannot win.
	room := min(steps(all-outer), 2*max(0, steps(target-outer))+steps(tolerance))
	return search(target, outer, tolerance, parts, room), nil
}

func steps(l measure.Length) int { return int(math.Round(float64(l / micron))) }

// A cost is what is least wanted first: shims, then parts. It fits one number.
type cost int32

const (
	shimCost cost = 1 << 12
	never    cost = math.MaxInt32 / 2
)

// search is a bounded knapsack over widths in microns: for every width that can
// be made, the cheapest way to make it. Costs add up, so the cheapest way to a
// width is the cheapest way to what is left of it and one part more.
func search(target, outer, tolerance measure.Length, parts []Part, room int) Stack {
	best := make([]cost, room+1)
	for i := range best {
		best[i] = never
	}
	best[0] = 0
	used := make([][]uint8, len(parts)) // of each kind, at every width
	for k, p := range parts {
		used[k] = make([]uint8, room+1)
		t, c := steps(p.Thickness), cost(1)
		if p.Shim {
			c += shimCost
		}
		if t == 0 || t > room {
			continue
		}
		// From wide to narrow, so that what is taken from is still without this kind.
		for w := room; w >= t; w-- {
			for n := 1; n <= p.Count && n*t <= w; n++ {
				if with := best[w-n*t] + cost(n)*c; with < best[w] {
					best[w], used[k][w] = with, uint8(n)
				}
			}
		}
	}
	want, near := target-outer, steps(tolerance)
	at, found := -1, false
	off := func(w int) int { return max(w-steps(want), steps(want)-w) }
	for w, c := range best {
		if c >= never {
			continue
		}
		within := off(w) <= near
		switch {
		case at < 0, within && !found:
		case found && !within:
			continue
		case found && (c > best[at] || c == best[at] && off(w) >= off(at)):
			continue
		case !found && (off(w) > off(at) || off(w) == off(at) && c >= best[at]):
			continue
		}
		at, found = w, found || within
	}
	s := Stack{Counts: make([]int, len(parts)), Width: outer}
	for k := len(parts) - 1; k >= 0; k-- {
		n := int(used[k][at])
		s.Counts[k] = n
		s.Parts += n
		if parts[k].Shim {
			s.Shims += n
		}
		s.Width += parts[k].Thickness * measure.Length(n)
		at -= n * steps(parts[k].Thickness)
	}
	s.Error = s.Width - target
	return s
}

// Passes is how a groove is cut with one blade: so many passes, the fence moved
// by a step between them, each overlapping the one before. Model section 11.
func Passes(width, kerf, overlap measure.Length) (passes int, step measure.Length, err error) {
	switch {
	case !(kerf > 0) || !(width >= kerf):
		return 0, 0, fmt.Errorf("a groove of %v is narrower than the kerf of %v", width, kerf)
	case !(overlap >= 0) || overlap >= kerf:
		return 0, 0, fmt.Errorf("an overlap of %v leaves nothing of a kerf of %v", overlap, kerf)
	case width == kerf:
		return 1, 0, nil
	}
	passes = int(math.Ceil(float64((width-kerf)/(kerf-overlap))-1e-9)) + 1
	return passes, (width - kerf) / measure.Length(passes-1), nil
}

const (
	partSD    = 0.03 // mm, of a part's true thickness about its nominal one
	measureSD = 0.02 // mm, of a groove that is measured
)

// A Set is what is held of the true thickness of every part: errors over the
// nominal ones, jointly normal. The outer pair is part 0.
type Set struct {
	Mean []float64   // mm
	Cov  [][]float64 // mm²
}

// NewSet is a set of n kinds, the outer pair among them, of which no groove has
// been measured yet.
func NewSet(n int) Set {
	s := Set{make([]float64, n), make([][]float64, n)}
	for i := range s.Cov {
		s.Cov[i] = make([]float64, n)
		s.Cov[i][i] = partSD * partSD
	}
	return s
}

// Measured takes in a test groove: how many of each part were in the stack, the
// width that they should have made, and the width that was measured. It is the
// linear-Gaussian update; the set that it is called on stays as it is.
func (s Set) Measured(counts []int, nominal, found measure.Length) Set {
	n := len(s.Mean)
	gain := make([]float64, n)
	variance, residual := measureSD*measureSD, (found - nominal).Mm()
	for i := range n {
		for k := range n {
			gain[i] += s.Cov[i][k] * float64(counts[k])
		}
		variance += gain[i] * float64(counts[i])
		residual -= s.Mean[i] * float64(counts[i])
	}
	out := Set{make([]float64, n), make([][]float64, n)}
	for i := range n {
		out.Mean[i] = s.Mean[i] + gain[i]*residual/variance
		out.Cov[i] = make([]float64, n)
		for k := range n {
			out.Cov[i][k] = s.Cov[i][k] - gain[i]*gain[k]/variance
		}
	}
	return out
}

// SD is how well a part's thickness is known.
func (s Set) SD(part int) measure.Length {
	return measure.Length(math.Sqrt(max(0, s.Cov[part][part])))
}

// Renewed forgets what was learnt of a part that was sharpened or replaced.
func (s Set) Renewed(part int) Set {
	out := NewSet(len(s.Mean))
	for i := range s.Mean {
		for k := range s.Mean {
			if i != part && k != part {
				out.Cov[i][k] = s.Cov[i][k]
			}
		}
		if i != part {
			out.Mean[i] = s.Mean[i]
		}
	}
	return out
}
