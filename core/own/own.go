// Package own weighs which blades a shop should own: what its own cuts of a
// year, or the cuts that it means to make, would take with one blade more.
// Craft section 14: buy what the work asks for, when it asks; the honest answer
// is often "none pays".
//
// One sum decides everything: every row of the work in its order, each saw with
// the blade that is on it, cut in the minutes of model 7b, changing where that
// takes less. A blade saves what the sum is less with it.
package own

import (
	"cmp"
	"math"
	"slices"

	"corte/core/fault"
)

// Never are the minutes of a blade that may not make a cut.
var Never = math.Inf(1)

// A Row is pieces alike that were cut, or are to be, one after the other.
type Row struct {
	Kind   int // of cut, a place in Work.Minutes
	Pieces int
}

// Work is what a shop cuts. A kind of cut is one on one saw; blades are their
// places in the lists, those that are owned and those that are sold alike.
type Work struct {
	Minutes [][]float64 // [kind][blade], a piece; Never where it may not
	Saw     []int       // of each kind
	Change  []float64   // minutes that a change takes on each saw
	Rows    []Row       // in their order
	Could   [][]bool    // [kind][blade]: it makes the cut well, if nothing better is at hand; nil for what Minutes say
}

// could reports whether a blade stands in for a kind of cut.
func (w Work) could(k, b int) bool {
	if w.Could != nil {
		return w.Could[k][b]
	}
	return !math.IsInf(w.Minutes[k][b], 1)
}

// A Purchase is blades bought together.
type Purchase struct {
	Blades  []int
	Saves   float64 // minutes over all the work
	Changes float64 // minutes of changing of that; below 0 where it changes more often
	Takes   []Taken // the kinds that they take over, those that save most first
}

// Taken is a kind of cut that a bought blade takes over.
type Taken struct {
	Kind, Blade int
	Pieces      int
	Saves       float64 // minutes of cutting
}

// A Report is the result of Weigh.
type Report struct {
	Total     float64    // minutes that the work takes with what is owned
	One       []Purchase // the blades that save most, best first; at most three
	Two       *Purchase  // the best two together; nil where a second saves nothing
	Three     *Purchase
	Undone    []int // kinds that nothing owned may make
	NeverBest []int // owned blades that the work never takes
	Alone     []int // owned blades without which some kind cannot be made
}

// shortlist is how many of the sold blades are tried two and three at a time.
const shortlist = 6

// Weigh weighs the sold blades over the work against the owned ones.
func Weigh(w Work, owned, sold []int) (Report, error) {
	if err := w.check(); err != nil {
		return Report{}, err
	}
	runs := w.runs()
	// What nothing owned may make says what is missing, and stays out of the sum.
	var out Report
	for k := range w.Minutes {
		if !slices.ContainsFunc(owned, func(b int) bool { return !math.IsInf(w.Minutes[k][b], 1) }) {
			out.Undone = append(out.Undone, k)
		}
	}
	undone := func(r run) bool { return slices.Contains(out.Undone, r.kind) }
	for i := range runs {
		runs[i] = slices.DeleteFunc(runs[i], undone)
	}
	base := w.sum(runs, owned, true)
	out.Total = base.total
	for _, b := range owned {
		if base.pieces[b] == 0 {
			out.NeverBest = append(out.NeverBest, b)
		}
		for k := range w.Minutes {
			if w.could(k, b) && !slices.ContainsFunc(owned, func(o int) bool { return o != b && w.could(k, o) }) {
				out.Alone = append(out.Alone, b)
				break
			}
		}
	}
	saves := func(blades ...int) float64 {
		return base.total - w.sum(runs, append(slices.Clone(owned), blades...), false).total
	}
	tell := func(blades ...int) Purchase {
		with := w.sum(runs, append(slices.Clone(owned), blades...), true)
		p := Purchase{Blades: blades, Saves: base.total - with.total, Changes: base.changes - with.changes}
		for at, n := range with.taken {
			if slices.Contains(blades, at[1]) {
				p.Takes = append(p.Takes, Taken{Kind: at[0], Blade: at[1], Pieces: n, Saves: base.cutting[at[0]] - with.cutting[at[0]]})
			}
		}
		slices.SortFunc(p.Takes, func(a, b Taken) int {
			return cmp.Or(cmp.Compare(b.Saves, a.Saves), cmp.Compare(a.Kind, b.Kind), cmp.Compare(a.Blade, b.Blade))
		})
		return p
	}
	type bid struct {
		blade int
		saves float64
	}
	var all []bid
	for _, b := range sold {
		if v := saves(b); v > hair {
			all = append(all, bid{b, v})
		}
	}
	slices.SortStableFunc(all, func(a, b bid) int { return cmp.Compare(b.saves, a.saves) })
	for _, b := range all[:min(3, len(all))] {
		out.One = append(out.One, tell(b.blade))
	}
	if len(all) == 0 {
		return out, nil
	}
	short := all[:min(shortlist, len(all))]
	best := all[0].saves
	var two, three []int
	for i, a := range short {
		for _, b := range short[:i] {
			if v := saves(b.blade, a.blade); v > best+hair {
				best, two = v, []int{b.blade, a.blade}
			}
		}
	}
	for i, a := range short {
		for j, b := range short[:i] {
			for _, c := range short[:j] {
				if v := saves(c.blade, b.blade, a.blade); v > best+hair {
					best, three = v, []int{c.blade, b.blade, a.blade}
				}
			}
		}
	}
	for set, into := range map[*[]int]**Purchase{&two: &out.Two, &three: &out.Three} {
		if *set != nil {
			p := tell(*set...)
			*into = &p
		}
	}
	return out, nil
}

