package runsheet

import (
	"math"
	"slices"
)

// cost is what a sheet takes that uses just these blades in each stage;
// infinite where a cut is left over. A blade that no cut takes costs its change
// all the same.
func (s *search) cost(use []bool) float64 {
	total := 0.0
	for c := range s.may {
		_, m := s.quickest(c, use)
		total += m
	}
	for w := range s.rack {
		total += s.changes(w, use)
	}
	return total
}

// quickest is the blade that makes a cut soonest among those that its stage uses.
func (s *search) quickest(c int, use []bool) (int, float64) {
	row := use[s.stage[c]*s.b:]
	for _, m := range s.may[c] {
		s.work++
		if row[m.blade] {
			return m.blade, m.min
		}
	}
	return None, math.Inf(1)
}

// A way is the least that changing takes until a blade is on as a stage ends.
type way struct {
	min  float64
	from int // the place of the way before it
	on   int
}

// walk goes through the stages with a saw: s.ways[k] are its ways before stage
// k. It reports the place of the one that takes least at the end.
func (s *search) walk(w int, use []bool) int {
	s.ways[0] = append(s.ways[0][:0], way{on: s.d.Mounted[w]})
	for k := range s.s {
		row := use[k*s.b : (k+1)*s.b]
		now, n, sum := s.ways[k+1][:0], 0, 0.0
		for _, b := range s.rack[w] {
			if row[b] {
				n++
				sum += s.d.PutOn(b)
			}
		}
		s.work += len(s.rack[w])
		if n == 0 {
			for i, x := range s.ways[k] {
				now = append(now, way{x.min, i, x.on})
			}
		}
		for _, end := range s.rack[w] {
			if !row[end] {
				continue
			}
			least := way{math.Inf(1), -1, end}
			for i, x := range s.ways[k] {
				all := x.min + sum
				if x.on != None && row[x.on] {
					all -= s.d.PutOn(x.on)
					if x.on == end && n > 1 {
						continue // coming back is a change that the next stage can make
					}
				}
				if all < least.min {
					least.min, least.from = all, i
				}
			}
			if least.from >= 0 {
				now = append(now, least)
			}
		}
		s.ways[k+1] = now
	}
	at := 0
	last := s.ways[s.s]
	for i, x := range last {
		if x.min < last[at].min {
			at = i
		}
	}
	return at
}

// changes is the least that the changes of a saw take.
func (s *search) changes(w int, use []bool) float64 { return s.ways[s.s][s.walk(w, use)].min }

// ends is which blade is on a saw as each stage ends, where changing takes least.
func (s *search) ends(w int, use []bool) []int {
	at := s.walk(w, use)
	ends := make([]int, s.s)
	for k := s.s; k > 0; k-- {
		ends[k-1] = s.ways[k][at].on
		at = s.ways[k][at].from
	}
	return ends
}

// mend makes a sheet of what the cheapest ways use, and betters it by one blade
// of one stage at a time, put in, taken out or put in the place of another.
func (s *search) mend() {
	use := slices.Clone(s.used)
	for c := range s.may {
		if b, _ := s.quickest(c, use); b == None {
			use[s.stage[c]*s.b+s.may[c][0].blade] = true
		}
	}
	total := s.cost(use)
	for s.work < mostWork {
		was := total
		for k := range s.s {
			total = s.better(k, use, total)
		}
		if total >= was-hair*(1+was) {
			break
		}
	}
	if total < s.total {
		s.best, s.total = use, total
	}
}

// better tries each blade of a stage, and reports what the sheet then takes. A
// flip can save two changes at most, so most are refused by their minutes alone.
func (s *search) better(k int, use []bool, total float64) float64 {
	row := use[k*s.b : (k+1)*s.b]
	pick := func() {
		for _, c := range s.cuts[k] {
			b, m := s.quickest(c, use)
			s.picked[c] = choice{b, m}
		}
	}
	// more is what the stage's cuts take more with row as it is than as picked.
	more := func(gone, come int) (sum float64) {
		for _, c := range s.cuts[k] {
			s.work++
			if s.picked[c].blade == gone {
				_, m := s.quickest(c, use)
				sum += m - s.picked[c].min
			} else if come != None {
				sum += min(0, s.d.Minutes[c][come]-s.picked[c].min)
			}
		}
		return sum
	}
	try := func(w, gone, come int, was float64) bool { // has flipped them; keeps that where it pays
		now := more(gone, come)
		if now >= s.most[w] {
			return false
		}
		if t := total + now + s.changes(w, use) - was; t < total-hair*(1+total) {
			total = t
			pick()
			return true
		}
		return false
	}
	pick()
	for b := range row {
		w := s.d.Saw[b]
		was := s.changes(w, use)
		if row[b] {
			row[b] = false
			row[b] = !try(w, b, None, was)
		} else {
			row[b] = true
			row[b] = try(w, None, b, was)
		}
		if !row[b] {
			continue
		}
		was = s.changes(w, use)
		for _, other := range s.rack[w] {
			if row[other] {
				continue
			}
			row[b], row[other] = false, true
			if try(w, b, other, was) {
				break
			}
			row[b], row[other] = true, false
		}
	}
	return total
}

// sheet writes the best out.
func (s *search) sheet() Sheet {
	out := Sheet{Blade: make([]int, len(s.may)), BoundMin: s.bound}
	if s.best == nil {
		return out
	}
	use := make([]bool, len(s.best)) // without what no cut takes
	of := map[[2]int][]int{}         // the cuts of a stage and blade
	for c := range s.may {
		b, m := s.quickest(c, s.best)
		out.Blade[c] = b
		out.CutMin += m
		use[s.stage[c]*s.b+b] = true
		of[[2]int{s.stage[c], b}] = append(of[[2]int{s.stage[c], b}], c)
	}
	ends := make([][]int, len(s.rack))
	for w := range s.rack {
		ends[w] = s.ends(w, use)
	}
	on := slices.Clone(s.d.Mounted)
	for k, stage := range s.stages {
		for w := range s.rack {
			for _, b := range s.order(w, k, use, on[w], ends[w][k]) {
				t := Turn{Stage: stage, Saw: w, Blade: b, Changed: b != on[w], Cuts: of[[2]int{k, b}]}
				if t.Changed {
					out.Changes++
					out.ChangesMin += s.d.PutOn(b)
				}
				on[w] = b
				out.Turns = append(out.Turns, t)
			}
		}
	}
	out.BoundMin = min(out.BoundMin, out.TotalMin())
	return out
}

// order is how a stage's blades follow each other on a saw: what is on comes
// first, what is to stay on last.
func (s *search) order(w, k int, use []bool, on, end int) []int {
	var first, mid, last []int
	for _, b := range s.rack[w] {
		switch {
		case !use[k*s.b+b]:
		case b == on:
			first = append(first, b)
		case b == end:
			last = append(last, b)
		default:
			mid = append(mid, b)
		}
	}
	return slices.Concat(first, mid, last)
}
