package groove

import (
	"math"

	"corte/core/fault"
	"corte/core/measure"
	"corte/core/say"
)

// A Part is one kind of chipper or shim that is owned, and how many.
type Part struct {
	Thickness measure.Length
	Count     int
	Shim      bool
}

// what is the part's name.
func (p Part) what() say.Line {
	if p.Shim {
		return say.Of("shim")
	}
	return say.Of("chipper")
}

// some is so many of a part.
func (p Part) some(n int) say.Line {
	switch {
	case p.Shim && n == 1:
		return say.Of("a shim")
	case p.Shim:
		return say.Of("%d shims", n)
	case n == 1:
		return say.Of("a chipper")
	}
	return say.Of("%d chippers", n)
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
		return Stack{}, fault.At("width", "a groove is at most %s wide, and so is the outer pair", widest)
	case len(parts) > mostKinds:
		return Stack{}, fault.At("width", "at most %d kinds of part", mostKinds)
	case target < outer-tolerance:
		return Stack{}, fault.At("width", "%s is less than the outer pair alone, %s. Cut it in passes with a single blade", say.Thin(target), say.Thin(outer))
	}
	all := outer
	for _, p := range parts {
		if !(p.Thickness > 0 && p.Thickness <= widest) || p.Count < 0 || p.Count > 99 {
			return Stack{}, fault.At("width", "a part has a thickness over 0 and a count up to 99")
		}
		all += p.Thickness * measure.Length(p.Count)
	}
	if target > all+tolerance {
		return Stack{}, fault.At("width", "%s is wider than all parts together, %s. Make two cuts, or use more chippers", say.Thin(target), say.Thin(all))
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