// hair is the rounding error allowed in a sum, in minutes.
const hair = 1e-6

func (w Work) check() error {
	if len(w.Saw) != len(w.Minutes) {
		return fault.At("saw", "every kind of cut is on a saw")
	}
	for i, r := range w.Rows {
		if r.Kind < 0 || r.Kind >= len(w.Minutes) || r.Pieces < 1 {
			return fault.Nth(i, "rows", "a row has a kind of cut and 1 piece or more")
		}
	}
	return nil
}

// A run is consecutive rows of one kind on one saw.
type run struct {
	kind, pieces int
}

// runs groups the work by saw. Consecutive rows of one kind are one run, since no
// blade is changed within it.
func (w Work) runs() [][]run {
	out := make([][]run, len(w.Change))
	for _, r := range w.Rows {
		s := w.Saw[r.Kind]
		if last := len(out[s]) - 1; last >= 0 && out[s][last].kind == r.Kind {
			out[s][last].pieces += r.Pieces
		} else {
			out[s] = append(out[s], run{r.Kind, r.Pieces})
		}
	}
	return out
}

// A sum is what the work takes with a set of blades.
type sum struct {
	total, changes float64
	cutting        []float64      // minutes of each kind
	pieces         map[int]int    // that each blade cuts
	taken          map[[2]int]int // pieces of a kind and a blade
}

// sum goes through each saw's runs with the blade that is on: staying where that
// takes less than a change, and changing to whatever takes least from there on.
// Without detail only the total is said.
func (w Work) sum(runs [][]run, blades []int, detail bool) sum {
	out := sum{pieces: map[int]int{}, taken: map[[2]int]int{}}
	n := len(blades)
	least, next := make([]float64, n), make([]float64, n)
	for s, all := range runs {
		if len(all) == 0 {
			continue
		}
		var from []int32 // [run*n+blade]: what was on before
		if detail {
			from = make([]int32, len(all)*n)
		}
		clear(least)
		best, change := 0, 0.0 // whatever is on as the work begins
		for at, r := range all {
			minutes, pieces := w.Minutes[r.kind], float64(r.pieces)
			move, then := least[best]+change, 0
			for i, b := range blades {
				v, was := least[i], i
				if move < v {
					v, was = move, best
				}
				if detail {
					from[at*n+i] = int32(was)
				}
				next[i] = v + pieces*minutes[b]
				if next[i] < next[then] {
					then = i
				}
			}
			least, next = next, least
			best, change = then, w.Change[s]
		}
		out.total += least[best]
		if !detail {
			continue
		}
		if out.cutting == nil {
			out.cutting = make([]float64, len(w.Minutes))
		}
		on := best
		for at := len(all) - 1; at >= 0; at-- {
			r, b := all[at], blades[on]
			out.cutting[r.kind] += float64(r.pieces) * w.Minutes[r.kind][b]
			out.pieces[b] += r.pieces
			out.taken[[2]int{r.kind, b}] += r.pieces
			if was := int(from[at*n+on]); was != on {
				if at > 0 {
					out.changes += w.Change[s]
				}
				on = was
			}
		}
	}
	if out.cutting == nil {
		out.cutting = make([]float64, len(w.Minutes))
	}
	return out
}

// Pay is what a blade costs and saves in a year, in money.
type Pay struct {
	Year  float64 // worth of the minutes that it saves
	Spent float64 // its price and its sharpenings, over the life that it has
	Keep  float64 // the part of Spent that goes into sharpenings
	Price float64
}

// Pays weighs minutes saved in a year against a price. metres are what it cuts in
// a year, lifeM what one edge lasts (0 where nobody knows: then it is never
// sharpened), hour what an hour is worth.
func Pays(savesMin, metres, lifeM, price, sharpening float64, sharpenings int, hour float64) Pay {
	p := Pay{Year: savesMin / 60 * hour, Price: price}
	if lifeM > 0 && !math.IsInf(lifeM, 1) {
		lives := metres / lifeM / float64(sharpenings+1)
		p.Keep = lives * float64(sharpenings) * sharpening
		p.Spent = p.Keep + lives*price
	}
	return p
}

// And adds two purchases together.
func (p Pay) And(q Pay) Pay {
	return Pay{p.Year + q.Year, p.Spent + q.Spent, p.Keep + q.Keep, p.Price + q.Price}
}

// After is the number of years in which it pays for itself; +Inf if it never does.
func (p Pay) After() float64 {
	if left := p.Year - p.Keep; left > 0 {
		return p.Price / left
	}
	return math.Inf(1)
}
