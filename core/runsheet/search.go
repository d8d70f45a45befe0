package runsheet

import (
	"cmp"
	"math"
	"slices"
)

// Whether a stage must, must not or may use a blade.
const (
	free int8 = iota
	in
	out
)

// mostWork is how many small steps a search may take: well under a second.
// Counting steps, not seconds, gives the same sheet on every machine.
const mostWork = 90_000_000

// A choice is a blade that may make a cut, and in how many minutes.
type choice struct {
	blade int
	min   float64
}

// A search looks for the sheet. Places in tables are [stage*blades+blade].
type search struct {
	d      Day
	stages []int
	cuts   [][]int    // of each stage
	stage  []int      // of each cut, as a place in stages
	may    [][]choice // of each cut, quickest first
	rack   [][]int    // blades of each saw
	b, s   int        // how many blades, how many stages

	best  []bool  // what each stage of the best sheet uses
	total float64 // of the best sheet
	bound float64 // that nothing can beat
	work  int     // steps taken

	gain   []float64 // what a blade saves over the prices of a stage's cuts
	used   []bool    // by the cheapest ways at the prices
	to     [][]float64
	share  []float64 // how often a blade was used lately
	ways   [][]way   // see walk
	picked []choice  // see better
	most   []float64 // of each saw: more than a flip can save of changes
}

func newSearch(d Day) *search {
	s := &search{d: d, stages: stagesOf(d), b: len(d.Saw), rack: make([][]int, len(d.Mounted))}
	s.s = len(s.stages)
	s.cuts = make([][]int, s.s)
	s.stage = make([]int, len(d.Minutes))
	s.may = make([][]choice, len(d.Minutes))
	for i, row := range d.Minutes {
		at, _ := slices.BinarySearch(s.stages, d.Stage[i])
		s.stage[i] = at
		s.cuts[at] = append(s.cuts[at], i)
		for b, m := range row {
			if !math.IsInf(m, 1) {
				s.may[i] = append(s.may[i], choice{b, m})
			}
		}
		slices.SortStableFunc(s.may[i], func(x, y choice) int { return cmp.Compare(x.min, y.min) })
	}
	for b, w := range d.Saw {
		s.rack[w] = append(s.rack[w], b)
	}
	n := s.s * s.b
	s.gain, s.used, s.share = make([]float64, n), make([]bool, n), make([]float64, n)
	s.to = make([][]float64, s.s+1)
	for i := range s.to {
		s.to[i] = make([]float64, s.b+1)
	}
	s.picked = make([]choice, len(s.may))
	s.most = make([]float64, len(s.rack))
	for b, w := range d.Saw {
		s.most[w] = max(s.most[w], 2*d.PutOn(b))
	}
	s.ways = make([][]way, s.s+1)
	s.total = math.Inf(1)
	return s
}

// A node is a part of the search: what is settled, the prices to begin with,
// and what nothing in it can beat.
type node struct {
	fix   []int8
	price []float64
	bound float64
}

// run searches until bound and sheet meet, or the work is done. The most
// promising part is looked into first.
func (s *search) run() {
	if len(s.d.Minutes) == 0 {
		s.best, s.total, s.bound = nil, 0, 0
		return
	}
	root := node{fix: make([]int8, s.s*s.b), price: make([]float64, len(s.may))}
	useful := make([]bool, s.s*s.b)
	for c, may := range s.may {
		second := may[min(1, len(may)-1)].min
		root.price[c] = max(second, may[0].min) + 0.01
		for _, m := range may {
			useful[s.stage[c]*s.b+m.blade] = true
		}
	}
	for at, u := range useful {
		if !u {
			root.fix[at] = out
		}
	}
	s.weigh(&root, 1000)
	open := []node{root}
	for len(open) > 0 {
		s.bound = math.Inf(1)
		at := 0
		for i, n := range open {
			if n.bound < s.bound {
				at, s.bound = i, n.bound
			}
		}
		if s.met(s.bound) || s.work > mostWork {
			break
		}
		n := open[at]
		open = slices.Delete(open, at, at+1)
		place := s.doubtful(n)
		if place < 0 {
			s.settle(n)
			continue
		}
		for _, word := range [...]int8{in, out} {
			child := node{fix: slices.Clone(n.fix), price: slices.Clone(n.price), bound: n.bound}
			child.fix[place] = word
			s.weigh(&child, 60)
			if !s.met(child.bound) {
				open = append(open, child)
			}
		}
	}
	if len(open) == 0 {
		s.bound = s.total
	}
	s.bound = min(s.bound, s.total)
}

// met reports whether nothing over a bound can be shorter than the best sheet.
func (s *search) met(bound float64) bool { return bound >= s.total-hair*(1+s.total) }

// doubtful is the free place that a branch should settle: where the cheapest
// ways waver most. It is -1 where none is free.
func (s *search) doubtful(n node) int {
	at, worst := -1, math.Inf(1)
	for i, f := range n.fix {
		if f == free {
			if d := math.Abs(s.share[i] - 0.5); d < worst {
				at, worst = i, d
			}
		}
	}
	return at
}

// settle takes the one sheet that is left of a node.
func (s *search) settle(n node) {
	use := make([]bool, len(n.fix))
	for i, f := range n.fix {
		use[i] = f == in
	}
	if total := s.cost(use); total < s.total {
		s.best, s.total = use, total
	}
}

// weigh raises the bound of a node by moving the prices, at most so often, and
// mends what the cheapest ways come to into sheets. It settles what the bound
// then allows to be settled.
func (s *search) weigh(n *node, rounds int) {
	price := slices.Clone(n.price)
	over := make([]int, len(price))
	pace, since := 1.0, 0
	clear(s.share)
	for round := range rounds {
		bound := s.price(price, n.fix)
		if bound > n.bound || round == 0 {
			if bound > n.bound+hair*(1+bound) {
				since = 0
			}
			n.bound = max(n.bound, bound)
			copy(n.price, price)
		}
		if since++; since > 30 {
			pace, since = pace/2, 0
			copy(price, n.price)
		}
		if round%50 == 0 || round == rounds-1 {
			s.mend()
		}
		if s.met(n.bound) || pace < 1e-3 || s.work > mostWork {
			return
		}
		for i, u := range s.used {
			s.share[i] *= 0.9
			if u {
				s.share[i] += 0.1
			}
		}
		// A cut that several blades would make is priced too high, one that none would too low.
		norm := 0
		for c, may := range s.may {
			row := s.used[s.stage[c]*s.b:]
			n := 1
			for _, m := range may {
				if m.min >= price[c] {
					break
				}
				if row[m.blade] {
					n--
				}
			}
			over[c] = n
			norm += n * n
		}
		if norm == 0 {
			return // what the ways come to is a sheet, and the bound is its total
		}
		step := pace * max(s.total-bound, 1e-6) / float64(norm)
		for c := range price {
			price[c] = max(0, price[c]+step*float64(over[c]))
		}
	}
	s.probe(n)
}

// price works out what the cheapest ways of all saws come to at the prices,
// which no sheet of a node can beat, and marks what they use.
func (s *search) price(price []float64, fix []int8) float64 {
	clear(s.gain)
	bound := 0.0
	for c, may := range s.may {
		row := s.gain[s.stage[c]*s.b:]
		bound += price[c]
		for _, m := range may {
			if m.min >= price[c] {
				break
			}
			row[m.blade] += price[c] - m.min
			s.work++
		}
	}
	clear(s.used)
	for w := range s.rack {
		bound += s.way(w, fix)
	}
	return bound
}

// A turnout is what a stage comes to on a saw at the prices, whatever was on.
type turnout struct {
	base   float64 // of all that pay for their change, or must be used
	musts  int
	best   [2]float64 // the least that ending on another of its blades and all after it come to
	bestAt [2]int
}

// term is what a blade adds to a stage that changes to it, and whether it is
// used where nothing forces the end of the stage to be it.
func (s *search) term(at, b int, f int8) (float64, bool) {
	t := s.d.PutOn(b) - s.gain[at]
	return t, f == in || f == free && t < 0
}

// way is what the cheapest way of one saw through the stages comes to: changes
// less gains. s.to[k][b] is that of stage k and all after it with b on.
func (s *search) way(w int, fix []int8) float64 {
	rack := s.rack[w]
	outs := make([]turnout, s.s)
	for k := s.s - 1; k >= 0; k-- {
		outs[k] = s.stageWay(w, k, fix)
		for _, b := range rack {
			s.to[k][b], _ = s.step(outs[k], k, b, fix)
		}
		s.work += 2 * len(rack)
	}
	on := s.d.Mounted[w]
	total, _ := s.step(outs[0], 0, on, fix)
	for k := range s.s {
		_, end := s.step(outs[k], k, on, fix)
		if on != None && fix[k*s.b+on] != out && (end != on || s.gain[k*s.b+on] > 0 || fix[k*s.b+on] == in) {
			s.used[k*s.b+on] = true
		}
		if end != on {
			for _, b := range rack {
				if _, uses := s.term(k*s.b+b, b, fix[k*s.b+b]); b != on && uses {
					s.used[k*s.b+b] = true
				}
			}
			s.used[k*s.b+end] = true
		}
		on = end
	}
	return total
}

// stageWay gathers what a stage comes to on a saw; s.to of the next must be known.
func (s *search) stageWay(w, k int, fix []int8) turnout {
	t := turnout{best: [2]float64{math.Inf(1), math.Inf(1)}, bestAt: [2]int{None, None}}
	for _, b := range s.rack[w] {
		at := k*s.b + b
		if fix[at] == out {
			continue
		}
		add, uses := s.term(at, b, fix[at])
		if fix[at] == in {
			t.musts++
		}
		if uses {
			t.base += add
			add = 0
		}
		if end := add + s.to[k+1][b]; end < t.best[0] {
			t.best, t.bestAt = [2]float64{end, t.best[0]}, [2]int{b, t.bestAt[0]}
		} else if end < t.best[1] {
			t.best[1], t.bestAt[1] = end, b
		}
	}
	return t
}

// step is what a stage and all after it come to with a blade on as it begins,
// and which is on as it ends. What is on needs no change; a stage that changes
// ends on another, since coming back is a change that the next stage can make.
func (s *search) step(t turnout, k, on int, fix []int8) (float64, int) {
	base, musts, kept, after := t.base, t.musts, 0.0, 0.0
	if on != None {
		at := k*s.b + on
		add, uses := s.term(at, on, fix[at])
		if uses {
			base -= add
		}
		if fix[at] == in {
			musts--
		}
		if fix[at] != out {
			kept = -s.gain[at]
		}
		after = s.to[k+1][on]
	}
	total, end := math.Inf(1), on
	if musts == 0 {
		total = kept + after
	}
	i := 0
	if t.bestAt[0] == on && on != None {
		i = 1
	}
	if other := kept + base + t.best[i]; t.bestAt[i] != None && other < total {
		total, end = other, t.bestAt[i]
	}
	return total, end
}

// probe settles what a node's bound allows: a blade without which, or with
// which, nothing under the best sheet is left.
func (s *search) probe(n *node) {
	bound := s.price(n.price, n.fix)
	for w, rack := range s.rack {
		way := s.wayOnly(w, n.fix)
		for k := range s.s {
			for _, b := range rack {
				at := k*s.b + b
				if n.fix[at] != free {
					continue
				}
				n.fix[at] = in
				if s.met(bound - way + s.wayOnly(w, n.fix)) {
					n.fix[at] = out
					continue
				}
				n.fix[at] = out
				if s.met(bound - way + s.wayOnly(w, n.fix)) {
					n.fix[at] = in
					continue
				}
				n.fix[at] = free
			}
		}
	}
}

// wayOnly is way without marking what is used.
func (s *search) wayOnly(w int, fix []int8) float64 {
	var first turnout
	for k := s.s - 1; k >= 0; k-- {
		first = s.stageWay(w, k, fix)
		if k == 0 {
			break
		}
		for _, b := range s.rack[w] {
			s.to[k][b], _ = s.step(first, k, b, fix)
		}
	}
	s.work += 2 * len(s.rack[w]) * s.s
	total, _ := s.step(first, 0, s.d.Mounted[w], fix)
	return total
}
